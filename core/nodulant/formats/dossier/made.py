"""What was done: welds and bolts, steps with signatures, photos, as built, inspections."""

import io
from collections import Counter

from reportlab.lib.units import mm
from reportlab.platypus import Flowable, Image

from nodulant.asbuilt.floor import PhotoEntry, ReworkEntry
from nodulant.asbuilt.log import standing
from nodulant.formats.dossier.contents import Contents
from nodulant.formats.dossier.parts import chapter, in_rows, length, part, said, small, table, text
from nodulant.units.figure import show_off, show_reading

MOST_PHOTOS = 12


def welds(of: Contents) -> list[Flowable]:
    """By work: how many joints, how many looked at; those that want a word by themselves; coats."""
    works: dict[str, Counter[str]] = {}
    for row in of.record.rows:
        works.setdefault(row.work, Counter())[row.state] += 1
    rows = [["work", "joints", "done", "made, not looked at", "to repair", "not written down"]]
    for work, states in works.items():
        counts = [str(states[s]) for s in ("done", "made", "to repair", "open")]
        rows.append([work, str(sum(states.values())), *counts])
    out: list[Flowable] = [chapter("Weld, bolt and paint record"), table(rows, (70, 18, 16, 34, 18, 24))]
    written = [
        [f"{r.work}: {r.name}{f', {r.side}' if r.side else ''}", r.asks, r.says] for r in of.record.rows if r.says
    ]
    if written:
        out += [part("Joint by joint"), table([["joint", "asked", "written"], *written], (60, 50, 70))]
    for p in of.record.paint:
        film = "" if p.film_um is None else f", film {p.film_um:g} um"
        coats = f"{p.coats} coats" if p.coats else "bare metal, cleaned"
        out.append(
            small(f"Paint, {p.zone}: {coats}{film}, looked at by {p.looked_by or 'nobody'} ({p.by}, {p.at[:10]}).")
        )
    return out


def steps(of: Contents) -> list[Flowable]:
    """Signed and passed steps with who and when; how many are open."""
    result = of.result
    rows = [["step", "side", "signed by", "on", "note or reason"]]
    for s in result.steps:
        if s.status in {"done", "overridden"}:
            passed = "passed: " if s.status == "overridden" else ""
            rows.append(
                [said(s.spec.title, of.style), s.side or "", s.signed_by, s.signed_at[:10], f"{passed}{s.reason}"]
            )
    left = sum(s.status not in {"done", "overridden"} for s in result.steps)
    out: list[Flowable] = [
        chapter("Steps and signatures"),
        text(f"{len(result.steps) - left} of {len(result.steps)} steps are signed."),
    ]
    if len(rows) > 1:
        out.append(table(rows, (84, 16, 24, 20, 36)))
    for e in standing(of.inputs.as_built.entries):
        if isinstance(e, ReworkEntry):
            out.append(small(f"Done again: {e.step}, {e.cause}, {e.minutes} minutes ({e.by}, {e.at[:10]}). {e.text}"))
    return out


def photos(of: Contents, wide: float) -> list[Flowable]:
    """The newest photos with their words; all of them go along in the archive."""
    taken = [e for e in standing(of.inputs.as_built.entries) if isinstance(e, PhotoEntry) and e.sha256 in of.photos]
    if not taken:
        return []
    cells: list[Flowable | list[Flowable]] = []
    for e in taken[-MOST_PHOTOS:]:
        image = Image(io.BytesIO(of.photos[e.sha256]))
        k = min((wide / 3 - 8) / image.imageWidth, 42 * mm / image.imageHeight)
        image.drawWidth, image.drawHeight = image.imageWidth * k, image.imageHeight * k
        cells.append([image, small(f"{e.text or e.step}; {e.by}, {(e.done_at or e.at)[:10]}")])
    return [chapter("Photos"), small(f"{len(taken)} kept with the job."), in_rows(cells, 3, wide)]


