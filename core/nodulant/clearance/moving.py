"""Bodies that move with an axle: round bars and tyres, on a grid of travel, roll and steer.

Every body of an axle stands on one grid, (travels, rolls, inputs); between the grid's positions
its points are found by third-order interpolation, whose error is far below a thousandth of a
millimetre at these steps.
"""

from dataclasses import dataclass
from functools import cached_property
from typing import Literal, NamedTuple

import numpy as np

from nodulant.base.arrays import Columns, Mask, Rows
from nodulant.clearance.shapes import Boxes
from nodulant.linkage.mechanism import Point

MoverKind = Literal["tyre", "rod", "boot", "spring", "torsion-bar", "axle", "shaft", "bracket", "arm"]


@dataclass(frozen=True, eq=False)
class Stencil:
    """Third-order Lagrange interpolation along one column: of every group of neighbours the powers that its weights are made of."""

    column: Columns
    powers: Columns
    """(groups, power, neighbour), of the distance from the group's first in its step."""

    @classmethod
    def of(cls, column: Columns) -> "Stencil":
        """Of a column that rises; of fewer than four its own number."""
        count = min(STENCIL, len(column))
        groups = np.lib.stride_tricks.sliding_window_view(column, count)
        own = (groups - groups[:, :1]) / _step(groups)
        return cls(column, np.asarray(np.linalg.inv(own[:, :, None] ** np.arange(count)), dtype=float))

    def about(self, at: Columns) -> tuple[Rows, Columns]:
        """The rows round each place and what each of them counts for, (n, rows)."""
        count = self.powers.shape[1]
        first = np.searchsorted(self.column, at) - count // 2
        first = np.minimum(np.maximum(first, 0), len(self.column) - count)
        from_first = (at - self.column[first]) / _step(self.column[first[:, None] + np.arange(min(count, 2))])[:, 0]
        terms = from_first[:, None] ** np.arange(count)
        return first[:, None] + np.arange(count), np.asarray(np.einsum("np,npk->nk", terms, self.powers[first]))


def _step(groups: Columns) -> Columns:
    """The first step of each group, (groups, 1); 1 where it is one row."""
    return groups[:, 1:2] - groups[:, :1] if groups.shape[1] > 1 else np.ones((len(groups), 1))


STENCIL = 4


@dataclass(frozen=True, eq=False)
class Positions:
    """The grid that an axle's bodies stand on: travel, mm; roll, degrees; steering input, -1 to +1."""

    axle: str
    travel: Columns
    roll: Columns
    input: Columns

    @property
    def shape(self) -> tuple[int, int, int]:
        """Its size along each."""
        return (len(self.travel), len(self.roll), len(self.input))

    @property
    def count(self) -> int:
        """How many positions there are."""
        return len(self.travel) * len(self.roll) * len(self.input)

    @cached_property
    def stencils(self) -> tuple[Stencil, Stencil, Stencil]:
        """What is between its rows, along each."""
        return Stencil.of(self.travel), Stencil.of(self.roll), Stencil.of(self.input)

    def axes(self) -> tuple[Columns, Columns, Columns]:
        """The three columns."""
        return (self.travel, self.roll, self.input)

    def ride(self) -> tuple[int, int, int]:
        """Ride height, level, straight ahead."""
        t, r, s = (int(np.argmin(np.abs(v))) for v in self.axes())
        return (t, r, s)


@dataclass(frozen=True, eq=False)
class RoundBar:
    """A bar with round ends; ``a`` and ``b`` are (positions.., 3)."""

    a: Columns
    b: Columns
    radius: float


@dataclass(frozen=True, eq=False)
class TyreBody:
    """A tyre: a ring of rounded section about ``spin``; radii from its axis, width along it, mm."""

    centre: Columns
    spin: Columns
    outside: float
    rim: float
    width: float
    shoulder: float


@dataclass(frozen=True, eq=False)
class Mover:
    """One moving body with where it can be at all; ``joints`` are its ends at rest, to know what it hangs on."""

    name: str
    kind: MoverKind
    body: RoundBar | TyreBody
    there: Mask
    positions: Positions
    side: str = "both"
    stands_on: str = ""
    """The arm that a spring stands on, as its legs' names begin."""
    hangs_at: Point | None = None
    """Its joint on the frame, at ride height where that moves: what stands there carries it."""

    @cached_property
    def reach(self) -> Boxes:
        """The one box along the axes that holds it in every position where it can be."""
        there = self.there
        if isinstance(self.body, RoundBar):
            ends = np.concatenate([self.body.a[there], self.body.b[there]])
            grow: Columns | float = self.body.radius
        else:
            ends = self.body.centre[there]
            grow = float(np.hypot(self.body.outside, self.body.width / 2))
        if len(ends) == 0:
            return Boxes(np.full((1, 3), np.inf), np.full((1, 3), np.inf))
        return Boxes((ends.min(axis=0) - grow)[None], (ends.max(axis=0) + grow)[None])

    @cached_property
    def step_mm(self) -> float:
        """The most that any point of it moves from one position to the next."""
        if isinstance(self.body, RoundBar):
            return max(_steps(v, self.there) for v in (self.body.a, self.body.b))
        swing = _steps(self.body.spin, self.there) * self.body.outside
        return _steps(self.body.centre, self.there) + swing


def _steps(values: Columns, there: Mask) -> float:
    """Most change between neighbours along any axis of the grid."""
    most = 0.0
    for axis in range(3):
        if values.shape[axis] < 2:
            continue
        change = np.sqrt((np.diff(values, axis=axis) ** 2).sum(axis=-1))
        both = np.logical_and(
            np.take(there, range(1, there.shape[axis]), axis), np.take(there, range(there.shape[axis] - 1), axis)
        )
        if both.any():
            most = max(most, float(change[both].max()))
    return most


class Spots(NamedTuple):
    """Places between the positions of a grid: along each axis the rows round each, (n, rows), and what each counts for."""

    rows: tuple[Rows, ...]
    weights: tuple[Columns, ...]


def spots(positions: Positions, at: Columns) -> Spots:
    """Where places (n, 3) lie, for third-order Lagrange interpolation along each axis."""
    rows, weights = zip(*(stencil.about(at[:, k]) for k, stencil in enumerate(positions.stencils)), strict=True)
    return Spots(rows, weights)


def between(values: Columns, at: Spots) -> Columns:
    """Values (grid.., k) interpolated at n places, (n, k)."""
    t, r, s = at.rows
    near = values[t[:, :, None, None], r[:, None, :, None], s[:, None, None, :]]
    for own in reversed(at.weights):
        near = np.einsum("n...jk,nj->n...k", near, own)
    return np.asarray(near)
