"""A plate carries stress only where its weld has had length to bring the force in.

Its share rises from 0 where it has full depth to 1 over the development length: the larger
of the 45-degree spread and the weld length that brings in the plate's own capacity,
A (f_y/1.5) / (n q), with n weld lines on one side of the cut and q N/mm of each.
The share scales A, I, S and shear area. Torsion needs only flow along the plate's long edges: its
closure rises from a free end over the cell's greater width (Saint-Venant's principle, own).
"""

from dataclasses import dataclass

import numpy as np

from nodulant.base.arrays import Columns
from nodulant.base.model import Frozen
from nodulant.materials.steel import SAFETY_ON_YIELD


class Development(Frozen):
    """Development length and its two reasons, mm."""

    spread_mm: float
    weld_mm: float

    @property
    def length_mm(self) -> float:
        """The larger of the two."""
        return max(self.spread_mm, self.weld_mm)


def development(
    depth_mm: float, thickness_mm: float, yield_mpa: float, lines: int, line_n_per_mm: float, both_edges: bool = True
) -> Development:
    """Development of a plate ``depth_mm`` deep held by ``lines`` welds of ``line_n_per_mm`` each."""
    spread = depth_mm / 2 if both_edges else depth_mm
    weld = depth_mm * thickness_mm * yield_mpa / SAFETY_ON_YIELD / (lines * line_n_per_mm)
    return Development(spread_mm=spread, weld_mm=weld)


@dataclass(frozen=True)
class Reach:
    """Where a plate has full depth, its development length, and the cell that it closes from free ends, mm."""

    start_mm: float
    end_mm: float
    grown_mm: float
    cell_mm: float

    def share(self, x: Columns) -> Columns:
        """Share 0..1 that it carries at stations ``x``."""
        return _risen(x, self.start_mm, self.end_mm, self.grown_mm)

    def closure(self, x: Columns) -> Columns:
        """How far it closes its cell at stations ``x``, 0..1."""
        return _risen(x, self.start_mm, self.end_mm, self.cell_mm)

    @property
    def kinks(self) -> tuple[float, ...]:
        """Stations where share or closure begin, end or turn."""
        inward = (0.0, self.grown_mm, self.cell_mm)
        return (*(self.start_mm + d for d in inward), *(self.end_mm - d for d in inward))


def _risen(x: Columns, start_mm: float, end_mm: float, length_mm: float) -> Columns:
    inside = np.minimum(x - start_mm, end_mm - x)
    return np.asarray(np.clip(inside / max(length_mm, 1e-6), 0.0, 1.0))
