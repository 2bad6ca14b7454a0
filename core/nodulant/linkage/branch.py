"""Poses of one motion: those that landed on another branch are followed again from their neighbours.

Newton's method may end on another branch of the same linkage: every rod keeps its length there too,
but no motion leads to it. It shows between neighbours: carried along its twist a pose meets the next
one, from the one side or from the other, but for a part of the way between them; towards a dead
point, where the way grows with the root of the travel that is left, that is half of it.
"""

from dataclasses import replace

import numpy as np

from nodulant.base.arrays import Columns, Mask, Rows
from nodulant.linkage.compiled import Compiled, Pose, places
from nodulant.linkage.rates import carried, twist
from nodulant.linkage.solve import Solved, part, solve

LEAST_MM = 1e-6
EVEN, STRAY_MM = 2.0, 1.0
"""Ways a mm of travel that differ by less than this factor, and what round-off and curvature may add, mm."""
LEAP = 0.6
"""Share of the way between two poses that carrying one to the other may miss by."""
GROWTH = 3.0
"""A stride is at most so much longer than the one before it: up to a dead point it is 1 + sqrt 2."""
STRIDES = 8
"""Steps from a pose to the next where it is followed."""


def on_one_branch(c: Compiled, column: Solved, travel: Columns) -> Solved:
    """A column of level poses, followed each way from ride height as far as a motion leads; ``turn`` NaN past that."""
    middle = int(np.argmin(np.abs(travel)))
    for rows in (np.arange(middle, len(travel)), np.arange(middle, -1, -1)):
        column = _followed(c, column, travel, rows)
    return column


def _followed(c: Compiled, column: Solved, travel: Columns, rows: Rows) -> Solved:
    """Outward along ``rows``, up to the first that cannot be reached."""
    turn = column.turn[rows[0]]
    good = column.found[rows] & (column.turn[rows] == turn)
    if not good[0]:
        return column
    reached = len(rows) if good.all() else int(np.argmin(good))
    for k in range(_doubted(c, column, travel, rows[:reached]), len(rows) - 1):
        one, two = part(column, rows[k : k + 1]), part(column, rows[k + 1 : k + 2])
        start, end = float(travel[rows[k]]), float(travel[rows[k + 1]])
        if good[k + 1] and not _leaps(c, one, two, np.array([end - start]))[0]:
            continue
        walked = _walked(c, one, start, end)
        if walked is None:
            return _ended(column, int(rows[k + 1])) if good[k + 1] else column
        column = _put(column, int(rows[k + 1]), walked)
    return column


def _doubted(c: Compiled, column: Solved, travel: Columns, rows: Rows) -> int:
    """Number of the first row whose next one is in doubt, the last one's next among them."""
    last = len(rows) - 1
    if last < 1:
        return last
    ends = places(c, column.pose.rows(rows), c.a)
    rate = longest_way(ends[:-1], ends[1:]) / np.maximum(np.abs(np.diff(travel[rows])), LEAST_MM)
    if rate.max() <= EVEN * rate.min() + STRAY_MM / max(float(np.abs(travel[rows[-1]] - travel[rows[0]])), LEAST_MM):
        return last
    leapt = _leaps(c, part(column, rows[:-1]), part(column, rows[1:]), np.diff(travel[rows]))
    return int(np.argmax(leapt)) if leapt.any() else last


def longest_way(here: Columns, there: Columns) -> Columns:
    """The longest way of any end between poses (.., ends, 3), (..,); none where nothing but guides hold them."""
    return np.asarray(np.sqrt(((there - here) ** 2).sum(axis=-1)).max(axis=-1, initial=0.0))


def _leaps(c: Compiled, one: Solved, two: Solved, step_mm: Columns) -> Mask:
    """Whether poses and those one step of travel on miss each other, carried either way."""
    step = step_mm[:, None]
    here, there = places(c, one.pose, c.a), places(c, two.pose, c.a)
    out = places(c, carried(one.pose, step * twist(c, one, 0)), c.a)
    back = places(c, carried(two.pose, -step * twist(c, two, 0)), c.a)
    missed = np.minimum(longest_way(out, there), longest_way(back, here))
    return np.asarray(missed > LEAP * longest_way(here, there) + STRAY_MM)


def _walked(c: Compiled, at: Solved, start_mm: float, end_mm: float) -> Solved | None:
    """From one pose to another travel in strides that do not leap; None where no motion leads there."""
    targets, step = np.zeros((1, len(c.drives))), np.array([(end_mm - start_mm) / STRIDES])
    ends, most = places(c, at.pose, c.a), np.inf
    for k in range(1, STRIDES + 1):
        targets[0, 0] = start_mm + k * step[0]
        before, here = at, ends
        at = solve(c, targets, carried(at.pose, step * twist(c, at, 0)))
        ends = places(c, at.pose, c.a)
        way = float(longest_way(here, ends)[0])
        if not at.found[0] or at.turn[0] != before.turn[0] or way > most or _leaps(c, before, at, step)[0]:
            return None
        most = GROWTH * way + STRAY_MM
    return at


def _ended(column: Solved, row: int) -> Solved:
    """The column with one pose told to be past a dead point."""
    turn = column.turn.copy()
    turn[row] = np.nan
    return replace(column, turn=turn)


def _put(column: Solved, row: int, one: Solved) -> Solved:
    """The column with one pose in place of another."""

    def put(into: Columns, what: Columns) -> Columns:
        out = into.copy()
        out[row] = what[0]
        return out

    a, b = column.pose, one.pose
    pose = Pose(put(a.origin, b.origin), put(a.rotation, b.rotation), put(a.turned, b.turned))
    found = column.found.copy()
    found[row] = one.found[0]
    return Solved(
        pose, put(column.error, one.error), put(column.jacobian, one.jacobian), found, put(column.turn, one.turn)
    )
