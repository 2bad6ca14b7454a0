"""Patterns as PDF at 1:1, on pages as ``paper`` lays them out.

Every page carries a 100 mm and a 4 in check bar across and a 100 mm one upright (filled, without strokes, so that
their length is exact) and the line 'measure the bar before you cut'; pages of one pattern have registration marks in
their overlap, and letters that say which edges meet. PDF user space is 1/72 in; 1 mm = 72/25.4 points exactly.
"""

import io
from collections.abc import Sequence
from dataclasses import dataclass

import segno
from reportlab.pdfbase.pdfmetrics import stringWidth
from reportlab.pdfgen.canvas import Canvas

from nodulant.drawn.lines import TEXT_MM, Drawn, drawn_dimensions, leader, room_round
from nodulant.formats.paper import (
    FOOT_MM,
    MARGIN_MM,
    MM,
    OVERLAP_MM,
    Page,
    Paper,
    Put,
    page_size_mm,
    pages_of,
    tile_size_mm,
)
from nodulant.patterns.pattern import Pattern


@dataclass(frozen=True)
class TitleBlock:
    """What every page belongs to: job, option with revision, and the hash of its design and survey."""

    job: str
    revision: str
    content_hash: str
    tag: str = ""
    """Revision and survey as a file's name has them, such as r3-s2."""

    @property
    def words(self) -> str:
        """All of it in one line."""
        return f"{self.job}: {self.revision} · design and survey {self.content_hash[:HASH_DIGITS]}"


def pattern_pdf(patterns: Sequence[Pattern], paper: Paper, title: TitleBlock, *, once: bool = False) -> bytes:
    """All ``patterns`` on as few pages as they need, with the title block on every page; mirrored pairs ``once`` or both."""
    stream = io.BytesIO()
    canvas = Canvas(stream, invariant=True)
    canvas.setTitle("Nodulant patterns 1:1")
    pages = pages_of(patterns, paper, once=once)
    _keep_code(canvas, title)
    for number, page in enumerate(pages, 1):
        wide, high = page_size_mm(paper, turned=page.turned)
        canvas.setPageSize((wide * MM, high * MM))
        _page(canvas, paper, page)
        _foot(canvas, page, f"page {number} of {len(pages)}", wide)
        _title(canvas, wide, title)
        _square_code(canvas, wide)
        canvas.showPage()
    canvas.save()
    return stream.getvalue()


def _page(canvas: Canvas, paper: Paper, page: Page) -> None:
    tile_w, tile_h = tile_size_mm(paper, turned=page.turned)
    canvas.saveState()
    canvas.translate(MARGIN_MM * MM, FOOT_MM * MM)
    clip = canvas.beginPath()
    clip.rect(0, 0, tile_w * MM, tile_h * MM)
    canvas.clipPath(clip, stroke=0, fill=0)
    if page.across * page.up > 1:
        _registration(canvas, tile_w, tile_h)
        _letters(canvas, page, tile_w, tile_h)
    canvas.translate(-page.column * (tile_w - OVERLAP_MM) * MM, -page.row * (tile_h - OVERLAP_MM) * MM)
    for put in page.puts:
        canvas.saveState()
        canvas.translate(put.x * MM, put.y * MM)
        _strokes(canvas, put.pattern)
        _measures(canvas, put.pattern, inside=put.inside)
        if len(page.puts) > 1:
            _caption(canvas, put)
        canvas.restoreState()
    canvas.restoreState()


CAPTION_PT, CAPTION_ROW_MM = 7.0, 3.2


def _caption(canvas: Canvas, put: Put) -> None:
    """Two rows under a pattern and its dimensions."""
    below = room_round(() if put.inside else put.pattern.dimensions)["below"]
    canvas.setFont("Helvetica", CAPTION_PT)
    for row, text in enumerate(_named(put), 1):
        canvas.drawString(0, -(below + row * CAPTION_ROW_MM) * MM, shortened(text, put.wide * MM, CAPTION_PT))


def _named(put: Put) -> tuple[str, str]:
    """What it is, and of what and from where."""
    side = "L; turned over it is R" if put.both else put.pattern.side
    own = put.pattern
    off = f" · {own.count} off" if own.count > 1 else ""
    hangs = f" · hang on {', '.join(own.hangs_on)}" if own.hangs_on else f" · {own.missing}" if own.missing else ""
    return f"{own.title} · {side}{off}", f"{own.steel} · from {own.datum}{hangs}"


