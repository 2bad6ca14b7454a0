"""Checks of the frame in space: bending, torque and the whole stress along both rails in every case."""

import numpy as np

from nodulant.base.arrays import Columns
from nodulant.checks.check import Check, Governs, Subject, Why, judge, not_computed
from nodulant.checks.rail_rules import Changes
from nodulant.loads.cases import Case
from nodulant.materials.steel import SAFETY_ON_YIELD
from nodulant.parts.sides import LEFT_RIGHT, Side
from nodulant.strength.compare import HALF_OF_PEAK
from nodulant.strength.space import FrameComparison, RailCase

TWIST_RULES = ("twist-bending", "twist-torque")
OPEN = "open stretches carry torque by warping, which is not computed and not in this sum"


def missing_space_checks(
    cases: tuple[Case, ...], missing: tuple[str, ...], changes: Changes, reason: str = ""
) -> list[Check]:
    """All checks of ``cases`` as 'not computed'."""
    checks = [
        not_computed(rule, _subject(case, side), missing, changes, _detail(case))
        for case in cases
        for side in LEFT_RIGHT
        for rule in _rules(case)
    ]
    return [check.model_copy(update={"remedy": reason}) for check in checks]


def space_checks(frames: FrameComparison, changes: Changes) -> list[Check]:
    """Both rails in every case: against stock, and against yield."""
    checks: list[Check] = []
    for case in frames.asked:
        if frames.missing[case.id]:
            checks += missing_space_checks((case,), frames.missing[case.id], changes)
            continue
        for side in LEFT_RIGHT:
            before, after = frames.stock.cases[case.id][side], frames.planned.cases[case.id][side]
            if case.id == "twist":
                checks.append(_along("twist-bending", case, side, (before, after), ("bending", "bending"), changes))
                checks.append(_torque(case, side, after, changes))
            else:
                checks.append(_along("case-use", case, side, (before, after), ("use", "use"), changes))
                checks.append(_limit(case, side, after, changes))
    return checks


def _rules(case: Case) -> tuple[str, str]:
    return TWIST_RULES if case.id == "twist" else ("case-use", _absolute(case))


def _absolute(case: Case) -> str:
    return "case-limit" if case.reserve == SAFETY_ON_YIELD else "accident-use"


def _subject(case: Case, side: Side) -> Subject:
    return Subject(subject=f"rail-{case.id}", side=side)


def _detail(case: Case) -> str:
    return "" if case.id == "twist" else case.name


def _torque(case: Case, side: Side, rail: RailCase, changes: Changes) -> Check:
    """Torque where a cell is closed; an open channel carries it by warping, which is not computed."""
    if not rail.closed.any():
        missing = not_computed("twist-torque", _subject(case, side), ("/design/operations",), changes)
        words = "The rail is open all along: warping carries its torque, and warping is not computed here."
        return missing.model_copy(update={"remedy": words})
    at = int(np.argmax(np.where(rail.closed, rail.torsion, -1.0)))
    why = Why(
        formula="1.5 * torque / capacity",
        values={"torque": float(rail.torque[at]), "capacity": float(rail.torque_capacity[at])},
        words="N mm; judged where a cell is closed, open stretches carry torque by warping, which is not computed",
    )
    return judge(
        "twist-torque",
        _subject(case, side),
        float(rail.torsion[at]),
        why,
        changes,
        governs=Governs(case=case.id, station_mm=float(rail.x[at])),
        remedy="Thicker walls around the closed cell.",
    )


def _along(
    rule: str, case: Case, side: Side, rails: tuple[RailCase, RailCase], names: tuple[str, str], changes: Changes
) -> Check:
    """Use on the planned rail against the stock use there or half the stock peak."""
    before, after = rails
    own: Columns = getattr(before, names[0])
    new: Columns = getattr(after, names[1])
    stock = np.interp(after.x, before.x, own)
    allowed = np.maximum(stock, HALF_OF_PEAK * float(own.max()))
    ratio = np.divide(new, allowed, out=np.zeros_like(allowed), where=allowed > 1e-12)
    at = int(np.argmax(ratio))
    why = Why(
        formula="use / allowed",
        values={"use": float(new[at]), "allowed": float(allowed[at])},
        words=f"{case.basis}; allowed: the stock use here, or half the stock peak"
        + ("" if case.id == "twist" else f"; {OPEN}"),
    )
    return judge(
        rule,
        _subject(case, side),
        float(ratio[at]),
        why,
        changes,
        governs=Governs(case=case.id, station_mm=float(after.x[at])),
        detail=_detail(case),
        same_as_stock=abs(float(ratio[at]) - 1) < 1e-4,
        remedy="Bring the section up here, or carry the load beside it with a crossmember.",
    )


def _limit(case: Case, side: Side, rail: RailCase, changes: Changes) -> Check:
    at = int(np.argmax(rail.working))
    accident = _absolute(case) == "accident-use"
    value = float(rail.working[at]) * case.reserve / SAFETY_ON_YIELD
    why = Why(
        formula="use * reserve / 1.5" if accident else "use",
        values={"use": float(rail.working[at])} | ({"reserve": case.reserve} if accident else {}),
        words=f"{case.basis}; 1.5 x von Mises stress over yield, worst fibre and wall together; moment {rail.moment[at] / 1e6:.2f}, across {rail.side_moment[at] / 1e6:.2f}, torque {rail.torque[at] / 1e6:.2f} kN m, shear {rail.shear[at] / 1e3:.1f} kN; {OPEN}",
    )
    return judge(
        _absolute(case),
        _subject(case, side),
        value,
        why,
        changes,
        governs=Governs(case=case.id, station_mm=float(rail.x[at])),
        detail=case.name,
        remedy="Less load, a stronger section, or a licensed engineer's word.",
    )
