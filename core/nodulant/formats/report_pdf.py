"""The report of an option: drawings, checks with basis, readings, caution text and the revision's hash."""

import io
from xml.sax.saxutils import escape

from reportlab.lib import colors
from reportlab.lib.pagesizes import A4
from reportlab.lib.styles import ParagraphStyle, getSampleStyleSheet
from reportlab.lib.units import mm
from reportlab.pdfgen.canvas import Canvas
from reportlab.platypus import Flowable, Paragraph, SimpleDocTemplate, Spacer, Table, TableStyle

from nodulant.asbuilt.log import DecisionEntry, OverrideEntry, standing
from nodulant.base.errors import NodulantError
from nodulant.checks.groups import counts
from nodulant.checks.words import limit_in_words, place_in_words, rows_of, says
from nodulant.evaluate import Evaluation, Want, evaluate
from nodulant.evaluate.clearances.kept_sweep import SweepOnFile
from nodulant.evaluate.evaluation import SectionAt
from nodulant.formats.handcheck_text import heading, outcome, section_words, sensitive_words, system
from nodulant.formats.report_drawings import elevation, elevation_scale, scale_in_words, section
from nodulant.frame.ops.notches.notch import Notch
from nodulant.frame.place import resolve
from nodulant.handcheck import hand_check
from nodulant.handcheck.places import Line
from nodulant.job.document import Inputs
from nodulant.parts.cautions import STANDING_TEXT
from nodulant.units.figure import show_deviation, show_figure
from nodulant.units.inline import told_in
from nodulant.units.said import Amount, show_amount, tell
from nodulant.units.show import Style

_STYLES = getSampleStyleSheet()
CELL = ParagraphStyle("cell", parent=_STYLES["Normal"], fontSize=7.2, leading=8.6)
WIDTH = A4[0] - 30 * mm
ABOUT_MM = 450.0
"""So much of the rail before and behind the cut is drawn."""


def report_pdf(job_name: str, revision: str, inputs: Inputs, swept: SweepOnFile | None = None) -> bytes:
    """The report as PDF, with the sweep that is kept; raises InvalidInputs where the design cannot be evaluated."""
    at = _notch_station(inputs)
    want = Want(section=SectionAt(side="left", x_mm=at)) if at is not None else Want()
    style = inputs.shop.style
    result = told_in(evaluate(inputs, want), style)
    story: list[Flowable] = [
        Paragraph(escape(f"{job_name}: {inputs.survey.vehicle}"), _STYLES["Title"]),
        Paragraph(escape(f"{revision} · design and survey hash {result.content_hash}"), CELL),
        Spacer(1, 4 * mm),
        Paragraph(f"<b>Caution.</b> {STANDING_TEXT}", _STYLES["Normal"]),
    ]
    story += (
        _summary(result, inputs)
        + _drawings(result, at, inputs.design.targets.bump_mm, style)
        + _checks(result, style)
        + _swept(None if swept is None else told_in(swept, style), style)
        + _figures(result, style)
        + _hand_check(inputs)
        + _readings(result, style)
        + _reasons(inputs)
    )
    stream = io.BytesIO()
    document = SimpleDocTemplate(
        stream,
        pagesize=A4,
        leftMargin=15 * mm,
        rightMargin=15 * mm,
        topMargin=15 * mm,
        bottomMargin=18 * mm,
        title=f"{job_name}, report",
        invariant=1,
    )

    def foot(canvas: Canvas, _: SimpleDocTemplate) -> None:
        canvas.setFont("Helvetica", 6.5)
        canvas.drawString(
            15 * mm,
            9 * mm,
            f"{revision} · hash {result.content_hash[:16]} · page {canvas.getPageNumber()} · planning figures, not an approval",
        )

    document.build(story, onFirstPage=foot, onLaterPages=foot)
    return stream.getvalue()


def _notch_station(inputs: Inputs) -> float | None:
    notches = [op for op in inputs.design.operations if isinstance(op, Notch)]
    return resolve(notches[0].place, inputs.survey.features) if notches else None


def _heading(text: str) -> list[Flowable]:
    return [Spacer(1, 4 * mm), Paragraph(text, _STYLES["Heading2"])]


