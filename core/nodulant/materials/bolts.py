"""Bolts: stress area, proof, preload, torque and what a bolt and its hole carry.

Inch sizes (coarse and fine, UN): A_t = 0.7854 (d - 0.9743/n)^2 in2, ASME B1.1. Metric (coarse and fine, ISO):
A_t = 0.7854 (d - 0.9382 p)^2 mm2, ISO 898-1. Proof: SAE J429 grade 5 85 ksi to 1 in, grade 8
120 ksi; ISO 8.8 580 MPa to M16 and 600 above, 10.9 830 MPa (all from memory). Preload 0.75
proof x A_t; torque T = K F d, K 0.2 dry, 0.18 zinc-plated, 0.15 oiled, with +-30 % scatter (common practice).
Shear per plane 0.6 f_u A_t / 2, hole min(1.2 l_c, 2.4 d) t f_u / 2 (AISC allowable stress
design, from memory). Lengths mm, forces N, torque N m.
"""

import math
from typing import Literal

from nodulant.base.errors import UnknownReference
from nodulant.base.model import Frozen
from nodulant.materials.steel import ELASTIC_MODULUS_MPA

PRELOAD_SHARE = 0.75
SLIP_FACTOR = 0.2
SLEEVE_SHARE = 0.6
"""A crush sleeve is worked to this share of its yield by the preload."""
LEAST_CLEAR_MM = 0.1
"""Metal between a hole and the edge that is counted even where there is none."""
KSI = 6.894757

Lubrication = Literal["dry", "plated", "oiled"]
NUT_FACTOR: dict[Lubrication, float] = {"dry": 0.20, "plated": 0.18, "oiled": 0.15}
SOCKET_PER_D = 2.2
"""A socket's outside, in diameters of its bolt (common practice)."""


class BoltSize(Frozen):
    """A thread: diameter and pitch, mm; clearance hole, mm; across the head, mm."""

    id: str
    diameter_mm: float
    pitch_mm: float
    thread: Literal["UN", "ISO"]
    hole_mm: float

    @property
    def stress_area_mm2(self) -> float:
        """Tensile stress area by its own standard's formula; they differ by about 1 %."""
        less = 0.9743 if self.thread == "UN" else 0.9382
        return math.pi / 4 * (self.diameter_mm - less * self.pitch_mm) ** 2


class BoltGrade(Frozen):
    """Proof and ultimate strength, MPa; above ``to_mm`` of diameter the second proof holds."""

    id: str
    thread: Literal["UN", "ISO"]
    proof_mpa: float
    ultimate_mpa: float
    to_mm: float = 1e9
    proof_above_mpa: float = 0.0
    ultimate_above_mpa: float = 0.0

    def proof(self, diameter_mm: float) -> float:
        """Proof strength of a diameter, MPa."""
        return self.proof_mpa if diameter_mm <= self.to_mm else self.proof_above_mpa

    def ultimate(self, diameter_mm: float) -> float:
        """Ultimate strength of a diameter, MPa."""
        return self.ultimate_mpa if diameter_mm <= self.to_mm else self.ultimate_above_mpa


def _fine(d: float, pitch: float, hole: float) -> BoltSize:
    return BoltSize(id=f"M{d:g}x{pitch:g}", diameter_mm=d, pitch_mm=pitch, thread="ISO", hole_mm=hole)


def _inch(name: str, inches: float, threads: int) -> BoltSize:
    d = inches * 25.4
    return BoltSize(id=name, diameter_mm=d, pitch_mm=25.4 / threads, thread="UN", hole_mm=d + 25.4 / 32)


def _metric(d: float, pitch: float, hole: float) -> BoltSize:
    return BoltSize(id=f"M{d:g}", diameter_mm=d, pitch_mm=pitch, thread="ISO", hole_mm=hole)


SIZES: tuple[BoltSize, ...] = (
    _metric(8, 1.25, 9.0),
    _metric(10, 1.5, 11.0),
    _metric(12, 1.75, 13.5),
    _metric(14, 2.0, 15.5),
    _metric(16, 2.0, 17.5),
    _metric(18, 2.5, 20.0),
    _metric(20, 2.5, 22.0),
    _fine(8, 1.0, 9.0),
    _fine(10, 1.25, 11.0),
    _fine(12, 1.25, 13.5),
    _fine(12, 1.5, 13.5),
    _fine(14, 1.5, 15.5),
    _fine(16, 1.5, 17.5),
    _fine(18, 1.5, 20.0),
    _inch("3/8 UNC", 0.375, 16),
    _inch("7/16 UNC", 0.4375, 14),
    _inch("1/2 UNC", 0.5, 13),
    _inch("9/16 UNC", 0.5625, 12),
    _inch("5/8 UNC", 0.625, 11),
    _inch("3/4 UNC", 0.75, 10),
    _inch("3/8 UNF", 0.375, 24),
    _inch("7/16 UNF", 0.4375, 20),
    _inch("1/2 UNF", 0.5, 20),
    _inch("9/16 UNF", 0.5625, 18),
    _inch("5/8 UNF", 0.625, 18),
    _inch("3/4 UNF", 0.75, 16),
)
GRADES: tuple[BoltGrade, ...] = (
    BoltGrade(
        id="8.8",
        thread="ISO",
        proof_mpa=580,
        ultimate_mpa=800,
        to_mm=16,
        proof_above_mpa=600,
        ultimate_above_mpa=830,
    ),
    BoltGrade(id="10.9", thread="ISO", proof_mpa=830, ultimate_mpa=1040),
    BoltGrade(
        id="grade 5",
        thread="UN",
        proof_mpa=85 * KSI,
        ultimate_mpa=120 * KSI,
        to_mm=25.4,
        proof_above_mpa=74 * KSI,
        ultimate_above_mpa=105 * KSI,
    ),
    BoltGrade(id="grade 8", thread="UN", proof_mpa=120 * KSI, ultimate_mpa=150 * KSI),
)


