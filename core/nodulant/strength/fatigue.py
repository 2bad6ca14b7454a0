"""Fatigue life of edges and welds in cycles, and against the plain stock rail as a figure.

Class C of EN 1993-1-9 tables 8.1 to 8.5 (from memory): stress range at two million cycles, MPa. With g
1.15, 1.35 where a weld cannot be inspected: a range r of 0.737 C/g or more lasts 2e6 (C/(g r))^3 cycles,
below that 5e6 (0.737 C/(g r))^5, and below the cut-off 0.405 C/g for ever; shear 2e6 (C/(g r))^5, cut-off
0.457 C/g. The range is that of a vertical load of half the static load up and down (Nodulant default),
on the net section, times the stress concentration of an unwelded edge.
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
BLIND: frozenset[DetailId] = frozenset({"butt-blind", "butt-backed"})
"""Details whose root cannot be inspected."""
INSPECTED, UNSEEN = 1.15, 1.35
KNEE, CUT_OFF, SHEAR_CUT_OFF = 0.737, 0.405, 0.457
AMPLITUDE = 0.5
"""Of the static load, up and down."""
FOR_EVER = 1e9
"""A life beyond this many cycles is written as this."""
STOCK_CLASS, EXPONENT, MOST = 125.0, 3.0, 1e3


@dataclass(frozen=True)
class Life:
    """Cycles at the worst station of a detail, with what they follow from; MPa."""

    cycles: float
    station_mm: float
    category: float
    gamma: float
    range_mpa: float
    concentration: float


def cycles(category: float, range_mpa: float, gamma: float = INSPECTED) -> float:
    """Life under a direct stress range, at most 1e9 cycles."""
    if range_mpa < CUT_OFF * category / gamma:
        return FOR_EVER
    ratio = category / (gamma * range_mpa)
    knee = KNEE * ratio
    return float(min(2e6 * ratio**3 if knee <= 1.0 else 5e6 * knee**5, FOR_EVER))


def shear_cycles(category: float, range_mpa: float, gamma: float = INSPECTED) -> float:
    """Life under a shear stress range, at most 1e9 cycles."""
    if range_mpa < SHEAR_CUT_OFF * category / gamma:
        return FOR_EVER
    return float(min(2e6 * (category / (gamma * range_mpa)) ** 5, FOR_EVER))


def gamma_of(detail: DetailId) -> float:
    """The partial factor of a detail."""
    return UNSEEN if detail in BLIND else INSPECTED


def detail_life(rail: RailComparison, detail: FatigueDetail) -> Life | None:
    """The worst station of ``detail`` on one rail; None where loads are not known."""
    if rail.loading is None:
        return None
    rows = rail.between(detail.start_mm, detail.end_mm)
    if rows.start == rows.stop:
        beside = int(np.argmin(np.abs(rail.x - detail.start_mm)))
        rows = slice(beside, beside + 1)
    moment = np.abs(rail.loading.state.moment)
    stress = rail.stress_after if detail.modulus_mm3 is None else moment / detail.modulus_mm3
    if stress is None:
        return None
    at = rows.start + int(np.argmax(stress[rows]))
    swing = 2 * AMPLITUDE * float(stress[at]) * detail.concentration
    category, gamma = CLASSES[detail.detail], gamma_of(detail.detail)
    return Life(cycles(category, swing, gamma), float(rail.x[at]), category, gamma, swing, detail.concentration)


def relative_life(category: float, range_stock: float, range_state: float, stock_class: float = STOCK_CLASS) -> float:
    """Life over that of stock's machine-cut edge, at most 1000: a figure, not a verdict."""
    if range_state <= 1e-9:
        return MOST
    ratio = (category / stock_class) * (range_stock / range_state)
    return float(min(ratio**EXPONENT, MOST))


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
