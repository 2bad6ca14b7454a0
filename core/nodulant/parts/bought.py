"""What an operation needs besides plate: tube to a length, and bolts with what goes on them."""

from typing import Literal

from nodulant.base.model import Frozen


class TubeNeeded(Frozen):
    """Round tube cut to a length, mm."""

    kind: Literal["tube"] = "tube"
    name: str
    od_mm: float
    wall_mm: float
    long_mm: float
    steel_id: str
    count: int = 1


class BoltsNeeded(Frozen):
    """Bolts of one size through one grip, mm, each with a nut and a washer at both ends."""

    kind: Literal["bolt"] = "bolt"
    name: str
    size: str
    grade: str
    grip_mm: float
    count: int
    weld_washers: bool = False


Needed = TubeNeeded | BoltsNeeded
