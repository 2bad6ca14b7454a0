"""Relative life of edges and welds against the plain stock rail.

Class C of EN 1993-1-9 tables 8.1 to 8.5 (from memory): stress range at two million cycles, MPa.
Life goes with the third power of C over range, so relative life = [(C / C_stock) (range_stock /
range)]^3. Ranges are in proportion to the stress at 1 g; stock counts as a machine-cut edge,
and its range as that of the place or half of its peak, as in 'not weaker than stock'.
"""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from nodulant.base.arrays import Columns
from nodulant.parts.specs import DetailId, FatigueDetail
from nodulant.strength.rail import RailComparison

CLASSES: dict[DetailId, float] = {
    "edge-dressed": 125.0,
    "edge-rough": 80.0,
    "butt-ground": 112.0,
    "butt": 90.0,
    "butt-backed": 71.0,
    "butt-blind": 36.0,
    "attachment": 56.0,
    "plate-end": 50.0,
}
STOCK_CLASS = 125.0
EXPONENT = 3.0
MOST = 1e3
"""A life beyond this many times stock is written as this."""


@dataclass(frozen=True)
class RelativeLife:
    """Life over stock's at the worst station of a detail, with what it is made of; MPa at 1 g."""

    life: float
    station_mm: float
    category: float
    range_stock: float
    range_state: float


def relative_life(category: float, range_stock: float, range_state: float, stock_class: float = STOCK_CLASS) -> float:
    """Life over stock's, at most 1000."""
    if range_state <= 1e-9:
        return MOST
    ratio = (category / stock_class) * (range_stock / range_state)
    return float(min(ratio**EXPONENT, MOST))


def detail_life(rail: RailComparison, detail: FatigueDetail) -> RelativeLife | None:
    """The worst station of ``detail`` on one rail; None where loads are not known."""
    if rail.stress is None:
        return None
    allowed, after = rail.stress
    rows = rail.between(detail.start_mm, detail.end_mm)
    if rows.start == rows.stop:
        beside = int(np.argmin(np.abs(rail.x - detail.start_mm)))
        rows = slice(beside, beside + 1)
    at = rows.start + int(np.argmax(after[rows] / np.maximum(allowed[rows], 1e-9)))
    category = CLASSES[detail.detail]
    least = category / STOCK_CLASS * float(allowed[at]) / MOST ** (1 / EXPONENT)
    state = max(float(after[at]), least, 1e-9)
    life = relative_life(category, max(float(allowed[at]), 1e-9), state)
    return RelativeLife(life, float(rail.x[at]), category, max(float(allowed[at]), 1e-9), state)


def life_along(rail: RailComparison, details: Sequence[FatigueDetail]) -> Columns | None:
    """Life over stock's at every station, the worst detail there, plain metal as stock; None where loads are not known."""
    if rail.stress is None:
        return None
    allowed, after = rail.stress
    category = np.full_like(rail.x, STOCK_CLASS)
    for detail in details:
        inside = (rail.x >= detail.start_mm) & (rail.x <= detail.end_mm)
        inside[int(np.argmin(np.abs(rail.x - (detail.start_mm + detail.end_mm) / 2)))] = True
        category = np.where(inside, np.minimum(category, CLASSES[detail.detail]), category)
    ratio = category / STOCK_CLASS * allowed / np.maximum(after, 1e-6)
    life: Columns = np.minimum(ratio**EXPONENT, MOST)
    return life
