"""A pattern as PDF at 1:1, tiled on A4 or Letter.

Every page carries a 100 mm and a 4 in check bar (filled, without strokes, so that their
length is exact), registration marks in the overlap and the line 'measure the bar before you
cut'. PDF user space is 1/72 in; 1 mm = 72/25.4 points exactly.
"""

import io
import math
from dataclasses import dataclass
from typing import Literal

from reportlab.lib.pagesizes import A4, LETTER
from reportlab.pdfbase.pdfmetrics import stringWidth
from reportlab.pdfgen.canvas import Canvas

from nodulant.drawn.lines import TEXT_MM, Drawn, drawn_dimensions, leader, room_round
from nodulant.patterns.pattern import Pattern

Paper = Literal["a4", "letter"]
MM = 72 / 25.4
MARGIN_MM = 10.0
FOOT_MM = 24.0
OVERLAP_MM = 10.0
SIZES = {"a4": A4, "letter": LETTER}


@dataclass(frozen=True)
class TitleBlock:
    """What every page belongs to: job, option with revision, and the hash of its design and survey."""

    job: str
    revision: str
    content_hash: str


def pattern_pdf(patterns: list[Pattern], paper: Paper, title: TitleBlock) -> bytes:
    """All ``patterns`` one after another, each on as many pages as it needs, with the title block on every page."""
    stream = io.BytesIO()
    canvas = Canvas(stream, pagesize=SIZES[paper], invariant=True)
    canvas.setTitle("Nodulant patterns 1:1")
    for pattern in patterns:
        sheet = _sheet(pattern, paper)
        for tile in sheet.tiles():
            _page(canvas, pattern, paper, sheet, tile)
            _title(canvas, paper, title)
            canvas.showPage()
    canvas.save()
    return stream.getvalue()


def tile_size_mm(paper: Paper) -> tuple[float, float]:
    """Drawing area of a page, mm."""
    width, height = SIZES[paper]
    return width / MM - 2 * MARGIN_MM, height / MM - MARGIN_MM - FOOT_MM


@dataclass(frozen=True)
class _Sheet:
    """How many pages a pattern takes, where its corner lies on them, mm, and whether dimensions stand inside it."""

    across: int
    up: int
    x: float = 0.0
    y: float = 0.0
    inside: bool = True

    def tiles(self) -> list[tuple[int, int]]:
        return [(c, r) for r in range(self.up) for c in range(self.across)]


def _sheet(pattern: Pattern, paper: Paper) -> _Sheet:
    """Dimensions stand round the part where that takes no more paper, inside it where it would."""
    _, _, width, height = pattern.bounds()
    room = room_round(pattern.dimensions)
    bare = _Sheet(*_pages(width, height, paper))
    wide, high = width + room["left"] + room["right"], height + room["below"] + room["above"]
    if _pages(wide, high, paper) != (bare.across, bare.up):
        return bare
    return _Sheet(bare.across, bare.up, room["left"], room["below"], inside=False)


def _pages(width: float, height: float, paper: Paper) -> tuple[int, int]:
    tile_w, tile_h = tile_size_mm(paper)
    across = max(1, math.ceil((width - OVERLAP_MM) / (tile_w - OVERLAP_MM)))
    return across, max(1, math.ceil((height - OVERLAP_MM) / (tile_h - OVERLAP_MM)))


def _page(canvas: Canvas, pattern: Pattern, paper: Paper, sheet: _Sheet, tile: tuple[int, int]) -> None:
    column, row = tile
    tile_w, tile_h = tile_size_mm(paper)
    _foot(canvas, pattern, f"sheet {column + 1} of {sheet.across} across, {row + 1} of {sheet.up} up")
    canvas.saveState()
    canvas.translate(MARGIN_MM * MM, FOOT_MM * MM)
    clip = canvas.beginPath()
    clip.rect(0, 0, tile_w * MM, tile_h * MM)
    canvas.clipPath(clip, stroke=0, fill=0)
    _registration(canvas, tile_w, tile_h)
    canvas.translate(-column * (tile_w - OVERLAP_MM) * MM, -row * (tile_h - OVERLAP_MM) * MM)
    canvas.translate(sheet.x * MM, sheet.y * MM)
    _strokes(canvas, pattern)
    _measures(canvas, pattern, inside=sheet.inside)
    canvas.restoreState()


def _strokes(canvas: Canvas, pattern: Pattern) -> None:
    for stroke in pattern.strokes:
        canvas.setLineWidth(0.35 if stroke.layer == "CUT" else 0.2)
        canvas.setDash([] if stroke.layer in {"CUT", "HOLE"} else [4, 2])
        path = canvas.beginPath()
        points = stroke.outline.points(0.01)
        path.moveTo(points[0][0] * MM, points[0][1] * MM)
        for x, y in points[1:]:
            path.lineTo(x * MM, y * MM)
        if stroke.outline.closed:
            path.close()
        canvas.drawPath(path, stroke=1, fill=0)
    canvas.setDash([])
    for label in pattern.labels:
        canvas.setFont("Helvetica", label.height_mm * MM)
        canvas.drawString(label.x * MM, label.y * MM, label.text)


