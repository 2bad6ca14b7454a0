"""Capacities and use of two states along one rail.

Capacity ratio = capacity of the state over that of stock at the same station, yields in
both. Use u = |M| / (yield moment / 1.5), the worse fibre; the factor of safety is 1.5/u.
"""

from dataclasses import dataclass

import numpy as np

from nodulant.base.arrays import Columns
from nodulant.frame.assembly import SectionColumns
from nodulant.materials.steel import SAFETY_ON_YIELD
from nodulant.sections.properties import Properties

HALF_OF_PEAK = 0.5


@dataclass(frozen=True)
class Ratios:
    """State over stock, per station."""

    area: Columns
    inertia: Columns
    modulus_top: Columns
    modulus_bottom: Columns
    shear_area: Columns
    torsion_constant: Columns
    torsion_capacity: Columns


@dataclass(frozen=True)
class Use:
    """Use at 1 g along the rail; multiply by a case's factor."""

    reference: Columns
    working: Columns


def ratios(stock: SectionColumns, state: SectionColumns) -> Ratios:
    """Capacity ratios at every station."""
    return Ratios(
        _over(state.properties.area, stock.properties.area),
        _over(state.properties.i_y, stock.properties.i_y),
        _over(state.properties.reference_top, stock.properties.reference_top),
        _over(state.properties.reference_bottom, stock.properties.reference_bottom),
        _over(state.shear_capacity, stock.shear_capacity),
        _over(state.torsion.j, stock.torsion.j),
        _over(state.torsion.capacity, stock.torsion.capacity),
    )


def use(p: Properties, moment: Columns) -> Use:
    """Use under ``moment`` (N mm at 1 g) with reference and with working yields."""
    reference = np.minimum(p.reference_top, p.reference_bottom)
    working = np.minimum(p.working_top, p.working_bottom)
    return Use(_over(np.abs(moment) * SAFETY_ON_YIELD, reference), _over(np.abs(moment) * SAFETY_ON_YIELD, working))


def bending_stress(section: SectionColumns, moment: Columns) -> Columns:
    """|M| / S of the weaker fibre, MPa, under ``moment`` (N mm at 1 g)."""
    p = section.properties
    return _over(np.abs(moment), np.minimum(p.s_top, p.s_bottom))


def _over(a: Columns, b: Columns) -> Columns:
    return np.divide(a, b, out=np.full_like(a, 1e6), where=b > 1e-9) * np.where((a <= 0) & (b <= 1e-9), 0.0, 1.0)
