"""Things that the user places round the axles: boxes and round bars, on the frame's axes."""

from typing import Annotated, Literal

from pydantic import Field, model_validator

from nodulant.axles.points import HardPoint
from nodulant.axles.riding import PLACED, Rides
from nodulant.base.errors import InputError
from nodulant.base.model import Frozen, Id, Name, Size

Kind = Literal[
    "engine",
    "sump",
    "firewall",
    "tank",
    "exhaust",
    "floor",
    "hood",
    "wing",
    "line",
    "column",
    "steering-box",
    "anti-roll-bar",
    "other",
]
Turn = Annotated[float, Field(ge=-180, le=180)]


class BoxShape(Frozen):
    """A box about its middle: length fore and aft, width across, height; turned about its own axes."""

    shape: Literal["box"] = "box"
    middle: HardPoint
    long_mm: Size
    wide_mm: Size
    high_mm: Size
    nose_up_deg: Turn = 0.0
    """Turned about the cross axis, its front end up."""
    yaw_deg: Turn = 0.0
    """Turned about the upright axis, its front end to the left."""


class BarShape(Frozen):
    """A round bar with round ends from point to point: a pipe, a hose, a shaft."""

    shape: Literal["bar"] = "bar"
    a: HardPoint
    b: HardPoint
    diameter_mm: Size


class Obstacle(Frozen):
    """One thing that stands on the frame; ``mirrored`` puts its image on the other side too."""

    id: Id
    name: Name
    kind: Kind = "other"
    body: Annotated[BoxShape | BarShape, Field(discriminator="shape")]
    mirrored: bool = False
    rides: Rides = PLACED
    """What it goes with when it was measured before the cut."""

    @model_validator(mode="after")
    def _off_the_middle(self) -> "Obstacle":
        y = (
            self.body.middle.y_mm
            if isinstance(self.body, BoxShape)
            else max(abs(self.body.a.y_mm), abs(self.body.b.y_mm))
        )
        if self.mirrored and y == 0.0:
            raise InputError(
                "what stands in the middle is its own mirror image",
                field="mirrored",
                found="y 0",
                acceptable="not mirrored",
            )
        return self
