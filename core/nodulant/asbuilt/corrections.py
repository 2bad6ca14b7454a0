"""What brings it right: whole turns of adjusters and shims of stock, tried in the model before they are told.

Each set of up to three levers is solved by least squares of deviation over tolerance, rounded to whole
steps both ways, and put into the model again; nothing is told that the model did not confirm.
"""

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from itertools import combinations, product

import numpy as np

from nodulant.base.arrays import Columns
from nodulant.base.errors import NotSolvable

MOST_LEVERS, TRIED, TOLD = 4, 8, 3
ENOUGH = 1.0 - 1e-9


@dataclass(frozen=True)
class Lever:
    """Something that can be moved by whole steps: turns of a link, shims at a pivot."""

    key: str
    name: str
    most: int
    """Steps either way."""


@dataclass(frozen=True)
class Aim:
    """A deviation that is to come inside its tolerance."""

    name: str
    off: float
    allowed: float


@dataclass(frozen=True)
class Tried:
    """Steps of each lever that is moved, what is then left of every aim, and the worst of them over its tolerance."""

    steps: tuple[tuple[Lever, int], ...]
    left: tuple[float, ...]
    worst: float

    @property
    def inside(self) -> bool:
        """Whether everything is then within its tolerance."""
        return self.worst <= 1.0


Effect = Callable[[dict[str, int]], Sequence[float]]
"""What the model says of every aim after so many steps of levers by key; raises NotSolvable where it does not reach."""


def corrections(
    levers: Sequence[Lever], aims: Sequence[Aim], effect: Effect, most: int = MOST_LEVERS
) -> tuple[Tried, ...]:
    """The best few, those inside first, then by how little is moved; none where nothing is better than as it is.

    At most ``most`` levers are moved together.
    """
    if not levers or not aims:
        return ()
    now = np.array([a.off for a in aims])
    allowed = np.array([a.allowed for a in aims])
    slopes = np.stack([_slope(lever, now, effect) for lever in levers], axis=1)
    before = float(np.abs(now / allowed).max())
    found: list[Tried] = []
    for size in range(1, min(most, len(levers)) + 1):
        guesses: dict[tuple[tuple[int, int], ...], float] = {}
        for chosen in combinations(range(len(levers)), size):
            for steps in _rounded(slopes[:, chosen], now, allowed, [levers[k].most for k in chosen]):
                if all(steps):
                    left = now + slopes[:, chosen] @ np.array(steps)
                    guesses[tuple(zip(chosen, steps, strict=True))] = float(np.abs(left / allowed).max())
        for moved in sorted(guesses, key=lambda g: (guesses[g] > ENOUGH, guesses[g], _much(g)))[:TRIED]:
            tried = _tried(levers, moved, effect, allowed)
            if tried is not None and tried.worst < before * 0.99:
                found.append(tried)
        if any(t.inside for t in found):
            break
    found.sort(key=lambda t: (not t.inside, 0.0 if t.inside else t.worst, len(t.steps), _turns(t), t.worst))
    return tuple(found[:TOLD])


def _much(moved: tuple[tuple[int, int], ...]) -> int:
    return sum(abs(n) for _, n in moved)


def _turns(t: Tried) -> int:
    return sum(abs(n) for _, n in t.steps)


def _slope(lever: Lever, now: Columns, effect: Effect) -> Columns:
    """Change of every aim with one step, by both ways where the model reaches them."""
    rows = []
    for way in (1, -1):
        try:
            rows.append((np.array(effect({lever.key: way})) - now) * way)
        except NotSolvable:
            continue
    return np.mean(rows, axis=0) if rows else np.zeros_like(now)


def _rounded(slopes: Columns, now: Columns, allowed: Columns, most: Sequence[int]) -> list[tuple[int, ...]]:
    """Whole steps round the least squares of what is left over its tolerance."""
    best = np.linalg.lstsq(slopes / allowed[:, None], -now / allowed, rcond=None)[0]
    ranges = []
    for value, limit in zip(best, most, strict=True):
        low = math.floor(value)
        ranges.append(sorted({max(-limit, min(limit, k)) for k in (low, low + 1)}))
    return [tuple(steps) for steps in product(*ranges)]


def _tried(
    levers: Sequence[Lever], moved: tuple[tuple[int, int], ...], effect: Effect, allowed: Columns
) -> Tried | None:
    try:
        left = np.array(effect({levers[k].key: n for k, n in moved}))
    except NotSolvable:
        return None
    steps = tuple((levers[k], n) for k, n in moved)
    return Tried(steps, tuple(float(v) for v in left), float(np.abs(left / allowed).max()))
