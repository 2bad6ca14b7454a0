"""One moving body against one thing, over every position and between them.

At every position the boxes along the axes of both bound their distance from below. Only what may
be the least is worked out exactly, the most hopeful first. What lies between two positions cannot
be passed unseen: a body that moves d from one to the next comes no nearer in between than the
nearer of both less d/2, and round all that may so beat the least the grid is refined.
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from itertools import pairwise

import numpy as np

from nodulant.base.arrays import Columns, Mask, Rows
from nodulant.clearance.distance import ROUNDS, Near, Ring
from nodulant.clearance.looks import Ask, Looking, Placed, boxes_of, in_step, other_bodies, placed, repeated
from nodulant.clearance.moving import Mover, Positions, spots
from nodulant.clearance.shapes import Boxes, Standing

Other = Standing | Mover
MOST_STARTS, HALVINGS, MOST_BODIES = 2, 5, 3
QUICK = 4
"""Rounds of narrowing down while searching: within a hundredth of a millimetre on a rod."""
FAR_MM, SPARE_MM = 60.0, 20.0
"""Further apart than the first, and by the second further than what is asked for, is only told to be far."""
FIRST_BATCH = 192
ROUND_OFF_MM = 1e-6


@dataclass(frozen=True)
class Least:
    """Least distance of a pair, mm (negative inside); where; nearest points of the moving body and of the other, (3,)."""

    gap_mm: float
    travel_mm: float
    roll_deg: float
    input: float
    mine: Columns
    other: Columns
    at_rest_mm: float = np.inf
    """The same at ride height, level and straight ahead."""


@dataclass(frozen=True)
class Far:
    """A pair that stays at least so far apart."""

    beyond_mm: float


def least(mover: Mover, other: Other, needed_mm: float = 0.0) -> Least | Far | None:
    """Least distance of one pair, see ``look``."""
    return in_step([look(mover, other, needed_mm)])[0]


def reaches(pairs: Sequence[tuple[Mover, Other]]) -> list[Columns]:
    """How far all that each mover sweeps stays from each body of its other, mm; asked of every other once."""
    with_it: dict[int, list[int]] = {}
    for k, (_, other) in enumerate(pairs):
        with_it.setdefault(id(other), []).append(k)
    out: dict[int, Columns] = {}
    for numbers in with_it.values():
        own, other = [pairs[k][0].reach for k in numbers], pairs[numbers[0]][1]
        swept = Boxes(np.concatenate([r.low for r in own]), np.concatenate([r.high for r in own]))
        bodies = other.pack.boxes if isinstance(other, Standing) else other.reach
        out.update(zip(numbers, swept.apart(bodies), strict=True))
    return [out[k] for k in range(len(pairs))]


def look(
    mover: Mover, other: Other, needed_mm: float = 0.0, reach: Columns | None = None
) -> Looking[Least | Far | None]:
    """Least distance of a pair over its whole motion; None where one of them cannot be anywhere.

    Only told to be far where it stays further apart than matters, ``needed_mm`` being asked for. ``reach`` is what
    ``reaches`` found of the pair.
    """
    there = (mover.there if isinstance(other, Standing) else mover.there & other.there).reshape(-1)
    rows = np.flatnonzero(there)
    if len(rows) == 0:
        return None
    far = max(FAR_MM, needed_mm + SPARE_MM)
    if reach is None:
        (reach,) = reaches([(mover, other)])
    if (whole := float(reach.min())) > far:
        return Far(whole)
    slack = (mover.step_mm + (other.step_mm if isinstance(other, Mover) else 0.0)) / 2
    low, body = _bounds(mover, other, rows, far + slack, np.flatnonzero(reach <= far + slack))
    if float(low.min()) - slack > far:
        return Far(far)
    # what overlaps at ride height straight ahead already is no contact of the sweep: it is told as it stands
    rest = yield from at_rest(mover, other)
    if rest.gap_mm < 0.0:
        return rest
    found = yield from _searched(mover, other, rows, low, body, slack)
    if float(found.near.gap.min()) - slack > far:
        return Far(far)
    best = yield from _refined(mover, other, found, there.reshape(mover.positions.shape), slack)
    # further off than that another body may be the nearest, which was not looked at
    return Far(far) if best.gap_mm > far else replace(best, at_rest_mm=rest.gap_mm)


def at_rest(mover: Mover, other: Other) -> Looking[Least]:
    """The distance at ride height, level and straight ahead."""
    grid = np.arange(mover.positions.count).reshape(mover.positions.shape)
    row = np.array([grid[mover.positions.ride()]])
    which = yield from _nearest_bodies(placed(mover, row), other)
    rows = np.repeat(row, len(which))
    near = yield Ask(placed(mover, rows), other_bodies(other, which, rows), QUICK)
    found = _Found(rows, which, near).best(mover.positions)
    return replace(found, at_rest_mm=found.gap_mm)


def gaps_at(mover: Mover, other: Other, travel: Columns) -> Looking[Columns]:
    """The distances at wheel travels, level and straight ahead, mm; (travels,) in and out."""
    places = np.stack([travel, np.zeros_like(travel), np.zeros_like(travel)], axis=1)
    which = yield from _nearest_bodies(placed(mover, at=spots(mover.positions, places)), other)
    at = spots(mover.positions, np.repeat(places, len(which), axis=0))
    near = yield Ask(placed(mover, at=at), other_bodies(other, np.tile(which, len(travel)), at=at), QUICK)
    return np.asarray(near.gap.reshape(len(travel), -1).min(axis=1))


def _nearest_bodies(mine: Placed, other: Other) -> Looking[Rows]:
    """Which bodies of a thing may be the nearest in any of the places: those bounded below what one of them has."""
    if isinstance(other, Mover):
        return np.zeros(1, dtype=np.int64)
    apart = boxes_of(mine).apart(other.pack.boxes)
    have = yield Ask(mine, other.pack.some(np.argmin(apart, axis=1)), QUICK)
    return np.flatnonzero((apart <= np.maximum(have.gap, 0.0)[:, None] + ROUND_OFF_MM).any(axis=0))


def _bounds(mover: Mover, other: Other, rows: Rows, far_mm: float, which: Rows) -> tuple[Columns, Rows]:
    """Bounds from below of the bodies ``which``, one for each (row, body): flat, with the body's number; rows repeat body by body."""
    if isinstance(other, Standing):
        return _bounds_of_bodies(placed(mover, rows), other.pack.boxes, far_mm, which)
    mine, theirs = boxes_of(placed(mover, rows)), boxes_of(placed(other, rows))
    gap = np.maximum(np.maximum(mine.low - theirs.high, theirs.low - mine.high), 0.0)
    return _or_inside(np.sqrt((gap**2).sum(axis=1))), np.zeros(len(rows), dtype=np.int64)


