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

from nodulant.base.arrays import Columns

DIFFUSIVITY_MM2_S = 10.7
"""Low-carbon steel between 20 and 400 C: 45 W/mK over 7850 kg/m3 and 535 J/kgK (handbook values, from memory)."""
HEAT_J_MM3_K = 4.2e-3
LOSS_W_MM2_K = 15e-6
"""Still air and radiation below 150 C, each face (common engineering value)."""
WARM_C, AIR_C = 65.0, 20.0
"""Hand-warm: a hand stays on it (common practice); a shop's air."""
FORGOTTEN_S = 2400.0
"""After so long a bead is part of the warm frame."""


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

    def __init__(self, laid: Sequence[Laid]) -> None:
        """Images beyond the strip's edges count as beads of their own."""
        rows = [
            (line.x0, line.y0, line.x1, line.y1, b.ended_s, b.heat_kj * 1000, b.thickness_mm)
            for b in laid
            for line in (b.line, _over(b.line, b.low_mm), _over(b.line, b.high_mm))
        ]
        self._rows = np.array(rows, dtype=float).reshape(-1, 7)

    def rise_k(self, x: Columns, y: Columns, now_s: float) -> Columns:
        """How much hotter than the air the points (x, y) are at a time, K."""
        rows = self._rows[(now_s - self._rows[:, 4] >= 0) & (now_s - self._rows[:, 4] < FORGOTTEN_S)]
        if len(rows) == 0:
            return np.zeros_like(x)
        x0, y0, x1, y1, ended, joules, t = rows.T
        s = np.maximum(now_s - ended, 1.0)
        long = np.maximum(np.hypot(x1 - x0, y1 - y0), 1.0)
        along = ((x1 - x0) / long, (y1 - y0) / long)
        dx, dy = x[:, None] - (x0 + x1) / 2, y[:, None] - (y0 + y1) / 2
        u, v = dx * along[0] + dy * along[1], dy * along[0] - dx * along[1]
        r2 = 4 * DIFFUSIVITY_MM2_S * s
        r = np.sqrt(r2)
        spread = (erf((u + long / 2) / r) - erf((u - long / 2) / r)) / 2 * np.exp(-(v**2) / r2) / np.sqrt(np.pi * r2)
        left = np.exp(-2 * LOSS_W_MM2_K * s / (HEAT_J_MM3_K * t))
        return np.asarray((joules / long / (t * HEAT_J_MM3_K) * spread * left).sum(axis=1))

    def ready_s(self, line: Line, now_s: float, limit_k: float) -> float:
        """From when on every part of a place is below a limit, s; not before ``now_s``."""
        x, y = np.linspace(line.x0, line.x1, 3), np.linspace(line.y0, line.y1, 3)

        def hot(at: float) -> bool:
            return bool(self.rise_k(x, y, at).max() > limit_k)

        if not hot(now_s):
            return now_s
        low, high = now_s, now_s + FORGOTTEN_S
        while high - low > 1.0:
            middle = (low + high) / 2
            low, high = (middle, high) if hot(middle) else (low, middle)
        return high


def _over(line: Line, edge: float) -> Line:
    """Its image beyond an edge that lies level."""
    return Line(line.x0, 2 * edge - line.y0, line.x1, 2 * edge - line.y1)
