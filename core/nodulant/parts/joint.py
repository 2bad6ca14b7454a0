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
    yield_reference_mpa: float
    yield_mpa: float
    rise_mm: float = 0.0
    inward_mm: float = 0.0
    panel_mm2: float = 0.0
    lever_mm: float = 0.0
    line_n_per_mm: float = 0.0
    line_mm: float = 0.0
