"""The end of a cap: its force comes in over the development length, and lifts the end as it does.

The force N acts at the cap's own middle, e away from the flange that it is welded to: two long welds of
length l and the end plate's weld across take it as a group, N/L in shear and N e c/I in lifting (elastic
method, lines of unit throat: Blodgett, Design of Welded Structures, from memory).
"""

import math


def end_flow(force_n: float, away_mm: float, long_mm: float, across_mm: float) -> tuple[float, float]:
    """Shear along the welds and greatest lift, N/mm, of two lines ``long_mm`` and one across at their end."""
    length = 2 * long_mm + across_mm
    middle = long_mm**2 / length
    second = long_mm**3 / 6 + 2 * long_mm * (long_mm / 2 - middle) ** 2 + across_mm * middle**2
    return force_n / length, force_n * away_mm * max(middle, long_mm - middle) / second


def together(shear: float, lift: float) -> float:
    """Both at one place, N/mm."""
    return math.hypot(shear, lift)
