"""How hot the metal still is where the next bead is to go.

Each bead is a line of heat let loose at once in a plate, which spreads along it and loses heat from both faces:

    rise = Q / (t c) * 1/sqrt(4 pi a s) * exp(-v^2 / (4 a s)) * (erf((u + L/2)/r) - erf((u - L/2)/r)) / 2 * exp(-b s)

with u along and v across the bead from its middle, s the time since, r = sqrt(4 a s), b = 2 h / (c t)
(instantaneous line source in a plate with surface loss; Carslaw and Jaeger, *Conduction of Heat in Solids*, and
Rosenthal's thin plate, both from memory). A rail is a strip as wide as its unfolded walls, and its edges turn heat
back: images beyond them. Beads add up. Before a bead has spread by its own width the figure is far too hot, which
matters to nobody who waits for a hand.
"""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from scipy.special import erf

from nodulant.base.arrays import Columns, Mask

DIFFUSIVITY_MM2_S = 10.7
"""Low-carbon steel between 20 and 400 C: 45 W/mK over 7850 kg/m3 and 535 J/kgK (handbook values, from memory)."""
HEAT_J_MM3_K = 4.2e-3
LOSS_W_MM2_K = 15e-6
"""Still air and radiation below 150 C, each face (common engineering value)."""
WARM_C, AIR_C = 65.0, 20.0
"""Hand-warm: a hand stays on it (common practice); a shop's air."""
FORGOTTEN_S = 2400.0
"""After so long a bead is part of the warm frame."""
HALF, ENDED = 4, 5
"""Columns of a bead's half length and of when it ended."""
FAR, LOOKS = 4.5, 9
"""So many times as far as it has spread a bead is not felt (2e-9 of its own); times looked at in one go."""


@dataclass(frozen=True)
class Line:
    """A bead in the plane of its plate: ends, mm."""

    x0: float
    y0: float
    x1: float
    y1: float

    @property
    def middle(self) -> tuple[float, float]:
        """Halfway."""
        return (self.x0 + self.x1) / 2, (self.y0 + self.y1) / 2

    @property
    def length_mm(self) -> float:
        """From end to end."""
        return float(np.hypot(self.x1 - self.x0, self.y1 - self.y0))


@dataclass(frozen=True)
class Laid:
    """A bead that was laid: where, when it ended (s), kJ in it, the plate's effective thickness, its strip's edges (mm)."""

    line: Line
    ended_s: float
    heat_kj: float
    thickness_mm: float
    low_mm: float
    high_mm: float


class Hot:
    """Every bead laid so far, as columns."""

    def __init__(self, laid: Sequence[Laid] = ()) -> None:
        """Begin with these."""
        self._rows, self._count = np.empty((0, 8)), 0
        for bead in laid:
            self.add(bead)

    def add(self, bead: Laid) -> None:
        """One more; its images beyond the strip's edges count as beads of their own."""
        lines = (bead.line, _over(bead.line, bead.low_mm), _over(bead.line, bead.high_mm))
        if self._count + len(lines) > len(self._rows):
            self._rows = np.concatenate([self._rows, np.empty((max(len(self._rows), 96), 8))])
        for line in lines:
            long = max(line.length_mm, 1.0)
            along = ((line.x1 - line.x0) / long, (line.y1 - line.y0) / long)
            heat = bead.heat_kj * 1000 / long / (bead.thickness_mm * HEAT_J_MM3_K)
            loss = 2 * LOSS_W_MM2_K / (HEAT_J_MM3_K * bead.thickness_mm)
            self._rows[self._count] = (*line.middle, *along, long / 2, bead.ended_s, heat, loss)
            self._count += 1

    def rise_k(self, x: Columns, y: Columns, now_s: float | Columns) -> Columns:
        """How much hotter than the air the points (x, y) are, each at its time, K."""
        middle_x, middle_y, along, up, half, ended, heat, loss = self._felt(x, y, now_s).T
        age = np.asarray(now_s)[..., None] - ended
        dx, dy = x[:, None] - middle_x, y[:, None] - middle_y
        u, v = np.abs(dx * along + dy * up), np.abs(dy * along - dx * up)
        reach = _reach(age)
        at, of = np.nonzero((age >= 0) & (age < FORGOTTEN_S) & (v < reach) & (u < half + reach))
        u, v, half = u[at, of], v[at, of], half[of]
        s = np.maximum(age[of] if age.ndim == 1 else age[at, of], 1.0)
        r = np.sqrt(4 * DIFFUSIVITY_MM2_S * s)
        spread = (erf((u + half) / r) - erf((u - half) / r)) / 2 * np.exp(-((v / r) ** 2)) / (np.sqrt(np.pi) * r)
        each: Columns = heat[of] * spread * np.exp(-loss[of] * s)
        return np.asarray(np.bincount(at, each, len(x)), dtype=np.float64)

    def _felt(self, x: Columns, y: Columns, now_s: float | Columns) -> Columns:
        """Rows of the beads that any of the points may feel."""
        rows, latest = self._rows[: self._count], np.max(now_s)
        if not len(x):
            return rows
        beside_x = np.maximum(np.maximum(rows[:, 0] - x.max(), x.min() - rows[:, 0]), 0.0)
        beside_y = np.maximum(np.maximum(rows[:, 1] - y.max(), y.min() - rows[:, 1]), 0.0)
        ended = rows[:, ENDED]
        near = np.hypot(beside_x, beside_y) < _reach(latest - ended) + rows[:, HALF]
        return np.asarray(rows[near & (ended <= latest) & (ended > np.min(now_s) - FORGOTTEN_S)])

    def ready_s(self, line: Line, now_s: float, limit_k: float) -> float:
        """From when on every part of a place is below a limit, s; not before ``now_s``."""
        x, y = np.linspace(line.x0, line.x1, 3), np.linspace(line.y0, line.y1, 3)

        def hot(at: Columns) -> Mask:
            rises = self.rise_k(np.tile(x, len(at)), np.tile(y, len(at)), np.repeat(at, len(x)))
            return np.asarray(rises.reshape(len(at), -1).max(axis=1) > limit_k)

        if not hot(np.array([now_s]))[0]:
            return now_s
        low, high = now_s, now_s + FORGOTTEN_S
        while high - low > 1.0:
            at = np.linspace(low, high, LOOKS)
            last = int(np.flatnonzero(np.concatenate([[True], hot(at[1:-1])]))[-1])
            low, high = float(at[last]), float(at[last + 1])
        return high


def _reach(age_s: Columns) -> Columns:
    """How far to its side a bead is felt, mm."""
    return np.asarray(FAR * np.sqrt(4 * DIFFUSIVITY_MM2_S * np.maximum(age_s, 1.0)))


def _over(line: Line, edge: float) -> Line:
    """Its image beyond an edge that lies level."""
    return Line(line.x0, 2 * edge - line.y0, line.x1, 2 * edge - line.y1)
