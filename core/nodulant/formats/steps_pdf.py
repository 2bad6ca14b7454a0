"""The build plan on paper: the whole of it, what can be done now, the hold points to sign by hand, and the cautions."""

import io
from collections.abc import Callable, Iterable, Mapping, Sequence
from itertools import groupby
from typing import Literal
from xml.sax.saxutils import escape

from reportlab.lib import colors
from reportlab.lib.styles import ParagraphStyle, getSampleStyleSheet
from reportlab.lib.units import mm
from reportlab.pdfgen.canvas import Canvas
from reportlab.platypus import Flowable, KeepTogether, Paragraph, SimpleDocTemplate, Spacer, Table, TableStyle

from nodulant.build.plan import Step
from nodulant.formats.flowing import flowing, teller
from nodulant.formats.tick_box import tick_box
from nodulant.gauges.asked import asks_for
from nodulant.gauges.gauge import Gauge
from nodulant.parts.cautions import STANDING_TEXT
from nodulant.units.show import Style

StepSheet = Literal["plan", "now", "holds", "cautions"]
TITLES: dict[StepSheet, str] = {
    "plan": "build plan",
    "now": "what can be done now",
    "holds": "hold points",
    "cautions": "cautions",
}
_STYLES = getSampleStyleSheet()
CELL = ParagraphStyle("step", parent=_STYLES["Normal"], fontSize=9, leading=11.5)
SMALL = ParagraphStyle("small", parent=CELL, fontSize=8, leading=10, textColor=colors.HexColor("#444444"))
BOX_MM = 4.2
DONE = frozenset({"done", "overridden"})


def steps_pdf(
    job: str,
    of: str,
    steps: Sequence[Step],
    gauges: Iterable[Gauge],
    names: Mapping[str, str],
    style: Style,
    sheet: StepSheet = "plan",
) -> bytes:
    """Steps on paper in the job's unit; ``names`` are the operations', ``of`` says which revision it is."""
    stream = io.BytesIO()
    title = f"{job}: {TITLES[sheet]}"
    document = flowing(stream, title, style)
    say = teller(style)
    left = [s for s in steps if s.status not in DONE]
    hours = sum(s.spec.minutes * s.spec.people for s in left) / 60
    head = f"{say(of)}. {len(steps) - len(left)} of {len(steps)} steps done; about {hours:.0f} hours of hands left."
    story: list[Flowable] = [Paragraph(escape(title), _STYLES["Title"]), Paragraph(head, CELL), Spacer(1, 2 * mm)]
    asked = list(gauges)
    if sheet == "cautions":
        story += _cautions(left, say)
    elif sheet == "holds":
        story += _holds(steps, names, say)
    else:
        shown = steps if sheet == "plan" else [s for s in steps if s.status == "open"]
        for phase, own in groupby(shown, key=lambda s: s.spec.phase):
            rows = list(own)
            first = [
                Paragraph(escape(phase.capitalize()), _STYLES["Heading2"]),
                _step(rows[0], steps, names, asked, say),
            ]
            story += [KeepTogether(first), *(_step(s, steps, names, asked, say) for s in rows[1:])]
        if not shown:
            story.append(Paragraph("Nothing is open.", CELL))
    story += [Spacer(1, 4 * mm), Paragraph(STANDING_TEXT, SMALL)]
    document.build(story, onFirstPage=_foot, onLaterPages=_foot)
    return stream.getvalue()


