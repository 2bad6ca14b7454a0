"""Dimension lines as strokes of a sheet: witness lines, the line with its arrowheads, and where the value stands."""

from collections.abc import Iterable
from dataclasses import dataclass

from nodulant.drawn.dimension import Callout, Dimension, Edge, Span, stacked

Point = tuple[float, float]
Box = tuple[float, float, float, float]
TEXT_MM = 3.5
FIRST_MM, STEP_MM = 9.0, 7.5
"""From the part's edge to the first dimension line, and from one to the next."""
GAP_MM, PAST_MM = 1.0, 1.5
"""A witness line begins so far off its point, and runs so far past the dimension line."""
ARROW_MM, ARROW_HALF_MM = 3.0, 0.5
WIDE_PER_HIGH = 0.56
"""Width of a figure over its height, about."""


@dataclass(frozen=True)
class Drawn:
    """One dimension as strokes: straight lines, filled arrowheads, and its text's middle and direction in degrees."""

    lines: tuple[tuple[Point, Point], ...]
    arrows: tuple[tuple[Point, Point, Point], ...]
    text: str
    at: Point
    upright: bool
    critical: bool


def text_width(text: str, height_mm: float = TEXT_MM) -> float:
    """Width of a text, mm, about."""
    return WIDE_PER_HIGH * height_mm * (len(text) + 1)


def drawn_dimensions(dimensions: Iterable[Dimension], bounds: Box, *, inside: bool = False) -> list[Drawn]:
    """All dimensions of a drawing at 1:1 round its ``bounds``; or inside them, where the paper has no room round it.

    Inside, the upper edge is left to the texts that stand there.
    """
    rows = stacked(dimensions, text_width)
    return [
        _drawn(d, span, line_at(span.edge, row, bounds, inside=inside))
        for d, span, row in rows
        if not (inside and span.edge == "above")
    ]


def room_round(dimensions: Iterable[Dimension]) -> dict[Edge, float]:
    """How far dimension lines reach beyond each edge, mm."""
    deep: dict[Edge, float] = {"below": 0.0, "above": 0.0, "left": 0.0, "right": 0.0}
    for _, span, row in stacked(dimensions, text_width):
        deep[span.edge] = max(deep[span.edge], FIRST_MM + row * STEP_MM + TEXT_MM + PAST_MM)
    return deep


def line_at(edge: Edge, row: int, bounds: Box, *, inside: bool = False, scale: float = 1.0) -> float:
    """The coordinate at which a row's line lies beside ``edge``; ``scale`` is the drawing's units a millimetre."""
    x0, y0, x1, y1 = bounds
    off = (FIRST_MM + row * STEP_MM) * (-1 if inside else 1) * scale
    return {"below": y0 - off, "above": y1 + off, "left": x0 - off, "right": x1 + off}[edge]


def _drawn(d: Dimension, span: Span, line: float) -> Drawn:
    flat = span.across_the_sheet

    def at(along: float, across: float) -> Point:
        return (along, across) if flat else (across, along)

    def witness(along: float, start: float) -> tuple[Point, Point]:
        outward = 1.0 if line > start else -1.0
        return at(along, start + outward * GAP_MM), at(along, line + outward * PAST_MM)

    near, far = sorted((span.a, span.b))
    inside = far - near >= 3 * ARROW_MM
    turn = 1.0 if inside else -1.0
    heads = tuple(
        (at(tip, line), at(tip + s * ARROW_MM, line + ARROW_HALF_MM), at(tip + s * ARROW_MM, line - ARROW_HALF_MM))
        for tip, s in ((near, turn), (far, -turn))
    )
    reach = 0.0 if inside else 2 * ARROW_MM
    main = (at(near - reach, line), at(far + reach, line))
    lines = (witness(span.a, span.from_a), witness(span.b, span.from_b), main)
    # a value stands over its line, read from below or from the right
    text_line = line + 1.0 if flat else line - 1.0
    return Drawn(lines, heads, d.text, at((near + far) / 2, text_line), not flat, d.critical)


def leader(callout: Callout, bounds: Box) -> tuple[tuple[Point, Point], Point]:
    """A callout's line from its point outward, and where its text begins: to the side that has room."""
    x0, _, x1, _ = bounds
    away = 1.0 if callout.x >= callout.centre_x else -1.0
    room = x1 - callout.x if away > 0 else callout.x - x0
    if room < text_width(callout.text) + 6.0:
        away = -away
    end = (callout.x + 5.0 * away, callout.y + 4.0)
    return ((callout.x, callout.y), end), end if away > 0 else (end[0] - text_width(callout.text), end[1])
