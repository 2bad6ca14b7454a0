"""Checks along the rail: capacities and use against stock."""

from dataclasses import replace

import numpy as np

from nodulant.base.arrays import Columns
from nodulant.checks.check import Check, Governs, State, Subject, Why, judge, not_computed
from nodulant.loads.cases import CASES, Case
from nodulant.parts.limit import LimitChange
from nodulant.parts.sides import Side
from nodulant.strength.compare import HALF_OF_PEAK, use_along_ratio
from nodulant.strength.rail import Loading, RailComparison, changed

CAPACITIES = ("modulus-top", "modulus-bottom", "shear-area", "torsion-constant", "torsion-capacity")
USES = ("use-along", "use-peak", "use-limit")
WORSE = 1e-6
Changes = dict[str, LimitChange]


def missing_rail_checks(
    side: Side, missing: tuple[str, ...], changes: Changes, state: State = "planned", reason: str = ""
) -> list[Check]:
    """All rail checks of one state as 'not computed', with the reason where it is more than a missing input."""
    subject = Subject(subject="rail", side=side, state=state, stage="prove" if state == "as-built" else "cut")
    uses = [
        not_computed(rule, _case_subject(subject, case), missing, changes, case.name)
        for case in CASES
        for rule in _uses(case)
    ]
    checks = [not_computed(rule, subject, missing, changes) for rule in CAPACITIES] + uses
    return [check.model_copy(update={"remedy": reason}) for check in checks]


def rail_checks(rail: RailComparison, missing_loads: tuple[str, ...], changes: Changes) -> list[Check]:
    """Capacity and use checks of one rail in one state."""
    subject = Subject(
        subject="rail", side=rail.side, state=rail.state.name, stage="prove" if rail.state.name == "as-built" else "cut"
    )
    checks = [_capacity(rail, rule, subject, changes) for rule in CAPACITIES]
    for case in CASES:
        own = _case_subject(subject, case)
        if rail.loading is None:
            checks += [not_computed(rule, own, missing_loads, changes, case.name) for rule in _uses(case)]
        else:
            checks += _use_checks(rail, rail.loading, case, own, changes)
    return checks


def _case_subject(subject: Subject, case: Case) -> Subject:
    return replace(subject, subject=f"{subject.subject}-{case.id}")


def _uses(case: Case) -> tuple[str, ...]:
    return USES if case.factor >= 3 else USES[:2]


def _columns(rail: RailComparison, rule: str) -> tuple[Columns, Columns, Columns, str]:
    stock, built = rail.stock, rail.built
    table = {
        "modulus-top": (
            rail.ratios.modulus_top,
            built.properties.reference_top,
            stock.properties.reference_top,
            "N mm at yield",
        ),
        "modulus-bottom": (
            rail.ratios.modulus_bottom,
            built.properties.reference_bottom,
            stock.properties.reference_bottom,
            "N mm at yield",
        ),
        "shear-area": (rail.ratios.shear_area, built.shear_capacity, stock.shear_capacity, "N at shear yield"),
        "torsion-constant": (rail.ratios.torsion_constant, built.torsion.j, stock.torsion.j, "mm4"),
        "torsion-capacity": (
            rail.ratios.torsion_capacity,
            built.torsion.capacity,
            stock.torsion.capacity,
            "N mm at shear yield",
        ),
    }
    return table[rule]


def _capacity(rail: RailComparison, rule: str, subject: Subject, changes: Changes) -> Check:
    ratio, built, stock, unit = _columns(rail, rule)
    at = _worst(-ratio, changed(rail, ratio, ratio < 1 - WORSE))
    words = f"{rail.state.name} over stock, in {unit}, yields of each metal in both"
    why = Why(formula="state / stock", values={"state": float(built[at]), "stock": float(stock[at])}, words=words)
    governs = Governs(station_mm=float(rail.x[at]))
    return judge(
        rule,
        subject,
        float(ratio[at]),
        why,
        changes,
        governs=governs,
        same_as_stock=abs(float(ratio[at]) - 1) < WORSE,
        remedy=REMEDIES[rule],
    )


REMEDIES = {
    "modulus-top": "Add depth: a cap box, or a higher one. Side plates help little in bending.",
    "modulus-bottom": "A thicker or straight liner, held by webs on both sides, or a higher cap.",
    "shear-area": "A side plate on the web, or a thicker boxing plate.",
    "torsion-constant": "Close the cell: liner and boxing plate, developed before the cut begins.",
    "torsion-capacity": "Thicker walls around the closed cell.",
}


def _worst(badness: Columns, among: np.ndarray[tuple[int], np.dtype[np.bool_]]) -> int:
    return int(np.argmax(np.where(among, badness, -np.inf)))


def _use_checks(rail: RailComparison, loading: Loading, case: Case, subject: Subject, changes: Changes) -> list[Check]:
    stock, state = loading.use_stock.reference, loading.use_state.reference
    ratio = use_along_ratio(stock, state)
    moved = np.abs(loading.state.moment - loading.stock.moment) > 1.0
    at = _worst(ratio, changed(rail, ratio, moved | (ratio > 1 + WORSE)))
    allowed = max(float(stock[at]), HALF_OF_PEAK * float(stock.max()))
    checks = [
        judge(
            "use-along",
            subject,
            float(ratio[at]),
            Why(
                formula="use / allowed",
                values={"use": float(state[at]) * case.factor, "allowed": allowed * case.factor},
                words="allowed: the stock use here, or half the stock peak",
            ),
            changes,
            governs=Governs(case=case.id, station_mm=float(rail.x[at])),
            detail=case.name,
            same_as_stock=abs(float(ratio[at]) - 1) < WORSE,
            remedy="Bring the section up here, or move the seat so that less moment arrives.",
        ),
        _peak(rail, loading, case, subject, changes),
    ]
    if "use-limit" in _uses(case):
        checks.append(_limit(rail, loading, case, subject, changes))
    return checks


def _peak(rail: RailComparison, loading: Loading, case: Case, subject: Subject, changes: Changes) -> Check:
    stock, state = loading.use_stock.reference, loading.use_state.reference
    at = int(np.argmax(state))
    ratio = float(state[at]) / max(float(stock.max()), 1e-12)
    why = Why(
        formula="peak / stock_peak",
        values={"peak": float(state[at]) * case.factor, "stock_peak": float(stock.max()) * case.factor},
        words="largest use anywhere on the rail",
    )
    same = abs(ratio - 1) < WORSE
    governs = Governs(case=case.id, station_mm=float(rail.x[at]))
    return judge(
        "use-peak",
        subject,
        ratio,
        why,
        changes,
        governs=governs,
        detail=case.name,
        same_as_stock=same,
        remedy="The worst place of the planned frame is worse than the worst of stock: strengthen it.",
    )


def _limit(rail: RailComparison, loading: Loading, case: Case, subject: Subject, changes: Changes) -> Check:
    working = loading.use_state.working
    at = int(np.argmax(working))
    p = rail.built.properties
    strength = min(float(p.working_top[at]), float(p.working_bottom[at]))
    moment = abs(float(loading.state.moment[at]))
    why = Why(
        formula="1.5 * factor * moment / yield_moment",
        values={"factor": case.factor, "moment": moment, "yield_moment": strength},
        words="moment at 1 g in one rail, N mm; yield moment of the weaker fibre",
    )
    governs = Governs(case=case.id, station_mm=float(rail.x[at]))
    return judge(
        "use-limit",
        subject,
        float(working[at]) * case.factor,
        why,
        changes,
        governs=governs,
        detail=case.name,
        remedy="Less load, a stronger section, or a licensed engineer's word.",
    )
