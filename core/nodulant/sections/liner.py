"""How much of a curved or sloping liner works as a flange.

A curved flange bends across its width and sheds load (Bleich 1943 after von Karman, from
memory): with b between web midlines, R the mid-radius and x = 1.285 b / sqrt(R t), webs that
hold it simply give b_eff/b = (sinh x + sin x) / (x (cosh x + cos x)); clamped edges are the
upper bound 2 (cosh x - cos x) / (x (sinh x + sin x)). The simple value is the default.
A flange sloping at angle a to the rail's axis gives A cos^3 a in bending: its force turns
(cos a) and its strain is cos^2 a of the axial one (own, equilibrium and compatibility).
"""

import numpy as np

from nodulant.base.arrays import Columns


def effective_share_simple(width_mm: float, radius_mm: float, thickness_mm: float) -> float:
    """b_eff/b for edges held simply by the webs; 1 for a flat liner's infinite radius."""
    x = _slenderness(width_mm, radius_mm, thickness_mm)
    if x < 1e-3:
        return 1.0
    return float((np.sinh(x) + np.sin(x)) / (x * (np.cosh(x) + np.cos(x))))


def effective_share_clamped(width_mm: float, radius_mm: float, thickness_mm: float) -> float:
    """Upper bound of b_eff/b, edges clamped by stiff webs."""
    x = _slenderness(width_mm, radius_mm, thickness_mm)
    if x < 1e-3:
        return 1.0
    return float(2 * (np.cosh(x) - np.cos(x)) / (x * (np.sinh(x) + np.sin(x))))


def sloping_share(slope_rad: Columns) -> Columns:
    """cos^3 of the slope against the rail's axis; shape (stations,)."""
    return np.cos(slope_rad) ** 3


def _slenderness(width_mm: float, radius_mm: float, thickness_mm: float) -> float:
    return float(min(1.285 * width_mm / np.sqrt(radius_mm * thickness_mm), 300.0))
