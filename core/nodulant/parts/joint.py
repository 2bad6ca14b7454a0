"""Inserted metal where a rail was cut through, as plain numbers for the frame and strength layers."""

from dataclasses import dataclass
from typing import Literal

from nodulant.parts.sides import Side

JointKind = Literal["riser", "insert", "jog", "overlap", "butt"]


@dataclass(frozen=True)
class Joint:
    """What joins the rail ahead of ``at_mm`` to the rail from ``behind_mm`` on (stock stations, mm).

    Area mm2, inertias and J mm4, modulus mm3 against bending in the rail's own upright plane and
    across it; yields MPa. ``panel_mm2`` is the sheet that carries the corner's shear: depth along
    the rail times the walls that lie in the upright plane. ``lever_mm`` is what a couple works on
    in an overlap.
    """

    operation: str
    side: Side
    kind: JointKind
    at_mm: float
    behind_mm: float
    area: float
    i_y: float
    i_z: float
    j: float
    s_y: float
    s_z: float
    w_t: float
    """Torque over the shear stress that it makes, mm3."""
    yield_reference_mpa: float
    yield_mpa: float
    rise_mm: float = 0.0
    inward_mm: float = 0.0
    panel_mm2: float = 0.0
    lever_mm: float = 0.0
    line_n_per_mm: float = 0.0
    line_mm: float = 0.0
    gusset_mm: float = 0.0
    gusset_n: float = 0.0
    """What a corner's gusset may take of the flange couple, N: a strip half as wide as its triangle is
    high, along its long edge at yield/1.5, so t leg f_y / 6."""

    def panel_force_n(self, moment_nmm: float) -> tuple[float, float]:
        """Flange couple M/h on the corner's panel and what its gusset takes of it, N.

        The gusset lengthens the couple's lever by half its leg at most (haunched knees: Blodgett,
        Design of Welded Structures, 5.11, from memory; the half is ours), and takes no more than its strip carries.
        """
        depth = 2 * self.i_y / self.s_y
        couple = moment_nmm / depth
        return couple, min(self.gusset_n, couple - moment_nmm / (depth + self.gusset_mm / 2))