def as_built(of: Contents, *, brief: bool = False) -> list[Flowable]:
    """Readings against plan with what each can tell, the frame by tape, alignment, what would correct it."""
    result, style = of.result, of.style
    out: list[Flowable] = [chapter("As built")]
    taken = [r for r in result.readings if r.value is not None]
    missing = sum(r.value is None and not r.spec.extra for r in result.readings)
    answers = Counter(r.answer for r in taken)
    told = ", ".join(f"{n} {answer}" for answer, n in answers.items())
    out.append(text(f"{len(taken)} readings taken{f': {told}' if told else ''}; {missing} asked for and not taken."))
    rows = [["reading", "side", "planned", "measured", "off", "sure to", "answer", "decided"]]
    for r in taken:
        if r.value is None or (brief and r.answer == "holds"):
            continue
        unit = r.spec.unit
        sure = "" if r.expanded is None else f"± {show_off(r.expanded, unit, style).lstrip('+')}"
        cells = [
            f"{r.about}: {r.spec.name.removesuffix(f': {r.about}')}",
            r.side,
            show_reading(r.spec.planned, unit, style),
            show_reading(r.value, unit, style),
        ]
        rows.append([*cells, show_off(r.value - r.spec.planned, unit, style), sure, r.answer or "", r.decision or ""])
    if len(rows) > 1:
        out.append(table(rows, (64, 11, 20, 20, 18, 18, 17, 14)))
    return [*out, *_frame(of), *_axles(of, brief=brief)]


def _frame(of: Contents) -> list[Flowable]:
    style, taped = of.style, of.result.taped
    out: list[Flowable] = []
    if of.result.frame_times:
        rows = [["frame by tape and level", "lengths", "diagonals apart", "lozenge", "sway", "twist", "sag"]]
        for t in of.result.frame_times:
            square, sway, levels = t.square, t.sway, t.levels
            rows.append(
                [
                    t.name,
                    str(t.lengths),
                    "" if square is None else show_off(square.off_mm, "mm", style),
                    "" if square is None else f"{square.lozenge_deg:+.2f} deg",
                    "" if sway is None else show_off(sway.off_mm, "mm", style),
                    "" if levels is None else show_off(levels.twist_mm, "mm", style),
                    "" if levels is None else show_off(levels.sag_mm, "mm", style),
                ]
            )
        out += [part("The frame each time"), table(rows, (44, 16, 26, 24, 22, 24, 24))]
    if taped is not None and taped.left_out is not None:
        worst = next(row for row in taped.lengths if row.entry == taped.left_out)
        out.append(
            small(f"Left out as wrong: {worst.start_name} to {worst.end_name}, {length(worst.measured_mm, style)}.")
        )
    return out


def _axles(of: Contents, *, brief: bool) -> list[Flowable]:
    out: list[Flowable] = []
    for axle in of.built.axles:
        rows = [["as built", "off", "from"]]
        rows += [[o.name, o.words, "read" if o.measured else "joints and links"] for o in axle.outcomes]
        out += [part(f"Alignment: {axle.name}"), table(rows, (70, 70, 40))]
        words = axle.words or f"What corrects it: {axle.corrections[0].words}."
        out.append(small(words))
    out += [small(f"{row.about}: {row.words}.") for row in of.built.leaning if row.matters or not brief]
    out += [
        small(f"As the {w.side} was built: {w.title}, {w.planned_verdict} as planned, {w.built_verdict} as built.")
        for w in of.built.worse
        if w.built_verdict != w.planned_verdict
    ]
    return out


def inspections(of: Contents) -> list[Flowable]:
    """What is looked at again, when, and what was found."""
    out: list[Flowable] = [chapter("After the first drive")]
    out.append(small("; ".join(row.words for row in of.after.inspections[0].rows)))
    for own in of.after.inspections:
        distance = said(f"[[distance:{own.km}]]", of.style)
        seen = [row for row in own.rows if row.ok is not None]
        when = f", due {own.day}" if own.day else ""
        out.append(text(f"After {distance}{when}: {len(seen)} of {len(own.rows)} looked at."))
        if seen:
            rows = [["looked at", "found", "by"]]
            rows += [[r.words, r.found or ("well" if r.ok else "not well"), r.by] for r in seen]
            out.append(table(rows, (100, 60, 20)))
    return out
