"""Etched text stands in the metal: inside the outline, off holes and lines, as large as there is room."""

from collections.abc import Sequence

import numpy as np
import shapely
from shapely import LineString, Polygon
from shapely.geometry.base import BaseGeometry

from nodulant.drawn.dimension import Callout
from nodulant.drawn.lines import TEXT_MM, leader, text_width
from nodulant.patterns.pattern import Label, Pattern
from nodulant.units.inline import told
from nodulant.units.show import Style

HEIGHTS_MM = (5.0, 4.0, 3.0, 2.5, 2.0, 1.5)
WIDE = 0.62
"""How wide a letter is, over its height, at the most of plain fonts."""
BOTH: tuple[Style, Style] = ("mm", "in16")
ROW, CLEAR_MM, LOOKS = 1.7, 1.0, 24
"""From row to row over the height; from text to an edge or line; places looked at each way."""


def text_inside(pattern: Pattern) -> Pattern:
    """The pattern with its rows of text where they have room, or its name alone; as it was where that has none either."""
    rows = [label.text for label in pattern.labels]
    metal = _metal(pattern)
    if not rows or metal is None:
        return pattern
    parts = [part for row in rows for part in row.split(" · ")]
    named = " · ".join(parts[:2])
    parted = [named, *parts[2:]]
    for choices in ((rows, parted), (rows[:1],), ([named],)):
        labels = fitted_rows(metal, choices, HEIGHTS_MM)
        if labels:
            return pattern.model_copy(update={"labels": labels})
    return pattern


def fitted_rows(
    metal: BaseGeometry, choices: Sequence[Sequence[str]], heights_mm: Sequence[float]
) -> tuple[Label, ...]:
    """One of several ways to set a text, whichever has room in the metal at the largest size; nothing where none has."""
    shapely.prepare(metal)
    sized = [(rows, *block_mm(rows, 1.0)) for rows in choices]
    for height in heights_mm:
        for rows, wide, high in sized:
            corner = _corner(metal, wide * height, high * height)
            if corner is not None:
                return _rows(rows, *corner, height)
    return ()


def _rows(rows: Sequence[str], x: float, top: float, height_mm: float) -> tuple[Label, ...]:
    down = (height_mm * (1 + ROW * i) for i in range(len(rows)))
    return tuple(Label(text=text, x=x, y=top - d, height_mm=height_mm) for text, d in zip(rows, down, strict=True))


def block_mm(rows: Sequence[str], height_mm: float) -> tuple[float, float]:
    """Width and height of rows of text, in whichever unit takes more, mm."""
    letters = max(len(told(row, style)) for row in rows for style in BOTH)
    return letters * WIDE * height_mm, height_mm * (1 + ROW * (len(rows) - 1))


def _metal(pattern: Pattern) -> BaseGeometry | None:
    cuts = [s.outline for s in pattern.strokes if s.layer == "CUT" and s.outline.closed]
    if not cuts:
        return None
    outer = max(cuts, key=lambda line: abs(line.area_mm2()))
    gone: list[BaseGeometry] = []
    for stroke in pattern.strokes:
        if stroke.outline is outer:
            continue
        points = stroke.outline.points(0.2)
        shape = Polygon(points) if stroke.outline.closed and len(points) > 2 else LineString(points)
        gone.append(shape.buffer(CLEAR_MM))
    gone += [_called(callout, pattern) for callout in pattern.callouts]
    return Polygon(outer.points(0.2)).buffer(-CLEAR_MM).difference(shapely.unary_union(gone))


def _called(callout: Callout, pattern: Pattern) -> BaseGeometry:
    """Where a callout's text stands beside its leader."""
    x, y = leader(callout, pattern.bounds())[1]
    wide = text_width(max((told(callout.text, style) for style in BOTH), key=len))
    return shapely.box(x, y - CLEAR_MM, x + wide, y + TEXT_MM + CLEAR_MM)


def _corner(metal: BaseGeometry, wide: float, high: float) -> tuple[float, float] | None:
    """Upper left corner of a block, as high and then as far left as it fits."""
    x0, y0, x1, y1 = metal.bounds
    if not (x1 - x0 >= wide and y1 - y0 >= high and metal.area >= wide * high):
        return None
    x, y = np.meshgrid(np.linspace(x0, x1 - wide, LOOKS), np.linspace(y1 - high, y0, LOOKS))
    inside = shapely.covers(metal, shapely.box(x.ravel(), y.ravel(), x.ravel() + wide, y.ravel() + high))
    if not inside.any():
        return None
    first = int(np.argmax(inside))
    return float(x.ravel()[first]), float(y.ravel()[first] + high)
