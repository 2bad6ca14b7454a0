"""Parts that a design adds and the seams that join them.

A part's outline is its flat shape in the drawing axes of its face: for side faces x is the
station (mm rearward from the front axle) and y the height above the rail datum plane; for
top and bottom faces y is the distance across the rail from the web.
"""

import math
from typing import Literal

from nodulant.base.model import Frozen
from nodulant.geometry import Outline
from nodulant.materials.steel import DENSITY_KG_PER_MM3
from nodulant.parts.sides import Side

Face = Literal["inner", "outer", "top", "bottom", "axle", "across"]
"""Of a rail; what is on the axle or goes across from rail to rail is on none of its faces."""
MEMBER = "tube"
"""Role of a length of tube, box or channel: its outline is its wall rolled out, for its metal, and is no plate to cut."""
EndShape = Literal["square", "taper", "diamond"]


class RoundHole(Frozen):
    """A hole in a part, in the axes of its outline, mm."""

    x_mm: float
    y_mm: float
    diameter_mm: float

    def moved(self, dx: float, dy: float) -> "RoundHole":
        """The same elsewhere."""
        return self.model_copy(update={"x_mm": self.x_mm + dx, "y_mm": self.y_mm + dy})


class Turn(Frozen):
    """How a part sits turned on a sloping rail: counter-clockwise about a point of its face, degrees and mm."""

    degrees: float
    x_mm: float
    z_mm: float


class Part(Frozen):
    """One plate of one side; id is '<operation>/<role>/<side>'."""

    id: str
    operation: str
    role: str
    side: Side
    name: str
    face: Face
    outline: Outline
    thickness_mm: float
    steel_id: str
    count: int = 1
    """How many of it are cut."""
    rides_mm: float | None = None
    """Stock station of the rail that it moves with; the middle of its outline where left out."""
    holes: tuple[RoundHole, ...] = ()
    lower_face_mm: float | None = None
    """Height of its lower face above the rail's underside, where it lies flat on a flange; mm."""
    turn: Turn | None = None

    @property
    def from_plate(self) -> bool:
        """Whether it is cut flat from plate."""
        return self.role != MEMBER

    """Where it follows the rail's slope; its outline is as cut, not turned."""

    def mass_kg(self) -> float:
        """Mass of all its flat plates, kg."""
        gone = sum(math.pi / 4 * hole.diameter_mm**2 for hole in self.holes)
        area = max(abs(self.outline.area_mm2()) - gone, 0.0)
        return self.count * area * self.thickness_mm * DENSITY_KG_PER_MM3


class Seam(Frozen):
    """A weld between two parts; ``welded_share`` is the share of its length that is welded.

    ``path`` is where it is seen from the side; ``long_mm`` its length where that shows only a part of it, as a butt
    round a whole section.
    """

    part_a: str
    part_b: str
    kind: Literal["fillet", "butt", "plug"]
    leg_mm: float
    path: Outline
    welded_share: float = 1.0
    ground: bool = False
    long_mm: float | None = None

    @property
    def welded_mm(self) -> float:
        """Length of bead, mm."""
        return (self.path.length_mm() if self.long_mm is None else self.long_mm) * self.welded_share


def part_id(operation: str, role: str, side: Side) -> str:
    """The name by which patterns, steps, readings and mass refer to a part."""
    return f"{operation}/{role}/{side}"
