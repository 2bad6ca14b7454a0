"""A linkage through its travel and roll, from ride height outward, as far as it exists.

The grid has one row per travel and one column per roll angle. Every level pose starts from the
twist at ride height, every leaning one from the level pose's; what has leapt to another branch is
followed from its neighbour. Where a pose has no solution, or its Jacobian's determinant has changed
sign on the way, the linkage ends there.
"""

from dataclasses import dataclass, replace
from typing import TypeVar

import numpy as np
import numpy.typing as npt

from nodulant.base.arrays import Columns, Mask, Rows
from nodulant.base.errors import NotSolvable
from nodulant.linkage.branch import on_one_branch
from nodulant.linkage.compiled import ARM_MM, Compiled, Pose, reference
from nodulant.linkage.mechanism import Lean
from nodulant.linkage.rates import carried, twist
from nodulant.linkage.solve import Solved, part, solve
from nodulant.units.inline import as_length

FREE_BELOW = 1e-7
"""Singular value over the largest, below which a movement is free."""


@dataclass(frozen=True)
class Sweep:
    """Poses at every travel (and roll), shape (travels x rolls,), travel by travel."""

    compiled: Compiled
    travel: Columns
    roll: Columns
    solved: Solved
    there: Mask
    """Whether the linkage reaches the pose without breaking or flipping, shape (travels, rolls)."""
    ends: tuple[str, ...]
    """Why it ends in droop and in bump; empty where it reaches the whole travel."""

    def at(self, roll: float = 0.0) -> Solved:
        """The column of one roll angle."""
        return self.column(int(np.argmin(np.abs(self.roll - roll))))

    def column(self, k: int) -> Solved:
        """The poses of one roll angle through travel."""
        if len(self.roll) == 1:
            return self.solved
        rows = np.arange(len(self.travel)) * len(self.roll) + k
        return part(self.solved, rows)

    def of(self, rows: Rows) -> "Sweep":
        """The same at some of the travels, where nothing rolls."""
        return replace(self, travel=self.travel[rows], solved=part(self.solved, rows), there=self.there[rows])


def sweep(c: Compiled, travel: Columns, roll: Columns | None = None) -> Sweep:
    """Solve the grid; raises NotSolvable where even ride height has no solution or leaves a movement free."""
    tilt = np.zeros(1) if roll is None else roll
    ride = solve(c, np.zeros((1, len(c.drives))), reference(c))
    _refuse_free(c, ride)
    heave = twist(c, ride, 0)[0]
    targets = np.zeros((len(travel), len(c.drives)))
    targets[:, 0] = travel
    column = solve(c, targets, carried(_tiled(ride.pose, len(travel)), travel[:, None] * heave))
    column = on_one_branch(c, column, travel)
    exists, ends = _reach(c, column, travel, ride.turn[0])
    if len(tilt) == 1 and tilt[0] == 0.0:
        return Sweep(c, travel, tilt, column, exists[:, None], ends)
    lean = next((i for i, d in enumerate(c.drives) if isinstance(d, Lean)), None)
    if lean is None:
        raise NotSolvable("one wheel alone does not roll", field="roll", found="a roll angle", acceptable="0")
    rates = np.zeros((len(travel), c.mechanism.freedoms))
    rates[exists] = twist(c, part(column, np.flatnonzero(exists)), lean)
    count, leaning = len(tilt), np.flatnonzero(tilt != 0.0)
    each = len(leaning)
    start = column.pose.rows(np.repeat(np.arange(len(travel)), each))
    angle = np.tile(tilt[leaning], len(travel))
    targets = np.repeat(targets, each, axis=0)
    targets[:, lean] = angle
    rolled = solve(c, targets, carried(start, angle[:, None] * np.repeat(rates, each, axis=0)))
    grid = _woven(column, rolled, count, leaning)
    there = (grid.found & (grid.turn == ride.turn[0])).reshape(-1, count) & exists[:, None]
    return Sweep(c, travel, tilt, grid, there, ends)


