"""An axle's moving bodies on one grid: tyres, rods, boots, springs, the axle's tube.

Single wheels move by themselves: the body's roll is one wheel up and the other down, so travel
alone covers it. A beam axle is looked at in roll too, as far as its wheels' stops let it.
"""

from collections.abc import Callable
from dataclasses import replace

import numpy as np

from nodulant.axles.layouts.independent import TOE_LINK, Strut
from nodulant.axles.layouts.layout import Layout
from nodulant.axles.layouts.live import LeafSprings
from nodulant.axles.points import on_axle
from nodulant.axles.springs import AirSpring, Coilover, Foothold, LeafPack, TorsionBar
from nodulant.axles.steering import Rack
from nodulant.axles.suspension import Suspension
from nodulant.axles.wishbone import wishbone_of
from nodulant.base.arrays import Columns, Mask
from nodulant.clearance.hung_bodies import (
    Work,
    anti_roll_arm_movers,
    anti_roll_mover,
    damper_mover,
    half_shaft_mover,
    leaf_movers,
    pitman_movers,
    shaft_movers,
    torsion_mover,
    work_movers,
)
from nodulant.clearance.moving import Mover, Positions, RoundBar, TyreBody
from nodulant.driveline.driveline import Driveline
from nodulant.linkage.compiled import Pose
from nodulant.linkage.mechanism import CARRIER, FRAME, End, Point
from nodulant.linkage.rotation import rotated
from nodulant.parts.tyre import Tyre
from nodulant.steering.knuckles import on_beam
from nodulant.steering.wheels import Wheels, drag_link_of, steered_wheels
from nodulant.suspension.motion import Motion, level_at, moved_through
from nodulant.suspension.spring_motion import key_ends
from nodulant.suspension.study import Study, travel_of

Held = Callable[[End], Columns | None]
SINGLE_TRAVELS, SINGLE_INPUTS = 36, 41
BEAM_TRAVELS, BEAM_INPUTS, BEAM_ROLLS = 16, 13, (-5.0, -3.75, -2.5, -1.25, 0.0, 1.25, 2.5, 3.75, 5.0)
STILL_TRAVELS, STILL_ROLLS = 24, tuple(float(d) for d in range(-5, 6))
SHOULDER_SHARE, RIM_WALL_MM = 0.16, 12.0
"""Rounding of a tyre's shoulders over its width; metal between the rim's seat and what it leaves free (common practice)."""
ARM_MM, SPRING_GROWS_MM = 16.0, 6.0


def axle_movers(
    s: Study,
    tyre: Tyre | None,
    tube_mm: float | None,
    work: tuple[Work, ...] = (),
    line: Driveline | None = None,
) -> tuple[Mover, ...]:
    """All moving bodies of one suspension; none where it does not move. Raises InputError or NotSolvable as its parts do.

    ``work`` is what the design puts on a beam axle, ``line`` the shaft that drives it.
    """
    if s.motion is None or s.setting is None:
        return ()
    own = _single(s, tyre) if s.suspension.layout.independent else _beam(s, tyre, tube_mm, work, line)
    return (*own, *_steering_shaft(s, own), *_bar_across(s, own))


def _bar_across(s: Study, own: tuple[Mover, ...]) -> list[Mover]:
    bar = s.suspension.anti_roll
    if bar is None or bar.runs is None or not own:
        return []
    return [anti_roll_mover(bar.runs, bar.diameter_mm, own[0].there, own[0].positions)]


def _steering_shaft(s: Study, own: tuple[Mover, ...]) -> list[Mover]:
    """The shaft from column to gear: it only turns, so it stands in one place for the rods that pass it."""
    steering = s.suspension.steering
    if steering is None or steering.shaft is None or not own:
        return []
    shaft, first = steering.shaft, own[0]
    points = [np.array(p.xyz()) for p in (shaft.column, *shaft.joints, shaft.gear)]
    grid = (*first.positions.shape, 3)
    names = ("steering column", *(f"steering shaft {k}" for k in range(1, len(points) - 2)), "box's input shaft")
    return [
        Mover(
            name,
            "shaft",
            RoundBar(np.broadcast_to(a, grid), np.broadcast_to(b, grid), shaft.diameter_mm / 2),
            first.there,
            first.positions,
        )
        for name, a, b in zip(names, points[:-1], points[1:], strict=True)
    ]


