"""Both front wheels over travel and steer: where their centres, spin axes and king pins stand.

Arrays have shape (travels, steers, 3), frame axes; spin axes point outward. The left wheel of
independent ones is the right one mirrored, steered the other way.
"""

from dataclasses import dataclass, replace

import numpy as np

from nodulant.axles.layouts.independent import TOE_LINK, Steered
from nodulant.axles.points import on_axle
from nodulant.axles.steering import DragLink, KingPins, Rack, Steering
from nodulant.axles.suspension import Suspension
from nodulant.base.arrays import Columns, Mask
from nodulant.base.errors import InputError
from nodulant.linkage.compiled import Pose
from nodulant.linkage.grid import Grid, steer_grid
from nodulant.linkage.mechanism import CARRIER, End, Point
from nodulant.linkage.rotation import rotated
from nodulant.steering.gear import Moved, centre_link_moves, pitman_moves, rack_moves
from nodulant.steering.knuckles import Turn, on_beam
from nodulant.steering.rods import SteerRod, WheelPoses
from nodulant.suspension.motion import Motion, Setting, level_at, spin_at_rest


@dataclass(frozen=True)
class Wheels:
    """Both wheels over travel and input; ``inputs`` run from full left (-1) to full right (+1)."""

    travel: Columns
    inputs: Columns
    right: WheelPoses
    left: WheelPoses
    ends: tuple[str, str]
    """Why the steer ends short to the left and to the right, at ride height; empty where it does not."""
    gear: Moved
    """How far the gear's joints have moved; of a drag link its inner one, twice."""
    rods: tuple[SteerRod, ...]
    grids: tuple[Grid, Grid] | None = None
    """Of independent wheels: the right one's poses, and the left one's as its mirror image."""
    alike: bool = True
    """Of independent wheels: the left one does what the right one does at the opposite input."""
    knuckles: Turn | None = None
    """Of a beam axle, each (travels x steers,)."""


def steered_wheels(own: Suspension, setting: Setting, m: Motion, travel: Columns, inputs: Columns) -> Wheels:
    """Both wheels; raises InputError or NotSolvable where gear and layout do not go together or do not move."""
    steering = own.steering
    if steering is None:
        raise InputError("this axle is not steered", field="steering", found="nothing", acceptable="a steering gear")
    if isinstance(own.layout, Steered):
        return _independent(own, own.layout, steering, m, travel, inputs)
    if own.layout.independent:
        raise InputError(
            "only wishbones and struts with a toe link are steered",
            field="layout/kind",
            found=own.layout.kind,
            acceptable="double-wishbone or strut, or a beam axle",
        )
    return _beam(own, steering, setting, m, travel, inputs)


def gear_moves(own: Suspension, inputs: Columns) -> Moved:
    """What the gear does to the inner joints; raises InputError where it does not fit the layout."""
    if own.steering is None:
        raise InputError("this axle is not steered", field="steering", found="nothing", acceptable="a steering gear")
    gear = own.steering.gear
    if isinstance(gear, DragLink):
        shift = pitman_moves(gear, inputs)
        return Moved(shift, shift, np.ones(len(inputs), dtype=bool))
    if not isinstance(own.layout, Steered):
        raise InputError(
            "a beam axle is steered by a drag link here",
            field="steering/gear/kind",
            found=gear.kind,
            acceptable="drag-link",
        )
    if isinstance(gear, Rack):
        return rack_moves(gear, inputs)
    return centre_link_moves(gear, own.layout.toe.frame, inputs)


