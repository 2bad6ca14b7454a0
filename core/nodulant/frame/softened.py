"""The rail's own metal beside a weld: cold work and temper are gone within 25 mm of it.

Cold-drawn tube and heat-treated rail then count with their annealed yield (common practice); the
whole section is counted down there, plates included, so it is never too strong.
"""

from collections.abc import Sequence
from dataclasses import replace

import numpy as np

from nodulant.base.arrays import Columns
from nodulant.frame.assembly import SectionColumns
from nodulant.frame.here import Span
from nodulant.materials import Steel

BESIDE_MM = 25.0


def softened(section: SectionColumns, x: Columns, steel: Steel, welds: Sequence[Span]) -> SectionColumns:
    """``section`` with the yields that the steel has beside ``welds``; the same where it loses nothing."""
    if steel.near_weld_mpa >= steel.yield_reference_mpa or not welds:
        return section
    near = np.zeros(len(x), dtype=bool)
    for span in welds:
        near |= (x >= span.start_mm - BESIDE_MM) & (x <= span.end_mm + BESIDE_MM)
    reference = np.where(near, max(steel.near_weld_mpa, 1.0) / steel.yield_reference_mpa, 1.0)
    working = np.where(near, steel.beside_weld_mpa / steel.yield_mpa, 1.0)
    p, t = section.properties, section.torsion
    properties = replace(
        p,
        reference_top=p.reference_top * reference,
        reference_bottom=p.reference_bottom * reference,
        reference_side=p.reference_side * reference,
        working_top=p.working_top * working,
        working_bottom=p.working_bottom * working,
        working_side=p.working_side * working,
    )
    torsion = replace(t, capacity=t.capacity * reference)
    return replace(section, properties=properties, torsion=torsion, shear_capacity=section.shear_capacity * reference)
