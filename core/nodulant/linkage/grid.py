"""A single wheel over travel and steer: poses on a grid, the steer given by how far a rod's frame end has moved.

A coarse grid is marched outward from straight ahead, so that every pose stays in its branch; the
fine grid starts from it, interpolated, and is solved like any other. A pose counts only where all
poses between it and straight ahead exist too, and none has leapt to another branch.
"""

from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from scipy.interpolate import CubicSpline

from nodulant.base.arrays import Columns, Mask, Rows
from nodulant.linkage.branch import GROWTH, STRAY_MM, longest_way
from nodulant.linkage.compiled import Compiled, Pose, places
from nodulant.linkage.rotation import exponential, rotation_vector
from nodulant.linkage.solve import Solved, part, solve
from nodulant.linkage.sweep import Sweep, why_not

COARSE = 6
"""Every so many rows and columns are marched to."""
AT_ONCE = 3
"""With as few columns a march would be one step from straight ahead to each lock: every pose takes it by itself."""


@dataclass(frozen=True)
class Grid:
    """Poses at every travel and steer, shape (travels x steers,), travel by travel."""

    travel: Columns
    solved: Solved
    there: Mask
    """Shape (travels, steers)."""
    ends: tuple[str, str]
    """Why the steer ends short to the first and to the last column; empty where it does not."""

    def at(self, rows: Rows) -> Solved:
        """Some of the poses."""
        return part(self.solved, rows)


def steer_grid(level: Sweep, rod: int, shifts: Columns) -> Grid:
    """Turn the wheel at every travel of ``level``, whose roll is 0, as rod number ``rod`` has its frame end moved.

    ``shifts`` is (steers, 3); one of them is 0.
    """
    c, travel = level.compiled, level.travel
    ride, ahead = int(np.argmin(np.abs(travel))), int(np.argmin((shifts**2).sum(axis=1)))
    rows, columns = _thinned(len(travel), ride), _thinned(len(shifts), ahead)
    if len(columns) <= AT_ONCE:
        start = _pose(np.repeat(_held(_vectors(level.solved.pose), level.there[:, 0]), len(shifts), axis=0))
    else:
        vectors = _marched(level.of(rows), rod, shifts[columns], int(np.flatnonzero(columns == ahead)[0]))
        start = _between(vectors, travel, rows, len(shifts), columns)
    solved = solve(
        c, _targets(c, np.repeat(travel, len(shifts))), start, _moved(c, rod, np.tile(shifts, (len(travel), 1)))
    )
    good = (solved.found & (solved.turn == level.solved.turn[ride])).reshape(len(travel), -1)
    good &= ~_leapt(places(c, solved.pose, c.a).reshape(*good.shape, -1, 3), ahead)
    there = _reached(good, ahead) & _reached(good[:, [ahead]].T, ride).T
    return Grid(travel, solved, there, _ends(c, solved, there, ride, ahead))


def _thinned(count: int, middle: int) -> Rows:
    """Every sixth number with both ends and the middle."""
    return np.unique([*range(middle, -1, -COARSE), *range(middle, count, COARSE), 0, count - 1])


def _targets(c: Compiled, travel: Columns) -> Columns:
    out = np.zeros((len(travel), len(c.drives)))
    out[:, 0] = travel
    return out


def _moved(c: Compiled, rod: int, shifts: Columns) -> Columns:
    out = np.zeros((len(shifts), len(c.mechanism.rods), 3))
    out[:, rod] = shifts
    return out


def _marched(level: Sweep, rod: int, shifts: Columns, ahead: int) -> Columns:
    """Origins and rotation vectors of the coarse grid, (travels, steers, 6); beyond a lock the last pose stays."""
    c, count, last = level.compiled, len(level.travel), len(shifts) - 1
    out = np.empty((count, last + 1, 6))
    out[:, ahead] = _held(_vectors(level.solved.pose), level.there[:, 0])
    for step in range(1, max(ahead, last - ahead) + 1):
        to = np.array([k for k in (ahead - step, ahead + step) if 0 <= k <= last])
        nearer = to - np.sign(to - ahead)
        before = out[:, nearer]
        start = before if step == 1 else 2 * before - out[:, 2 * nearer - to]
        travel, turn = np.repeat(level.travel, len(to)), np.repeat(level.solved.turn, len(to))
        found = solve(
            c, _targets(c, travel), _pose(start.reshape(-1, 6)), _moved(c, rod, np.tile(shifts[to], (count, 1)))
        )
        good = (found.found & (found.turn == turn)).reshape(count, -1, 1)
        out[:, to] = np.where(good, _vectors(found.pose).reshape(before.shape), before)
    return out


def _held(vectors: Columns, exists: Mask) -> Columns:
    """The nearest pose that exists in place of each that does not."""
    have = np.flatnonzero(exists)
    nearest = have[np.argmin(np.abs(np.arange(len(exists))[:, None] - have[None, :]), axis=1)]
    return np.asarray(vectors[nearest])


def _vectors(pose: Pose) -> Columns:
    return np.concatenate([pose.origin, rotation_vector(pose.rotation)], axis=1)


def _pose(vectors: Columns) -> Pose:
    return Pose(vectors[:, :3], exponential(vectors[:, 3:]), np.zeros((len(vectors), 0)))


def _between(vectors: Columns, travel: Columns, rows: Rows, steers: int, columns: Rows) -> Pose:
    """The coarse grid interpolated to the fine one."""
    along = _weights(tuple(travel[rows].tolist()), tuple(travel.tolist()))
    across = _weights(tuple(columns.tolist()), tuple(range(steers)))
    fine = np.tensordot(along, np.tensordot(across, vectors, (1, 1)), (1, 1))
    return _pose(fine.reshape(-1, 6))


@lru_cache(64)
def _weights(have: tuple[float, ...], wanted: tuple[float, ...]) -> Columns:
    """What each value at ``have`` counts for at each place ``wanted``, by a cubic spline, (wanted, have)."""
    if len(have) < 2:
        return np.ones((len(wanted), 1))
    return np.asarray(CubicSpline(have, np.eye(len(have)))(wanted))


def _leapt(ends: Columns, ahead: int) -> Mask:
    """Where a pose lies much further from its neighbour nearer to straight ahead than that one from its own, (travels, steers)."""
    way = longest_way(ends[:, 1:], ends[:, :-1])
    out = np.zeros(ends.shape[:2], dtype=bool)
    out[:, ahead + 2 :] = way[:, ahead + 1 :] > GROWTH * way[:, ahead:-1] + STRAY_MM
    out[:, : max(ahead - 1, 0)] = way[:, : max(ahead - 1, 0)] > GROWTH * way[:, 1:ahead] + STRAY_MM
    return out


def _reached(good: Mask, middle: int) -> Mask:
    """Along each row, what hangs together with the middle column."""
    out = np.empty_like(good)
    out[:, middle:] = np.logical_and.accumulate(good[:, middle:], axis=1)
    out[:, middle::-1] = np.logical_and.accumulate(good[:, middle::-1], axis=1)
    return out


def _ends(c: Compiled, solved: Solved, there: Mask, ride: int, ahead: int) -> tuple[str, str]:
    """Why the steer ends short at ride height, to either side."""
    count, words = there.shape[1], []
    for way in (-1, 1):
        k = ahead
        while 0 <= k < count and there[ride, k]:
            k += way
        words.append("" if k in (-1, count) else why_not(c, solved, ride * count + k))
    return words[0], words[1]
