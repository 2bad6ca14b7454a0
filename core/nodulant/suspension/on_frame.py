"""What a suspension puts on the frame in a case: the pull of every link's frame end, the push of every spring."""

from dataclasses import replace

import numpy as np

from nodulant.axles.layouts.live import LeafSprings
from nodulant.axles.springs import AirSpring, Coilover
from nodulant.base.memo import remembered
from nodulant.linkage.mechanism import CARRIER, FRAME, End, Mechanism, Point
from nodulant.loads.plan import Pull, Push
from nodulant.suspension.feet import Foot, Springing, Strung, bears, stands
from nodulant.suspension.forces import Forces, LoadCase, balance, tyre_forces
from nodulant.suspension.motion import Motion
from nodulant.suspension.spring_motion import both_strung
from nodulant.suspension.study import Study

ARM_MM = 100.0
SPRING_OUT = 0.6
"""Of half the track: where a spring that is not described stands (common practice)."""
UNBALANCED = 0.01
"""Of the load: a linkage that leaves more than this uncarried says nothing of the frame."""


@remembered(8)
def beyond_standing(s: Study, case: LoadCase) -> tuple[Pull, ...]:
    """Forces on the frame at ride height in ``case`` less those of standing; none where they are not known."""
    if s.motion is None or s.loads is None or s.suspension.springs is None:
        return ()
    springs = both_strung(s.suspension.springs, s.motion)
    rows: list[list[Pull]] = []
    both: tuple[LoadCase, LoadCase] = (case, "standing")
    for own in both:
        tyres = tyre_forces(own, s.loads, s.motion)
        if tyres is None:
            return ()
        found = balance(s.motion, s.ride, springs, tyres)
        if found.left_n > UNBALANCED * s.loads.standing_n:
            return ()
        rows.append([*_links(s.motion, found), *_springs(springs, found, s.motion, s.ride)])
    return tuple(_less(pull, standing) for pull, standing in zip(*rows, strict=True))


@remembered(8)
def push_along(s: Study) -> Push | None:
    """Forces on the frame at ride height for a newton rearward on the axle; None where they are not known.

    Statics of axle and wheels; wheels that move by themselves take half of it each. Springs that are not described push
    straight up over the axle and twist nothing: all that they do here is to take what sloping links lift.
    """
    if s.motion is None:
        return None
    m, described = s.motion, s.suspension.springs
    springs = _upright(m) if described is None else both_strung(described, m)
    single, half = m.layout.independent, m.setting.half_track_mm
    rows: list[tuple[Pull, ...]] = []
    for up in (0.0, ARM_MM):
        tyres = [((0.5, 0.0, 0.0), (0.0, y, up)) for y in ((half,) if single else (half, -half))]
        found = balance(m, s.ride, springs, tyres)
        if found.left_n > UNBALANCED:
            return None
        pushes = [replace(p, on_rail=described is None) for p in _springs(springs, found, m, s.ride)]
        right = [*_links(m, found), *pushes]
        rows.append((*right, *(pull.mirrored() for pull in right if single)))
    low, high = rows
    each = tuple(_less(b, a).times(1 / ARM_MM) for a, b in zip(low, high, strict=True))
    return Push(m.setting.hub[2], low, each, m.layout.torque_on_carrier)


@remembered(8)
def springs_up(s: Study) -> tuple[Pull, ...]:
    """What a beam axle's coils or air springs put on the frame at ride height for a newton of its load; none where they are not known.

    Leaves hang on their hangers, and arms that move by themselves come in one piece with their crossmember.
    """
    described = s.suspension.springs
    if s.motion is None or s.motion.layout.independent or not isinstance(described, Coilover | AirSpring):
        return ()
    m, springs, half = s.motion, both_strung(described, s.motion), s.motion.setting.half_track_mm
    found = balance(m, s.ride, springs, [((0.0, 0.0, 0.5), (0.0, y, 0.0)) for y in (half, -half)])
    return () if found.left_n > UNBALANCED else tuple(_springs(springs, found, m, s.ride))


@remembered(8)
def pushed_sideways(s: Study) -> tuple[Pull, ...]:
    """What a beam axle on links puts on the frame at ride height for a newton to the right on its tyres, at the ground.

    Nothing where it is not known; leaves take it at their hangers, and arms that move by themselves at their crossmember.
    """
    if s.motion is None or s.motion.layout.independent or isinstance(s.motion.layout, LeafSprings):
        return ()
    m, described = s.motion, s.suspension.springs
    springs = _upright(m) if described is None else both_strung(described, m)
    half, ground = m.setting.half_track_mm, -m.setting.radius_mm
    found = balance(m, s.ride, springs, [((0.0, 0.5, 0.0), (0.0, y, ground)) for y in (half, -half)])
    if found.left_n > UNBALANCED:
        return ()
    pushes = [replace(p, on_rail=described is None) for p in _springs(springs, found, m, s.ride)]
    return (*_links(m, found), *pushes)


def _upright(m: Motion) -> list[Springing]:
    (x, _, z), y = m.setting.hub, SPRING_OUT * m.setting.half_track_mm
    sides = (y,) if m.layout.independent else (y, -y)
    return [Strung(Foot((x, at, z)), (x, at, z + ARM_MM)) for at in sides]


def _less(pull: Pull, other: Pull) -> Pull:
    """The difference of two forces at one place."""
    return pull.plus(other.times(-1.0))


def _springs(springs: list[Springing], found: Forces, m: Motion, row: int) -> list[Pull]:
    """Every spring's push on its mount, and what one on a wishbone leaves to the arm's pivots, half each."""
    out = []
    for own, push in zip(springs, found.springs, strict=True):
        place = stands(own.foot, m)[row]
        out += [_pull(at, force) for at, force in own.on_frame(place, float(push))]
        if own.foot.arm is not None:
            carried, _ = bears(own, m, row)
            rest = (own.on_arm(place, float(push)) - carried * push) / 2
            out += [_pull(pivot, rest) for pivot in (own.foot.arm.front, own.foot.arm.rear)]
    return out


def _links(m: Motion, found: Forces) -> list[Pull]:
    """Rods pull their ends together; guides and slides bear on the frame square to their planes."""
    mechanism, out = m.sweep.compiled.mechanism, []
    for rod, tension in zip(mechanism.rods, found.tension, strict=False):
        a, b = np.array(rod.a.point), np.array(rod.b.point)
        d = (a - b) / np.linalg.norm(a - b)
        for end, towards in ((rod.a, -d), (rod.b, d)):
            place = _on_frame(mechanism, end)
            if place is not None:
                out.append(_pull(place, tension * towards))
    planes = [(g.end.point, np.array(g.direction)) for g in mechanism.guides]
    planes += [(s.point, -np.array(s.direction)) for s in mechanism.slides]
    for (place, n), tension in zip(planes, found.tension[len(mechanism.rods) :], strict=True):
        out.append(_pull(place, tension * n / np.linalg.norm(n)))
    return out


def _on_frame(mechanism: Mechanism, end: End) -> Point | None:
    """Where an end bears on the frame: its own place, or the hinge of the piece that it moves; None on the carrier."""
    if end.body == FRAME:
        return end.point
    if end.body == CARRIER:
        return None
    piece = mechanism.pieces[end.body - 1]
    return piece.point if piece.parent == FRAME else None


def _pull(at: Point, force: np.ndarray[tuple[int], np.dtype[np.float64]]) -> Pull:
    x, y, z = (float(v) for v in force)
    return Pull((float(at[0]), float(at[1]), float(at[2])), (x, y, z))
