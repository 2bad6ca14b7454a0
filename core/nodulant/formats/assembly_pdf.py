"""Assembly sheets on paper: one operation a page, its parts in place and laid flat, parts list and welds below."""

import io
from collections.abc import Sequence
from dataclasses import dataclass

from reportlab.pdfgen.canvas import Canvas

from nodulant.assembly.sheet import AssemblySheet, PartRow, WeldRow
from nodulant.formats.paper import Paper, page_size_mm
from nodulant.formats.pattern_pdf import TitleBlock, shortened
from nodulant.formats.weld_symbol import HIGH_MM, MM, WIDE_MM, Symbols, draw_symbol
from nodulant.geometry import Outline
from nodulant.units.inline import as_amount, as_length, as_thickness, told
from nodulant.units.show import Style, show_length

MARGIN_MM, HEAD_MM = 12.0, 13.0
VIEW_MM, FLAT_MM = 62.0, 26.0
PARTS_WIDE = 0.44
CHORD_MM = 0.2
Point = tuple[float, float]
Box = tuple[float, float, float, float]
"""Left, low, wide, high on the page, mm."""


@dataclass(frozen=True)
class Place:
    """Where a point of a drawing lies on the page, mm: the drawing's corner, the page's, paper over steel."""

    x0: float
    y0: float
    left: float
    low: float
    scale: float

    def __call__(self, x: float, y: float) -> Point:
        """On the page."""
        return self.left + (x - self.x0) * self.scale, self.low + (y - self.y0) * self.scale


def assembly_pdf(
    sheets: Sequence[AssemblySheet], paper: Paper, title: TitleBlock, style: Style, symbols: Symbols
) -> bytes:
    """All sheets, an operation a page or more where its lists are long; mm or inches by ``style``."""
    stream = io.BytesIO()
    canvas = Canvas(stream, invariant=True)
    canvas.setTitle(f"{title.job}, assembly sheets")
    wide, high = page_size_mm(paper, turned=True)
    top = high - HEAD_MM - MARGIN_MM - VIEW_MM - FLAT_MM - 6.0
    rows = int((top - MARGIN_MM) / HIGH_MM) - 1
    pages = [(sheet, k) for sheet in sheets for k in range(_pages(sheet, rows))]
    for number, (sheet, k) in enumerate(pages, 1):
        canvas.setPageSize((wide * MM, high * MM))
        _head(canvas, sheet, k, wide, high, style)
        _drawing(canvas, sheet, (MARGIN_MM, high - HEAD_MM - MARGIN_MM - VIEW_MM, wide - 2 * MARGIN_MM, VIEW_MM))
        _flat(canvas, sheet, (MARGIN_MM, high - HEAD_MM - MARGIN_MM - VIEW_MM - FLAT_MM, wide - 2 * MARGIN_MM, FLAT_MM))
        _tables(canvas, sheet, slice(k * rows, (k + 1) * rows), top, wide, style, symbols)
        _foot(canvas, title, f"page {number} of {len(pages)}", symbols, wide)
        canvas.showPage()
    canvas.save()
    return stream.getvalue()


