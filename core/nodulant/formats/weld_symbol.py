"""Weld symbols on a reference line, by either of the two usual standards (from memory).

ISO 2553, system A: a solid reference line with a dashed one under it; the symbol stands on the side of the line that
is the arrow's, 'z' and the leg of a fillet (or the depth of a butt) to its left, n x length (gap) to its right.
AWS A2.4: the arrow side's symbol hangs under one line, its leg to the left, length-pitch to the right; a flush
contour made by grinding carries G.
"""

from itertools import pairwise
from typing import Literal

from reportlab.pdfgen.canvas import Canvas

from nodulant.assembly.sheet import WeldRow
from nodulant.units.show import Style, show_length, show_thickness

Symbols = Literal["iso", "aws"]
MM = 72 / 25.4
WIDE_MM, HIGH_MM = 46.0, 7.0
TALL_MM = 2.6
"""Height of a symbol."""
TEXT_PT = 7.0


def usual_symbols(style: Style) -> Symbols:
    """By the unit system that a shop works in, where nobody chose."""
    return "iso" if style == "mm" else "aws"


def weld_texts(row: WeldRow, symbols: Symbols, style: Style) -> tuple[str, str]:
    """What stands left and right of a symbol: size, and length or beads with their pitch."""
    size = show_thickness(row.leg_mm, style)
    if symbols == "iso":
        left = f"z{size}" if row.kind == "fillet" else size if row.kind == "butt" else ""
        if row.stitch_mm is None or row.pitch_mm is None:
            return left, "" if row.all_round else show_length(row.bead_mm, style)
        count = max(round(row.seam_mm / row.pitch_mm), 1)
        return (
            left,
            f"{count} × {show_length(row.stitch_mm, style)} ({show_length(row.pitch_mm - row.stitch_mm, style)})",
        )
    if row.stitch_mm is None or row.pitch_mm is None:
        return size, "" if row.all_round else show_length(row.bead_mm, style)
    return size, f"{show_length(row.stitch_mm, style)}-{show_length(row.pitch_mm, style)}"


def draw_symbol(canvas: Canvas, x: float, y: float, row: WeldRow, symbols: Symbols, style: Style) -> None:
    """The arrow, reference line and symbol from its arrow's point at (x, y), mm."""
    left, right = weld_texts(row, symbols, style)
    start, end, line = x + 5.0, x + WIDE_MM, y + 3.2
    canvas.setLineWidth(0.6)
    canvas.line(x * MM, y * MM, start * MM, line * MM)
    canvas.line(start * MM, line * MM, end * MM, line * MM)
    if symbols == "iso":
        canvas.setDash([2, 1.5])
        canvas.line(start * MM, (line - 0.9) * MM, end * MM, (line - 0.9) * MM)
        canvas.setDash([])
    if row.all_round:
        canvas.circle(start * MM, line * MM, 1.0 * MM, stroke=1, fill=0)
    up = 1.0 if symbols == "iso" else -1.0
    middle = start + 16.0
    _mark(canvas, row, middle, line, up)
    if row.ground:
        level = line + up * (TALL_MM + 0.5)
        canvas.line((middle - 1.6) * MM, level * MM, (middle + 1.6) * MM, level * MM)
    canvas.setFont("Helvetica", TEXT_PT)
    text = line + (0.8 if up > 0 else -2.7)
    canvas.drawRightString((middle - 2.2) * MM, text * MM, left)
    canvas.drawString((middle + 2.6) * MM, text * MM, right)
    if row.ground and symbols == "aws":
        canvas.drawCentredString(middle * MM, (line - TALL_MM - 3.2) * MM, "G")


def _mark(canvas: Canvas, row: WeldRow, x: float, line: float, up: float) -> None:
    """A fillet's triangle, a butt's V, a plug's box; each on its side of the line."""
    top = line + up * TALL_MM
    paths = {
        "fillet": [(x - 1.3, line), (x - 1.3, top), (x + 1.3, line)],
        "butt": [(x - 1.5, top), (x, line), (x + 1.5, top)],
        "plug": [(x - 1.8, line), (x - 1.8, top), (x + 1.8, top), (x + 1.8, line)],
    }[row.kind]
    for (x0, y0), (x1, y1) in pairwise(paths):
        canvas.line(x0 * MM, y0 * MM, x1 * MM, y1 * MM)
