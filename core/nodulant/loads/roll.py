"""Couples about the frame's length at the axles' seats, and what springs that stand beside the rails make of them.

Springs 2 y apart take a couple M with a force M/2y each; a rail gets that force and, about its shear centre, its torque.
A spring counts by its line: what two that lean press across in roll is met by the axle's links and left out here.
"""

from collections.abc import Sequence
from functools import lru_cache

import numpy as np

from nodulant.base.arrays import Columns
from nodulant.loads.carried import Carried
from nodulant.loads.frame3d import Frame
from nodulant.loads.plan import Pull
from nodulant.loads.pulls import twisted
from nodulant.loads.reach import FY, MX, on_seats
from nodulant.parts.sides import AxleName

LEAST_ARM_MM = 1.0


def rolled(frame: Frame, load: Carried, couple: Columns) -> Columns:
    """Nodal loads, (nodes, 6), of a couple about x at every seat, (seats,), N mm: up on the right and down on the left."""
    loads = on_seats(frame, load).rolled(frame, couple)
    for axle, beside in _beside(frame, load):
        loads += float(couple[[seat.axle == axle for seat in load.seats]].sum()) * beside
    return loads


@lru_cache(maxsize=4)
def _beside(frame: Frame, load: Carried) -> tuple[tuple[AxleName, Columns], ...]:
    """Of a unit couple on each axle what its springs turn into torque, less that couple at its seats."""
    out = []
    for axle, own in load.axles.items():
        torque = twisted(frame, unit_couple(own.springs)) if own.springs else np.zeros(0)
        if torque.any():
            torque[:, FY] = 0.0
            shares = np.where([seat.axle == axle for seat in load.seats], load.seat_shares, 0.0)
            out.append((axle, torque - on_seats(frame, load).rolled(frame, shares * float(torque[:, MX].sum()))))
    return tuple(out)


def unit_couple(springs: Sequence[Pull]) -> list[Pull]:
    """What an axle's springs put on the frame for a unit couple about x, up on the right and down on the left; none in line."""
    arm = sum(abs(pull.at[1]) * pull.force[2] for pull in springs)
    return [] if arm < LEAST_ARM_MM else [pull.times(float(np.sign(pull.at[1])) / arm) for pull in springs]