def _summary(result: Evaluation, inputs: Inputs) -> list[Flowable]:
    words = ", ".join(f"{n} {verdict}" for verdict, n in counts(result.groups).items())
    lock = (
        "Teardown is locked: readings are missing."
        if result.teardown_locked
        else "Teardown readings are complete or overridden."
    )
    return [
        *_heading("Summary"),
        Paragraph(
            f"{len(result.groups)} groups of checks: {words}. {lock} Rule: {_rule(inputs)}. Metal added: {_figure(result.mass_added_kg, 'kg', inputs.shop.style)}.",
            _STYLES["Normal"],
        ),
    ]


def _rule(inputs: Inputs) -> str:
    rule = inputs.design.rule
    return rule.kind if rule.reason is None else f"{rule.kind} ({rule.reason})"


def _drawings(result: Evaluation, at: float | None, bump: float, style: Style) -> list[Flowable]:
    if at is None:
        return []
    out: list[Flowable] = [
        *_heading("Drawings, left side"),
        elevation(result, "left", WIDTH, at, ABOUT_MM, bump, style),
    ]
    scale = scale_in_words(elevation_scale(WIDTH, ABOUT_MM))
    told = f"Side elevation, {scale}; stations behind the front axle line; tube at ride height and dashed in bump."
    out.append(Paragraph(told, CELL))
    if result.section:
        out += [
            Spacer(1, 3 * mm),
            section(result.section, WIDTH),
            Paragraph(
                f"Section A-A at station {_length(at, style)}, from the web towards the open side: {escape(', '.join(result.section.walls))}.",
                CELL,
            ),
        ]
        rows = [
            ["", "stock", "planned"],
            *[
                [f.name, _figure(f.stock, f.unit, style), _figure(f.planned, f.unit, style)]
                for f in result.section.figures
            ],
        ]
        out.append(_table(rows, (40 * mm, 35 * mm, 35 * mm)))
    return out


def _hand_check(inputs: Inputs) -> list[Flowable]:
    """The engineer's sheet; nothing where no section is known."""
    style = inputs.shop.style
    try:
        sheet = told_in(hand_check(inputs), inputs.shop.style)
    except NodulantError:
        return []
    out = _heading(f"Hand-check sheet, {system(style)}")
    for place in sheet.places:
        words = f"<b>{escape(heading(place, style))}</b><br/>{escape(section_words(place, style))}<br/>{escape(place.basis)}"
        rows = [["step", "planned", "stock"]]
        before = {line.name: line for line in place.stock.lines} if place.stock else {}
        rows += [
            [x.name, _step(x, style), _step(before[x.name], style) if x.name in before else ""]
            for x in place.planned.lines
        ]
        out += [Paragraph(words, CELL), _table(rows, (32 * mm, 76 * mm, 72 * mm)), Spacer(1, 3 * mm)]
    out += _heading("Assumptions")
    said = [["about", "value", "from"], *[[a.about, tell(a.says, style), a.source] for a in sheet.assumptions]]
    out.append(_table(said, (50 * mm, 100 * mm, 30 * mm)))
    if sheet.sensitive:
        out += _heading("What the worst place hangs on")
        rows = [["input", "factor over its limit: a tenth less, as it is, a tenth more"]]
        out.append(_table(rows + [[s.name, sensitive_words(s)] for s in sheet.sensitive], (70 * mm, 110 * mm)))
    return out


def _step(line: Line, style: Style) -> str:
    return _plain(outcome(line, style))


def _figure(value: float, unit: str, style: Style) -> str:
    return _plain(show_figure(value, unit, style))


def _plain(text: str) -> str:
    """In letters that the report's built-in fonts have."""
    return text.translate(str.maketrans("²³⁴⁶", "2346"))


def _checks(result: Evaluation, style: Style) -> list[Flowable]:
    """Groups with their checks, worst first; rows that agree left and right are one."""
    rows = [["verdict", "check", "says", "limit", "where", "basis"]]
    for group in result.groups:
        for c, title in rows_of(group, result.checks, style):
            where = place_in_words(c, style)
            rows.append([c.verdict, title, says(c, style), limit_in_words(c, style), where, c.basis])
    return [
        *_heading("Checks, worst first"),
        _table(rows, (17 * mm, 45 * mm, 45 * mm, 22 * mm, 18 * mm, 33 * mm)),
    ]