def _independent(
    own: Suspension, layout: Steered, steering: Steering, m: Motion, travel: Columns, inputs: Columns
) -> Wheels:
    if isinstance(steering.gear, DragLink):
        raise InputError(
            "single wheels are steered by a rack or a centre link",
            field="steering/gear/kind",
            found="drag-link",
            acceptable="rack or centre-link",
        )
    moved = gear_moves(own, inputs)
    c, setting = m.sweep.compiled, m.setting
    level = level_at(m, travel)
    rod = next(i for i, r in enumerate(c.mechanism.rods) if r.name == TOE_LINK)
    right = steer_grid(level, rod, moved.right)
    mirrored = moved.left * np.array([1.0, -1.0, 1.0])
    turned = _reversed(right, mirrored, moved.right)
    left = turned or steer_grid(level, rod, mirrored)
    there = moved.reaches[None, :]
    flip = np.array([1.0, -1.0, 1.0])
    spin = spin_at_rest(own.camber_deg, own.toe_deg)
    sides = [upright(c.origin, layout, setting, grid.solved.pose, spin, grid.there & there) for grid in (right, left)]
    mirror = WheelPoses(
        sides[1].centre * flip, sides[1].spin * flip, sides[1].lower * flip, sides[1].upper * flip, sides[1].there
    )
    ends = tuple(a or b for a, b in zip(right.ends, left.ends, strict=True))
    inner, outer = np.array(layout.toe.frame.xyz()), on_axle(layout.toe.axle, setting.hub)
    rods = []
    for name, grid, shift, wheel, sign in (
        ("right", right, moved.right, sides[0], np.ones(3)),
        ("left", left, mirrored, mirror, flip),
    ):
        held = np.broadcast_to(inner + shift, (*grid.there.shape, 3)) * sign
        out = _carried(grid.solved.pose, c.origin, outer).reshape(held.shape) * sign
        rods.append(SteerRod(f"{TOE_LINK}, {name}", held, out, wheel, layout.toe.tube.od_mm / 2))
    return Wheels(
        travel, inputs, sides[0], mirror, (ends[0], ends[1]), moved, tuple(rods), (right, left), turned is not None
    )


def _reversed(right: Grid, wanted: Columns, have: Columns) -> Grid | None:
    """The left wheel is the right one at the opposite input where the gear is alike on both sides."""
    if not np.allclose(wanted, have[::-1], rtol=0.0, atol=1e-9):
        return None
    shape = right.there.shape
    order = np.arange(shape[0] * shape[1]).reshape(shape)[:, ::-1].reshape(-1)
    return Grid(right.travel, right.at(order), right.there[:, ::-1], (right.ends[1], right.ends[0]))


def upright(origin: Columns, layout: Steered, setting: Setting, pose: Pose, spin: Columns, there: Mask) -> WheelPoses:
    """The right wheel of single ones in every pose; ``there`` gives the grid's shape."""
    shape = (*there.shape, 3)
    centre = _carried(pose, origin, (setting.hub[0], setting.half_track_mm, setting.hub[2]))
    turned = rotated(pose.rotation, spin[None])[:, 0]
    lower, upper = (_end(pose, origin, end) for end in layout.king_pin(setting.hub))
    at, out, low, up = (v.reshape(shape) for v in (centre, turned, lower, upper))
    return WheelPoses(at, out, low, up, there)


def _end(pose: Pose, origin: Columns, end: End) -> Columns:
    if end.body == CARRIER:
        return _carried(pose, origin, end.point)
    return np.tile(end.point, (len(pose.origin), 1))


def _carried(pose: Pose, origin: Columns, point: Point) -> Columns:
    return np.asarray(pose.origin + rotated(pose.rotation, np.array([point]) - origin)[:, 0])


def _beam(own: Suspension, steering: Steering, setting: Setting, m: Motion, travel: Columns, inputs: Columns) -> Wheels:
    gear, pins = drag_link_of(steering)
    rows = np.searchsorted(m.travel, travel)
    found = on_beam(own, gear, pins, setting, m.level.pose.rows(rows), inputs)
    there = m.there[rows][:, None] & found.reaches
    right, left = (replace(w, there=there) for w in (found.right, found.left))
    ride, middle = int(np.argmin(np.abs(travel))), len(inputs) // 2
    ends = tuple(
        "" if part.all() else "the drag link or the tie rod cannot reach"
        for part in (there[ride, : middle + 1], there[ride, middle:])
    )
    shift = pitman_moves(gear, inputs)
    moved = Moved(shift, shift, np.ones(len(inputs), dtype=bool))
    return Wheels(travel, inputs, right, left, (ends[0], ends[1]), moved, found.rods, knuckles=found.turn)


def drag_link_of(steering: Steering) -> tuple[DragLink, KingPins]:
    """What steers a beam axle; raises InputError where something else is there."""
    if not isinstance(steering.gear, DragLink):
        raise InputError(
            "a beam axle is steered by a drag link here",
            field="steering/gear/kind",
            found=steering.gear.kind,
            acceptable="drag-link",
        )
    if steering.king_pins is None:
        raise InputError(
            "a beam axle turns its wheels about king pins",
            field="steering/king_pins",
            found="nothing",
            acceptable="both king pins",
        )
    return steering.gear, steering.king_pins