S = TypeVar("S", bound=np.generic)


def _woven(level: Solved, rolled: Solved, count: int, leaning: Rows) -> Solved:
    """Level poses and those in roll as one grid, travel by travel, roll by roll."""
    rest = np.setdiff1d(np.arange(count), leaning)

    def grid(flat: npt.NDArray[S], tilted: npt.NDArray[S]) -> npt.NDArray[S]:
        out = np.empty((len(flat), count, *flat.shape[1:]), dtype=flat.dtype)
        out[:, rest] = flat[:, None]
        out[:, leaning] = tilted.reshape(len(flat), len(leaning), *flat.shape[1:])
        return out.reshape(len(flat) * count, *flat.shape[1:])

    a, b = level.pose, rolled.pose
    return Solved(
        Pose(grid(a.origin, b.origin), grid(a.rotation, b.rotation), grid(a.turned, b.turned)),
        grid(level.error, rolled.error),
        grid(level.jacobian, rolled.jacobian),
        grid(level.found, rolled.found),
        grid(level.turn, rolled.turn),
    )


def _tiled(pose: Pose, count: int) -> Pose:
    return pose.rows(np.zeros(count, dtype=np.int64))


def _reach(c: Compiled, column: Solved, travel: Columns, turn: float) -> tuple[Mask, tuple[str, ...]]:
    """Poses that hang together with ride height, and why the linkage ends in droop and in bump."""
    good = column.found & (column.turn == turn)
    middle = int(np.argmin(np.abs(travel)))
    exists = np.zeros(len(travel), dtype=bool)
    ends = ["", ""]
    for way, (rows, name) in enumerate(((range(middle, -1, -1), "droop"), (range(middle, len(travel)), "bump"))):
        for i in rows:
            if not good[i]:
                ends[way] = f"at {as_length(abs(travel[i]))} of {name} {why_not(c, column, i)}"
                break
            exists[i] = True
    return exists, tuple(ends)


def why_not(c: Compiled, solved: Solved, row: int) -> str:
    """What stands in the way at one pose: the part that cannot reach, or the linkage that has turned over."""
    if solved.found[row]:
        return "the linkage has passed a dead point and would flip over"
    worst = int(np.argmax(np.abs(np.nan_to_num(solved.error[row, : c.held], nan=0.0))))
    by = abs(float(np.nan_to_num(solved.error[row, worst])))
    return f"{c.mechanism.names[worst]} cannot reach: it locks the travel ({by:.1f} mm are missing)"


FREE = {
    0: "nothing locates the axle fore and aft",
    1: "nothing locates the axle sideways",
    2: "nothing carries the axle",
    3: "nothing stops the axle from rolling",
    4: "nothing stops the housing from turning",
    5: "nothing keeps the axle square",
}


def _refuse_free(c: Compiled, ride: Solved) -> None:
    """Raise NotSolvable that names the movement which nothing holds at ride height."""
    _, values, vectors = np.linalg.svd(ride.jacobian[0] * _scale(c))
    if len(values) < c.mechanism.freedoms or values[-1] < FREE_BELOW * values[0]:
        free = int(np.argmax(np.abs(vectors[-1])))
        named = FREE.get(free) or f"nothing holds {c.mechanism.pieces[free - 6].name}"
        raise NotSolvable(
            f"{named}: at ride height two links do the same work",
            field="layout",
            found=f"{c.held} rods, one of them idle",
            acceptable="links that pull in different directions",
        )


def _scale(c: Compiled) -> Columns:
    """Angles count by the arm, so that mm and radians compare."""
    return np.array([1.0] * 3 + [1 / ARM_MM] * (c.mechanism.freedoms - 3))


def stretches(sweep_: Sweep) -> Columns:
    """How much every rod and guide gives way, mm, shape (poses, rods + guides); round-off where it has to give nothing."""
    return sweep_.solved.error[:, : sweep_.compiled.held]
