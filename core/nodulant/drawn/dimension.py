"""Dimensions, and where a drawing shows them: a line between two witness lines, as drawings of the trade have it.

Witness lines, arrowheads and values read from below or from the right are as ISO 129-1 (from memory). Lengths mm.
"""

from collections.abc import Callable, Iterable
from typing import Literal

from nodulant.base.model import Frozen
from nodulant.units.inline import as_deviation, as_length, as_thickness

Edge = Literal["below", "above", "left", "right"]
"""Beside which edge of the drawing a dimension line lies."""


class Span(Frozen):
    """Measured from ``a`` to ``b`` along an edge; each witness line begins at its point's other coordinate."""

    edge: Edge
    a: float
    b: float
    from_a: float
    from_b: float

    def moved(self, dx: float, dy: float) -> "Span":
        """The same span shifted by (dx, dy) mm."""
        along, across = (dx, dy) if self.across_the_sheet else (dy, dx)
        return Span(
            edge=self.edge,
            a=self.a + along,
            b=self.b + along,
            from_a=self.from_a + across,
            from_b=self.from_b + across,
        )

    def mirrored(self) -> "Span":
        """Mirrored about x = 0."""
        if self.across_the_sheet:
            return self.model_copy(update={"a": -self.a, "b": -self.b})
        edge: Edge = "left" if self.edge == "right" else "right"
        return Span(edge=edge, a=self.a, b=self.b, from_a=-self.from_a, from_b=-self.from_b)

    def upside_down(self, height: float) -> "Span":
        """Mirrored about half of ``height``."""
        if not self.across_the_sheet:
            return self.model_copy(update={"a": height - self.a, "b": height - self.b})
        edge: Edge = "above" if self.edge == "below" else "below"
        return Span(edge=edge, a=self.a, b=self.b, from_a=height - self.from_a, from_b=height - self.from_b)

    def scaled(self, by: float) -> "Span":
        """The same span in another unit."""
        return Span(edge=self.edge, a=self.a * by, b=self.b * by, from_a=self.from_a * by, from_b=self.from_b * by)

    def through(self, at: Callable[[float, float], tuple[float, float]]) -> "Span":
        """The same span on a sheet on which ``at`` places the points that it measures."""
        flat = self.across_the_sheet
        one = at(self.a, self.from_a) if flat else at(self.from_a, self.a)
        two = at(self.b, self.from_b) if flat else at(self.from_b, self.b)
        along, over = (0, 1) if flat else (1, 0)
        return Span(edge=self.edge, a=one[along], b=two[along], from_a=one[over], from_b=two[over])

    @property
    def across_the_sheet(self) -> bool:
        """Whether it runs along x."""
        return self.edge in {"below", "above"}


class Dimension(Frozen):
    """A named dimension, whether it is critical, its tolerance, mm, its value as a text, and where it is drawn."""

    name: str
    value_mm: float
    critical: bool
    tolerance_mm: float
    text: str
    span: Span | None = None
    """None where the drawing does not show it, as a plate's thickness."""

    def moved(self, dx: float, dy: float) -> "Dimension":
        """The same dimension with its line shifted."""
        return self.model_copy(update={"span": self.span.moved(dx, dy)}) if self.span else self

    def scaled(self, by: float) -> "Dimension":
        """The same dimension with its line in another unit."""
        return self.model_copy(update={"span": self.span.scaled(by)}) if self.span else self

    def upside_down(self, height: float) -> "Dimension":
        """The same dimension turned over about half of ``height``; what it says of the underside is then of the top."""
        name = self.name.replace("underside", "top")
        return self.model_copy(update={"name": name, "span": self.span and self.span.upside_down(height)})

    def mirrored(self) -> "Dimension":
        """The same dimension with its line mirrored about x = 0."""
        return self.model_copy(update={"span": self.span.mirrored()}) if self.span else self


class Callout(Frozen):
    """A size told beside a hole or an arc, at a point of its edge, mm."""

    x: float
    y: float
    text: str
    kind: Literal["diameter", "radius"]
    centre_x: float
    centre_y: float

    def moved(self, dx: float, dy: float) -> "Callout":
        """The same callout shifted by (dx, dy) mm."""
        return self.model_copy(
            update={
                "x": self.x + dx,
                "y": self.y + dy,
                "centre_x": self.centre_x + dx,
                "centre_y": self.centre_y + dy,
            }
        )

    def scaled(self, by: float) -> "Callout":
        """The same callout in another unit."""
        places = {name: getattr(self, name) * by for name in ("x", "y", "centre_x", "centre_y")}
        return self.model_copy(update=places)

    def upside_down(self, height: float) -> "Callout":
        """Mirrored about half of ``height``."""
        return self.model_copy(update={"y": height - self.y, "centre_y": height - self.centre_y})

    def mirrored(self) -> "Callout":
        """Mirrored about x = 0."""
        return self.model_copy(update={"x": -self.x, "centre_x": -self.centre_x})


def dimension(name: str, span: Span, tolerance_mm: float, *, critical: bool = False) -> Dimension:
    """A length that is drawn: its value is what its span measures; a critical one tells its tolerance."""
    value = abs(span.b - span.a)
    text = f"{as_length(value)} ±{as_deviation(tolerance_mm)}" if critical else as_length(value)
    return Dimension(name=name, value_mm=value, critical=critical, tolerance_mm=tolerance_mm, text=text, span=span)


def size(name: str, value_mm: float, tolerance_mm: float) -> Dimension:
    """A critical size that the drawing does not show, as a plate's thickness."""
    text = f"{as_thickness(value_mm)} ±{as_deviation(tolerance_mm)}"
    return Dimension(name=name, value_mm=value_mm, critical=True, tolerance_mm=tolerance_mm, text=text)


def stacked(dimensions: Iterable[Dimension], wide: Callable[[str], float]) -> list[tuple[Dimension, Span, int]]:
    """Every drawn dimension with its row from the edge outward: shortest first, none over another's line or value.

    ``wide`` is the width of a text in the drawing's own lengths.
    """
    taken: dict[tuple[Edge, int], list[tuple[float, float]]] = {}
    out = []
    drawn = [(d, d.span) for d in dimensions if d.span is not None]
    for d, span in sorted(drawn, key=lambda row: abs(row[1].b - row[1].a)):
        middle, half = (span.a + span.b) / 2, max(abs(span.b - span.a), wide(d.text)) / 2
        low, high = middle - half, middle + half
        row = 0
        while any(low < b and a < high for a, b in taken.get((span.edge, row), [])):
            row += 1
        taken.setdefault((span.edge, row), []).append((low, high))
        out.append((d, span, row))
    return out
