"""The shaft from gearbox to rear axle, as the document holds it."""

from typing import Annotated, Literal

from pydantic import Field

from nodulant.axles.points import FramePoint, HardPoint
from nodulant.axles.riding import PLACED, Rides
from nodulant.base.model import Coordinate, Extra, Frozen, Name, Size, Thickness


class Near(Frozen):
    """Something that the shaft must clear: the edge that faces it, at one station."""

    name: Name
    x_mm: Coordinate
    z_mm: Coordinate
    lies: Literal["above", "below"] = "below"


class Driveline(Frozen):
    """One shaft, or two with a bearing between them; slopes in degrees, down to the rear positive."""

    gearbox: FramePoint
    """Joint at the gearbox (or transfer case), on the frame."""
    gearbox_deg: Annotated[float, Field(ge=-20, le=20)] = 3.0
    """How much the output shaft points down to the rear, to the rail datum."""
    gearbox_plan_deg: Annotated[float, Field(ge=-20, le=20)] = 0.0
    """How much the output shaft points to the right of straight back, seen from above."""
    pinion: HardPoint
    """Joint at the axle, from the hub line."""
    pinion_plan_deg: Annotated[float, Field(ge=-20, le=20)] = 0.0
    """How much the pinion's nose points to the right of straight ahead, seen from above."""
    bearing: FramePoint | None = None
    """Joint behind the carrier bearing of a two-piece shaft, on the frame."""
    tube_mm: Annotated[float, Field(gt=20, le=200)] = 76.2
    wall_mm: Thickness = 2.11
    slip_mm: Size = 120.0
    """Whole length of the splines that may slide."""
    engaged_mm: Size = 70.0
    """Of it engaged at ride height."""
    most_rpm: Annotated[float, Field(gt=100, le=15_000)] = 4000.0
    joint_deg: Annotated[float, Field(gt=0, le=45)] = 18.0
    """Most that a joint may stand at before it binds."""
    near: Annotated[tuple[Near, ...], Field(max_length=20)] = ()
    clearance_mm: Extra = 20.0
    rides: Rides = PLACED
    """What gearbox, bearing and the things near it go with."""
