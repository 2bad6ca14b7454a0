"""Checks of the shaft between column and gear."""

import math

from nodulant.axles.steering import SteeringShaft
from nodulant.base.errors import InputError
from nodulant.checks.check import Changes, Check, Why, judge, not_computed
from nodulant.checks.steer_rules import about
from nodulant.steering.column import ShaftFigures, shaft_figures, slot_needed_mm
from nodulant.steering.study import SteerStudy
from nodulant.units.inline import as_length, as_thickness

THREE = 3


def column_checks(q: SteerStudy, changes: Changes) -> list[Check]:
    """Angles, unevenness, bearing and clamp; none where there is no shaft in the design."""
    steering, s = q.study.suspension.steering, q.study
    if steering is None or steering.shaft is None:
        return []
    shaft = steering.shaft
    try:
        found = shaft_figures(shaft)
    except InputError as error:
        field = f"/design/suspensions/{s.suspension.axle}/{error.field}"
        check = not_computed("column-joint", about(s, "shaft"), (field,), changes)
        return [check.model_copy(update={"remedy": error.message})]
    joints = [_joint(q, k, angle, changes) for k, angle in enumerate(found.angles_deg, start=1)]
    return [*joints, _uneven(q, found, changes), *_bearing(q, shaft, changes), *_clamp(q, shaft, changes)]


def _joint(q: SteerStudy, k: int, angle: float, changes: Changes) -> Check:
    return judge(
        "column-joint",
        about(q.study, f"shaft-joint-{k}"),
        angle,
        Why(
            formula="angle",
            values={"angle": angle},
            words="degrees between both shafts in space; a single joint stands 30, 35 at most",
        ),
        changes,
        detail=f"joint {k} from the column",
        remedy="Move the joint, share the bend between more joints, or turn the box.",
    )


def _uneven(q: SteerStudy, found: ShaftFigures, changes: Changes) -> Check:
    best = ", ".join(f"{v:.0f}" for v in found.best_clocking_deg)
    left = f"{found.best_uneven_percent:.1f} %"
    return judge(
        "column-uneven",
        about(q.study, "shaft"),
        found.uneven_percent,
        Why(
            formula="100 * (most - least)",
            values={"most": float(found.ratio.max()), "least": float(found.ratio.min())},
            words=f"speed of the gear over the steering wheel's through half a turn; with the yokes clocked to {best or 'what they are'} degrees {left} would be left",
        ),
        changes,
        remedy=f"Clock the lower yoke by {best} degrees against the upper one: {left} is left then."
        if best
        else "Share the bend between two joints.",
    )


def _bearing(q: SteerStudy, shaft: SteeringShaft, changes: Changes) -> list[Check]:
    if len(shaft.joints) != THREE:
        return []
    there = 1.0 if shaft.bearing else 0.0
    return [
        judge(
            "column-bearing",
            about(q.study, "shaft"),
            there,
            Why(
                formula="there",
                values={"there": there},
                words="three joints fold up without a bearing on the shaft between them",
            ),
            changes,
            remedy="A support bearing on the middle shaft, close to the middle joint.",
            same_as_stock=True,
        )
    ]


def _clamp(q: SteerStudy, shaft: SteeringShaft, changes: Changes) -> list[Check]:
    if shaft.clamp is None:
        return []
    clamp, need = shaft.clamp, slot_needed_mm(shaft.clamp)
    words = f"bore {as_thickness(clamp.bore_mm)} on a column of {as_length(clamp.column_mm)}: the slot closes by pi times the play before the tube bites"
    if need <= 0:
        play = clamp.bore_mm - clamp.column_mm
        value = 0.0 if play < 0 else math.copysign(1.0, 1.0)
        why = Why(formula="fits", values={"fits": value}, words=f"{words}; it does not go on" if play < 0 else words)
    else:
        value = clamp.slot_mm / need
        why = Why(
            formula="slot / (pi * (bore - column))",
            values={"slot": clamp.slot_mm, "pi": math.pi, "bore": clamp.bore_mm, "column": clamp.column_mm},
            words=words,
        )
    remedy = (
        "A tube with a larger bore: the column does not go in."
        if need < 0
        else f"A slot wider than {as_length(need)}, and the bite besides."
    )
    return [judge("clamp-closes", about(q.study, "column-clamp"), value, why, changes, remedy=remedy)]
