"""A pattern as PDF at 1:1, tiled on A4 or Letter.

Every page carries a 100 mm and a 4 in check bar (filled, without strokes, so that their
length is exact), registration marks in the overlap and the line 'measure the bar before you
cut'. PDF user space is 1/72 in; 1 mm = 72/25.4 points exactly.
"""

import io
import math
from typing import Literal

from reportlab.lib.pagesizes import A4, LETTER
from reportlab.pdfgen.canvas import Canvas

from nodulant.patterns.pattern import Pattern

Paper = Literal["a4", "letter"]
MM = 72 / 25.4
MARGIN_MM = 10.0
FOOT_MM = 24.0
OVERLAP_MM = 10.0
SIZES = {"a4": A4, "letter": LETTER}


def pattern_pdf(patterns: list[Pattern], paper: Paper) -> bytes:
    """All ``patterns`` one after another, each on as many pages as it needs."""
    stream = io.BytesIO()
    canvas = Canvas(stream, pagesize=SIZES[paper], invariant=True)
    canvas.setTitle("Nodulant patterns 1:1")
    for pattern in patterns:
        for column, row, across, up in _tiles(pattern, paper):
            _page(canvas, pattern, paper, (column, row, across, up))
            canvas.showPage()
    canvas.save()
    return stream.getvalue()


def tile_size_mm(paper: Paper) -> tuple[float, float]:
    """Drawing area of a page, mm."""
    width, height = SIZES[paper]
    return width / MM - 2 * MARGIN_MM, height / MM - MARGIN_MM - FOOT_MM


def _tiles(pattern: Pattern, paper: Paper) -> list[tuple[int, int, int, int]]:
    _, _, width, height = pattern.bounds()
    tile_w, tile_h = tile_size_mm(paper)
    across = max(1, math.ceil((width - OVERLAP_MM) / (tile_w - OVERLAP_MM)))
    up = max(1, math.ceil((height - OVERLAP_MM) / (tile_h - OVERLAP_MM)))
    return [(c, r, across, up) for r in range(up) for c in range(across)]


def _page(canvas: Canvas, pattern: Pattern, paper: Paper, tile: tuple[int, int, int, int]) -> None:
    column, row, across, up = tile
    tile_w, tile_h = tile_size_mm(paper)
    _foot(canvas, pattern, f"sheet {column + 1} of {across} across, {row + 1} of {up} up")
    canvas.saveState()
    canvas.translate(MARGIN_MM * MM, FOOT_MM * MM)
    clip = canvas.beginPath()
    clip.rect(0, 0, tile_w * MM, tile_h * MM)
    canvas.clipPath(clip, stroke=0, fill=0)
    _registration(canvas, tile_w, tile_h)
    canvas.translate(-column * (tile_w - OVERLAP_MM) * MM, -row * (tile_h - OVERLAP_MM) * MM)
    _strokes(canvas, pattern)
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
