"""What every chapter is set with: headings that become bookmarks, tables, paragraphs, quantities in the job's unit."""

from collections.abc import Sequence
from xml.sax.saxutils import escape

from reportlab.lib import colors
from reportlab.lib.styles import ParagraphStyle, getSampleStyleSheet
from reportlab.lib.units import mm
from reportlab.platypus import Flowable, Paragraph, Spacer, Table, TableStyle

from nodulant.units.figure import show_figure
from nodulant.units.inline import told
from nodulant.units.said import Amount, show_amount
from nodulant.units.show import Style, show_thickness

_STYLES = getSampleStyleSheet()
TITLE: ParagraphStyle = _STYLES["Title"]
TEXT = ParagraphStyle("text", parent=_STYLES["Normal"], fontSize=9, leading=11.5)
CELL = ParagraphStyle("cell", parent=_STYLES["Normal"], fontSize=7.2, leading=8.6)
CHAPTER = ParagraphStyle(
    "chapter", parent=_STYLES["Heading2"], fontSize=13, leading=16, spaceBefore=8, spaceAfter=3, keepWithNext=1
)
PART = ParagraphStyle(
    "part", parent=_STYLES["Heading3"], fontSize=10, leading=12, spaceBefore=5, spaceAfter=2, keepWithNext=1
)
LETTERS = str.maketrans({"²": "2", "³": "3", "⁴": "4", "⁶": "6", "→": "to", "≤": "at most", "≥": "at least", "−": "-"})
"""What the built-in fonts do not have."""


def chapter(text: str) -> Flowable:
    """A heading that stands in the bookmarks."""
    return Paragraph(plain(text), CHAPTER)


def part(text: str) -> Flowable:
    """A heading below a chapter's."""
    return Paragraph(plain(text), PART)


def text(words: str) -> Flowable:
    """A paragraph of plain words."""
    return Paragraph(plain(words), TEXT)


def small(words: str) -> Flowable:
    """A note under a drawing or table."""
    return Paragraph(plain(words), CELL)


def gap(millimetres: float = 2.0) -> Flowable:
    """Room."""
    return Spacer(1, millimetres * mm)


def plain(words: str) -> str:
    """Fit for a paragraph in a built-in font."""
    return escape(words.translate(LETTERS))


def in_rows(cells: Sequence[Flowable | list[Flowable]], columns: int, wide: float) -> Table:
    """Pictures side by side, ``wide`` points of paper in all."""
    rows: list[list[Flowable | list[Flowable] | str]] = []
    for k in range(0, len(cells), columns):
        own = list(cells[k : k + columns])
        rows.append([*own, *[""] * (columns - len(own))])
    return Table(rows, colWidths=[wide / columns] * columns, style=[("VALIGN", (0, 0), (-1, -1), "TOP")])


def table(rows: Sequence[Sequence[str]], widths_mm: Sequence[float], head: bool = True) -> Table:
    """Rows of text, the first one repeated on every page; widths in mm of paper."""
    cells = [[Paragraph(plain(cell), CELL) for cell in row] for row in rows]
    made = Table(cells, colWidths=[w * mm for w in widths_mm], repeatRows=1 if head else 0)
    lines = [
        ("LINEBELOW", (0, 0), (-1, -1), 0.25, colors.lightgrey),
        ("VALIGN", (0, 0), (-1, -1), "TOP"),
        ("TOPPADDING", (0, 0), (-1, -1), 1),
        ("BOTTOMPADDING", (0, 0), (-1, -1), 1),
        ("LEFTPADDING", (0, 0), (-1, -1), 2),
        ("RIGHTPADDING", (0, 0), (-1, -1), 2),
    ]
    if head:
        lines += [("BACKGROUND", (0, 0), (-1, 0), colors.whitesmoke), ("LINEBELOW", (0, 0), (-1, 0), 0.6, colors.grey)]
    made.setStyle(TableStyle(lines))
    return made


def length(value_mm: float | None, style: Style) -> str:
    """A length as the tape reads it; what is not known is said."""
    return "not known" if value_mm is None else show_amount(Amount(value=value_mm, kind="length"), style)


def thickness(value_mm: float, style: Style) -> str:
    """A wall or plate."""
    return show_thickness(value_mm, style)


def figure(value: float, unit: str, style: Style) -> str:
    """A figure in the job's unit."""
    return show_figure(value, unit, style)


def said(words: str, style: Style) -> str:
    """A text with its quantities told."""
    return told(words, style)