def _letters(canvas: Canvas, page: Page, tile_w: float, tile_h: float) -> None:
    """The same letter on both pages of an edge that meets: across first, then up."""
    canvas.setFont("Helvetica", LETTER_MM * MM)
    half = OVERLAP_MM / 2
    for at, x in ((page.column - 1, half), (page.column, tile_w - half)):
        if 0 <= at < page.across - 1:
            letter = _letter(page.row * (page.across - 1) + at)
            canvas.drawCentredString(x * MM, tile_h / 2 * MM, letter)
    for at, y in ((page.row - 1, half), (page.row, tile_h - half)):
        if 0 <= at < page.up - 1:
            letter = _letter(page.up * (page.across - 1) + at * page.across + page.column)
            canvas.drawCentredString(tile_w / 2 * MM, (y - LETTER_MM / 3) * MM, letter)


LETTER_MM = 5.0


def _letter(number: int) -> str:
    """A to Z, then AA, AB and so on."""
    tens, ones = divmod(number, 26)
    return (_letter(tens - 1) if tens else "") + chr(ord("A") + ones)


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


def _foot(canvas: Canvas, page: Page, number: str, wide: float) -> None:
    """What lies on the page, the line that says measure, and the bars."""
    first = page.puts[0]
    what = " · ".join(_named(first)) if len(page.puts) == 1 else f"{len(page.puts)} patterns, each named under it"
    if page.across * page.up > 1:
        what += f" · sheet {page.column + 1} of {page.across} across, {page.row + 1} of {page.up} up"
    canvas.setFont("Helvetica", FOOT_PT)
    canvas.drawString(
        MARGIN_MM * MM,
        18.5 * MM,
        shortened(f"{number} · {what}", (wide - 2 * MARGIN_MM - CODE_MM - QUIET_MM) * MM, FOOT_PT),
    )
    measure = "Print at 100 %. Measure the bars before you cut: upper and upright 100 mm, lower 4 in."
    canvas.drawString(MARGIN_MM * MM, 14.5 * MM, measure)
    canvas.setFillGray(0)
    canvas.rect(MARGIN_MM * MM, 10 * MM, 100 * MM, 2 * MM, stroke=0, fill=1)
    canvas.rect(MARGIN_MM * MM, 6 * MM, 4 * 25.4 * MM, 2 * MM, stroke=0, fill=1)
    canvas.rect(5 * MM, FOOT_MM * MM, 2 * MM, 100 * MM, stroke=0, fill=1)


FOOT_PT = 8.0
BLOCK_X_MM, BLOCK_Y_MM, BLOCK_H_MM = 118.0, 3.5, 9.5
"""Beside the check bars, under the lines of the foot."""


def _title(canvas: Canvas, page_wide: float, title: TitleBlock) -> None:
    wide = page_wide - MARGIN_MM - BLOCK_X_MM - CODE_MM - QUIET_MM
    canvas.setLineWidth(0.35)
    canvas.rect(BLOCK_X_MM * MM, BLOCK_Y_MM * MM, wide * MM, BLOCK_H_MM * MM, stroke=1, fill=0)
    rows = (f"{title.job}: {title.revision}", f"scale 1:1 · design and survey {title.content_hash[:HASH_DIGITS]}")
    for i, text in enumerate(rows):
        canvas.setFont("Helvetica", TITLE_PT)
        y = (BLOCK_Y_MM + BLOCK_H_MM - 3.8 - 4.0 * i) * MM
        canvas.drawString((BLOCK_X_MM + 1.5) * MM, y, shortened(text, (wide - 3.0) * MM, TITLE_PT))


TITLE_PT, HASH_DIGITS = 7.5, 12
CODE_MM, QUIET_MM = 17.5, 2.0
"""Side of the square code at the foot's end; a hand-held reader takes modules from a third of a millimetre (common practice)."""


def code_text(title: TitleBlock) -> str:
    """What the code says, a line each: job, option with revision, hash."""
    return "\n".join((title.job[:40], title.revision[:60], title.content_hash[:HASH_DIGITS]))


CODE = "code"


def _keep_code(canvas: Canvas, title: TitleBlock) -> None:
    """The code once in the document, for every page to show."""
    rows = [list(row) for row in segno.make(code_text(title), error="l", micro=False).matrix]
    module = CODE_MM / len(rows) * MM
    canvas.beginForm(CODE)
    path = canvas.beginPath()
    for i, row in enumerate(rows):
        for j, dark in enumerate(row):
            if dark:
                path.rect(j * module, CODE_MM * MM - (i + 1) * module, module, module)
    canvas.setFillGray(0)
    canvas.drawPath(path, stroke=0, fill=1)
    canvas.endForm()


def _square_code(canvas: Canvas, page_wide: float) -> None:
    canvas.saveState()
    canvas.translate((page_wide - MARGIN_MM - CODE_MM) * MM, BLOCK_Y_MM * MM)
    canvas.doForm(CODE)
    canvas.restoreState()


def shortened(text: str, wide_pt: float, size_pt: float) -> str:
    """A text that fits, cut at its end where it is too long."""
    while len(text) > 1 and stringWidth(text, "Helvetica", size_pt) > wide_pt:
        text = f"{text[:-2]}…"
    return text
