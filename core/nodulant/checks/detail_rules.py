"""Checks of fatigue and slenderness along one rail, and of its steel."""

from nodulant.checks.check import CAUTION, Changes, Check, Governs, Subject, Verdict, Why, judge, not_computed, told
from nodulant.frame.layout import Layout
from nodulant.materials import Steel
from nodulant.materials.carbon import preheat_c
from nodulant.parts.limits import find_limit
from nodulant.parts.sides import Side
from nodulant.parts.specs import FatigueDetail
from nodulant.strength.fatigue import FOR_EVER, KNEE, Life, detail_life
from nodulant.strength.rail import RailComparison
from nodulant.strength.slender import slenders
from nodulant.units.inline import as_amount
from nodulant.units.said import said

FATIGUE_CLOSE = 1.25
"""A life up to this many times the wanted one is close."""
FATIGUE_REMEDY = "A better weld, less stress here, or the end moved to where stress is low."

SOLVED_ALIKE = 1e-3
"""How far two slendernesses of one wall may differ by round-off and interpolation."""


def fatigue_checks(rail: RailComparison, missing: tuple[str, ...], changes: Changes) -> list[Check]:
    """The worst detail of each kind of each operation, in cycles; ``missing`` is what its loads lack."""
    worst: dict[str, Check] = {}
    for work in rail.work:
        for detail in work.details:
            about = f"{work.op.id}-{detail.about}"
            subject = Subject(subject=about, side=rail.side, cause=f"fatigue {work.op.id}")
            life = detail_life(rail, detail)
            if life is None:
                check = not_computed("fatigue-life", subject, missing, changes, detail.words)
            else:
                check = _fatigue(life, detail, subject, work.op.name, changes)
            old = worst.get(check.id)
            if old is None or (check.beyond or 0.0) > (old.beyond or 0.0):
                worst[check.id] = check
    return list(worst.values())


def _fatigue(life: Life, detail: FatigueDetail, subject: Subject, name: str, changes: Changes) -> Check:
    limit, change = find_limit("fatigue-life", changes)
    values = {"category": life.category, "gamma": life.gamma, "range": life.range_mpa}
    knee = KNEE * life.category / (life.gamma * max(life.range_mpa, 1e-9))
    if life.cycles >= FOR_EVER:
        formula, values = "most", {"most": FOR_EVER}
    elif knee <= 1.0:
        formula = "2e6 * (category / (gamma * range)) ** 3"
    else:
        formula = "5e6 * (0.737 * category / (gamma * range)) ** 5"
    edge = f", stress concentration {life.concentration:.2f} counted" if life.concentration > 1 else ""
    words = f"class {life.category:g}; range of {as_amount('stress', life.range_mpa)} from half the static load up and down on the net section{edge}; twist is not included"
    verdict: Verdict = "fails" if life.cycles < limit.value else "holds"
    if verdict == "holds" and life.cycles < FATIGUE_CLOSE * limit.value:
        verdict = "close"
    return told(
        limit,
        subject,
        life.cycles,
        Why(formula=formula, values=values, words=words),
        verdict,
        changed=change is not None,
        governs=Governs(station_mm=life.station_mm),
        title=f"{name}: fatigue, {detail.words}",
        remedy=FATIGUE_REMEDY if verdict == "fails" else "",
        said=said("lasts {cycles}, wanted {wanted}", cycles=(life.cycles, "cycles"), wanted=(limit.value, "cycles")),
    )


def slender_check(layout: Layout, stock: Layout, side: Side, changes: Changes) -> Check:
    """The most slender wall or plate of the planned rail; a wall that stock has as slender is stock's own and hides no other."""
    walls, before = slenders(layout), slenders(stock)
    as_stock = {n for n, w in walls.items() if n in before and w.ratio <= before[n].ratio * (1 + SOLVED_ALIKE)}
    ours = [w for name, w in walls.items() if name not in as_stock and w.ratio > 1 - CAUTION]
    worst = max(ours or walls.values(), key=lambda w: w.ratio)
    check = judge(
        "slender",
        Subject(subject="rail", side=side),
        worst.ratio,
        Why(
            formula="slenderness / limit",
            values={"slenderness": worst.slenderness, "limit": worst.limit},
            words=f"the {worst.wall}, width over thickness, class 3",
        ),
        changes,
        governs=Governs(station_mm=worst.station_mm),
        remedy=f"A thicker {worst.wall}: it buckles before it yields.",
    )
    is_stock = check.verdict in {"fails", "close"} and worst.wall in as_stock
    return check.model_copy(update={"verdict": "stock itself", "remedy": ""}) if is_stock else check


def preheat_check(steel: Steel, carbon_equivalent: float | None, side: Side, changes: Changes) -> Check:
    """Carbon equivalent of the rail; unknown steel is 'not computed', never 'ok'."""
    subject = Subject(subject="rail", side=side)
    known = carbon_equivalent if carbon_equivalent is not None else steel.carbon_equivalent
    if known is None:
        check = not_computed("preheat", subject, (f"/survey/rails/{side}/steel_id",), changes)
        return check.model_copy(update={"remedy": steel.note or "The analysis of this steel is not known."})
    preheat = preheat_c(known)
    words = (
        "qualified procedure only"
        if preheat is None
        else "no preheat"
        if preheat == 0
        else f"preheat about {preheat:.0f} C"
    )
    return judge(
        "preheat",
        subject,
        known,
        Why(
            formula="equivalent",
            values={"equivalent": known},
            words=f"{steel.name}: {words}, common practice for thin walls; a weld procedure governs. {steel.note}",
        ),
        changes,
        remedy=f"{words.capitalize()}, low-hydrogen wire, slow cooling.",
    )
