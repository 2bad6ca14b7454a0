"""Links, springs, dampers and hard points of a suspension as the screen draws them."""

from nodulant.axles.layouts.independent import TOE_LINK, Strut
from nodulant.axles.points import on_axle
from nodulant.axles.springs import AirSpring, Coilover, Damper, StopOnFrame, Strap, TorsionBar
from nodulant.driveline.driveline import Driveline
from nodulant.evaluate.steering.steer_drawing import JOINT
from nodulant.evaluate.steering.steer_members import steer_grips
from nodulant.evaluate.suspensions.arm_drawing import arm_bodies
from nodulant.evaluate.suspensions.bar_drawing import bar_members
from nodulant.evaluate.suspensions.shaft import shaft_grips
from nodulant.evaluate.suspensions.travel_drawing import Grip, Member
from nodulant.evaluate.suspensions.travel_parts import point
from nodulant.linkage.mechanism import CARRIER, FRAME, End
from nodulant.suspension.motion import Motion
from nodulant.suspension.spring_motion import both_strung, strung
from nodulant.suspension.study import Study


def members(s: Study, m: Motion) -> tuple[Member, ...]:
    """Rods, cranks, springs, dampers and straps at ride height."""
    links = {n.name: n for n in s.suspension.layout.links()}
    out, steered = [], s.suspension.steering is not None
    for rod in m.sweep.compiled.mechanism.rods:
        named = links.get(rod.name)
        out.append(
            Member(
                name=rod.name,
                kind="link" if named else "rod",
                path=named.path if named else "",
                a=point(rod.a),
                b=point(End(JOINT, rod.b.point) if steered and rod.name == TOE_LINK else rod.b),
                diameter_mm=named.link.tube.od_mm if named else 24.0,
            )
        )
    out += _cranks_drawn(m) + _struts_drawn(s, m)
    springs = s.suspension.springs
    if isinstance(springs, TorsionBar):
        out += _bars_drawn(springs, m)
    if isinstance(springs, Coilover | AirSpring):
        width = springs.body_mm if springs.kind == "coilover" else springs.diameter_mm
        two = springs.apart_mm if springs.kind == "coilover" and springs.count == 2 else 0.0
        for side, own in zip(("right", "left"), both_strung(springs, m), strict=False):
            ends = (End(arm_bodies(s.suspension)[springs.on], own.foot.at), End(FRAME, own.upper))
            out += _standing("spring", "springs", side, ends, width, two)
    return (*out, *_beside_the_springs(s, m), *_stops_drawn(s), *bar_members(s.suspension, m))


def _bars_drawn(bar: TorsionBar, m: Motion) -> list[Member]:
    """A torsion bar from its arm to its key."""
    own = strung(bar, m)
    arm = own.foot.arm
    if arm is None:
        return []
    pick = max if bar.anchor == "behind" else min
    start = pick(arm.front, arm.rear, key=lambda p: p[0])
    a, b = point(End(FRAME, start)), point(End(FRAME, own.upper))
    return [Member(name="torsion bar, right", kind="rod", path="", a=a, b=b, diameter_mm=bar.diameter_mm)]


def _standing(kind: str, path: str, side: str, ends: tuple[End, End], width: float, apart: float) -> list[Member]:
    """One spring or damper of a side, or the two of a pair, one behind the other."""
    spots = (0.0,) if not apart else (-apart / 2, apart / 2)
    return [
        Member(
            name=f"{kind}, {side}" if not apart else f"{'front' if dx < 0 else 'rear'} {kind}, {side}",
            kind=kind,
            path=path,
            a=point(_shifted(ends[0], dx)),
            b=point(_shifted(ends[1], dx)),
            diameter_mm=width,
        )
        for dx in spots
    ]


def _shifted(end: End, dx: float) -> End:
    return End(end.body, (end.point[0] + dx, end.point[1], end.point[2]))


def _beside_the_springs(s: Study, m: Motion) -> list[Member]:
    """Dampers and straps of their own."""
    rows: list[tuple[str, Damper | Strap, float]] = []
    if s.suspension.damper is not None:
        rows.append(("damper", s.suspension.damper, s.suspension.damper.body_mm))
    if s.suspension.strap is not None:
        rows.append(("strap", s.suspension.strap, 8.0))
    out = []
    for name, own, width in rows:
        low, up = on_axle(own.lower, m.setting.hub), own.upper.xyz()
        for side, sign in (("right", 1.0),) if m.layout.independent else (("right", 1.0), ("left", -1.0)):
            body = arm_bodies(s.suspension)[own.on] if isinstance(own, Damper) else CARRIER
            ends = (End(body, (low[0], sign * low[1], low[2])), End(FRAME, (up[0], sign * up[1], up[2])))
            two = own.apart_mm if isinstance(own, Damper) and own.count == 2 else 0.0
            out += _standing(name, name, side, ends, width, two)
    return out


