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
    rows, weights = zip(*(_stencil(column, at[:, k]) for k, column in enumerate(positions.axes())), strict=True)
    return Spots(rows, weights)


def between(values: Columns, at: Spots) -> Columns:
    """Values (grid.., k) interpolated at n places, (n, k)."""
    t, r, s = at.rows
    near = values[t[:, :, None, None], r[:, None, :, None], s[:, None, None, :]]
    for own in reversed(at.weights):
        near = np.einsum("n...jk,nj->n...k", near, own)
    return np.asarray(near)


def _stencil(column: Columns, at: Columns) -> tuple[Rows, Columns]:
    """Up to four rows round each place and what each of them counts for, (n, rows)."""
    count = min(STENCIL, len(column))
    first = np.clip(np.searchsorted(column, at) - count // 2, 0, len(column) - count)
    rows = first[:, None] + np.arange(count)
    x, own = column[rows], np.eye(count, dtype=bool)
    far = np.where(own, 1.0, (at[:, None] - x)[:, None, :]).prod(axis=2)
    return rows, far / np.where(own, 1.0, x[:, :, None] - x[:, None, :]).prod(axis=2)


STENCIL = 4
