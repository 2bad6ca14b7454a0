"""Checks and readings as CSV, for a sheet of one's own: values in the job's unit system, one row each."""

import csv
import io
from collections.abc import Iterable, Sequence

from nodulant.assembly.sheet import AssemblySheet
from nodulant.checks.words import limit_in_words, place_in_words, says
from nodulant.evaluate.evaluation import Evaluation
from nodulant.gauges.gauge import GAUGE_NAMES, Gauge
from nodulant.units.figure import show_off, show_reading
from nodulant.units.inline import as_amount, told
from nodulant.units.show import Style, show_length, show_thickness

FORMULA, SIGN = ("=", "@"), ("+", "-")
"""A cell that begins so is a formula to a spreadsheet, a sign before a digit apart; a name may not become one."""


def checks_csv(result: Evaluation, style: Style) -> bytes:
    """Every check, worst first: stage, verdict, title, what it says, its limit, where, basis."""
    rows = (
        (c.stage, c.verdict, c.title, says(c, style), limit_in_words(c, style), place_in_words(c, style), c.basis)
        for c in result.checks
    )
    return table_csv(("stage", "verdict", "check", "says", "limit", "where", "basis"), rows)


def readings_csv(result: Evaluation, style: Style) -> bytes:
    """Every as-built reading that the design asks for: planned, measured, how far off, what was decided."""
    rows = []
    for r in result.readings:
        measured = off = ""
        if r.value is not None:
            unit = r.spec.unit
            measured, off = show_reading(r.value, unit, style), show_off(r.value - r.spec.planned, unit, style)
        planned = show_reading(r.spec.planned, r.spec.unit, style)
        rows.append((r.operation, r.spec.name, r.side, planned, measured, off, r.decision or "", r.spec.datum))
    return table_csv(("work", "reading", "side", "planned", "measured", "off", "decided", "from"), rows)


def gauges_csv(gauges: Iterable[Gauge], style: Style) -> bytes:
    """Every gauge: when it is needed, what it is, how many, cut from what to what size, and what it proves."""
    rows = (
        [
            told(c, style)
            for c in (g.phase, GAUGE_NAMES[g.kind], g.name, g.side, str(g.count), g.made_of, g.size, g.missing, g.says)
        ]
        for g in gauges
    )
    return table_csv(("step", "kind", "gauge", "side", "count", "made of", "size", "not known", "what for"), rows)


def welds_csv(sheets: Iterable[AssemblySheet], style: Style) -> bytes:
    """The weld map: every seam with its leg and length, and its beads where it is not welded all along."""
    rows = (
        (
            told(sheet.name, style),
            f"W{w.number}",
            told(w.joins[0], style),
            told(w.joins[1], style),
            w.side,
            w.kind,
            show_thickness(w.leg_mm, style),
            show_length(w.bead_mm, style),
            show_length(w.total_mm, style),
            "" if w.stitch_mm is None else show_length(w.stitch_mm, style),
            "" if w.pitch_mm is None else show_length(w.pitch_mm, style),
            "ground flush" if w.ground else "",
        )
        for sheet in sheets
        for w in sheet.welds
    )
    head = (
        "work",
        "weld",
        "to",
        "part",
        "side",
        "kind",
        "leg or thickness",
        "bead, a side",
        "bead, all",
        "each bead",
        "pitch",
        "finish",
    )
    return table_csv(head, rows)


def parts_csv(sheets: Iterable[AssemblySheet], style: Style) -> bytes:
    """The parts list with masses; its last row is their sum."""
    made = tuple(sheets)
    rows = [
        (
            told(s.name, style),
            str(p.number),
            told(p.name, style),
            p.side,
            str(p.count),
            show_thickness(p.thickness_mm, style),
            p.steel,
            told(as_amount("mass", p.mass_kg), style),
        )
        for s in made
        for p in s.parts
    ]
    total = told(as_amount("mass", sum(s.mass_kg for s in made)), style)
    return table_csv(
        ("work", "no.", "part", "side", "pieces", "thick", "steel", "mass of all"),
        [*rows, ("in all", *[""] * 6, total)],
    )


def table_csv(head: Sequence[str], rows: Iterable[Sequence[str]]) -> bytes:
    """A head and rows as a spreadsheet opens them without running anything."""
    stream = io.StringIO()
    writer = csv.writer(stream, lineterminator="\r\n")
    writer.writerow(head)
    writer.writerows([plain(cell) for cell in row] for row in rows)
    return ("\ufeff" + stream.getvalue()).encode()


def plain(cell: str) -> str:
    """A cell that no spreadsheet takes for a formula."""
    risky = cell.startswith(FORMULA) or (cell.startswith(SIGN) and not cell[1:2].isdigit())
    return f"'{cell}" if risky else cell
