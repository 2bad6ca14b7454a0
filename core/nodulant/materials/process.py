"""How the shop welds, and what a millimetre of bead puts in.

Heat input Q = 60 U I eta / (1000 v) kJ/mm with v in mm/min; eta 0.8 for MIG/MAG and stick, 0.6 for TIG
(ISO/TR 17671-1, from memory).
"""

from typing import Annotated, Literal

from pydantic import Field

from nodulant.base.model import Frozen
from nodulant.base.shown import Shown
from nodulant.materials.steel import DENSITY_KG_PER_MM3

Process = Literal["MIG/MAG", "TIG", "stick"]
ETA: dict[Process, float] = {"MIG/MAG": 0.8, "TIG": 0.6, "stick": 0.8}
KG_PER_AMP_HOUR: dict[Process, float] = {"MIG/MAG": 1.6 / 150, "TIG": 0.6 / 150, "stick": 1.1 / 120}
"""What is laid down in an hour of arc by each ampere: thin solid wire, filler rod, 3.2 mm electrodes (common practice)."""


class Welding(Frozen):
    """Process with its voltage and current; what a hand-held welder is set to for walls of 3 to 6 mm."""

    process: Annotated[Process, Shown("Process")] = "MIG/MAG"
    volts: Annotated[float, Field(ge=8, le=45), Shown("Voltage, V")] = 19.0
    amps: Annotated[float, Field(ge=20, le=500), Shown("Current, A")] = 150.0

    def speed_mm_per_min(self, bead_mm2: float) -> float:
        """How fast a bead of this cross-section gets on, from what the current lays down."""
        laid = KG_PER_AMP_HOUR[self.process] * self.amps / 60 / DENSITY_KG_PER_MM3
        return laid / bead_mm2

    def heat_kj_per_mm(self, bead_mm2: float) -> float:
        """Heat put in by a millimetre of a bead of this cross-section."""
        speed = self.speed_mm_per_min(bead_mm2)
        return 60 * self.volts * self.amps * ETA[self.process] / (1000 * speed)
