"""Coilovers, air springs and leaf springs as the document holds them; lengths mm, rates N/mm."""

from typing import Annotated, Literal

from pydantic import Field

from nodulant.axles.points import HardPoint
from nodulant.base.model import Extra, Frozen, Size

Rate = Annotated[float, Field(gt=0, le=2000)]


class Coilover(Frozen):
    """A coil on a damper, one each side; lengths of the damper are from eye to eye."""

    kind: Literal["coilover"] = "coilover"
    lower: HardPoint
    """On the axle, from the hub line, right side."""
    upper: HardPoint
    """On the frame, right side."""
    rate_n_per_mm: Rate
    free_mm: Size
    """Length of the coil by itself."""
    block_mm: Size
    """Length with its coils closed."""
    open_mm: Size
    closed_mm: Size
    body_mm: Size = 60.0
    """Outside diameter of coil or body, the larger."""


class AirSpring(Frozen):
    """A bellows, one each side; area and volume at ride height from its maker."""

    kind: Literal["air"] = "air"
    lower: HardPoint
    upper: HardPoint
    ride_mm: Size
    """Height that its maker gives for riding."""
    least_mm: Size
    most_mm: Size
    area_mm2: Annotated[float, Field(gt=100, le=200_000)]
    """Effective area at ride height."""
    area_per_mm: Annotated[float, Field(ge=-2000, le=2000)] = 0.0
    """How the area grows as the bellows gets longer, mm2/mm; mostly a little negative."""
    volume_mm3: Annotated[float, Field(gt=1e4, le=1e8)]
    most_bar: Annotated[float, Field(gt=0.5, le=20)] = 7.0
    diameter_mm: Size = 150.0


class LeafPack(Frozen):
    """A leaf spring, one each side."""

    kind: Literal["leaf"] = "leaf"
    seat: HardPoint
    """On the axle, right side."""
    rate_n_per_mm: Rate


Springs = Annotated[Coilover | AirSpring | LeafPack, Field(discriminator="kind")]


class AntiRollBar(Frozen):
    """A bar across with an arm at each end and a drop link to the axle."""

    diameter_mm: Annotated[float, Field(gt=5, le=80)] = 22.0
    length_mm: Size = 900.0
    """Of the straight part that twists, between the arms."""
    arm_mm: Size = 220.0
    """From the bar's axis to the drop link, square to the bar."""
    drop: HardPoint
    """Drop link on the axle, from the hub line, right side."""


class HalfShaft(Frozen):
    """A shaft from a differential on the frame to an independent wheel, right side."""

    inner: HardPoint
    """Inner joint, on the frame."""
    outer: HardPoint
    """Outer joint, on the upright, from the hub line."""
    joint_deg: Annotated[float, Field(gt=1, le=50)] = 22.0
    plunge_mm: Size = 40.0
    """What the joints allow from the one end of their slide to the other."""


class BumpStop(Frozen):
    """A stop on each side: how far the wheel rises before it strikes, and how much it gives at 3 g."""

    gap_mm: Extra = 60.0
    gives_mm: Extra = 20.0