def _single(s: Study, tyre: Tyre | None) -> tuple[Mover, ...]:
    own, setting = s.suspension, s.setting
    if setting is None or s.motion is None:
        return ()
    travel = travel_of(own, SINGLE_TRAVELS)
    inputs = np.linspace(-1.0, 1.0, SINGLE_INPUTS) if own.steering else np.zeros(1)
    positions = Positions(own.axle, travel, np.zeros(1), inputs)
    out: list[Mover] = []
    if own.steering is not None:
        wheels = steered_wheels(own, setting, s.motion, travel, inputs)
        grids = wheels.grids
        if grids is None:
            return ()
        poses = [grid.solved.pose for grid in grids]
        there = [w.there for w in (wheels.right, wheels.left)]
        out += _rods(wheels, positions, own.steering.gear.boot_mm if isinstance(own.steering.gear, Rack) else 0.0)
    else:
        level = level_at(s.motion, travel)
        poses, there = [level.solved.pose] * 2, [level.there] * 2
    for side, pose, mask in zip(("right", "left"), poses, there, strict=True):
        out += _of_wheel(s, side, pose, mask.reshape(positions.shape), positions, tyre)
    return tuple(out)


def _of_wheel(s: Study, side: str, pose: Pose, there: Mask, positions: Positions, tyre: Tyre | None) -> list[Mover]:
    """Tyre, arms and spring of one single wheel; the left one from its mirror image."""
    setting, layout = s.setting, s.suspension.layout
    if setting is None:
        return []
    flip = np.array([1.0, 1.0 if side == "right" else -1.0, 1.0])
    shape = (*positions.shape, 3)

    def stands(point: Point) -> Columns:
        arm = np.array([point]) - np.array(setting.hub)
        return np.asarray((pose.origin + rotated(pose.rotation, arm)[:, 0]).reshape(shape) * flip)

    def held(end: End) -> Columns:
        return stands(end.point) if end.body == CARRIER else np.broadcast_to(np.array(end.point) * flip, shape)

    out = [
        Mover(
            f"{rod.name}, {side}",
            "rod",
            _free(held(rod.a), held(rod.b), ARM_MM, AT_BRACKET_MM),
            there,
            positions,
            side,
            hangs_at=_flipped(rod.b.point, flip),
        )
        for rod in layout.mechanism(setting.hub).rods
        if not (rod.name == TOE_LINK and s.suspension.steering is not None) and rod.b.body == FRAME
    ]
    springs = s.suspension.springs
    if isinstance(springs, Coilover | AirSpring):
        arm, foot = wishbone_of(layout, springs.on, setting.hub), on_axle(springs.lower, setting.hub)
        lower = stands(foot) if arm is None else arm.carried(foot, stands(arm.ball) * flip) * flip
        spring = _spring(springs, lower, springs.upper.xyz(), flip, side, there, positions)
        out.append(replace(spring, stands_on=_legs(layout, springs.on)))
    if isinstance(springs, TorsionBar) and s.motion is not None:
        bar = torsion_mover(springs, key_ends(springs, s.motion), flip, side, there, positions)
        out.append(replace(bar, stands_on=_legs(layout, springs.on)))
    if (damper := s.suspension.damper) is not None:
        arm, foot = wishbone_of(layout, damper.on, setting.hub), on_axle(damper.lower, setting.hub)
        lower = stands(foot) if arm is None else arm.carried(foot, stands(arm.ball) * flip) * flip
        own = damper_mover(damper, lower, flip, side, there, positions)
        out.append(replace(own, stands_on=_legs(layout, damper.on)))
    if (across := s.suspension.anti_roll) is not None and across.runs is not None:
        foot = on_axle(across.drop, setting.hub)
        out += anti_roll_arm_movers(across, across.runs, foot, stands(foot), flip, side, there, positions)
    if (shaft := s.suspension.half_shaft) is not None:
        outer = stands(on_axle(shaft.outer, setting.hub))
        out.append(half_shaft_mover(shaft, outer, flip, side, there, positions))
    if tyre is not None:
        hub = (setting.hub[0], setting.half_track_mm, setting.hub[2])
        centre, tip = stands(hub), stands((hub[0], hub[1] + 1.0, hub[2]))
        out.append(_tyre(side, centre, tip - centre, tyre, there, positions))
    return out


def _legs(layout: Layout, on: Foothold) -> str:
    """How the names of an arm's legs begin."""
    if on == "upright":
        return ""
    return f"{on.partition('-')[0]} {'arm' if isinstance(layout, Strut) else 'wishbone'}"


