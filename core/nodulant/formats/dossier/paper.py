"""The paper itself: chapters in order, bookmarks, language, page x of y; a whole one and one of four pages."""

import io
import itertools
from collections.abc import Callable

from reportlab.lib.pagesizes import A4, LETTER
from reportlab.lib.units import mm
from reportlab.pdfgen.canvas import Canvas
from reportlab.platypus import Flowable, PageBreak, Paragraph, SimpleDocTemplate

from nodulant.formats.dossier.contents import Contents
from nodulant.formats.dossier.drawn import frame, sections, suspensions
from nodulant.formats.dossier.first import closing, cover, summary, surveyed
from nodulant.formats.dossier.judged import by_hand, checks, swept
from nodulant.formats.dossier.made import as_built, inspections, photos, steps, welds
from nodulant.formats.dossier.parts import CHAPTER, PART
from nodulant.formats.dossier.planned import loads, parts, targets
from nodulant.formats.dossier.steering import steering
from nodulant.formats.dossier.weld_map import weld_map

SHORT_PAGES = 4
SHORT_RULES = (22, 16, 10, 4)
"""How many rules that hold the inspector's one tells: as many as its pages leave room for."""
SIDE, TOP, FOOT = 15 * mm, 14 * mm, 17 * mm


def dossier_pdf(of: Contents, *, short: bool = False) -> bytes:
    """The dossier, or the inspector's short one; raises InvalidInputs where the design cannot be evaluated."""
    if not short:
        return _set(of, None, _set(of, None, 0)[1])[0]
    told, pages = 0, 0
    for told in SHORT_RULES:
        pages = _set(of, told, 0)[1]
        if pages <= SHORT_PAGES:
            break
    return _set(of, told, pages)[0]


def _bookmarked(paper: SimpleDocTemplate) -> Callable[[Flowable], None]:
    """Headings become bookmarks as they are set."""
    count = itertools.count(1)

    def after(flowable: Flowable) -> None:
        if not isinstance(flowable, Paragraph) or flowable.style.name not in {CHAPTER.name, PART.name}:
            return
        key = f"at-{next(count)}"
        paper.canv.bookmarkPage(key)
        level = 0 if flowable.style.name == CHAPTER.name else 1
        paper.canv.addOutlineEntry(flowable.getPlainText(), key, level=level, closed=True)

    return after


def _set(of: Contents, rules: int | None, pages: int) -> tuple[bytes, int]:
    """One of ``pages``: the inspector's with so many rules that hold, or the whole one; with its number of pages."""
    stream = io.BytesIO()
    paper = SimpleDocTemplate(
        stream,
        pagesize=A4 if of.style == "mm" else LETTER,
        leftMargin=SIDE,
        rightMargin=SIDE,
        topMargin=TOP,
        bottomMargin=FOOT,
        title=f"{of.job}: {'dossier' if rules is None else 'inspection summary'}",
        author=of.author,
        subject=of.option,
        lang="en",
        displayDocTitle=True,
        invariant=1,
    )
    paper.afterFlowable = _bookmarked(paper)
    tag = of.result.content_hash[:16]

    def foot(canvas: Canvas, _: SimpleDocTemplate) -> None:
        canvas.setFont("Helvetica", 7)
        number = canvas.getPageNumber()
        words = f"{of.job} · {of.revision} · hash {tag} · planning figures, not an approval"
        canvas.drawString(SIDE, 9 * mm, words)
        canvas.drawRightString(paper.pagesize[0] - SIDE, 9 * mm, f"page {number} of {pages or number}")

    wide = paper.width
    story = _whole(of, wide) if rules is None else _short(of, wide, rules)
    paper.build(story, onFirstPage=foot, onLaterPages=foot)
    return stream.getvalue(), paper.page


def _whole(of: Contents, wide: float) -> list[Flowable]:
    return [
        *cover(of, wide),
        PageBreak(),
        *summary(of),
        *surveyed(of),
        *targets(of),
        *frame(of, wide),
        *sections(of, wide),
        *suspensions(of, wide),
        *steering(of, wide),
        *loads(of),
        *checks(of),
        *swept(of),
        *by_hand(of),
        *parts(of),
        *welds(of),
        *weld_map(of, wide),
        *steps(of),
        *photos(of, wide),
        *as_built(of),
        *inspections(of),
        *closing(of),
    ]


def _short(of: Contents, wide: float, rules: int) -> list[Flowable]:
    return [
        *cover(of, wide, short=True),
        *summary(of),
        *frame(of, wide, whole=False),
        *checks(of, most=rules),
        *as_built(of, brief=True),
        *closing(of),
    ]
