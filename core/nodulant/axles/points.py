"""Hard points and links.

A point on the frame is given in the frame's own axes: x rearward from the surveyed front axle
line, y to the right of the centre plane, z above the datum plane. A point on the axle (or
upright) is given from the hub line: x rearward of the hubs, y right of the centre plane, z above
the hubs. A pair is given by its right-hand one; the left one mirrors it.
"""

from typing import Annotated, Literal

from pydantic import Field

from nodulant.base.model import Coordinate, Frozen, Thickness
from nodulant.linkage.mechanism import CARRIER, FRAME, End, Point, Rod
from nodulant.materials import find_steel
from nodulant.materials.steel import ELASTIC_MODULUS_MPA

Bolt = Literal["square", "across", "upright", "along"]
"""Which way a joint's bolt lies; 'square' is level and square to its link at ride height."""
_FIXED: dict[Bolt, Point] = {"across": (0.0, 1.0, 0.0), "upright": (0.0, 0.0, 1.0), "along": (1.0, 0.0, 0.0)}


def bolt_axis(bolt: Bolt, along: Point) -> Point:
    """Unit vector of a bolt whose link runs ``along`` at ride height; an upright link's square bolt lies across."""
    if bolt != "square":
        return _FIXED[bolt]
    size = (along[0] ** 2 + along[1] ** 2) ** 0.5
    return (-along[1] / size, along[0] / size, 0.0) if size > 1e-9 else _FIXED["across"]


class HardPoint(Frozen):
    """A point, mm: on the frame in its axes, on the axle from the hub line."""

    x_mm: Coordinate
    y_mm: Coordinate
    z_mm: Coordinate

    def mirrored(self) -> "HardPoint":
        """The same on the left."""
        return HardPoint(x_mm=self.x_mm, y_mm=-self.y_mm, z_mm=self.z_mm)

    def xyz(self) -> Point:
        """As a plain triple."""
        return (self.x_mm, self.y_mm, self.z_mm)


class OnFrame:
    """Marks a point that stands on the frame, in the frame's axes; a point without it is the axle's."""


FramePoint = Annotated[HardPoint, OnFrame()]


class Tube(Frozen):
    """A link's tube."""

    od_mm: Annotated[float, Field(gt=5, le=150)] = 38.1
    wall_mm: Thickness = 6.35
    steel_id: str = "dom"

    @property
    def area_mm2(self) -> float:
        """Metal area; a wall of half the diameter or more is a solid bar."""
        inner = max(self.od_mm - 2 * self.wall_mm, 0.0)
        return 3.141592653589793 / 4 * (self.od_mm**2 - inner**2)

    @property
    def inertia_mm4(self) -> float:
        """Second moment of area."""
        inner = max(self.od_mm - 2 * self.wall_mm, 0.0)
        return 3.141592653589793 / 64 * (self.od_mm**4 - inner**4)

    @property
    def yield_mpa(self) -> float:
        """Yield beside the welds of its ends."""
        return find_steel(self.steel_id).beside_weld_mpa


class Joints(Frozen):
    """The joints at both ends of a link."""

    swing_deg: Annotated[float, Field(gt=0, le=90)] = 25.0
    """Most that a joint may tilt out of its bolt's square, either way."""
    rating_n: Annotated[float, Field(gt=0, le=1e7)] | None = None
    """Load that its maker allows along the link; None where nobody knows."""
    bush_n_per_mm: Annotated[float, Field(gt=0, le=1e6)] | None = None
    """Stiffness of each end's rubber bush across its bolt; None for a joint without rubber."""
    frame_bolt: Bolt = "square"
    axle_bolt: Bolt = "square"


class Link(Frozen):
    """A rod from a frame bracket to an axle bracket."""

    frame: FramePoint
    axle: HardPoint
    tube: Tube = Tube()
    joints: Joints = Joints()

    def mirrored(self) -> "Link":
        """The left-hand one of a pair."""
        return self.model_copy(update={"frame": self.frame.mirrored(), "axle": self.axle.mirrored()})


def on_axle(point: HardPoint, hub: Point) -> Point:
    """A point given from the hub line, in the frame's axes at ride height."""
    return (hub[0] + point.x_mm, hub[1] + point.y_mm, hub[2] + point.z_mm)


def rod_of(name: str, link: Link, hub: Point) -> Rod:
    """A link as a rod of the linkage, ``hub`` where the hub line crosses the centre plane."""
    a, b = on_axle(link.axle, hub), link.frame.xyz()
    length = sum((p - q) ** 2 for p, q in zip(a, b, strict=True)) ** 0.5
    stiffness = ELASTIC_MODULUS_MPA * link.tube.area_mm2 / max(length, 1.0)
    if link.joints.bush_n_per_mm is not None:
        stiffness = 1.0 / (1.0 / stiffness + 2.0 / link.joints.bush_n_per_mm)
    return Rod(name, End(CARRIER, a), End(FRAME, b), stiffness=stiffness)
