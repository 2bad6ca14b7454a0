"""Strength of a rail's sections against stock, at places where stock metal was cut, drilled, ground, rusted or softened.

A section is weaker where bending or a closed cell's J falls below 0.98 of stock, web shear below 0.95;
where any of them or a closed cell's torsional strength falls below 0.40 the rail is gutted there. Where
nothing was taken out, the ratios are figures.
"""

from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np

from nodulant.base.arrays import Columns, Mask
from nodulant.checks.check import Changes, Check, Governs, Stage, State, Subject, Verdict, Why, not_computed, told
from nodulant.checks.where import place_words
from nodulant.frame.model import Placed
from nodulant.frame.softened import BESIDE_MM
from nodulant.materials import find_steel
from nodulant.parts.limits import find_limit
from nodulant.parts.sides import Side
from nodulant.strength.rail import RailComparison
from nodulant.survey.vehicle import Survey
from nodulant.units.said import said

CAPACITIES = ("modulus-top", "modulus-bottom", "shear-area", "torsion-constant")
GUTTED = "capacity-least"
CLOSE = 1.05
"""What is left up to this many times the least is close."""
NAMES = {
    "modulus-top": "bending, top fibre",
    "modulus-bottom": "bending, bottom fibre",
    "shear-area": "web shear",
    "torsion-constant": "torsion constant J",
    "torsion-capacity": "torsion",
}
UNITS = {
    "modulus-top": "moment at yield",
    "modulus-bottom": "moment at yield",
    "shear-area": "shear at yield",
    "torsion-constant": "J",
    "torsion-capacity": "torque at yield",
}
REMEDIES = {
    "modulus-top": "Add depth: a cap box, or a higher one. Side plates help little in bending.",
    "modulus-bottom": "A thicker or straight liner, held by webs on both sides, or a higher cap.",
    "shear-area": "A side plate on the web, or a thicker boxing plate.",
    "torsion-constant": "Close the cell: liner and boxing plate, developed before the cut begins.",
    "torsion-capacity": "Thicker walls around the closed cell.",
}


@dataclass(frozen=True)
class Weakened:
    """A place where stock metal was taken or lost its strength: a name, and its stations."""

    key: str
    rows: Mask


def weakened(rail: RailComparison, survey: Survey) -> Iterator[Weakened]:
    """Every such place on one rail, one an operation; rust by itself."""
    own, layout = survey.rails.of(rail.side), rail.built.whole
    steel = find_steel(own.steel_id)
    softens = steel.near_weld_mpa < steel.yield_reference_mpa
    taken = rail.built.cut > 1e-9
    for hole in set(layout.holes) - set(rail.stock.whole.holes):
        taken = taken | (hole.half(rail.x) > 0)
    for p in rail.placed:
        rows = _within(rail.x, p, 0.5)
        if not (p.cuts or p.op.drills):
            rows = rows & _replaced(p, rail.x, rows)
        elif rows.any():
            rows = rows & (taken | _replaced(p, rail.x, rows & ~taken))
        if softens and p.op.welded:
            rows = rows | _within(rail.x, p, BESIDE_MM)
        if rows.any():
            yield Weakened(p.op.id, rows)
    lost = layout.rail.lost
    if rail.state.name != "stock" and lost is not None and (lost > 1e-9).any():
        yield Weakened("rust", np.asarray(lost > 1e-9) & ~taken)


def weakened_rows(rail: RailComparison, survey: Survey, x: Columns) -> Mask:
    """Which of some of the rail's stations are such places."""
    rows: Mask = np.zeros(len(rail.x), dtype=bool)
    for place in weakened(rail, survey):
        rows |= place.rows
    for p in rail.placed:
        for cut in p.cuts:
            rows |= (rail.x >= cut.start_mm - BESIDE_MM) & (rail.x <= cut.end_mm + BESIDE_MM)
    found: Mask = rows[np.minimum(np.searchsorted(rail.x, x), len(rail.x) - 1)]
    return found


def _within(x: Columns, p: Placed, more_mm: float) -> Mask:
    inside: Mask = (x >= p.start_mm - more_mm) & (x <= p.end_mm + more_mm)
    return inside


def _replaced(p: Placed, x: Columns, there: Mask) -> Mask:
    """Stations whose own metal an operation takes out and replaces, of those that lie ``there``."""
    out: Mask = np.zeros(len(x), dtype=bool)
    out[there] = [p.op.replaces(p.span, float(at)) for at in x[there]]
    return out


def missing_capacity_checks(
    side: Side, missing: tuple[str, ...], changes: Changes, state: State = "planned", reason: str = ""
) -> list[Check]:
    """The rail's strength as 'not computed', with the reason where it is more than a missing input."""
    subject = Subject(subject="rail", side=side, state=state, stage="prove" if state == "as-built" else "cut")
    check = not_computed(GUTTED, subject, missing, changes)
    return [check.model_copy(update={"remedy": reason})]