def _spring(
    springs: Coilover | AirSpring, lower: Columns, upper: Point, flip: Columns, side: str, there: Mask, at: Positions
) -> Mover:
    wide = springs.body_mm if isinstance(springs, Coilover) else springs.diameter_mm
    top = np.broadcast_to(np.array(upper) * flip, lower.shape)
    body = _free(lower, top, wide / 2 + SPRING_GROWS_MM, wide / 2 + AT_MOUNT_MM)
    return Mover(f"spring, {side}", "spring", body, there, at, side, hangs_at=_flipped(upper, flip))


def _free(a: Columns, b: Columns, radius: float, held_mm: float) -> RoundBar:
    """A bar without the end at its own bracket on the frame, ``held_mm`` from ``b`` and the rounding."""
    long = np.linalg.norm(b - a, axis=-1, keepdims=True)
    share = np.maximum(1.0 - (held_mm + radius) / np.maximum(long, 1.0), 0.2)
    return RoundBar(a, a + (b - a) * share, radius)


AT_BRACKET_MM, AT_MOUNT_MM = 60.0, 20.0
"""Beside its own bracket on the frame a link, and below its own mount a spring, is not judged against what carries it."""


def _tyre(side: str, centre: Columns, spin: Columns, tyre: Tyre, there: Mask, at: Positions) -> Mover:
    width = tyre.section_width_mm
    body = TyreBody(
        centre, spin, tyre.free_diameter_mm / 2, tyre.rim_mm / 2 - RIM_WALL_MM, width, SHOULDER_SHARE * width
    )
    return Mover(f"tyre, {side}", "tyre", body, there, at, side)


def _rods(w: Wheels, positions: Positions, boot_mm: float) -> list[Mover]:
    """Toe links of single wheels, and the boots over their inner joints."""
    out = []
    for rod in w.rods:
        side = rod.name.partition(", ")[2]
        there = rod.wheel.there.reshape(positions.shape)
        inner, outer = (v.reshape(*positions.shape, 3) for v in (rod.inner, rod.outer))
        hangs = _at_ride(inner, positions)
        body = RoundBar(inner, outer, rod.radius_mm)
        out.append(Mover(rod.name, "rod", body, there, positions, side, hangs_at=hangs))
        if boot_mm > 0:
            long = np.linalg.norm(outer - inner, axis=-1, keepdims=True)
            end = inner + (outer - inner) * np.minimum(BOOT_LONG_MM / np.maximum(long, 1.0), 0.6)
            body = RoundBar(inner, end, boot_mm / 2)
            out.append(Mover(f"boot, {side}", "boot", body, there, positions, side, hangs_at=hangs))
    return out


def _flipped(point: Point, flip: Columns) -> Point:
    x, y, z = (float(v) for v in np.array(point) * flip)
    return (x, y, z)


def _at_ride(points: Columns, positions: Positions) -> Point:
    """Where a joint that moves stands at ride height, level, straight ahead."""
    x, y, z = (float(v) for v in points[positions.ride()])
    return (x, y, z)


BOOT_LONG_MM = 110.0
"""Of a rack's boot from the inner joint outward (common practice)."""


