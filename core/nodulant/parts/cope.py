"""How a round tube ends where it lies on another: length along it, round its girth.

Along the branch from where both axes cross, or come nearest: z(phi) = (r cos(phi) cos(theta) + sqrt(R^2 - (r sin(phi)
+ e)^2)) / sin(theta), phi = 0 on the acute side, e the way between the axes (textbook geometry of two cylinders).
"""

import math
from typing import Annotated

from pydantic import Field

from nodulant.base.errors import InputError
from nodulant.base.model import Frozen, Thickness
from nodulant.units.inline import as_length, as_thickness

STEPS = 144
"""Points round the tube: chords of a 60 mm tube then leave the curve by less than 0.05 mm."""
TURNS = tuple(math.tau * k / STEPS for k in range(STEPS + 1))
"""The seam lies on the acute side, where phi is 0, at both ends."""
Across = Annotated[float, Field(gt=3, le=400)]


class Cope(Frozen):
    """A branch tube and what it is coped to: outsides and wall, mm; angle between the axes, way between them."""

    branch_mm: Across
    wall_mm: Thickness
    main_mm: Across
    angle_deg: Annotated[float, Field(ge=15, le=90)] = 90.0
    offset_mm: Annotated[float, Field(ge=-200, le=200)] = 0.0

    def at(self, phi: float, radius_mm: float) -> float:
        """Where a line of the branch ``radius_mm`` from its axis meets the main tube, mm along the branch."""
        turn, beside = math.radians(self.angle_deg), radius_mm * math.sin(phi) + self.offset_mm
        within = max((self.main_mm / 2) ** 2 - beside**2, 0.0)
        return (radius_mm * math.cos(phi) * math.cos(turn) + math.sqrt(within)) / math.sin(turn)

    def refuse(self) -> None:
        """Raise InputError where the branch runs past the main tube's side, or has no bore."""
        reach = self.branch_mm / 2 + abs(self.offset_mm)
        if reach > self.main_mm / 2 + 1e-9:
            raise InputError(
                "the branch runs past the side of what it lies on",
                field="offset_mm" if self.offset_mm else "branch_mm",
                found=f"half of it and the way between the axes are {as_length(reach)}",
                acceptable=f"at most {as_length(self.main_mm / 2)}: a thinner branch, or axes that cross",
            )
        if 2 * self.wall_mm >= self.branch_mm:
            raise InputError(
                "the wall fills the branch",
                field="wall_mm",
                found=as_thickness(self.wall_mm),
                acceptable=f"less than {as_thickness(self.branch_mm / 2)}",
            )

    def kept(self, phi: float) -> float:
        """Length that a square cut through the wall keeps at ``phi``, mm."""
        outer = self.branch_mm / 2
        return max(self.at(phi, outer), self.at(phi, outer - self.wall_mm))

    def shortest(self) -> float:
        """The least length kept, mm: how near the branch's longest line comes to the main tube's axis."""
        return min(self.kept(phi) for phi in TURNS)
