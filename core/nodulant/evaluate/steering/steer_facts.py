"""Figures and curves of the steering."""

import math

import numpy as np

from nodulant.axles.layouts.live import LeafSprings
from nodulant.axles.points import on_axle
from nodulant.axles.steering import DragLink
from nodulant.base.arrays import Columns, Rows
from nodulant.base.errors import InputError
from nodulant.evaluate.curve import Curve, Figure, curves_of
from nodulant.evaluate.steering.steer_drawing import LockFigures
from nodulant.evaluate.suspensions.travel_drawing import Fact
from nodulant.linkage.mechanism import Point
from nodulant.parts.sides import Side
from nodulant.parts.tyre import parse_tyre
from nodulant.steering.column import shaft_figures
from nodulant.steering.measures import ackermann_outer_deg
from nodulant.steering.study import SteerStudy, ackermann_percent, circle_mm, lock, pins_apart_mm, ratio
from nodulant.steering.turned import turned
from nodulant.suspension.study import Study

INNER_DEG = (20.0, 30.0)


def steer_curves(q: SteerStudy, inputs: Rows) -> tuple[Curve, ...]:
    """Figures over the input at ride height, at some of the inputs."""
    wheels = q.wheels
    if wheels is None or q.right is None or q.left is None:
        return ()
    there = (wheels.right.there & wheels.left.there)[q.ride]
    one, two = (v.steer_deg[q.ride] for v in (q.right, q.left))
    rows = [
        ("right", "Right wheel", "deg", one, "to the right positive, at ride height"),
        ("left", "Left wheel", "deg", two, "to the right positive, at ride height"),
        ("mean-toe", "Wheels toe out by", "deg", np.abs(one - two), "difference of both wheels' angles"),
    ]
    base, apart = q.study.vehicle.wheelbase_mm, pins_apart_mm(q)
    if base is not None and apart is not None:
        rows.append(
            ("ideal", "Ackermann would be", "deg", _ideal(one, two, apart, base), "difference for this inner wheel")
        )
    rows += [
        ("camber-right", "Camber, right wheel", "deg", q.right.camber_deg[q.ride], "top outward positive"),
        ("camber-left", "Camber, left wheel", "deg", q.left.camber_deg[q.ride], "top outward positive"),
        ("trail", "Trail, right wheel", "mm", q.right.trail_mm[q.ride], "tyre's middle behind the king pin's foot"),
        (
            "scrub",
            "Scrub radius, right wheel",
            "mm",
            q.right.scrub_mm[q.ride],
            "tyre's middle outside the king pin's foot",
        ),
    ]
    rows += [
        ("caster-right", "Caster, right wheel", "deg", q.right.caster_deg[q.ride], "top of the king pin rearward"),
        (
            "inclination-right",
            "Inclination, right wheel",
            "deg",
            q.right.inclination_deg[q.ride],
            "top inward positive",
        ),
        (
            "track-change",
            "Right tyre's foot moves out by",
            "mm",
            q.right.patch[q.ride, :, 1] - q.right.patch[q.ride, q.ahead, 1],
            "on the road, as the wheel is turned",
        ),
        *_rising(q),
    ]
    ahead = int(np.flatnonzero(inputs == q.ahead)[0])
    return curves_of([(i, n, u, v[inputs], w) for i, n, u, v, w in rows], there[inputs], ahead)


def _rising(q: SteerStudy) -> list[Figure]:
    """What the turned wheel does as it rises."""
    found, s = turned(q), q.study
    if found is None:
        return []
    words = "y v_y/v_z of the tyre's foot, the wheel turned"
    rows = [("roll-centre-turned", "Roll centre above ground", "mm", np.nan_to_num(found.roll_centre_mm), words)]
    high, base = s.centre_above_ground_mm, s.vehicle.wheelbase_mm
    if high is not None and base is not None and high > 0:
        sign, share = (1.0 if s.suspension.axle == "rear" else -1.0), s.suspension.brake_share
        dive = np.nan_to_num(100 * sign * share * found.braked_slope * base / high)
        rows.append(("anti-dive-turned", "Anti-dive", "%", dive, f"with {share:.0%} of the braking on this axle"))
    if found.ratio is not None:
        ratio_words = "spring's shortening per mm of wheel travel, the wheel turned"
        rows.append(("ratio-turned", "Motion ratio", "x", np.nan_to_num(found.ratio), ratio_words))
    return rows


def _ideal(one: Columns, two: Columns, apart: float, base: float) -> Columns:
    inner = np.maximum(np.abs(one), np.abs(two))
    return np.array([0.0 if i < 1e-6 else i - ackermann_outer_deg(float(i), apart, base) for i in inner])


def steer_facts(q: SteerStudy) -> tuple[Fact, ...]:
    """Ratio and king pins."""
    if q.wheels is None or q.straight is None:
        return ()
    out: list[Fact | None] = [_fact("Ratio about the middle", ratio(q), "to 1", "steering wheel over road wheels")]
    v, ride = q.straight, q.study.ride
    out += [
        _fact("Caster", float(v.caster_deg[ride, 0]), "deg", "at ride height, top rearward positive"),
        _fact("King pin inclination", float(v.inclination_deg[ride, 0]), "deg", "top inward positive"),
        _fact("Scrub radius", float(v.scrub_mm[ride, 0]), "mm", "tyre's middle outside the king pin's foot"),
        _fact("Trail", float(v.trail_mm[ride, 0]), "mm", "tyre's middle behind the king pin's foot"),
        _fact("Between the king pins' feet", pins_apart_mm(q), "mm", "on the road"),
    ]
    return tuple(f for f in (*out, *_parallel(q.study), *_shaft_facts(q)) if f is not None)