class Bolt(Frozen):
    """A bolt of a size and a grade."""

    size: BoltSize
    grade: BoltGrade

    @property
    def preload_n(self) -> float:
        """Clamp load it is tightened to."""
        return PRELOAD_SHARE * self.grade.proof(self.size.diameter_mm) * self.size.stress_area_mm2

    def torque_nm(self, lubrication: Lubrication) -> float:
        """Tightening torque; the clamp load it gives scatters by 30 % either way."""
        return NUT_FACTOR[lubrication] * self.preload_n * self.size.diameter_mm / 1000.0

    def shear_n(self, planes: int = 1) -> float:
        """Allowable shear over ``planes`` planes through the thread; two count only if both tabs are stiff."""
        return planes * 0.6 * self.grade.ultimate(self.size.diameter_mm) * self.size.stress_area_mm2 / 2.0

    def tension_n(self) -> float:
        """Allowable tension: half the ultimate on the stress area."""
        return self.grade.ultimate(self.size.diameter_mm) * self.size.stress_area_mm2 / 2.0

    def slip_n(self) -> float:
        """What one bolt holds by friction between two faces."""
        return SLIP_FACTOR * self.preload_n


def find_bolt(size: str, grade: str) -> Bolt:
    """A bolt by names; raises UnknownReference where the grade is not made in that thread."""
    sizes, grades = {s.id: s for s in SIZES}, {g.id: g for g in GRADES}
    if size not in sizes:
        raise UnknownReference(f"there is no bolt size '{size}'", found=size, acceptable="one of " + ", ".join(sizes))
    fits = [g.id for g in GRADES if g.thread == sizes[size].thread]
    if grade not in fits:
        raise UnknownReference(
            f"a {size} bolt is not made in '{grade}'", found=grade, acceptable="one of " + ", ".join(fits)
        )
    return Bolt(size=sizes[size], grade=grades[grade])


def hole_n(bolt: Bolt, edge_mm: float, thickness_mm: float, ultimate_mpa: float) -> float:
    """Allowable load of a hole whose centre lies ``edge_mm`` from the edge in the load's direction.

    Where the hole breaks out of the edge it carries next to nothing, not nothing: what is asked of it still has a ratio.
    """
    clear = max(edge_mm - bolt.size.hole_mm / 2, LEAST_CLEAR_MM)
    return min(1.2 * clear, 2.4 * bolt.size.diameter_mm) * thickness_mm * ultimate_mpa / 2.0


def sleeve_outside_mm(bolt: Bolt, yield_mpa: float) -> float:
    """Least outside diameter of a crush sleeve on the bolt's clearance bore: preload at 0.6 of its yield."""
    bore = bolt.size.hole_mm
    return math.sqrt(bore**2 + 4 * bolt.preload_n / (math.pi * SLEEVE_SHARE * yield_mpa))


def wall_crush_n(bolt: Bolt, wall_mm: float, clear_mm: float, yield_mpa: float) -> float:
    """Preload at which the wall under a washer dishes into a closed rail that is ``clear_mm`` high inside.

    Yield lines of a clamped round plate under a load on a disc of twice the bolt's diameter,
    4 pi m/(1 - 2 c/(3 R)) with m = f_y t^2/4 (limit analysis of plates, from memory).
    """
    disc, reach = bolt.size.diameter_mm, max(clear_mm / 2, 1.05 * bolt.size.diameter_mm)
    return math.pi * yield_mpa * wall_mm**2 / (1 - 2 * disc / (3 * reach))


def sleeve_shortens_mm(long_mm: float, yield_mpa: float) -> float:
    """How much a least sleeve shortens under the preload, and must stand proud of the walls at the start."""
    return SLEEVE_SHARE * yield_mpa * long_mm / ELASTIC_MODULUS_MPA


def sleeve_use(bolt: Bolt, outside_mm: float, yield_mpa: float) -> float:
    """Sleeve stress under preload over 0.6 of its yield; infinite walls are not needed, 1 is enough."""
    area = math.pi / 4 * (outside_mm**2 - bolt.size.hole_mm**2)
    return bolt.preload_n / (SLEEVE_SHARE * yield_mpa * max(area, 1e-9))
