"""What fillet welds carry, alone and in a group.

Fillet throat a = 0.707 leg; allowable shear on the throat 0.3 F_EXX and on the joined metal
0.4 f_y t (AISC allowable stress design / AWS D1.1, from memory). Groups by the elastic vector
method: welds as lines, direct force plus moment about the group's centroid (Blodgett, Design
of Welded Structures, section 7.4, from memory). Most along an edge: the plate under 6.4 mm, its thickness less 1.6 mm above.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass

from nodulant.units.show import MM_PER_INCH

WELD_STRENGTH_MPA = 482.6
"""F_EXX of 70 ksi wire, MPa."""
THROAT_PER_LEG = 0.707
TACK_SHARE = 0.5
"""What a tack is trusted with, of what its throat would carry."""


def line_capacity(leg_mm: float, thinnest_mm: float, yield_mpa: float, weld_mpa: float = WELD_STRENGTH_MPA) -> float:
    """Allowable shear of one fillet line, N/mm: the lesser of throat and joined metal."""
    throat = THROAT_PER_LEG * leg_mm * 0.3 * weld_mpa
    return min(throat, 0.4 * yield_mpa * thinnest_mm)


LEAST_LEG_MM = {1: 3.0, 2: MM_PER_INCH * 3 / 16, 3: 6.0, 4: MM_PER_INCH * 5 / 16}
"""1/8 in (3 mm), 3/16 in (5 mm), 1/4 in (6 mm), 5/16 in (8 mm): the table gives both, the smaller of the two counts."""


def least_leg_mm(thicker_mm: float, cyclic: bool = True) -> float:
    """Least fillet leg by the thicker part joined, mm (AWS D1.1 table 5.7, from memory)."""
    if thicker_mm <= 6.4:
        return LEAST_LEG_MM[2 if cyclic else 1]
    return LEAST_LEG_MM[2 if thicker_mm <= 12.7 else 3 if thicker_mm <= 19.0 else 4]


def most_leg_mm(edge_mm: float) -> float:
    """Largest fillet leg along the edge of a plate, mm."""
    return edge_mm if edge_mm < 6.4 else edge_mm - 1.6


def throat_after_grinding_mm(plate_mm: float, gap_mm: float, crown_mm: float, ground: bool) -> float:
    """Effective throat of a butt with an open root: the plate when the gap lets the weld through, else what is fused.

    A gap of half the plate or more is taken as full penetration; a closer fit fuses in proportion.
    Grinding flush takes the crown and leaves the fused depth.
    """
    fused = plate_mm * min(1.0, gap_mm / (0.5 * plate_mm))
    return fused if ground else min(fused + crown_mm, plate_mm)


def plug_n(hole_mm: float, weld_mpa: float = WELD_STRENGTH_MPA) -> float:
    """Allowable shear of a plug weld, N: its area at 0.3 F_EXX."""
    return math.pi / 4 * hole_mm**2 * 0.3 * weld_mpa


def least_plug_hole_mm(plate_mm: float) -> float:
    """Least hole of a plug weld: the plate's thickness + 8 mm (AWS D1.1, from memory)."""
    return plate_mm + 8.0


def tack_n(count: int, length_mm: float, leg_mm: float, weld_mpa: float = WELD_STRENGTH_MPA) -> float:
    """What a set of tacks is trusted with, N: half of sum(l a) 0.3 F_EXX."""
    return TACK_SHARE * count * length_mm * THROAT_PER_LEG * leg_mm * 0.3 * weld_mpa


ROOT_GAP_MM, BEVEL_DEG = 2.0, 60.0
"""Of a butt: its gap, and the angle that its edges open to (common practice)."""
CROWN = 1.1
"""A bead stands a tenth over its figure (common practice)."""


def bead_mm2(kind: str, leg_mm: float) -> float:
    """Metal in a cut across a bead: a fillet's triangle, a butt's gap and V, each with its crown."""
    if kind == "butt":
        return CROWN * (ROOT_GAP_MM * leg_mm + leg_mm**2 * math.tan(math.radians(BEVEL_DEG / 2)))
    return CROWN * leg_mm**2 / 2


@dataclass(frozen=True)
class Line:
    """A straight weld from (y0, z0) to (y1, z1) in the plane of the faying face, mm."""

    y0: float
    z0: float
    y1: float
    z1: float

    @property
    def length(self) -> float:
        """Length, mm."""
        return math.hypot(self.y1 - self.y0, self.z1 - self.z0)


@dataclass(frozen=True)
class Group:
    """A weld group as lines: length mm, centroid mm, second moments of the lines about it, mm3."""

    length: float
    y: float
    z: float
    i_y: float
    i_z: float
    lines: tuple[Line, ...]

    @property
    def polar(self) -> float:
        """Polar second moment, mm3."""
        return self.i_y + self.i_z


def weld_group(lines: Sequence[Line]) -> Group:
    """Properties of welds treated as lines of unit throat."""
    total = sum(line.length for line in lines)
    y = sum(line.length * (line.y0 + line.y1) / 2 for line in lines) / total
    z = sum(line.length * (line.z0 + line.z1) / 2 for line in lines) / total
    i_y = sum(_second(line.length, line.z0 - z, line.z1 - z) for line in lines)
    i_z = sum(_second(line.length, line.y0 - y, line.y1 - y) for line in lines)
    return Group(total, y, z, i_y, i_z, tuple(lines))


def _second(length: float, a: float, b: float) -> float:
    """Integral of s^2 along a line whose distance runs from a to b."""
    return length * (a * a + a * b + b * b) / 3


def group_load_n_per_mm(
    group: Group, force: tuple[float, float, float], at: tuple[float, float, float]
) -> tuple[float, tuple[float, float]]:
    """Largest resultant, N/mm, and where, under ``force`` (out of plane, y, z; N) acting at ``at`` (same axes, mm).

    In-plane force and its torsion about the centroid, out-of-plane force and the two bending
    moments, added as vectors at the ends of every line.
    """
    out, f_y, f_z = force
    d_out, d_y, d_z = at[0], at[1] - group.y, at[2] - group.z
    torsion = d_y * f_z - d_z * f_y
    about_y, about_z = out * d_z - f_z * d_out, out * d_y - f_y * d_out
    worst, place = 0.0, (group.y, group.z)
    for line in group.lines:
        for y, z in ((line.y0, line.z0), (line.y1, line.z1)):
            u, v = y - group.y, z - group.z
            q_y = f_y / group.length - torsion * v / group.polar
            q_z = f_z / group.length + torsion * u / group.polar
            q_out = out / group.length
            q_out += about_y * v / group.i_y if group.i_y > 1e-9 else 0.0
            q_out += about_z * u / group.i_z if group.i_z > 1e-9 else 0.0
            size = math.sqrt(q_y**2 + q_z**2 + q_out**2)
            if size > worst:
                worst, place = size, (y, z)
    return worst, place
