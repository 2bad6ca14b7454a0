"""What a link's tube carries pressed together, N.

Euler's pi^2 E I/L^2 above the slenderness sqrt(2 pi^2 E/f_y), Johnson's parabola
f_y (1 - f_y (L/k)^2/(4 pi^2 E)) below it, both ends pinned (Shigley, Mechanical Engineering
Design, chapter 4, from memory).
"""

import math

from nodulant.axles.points import Tube
from nodulant.materials.steel import ELASTIC_MODULUS_MPA

FACTOR = 2.0
"""On buckling (common practice)."""


def critical_mpa(tube: Tube, length_mm: float) -> float:
    """Stress at which the tube buckles."""
    slender = length_mm / math.sqrt(tube.inertia_mm4 / tube.area_mm2)
    e, fy = ELASTIC_MODULUS_MPA, tube.yield_mpa
    if slender > math.sqrt(2 * math.pi**2 * e / fy):
        return math.pi**2 * e / slender**2
    return fy * (1 - fy * slender**2 / (4 * math.pi**2 * e))


def critical_n(tube: Tube, length_mm: float) -> float:
    """Load at which it buckles."""
    return critical_mpa(tube, length_mm) * tube.area_mm2