def _parallel(s: Study) -> list[Fact | None]:
    """How far a drag link lies out of parallel with what it should follow, seen from behind or from the side."""
    steering = s.suspension.steering
    if steering is None or s.setting is None or not isinstance(steering.gear, DragLink):
        return []
    gear, hub = steering.gear, s.setting.hub
    drag = _run(on_axle(gear.knuckle, hub), gear.box.arm_end.xyz())
    out: list[Fact | None] = []
    bar = next((n for n in s.suspension.layout.links() if n.lateral), None)
    if bar is not None:
        other = _run(on_axle(bar.link.axle, hub), bar.link.frame.xyz())
        words = "seen from behind at ride height; parallel to it, bump steers least"
        out.append(_fact(f"Drag link out of parallel with the {bar.name}", _between(drag, other, 1), "deg", words))
    if isinstance(s.suspension.layout, LeafSprings):
        own = s.suspension.layout
        seat = on_axle(own.seat, hub)
        words = "seen from the side at ride height, the spring's line from its front eye to the axle"
        out.append(
            _fact(
                "Drag link out of parallel with the spring", _between(drag, _run(seat, own.eye.xyz()), 0), "deg", words
            )
        )
    if steering.king_pins is not None:
        words = "seen from behind; the tie rod lies level"
        out.append(
            _fact("Drag link out of parallel with the tie rod", _between(drag, (0.0, 1.0, 0.0), 1), "deg", words)
        )
    return out


def _run(a: Point, b: Point) -> Point:
    return (b[0] - a[0], b[1] - a[1], b[2] - a[2])


def _between(one: Point, two: Point, level: int) -> float | None:
    """Angle between two lines in the view along x (level 1) or y (level 0), degrees; None for one that points at the eye."""
    slopes = []
    for line in (one, two):
        if math.hypot(line[level], line[2]) < LEAST_RUN_MM:
            return None
        slopes.append(math.degrees(math.atan2(line[2], line[level])))
    off = abs(slopes[0] - slopes[1]) % 180.0
    return min(off, 180.0 - off)


LEAST_RUN_MM = 1.0


def _shaft_facts(q: SteerStudy) -> list[Fact | None]:
    """Angles and unevenness of the steering shaft, and the clocking that evens it out."""
    steering = q.study.suspension.steering
    if steering is None or steering.shaft is None:
        return []
    try:
        found = shaft_figures(steering.shaft)
    except InputError:
        return []  # the check says why
    out = [
        _fact(f"Steering shaft, joint {k}", angle, "deg", "between both shafts in space")
        for k, angle in enumerate(found.angles_deg, start=1)
    ]
    out.append(
        _fact(
            "Unevenness at the steering wheel",
            found.uneven_percent,
            "%",
            "most less least of the speed over half a turn",
        )
    )
    for best in found.best_clocking_deg[:1]:
        words = f"lower yoke against the upper one; {found.best_uneven_percent:.1f} % is left then"
        out.append(_fact("Best clocking of the shaft", best, "deg", words))
    return out


def locks(q: SteerStudy, tyre: str | None) -> tuple[LockFigures, ...]:
    """Full lock to the left and to the right at ride height."""
    width, out = parse_tyre(tyre).section_width_mm if tyre else 0.0, []
    sides: tuple[tuple[int, Side], ...] = ((-1, "left"), (1, "right"))
    for way, side in sides:
        end = lock(q, way)
        if end is not None:
            circle = circle_mm(q, way, width)
            out.append(
                LockFigures(
                    to=side,
                    inner_deg=end.inner_deg,
                    outer_deg=end.outer_deg,
                    reached=end.reached,
                    circle_m=None if circle is None else circle / 1000,
                    ackermann={f"{inner:.0f}": ackermann_percent(q, inner, way) for inner in INNER_DEG},
                )
            )
    return tuple(out)


def _fact(name: str, value: float | None, unit: str, words: str) -> Fact | None:
    return None if value is None else Fact(name=name, value=value, unit=unit, words=words)


def straight_curves(q: SteerStudy) -> list[Figure]:
    """Angles of the right wheel straight ahead through travel."""
    v = q.straight
    if v is None:
        return []
    ride = q.study.ride
    rows = [
        ("toe", "Toe, right wheel", "deg", v.toe_deg[:, 0], "toe-in positive, the steering wheel held"),
        ("camber", "Camber, right wheel", "deg", v.camber_deg[:, 0], "top outward positive"),
        ("caster", "Caster", "deg", v.caster_deg[:, 0], "top rearward positive"),
        ("inclination", "King pin inclination", "deg", v.inclination_deg[:, 0], "top inward positive"),
        ("scrub", "Scrub radius", "mm", v.scrub_mm[:, 0], "tyre's middle outside the king pin's foot"),
        ("trail", "Trail", "mm", v.trail_mm[:, 0], "tyre's middle behind the king pin's foot"),
        (
            "half-track",
            "Tyre moves outward",
            "mm",
            v.patch[:, 0, 1] - v.patch[ride, 0, 1],
            "its foot on the road, right",
        ),
    ]
    if q.steer is not None:
        rows[0] = (
            "steer",
            "Wheels steer by themselves",
            "deg",
            q.steer,
            "to the right positive, the steering wheel held",
        )
    return rows