def _pages(sheet: AssemblySheet, rows: int) -> int:
    longest = max(len(sheet.parts), len(sheet.welds), 1)
    return -(-longest // rows)


def _head(canvas: Canvas, sheet: AssemblySheet, k: int, wide: float, high: float, style: Style) -> None:
    canvas.setFont("Helvetica-Bold", 14)
    more = "" if k == 0 else ", continued"
    canvas.drawString(
        MARGIN_MM * MM, (high - MARGIN_MM - 4) * MM, shortened(f"{sheet.name}{more}", (wide - 24) * MM, 14)
    )
    canvas.setFont("Helvetica", 8.5)
    bolts = "; ".join(
        f"{b.count} × {b.size} grade {b.grade.removeprefix('grade ')}, grip {show_length(b.grip_mm, style)}"
        for b in sheet.bolts
    )
    words = (
        f"{told(as_amount('mass', sheet.mass_kg), style)} of plate and piece, {told(as_length(sheet.bead_mm), style)} of weld, both sides"
        + (f"; {bolts}" if bolts else "")
    )
    canvas.drawString(MARGIN_MM * MM, (high - MARGIN_MM - 9) * MM, shortened(words, (wide - 24) * MM, 8.5))


def _drawing(canvas: Canvas, sheet: AssemblySheet, box: Box) -> None:
    """The rail grey, parts that stand on it with their numbers, seams as heavy lines with their flags."""
    view = sheet.view
    placed = [p for p in view.parts if p.in_place]
    shapes = [*view.rail, *(p.outline for p in placed)]
    if not shapes:
        return
    at, scale = _fitted(shapes, box)
    canvas.setFillGray(0.93)
    for outline in view.rail:
        _shape(canvas, outline, at, 0.5, fill=True)
    canvas.setFillGray(0)
    for part in placed:
        _shape(canvas, part.outline, at, 0.9, fill=False)
    taken: list[Point] = []
    canvas.setStrokeGray(0.35)
    for weld in view.welds:
        _shape(canvas, weld.path, at, 1.6, fill=False)
    canvas.setStrokeGray(0)
    for part in placed:
        _balloon(canvas, str(part.number), _free(at(*_middle(part.outline)), taken), at(*_middle(part.outline)))
    for weld in view.welds:
        x, y = at(*weld.path.points(CHORD_MM)[0])
        _flag(canvas, f"W{weld.number}", _free((x + 3, y + 4), taken), (x, y))
    canvas.setFont("Helvetica", 7)
    canvas.drawString(box[0] * MM, box[1] * MM, f"seen from the left, front to the left; scale 1:{1 / scale:.3g}")


def _flat(canvas: Canvas, sheet: AssemblySheet, box: Box) -> None:
    """Parts that do not show from the side, laid flat beside each other at one scale."""
    flat = [p for p in sheet.view.parts if not p.in_place]
    if not flat:
        return
    sizes = [(o[2] - o[0], o[3] - o[1]) for o in (p.outline.bounds() for p in flat)]
    gap = 8.0
    scale = min(
        (box[2] - gap * len(flat)) / max(sum(w for w, _ in sizes), 1.0), (box[3] - 7.0) / max(h for _, h in sizes), 1.0
    )
    x = box[0]
    for part, (wide, _) in zip(flat, sizes, strict=True):
        x0, y0, _, _ = part.outline.bounds()
        _shape(canvas, part.outline, Place(x0, y0, x, box[1] + 5.0, scale), 0.9, fill=False)
        _balloon(canvas, str(part.number), (x + wide * scale / 2, box[1] + 2.0), None)
        x += wide * scale + gap


def _fitted(shapes: Sequence[Outline], box: Box) -> tuple[Place, float]:
    bounds = [s.bounds() for s in shapes]
    x0, y0 = min(b[0] for b in bounds), min(b[1] for b in bounds)
    wide, high = max(b[2] for b in bounds) - x0, max(b[3] for b in bounds) - y0
    scale = min(box[2] / max(wide, 1.0), (box[3] - 10.0) / max(high, 1.0), 1.0)
    left, low = box[0] + (box[2] - wide * scale) / 2, box[1] + 5.0
    return Place(x0, y0, left, low, scale), scale


def _shape(canvas: Canvas, outline: Outline, at: Place, line_pt: float, *, fill: bool) -> None:
    canvas.setLineWidth(line_pt)
    path = canvas.beginPath()
    points = [at(x, y) for x, y in outline.points(CHORD_MM)]
    path.moveTo(points[0][0] * MM, points[0][1] * MM)
    for x, y in points[1:]:
        path.lineTo(x * MM, y * MM)
    if outline.closed:
        path.close()
    canvas.drawPath(path, stroke=1, fill=int(fill))


BALLOON_MM, STEP_MM = 2.6, 6.5


def _middle(outline: Outline) -> Point:
    x0, y0, x1, y1 = outline.bounds()
    return (x0 + x1) / 2, (y0 + y1) / 2


def _free(wanted: Point, taken: list[Point]) -> Point:
    """A place near the one that is wanted, off all that are taken: to the right, then row by row upward."""
    for k in range(60):
        here = (wanted[0] + STEP_MM * (k % 6), wanted[1] + STEP_MM * (k // 6))
        if all(abs(here[0] - x) >= STEP_MM or abs(here[1] - y) >= STEP_MM for x, y in taken):
            taken.append(here)
            return here
    return wanted


def _balloon(canvas: Canvas, text: str, at: Point, of: Point | None) -> None:
    x, y = at
    canvas.setLineWidth(0.4)
    if of is not None and of != at:
        canvas.line(x * MM, y * MM, of[0] * MM, of[1] * MM)
    canvas.setFillGray(1)
    canvas.circle(x * MM, y * MM, BALLOON_MM * MM, stroke=1, fill=1)
    canvas.setFillGray(0)
    canvas.setFont("Helvetica-Bold", 8)
    canvas.drawCentredString(x * MM, (y - 1.0) * MM, text)


def _flag(canvas: Canvas, text: str, at: Point, of: Point) -> None:
    canvas.setLineWidth(0.4)
    canvas.line(of[0] * MM, of[1] * MM, at[0] * MM, at[1] * MM)
    canvas.setFillGray(1)
    canvas.rect((at[0] - 3.4) * MM, (at[1] - 1.7) * MM, 6.8 * MM, 3.8 * MM, stroke=1, fill=1)
    canvas.setFillGray(0)
    canvas.setFont("Helvetica", 7)
    canvas.drawCentredString(at[0] * MM, (at[1] - 0.8) * MM, text)


def _tables(
    canvas: Canvas, sheet: AssemblySheet, own: slice, top: float, wide: float, style: Style, symbols: Symbols
) -> None:
    """Parts on the left, welds in their order on the right."""
    middle = MARGIN_MM + (wide - 2 * MARGIN_MM) * PARTS_WIDE
    part_columns = (
        (0.0, "no."),
        (8.0, "part"),
        (middle - MARGIN_MM - 62.0, "off"),
        (middle - MARGIN_MM - 53.0, "thick"),
        (middle - MARGIN_MM - 38.0, "steel"),
        (middle - MARGIN_MM - 16.0, "mass"),
    )
    rows = [_part_cells(p, style) for p in sheet.parts[own]]
    _table(canvas, MARGIN_MM, top, part_columns, rows, middle - MARGIN_MM - 4.0)
    weld_columns = (
        (0.0, "no."),
        (9.0, "weld"),
        (9.0 + WIDE_MM + 4.0, "joins"),
        (wide - MARGIN_MM - middle - 36.0, "side"),
        (wide - MARGIN_MM - middle - 22.0, "bead, a side"),
    )
    welds = sheet.welds[own]
    _table(canvas, middle, top, weld_columns, [_weld_cells(w, style) for w in welds], wide - MARGIN_MM - middle)
    for i, weld in enumerate(welds):
        draw_symbol(canvas, middle + 9.0, top - (i + 1) * HIGH_MM - 2.6, weld, symbols, style)


def _part_cells(part: PartRow, style: Style) -> tuple[str, ...]:
    return (
        str(part.number),
        part.name,
        str(part.count),
        told(as_thickness(part.thickness_mm), style),
        part.steel,
        told(as_amount("mass", part.mass_kg), style),
    )


def _weld_cells(weld: WeldRow, style: Style) -> tuple[str, ...]:
    joins = f"{weld.joins[1]} to {weld.joins[0]}"
    return (
        f"W{weld.number}",
        "",
        joins,
        "L and R" if weld.side == "both" else weld.side,
        show_length(weld.bead_mm, style),
    )


def _table(
    canvas: Canvas,
    left: float,
    top: float,
    columns: Sequence[tuple[float, str]],
    rows: Sequence[Sequence[str]],
    wide: float,
) -> None:
    ends = [x for x, _ in columns[1:]] + [wide]
    for i, row in enumerate(([name for _, name in columns], *rows)):
        y = top - i * HIGH_MM
        for (x, _), end, text in zip(columns, ends, row, strict=True):
            canvas.setFont("Helvetica-Bold" if i == 0 else "Helvetica", 7.5)
            canvas.drawString((left + x) * MM, y * MM, shortened(text, (end - x - 1.0) * MM, 7.5))
        canvas.setLineWidth(0.8 if i == 0 else 0.2)
        canvas.line(left * MM, (y - 3.0) * MM, (left + wide) * MM, (y - 3.0) * MM)


SAID: dict[Symbols, str] = {"iso": "weld symbols as ISO 2553, system A", "aws": "weld symbols as AWS A2.4"}


def _foot(canvas: Canvas, title: TitleBlock, number: str, symbols: Symbols, wide: float) -> None:
    canvas.setFont("Helvetica", 7)
    words = f"{number} · {title.words} · {SAID[symbols]} · planning figures, not an approval; a qualified welder does the welding"
    canvas.drawString(MARGIN_MM * MM, 6.0 * MM, shortened(words, (wide - 2 * MARGIN_MM) * MM, 7))
