"""Welding on paper: every welded operation with its setting, its beads by number on both rails, and what it bends."""

import io
from collections.abc import Callable, Sequence
from xml.sax.saxutils import escape

from reportlab.graphics.shapes import Drawing, PolyLine, String
from reportlab.lib import colors
from reportlab.lib.styles import ParagraphStyle, getSampleStyleSheet
from reportlab.lib.units import mm
from reportlab.pdfbase.pdfmetrics import stringWidth
from reportlab.pdfgen.canvas import Canvas
from reportlab.platypus import (
    Flowable,
    KeepTogether,
    PageBreak,
    Paragraph,
    SimpleDocTemplate,
    Spacer,
    Table,
    TableStyle,
)

from nodulant.formats.flowing import flowing, teller
from nodulant.heat.beads import Bead
from nodulant.heat.plan import HeatPlan
from nodulant.parts.cautions import STANDING_TEXT
from nodulant.parts.sides import LEFT_RIGHT, Side
from nodulant.units.inline import as_length
from nodulant.units.show import Style

_STYLES = getSampleStyleSheet()
CELL = ParagraphStyle("heat", parent=_STYLES["Normal"], fontSize=9, leading=11.5)
SMALL = ParagraphStyle("heat-small", parent=CELL, fontSize=7.5, leading=9.2)
COLUMNS, INK, NUMBER_PT = 3, 1.6, 6.0
MARGIN_PT = 14.0
NUMBER_WIDE, GAP_PT = 34.0, 4.0


def heat_pdf(job: str, of: str, plans: Sequence[HeatPlan], style: Style) -> bytes:
    """One operation after the other, in the job's unit; ``of`` says which revision it is."""
    stream = io.BytesIO()
    document = flowing(stream, f"{job}: welding in sequence", style)
    say = teller(style)
    story: list[Flowable] = [
        Paragraph(escape(f"{job}: welding in sequence"), _STYLES["Title"]),
        Paragraph(
            f"{say(of)}. Beads by turns on both rails, each where the metal is coolest. A wait ends at a reading of the "
            f"metal, not at the clock. Fire watch for 30 minutes after the last one.",
            CELL,
        ),
    ]
    for n, plan in enumerate(plans):
        story += [PageBreak()] if n else [Spacer(1, 3 * mm)]
        story += _operation(plan, document.width, say)
    if not plans:
        story.append(Paragraph("Nothing is welded.", CELL))
    story += [Spacer(1, 4 * mm), Paragraph(STANDING_TEXT, SMALL)]
    document.build(story, onFirstPage=_foot, onLaterPages=_foot)
    return stream.getvalue()


def _operation(plan: HeatPlan, wide: float, say: Callable[[str], str]) -> list[Flowable]:
    times = f"About {plan.arc_min:.0f} minutes of arc, {plan.whole_min:.0f} with waits."
    head: list[Flowable] = [
        Paragraph(escape(plan.name), _STYLES["Heading2"]),
        Paragraph(f"{say(plan.setting)}; {say(plan.heat)}. Preheat: {say(plan.preheat)}. {times}", CELL),
        *(Paragraph(say(words), CELL) for words in plan.bent),
        Spacer(1, 2 * mm),
    ]
    if plan.too_many:
        return [*head, Paragraph("Too many beads to tell one by one: short ones, spread, hand-warm between.", CELL)]
    drawn = [
        KeepTogether([Paragraph(f"<b>{side.capitalize()} rail</b>, front to the left", CELL), _drawn(plan, side, wide)])
        for side in LEFT_RIGHT
        if any(b.side == side for b in plan.beads)
    ]
    return [*head, *drawn, Spacer(1, 2 * mm), _table(plan.beads, wide, say)]


def _drawn(plan: HeatPlan, side: Side, wide: float) -> Drawing:
    """Beads of one rail where they lie, each with its number."""
    points = [v for b in plan.beads for v in b.path.vertices]
    x0, x1 = min(v.x for v in points), max(v.x for v in points)
    y0, y1 = min(v.y for v in points), max(v.y for v in points)
    scale = min((wide - 2 * MARGIN_PT) / max(x1 - x0, 1.0), 150.0 / max(y1 - y0, 1.0))
    drawing = Drawing(wide, (y1 - y0) * scale + 2 * MARGIN_PT)
    for bead in plan.beads:
        if bead.side != side:
            continue
        at = [(MARGIN_PT + (v.x - x0) * scale, MARGIN_PT + (v.y - y0) * scale) for v in bead.path.vertices]
        drawing.add(PolyLine([c for p in at for c in p], strokeWidth=INK, strokeColor=colors.HexColor("#0b6a55")))
        x, y = (at[0][0] + at[1][0]) / 2, (at[0][1] + at[1][1]) / 2
        drawing.add(String(x, y + 2, str(bead.number), fontSize=NUMBER_PT, textAnchor="middle"))
    return drawing


def _table(beads: Sequence[Bead], wide: float, say: Callable[[str], str]) -> Table:
    """Beads in order in columns beside one another: number, seam, rail, length, way, wait; each on one line."""
    cells = [(f"[ ] {b.number}", _row(b, say)) for b in beads]
    long = -(-len(cells) // COLUMNS)
    columns = [cells[k * long : (k + 1) * long] for k in range(COLUMNS)]
    rows = [[text for c in columns for text in (c[r] if r < len(c) else ("", ""))] for r in range(long)]
    room = wide / COLUMNS - NUMBER_WIDE - GAP_PT
    size = min(
        SMALL.fontSize, SMALL.fontSize * room / max(stringWidth(t, "Helvetica", SMALL.fontSize) for _, t in cells)
    )
    table = Table(rows, colWidths=[NUMBER_WIDE, wide / COLUMNS - NUMBER_WIDE] * COLUMNS)
    table.setStyle(
        TableStyle(
            [
                ("FONT", (0, 0), (-1, -1), "Helvetica", size, 1.2 * size),
                *(("FONT", (2 * k, 0), (2 * k, -1), "Helvetica-Bold", size, 1.2 * size) for k in range(COLUMNS)),
                ("LINEBELOW", (0, 0), (-1, -1), 0.2, colors.lightgrey),
                ("LEFTPADDING", (0, 0), (-1, -1), 0),
                ("RIGHTPADDING", (0, 0), (-1, -1), 0),
                ("TOPPADDING", (0, 0), (-1, -1), 0),
                ("BOTTOMPADDING", (0, 0), (-1, -1), 1.5),
            ]
        )
    )
    return table


def _row(b: Bead, say: Callable[[str], str]) -> str:
    wait = f", wait {b.wait_s / 60:.1f} min" if b.wait_s >= 5 else ""
    return f"seam {b.seam}, {b.side}, {say(as_length(b.length_mm))} {b.towards}{wait}"


def _foot(canvas: Canvas, _: SimpleDocTemplate) -> None:
    canvas.setFont("Helvetica", 7)
    canvas.drawString(14 * mm, 8 * mm, f"welding in sequence · planning figures · page {canvas.getPageNumber()}")
