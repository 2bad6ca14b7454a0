"""How the wheels of a front axle are steered, as the document holds it.

Points on the frame in its axes; points on the axle from the hub line, right side, as everywhere.
The rods from a rack or a centre link to independent wheels are the layout's own toe links: their
frame ends are the inner joints. A beam axle has king pins, one tie rod across and a drag link.
"""

from typing import Annotated, Literal

from pydantic import Field

from nodulant.axles.points import HardPoint
from nodulant.base.model import Extra, Frozen, Size

Turned = Literal["right", "left"]
Tilt = Annotated[float, Field(ge=-60, le=60)]
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
    input_right_moves: Turned = "right"
    """Which way the rack moves as the steering wheel is turned right."""


class Sector(Frozen):
    """A steering box by its sector shaft and the pitman arm on it, straight ahead."""

    shaft: HardPoint
    """Where the shaft's axis passes the arm, on the frame."""
    lean_deg: Tilt = 0.0
    """Upper end of the shaft leans rearward."""
    tilt_deg: Tilt = 0.0
    """Upper end of the shaft leans to the right."""
    arm_end: HardPoint
    """Ball joint at the arm's end, on the frame's axes."""
    swing_deg: Swing = 35.0
    """Of the arm, from the middle to either stop."""
    turns: Turns = 4.0
    input_right_turns: Literal["clockwise", "anticlockwise"] = "clockwise"
    """Which way the arm turns, seen from above, as the steering wheel is turned right."""


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
    idler: HardPoint | None = None
    """Idler's pivot on the frame; the box's shaft mirrored where left out."""
    idler_end: HardPoint | None = None
    """Idler's ball on the centre link; the pitman's mirrored where left out."""


Gear = Annotated[Rack | DragLink | CentreLink, Field(discriminator="kind")]


class KingPins(Frozen):
    """What the knuckles of a beam axle turn about, right side, and the tie rod's ball on the knuckle's arm."""

    upper: HardPoint
    lower: HardPoint
    tie_rod: HardPoint


class Steering(Frozen):
    """The steering of one axle."""

    gear: Gear
    king_pins: KingPins | None = None
    """Of a beam axle; independent wheels have theirs from their layout."""
