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


OUTSTAND = 14.0
"""Class 3 limit of an outstand's width over its thickness, times sqrt(235/f_y) (EN 1993-1-1 table 5.2, from memory)."""


def outstand_share(width_mm: float, radius_mm: float | None, thickness_mm: float, yield_mpa: float) -> float:
    """c_eff/c of a flange that hangs on one web and is free at its other edge.

    A flat one (``radius_mm`` None) counts to its class 3 width. A curved one bends across its width like
    a cantilever on the arc's elastic foundation, beta = 1.285/sqrt(R t), u = beta c, its web holding it
    simply: (sinh^2 u - sin^2 u)/(2 u (sinh u cosh u - sin u cos u)), beyond no more than a flat one (own).
    """
    flat: float = min(1.0, OUTSTAND * (235.0 / yield_mpa) ** 0.5 * thickness_mm / width_mm)
    if radius_mm is None:
        return float(flat)
    u = min(1.285 * width_mm / (radius_mm * thickness_mm) ** 0.5, 100.0)
    if u < 1e-2:
        return float(flat)
    return float(
        min(flat, (np.sinh(u) ** 2 - np.sin(u) ** 2) / (2 * u * (np.sinh(u) * np.cosh(u) - np.sin(u) * np.cos(u))))
    )


def sloping_share(slope_rad: Columns) -> Columns:
    """cos^3 of the slope against the rail's axis; shape (stations,)."""
    return np.cos(slope_rad) ** 3


def _slenderness(width_mm: float, radius_mm: float, thickness_mm: float) -> float:
    return float(min(1.285 * width_mm / np.sqrt(radius_mm * thickness_mm), 300.0))
