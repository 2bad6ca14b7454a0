"""How the wheels of a front axle are steered, as the document holds it.

Points on the frame in its axes; points on the axle from the hub line, right side, as everywhere.
The rods from a rack or a centre link to independent wheels are the layout's own toe links: their
frame ends are the inner joints. A beam axle has king pins, one tie rod across and a drag link.
"""

from typing import Annotated, Literal

from pydantic import Field

from nodulant.axles.points import FramePoint, HardPoint
from nodulant.base.model import Extra, Frozen, Size, Thickness

Turned = Literal["right", "left"]
Tilt = Annotated[float, Field(ge=-90, le=90)]
Swing = Annotated[float, Field(gt=1, le=80)]
Turns = Annotated[float, Field(gt=0.2, le=12)]


class Rack(Frozen):
    """A rack across the vehicle; its ends are the inner joints of the toe links."""

    kind: Literal["rack"] = "rack"
    stroke_mm: Size = 70.0
    """From the middle to either end."""
    turns: Turns = 3.2
    """Of the steering wheel from lock to lock."""
    boot_mm: Extra = 56.0
    """Outside diameter of the boots over its inner joints; 0 where there are none."""
    housing_mm: Size | None = Field(default=None, exclude_if=lambda own: own is None)
    """Outside diameter of its tube between the joints; None where it is taken as is common."""
    input_right_moves: Turned = "right"
    """Which way the rack moves as the steering wheel is turned right."""


class Sector(Frozen):
    """A steering box by its sector shaft and the pitman arm on it, straight ahead."""

    shaft: FramePoint
    """Where the shaft's axis passes the arm, on the frame."""
    lean_deg: Tilt = 0.0
    """Upper end of the shaft leans rearward."""
    tilt_deg: Tilt = 0.0
    """Upper end of the shaft leans to the right."""
    arm_end: FramePoint
    """Ball joint at the arm's end, on the frame's axes."""
    swing_deg: Swing = 35.0
    """Of the arm, from the middle to either stop."""
    turns: Turns = 4.0
    input_right_turns: Literal["clockwise", "anticlockwise"] = "clockwise"
    """Which way the arm turns as the steering wheel is turned right, seen from above, or from the end to which a level shaft leans."""
    housing_mm: Size | None = Field(default=None, exclude_if=lambda own: own is None)
    """Outside diameter of the box round the shaft; None where it is taken as is common."""
    housing_up_mm: Size | None = Field(default=None, exclude_if=lambda own: own is None)
    """From the arm up the shaft to the box's far end; None where it is taken as is common."""


class DragLink(Frozen):
    """A steering box with a drag link to one knuckle of a beam axle."""

    kind: Literal["drag-link"] = "drag-link"
    box: Sector
    knuckle: HardPoint
    """Drag link's ball on the knuckle's arm, from the hub line; the sign of y says which knuckle."""


class CentreLink(Frozen):
    """A steering box and an idler arm that carry a centre link between the toe links' inner joints."""

    kind: Literal["centre-link"] = "centre-link"
    box: Sector
    idler: FramePoint | None = None
    """Idler's pivot on the frame; the box's shaft mirrored where left out."""
    idler_end: FramePoint | None = None
    """Idler's ball on the centre link; the pitman's mirrored where left out."""


Gear = Annotated[Rack | DragLink | CentreLink, Field(discriminator="kind")]


class KingPins(Frozen):
    """What the knuckles of a beam axle turn about, right side, and the tie rod's ball on the knuckle's arm."""

    upper: HardPoint
    lower: HardPoint
    tie_rod: HardPoint


class ColumnClamp(Frozen):
    """A tube with a saw slot that is squeezed on the column."""

    column_mm: Size
    """Outside diameter of the column."""
    tube_mm: Size
    wall_mm: Thickness
    slot_mm: Annotated[float, Field(ge=0, le=50)] = 3.0
    """Width of the saw slot."""

    @property
    def bore_mm(self) -> float:
        """Inside of the tube."""
        return self.tube_mm - 2 * self.wall_mm


Clocking = Annotated[float, Field(ge=-180, le=180)]


class SteeringShaft(Frozen):
    """From the column to the gear over two or three universal joints, all points on the frame."""

    column: FramePoint
    """A point on the column's own line above the first joint: the middle of the steering wheel."""
    joints: Annotated[tuple[FramePoint, ...], Field(min_length=1, max_length=3)]
    """From the column down."""
    gear: FramePoint
    """A point on the line of the gear's input shaft beyond the last joint."""
    clocked_deg: Clocking = 0.0
    """How far the lower yoke of the shaft below the first joint is turned against its upper one; 0 is in phase."""
    second_clocked_deg: Clocking = 0.0
    """The same of the shaft below the second of three joints."""
    bearing: bool = False
    """A support bearing holds the middle of three joints up."""
    diameter_mm: Size = 25.0
    clamp: ColumnClamp | None = None


class Steering(Frozen):
    """The steering of one axle."""

    shaft: SteeringShaft | None = None
    """From the steering wheel to the gear."""

    gear: Gear
    king_pins: KingPins | None = None
    """Of a beam axle; independent wheels have theirs from their layout."""