def capacity_checks(rail: RailComparison, survey: Survey, changes: Changes) -> list[Check]:
    """The strengths at every weakened place of one rail in one state."""
    stage: Stage = "prove" if rail.state.name == "as-built" else "cut"
    out: list[Check] = []
    for place in weakened(rail, survey):
        subject = Subject(
            subject=place.key, side=rail.side, state=rail.state.name, stage=stage, cause=f"strength {place.key}"
        )
        rows = {rule: _worst(rail, rule, place.rows) for rule in (*CAPACITIES, "torsion-capacity")}
        there = {rule: row for rule, row in rows.items() if row is not None}
        for rule in CAPACITIES:
            if rule in there:
                out.append(_against(rail, survey, rule, there[rule], subject, changes))
        out.append(_least(rail, survey, there, subject, changes))
    return out


def _columns(rail: RailComparison, rule: str) -> tuple[Columns, Columns, Columns]:
    """Ratio, this state's and stock's strength along the rail."""
    stock, built = rail.stock, rail.built
    table = {
        "modulus-top": (built.properties.reference_top, stock.properties.reference_top),
        "modulus-bottom": (built.properties.reference_bottom, stock.properties.reference_bottom),
        "shear-area": (built.shear_capacity, stock.shear_capacity),
        "torsion-constant": (built.torsion.j, stock.torsion.j),
        "torsion-capacity": (built.torsion.capacity, stock.torsion.capacity),
    }
    own, before = table[rule]
    return np.asarray(own / np.maximum(before, 1e-9)), own, before


def _worst(rail: RailComparison, rule: str, rows: Mask) -> int | None:
    """The weakest station of a place; None where stock has no such strength to be equalled."""
    if rule.startswith("torsion"):
        rows = rows & rail.stock.torsion.closed
    if not rows.any():
        return None
    return int(np.argmin(np.where(rows, _columns(rail, rule)[0], np.inf)))


def _against(rail: RailComparison, survey: Survey, rule: str, at: int, subject: Subject, changes: Changes) -> Check:
    """One strength at its weakest station: weaker below its limit, never failed by itself."""
    limit, _ = find_limit(rule, changes)
    value = float(_columns(rail, rule)[0][at])
    verdict: Verdict = "holds" if value >= limit.value - 1e-9 else "weaker"
    remedy = REMEDIES[rule] if verdict == "weaker" else ""
    return _row(rail, survey, (rule, rule, at), verdict, subject, changes, (NAMES[rule], "here", remedy))


def _why(rail: RailComparison, rule: str, own: float, before: float) -> Why:
    words = f"{rail.state.name} over stock, {UNITS[rule]}, yields of each metal in both"
    return Why(formula="state / stock", values={"state": own, "stock": before}, words=words)


def _least(rail: RailComparison, survey: Survey, rows: dict[str, int], subject: Subject, changes: Changes) -> Check:
    """The least of all strengths: gutted below its limit."""
    limit, _ = find_limit(GUTTED, changes)
    values = {rule: float(_columns(rail, rule)[0][at]) for rule, at in rows.items()}
    rule = min(values, key=lambda r: values[r])
    left = values[rule] / limit.value
    verdict: Verdict = "fails" if left < 1 - 1e-9 else "close" if left < CLOSE else "holds"
    remedy = f"Too little is left in {NAMES[rule]}. {REMEDIES[rule]}" if verdict == "fails" else ""
    words = ("what is left of it", f"in {NAMES[rule]}", remedy)
    return _row(rail, survey, (GUTTED, rule, rows[rule]), verdict, subject, changes, words)


def _row(
    rail: RailComparison,
    survey: Survey,
    what: tuple[str, str, int],
    verdict: Verdict,
    subject: Subject,
    changes: Changes,
    words: tuple[str, str, str],
) -> Check:
    """A row of a limit on a strength at a station; words are the title's end, where the ratio holds, and the remedy."""
    limit_id, rule, at = what
    name, where, remedy = words
    ratio, own, before = _columns(rail, rule)
    limit, change = find_limit(limit_id, changes)
    value, place = float(ratio[at]), float(rail.x[at])
    return told(
        limit,
        subject,
        value,
        _why(rail, rule, float(own[at]), float(before[at])),
        verdict,
        changed=change is not None,
        governs=Governs(station_mm=place),
        title=f"{place_words(rail, survey, place)}, {name}",
        remedy=remedy,
        said=said("{ratio} of stock's strength " + where, ratio=(value, "ratio")),
    )
