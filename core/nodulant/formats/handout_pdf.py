"""The sheet that goes along with work that is handed out: what is asked, what stays bare, and its acceptance."""

import io
from xml.sax.saxutils import escape

from reportlab.lib.styles import ParagraphStyle, getSampleStyleSheet
from reportlab.lib.units import mm
from reportlab.platypus import Flowable, Paragraph, Spacer, Table

from nodulant.formats.flowing import flowing, teller
from nodulant.formats.tick_box import tick_box
from nodulant.schedule.handover import HandoverSheet
from nodulant.units.show import Style

_STYLES = getSampleStyleSheet()
CELL = ParagraphStyle("handout", parent=_STYLES["Normal"], fontSize=10.5, leading=14)
BOX_MM = 4.5
SIGN = "_" * 30


def handout_pdf(job: str, of: str, sheet: HandoverSheet, style: Style) -> bytes:
    """One or two pages in the job's unit; ``of`` says which revision it is."""
    stream = io.BytesIO()
    title = f"{job}: handed to the {sheet.to}" if sheet.to != "other" else f"{job}: handed out"
    document, say = flowing(stream, title, style), teller(style)
    story: list[Flowable] = [
        Paragraph(escape(title), _STYLES["Title"]),
        Paragraph(f"{say(of)}. {sheet.days} days.", CELL),
        Paragraph(f"<b>{say(sheet.title)}</b>. {say(sheet.detail)}", CELL),
        *([Paragraph(say(sheet.note), CELL)] if sheet.note else []),
        Paragraph("What is asked", _STYLES["Heading2"]),
        *(_ticked(say(row)) for row in sheet.asks),
    ]
    if sheet.bare:
        story += [Paragraph("Stays bare or masked", _STYLES["Heading2"]), *(_ticked(say(row)) for row in sheet.bare)]
    story += [
        Paragraph("When it comes back", _STYLES["Heading2"]),
        *(_ticked(say(row)) for row in sheet.accepts),
        Spacer(1, 8 * mm),
        Paragraph(f"Handed over on {SIGN} by {SIGN}", CELL),
        Spacer(1, 6 * mm),
        Paragraph(f"Taken back on {SIGN} by {SIGN}", CELL),
        Spacer(1, 6 * mm),
        Paragraph(f"Sent back because {SIGN}{SIGN}", CELL),
    ]
    document.build(story)
    return stream.getvalue()


def _ticked(words: str) -> Table:
    return Table([[tick_box(BOX_MM, done=False), Paragraph(words, CELL)]], colWidths=(9 * mm, None), hAlign="LEFT")
