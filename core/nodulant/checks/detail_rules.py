"""Checks of fatigue and slenderness along one rail, and of its steel."""

from nodulant.checks.check import Check, Governs, Subject, Why, judge, not_computed
from nodulant.checks.rail_rules import Changes
from nodulant.frame.layout import Layout
from nodulant.materials import Steel
from nodulant.materials.carbon import preheat_c
from nodulant.parts.sides import Side
from nodulant.strength.fatigue import STOCK_CLASS, detail_life
from nodulant.strength.rail import RailComparison
from nodulant.strength.slender import most_slender


def fatigue_checks(rail: RailComparison, changes: Changes) -> list[Check]:
    """The worst detail of each kind of each operation; below stock's life a check is at best close."""
    worst: dict[str, Check] = {}
    for work in rail.work:
        for detail in work.details:
            subject = Subject(subject=f"{work.op.id}-{detail.about}", side=rail.side)
            life = detail_life(rail, detail)
            if life is None:
                check = not_computed("fatigue", subject, ("/survey/masses",), changes, detail.words)
            else:
                values = {
                    "category": life.category,
                    "stock_category": STOCK_CLASS,
                    "range_stock": life.range_stock,
                    "range": life.range_state,
                }
                check = judge(
                    "fatigue",
                    subject,
                    life.life,
                    Why(
                        formula="(category / stock_category * range_stock / range) ** 3",
                        values=values,
                        words="MPa at 1 g; stock counts as a machine-cut edge under its own stress there or half its peak",
                    ),
                    changes,
                    governs=Governs(station_mm=life.station_mm),
                    detail=detail.words,
                )
                if check.verdict == "fails":
                    remedy = "The weld lowers the class more than the metal lowers the stress: a better weld, less stress here, or the end moved to where stress is low."
                    check = check.model_copy(update={"verdict": "close", "remedy": remedy})
            old = worst.get(check.id)
            if old is None or (check.margin or 0.0) < (old.margin or 0.0):
                worst[check.id] = check
    return list(worst.values())


def slender_check(layout: Layout, side: Side, changes: Changes) -> Check:
    """The most slender wall of the planned rail."""
    worst = most_slender(layout)
    return judge(
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
