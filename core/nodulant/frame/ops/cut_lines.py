"""Lines that a rail is cut along where no plate follows them: saw cuts through it, and windows in its side.

Stations along, heights above the rail's underside, mm.
"""

import math

from nodulant.frame.here import Span
from nodulant.geometry import Outline, Vertex
from nodulant.geometry.outline import line, rectangle

ONE_CUT_MM = 2.5
"""A piece no longer than this is a saw's kerf: one line."""
QUARTER = math.tan(math.pi / 8)
"""Bulge of a quarter circle."""


def saw_lines(span: Span, height_mm: float, lean_deg: float = 0.0) -> tuple[Outline, ...]:
    """Through the rail at both ends of what comes out; each leans rearward going up by ``lean_deg``."""
    over = height_mm * math.tan(math.radians(lean_deg))
    at = (span.start_mm, span.end_mm) if span.end_mm - span.start_mm > ONE_CUT_MM else (span.start_mm,)
    return tuple(line(x, 0.0, x + over, height_mm) for x in at)


def window(span: Span, low_mm: float, high_mm: float, radius_mm: float = 0.0) -> Outline:
    """A piece of a rail's side; its upper corners are round, and its lower ones where it does not reach the underside."""
    x0, x1, r = span.start_mm, span.end_mm, min(radius_mm, (span.end_mm - span.start_mm) / 2, high_mm - low_mm)
    if r <= 0:
        return rectangle(x0, low_mm, x1, high_mm)
    below = r if low_mm > 0 else 0.0
    foot = (
        [(x0, low_mm + r, QUARTER), (x0 + r, low_mm, 0.0), (x1 - r, low_mm, QUARTER), (x1, low_mm + r, 0.0)]
        if below
        else [(x0, low_mm, 0.0), (x1, low_mm, 0.0)]
    )
    head = [(x1, high_mm - r, QUARTER), (x1 - r, high_mm, 0.0), (x0 + r, high_mm, QUARTER), (x0, high_mm - r, 0.0)]
    return Outline(vertices=tuple(Vertex(x=x, y=y, bulge=b) for x, y, b in (*foot, *head)))