def _bounds_of_bodies(mine: Placed, boxes: Boxes, far_mm: float, which: Rows) -> tuple[Columns, Rows]:
    """The bodies of a thing that come as near as ``far_mm``, or the nearest, each bounded by the boxes of a bar's parts, which hug it closer."""
    apart = boxes_of(mine).apart(boxes.some(which))
    least_of = apart.min(axis=0)
    near = np.flatnonzero(least_of <= max(far_mm, float(least_of.min())))
    held, which = apart[:, near], which[near]
    some = boxes.some(which)
    if isinstance(mine, Ring):
        held = np.maximum(held, _beside_a_tyre(mine, some))
    else:
        rows = np.flatnonzero(held.min(axis=1) <= max(far_mm, float(least_of.min())))
        a, b, radius = mine[0][rows], mine[1][rows], mine[2]
        marks = a[None] + np.linspace(0.0, 1.0, PARTS + 1)[:, None, None] * (b - a)[None]
        pieces = [boxes_of((p, q, radius)).apart(some) for p, q in pairwise(marks)]
        held[rows] = np.minimum.reduce(pieces)
    return _or_inside(held.reshape(-1)), np.tile(which, len(apart))


def _beside_a_tyre(ring: Ring, boxes: Boxes) -> Columns:
    """How far boxes lie beside a tyre's disc along its own axis, and beyond the ball round it, at least: (positions, boxes)."""
    middle, half = (boxes.low + boxes.high) / 2, (boxes.high - boxes.low) / 2
    along = ring.spin @ middle.T - (ring.spin * ring.centre).sum(axis=1)[:, None]
    beside = np.abs(along) - np.abs(ring.spin) @ half.T - ring.width / 2
    away = Boxes(ring.centre, ring.centre).apart(boxes) - np.hypot(ring.outside, ring.width / 2)
    return np.asarray(np.maximum(np.maximum(beside, away), 0.0))


