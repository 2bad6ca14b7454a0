"""Cover, summary, survey, and the last page with places to sign."""

from reportlab.graphics.barcode.qr import QrCodeWidget
from reportlab.graphics.shapes import Drawing
from reportlab.lib.units import mm
from reportlab.platypus import Flowable, KeepTogether, Paragraph, Table

from nodulant.asbuilt.log import DecisionEntry, OverrideEntry, standing, stopped
from nodulant.checks.groups import counts
from nodulant.checks.words import rows_of, says
from nodulant.formats.dossier.contents import Contents
from nodulant.formats.dossier.drawn import whole_rail
from nodulant.formats.dossier.parts import TITLE, chapter, gap, length, part, plain, said, small, table, text, thickness
from nodulant.parts.cautions import STANDING_TEXT
from nodulant.parts.limits import limit_called
from nodulant.parts.reads import reads
from nodulant.parts.sides import LEFT_RIGHT
from nodulant.survey.vehicle import Axle
from nodulant.units.said import tell
from nodulant.units.show import Style

CODE_MM = 26.0
WORST = 8


def cover(of: Contents, wide: float, *, short: bool = False) -> list[Flowable]:
    """Whose it is, of what, from when, and which content it stands for."""
    inputs = of.inputs
    rows = [
        ["vehicle", inputs.survey.vehicle],
        ["option", of.option],
        ["shop", inputs.shop.name],
        ["made on", of.day],
        ["by", of.author],
        ["revision", of.revision],
        ["design, survey and log", f"hash {of.result.content_hash}"],
    ]
    told = table(rows, (38, 102), head=False)
    code: Flowable = _code(of.address) if of.address else gap(CODE_MM)
    out: list[Flowable] = [
        Paragraph(plain(of.job), TITLE),
        text("Inspection summary" if short else "Dossier of a frame and suspension conversion"),
        gap(3),
        Table([[told, code]], colWidths=[142 * mm, wide - 142 * mm], style=[("VALIGN", (0, 0), (-1, -1), "TOP")]),
        gap(3),
        whole_rail(of, "left", wide),
        small("Left rail as planned, front to the left; stations behind the front axle line."),
        gap(3),
        text(f"Caution. {STANDING_TEXT}"),
    ]
    return out


def _code(address: str) -> Drawing:
    code = QrCodeWidget(address)
    x0, y0, x1, y1 = code.getBounds()
    k = CODE_MM * mm / max(x1 - x0, y1 - y0)
    return Drawing(CODE_MM * mm, CODE_MM * mm, code, transform=(k, 0, 0, k, 0, 0))


def summary(of: Contents) -> list[Flowable]:
    """What was done, how it stands by verdict, changed limits, and what is open."""
    inputs, result = of.inputs, of.result
    words = ", ".join(f"{n} {verdict}" for verdict, n in counts(result.groups).items() if n)
    rule = inputs.design.rule
    rules = rule.kind if rule.reason is None else f"{rule.kind} ({rule.reason})"
    out: list[Flowable] = [chapter("Summary"), part("What is done")]
    done = [
        [op.name, op.adds.name.lower(), "both sides" if op.side == "both" else op.side]
        for op in inputs.design.operations
    ]
    done += [[s.name, f"{s.layout.kind} suspension", s.axle] for s in inputs.design.suspensions]
    out.append(table([["work", "kind", "where"], *done], (80, 60, 40)))
    out += [part("How it stands"), text(f"Groups of checks: {words}. Rule for the cut rails: {rules}.")]
    bad = [g for g in result.groups if g.verdict in {"fails", "not computed", "weaker"}][:WORST]
    rows = [
        [g.verdict, title, says(c, of.style)] for g in bad for c, title in list(rows_of(g, result.checks, of.style))[:1]
    ]
    if rows:
        out.append(table([["verdict", "check", "says"], *rows], (24, 66, 90)))
    out += _changed(of)
    out += [part("Open points"), *(text(f"- {point}") for point in open_points(of))]
    return out


def _changed(of: Contents) -> list[Flowable]:
    rows = []
    for name, change in of.inputs.design.limits.items():
        limit = limit_called(name)
        if limit is None:
            rows.append([name, "", f"{change.value:g}", f"{change.reason}; no check has this limit"])
            continue
        was, now = (tell(reads(limit, v), of.style) for v in (limit.value, change.value))
        rows.append([limit.name, was, now, change.reason])
    for e in standing(of.inputs.as_built.entries):
        if isinstance(e, OverrideEntry | DecisionEntry):
            rows.append(
                [e.subject, e.kind if isinstance(e, OverrideEntry) else e.choice, f"{e.by}, {e.at[:10]}", e.reason]
            )
    if not rows:
        return [part("Changed limits, overrides and decisions"), text("None.")]
    head = ["limit or subject", "was", "now, or by whom", "reason"]
    return [part("Changed limits, overrides and decisions"), table([head, *rows], (50, 30, 40, 60))]


