"""Stress of one rail in one case, along its stations, as use of yield over 1.5 and as factor of safety.

Von Mises with the worst fibre and the worst wall taken together, so it is never too low: u = 1.5
sqrt((N/(A f_y) + M/M_y + M_z/M_yz + B w/(I_w f_y))^2 + (V/V_y + T/T_y)^2), each capacity at first
yield with the yields of absolute checks. B is the bimoment of an open stretch (Vlasov), whose
torque's Saint-Venant part T_s gives T_s t/(J tau_y); where a cell is closed T_y is the cell's. The
factor of safety is 1.5/u: yield over stress. Warping stress is self-limiting in a ladder: where a flange's edge
yields the other rail takes over. In an accident it counts by half, as primary and secondary stress
together may reach twice yield (ASME BPVC VIII-2, shakedown, from memory).
"""

from dataclasses import dataclass

import numpy as np

from nodulant.base.arrays import Columns
from nodulant.frame.assembly import SectionColumns
from nodulant.loads.frame3d import RailForces
from nodulant.materials.steel import SAFETY_ON_YIELD
from nodulant.sections.torsion import SHEAR_YIELD

MOST = 1e3
"""A factor of safety beyond this is written as this."""


@dataclass(frozen=True)
class RailCase:
    """One rail of one frame in one case at ``x``: magnitudes N, N mm and N mm2, uses of yield/1.5."""

    forces: RailForces
    use: Columns
    """Von Mises use."""
    torsion: Columns
    """Use by torque alone: of the cell where one is closed, of the open walls elsewhere."""
    warping: Columns
    """Use by warping stress alone, open stretches only."""

    primary: Columns
    """Use without warping stress."""

    def case(self, row: int) -> "RailCase":
        """One case of several."""
        return RailCase(self.forces.case(row), self.use[row], self.torsion[row], self.warping[row], self.primary[row])

    @property
    def primary_factor(self) -> Columns:
        """Factor of safety where warping stress is secondary: of the rest, and half of it all."""
        return np.minimum(factor_of(self.primary), 2.0 * self.factor)

    @property
    def x(self) -> Columns:
        """Stock stations."""
        return self.forces.x

    @property
    def factor(self) -> Columns:
        """Factor of safety against yield."""
        return factor_of(self.use)


def factor_of(use: Columns) -> Columns:
    """Yield over stress from the use of yield/1.5."""
    return np.asarray(SAFETY_ON_YIELD / np.maximum(use, SAFETY_ON_YIELD / MOST))


def rail_case(forces: RailForces, section: SectionColumns) -> RailCase:
    """Uses of one rail under forces given as magnitudes."""
    p, t, w = section.properties, section.torsion, section.warping
    working = np.divide(p.working_top, p.s_top, out=np.full_like(p.s_top, 1e-9), where=p.s_top > 1e-9)
    softer = np.minimum(p.working_top / np.maximum(p.reference_top, 1e-9), 1.0)
    weak = np.maximum(np.minimum(p.working_top, p.working_bottom), 1e-9)
    upright, across_it = _with_product(forces, section)
    warped = forces.bimoment * w.w_most / np.maximum(w.i_w * working, 1e-9)
    along = upright / weak + across_it / np.maximum(p.working_side, 1e-9) + warped
    along = along + forces.axial / np.maximum(p.area * working, 1e-9)
    cell = np.where(t.cell_capacity > 0, forces.torque * t.closure / np.maximum(t.cell_capacity, 1e-9), 0.0)
    strips = forces.strip_torque * w.thickest / np.maximum(t.j * SHEAR_YIELD * working, 1e-9)
    torsion = cell / np.maximum(softer, 1e-9) + strips
    across = forces.shear / np.maximum(section.shear_capacity * softer, 1e-9) + torsion
    use = SAFETY_ON_YIELD * np.hypot(along, across)
    primary = SAFETY_ON_YIELD * np.hypot(along - warped, across)
    return RailCase(forces, use, SAFETY_ON_YIELD * torsion, SAFETY_ON_YIELD * warped, primary)


def _with_product(forces: RailForces, section: SectionColumns) -> tuple[Columns, Columns]:
    """Moments that give the fibres' stress of an unsymmetric section as if its axes were principal, magnitudes.

    sigma = ((M_y - M_z I_yz/I_z) z/I_y + (M_z - M_y I_yz/I_y) y/I_z) / (1 - I_yz^2/(I_y I_z)), signs in the worse
    sense; bending across that the crossmembers hold back is only what the solver gives.
    """
    p = section.properties
    i_y, i_z = np.maximum(p.i_y, 1e-6), np.maximum(p.i_z, 1e-6)
    product = np.abs(p.i_yz)
    left = np.maximum(1.0 - product**2 / (i_y * i_z), 0.05)
    upright = (forces.moment + forces.side_moment * product / i_z) / left
    return np.asarray(upright), np.asarray(forces.side_moment / left)
