"""Left and right are the driver's; ``both`` is stored once and evaluated on each rail."""

from typing import Literal

Side = Literal["left", "right"]
Sides = Literal["left", "right", "both"]
AxleName = Literal["front", "rear"]
LoadState = Literal["bare", "empty", "driver", "laden"]
LEFT_RIGHT: tuple[Side, Side] = ("left", "right")
FRONT_REAR: tuple[AxleName, AxleName] = ("front", "rear")


def on_sides(sides: Sides) -> tuple[Side, ...]:
    """The rails that ``sides`` names."""
    return LEFT_RIGHT if sides == "both" else (sides,)
