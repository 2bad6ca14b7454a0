"""What a part fills in space, for the three views: a block, or a plate with its true shape seen from the side."""

from typing import Literal

from nodulant.base.model import Frozen


class Solid(Frozen):
    """A block of the right side, mm: on the frame in its axes, on the axle from the hub line where it crosses the centre plane.

    Each of x, y and z runs from its least to its most. ``side`` is its outline seen from the side (x and z), where that is no rectangle.
    """

    name: str
    on: Literal["frame", "axle"]
    x: list[float]
    y: list[float]
    z: list[float]
    side: list[list[float]] = []


def block(
    name: str, on: Literal["frame", "axle"], middle: tuple[float, float, float], size: tuple[float, float, float]
) -> Solid:
    """A block around its middle."""
    x, y, z = ([m - s / 2, m + s / 2] for m, s in zip(middle, size, strict=True))
    return Solid(name=name, on=on, x=x, y=y, z=z)
