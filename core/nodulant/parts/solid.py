"""What a part fills in space, for the three views: a block, or a plate with its true shape seen from the side."""

from typing import Literal

from nodulant.base.model import Frozen

Span3 = tuple[tuple[float, float], tuple[float, float], tuple[float, float]]


class Solid(Frozen):
    """A block of the right side, mm: on the frame in its axes, on the axle from the hub line where it crosses the centre plane.

    ``side`` is its outline seen from the side (x and z), where that is no rectangle.
    """

    name: str
    on: Literal["frame", "axle"]
    x: tuple[float, float]
    y: tuple[float, float]
    z: tuple[float, float]
    side: tuple[tuple[float, float], ...] = ()


def block(
    name: str, on: Literal["frame", "axle"], middle: tuple[float, float, float], size: tuple[float, float, float]
) -> Solid:
    """A block around its middle."""
    x, y, z = ((m - s / 2, m + s / 2) for m, s in zip(middle, size, strict=True))
    return Solid(name=name, on=on, x=x, y=y, z=z)