def placed_on_frame(s: Study) -> StopOnFrame | None:
    """The bump stop, where it is placed on the frame."""
    stop = s.suspension.stop
    return stop.place if stop is not None and isinstance(stop.place, StopOnFrame) else None


STOP_MM = 50.0


def _stops_drawn(s: Study) -> list[Member]:
    """Bump stops on the frame, from tip to base."""
    place = placed_on_frame(s)
    if place is None:
        return []
    tall, out = place.tall_mm + place.shims_mm, []
    for side, sign in (("right", 1.0),) if s.suspension.layout.independent else (("right", 1.0), ("left", -1.0)):
        x, y, z = place.base.xyz()
        dx, dy, dz = (tall * v for v in place.axis)
        tip, base = End(FRAME, (x + dx, sign * (y + dy), z + dz)), End(FRAME, (x, sign * y, z))
        name = f"bump stop, {side}"
        out.append(Member(name=name, kind="rod", path="", a=point(tip), b=point(base), diameter_mm=STOP_MM))
    return out


def _cranks_drawn(m: Motion) -> list[Member]:
    """Every crank between the first and the last rod that ends on it."""
    out = []
    for k, piece in enumerate(m.sweep.compiled.mechanism.pieces, start=1):
        ends = [end for rod in m.sweep.compiled.mechanism.rods for end in (rod.a, rod.b) if end.body == k]
        if len(ends) > 1:
            out.append(
                Member(name=piece.name, kind="crank", path="", a=point(ends[0]), b=point(ends[-1]), diameter_mm=40.0)
            )
    return out


def _struts_drawn(s: Study, m: Motion) -> list[Member]:
    """The strut from its foot on the upright to the top mount."""
    layout = s.suspension.layout
    if not isinstance(layout, Strut):
        return []
    a, b = point(End(0, on_axle(layout.foot, m.setting.hub))), point(End(-1, layout.top.xyz()))
    return [Member(name="strut", kind="spring", path="", a=a, b=b, diameter_mm=STRUT_MM)]


STRUT_MM = 130.0


def members_at_rest(s: Study) -> tuple[Member, ...]:
    """Links where they were put, though the linkage does not move."""
    if s.setting is None:
        return ()
    return tuple(
        Member(
            name=n.name,
            kind="link",
            path=n.path,
            a=point(End(0, on_axle(n.link.axle, s.setting.hub))),
            b=point(End(-1, n.link.frame.xyz())),
            diameter_mm=n.link.tube.od_mm,
        )
        for n in s.suspension.layout.links()
    )


def grips(s: Study, index: int, driveline: Driveline | None) -> tuple[Grip, ...]:
    """Every hard point once, of a pair the right one, by its path in the design."""
    if s.setting is None:
        return ()
    hub = s.setting.hub
    rows: dict[str, tuple[str, End]] = {}
    for n in s.suspension.layout.links():
        rows.setdefault(f"layout.{n.path}.axle", (n.name, End(0, on_axle(n.link.axle, hub))))
        rows.setdefault(f"layout.{n.path}.frame", (n.name, End(-1, n.link.frame.xyz())))
    for path, (where, own_point) in s.suspension.layout.points().items():
        end = End(-1, own_point.xyz()) if where == "frame" else End(0, on_axle(own_point, hub))
        rows[f"layout.{path}"] = (path.replace("_", " ").replace(".", " "), end)
    springs = s.suspension.springs
    if isinstance(springs, Coilover | AirSpring):
        rows["springs.lower"] = (
            "spring, lower end",
            End(arm_bodies(s.suspension)[springs.on], on_axle(springs.lower, hub)),
        )
        rows["springs.upper"] = ("spring, frame end", End(-1, springs.upper.xyz()))
    for name, beside in (("damper", s.suspension.damper), ("strap", s.suspension.strap)):
        if beside is not None:
            body = arm_bodies(s.suspension)[beside.on] if isinstance(beside, Damper) else CARRIER
            rows[f"{name}.lower"] = (f"{name}, lower end", End(body, on_axle(beside.lower, hub)))
            rows[f"{name}.upper"] = (f"{name}, frame end", End(-1, beside.upper.xyz()))
    if (place := placed_on_frame(s)) is not None:
        rows["stop.place.base"] = ("bump stop's base", End(-1, place.base.xyz()))
        body = arm_bodies(s.suspension)[place.on]
        rows["stop.place.pad"] = ("what strikes the bump stop", End(body, on_axle(place.pad, hub)))
    rows |= steer_grips(s)
    own = {f"suspensions.{index}.{path}": row for path, row in rows.items()} | shaft_grips(driveline, hub)
    return tuple(Grip(path=path, name=name, at=point(end)) for path, (name, end) in own.items())