def _step(
    step: Step, steps: Sequence[Step], names: Mapping[str, str], gauges: Sequence[Gauge], say: Callable[[str], str]
) -> Flowable:
    """One step: a box, what to do, what it takes, what to heed, and who did it."""
    spec = step.spec
    side = f", {step.side}" if step.side else ""
    rows = [
        Paragraph(f"<b>{say(spec.title)}{side}</b>{_work(step, names, say)}", CELL),
        Paragraph(say(spec.detail), CELL),
    ]
    takes = f"{spec.minutes} minutes, {spec.people} {'person' if spec.people == 1 else 'people'}"
    if spec.tools:
        takes += f". Tools: {say(', '.join(spec.tools))}"
    rows.append(Paragraph(f"{takes}.", SMALL))
    own = [g for g in gauges if asks_for(step, g, steps)]
    for gauge in own:
        size = f"not known: {gauge.missing}" if gauge.missing else gauge.size
        rows.append(Paragraph(f"Gauge: {say(gauge.name)}, {say(size)}. {say(gauge.says)}", SMALL))
    if spec.hides:
        rows.append(Paragraph(f"Afterwards out of reach: <b>{say(spec.hides)}</b>.", SMALL))
    if spec.undo:
        rows.append(Paragraph(f"Undone by: {say(spec.undo)}.", SMALL))
    rows += [Paragraph(f"<b>!</b> {say(caution)}", SMALL) for caution in spec.cautions]
    if spec.hold:
        rows.append(Paragraph(f"<b>Hold point:</b> {say(spec.hold.ask)} {BLANK}", CELL))
    if step.status in DONE:
        how = "signed" if step.status == "done" else f"passed: {say(step.reason)}"
        rows.append(Paragraph(f"{how}, {escape(step.signed_by)}, {step.signed_at[:16].replace('T', ' ')}", SMALL))
    table = Table([[tick_box(BOX_MM, done=step.status in DONE), rows]], colWidths=(9 * mm, None))
    table.setStyle(
        TableStyle([("VALIGN", (0, 0), (-1, -1), "TOP"), ("LINEBELOW", (0, 0), (-1, -1), 0.3, colors.lightgrey)])
    )
    return table


BLANK = "_" * 18


def _work(step: Step, names: Mapping[str, str], say: Callable[[str], str]) -> str:
    name = names.get(step.operation or "", "")
    return f" <font color='#555555'>({say(name)})</font>" if name and name not in step.spec.title else ""


def _holds(steps: Sequence[Step], names: Mapping[str, str], say: Callable[[str], str]) -> list[Flowable]:
    """Every hold point in order with room for a reading, a name and a date."""
    heads = [Paragraph(f"<b>{head}</b>", CELL) for head in ("", "step", "what must hold", "reading", "by", "on")]
    rows: list[list[object]] = [list(heads)]
    for step in steps:
        if step.spec.hold is None:
            continue
        side = f", {step.side}" if step.side else ""
        done = step.status in DONE
        rows.append(
            [
                tick_box(BOX_MM, done=done),
                Paragraph(f"{say(step.spec.title)}{side}{_work(step, names, say)}", CELL),
                Paragraph(say(step.spec.hold.ask), CELL),
                "",
                Paragraph(escape(step.signed_by) if done else "", SMALL),
                Paragraph(step.signed_at[:10] if done else "", SMALL),
            ]
        )
    table = Table(rows, colWidths=(9 * mm, 58 * mm, 52 * mm, 26 * mm, 22 * mm, 20 * mm), repeatRows=1)
    table.setStyle(TableStyle([("GRID", (0, 0), (-1, -1), 0.3, colors.grey), ("VALIGN", (0, 0), (-1, -1), "MIDDLE")]))
    return [table]


def _cautions(left: Sequence[Step], say: Callable[[str], str]) -> list[Flowable]:
    """Each caution once, with the steps that are still to come under it."""
    under: dict[str, list[str]] = {}
    for step in left:
        for caution in step.spec.cautions:
            titles = under.setdefault(caution, [])
            if step.spec.title not in titles:
                titles.append(step.spec.title)
    out: list[Flowable] = []
    for caution, titles in under.items():
        out.append(
            KeepTogether(
                [
                    Paragraph(f"<b>{say(caution)}</b>", CELL),
                    Paragraph(say("; ".join(titles)), SMALL),
                    Spacer(1, 2.5 * mm),
                ]
            )
        )
    return out or [Paragraph("Nothing is left to do.", CELL)]


def _foot(canvas: Canvas, _: SimpleDocTemplate) -> None:
    canvas.setFont("Helvetica", 7)
    words = "build plan · rated stands on flat concrete, never only a jack"
    canvas.drawString(14 * mm, 8 * mm, f"{words} · page {canvas.getPageNumber()}")
