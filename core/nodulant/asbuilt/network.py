"""Points of the frame measured by lengths between them: where they are, how well, and which reading is wrong.

Least squares in the plane with a free datum (inner constraints): no point is held, the whole is laid on
the planned places as well as it fits. For residuals v, cofactors Q_v and redundancies r: the standardised
residual w = v/(s sqrt(r)) is held against 3.29 (one false alarm in a thousand readings), and a blunder is
about -v/r (Baarda's data snooping; W. Baarda 1968, Ghilani, Adjustment Computations, ch. 21; from memory). Two readings
whose residuals correlate by 0.9 or more cannot be told from each other. Lengths in a plane say nothing of
twist and sag, and the mirror image fits as well: sides are given by the points' names.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import combinations

import numpy as np

from nodulant.base.arrays import Columns, Mask, Rows
from nodulant.base.memo import remembered
from nodulant.base.model import Frozen

CRITICAL = 3.29
ALIKE = 0.9
LOOSE = 1e-8
"""Stiffness of a way to move, over the stiffest, below which lengths do not hold it."""
ROUNDS, STILL_MM = 30, 1e-9


@dataclass(frozen=True)
class Taped:
    """A length between two points, with the spread of such a reading, mm."""

    a: str
    b: str
    length_mm: float
    spread_mm: float


class PointAt(Frozen):
    """A point's place in plan, mm, and its standard error as an ellipse: half axes, mm, and the longer one's turn, degrees."""

    id: str
    x_mm: float
    y_mm: float
    moved_mm: float
    """From where it is planned."""
    major_mm: float
    minor_mm: float
    turn_deg: float


class LengthFit(Frozen):
    """How one reading fits: measured less fitted, its share of control, and how many spreads it is out by."""

    index: int
    off_mm: float
    control: float
    """Redundancy, 0 to 1: how much of its own error shows."""
    out: float
    blunder_mm: float | None
    """How wrong it is by itself, if it alone is wrong; None where nothing controls it."""


class Network(Frozen):
    """The adjusted network; ``suspects`` are indices of readings, the first most suspect, that cannot be told from each other."""

    points: tuple[PointAt, ...]
    lengths: tuple[LengthFit, ...]
    redundancy: int
    loose: tuple[str, ...]
    """Points that the lengths do not hold."""
    suspects: tuple[int, ...]
    uncontrolled: tuple[int, ...]
    """Readings in which an error would not show."""
    helps: tuple[str, ...]
    """The two points of the length that would help most to tell readings from each other; empty where none is needed."""


@remembered(4)
def adjust(
    planned: dict[str, tuple[float, float]], taped: tuple[Taped, ...], beside: frozenset[str] = frozenset()
) -> Network | None:
    """Fit the points of ``taped`` near their ``planned`` places; None without a length between two different points.

    The whole is laid on the planned places of all points but those that are ``beside`` the frame: hubs.
    """
    used = sorted({name for t in taped for name in (t.a, t.b)} & planned.keys())
    which = [k for k, t in enumerate(taped) if t.a in planned and t.b in planned and t.a != t.b]
    rows = [taped[k] for k in which]
    if not rows:
        return None
    ends = np.array([(used.index(t.a), used.index(t.b)) for t in rows])
    start = np.array([planned[name] for name in used], dtype=float)
    measured = np.array([t.length_mm for t in rows])
    weight = 1.0 / np.array([t.spread_mm for t in rows]) ** 2
    counts = np.array([name not in beside for name in used])
    place = _fit(start, ends, measured, weight, counts if counts.sum() > 1 else np.ones(len(used), dtype=bool))
    design = _directions(place, ends)
    cofactor, free = _inverse(design, weight)
    loose = _loose(design, weight, used) if free.shape[1] > 3 else ()
    off = measured - _lengths(place, ends)
    q_v = np.diag(1.0 / weight) - design @ cofactor @ design.T
    control = np.clip(np.diag(q_v) * weight, 0.0, 1.0)
    sure = control > SURE
    out = np.where(sure, np.abs(off) * np.sqrt(weight / np.maximum(control, 1e-12)), 0.0)
    alike = _alike(q_v, sure)
    fits = tuple(
        LengthFit(
            index=which[i],
            off_mm=float(off[i]),
            control=float(control[i]),
            out=float(out[i]),
            blunder_mm=float(off[i] / control[i]) if control[i] > 0.01 else None,
        )
        for i in range(len(rows))
    )
    return Network(
        points=tuple(
            _point(name, place[k], start[k], cofactor[2 * k : 2 * k + 2, 2 * k : 2 * k + 2])
            for k, name in enumerate(used)
        ),
        lengths=fits,
        redundancy=round(float(control.sum())),
        loose=loose,
        suspects=tuple(fits[k].index for k in _suspects(out, alike)),
        uncontrolled=tuple(fits[k].index for k in np.flatnonzero(control < 0.1)),
        helps=_helps(place, ends, weight, design, cofactor, used) if not loose else (),
    )


def _fit(start: Columns, ends: Rows, measured: Columns, weight: Columns, counts: Mask) -> Columns:
    """Gauss-Newton with the least movement of the whole."""
    place = start.copy()
    for _ in range(ROUNDS):
        design, root = _directions(place, ends), np.sqrt(weight)
        step = np.linalg.lstsq(design * root[:, None], (measured - _lengths(place, ends)) * root, rcond=LOOSE)[0]
        place = place + step.reshape(-1, 2)
        if float(np.abs(step).max()) < STILL_MM:
            break
    return _laid_on(place, start, counts)


def _laid_on(place: Columns, start: Columns, counts: Mask) -> Columns:
    """Moved and turned as one onto the planned places of those that count (Procrustes without a mirror)."""
    middle, there = place[counts].mean(axis=0), start[counts].mean(axis=0)
    a, b = place[counts] - middle, start[counts] - there
    turn = np.arctan2((a[:, 0] * b[:, 1] - a[:, 1] * b[:, 0]).sum(), (a * b).sum())
    c, s = np.cos(turn), np.sin(turn)
    return np.asarray((place - middle) @ np.array([[c, s], [-s, c]]) + there)


def _lengths(place: Columns, ends: Rows) -> Columns:
    return np.asarray(np.hypot(*(place[ends[:, 1]] - place[ends[:, 0]]).T))


def _directions(place: Columns, ends: Rows) -> Columns:
    """Change of each length with each coordinate, (lengths, 2 points)."""
    away = place[ends[:, 1]] - place[ends[:, 0]]
    unit = away / np.maximum(np.hypot(*away.T), 1e-9)[:, None]
    out = np.zeros((len(ends), 2 * len(place)))
    rows = np.arange(len(ends))
    for k in (0, 1):
        out[rows, 2 * ends[:, 1] + k] += unit[:, k]
        out[rows, 2 * ends[:, 0] + k] -= unit[:, k]
    return out


def _inverse(design: Columns, weight: Columns) -> tuple[Columns, Columns]:
    """Cofactors of the coordinates with a free datum, and the ways to move that change no length, (2 points, ways)."""
    values, ways = np.linalg.eigh(design.T @ (design * weight[:, None]))
    held = values > LOOSE * max(float(values[-1]), 1e-30)
    return np.asarray((ways[:, held] / values[held]) @ ways[:, held].T), np.asarray(ways[:, ~held])


def _loose(design: Columns, weight: Columns, names: Sequence[str]) -> tuple[str, ...]:
    """Points that can move against the others: those that hang on one length, then what swings."""
    kept = list(range(len(names)))
    while True:
        columns = [2 * k + axis for k in kept for axis in (0, 1)]
        rows = np.abs(design).sum(axis=1) - np.abs(design[:, columns]).sum(axis=1) < 1e-9
        counts = {k: int((np.abs(design[rows][:, [2 * k, 2 * k + 1]]).max(axis=1) > 0).sum()) for k in kept}
        hanging = [k for k in kept if counts[k] < 2]
        if not hanging or len(kept) <= 2:
            break
        kept = [k for k in kept if k not in hanging]
    swings: list[int] = []
    if rows.any() and len(kept) > 2:
        _, free = _inverse(design[rows][:, columns], weight[rows])
        if free.shape[1] > 3:
            share = (free**2).reshape(len(kept), 2, -1).sum(axis=(1, 2))
            swings = [k for k, s in zip(kept, share, strict=True) if s > share.mean()]
    return tuple(name for k, name in enumerate(names) if k not in kept or k in swings)


def _alike(q_v: Columns, sure: Mask) -> Columns:
    """Correlation of every two residuals, (lengths, lengths)."""
    size = np.sqrt(np.maximum(np.diag(q_v), 1e-18))
    both = sure[:, None] & sure[None, :]
    return np.where(both, np.abs(q_v) / (size[:, None] * size[None, :]), 0.0)


def _suspects(out: Columns, alike: Columns) -> list[int]:
    worst = int(np.argmax(out))
    if out[worst] <= CRITICAL:
        return []
    others = [int(k) for k in np.argsort(-out) if k != worst and alike[worst, k] >= ALIKE]
    return [worst, *others]


LOOKED_AT = 8
"""So many of the missing lengths are tried whole: those that part most of the pairs that are alike now."""


def _helps(
    place: Columns, ends: Rows, weight: Columns, design: Columns, cofactor: Columns, names: Sequence[str]
) -> tuple[str, ...]:
    """The missing length after which the fewest pairs of readings are alike; none where all can be told apart."""
    if not _pairs_alike(design, cofactor, weight):
        return ()
    known = {tuple(sorted(pair)) for pair in ends.tolist()}
    pairs = [pair for pair in combinations(range(len(place)), 2) if pair not in known]
    if not pairs:
        return ()
    rows, spread = _directions(place, np.array(pairs)), float(np.median(1.0 / weight))
    gains = rows @ cofactor
    after = spread + (gains * rows).sum(axis=1)
    best: tuple[int, int] | None = None
    for k in np.argsort(_left_alike(design, cofactor, weight, gains, after), kind="stable")[:LOOKED_AT]:
        less = cofactor - np.outer(gains[k], gains[k]) / after[k]
        left = _pairs_alike(np.vstack([design, rows[k]]), less, np.append(weight, 1.0 / spread))
        if best is None or left < best[0]:
            best = (left, int(k))
    return () if best is None else tuple(names[n] for n in pairs[best[1]])


def _left_alike(design: Columns, cofactor: Columns, weight: Columns, gains: Columns, after: Columns) -> Columns:
    """By missing length: how many of the pairs that are alike now stay so, readings without control counted twice.

    A further length adds u u^T/(s + q) to the residuals' cofactors, u what it says of each reading (a rank-one update).
    """
    q_v = np.diag(1.0 / weight) - design @ cofactor @ design.T
    alike = np.triu(_alike(q_v, np.diag(q_v) * weight > SURE), 1) >= ALIKE
    one, other = np.nonzero(alike)
    said = gains @ design.T
    new = np.diag(q_v) + said**2 / after[:, None]
    both = q_v[one, other] + said[:, one] * said[:, other] / after[:, None]
    size = np.sqrt(np.maximum(new, 1e-18))
    stay = np.abs(both) / (size[:, one] * size[:, other]) >= ALIKE
    return np.asarray(stay.sum(axis=1) + 2 * (new * weight <= SURE).sum(axis=1))


SURE = 1e-6
"""A reading whose own error shows by less than this is controlled by nothing."""


def _pairs_alike(design: Columns, cofactor: Columns, weight: Columns) -> int:
    q_v = np.diag(1.0 / weight) - design @ cofactor @ design.T
    control = np.diag(q_v) * weight
    alike = _alike(q_v, control > SURE)
    return int((np.triu(alike, 1) >= ALIKE).sum()) + 2 * int((control <= SURE).sum())


def _point(name: str, at: Columns, planned: Columns, q: Columns) -> PointAt:
    values, ways = np.linalg.eigh(q)
    minor, major = np.sqrt(np.maximum(values, 0.0))
    turn = float(np.degrees(np.arctan2(ways[1, 1], ways[0, 1])))
    moved = float(np.hypot(*(at - planned)))
    return PointAt(
        id=name,
        x_mm=float(at[0]),
        y_mm=float(at[1]),
        moved_mm=moved,
        major_mm=float(major),
        minor_mm=float(minor),
        turn_deg=turn,
    )
