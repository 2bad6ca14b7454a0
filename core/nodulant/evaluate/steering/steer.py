"""Steering as the screen gets it: tables of what the gear moves over travel and input."""

from dataclasses import dataclass

import numpy as np

from nodulant.axles.points import on_axle
from nodulant.axles.steering import Gear, Rack
from nodulant.base.arrays import Columns, Rows, significant
from nodulant.evaluate.steering.steer_drawing import ARM, JOINT, KNUCKLE, SteerBody, SteerDrawing, SteerSide
from nodulant.evaluate.steering.steer_facts import steer_curves
from nodulant.linkage.crank import axis_of
from nodulant.linkage.grid import Grid
from nodulant.linkage.mechanism import Point
from nodulant.linkage.rotation import rotation_vector
from nodulant.steering.gear import arm_angle, shaft_axis
from nodulant.steering.study import SteerStudy, lock, sense
from nodulant.steering.wheels import Wheels

TURN_DEG, FEW = 180.0, 9


def turns_of(gear: Gear) -> float:
    """Turns of the steering wheel from lock to lock."""
    return gear.turns if isinstance(gear, Rack) else gear.box.turns


def steer_drawing(q: SteerStudy) -> SteerDrawing:
    """Tables over travel and input, and the curves over the input."""
    steering, w = q.study.suspension.steering, q.wheels
    if steering is None:
        raise ValueError("only a steered axle is drawn here")
    wheel = TURN_DEG * turns_of(steering.gear)
    if w is None or q.trouble is not None:
        words, field = (q.trouble.message, q.trouble.field) if q.trouble else ("", "")
        return SteerDrawing(trouble=words, trouble_at=field, wheel_deg=wheel)
    ends = [end.reached if end else 0.0 for end in (lock(q, -1), lock(q, 1))]
    at = _Shown(_thinned(len(w.travel), q.ride), _thinned(len(w.inputs), q.ahead), len(w.inputs))
    return SteerDrawing(
        trouble="",
        trouble_at="",
        travel_mm=significant(w.travel[at.travels]),
        inputs=significant(w.inputs[at.inputs]),
        wheel_deg=wheel,
        reached=[-ends[0], ends[1]],
        sense=sense(q),
        right=_side(q, w, 0, at),
        left=_side(q, w, 1, at),
        curves=steer_curves(q, at.inputs),
    )


@dataclass(frozen=True)
class _Shown:
    """The travels and inputs that the drawing gets, and how many inputs there are; between them it interpolates."""

    travels: Rows
    inputs: Rows
    each: int

    @property
    def grid(self) -> Rows:
        """Rows of the whole grid."""
        return np.asarray((self.travels[:, None] * self.each + self.inputs).reshape(-1))


def _thinned(count: int, middle: int) -> Rows:
    """Every second number with both ends and the middle; all of a few."""
    if count <= FEW:
        return np.arange(count)
    return np.unique([*range(middle, -1, -2), *range(middle, count, 2), 0, count - 1])


def _side(q: SteerStudy, w: Wheels, k: int, at: _Shown) -> SteerSide:
    poses: list[list[float]] = []
    if w.grids is not None and (k == 0 or not w.alike) and q.study.setting is not None:
        poses = _poses(w.grids[k], q.study.setting.hub, at)
    return SteerSide(poses=poses, bodies=(*_gear_bodies(q, w, k, at), *_knuckles(q, w, at)))


def _poses(grid: Grid, hub: Point, at: _Shown) -> list[list[float]]:
    pose = grid.solved.pose.rows(at.grid)
    rows = np.concatenate([np.round(pose.origin, 3), np.round(rotation_vector(pose.rotation), 5)], axis=1)
    rest = np.array([*hub, 0.0, 0.0, 0.0])
    shown: list[list[float]] = np.where(grid.there.reshape(-1)[at.grid][:, None], rows, rest).tolist()
    return shown


def _gear_bodies(q: SteerStudy, w: Wheels, k: int, at: _Shown) -> list[SteerBody]:
    steering = q.study.suspension.steering
    # single wheels have their left side as a mirror image
    mirrored = w.grids is not None and k == 1
    shift = (w.gear.left if k else w.gear.right)[at.inputs] * np.array([1.0, -1.0 if mirrored else 1.0, 1.0])
    out = [SteerBody(body=JOINT, parent=-1, shift=np.round(shift, 4).tolist())]
    if steering is None or isinstance(steering.gear, Rack):
        return out
    box = steering.gear.box
    sign, (x, y, z) = -1.0 if mirrored else 1.0, shaft_axis(box)
    return [*out, _turning(ARM, -1, box.shaft.xyz(), (x, sign * y, z), sign * arm_angle(box, w.inputs)[at.inputs])]


def _knuckles(q: SteerStudy, w: Wheels, at: _Shown) -> list[SteerBody]:
    steering, setting = q.study.suspension.steering, q.study.setting
    if w.knuckles is None or steering is None or steering.king_pins is None or setting is None:
        return []
    pins, out = steering.king_pins, []
    for body, turn, mirror in ((KNUCKLE, w.knuckles.right, False), (KNUCKLE + 1, w.knuckles.left, True)):
        low, up = (on_axle(p.mirrored() if mirror else p, setting.hub) for p in (pins.lower, pins.upper))
        out.append(_turning(body, 0, low, axis_of(low, up), turn[at.grid]))
    return out


def _turning(body: int, parent: int, at: Point, axis: Point, angle: Columns) -> SteerBody:
    turned: list[float] = np.round(angle, 6).tolist()
    return SteerBody(body=body, parent=parent, point=list(at), axis=list(axis), angle=turned)
