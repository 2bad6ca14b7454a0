"""A bump stop that is placed: when it strikes, what its rubber gives at the wheel, how square and how central it meets.

A stop on the frame has an axis from its base to its tip; what strikes it follows the axle's or the arm's
own arc. It strikes where the distance along that axis is its height with its shims. One on a damper's
shaft strikes where as much shaft is left as it is tall.
"""

from dataclasses import dataclass

import numpy as np

from nodulant.axles.springs import StopOnDamper, StopOnFrame
from nodulant.base.arrays import Columns
from nodulant.suspension.feet import foot_of, moves, stands
from nodulant.suspension.motion import Motion, own_rise

LAST_MM = 20.0
"""Of wheel travel before it strikes, over which it is to be met square (common practice)."""
LEAST_RATIO = 1e-3


@dataclass(frozen=True)
class Shaft:
    """A damper through travel: its length, mm, its motion ratio, and its closed length."""

    length: Columns
    ratio: Columns
    closed_mm: float


@dataclass(frozen=True)
class Strike:
    """Wheel travel at which a placed stop strikes and what it gives there, mm; how it is met."""

    gap_mm: float
    gives_mm: float
    off_square_deg: float | None = None
    """The most that what strikes it moves out of its axis, from a little before it touches to the end."""
    aside_mm: float | None = None
    """How far beside its axis it is struck."""


def strike_of(place: StopOnFrame | StopOnDamper, m: Motion, shaft: Shaft | None) -> Strike | None:
    """How a stop is struck; None on a damper that is not there. Raises InputError where its arm is not there."""
    if isinstance(place, StopOnDamper):
        if shaft is None:
            return None
        left, ratio = shaft.length - shaft.closed_mm, shaft.ratio
        gap, end = (_reached(m, left, ratio, at) for at in (place.tall_mm, place.tall_mm - place.squash_mm))
        return Strike(gap, max(end - gap, 0.0))
    foot = foot_of(place.pad, place.on, m)
    there, speed = stands(foot, m), moves(foot, m)
    axis = np.array(place.axis)
    off = there - np.array(place.base.xyz())
    free, ratio = off @ axis, -(speed @ axis) / own_rise(m)
    tall = place.tall_mm + place.shims_mm
    gap, end = (_reached(m, free, ratio, at) for at in (tall, tall - place.squash_mm))
    angle = np.degrees(np.arccos(np.clip(np.abs(speed @ axis) / np.linalg.norm(speed, axis=1), 0.0, 1.0)))
    aside = np.linalg.norm(off - free[:, None] * axis, axis=1)
    rows = np.flatnonzero(m.there)
    travel = m.travel[rows]
    met = np.linspace(gap - LAST_MM, end, 9)
    square = float(np.interp(met, travel, angle[rows]).max())
    return Strike(gap, max(end - gap, 0.0), square, float(np.interp(gap, travel, aside[rows])))


def _reached(m: Motion, left: Columns, ratio: Columns, target: float) -> float:
    """Wheel travel at which a distance that shrinks by ``ratio`` per mm comes to ``target``; beyond the end with the last ratio."""
    rows = np.flatnonzero(m.there)
    have, travel = left[rows], m.travel[rows]
    order = np.argsort(have, kind="stable")
    if have[order[0]] <= target <= have[order[-1]]:
        return float(np.interp(target, have[order], travel[order]))
    end = -1 if target < have[-1] else 0
    rate = max(abs(float(ratio[rows][end])), LEAST_RATIO)
    return float(travel[end]) + (float(have[end]) - target) / rate
