"""What every case does to one rail at one station."""

from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np

from nodulant.loads.cases import Case
from nodulant.strength.rail import RailComparison
from nodulant.strength.space import FrameComparison


@dataclass(frozen=True)
class AtStation:
    """One case at one station: moment N mm, shear N, and how much of yield/1.5 it uses of the section there."""

    case: Case
    moment: float
    shear: float
    use: float


def at_station(
    rail: RailComparison, frames: FrameComparison, symmetric: tuple[Case, ...], x_mm: float
) -> Iterator[AtStation]:
    """Every case, those of the frame in space and the symmetric ones; nothing where loads are not known."""
    if rail.loading is None:
        return
    k = int(np.argmin(np.abs(rail.x - x_mm)))
    state, worked = rail.loading.state, rail.loading.use_state.working
    for case in symmetric:
        yield AtStation(
            case,
            case.factor * abs(float(state.moment[k])),
            case.factor * abs(float(state.shear[k])),
            case.factor * float(worked[k]),
        )
    for case in frames.asked:
        if case.id in frames.planned.cases:
            own = frames.planned.cases[case.id][rail.side]
            i = int(np.argmin(np.abs(own.x - x_mm)))
            yield AtStation(case, float(own.forces.moment[i]), float(own.forces.shear[i]), float(own.use[i]))
