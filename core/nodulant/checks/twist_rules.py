"""Checks of the frame in twist: bending and torque along both rails."""

import numpy as np

from nodulant.base.arrays import Columns
from nodulant.checks.check import Check, Governs, Subject, Why, judge, not_computed
from nodulant.checks.rail_rules import Changes
from nodulant.parts.sides import LEFT_RIGHT, Side
from nodulant.strength.compare import HALF_OF_PEAK
from nodulant.strength.twist import RailTwist, TwistComparison

RAIL_RULES = ("twist-bending", "twist-torque")
CASE = "twist"


def missing_twist_checks(missing: tuple[str, ...], changes: Changes, reason: str = "") -> list[Check]:
    """All twist checks as 'not computed'."""
    checks = [not_computed(rule, _subject(side), missing, changes) for side in LEFT_RIGHT for rule in RAIL_RULES]
    return [check.model_copy(update={"remedy": reason}) for check in checks]


def twist_checks(twist: TwistComparison, changes: Changes) -> list[Check]:
    """Use of both rails in the twist case: bending against stock, torque where a cell is closed."""
    checks: list[Check] = []
    for side in LEFT_RIGHT:
        before, after = twist.stock.rails[side], twist.planned.rails[side]
        checks.append(_along("twist-bending", side, (before, before.use_bending), (after, after.use_bending), changes))
        checks.append(_torque(side, after, changes))
    return checks


def _subject(side: Side) -> Subject:
    return Subject(subject="rail-twist", side=side)


def _torque(side: Side, rail: RailTwist, changes: Changes) -> Check:
    """Torque where a cell is closed; an open channel carries it by warping, which is not computed."""
    if not rail.closed.any():
        missing = not_computed("twist-torque", _subject(side), ("/design/operations",), changes)
        words = "The rail is open all along: warping carries its torque, and warping is not computed here."
        return missing.model_copy(update={"remedy": words})
    at = int(np.argmax(np.where(rail.closed, rail.use_torque, -1.0)))
    why = Why(
        formula="1.5 * torque / capacity",
        values={"torque": float(rail.torque[at]), "capacity": float(rail.torque_capacity[at])},
        words="N mm; judged where a cell is closed, open stretches carry torque by warping, which is not computed",
    )
    return judge(
        "twist-torque",
        _subject(side),
        float(rail.use_torque[at]),
        why,
        changes,
        governs=Governs(case=CASE, station_mm=float(rail.x[at])),
        remedy="Thicker walls around the closed cell.",
    )


def _along(
    rule: str, side: Side, before: tuple[RailTwist, Columns], after: tuple[RailTwist, Columns], changes: Changes
) -> Check:
    """Use on the planned rail against the stock use there or half the stock peak."""
    stock = np.interp(after[0].x, before[0].x, before[1])
    allowed = np.maximum(stock, HALF_OF_PEAK * float(before[1].max()))
    ratio = np.divide(after[1], allowed, out=np.zeros_like(allowed), where=allowed > 1e-12)
    at = int(np.argmax(ratio))
    why = Why(
        formula="use / allowed",
        values={"use": float(after[1][at]), "allowed": float(allowed[at])},
        words="1 g and one wheel in a hole; allowed: the stock use here, or half the stock peak",
    )
    return judge(
        rule,
        _subject(side),
        float(ratio[at]),
        why,
        changes,
        governs=Governs(case=CASE, station_mm=float(after[0].x[at])),
        same_as_stock=abs(float(ratio[at]) - 1) < 1e-4,
        remedy="Bring the section up here, or carry the twist beside it with a crossmember.",
    )