def open_points(of: Contents) -> list[str]:
    """What is not settled: in words, most pressing first."""
    result, out = of.result, list[str]()
    stop = stopped(of.inputs.as_built.entries)
    if stop is not None:
        out.append(f"The job is stopped: {stop.reason} ({stop.by}).")
    if result.teardown_locked:
        out.append("Readings that teardown destroys are missing.")
    left = sum(s.status not in {"done", "overridden"} for s in result.steps)
    if left:
        out.append(f"{left} of {len(result.steps)} build steps are not signed.")
    unread = sum(r.value is None and not r.spec.extra for r in result.readings)
    if unread:
        out.append(f"{unread} as-built readings are not taken.")
    undecided = [r for r in result.readings if r.answer not in {None, "holds"} and r.decision is None]
    if undecided:
        out.append(f"{len(undecided)} readings are outside or cannot tell, and nobody decided.")
    out += [f"{words}." for words in of.record.open_points]
    for own in of.after.inspections:
        if any(row.ok is False for row in own.rows):
            out.append(f"Something was not well at the inspection after {own.km} km.")
    if of.swept is None:
        out.append("Clearances were not swept through travel, roll and lock.")
    elif not of.swept.fresh:
        out.append("The sweep is older than the design.")
    return out or ["None."]


def surveyed(of: Contents) -> list[Flowable]:
    """The stock survey: rails, axles, features, masses."""
    survey, style = of.inputs.survey, of.style
    out: list[Flowable] = [chapter("Survey")]
    axles = [["", "front", "rear"]]
    both = [_axle(a, style) for a in (survey.front, survey.rear)]
    axles += [[name, front, rear] for (name, front), (_, rear) in zip(*both, strict=True)]
    out.append(text(f"Wheelbase {length(survey.wheelbase_mm, style)}. {survey.notes or ''}"))
    out.append(table(axles, (60, 60, 60)))
    for side in LEFT_RIGHT:
        rail = survey.rails.of(side)
        rows = [["station", "underside", "height", "width", "wall"]]
        rows += [
            [
                length(s.x_mm, style),
                length(s.underside_z_mm, style),
                length(s.height_mm, style),
                length(s.width_mm, style),
                "not measured" if s.wall_mm is None else thickness(s.wall_mm, style),
            ]
            for s in rail.stations
        ]
        name = f"{side.capitalize()} rail: {rail.kind}, steel {rail.steel_id}, web {length(rail.web_y_mm, style)} from the middle"
        out += [part(name), table(rows, (36, 36, 36, 36, 36))]
        if side == "left" and rail == survey.rails.right:
            out.append(small("The right rail was measured alike."))
            break
    marks = "; ".join(f"{f.name} {length(f.x_mm, style)}" for f in survey.features)
    masses = "; ".join(
        f"{m.name} {said(f'[[mass:{m.mass_kg:.4f}]]', style)} at {length(m.x_mm, style)}" for m in survey.masses
    )
    out += [gap(1), small(f"Features, station: {marks}."), small(f"Masses on the frame: {masses or 'none'}.")]
    return out


def _axle(a: Axle, style: Style) -> list[tuple[str, str]]:
    return [
        ("tyre", a.tyre or "not known"),
        ("track", length(a.track_mm, style)),
        ("hub over the datum, left, right", f"{length(a.hub_z_left_mm, style)}, {length(a.hub_z_right_mm, style)}"),
        ("axle tube", length(a.tube_diameter_mm, style)),
    ]


def closing(of: Contents) -> list[Flowable]:
    """Cautions, the standing text, and places to sign."""
    cautions = dict.fromkeys(c for s in of.result.steps for c in s.spec.cautions)
    rows = [["", "name", "date", "signature"]]
    rows += [[who, "", "", ""] for who in ("built by", "looked at by", "inspector or licensed engineer")]
    sign = table(rows, (50, 50, 30, 50))
    sign._argH = [None, 11 * mm, 11 * mm, 11 * mm]
    return [
        chapter("Cautions"),
        *(small(f"- {said(c, of.style)}") for c in list(cautions)[:14]),
        gap(2),
        text(STANDING_TEXT),
        KeepTogether([part("Signatures"), sign]),
    ]
