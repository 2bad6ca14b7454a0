"""Papers whose text flows from page to page: their sheet, margins and how their quantities are told."""

import io
from collections.abc import Callable
from xml.sax.saxutils import escape

from reportlab.lib.pagesizes import A4, LETTER
from reportlab.lib.units import mm
from reportlab.platypus import SimpleDocTemplate

from nodulant.units.inline import told
from nodulant.units.show import Style

SIDE, FOOT = 14 * mm, 16 * mm


def flowing(stream: io.BytesIO, title: str, style: Style) -> SimpleDocTemplate:
    """On the sheet of the job's unit system; the same text gives the same file."""
    return SimpleDocTemplate(
        stream,
        pagesize=A4 if style == "mm" else LETTER,
        leftMargin=SIDE,
        rightMargin=SIDE,
        topMargin=SIDE,
        bottomMargin=FOOT,
        title=title,
        invariant=1,
    )


def teller(style: Style) -> Callable[[str], str]:
    """Texts with their quantities told in the job's unit, fit for a paragraph."""

    def say(text: str) -> str:
        return escape(told(text, style))

    return say
