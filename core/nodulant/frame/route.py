"""Where the planned frame runs: stock stations in order, each segment moved as one rigid piece.

A *move* says how far everything behind a stock station goes against what is ahead of it, and
how much stock metal is taken out there. The segment that holds the datum stays where it is
along and in height; sideways, a move is what it says. dx is rearward, dz up, inward towards
the centre plane, mm.
"""

from bisect import bisect_right
from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property

import numpy as np

from nodulant.base.arrays import Columns, Mask

FRONT = -1e6
"""A station ahead of every rail: a move from here takes the whole front along."""


EDGE = 1e-6
"""A station on a cut itself belongs to what is ahead of it, one at the far side of what is gone to what is behind, mm."""


@dataclass(frozen=True)
class Move:
    """At stock station ``at_mm``: ``gone_mm`` of rail is out and the rest, behind, moves."""

    at_mm: float
    dx_mm: float = 0.0
    dz_mm: float = 0.0
    inward_mm: float = 0.0
    gone_mm: float = 0.0


@dataclass(frozen=True)
class Shift:
    """How far stock stations have moved, mm; shape (stations,)."""

    dx: Columns
    dz: Columns
    inward: Columns


@dataclass(frozen=True)
class Route:
    """The moves on one rail in order of station, and the datum's stock station."""

    moves: tuple[Move, ...]
    datum_mm: float

    @cached_property
    def _steps(self) -> tuple[Columns, Columns]:
        """Starts of the segments behind the moves (n,), and sums of (dx, dz, inward) of each segment (n + 1, 3)."""
        ordered = sorted(self.moves, key=lambda m: m.at_mm)
        starts = np.array([m.at_mm + (m.gone_mm - EDGE if m.gone_mm > 0 else EDGE) for m in ordered])
        rows = np.array([(m.dx_mm, m.dz_mm, m.inward_mm) for m in ordered]).reshape(-1, 3)
        sums = np.concatenate([np.zeros((1, 3)), np.cumsum(rows, axis=0)])
        held = int(np.searchsorted(starts, self.datum_mm, side="right"))
        fixed = np.array([sums[held, 0], sums[held, 1], 0.0])
        return starts, sums - fixed

    @cached_property
    def _scalars(self) -> tuple[list[float], list[list[float]]]:
        starts, sums = self._steps
        return starts.tolist(), sums.tolist()

    @property
    def straight(self) -> bool:
        """Whether nothing moves."""
        return not self.moves

    @cached_property
    def slides(self) -> bool:
        """Whether anything moves along."""
        return any(m.dx_mm != 0 for m in self.moves)

    @property
    def level(self) -> bool:
        """Whether nothing moves along or in height."""
        return all(m.dx_mm == 0 and m.dz_mm == 0 for m in self.moves)

    def shift(self, x: Columns) -> Shift:
        """How far stock stations ``x`` have moved; a station in metal that is gone rides with what is ahead."""
        starts, sums = self._steps
        rows = sums[np.searchsorted(starts, x, side="right")]
        return Shift(rows[:, 0], rows[:, 1], rows[:, 2])

    def exists(self, x: Columns) -> Mask:
        """Stock stations whose metal is still there."""
        there: Mask = np.ones(len(x), dtype=bool)
        for move in self.moves:
            there &= ~((x > move.at_mm + 1e-9) & (x < move.at_mm + move.gone_mm - 1e-9))
        return there

    def x(self, x: Columns) -> Columns:
        """Planned stations of stock stations ``x``."""
        return x + self.shift(x).dx

    def shift_at(self, x_mm: float) -> tuple[float, float]:
        """How far one stock station moved along and up, mm."""
        starts, rows = self._scalars
        dx, dz, _ = rows[bisect_right(starts, x_mm)]
        return dx, dz

    def inward_at(self, x_mm: float) -> float:
        """How far one stock station moved towards the centre plane, mm."""
        starts, rows = self._scalars
        return rows[bisect_right(starts, x_mm)][2]

    def x_at(self, x_mm: float) -> float:
        """Planned station of one stock station."""
        return x_mm + self.shift_at(x_mm)[0]

    def stock_x(self, planned_mm: float) -> float:
        """Stock station of a planned one; in inserted metal, the cut's own station."""
        starts, sums = self._steps
        ordered = sorted(self.moves, key=lambda m: m.at_mm)
        for k in range(len(starts), -1, -1):
            stock = planned_mm - float(sums[k, 0])
            if k == 0 or stock >= starts[k - 1] - 1e-9:
                return min(stock, ordered[k].at_mm) if k < len(ordered) else stock
        return planned_mm


def route_of(moves: Sequence[Move], datum_mm: float) -> Route:
    """The route of one rail."""
    return Route(tuple(sorted(moves, key=lambda m: m.at_mm)), datum_mm)
