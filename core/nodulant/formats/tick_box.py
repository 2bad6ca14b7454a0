"""A box to tick on paper, ticked where what it stands for is done."""

from reportlab.graphics.shapes import Drawing, PolyLine, Rect
from reportlab.lib.units import mm


def tick_box(size_mm: float, *, done: bool) -> Drawing:
    """So large on each side."""
    size = size_mm * mm
    box = Drawing(size, size)
    box.add(Rect(0, 0, size, size, fillColor=None, strokeWidth=0.7))
    if done:
        box.add(PolyLine([0.18 * size, 0.48 * size, 0.42 * size, 0.2 * size, 0.85 * size, 0.85 * size], strokeWidth=1))
    return box
