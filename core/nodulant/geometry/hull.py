"""Convex hull of points in a plane: the outline of a tab around its foot and its holes."""

import math
from collections.abc import Iterable, Sequence

XY = tuple[float, float]
AROUND = 32


def hull(points: Iterable[XY]) -> list[XY]:
    """Corners counter-clockwise (monotone chain, Andrew 1979, from memory); three points or more."""
    rows = sorted(set(points))

    def chain(some: Sequence[XY]) -> list[XY]:
        out: list[XY] = []
        for p in some:
            while len(out) > 1 and _turn(out[-2], out[-1], p) <= 0:
                out.pop()
            out.append(p)
        return out

    lower, upper = chain(rows), chain(rows[::-1])
    return [*lower[:-1], *upper[:-1]]


def _turn(a: XY, b: XY, c: XY) -> float:
    return (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0])


def around(centre: XY, radius: float) -> list[XY]:
    """Corners of a polygon that stands around a circle, none of them inside it."""
    out = radius / math.cos(math.pi / AROUND)
    turns = (2 * math.pi * (i + 0.5) / AROUND for i in range(AROUND))
    return [(centre[0] + out * math.cos(t), centre[1] + out * math.sin(t)) for t in turns]
