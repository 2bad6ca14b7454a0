"""What a turned single wheel does as it rises from ride height, at every input: motion ratio, roll centre, braked foot.

Slopes over travel at ride height, by central differences over the grid's own travels (third order
in their step, which is 3 mm or less); all arrays have shape (inputs,), NaN where the wheel does not reach.
"""

from dataclasses import dataclass

import numpy as np

from nodulant.axles.springs import LeafPack
from nodulant.base.arrays import Columns, Mask
from nodulant.steering.study import SteerStudy
from nodulant.suspension.feet import stands_in
from nodulant.suspension.spring_motion import strung


@dataclass(frozen=True)
class Turned:
    """The right wheel at ride height over the input."""

    ratio: Columns | None
    """Spring's shortening per mm of wheel travel; None without a spring."""
    roll_centre_mm: Columns
    """Above the ground: y v_y/v_z of the tyre's foot."""
    braked_slope: Columns
    """Rearward way of the braked tyre's foot per mm of rise."""


def turned(q: SteerStudy) -> Turned | None:
    """At every input; None for a beam axle, where steer changes none of it, or one travel only."""
    w, m = q.wheels, q.study.motion
    if w is None or w.grids is None or q.right is None or m is None or not 0 < q.ride < len(w.travel) - 1:
        return None
    shape = (len(w.travel), len(w.inputs))
    rows = [q.ride - 1, q.ride, q.ride + 1]
    there: Mask = np.asarray(w.right.there[rows].all(axis=0))
    pose = w.grids[0].solved.pose
    origin, turn = pose.origin.reshape(*shape, 3)[rows], pose.rotation.reshape(*shape, 3, 3)[rows]
    foot = q.right.patch[rows]
    # the braked foot is the point of the upright that stands where the tyre's foot is
    local = np.einsum("sji,sj->si", turn[1], foot[1] - origin[1])
    braked = origin + np.einsum("tsij,sj->tsi", turn, local)
    travel = w.travel[rows]
    up = _slope(w.right.centre[rows][..., 2], travel)
    side = _slope(foot[..., 1], travel) / _slope(foot[..., 2], travel)
    return Turned(
        ratio=_ratio(q, travel, up, there, shape, rows),
        roll_centre_mm=np.where(there, foot[1, :, 1] * side, np.nan),
        braked_slope=np.where(there, _slope(braked[..., 0], travel) / up, np.nan),
    )


def _ratio(
    q: SteerStudy, travel: Columns, up: Columns, there: Mask, shape: tuple[int, int], rows: list[int]
) -> Columns | None:
    springs, m, w = q.study.suspension.springs, q.study.motion, q.wheels
    if springs is None or isinstance(springs, LeafPack) or m is None or w is None or w.grids is None:
        return None
    own = strung(springs, m)
    place = stands_in(own.foot, m.setting.hub, w.grids[0].solved.pose).reshape(*shape, 3)[rows]
    length = own.lengths(place)
    return np.where(there, -_slope(length, travel) / up, np.nan)


def _slope(values: Columns, travel: Columns) -> Columns:
    """Slope at the middle of three rows that need not be evenly apart (Lagrange)."""
    a, b = travel[1] - travel[0], travel[2] - travel[1]
    low, mid, high = values[0], values[1], values[2]
    return np.asarray((-b / (a * (a + b))) * low + ((b - a) / (a * b)) * mid + (a / (b * (a + b))) * high)
