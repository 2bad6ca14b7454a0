"""Forces at places along a frame, shared by lever between the stations beside them; masses and seats once for all cases."""

from dataclasses import dataclass
from functools import cached_property, lru_cache

import numpy as np

from nodulant.base.arrays import Columns
from nodulant.loads.carried import Carried
from nodulant.loads.frame3d import Frame
from nodulant.loads.space_frame import Indices

FX, FY, FZ, MX, MY, MZ = range(6)


@dataclass(frozen=True)
class Levers:
    """Places along a frame as stations beside them: row of the one behind, and its share."""

    behind: Indices
    share: Columns
    stations: int

    def spread(self, force: float | Columns) -> Columns:
        """A ``force`` at every place, (..., places), shared by lever between the stations beside it, (..., stations)."""
        back = force * self.share
        own = np.concatenate([force - back, back], axis=-1)
        count = int(np.prod(own.shape[:-1]))
        at = self._beside + self.stations * np.arange(count)[:, None]
        found = np.bincount(at.ravel(), own.ravel(), count * self.stations)
        return np.asarray(found.reshape(*own.shape[:-1], self.stations))

    @cached_property
    def _beside(self) -> Indices:
        """Rows of the stations ahead of every place, then of those behind, (2 places,)."""
        return np.concatenate([self.behind - 1, self.behind])


def levers(frame: Frame, at: Columns) -> Levers:
    """Places at stock stations ``at``; what overhangs an end is on it."""
    x = frame.x
    on_frame = np.minimum(np.maximum(at, x[0]), x[-1])
    behind = np.minimum(np.maximum(np.searchsorted(x, on_frame), 1), len(x) - 1)
    return Levers(behind, (on_frame - x[behind - 1]) / (x[behind] - x[behind - 1]), len(x))


@dataclass(frozen=True, eq=False)
class Reach:
    """Several sets of forces along a frame, to be put on it as often as their sizes change.

    ``rows`` are each set's units shared over the stations, (sets, stations); ``ends`` their moments about the first and
    the last one where they overhang them, (sets, 2).
    """

    rows: Columns
    ends: Columns

    def up(self, force: Columns) -> Columns:
        """Nodal loads, (nodes, 6), of the sets with their sizes, (sets,): upward, half on each rail."""
        loads = np.zeros((2 * self.rows.shape[1], 6))
        half, (fore, aft) = force @ self.rows / 2, force @ self.ends / 2
        loads[:, FZ] = np.repeat(half, 2)
        loads[:2, MY] -= fore
        loads[-2:, MY] -= aft
        return loads

    def rolled(self, frame: Frame, couple: Columns) -> Columns:
        """Nodal loads, (nodes, 6), of couples about x, (sets,): up on the right rail and down on the left."""
        loads = np.zeros((2 * self.rows.shape[1], 6))
        force = couple @ self.rows / frame.widths
        loads[1::2, FZ], loads[::2, FZ] = force, -force
        return loads


def reach(frame: Frame, at: Columns, units: Columns) -> Reach:
    """Sets of forces, (sets, places), at stock stations ``at``, (places,)."""
    over = np.stack([np.minimum(at - frame.x[0], 0.0), np.maximum(at - frame.x[-1], 0.0)], axis=1)
    return Reach(levers(frame, at).spread(units), units @ over)


@lru_cache(maxsize=4)
def on_seats(frame: Frame, load: Carried) -> Reach:
    """A unit force at each seat by itself."""
    return reach(frame, load.seat_x, np.eye(len(load.seats)))


@dataclass(frozen=True, eq=False)
class Masses:
    """All point masses on their frame: kg, centre along the planned frame and second moment about it, kg mm2.

    ``at`` holds their kg, their kg times height and their kg times planned station.
    """

    at: Reach
    kg: float
    centre_x: float
    second: float


@lru_cache(maxsize=4)
def on_masses(frame: Frame, load: Carried) -> Masses:
    """Masses along their frame, in sets whose sizes the cases give."""
    where, kg, z = load.spread
    x = frame.routes["left"].x(where)
    centre = float(kg @ x / kg.sum())
    own = reach(frame, where, np.stack([kg, kg * z, kg * x]))
    return Masses(own, float(kg.sum()), centre, float(kg @ (x - centre) ** 2))