def _measures(canvas: Canvas, pattern: Pattern, *, inside: bool) -> None:
    canvas.setLineWidth(0.3)
    canvas.setFillGray(0)
    bounds = pattern.bounds()
    for drawn in drawn_dimensions(pattern.dimensions, bounds, inside=inside):
        _dimension(canvas, drawn)
    for callout in pattern.callouts:
        ((x0, y0), (x1, y1)), at = leader(callout, bounds)
        canvas.line(x0 * MM, y0 * MM, x1 * MM, y1 * MM)
        canvas.setFont("Helvetica", TEXT_MM * MM)
        canvas.drawString(at[0] * MM, at[1] * MM, callout.text)


def _dimension(canvas: Canvas, drawn: Drawn) -> None:
    """Witness lines, arrowheads and the value, bold where it is critical."""
    for (x0, y0), (x1, y1) in drawn.lines:
        canvas.line(x0 * MM, y0 * MM, x1 * MM, y1 * MM)
    for head in drawn.arrows:
        path = canvas.beginPath()
        path.moveTo(head[0][0] * MM, head[0][1] * MM)
        for x, y in head[1:]:
            path.lineTo(x * MM, y * MM)
        path.close()
        canvas.drawPath(path, stroke=0, fill=1)
    canvas.saveState()
    canvas.translate(drawn.at[0] * MM, drawn.at[1] * MM)
    canvas.rotate(90 if drawn.upright else 0)
    canvas.setFont("Helvetica-Bold" if drawn.critical else "Helvetica", TEXT_MM * MM)
    canvas.drawCentredString(0, 0, drawn.text)
    canvas.restoreState()


def _registration(canvas: Canvas, tile_w: float, tile_h: float) -> None:
    canvas.setLineWidth(0.2)
    half = OVERLAP_MM / 2
    for x in (half, tile_w - half):
        for y in (half, tile_h - half):
            canvas.line((x - 3) * MM, y * MM, (x + 3) * MM, y * MM)
            canvas.line(x * MM, (y - 3) * MM, x * MM, (y + 3) * MM)
            canvas.circle(x * MM, y * MM, 1.5 * MM, stroke=1, fill=0)


def _foot(canvas: Canvas, pattern: Pattern, sheet: str) -> None:
    canvas.setFont("Helvetica", 8)
    canvas.drawString(
        MARGIN_MM * MM,
        18.5 * MM,
        f"{pattern.title} · {pattern.side} · {pattern.steel} · {sheet} · from {pattern.datum}",
    )
    canvas.drawString(
        MARGIN_MM * MM,
        14.5 * MM,
        "Print at 100 %. Measure the bar before you cut: upper 100 mm, lower 4 in.",
    )
    canvas.setFillGray(0)
    canvas.rect(MARGIN_MM * MM, 10 * MM, 100 * MM, 2 * MM, stroke=0, fill=1)
    canvas.rect(MARGIN_MM * MM, 6 * MM, 4 * 25.4 * MM, 2 * MM, stroke=0, fill=1)


BLOCK_X_MM, BLOCK_Y_MM, BLOCK_H_MM = 118.0, 3.5, 9.5
"""Beside the check bars, under the lines of the foot."""


def _title(canvas: Canvas, paper: Paper, title: TitleBlock) -> None:
    wide = SIZES[paper][0] / MM - MARGIN_MM - BLOCK_X_MM
    canvas.setLineWidth(0.35)
    canvas.rect(BLOCK_X_MM * MM, BLOCK_Y_MM * MM, wide * MM, BLOCK_H_MM * MM, stroke=1, fill=0)
    rows = (f"{title.job}: {title.revision}", f"scale 1:1 · design and survey {title.content_hash[:HASH_DIGITS]}")
    for i, text in enumerate(rows):
        canvas.setFont("Helvetica", TITLE_PT)
        y = (BLOCK_Y_MM + BLOCK_H_MM - 3.8 - 4.0 * i) * MM
        canvas.drawString((BLOCK_X_MM + 1.5) * MM, y, _shortened(text, (wide - 3.0) * MM))


TITLE_PT, HASH_DIGITS = 7.5, 12


def _shortened(text: str, wide_pt: float) -> str:
    """A text that fits, cut at its end where it is too long."""
    while stringWidth(text, "Helvetica", TITLE_PT) > wide_pt:
        text = f"{text[:-2]}…"
    return text
