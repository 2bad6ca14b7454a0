"""Rods, arms and grips of the steering as the screen draws them."""

from nodulant.axles.points import HardPoint, on_axle
from nodulant.axles.steering import CentreLink, DragLink, KingPins, Rack, Steering
from nodulant.evaluate.steering.steer_drawing import ARM, JOINT, KNUCKLE
from nodulant.evaluate.suspensions.travel_drawing import Member
from nodulant.evaluate.suspensions.travel_parts import point
from nodulant.linkage.mechanism import End, Point
from nodulant.steering.knuckles import ROD_MM
from nodulant.suspension.study import Study


def steer_members(s: Study) -> tuple[Member, ...]:
    """Rack or arms, tie rod and drag link, knuckles' arms; toe links are the suspension's own."""
    steering, setting = s.suspension.steering, s.setting
    if steering is None or setting is None:
        return ()
    return (*_gear_members(s, steering, setting.hub), *_shaft_members(steering))


def _shaft_members(steering: Steering) -> list[Member]:
    """Column, shafts and the gear's input as bars."""
    shaft = steering.shaft
    if shaft is None:
        return []
    points = [p.xyz() for p in (shaft.column, *shaft.joints, shaft.gear)]
    names = ("steering column", *(f"steering shaft {k}" for k in range(1, len(points) - 2)), "box's input shaft")
    return [
        _member(name, "arm", End(-1, a), End(-1, b), shaft.diameter_mm)
        for name, a, b in zip(names, points[:-1], points[1:], strict=True)
    ]


def _gear_members(s: Study, steering: Steering, hub: Point) -> tuple[Member, ...]:
    gear, layout = steering.gear, s.suspension.layout
    toe = next((n.link.frame for n in layout.links() if n.path == "toe"), None)
    if isinstance(gear, Rack):
        return _across("rack", toe, RACK_MM)
    arm = _member("pitman arm", "arm", End(-1, gear.box.shaft.xyz()), End(ARM, gear.box.arm_end.xyz()), 40.0)
    if isinstance(gear, CentreLink):
        return (arm, *_across("centre link", toe, ROD_MM))
    if steering.king_pins is None:
        return (arm,)
    return (arm, *_beam_rods(gear, steering.king_pins, hub))


RACK_MM = 44.0


def _across(name: str, joint: HardPoint | None, width: float) -> tuple[Member, ...]:
    """The right half of what runs across between the inner joints."""
    if joint is None:
        return ()
    return (_member(name, "rack", End(JOINT, joint.xyz()), End(JOINT, (joint.x_mm, 0.0, joint.z_mm)), width),)


def _beam_rods(gear: DragLink, pins: KingPins, hub: Point) -> list[Member]:
    right = gear.knuckle.y_mm >= 0
    own, end = (KNUCKLE if right else KNUCKLE + 1), on_axle(gear.knuckle, hub)
    lower = on_axle(pins.lower if right else pins.lower.mirrored(), hub)
    ties = [End(KNUCKLE, on_axle(pins.tie_rod, hub)), End(KNUCKLE + 1, on_axle(pins.tie_rod.mirrored(), hub))]
    out = [
        _member("drag link", "rod", End(ARM, gear.box.arm_end.xyz()), End(own, end), ROD_MM),
        _member("tie rod", "rod", ties[0], ties[1], ROD_MM),
        _member("drag link's arm", "arm", End(own, lower), End(own, end), 26.0),
    ]
    for tie, name in zip(ties, ("right", "left"), strict=True):
        low, up = (on_axle(p if name == "right" else p.mirrored(), hub) for p in (pins.lower, pins.upper))
        a, b, c = ((u + v) / 2 for u, v in zip(low, up, strict=True))
        out.append(_member(f"steering arm, {name}", "arm", End(tie.body, (a, b, c)), tie, 30.0))
        out.append(_member(f"king pin, {name}", "arm", End(0, low), End(0, up), 36.0))
    return out


def _member(name: str, kind: str, a: End, b: End, width: float) -> Member:
    return Member(name=name, kind=kind, path="steering", a=point(a), b=point(b), diameter_mm=width)


def steer_grips(s: Study) -> dict[str, tuple[str, End]]:
    """Points of box, arms and king pins that a hand may drag, by their path in the suspension."""
    steering, setting = s.suspension.steering, s.setting
    if steering is None or setting is None:
        return {}
    gear, hub, out = steering.gear, setting.hub, {}
    if not isinstance(gear, Rack):
        out["steering.gear.box.shaft"] = ("box's shaft", End(-1, gear.box.shaft.xyz()))
        out["steering.gear.box.arm_end"] = ("pitman arm's end", End(-1, gear.box.arm_end.xyz()))
    if isinstance(gear, DragLink):
        out["steering.gear.knuckle"] = ("drag link, axle end", End(0, on_axle(gear.knuckle, hub)))
    if (shaft := steering.shaft) is not None:
        out["steering.shaft.column"] = ("steering wheel", End(-1, shaft.column.xyz()))
        out["steering.shaft.gear"] = ("gear's input shaft", End(-1, shaft.gear.xyz()))
        for k, joint in enumerate(shaft.joints):
            out[f"steering.shaft.joints.{k}"] = (f"steering shaft, joint {k + 1}", End(-1, joint.xyz()))
    if (pins := steering.king_pins) is not None:
        rows = (("upper", "king pin, upper end"), ("lower", "king pin, lower end"), ("tie_rod", "tie rod, right end"))
        out |= {f"steering.king_pins.{n}": (words, End(0, on_axle(getattr(pins, n), hub))) for n, words in rows}
    return out
