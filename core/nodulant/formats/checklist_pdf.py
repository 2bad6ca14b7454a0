"""The survey's checklist on paper, to take to the vehicle: what to measure, from where to where, and room to write it."""

import io
from xml.sax.saxutils import escape

from reportlab.lib import colors
from reportlab.lib.pagesizes import A4, LETTER
from reportlab.lib.styles import ParagraphStyle, getSampleStyleSheet
from reportlab.lib.units import mm
from reportlab.pdfgen.canvas import Canvas
from reportlab.platypus import Flowable, KeepTogether, Paragraph, SimpleDocTemplate, Spacer, Table, TableStyle

from nodulant.formats.tick_box import tick_box
from nodulant.glossary.terms import TERMS
from nodulant.job.document import Inputs
from nodulant.job.touched import deep_axles, touched_axles
from nodulant.survey.checklist import Item, Unlocks, checklist
from nodulant.survey.vehicle import Survey
from nodulant.units.show import Style, show_length

_STYLES = getSampleStyleSheet()
CELL = ParagraphStyle("checklist", parent=_STYLES["Normal"], fontSize=8.5, leading=10.5)
BOX_MM = 3.4
EMPTY_STATIONS = 6
"""Rows for stations that nobody named yet."""
_SAYS = {t.id: t.says for t in TERMS}


def checklist_pdf(job_name: str, inputs: Inputs) -> bytes:
    """The checklist of a job, on the paper of its unit system; raises nothing: what is missing is what it is about."""
    survey, style = inputs.survey, inputs.shop.style
    stream = io.BytesIO()
    document = SimpleDocTemplate(
        stream,
        pagesize=A4 if style == "mm" else LETTER,
        leftMargin=14 * mm,
        rightMargin=14 * mm,
        topMargin=14 * mm,
        bottomMargin=16 * mm,
        title=f"{job_name}, survey checklist",
        invariant=1,
    )
    unit = "millimetres" if style == "mm" else "inches"
    story: list[Flowable] = [
        Paragraph(escape(f"{job_name}: survey"), _STYLES["Title"]),
        Paragraph(
            f"{escape(survey.vehicle)}. Stations from: <b>the front axle line</b>, A ahead of it. "
            f"Heights from: <b>{escape(survey.datum.plane)}</b>; minus below it. Write in {unit}. Measured by ______________________ on ______________",
            CELL,
        ),
        Paragraph("<b>T</b>: cannot be measured once the vehicle is apart.", CELL),
    ]
    for group in checklist(survey, touched_axles(survey, inputs.design), deep_axles(inputs.design)):
        story.append(KeepTogether([*_head(group), _items(group)]))
        if group.id == "cut":
            story += [Spacer(1, 2 * mm), _stations(survey, style)]
    document.build(story, onFirstPage=_foot, onLaterPages=_foot)
    return stream.getvalue()


def _head(group: Unlocks) -> list[Flowable]:
    taken = sum(item.taken for item in group.items)
    title = f"{escape(group.title)}: {taken} of {len(group.items)} in"
    return [
        Spacer(1, 3 * mm),
        Paragraph(title, _STYLES["Heading3"]),
        Paragraph(f"Good for: {escape(group.says)}.", CELL),
    ]


def _items(group: Unlocks) -> Table:
    """What is not asked for in the stations' own table."""
    rows = [_row(item) for item in group.items if not item.pointer.startswith("/survey/rails") or group.id != "cut"]
    table = Table(rows, colWidths=(7 * mm, 7 * mm, 48 * mm, 78 * mm, 42 * mm))
    table.setStyle(
        TableStyle(
            [
                ("LINEBELOW", (0, 0), (-1, -1), 0.3, colors.grey),
                ("BOX", (4, 0), (4, -1), 0.3, colors.grey),
                ("VALIGN", (0, 0), (-1, -1), "MIDDLE"),
            ]
        )
    )
    return table


def _row(item: Item) -> list[object]:
    mark = tick_box(BOX_MM, done=item.taken)
    first = "<b>T</b>" if item.before_teardown else ""
    says = _SAYS.get(item.term, "")
    return [mark, Paragraph(first, CELL), Paragraph(escape(item.name), CELL), Paragraph(escape(says), CELL), ""]


def _stations(survey: Survey, style: Style) -> Table:
    """Both rails station by station: the place where it is known, room for the rest."""
    heads = ["station", "behind front axle", "height L", "R", "width L", "R", "wall L", "R", "lost to rust"]
    known = [f"{show_length(abs(s.x_mm), style)}{' A' if s.x_mm < 0 else ''}" for s in survey.rails.left.stations]
    rows = [heads, *([str(i + 1), x, *[""] * 7] for i, x in enumerate(known))]
    rows += [[str(len(known) + i + 1), *[""] * 8] for i in range(EMPTY_STATIONS)]
    table = Table(rows, colWidths=(14 * mm, 28 * mm, *([19 * mm] * 6), 26 * mm), rowHeights=7 * mm)
    table.setStyle(
        TableStyle(
            [
                ("GRID", (0, 0), (-1, -1), 0.3, colors.grey),
                ("FONTSIZE", (0, 0), (-1, -1), 8),
                ("BACKGROUND", (0, 0), (-1, 0), colors.whitesmoke),
                ("VALIGN", (0, 0), (-1, -1), "MIDDLE"),
            ]
        )
    )
    return table


def _foot(canvas: Canvas, _: SimpleDocTemplate) -> None:
    canvas.setFont("Helvetica", 7)
    canvas.drawString(
        14 * mm,
        8 * mm,
        f"survey checklist · page {canvas.getPageNumber()} · support the vehicle before you go under it",
    )
