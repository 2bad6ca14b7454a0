"""A closed or open outline of straight lines and true circular arcs.

``bulge`` of a vertex is tan(included angle / 4) of the arc to the next vertex, positive
when the arc turns counter-clockwise, 0 for a line (the definition used by DXF polylines).
Lengths in mm, angles in radians.
"""

import math
from collections.abc import Iterable
from dataclasses import dataclass

from nodulant.base.model import Frozen

FLAT = 1e-9
"""A bulge below this is a line: the arc would leave its chord by less than a millionth of a millimetre."""


def is_straight(bulge: float) -> bool:
    """Whether a segment of this bulge is a line."""
    return abs(bulge) < FLAT


@dataclass(frozen=True, slots=True)
class Vertex:
    """A corner of an outline, mm, and the bulge of the segment that leaves it."""

    x: float
    y: float
    bulge: float = 0.0


class Outline(Frozen):
    """Vertices in order; closed outlines join the last to the first."""

    vertices: tuple[Vertex, ...]
    closed: bool = True

    def segments(self) -> list[tuple[Vertex, Vertex]]:
        """Pairs of successive vertices, the closing one included."""
        pairs = list(zip(self.vertices, self.vertices[1:], strict=False))
        if self.closed:
            pairs.append((self.vertices[-1], self.vertices[0]))
        return pairs

    def points(self, tolerance_mm: float = 0.02) -> list[tuple[float, float]]:
        """Polygon that departs from the true arcs by at most ``tolerance_mm``."""
        out: list[tuple[float, float]] = []
        for a, b in self.segments():
            out.extend(_flatten(a, b, tolerance_mm))
        if not self.closed:
            out.append((self.vertices[-1].x, self.vertices[-1].y))
        return out

    def area_mm2(self) -> float:
        """Signed enclosed area with exact circular segments; counter-clockwise is positive."""
        total = 0.0
        for a, b in self.segments():
            total += (a.x * b.y - b.x * a.y) / 2.0 + _cap_area(a, b)
        return total

    def length_mm(self) -> float:
        """Length along lines and arcs."""
        return sum(_segment_length(a, b) for a, b in self.segments())

    def bounds(self) -> tuple[float, float, float, float]:
        """(x min, y min, x max, y max) within 0.02 mm."""
        points = self.points()
        xs, ys = [p[0] for p in points], [p[1] for p in points]
        return min(xs), min(ys), max(xs), max(ys)

    def moved(self, dx: float, dy: float) -> "Outline":
        """The same outline shifted by (dx, dy) mm."""
        return self._with(Vertex(x=v.x + dx, y=v.y + dy, bulge=v.bulge) for v in self.vertices)

    def scaled(self, by: float) -> "Outline":
        """The same outline in another unit; arcs keep their bulge."""
        return self._with(Vertex(x=v.x * by, y=v.y * by, bulge=v.bulge) for v in self.vertices)

    def turned(self, degrees: float, x_mm: float, y_mm: float) -> "Outline":
        """Turned counter-clockwise about a point, mm."""
        c, s = math.cos(math.radians(degrees)), math.sin(math.radians(degrees))
        return self._with(
            Vertex(
                x=x_mm + c * (v.x - x_mm) - s * (v.y - y_mm),
                y=y_mm + s * (v.x - x_mm) + c * (v.y - y_mm),
                bulge=v.bulge,
            )
            for v in self.vertices
        )

    def mirrored(self) -> "Outline":
        """Mirrored in the y axis (x changes sign), the order of vertices kept."""
        return self._with(Vertex(x=-v.x, y=v.y, bulge=-v.bulge) for v in self.vertices)

    def upside_down(self) -> "Outline":
        """Mirrored in the x axis (y changes sign), the order of vertices kept."""
        return self._with(Vertex(x=v.x, y=-v.y, bulge=-v.bulge) for v in self.vertices)

    def _with(self, vertices: Iterable[Vertex]) -> "Outline":
        return Outline(vertices=tuple(vertices), closed=self.closed)


def arc_centre(a: Vertex, b: Vertex) -> tuple[float, float, float]:
    """Centre (x, y) and radius of the arc from ``a`` to ``b``, mm; ``a.bulge`` is not 0."""
    k = (1.0 - a.bulge**2) / (4.0 * a.bulge)
    x = (a.x + b.x) / 2.0 - k * (b.y - a.y)
    y = (a.y + b.y) / 2.0 + k * (b.x - a.x)
    return x, y, math.hypot(a.x - x, a.y - y)


def _segment_length(a: Vertex, b: Vertex) -> float:
    if is_straight(a.bulge):
        return math.hypot(b.x - a.x, b.y - a.y)
    return abs(4.0 * math.atan(a.bulge)) * arc_centre(a, b)[2]


def _cap_area(a: Vertex, b: Vertex) -> float:
    if is_straight(a.bulge):
        return 0.0
    angle = 4.0 * math.atan(a.bulge)
    radius = arc_centre(a, b)[2]
    return radius**2 * (angle - math.sin(angle)) / 2.0


def _flatten(a: Vertex, b: Vertex, tolerance_mm: float) -> list[tuple[float, float]]:
    if is_straight(a.bulge):
        return [(a.x, a.y)]
    cx, cy, radius = arc_centre(a, b)
    angle = 4.0 * math.atan(a.bulge)
    step = 2.0 * math.acos(max(0.0, 1.0 - tolerance_mm / max(radius, tolerance_mm)))
    count = max(2, math.ceil(abs(angle) / max(step, 1e-3)))
    start = math.atan2(a.y - cy, a.x - cx)
    turns = (start + angle * i / count for i in range(count))
    return [(cx + radius * math.cos(t), cy + radius * math.sin(t)) for t in turns]


def rectangle(x0: float, y0: float, x1: float, y1: float) -> Outline:
    """Counter-clockwise rectangle between two corners, mm."""
    corners = ((x0, y0), (x1, y0), (x1, y1), (x0, y1))
    return Outline(vertices=tuple(Vertex(x=x, y=y) for x, y in corners))


def polygon(points: Iterable[tuple[float, float]]) -> Outline:
    """Closed outline of straight lines through ``points``, mm."""
    return Outline(vertices=tuple(Vertex(x=x, y=y) for x, y in points))


def line(x0: float, y0: float, x1: float, y1: float) -> Outline:
    """A straight line, mm."""
    return Outline(vertices=(Vertex(x=x0, y=y0), Vertex(x=x1, y=y1)), closed=False)


def circle(x: float, y: float, diameter_mm: float) -> Outline:
    """A circle of two half arcs about a centre, mm."""
    r = diameter_mm / 2
    return Outline(vertices=(Vertex(x=x - r, y=y, bulge=1.0), Vertex(x=x + r, y=y, bulge=1.0)))