PARTS = 4


def _or_inside(apart: Columns) -> Columns:
    """Boxes that overlap bound nothing: the bodies in them may be any depth in each other."""
    return np.where(apart > 0.0, apart, -np.inf)


@dataclass(frozen=True)
class _Found:
    """What was worked out exactly: grid rows, bodies, distances."""

    rows: Rows
    body: Rows
    near: Near

    def best(self, positions: Positions) -> Least:
        """The least of it, as it stands on the grid."""
        i = int(np.argmin(self.near.gap))
        t, r, s = np.unravel_index(int(self.rows[i]), positions.shape)
        return Least(
            float(self.near.gap[i]),
            float(positions.travel[t]),
            float(positions.roll[r]),
            float(positions.input[s]),
            self.near.mine[i],
            self.near.other[i],
        )


def _searched(mover: Mover, other: Other, rows: Rows, low: Columns, body: Rows, slack: float) -> Looking[_Found]:
    """The most hopeful first, until nothing is left that may be the least, or lie beside a place that is."""
    each = len(low) // len(rows)
    order = np.argsort(low, kind="stable")
    best, taken, size = np.inf, 0, FIRST_BATCH
    got: list[tuple[Rows, Rows, Near]] = []
    while taken < len(order) and low[order[taken]] <= best + slack:
        batch = order[taken : taken + size]
        taken, size = taken + len(batch), size * 3
        batch = batch[low[batch] <= best + slack]
        at, which = rows[batch // each], body[batch]
        near = yield Ask(placed(mover, at), other_bodies(other, which, at), QUICK)
        best = min(best, float(near.gap.min()))
        got.append((at, which, near))
    parts = [np.concatenate([g[2][k] for g in got]) for k in range(3)]
    return _Found(np.concatenate([g[0] for g in got]), np.concatenate([g[1] for g in got]), Near(*parts))


def _refined(mover: Mover, other: Other, found: _Found, there: Mask, slack: float) -> Looking[Least]:
    """Close in on the least from every hopeful start, all at once, within what the motion reaches."""
    positions = mover.positions
    columns = positions.axes()
    grid, bodies = _starts(found, positions, slack)
    at = np.stack([c[grid[:, k]] for k, c in enumerate(columns)], axis=1)
    step = np.array([float(np.diff(c).max()) if len(c) > 1 else 0.0 for c in columns])
    low, high = _reached(at, grid, columns, there)
    axes = [np.array([-1.0, 0.0, 1.0]) if s > 0 else np.zeros(1) for s in step]
    offsets = np.stack(np.meshgrid(*axes, indexing="ij"), axis=-1).reshape(-1, 3)
    best = yield from _best_of(mover, other, at[:, None], bodies)
    for _ in range(HALVINGS):
        step = step / 2
        places = np.clip(at[:, None] + offsets[None] * step, low[:, None], high[:, None])
        found_here = yield from _best_of(mover, other, places, bodies)
        better = found_here.gap < best.gap
        at = np.where(better[:, None], found_here.at, at)
        best = _Best(
            np.where(better, found_here.gap, best.gap),
            np.where(better[:, None], found_here.mine, best.mine),
            np.where(better[:, None], found_here.other, best.other),
            at,
        )
    i = int(np.argmin(best.gap))
    last = yield from _best_of(mover, other, at[i][None, None], bodies[i : i + 1], ROUNDS)
    travel, roll, steer = (float(v) for v in at[i])
    return Least(float(last.gap[0]), travel, roll, steer, last.mine[0], last.other[0])


@dataclass(frozen=True)
class _Best:
    """The best place of each start: distance (n,), nearest points and place (n, 3)."""

    gap: Columns
    mine: Columns
    other: Columns
    at: Columns


def _best_of(mover: Mover, other: Other, places: Columns, bodies: Rows, rounds: int = QUICK) -> Looking[_Best]:
    """Of each start's places (starts, places, 3), against each of its bodies (starts, bodies), the least."""
    starts, count, each = *places.shape[:2], bodies.shape[1]
    at = places.reshape(-1, 3)
    here = spots(mover.positions, at)
    if isinstance(other, Mover):
        near = yield Ask(placed(mover, at=here), placed(other, at=here), rounds)
    else:
        which = np.repeat(bodies[:, None], count, axis=1).reshape(-1)
        at, mine = np.repeat(at, each, axis=0), repeated(placed(mover, at=here), each)
        near = yield Ask(mine, other.pack.some(which), rounds)
    gaps = near.gap.reshape(starts, -1)
    k = np.argmin(gaps, axis=1) + np.arange(starts) * gaps.shape[1]
    return _Best(near.gap[k], near.mine[k], near.other[k], at[k])


def _starts(found: _Found, positions: Positions, slack: float) -> tuple[Rows, Rows]:
    """Grid numbers (starts, 3) of what a place beside it may still beat the least from, and the bodies near each."""
    gap = found.near.gap
    hopeful = np.argsort(gap, kind="stable")
    hopeful = hopeful[gap[hopeful] <= gap[hopeful[0]] + slack]
    grid = np.stack(np.unravel_index(found.rows, positions.shape), axis=1)
    kept: list[int] = []
    for k in hopeful[:400]:
        if all(np.abs(grid[k] - grid[j]).max() > 1 for j in kept):
            kept.append(int(k))
        if len(kept) == MOST_STARTS:
            break
    bodies = np.empty((len(kept), MOST_BODIES), dtype=np.int64)
    for i, k in enumerate(kept):
        here = np.flatnonzero(found.rows == found.rows[k])
        near = found.body[here[np.argsort(gap[here], kind="stable")]][:MOST_BODIES]
        bodies[i] = np.concatenate([near, np.full(MOST_BODIES - len(near), near[0])])
    width = max(len(np.unique(row)) for row in bodies)
    return grid[kept], bodies[:, :width]


def _reached(
    at: Columns, grid: Rows, columns: tuple[Columns, Columns, Columns], there: Mask
) -> tuple[Columns, Columns]:
    """How far each start may be refined along each axis: to its neighbours, where they can be at all."""
    low, high = at.copy(), at.copy()
    for i, cell in enumerate(grid):
        for axis, column in enumerate(columns):
            for way, bound in ((-1, low), (1, high)):
                beside = cell.copy()
                beside[axis] += way
                if 0 <= beside[axis] < len(column) and there[tuple(beside)]:
                    bound[i, axis] = column[beside[axis]]
    return low, high


def along(mover: Mover, other: Other, rows: Rows) -> Looking[Columns]:
    """Exact distances at some rows of the grid, the least of all bodies."""
    mine = placed(mover, rows)
    if isinstance(other, Mover):
        near = yield Ask(mine, placed(other, rows), QUICK)
        return near.gap
    apart = _or_inside(boxes_of(mine).apart(other.pack.boxes))
    out = np.full(len(rows), np.inf)
    order = np.argsort(apart.min(axis=0), kind="stable")
    for start in range(0, len(order), AT_ONCE):
        # a few bodies at once, and only where they may be nearer than what was found
        some = order[start : start + AT_ONCE]
        i, k = np.nonzero(apart[:, some] < out[:, None])
        if len(i):
            near = yield Ask(placed(mover, rows[i]), other.pack.some(some[k]), QUICK)
            np.minimum.at(out, i, near.gap)
    return out


AT_ONCE = 6
