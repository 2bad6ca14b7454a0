"""Labels with a code that opens the step, or the step at which a part is fitted: cut out and hung on work and box."""

import io
from collections.abc import Sequence
from dataclasses import dataclass

from reportlab.graphics import renderPDF
from reportlab.graphics.barcode.qr import QrCodeWidget
from reportlab.graphics.shapes import Drawing
from reportlab.lib.pagesizes import A4, LETTER
from reportlab.lib.units import mm
from reportlab.pdfbase.pdfmetrics import stringWidth
from reportlab.pdfgen.canvas import Canvas

from nodulant.units.inline import told
from nodulant.units.show import Style

COLUMNS, ROWS = 2, 8
MARGIN, GAP, CODE = 12 * mm, 3 * mm, 26 * mm
FONT, BOLD, LARGE, SMALL = "Helvetica", "Helvetica-Bold", 10.5, 8.5
MOST_LINES = 3


@dataclass(frozen=True)
class Label:
    """What a label says, and the address that its code opens."""

    title: str
    lines: tuple[str, ...]
    address: str


def labels_pdf(job: str, labels: Sequence[Label], style: Style) -> bytes:
    """Sheets of two by eight; texts in the job's unit."""
    stream = io.BytesIO()
    size = A4 if style == "mm" else LETTER
    canvas = Canvas(stream, pagesize=size, invariant=1)
    canvas.setTitle(f"{job}: labels")
    wide, high = (size[0] - 2 * MARGIN) / COLUMNS, (size[1] - 2 * MARGIN) / ROWS
    for n, label in enumerate(labels):
        if n and n % (COLUMNS * ROWS) == 0:
            canvas.showPage()
        column, row = n % COLUMNS, n // COLUMNS % ROWS
        x, y = MARGIN + column * wide, size[1] - MARGIN - (row + 1) * high
        _draw(canvas, label, (x, y, wide, high), job, style)
    canvas.save()
    return stream.getvalue()


def _draw(canvas: Canvas, label: Label, box: tuple[float, float, float, float], job: str, style: Style) -> None:
    x, y, wide, high = box
    canvas.setStrokeGray(0.7)
    canvas.rect(x, y, wide, high)
    code = QrCodeWidget(label.address, barLevel="M")
    x0, y0, x1, y1 = code.getBounds()
    scale = CODE / max(x1 - x0, y1 - y0)
    drawing = Drawing(CODE, CODE, transform=[scale, 0, 0, scale, 0, 0])
    drawing.add(code)
    renderPDF.draw(drawing, canvas, x + GAP, y + (high - CODE) / 2)
    left, room, at = x + CODE + 2 * GAP, wide - CODE - 3 * GAP, y + high - 5 * mm
    rows = [(BOLD, LARGE, line) for line in _broken(told(label.title, style), BOLD, LARGE, room)]
    rows += [(FONT, SMALL, line) for words in label.lines for line in _broken(told(words, style), FONT, SMALL, room)]
    for font, points, words in [*rows[: MOST_LINES + 2], (FONT, SMALL, job)]:
        canvas.setFont(font, points)
        canvas.drawString(left, at, words)
        at -= points * 1.25


def _broken(words: str, font: str, points: float, room: float) -> list[str]:
    lines: list[str] = []
    for word in words.split():
        longer = f"{lines[-1]} {word}" if lines else word
        if lines and stringWidth(longer, font, points) <= room:
            lines[-1] = longer
        else:
            lines.append(word)
    return lines[:MOST_LINES]
