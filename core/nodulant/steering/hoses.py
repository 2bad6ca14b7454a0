"""How far a hose has to reach: the most between its ends over travel, roll and lock."""

from dataclasses import dataclass

import numpy as np

from nodulant.axles.hose import Hose
from nodulant.axles.points import on_axle
from nodulant.base.arrays import Columns, Mask
from nodulant.linkage.compiled import Pose
from nodulant.linkage.rotation import rotated
from nodulant.steering.knuckles import on_beam, on_knuckle
from nodulant.steering.study import SteerStudy
from nodulant.steering.wheels import drag_link_of
from nodulant.suspension.motion import Motion
from nodulant.suspension.study import Study


@dataclass(frozen=True)
class Reached:
    """The longest distance between a hose's ends, mm, and the travel, mm, and input where it comes; and the shortest."""

    most_mm: float
    travel_mm: float
    input: float
    least_mm: float


def hose_reach(s: Study, q: SteerStudy | None, hose: Hose) -> Reached | None:
    """Over everything that the right wheel does; None where it does not move."""
    m = s.motion
    if m is None:
        return None
    place, travel, steer, there = _places(s, m, q, hose)
    far = np.sqrt(((place - np.array(hose.frame.xyz())) ** 2).sum(axis=1))
    if not there.any():
        return None
    k = int(np.argmax(np.where(there, far, -np.inf)))
    return Reached(float(far[k]), float(travel[k]), float(steer[k]), float(far[there].min()))


def _places(s: Study, m: Motion, q: SteerStudy | None, hose: Hose) -> tuple[Columns, Columns, Columns, Mask]:
    """Places of the wheel's end (n, 3), with travel, input and whether it is there, (n,) each."""
    if q is not None and q.wheels is not None and q.wheels.grids is not None:
        grid, inputs = q.wheels.grids[0], q.wheels.inputs
        place = _carried(hose, m, grid.solved.pose)
        steps = (len(grid.travel), len(inputs))
        reaches = (grid.there & q.wheels.right.there).reshape(-1)
        return place, np.repeat(grid.travel, steps[1]), np.tile(inputs, steps[0]), reaches
    pose, rolls = m.sweep.solved.pose, len(m.sweep.roll)
    travel, there = np.repeat(m.travel, rolls), m.sweep.there.reshape(-1)
    own = s.suspension
    if q is None or q.wheels is None or own.steering is None or own.steering.king_pins is None:
        return _carried(hose, m, pose), travel, np.zeros(len(travel)), there
    inputs = q.wheels.inputs
    found = on_beam(own, *drag_link_of(own.steering), m.setting, pose, inputs)
    every = pose.rows(np.repeat(np.arange(len(travel)), len(inputs)))
    place = on_knuckle(hose.wheel, own.steering.king_pins, m.setting.hub, every, found.turn.right)
    reaches = np.repeat(there, len(inputs)) & found.reaches.reshape(-1)
    return place, np.repeat(travel, len(inputs)), np.tile(inputs, len(travel)), reaches


def _carried(hose: Hose, m: Motion, pose: Pose) -> Columns:
    arm = np.array([on_axle(hose.wheel, m.setting.hub)]) - np.array(m.setting.hub)
    return np.asarray(pose.origin + rotated(pose.rotation, arm)[:, 0])