def _beam(
    s: Study, tyre: Tyre | None, tube_mm: float | None, work: tuple[Work, ...], line: Driveline | None
) -> tuple[Mover, ...]:
    own, setting = s.suspension, s.setting
    if setting is None:
        return ()
    steered = own.steering is not None
    travel = travel_of(own, BEAM_TRAVELS if steered else STILL_TRAVELS)
    rolls = BEAM_ROLLS if steered else STILL_ROLLS
    inputs = np.linspace(-1.0, 1.0, BEAM_INPUTS) if steered else np.zeros(1)
    m = moved_through(own.layout, setting, travel, rolls)
    positions = Positions(own.axle, travel, np.array(rolls), inputs)
    held_in = m.sweep.there & _within_stops(own, travel, rolls, setting.half_track_mm)
    there = np.repeat(held_in[..., None], len(inputs), axis=2)
    shape = (*positions.shape, 3)
    pose = m.sweep.solved.pose
    out: list[Mover] = []

    def stands(point: Point) -> Columns:
        flat = pose.origin + rotated(pose.rotation, np.array([point]) - np.array(setting.hub))[:, 0]
        return np.broadcast_to(flat.reshape(*positions.shape[:2], 1, 3), shape)

    def held(end: End) -> Columns | None:
        if end.body == CARRIER:
            return stands(end.point)
        return np.broadcast_to(np.array(end.point), shape) if end.body == FRAME else None

    half = setting.half_track_mm
    if own.steering is not None:
        gear, pins = drag_link_of(own.steering)
        found = on_beam(own, gear, pins, setting, pose, inputs)
        there = there & found.reaches.reshape(positions.shape)
        for rod in found.rods:
            inner, outer = (v.reshape(shape) for v in (rod.inner, rod.outer))
            out.append(Mover(rod.name, "rod", RoundBar(inner, outer, rod.radius_mm), there, positions))
        out += pitman_movers(gear, found.rods, there, positions)
        if tyre is not None:
            for side, w in (("right", found.right), ("left", found.left)):
                out.append(_tyre(side, w.centre.reshape(shape), w.spin.reshape(shape), tyre, there, positions))
    elif tyre is not None:
        for side, sign in (("right", 1.0), ("left", -1.0)):
            centre = stands((setting.hub[0], sign * half, setting.hub[2]))
            tip = stands((setting.hub[0], sign * (half + 1.0), setting.hub[2]))
            out.append(_tyre(side, centre, tip - centre, tyre, there, positions))
    if tube_mm is not None:
        ends = [stands((setting.hub[0], sign * (half - TUBE_SHORT_MM), setting.hub[2])) for sign in (1.0, -1.0)]
        out.append(Mover("axle tube", "axle", RoundBar(ends[0], ends[1], tube_mm / 2), there, positions))
    out += _links(s, m, held, there, positions)
    springs = own.springs
    if isinstance(springs, Coilover | AirSpring):
        low = on_axle(springs.lower, setting.hub)
        for side, sign in (("right", 1.0), ("left", -1.0)):
            flip = np.array([1.0, sign, 1.0])
            lower = stands((low[0], sign * low[1], low[2]))
            out.append(_spring(springs, lower, springs.upper.xyz(), flip, side, there, positions))
    if (damper := own.damper) is not None:
        low = on_axle(damper.lower, setting.hub)
        for side, sign in (("right", 1.0), ("left", -1.0)):
            lower = stands((low[0], sign * low[1], low[2]))
            out.append(damper_mover(damper, lower, np.array([1.0, sign, 1.0]), side, there, positions))
    if (bar := own.anti_roll) is not None and bar.runs is not None:
        low = on_axle(bar.drop, setting.hub)
        for side, sign in (("right", 1.0), ("left", -1.0)):
            joint, flip = stands((low[0], sign * low[1], low[2])), np.array([1.0, sign, 1.0])
            out += anti_roll_arm_movers(bar, bar.runs, low, joint, flip, side, there, positions)
    if isinstance(springs, LeafPack) and isinstance(own.layout, LeafSprings):
        out += leaf_movers(springs, own.layout, setting.hub, stands, there, positions)
    out += work_movers(work, setting.hub, stands, there, positions)
    if line is not None:
        out += shaft_movers(line, setting.hub, stands, there, positions)
    return tuple(out)


def _within_stops(own: Suspension, travel: Columns, rolls: tuple[float, ...], half_mm: float) -> Mask:
    """Where neither wheel is past its bump or droop by more than half a step of roll: roll lifts one and lowers the other."""
    rise = half_mm * np.tan(np.radians(np.array(rolls)))
    spare = float(np.diff(rise).max()) / 2
    wheels = travel[:, None, None] + rise[None, :, None] * np.array([1.0, -1.0])
    inside = (wheels <= own.bump_mm + spare) & (wheels >= -own.droop_mm - spare)
    return np.asarray(inside.all(axis=-1))


TUBE_SHORT_MM = 120.0
"""The axle's tube ends this far inside the tyres' middles, at the knuckles or the backing plates."""


def _links(s: Study, m: Motion, held: Held, there: Mask, positions: Positions) -> list[Mover]:
    """Rods between frame and axle."""
    radii = {n.name: n.link.tube.od_mm / 2 for n in s.suspension.layout.links()}
    out = []
    for rod in m.sweep.compiled.mechanism.rods:
        a, b = held(rod.a), held(rod.b)
        # a leaf spring's equivalent arms are no bodies
        if a is None or b is None or rod.name not in radii:
            continue
        side = rod.name.partition(", ")[2] or "both"
        body = _free(a, b, radii[rod.name], AT_BRACKET_MM)
        hangs = rod.b.point if rod.b.body == FRAME else rod.a.point if rod.a.body == FRAME else None
        out.append(Mover(rod.name, "rod", body, there, positions, side, hangs_at=hangs))
    return out
