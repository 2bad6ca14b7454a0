"""What an operation needs besides plate: tube to a length, and bolts with what goes on them."""

import math
from typing import Literal

from nodulant.base.model import Frozen
from nodulant.parts.cope import Cope

Profile = Literal["tube", "box", "channel"]


def girth_mm(profile: Profile, high_mm: float, wide_mm: float, wall_mm: float) -> float:
    """Length of a profile's wall along its middle, mm; corners sharp."""
    if profile == "tube":
        return math.pi * (high_mm - wall_mm)
    if profile == "box":
        return 2 * (high_mm + wide_mm - 2 * wall_mm)
    return high_mm + 2 * wide_mm - 2 * wall_mm


class TubeNeeded(Frozen):
    """Tube, box or channel cut to a length, mm; ``long_mm`` from longest point to longest point."""

    kind: Literal["tube"] = "tube"
    name: str
    profile: Profile = "tube"
    od_mm: float
    """Outside diameter, or the height of a box or channel."""
    wide_mm: float = 0.0
    """Width of a box or channel."""
    wall_mm: float
    long_mm: float
    steel_id: str
    count: int = 1
    saw_deg: float = 0.0
    """Both ends are sawn so far off square."""
    coped: Cope | None = None
    """What both ends are coped to, where they lie on a round tube."""

    @property
    def girth_mm(self) -> float:
        """Round the middle of its wall, mm: its section's area over its wall."""
        return girth_mm(self.profile, self.od_mm, self.wide_mm, self.wall_mm)

    @property
    def ends(self) -> str:
        """How both its ends are cut."""
        if self.coped is not None:
            return "ends coped"
        return f"ends sawn {self.saw_deg:.1f} degrees off square" if self.saw_deg else "ends square"


class BoltsNeeded(Frozen):
    """Bolts of one size through one grip, mm, each with a nut and a washer at both ends."""

    kind: Literal["bolt"] = "bolt"
    name: str
    size: str
    grade: str
    grip_mm: float
    count: int
    weld_washers: bool = False
    through_rail: bool = False
    """They pass the rail's own wall."""
    captive: bool = False
    """Their nuts are welded behind the wall."""
    socket_mm: float | None = None
    """Hole for a socket in the wall opposite each, where one is needed."""


Needed = TubeNeeded | BoltsNeeded