def _figures(result: Evaluation, style: Style) -> list[Flowable]:
    rows = [["figure", "value", "basis"]]
    rows += [[f.name, _figure(f.value, f.unit, style), f.basis] for f in result.figures]
    return [*_heading("Figures"), _table(rows, (75 * mm, 30 * mm, 75 * mm))]


WORST = 10


def _swept(kept: SweepOnFile | None, style: Style) -> list[Flowable]:
    """The worst pairs of the kept sweep, and whether the design is still what was swept."""
    head = _heading("Clearance through travel, roll and lock")
    if kept is None:
        return [*head, Paragraph("Not swept: no sweep of a stored revision is kept.", CELL)]
    when = f"on revision {kept.revision} by {escape(kept.by)}, {kept.at[:16].replace('T', ' ')} UTC"
    told = f"Swept {when if kept.revision is not None else 'for this report'}: "
    told += f"{kept.swept.all_pairs} pairs in {kept.swept.positions} positions, the worst {WORST} here."
    if not kept.fresh:
        told += " <b>The design has changed since: sweep again.</b>"
    rows = [["moving", "other", "least", "wanted", "verdict", "at travel"]]
    for pair in kept.swept.pairs[:WORST]:
        gap = "far" if pair.gap_mm is None else _length(pair.gap_mm, style)
        rows.append(
            [
                f"{pair.axle} {pair.moving}",
                pair.other,
                gap,
                _length(pair.needed_mm, style),
                pair.verdict,
                "" if pair.travel_mm is None else _length(pair.travel_mm, style),
            ]
        )
    left = "; ".join(kept.swept.left_out) or "nothing"
    words = Paragraph(f"Not looked at: {escape(left)}.", CELL)
    widths = (46 * mm, 50 * mm, 20 * mm, 20 * mm, 22 * mm, 22 * mm)
    return [*head, Paragraph(told, CELL), _table(rows, widths), words]


def _length(mm_value: float, style: Style) -> str:
    return show_amount(Amount(value=mm_value, kind="length"), style)


def _readings(result: Evaluation, style: Style) -> list[Flowable]:
    rows = [["reading", "side", "planned", "measured", "off", "decided", "from"]]
    for r in result.readings:
        measured, off = "not taken", ""
        if r.value_mm is not None:
            measured, off = _length(r.value_mm, style), show_deviation(r.value_mm - r.spec.planned_mm, style)
        planned = _length(r.spec.planned_mm, style)
        rows.append([r.spec.name, r.side, planned, measured, off, r.decision or "", r.spec.datum])
    widths = (50 * mm, 12 * mm, 20 * mm, 20 * mm, 18 * mm, 18 * mm, 42 * mm)
    return [*_heading("As-built readings"), _table(rows, widths)]


def _reasons(inputs: Inputs) -> list[Flowable]:
    rows = [["what", "who", "when", "reason"]]
    for e in standing(inputs.as_built.entries):
        if isinstance(e, OverrideEntry | DecisionEntry):
            rows.append([e.subject, e.by, e.at, e.reason])
    for name, change in inputs.design.limits.items():
        rows.append([f"limit {name} changed to {change.value:g}", "", "", change.reason])
    return (
        [*_heading("Overrides, decisions and changed limits"), _table(rows, (60 * mm, 20 * mm, 40 * mm, 60 * mm))]
        if len(rows) > 1
        else []
    )


def _table(rows: list[list[str]], widths: tuple[float, ...]) -> Table:
    cells = [[Paragraph(escape(text), CELL) for text in row] for row in rows]
    table = Table(cells, colWidths=widths, repeatRows=1)
    table.setStyle(
        TableStyle(
            [
                ("GRID", (0, 0), (-1, -1), 0.25, colors.grey),
                ("BACKGROUND", (0, 0), (-1, 0), colors.whitesmoke),
                ("VALIGN", (0, 0), (-1, -1), "TOP"),
                ("TOPPADDING", (0, 0), (-1, -1), 1.5),
                ("BOTTOMPADDING", (0, 0), (-1, -1), 1.5),
            ]
        )
    )
    return table
