"""Checks of the shaft between column and gear."""

import math

from nodulant.axles.steering import SteeringShaft
from nodulant.base.errors import InputError
from nodulant.checks.check import Check, Why, judge, not_computed
from nodulant.checks.rail_rules import Changes
from nodulant.checks.steer_rules import about
from nodulant.steering.column import shaft_figures, slot_needed_mm
from nodulant.steering.study import SteerStudy

THREE = 3


def column_checks(q: SteerStudy, changes: Changes) -> list[Check]:
    """Angles, unevenness, bearing and clamp; none where there is no shaft in the design."""
    steering, s = q.study.suspension.steering, q.study
    if steering is None or steering.shaft is None:
        return []
    shaft, subject = steering.shaft, about(s, "shaft")
    try:
        found = shaft_figures(shaft)
    except InputError as error:
        field = f"/design/suspensions/{s.suspension.axle}/{error.field}"
        check = not_computed("column-joint", subject, (field,), changes)
        return [check.model_copy(update={"remedy": error.message})]
    out = []
    for k, angle in enumerate(found.angles_deg, start=1):
        out.append(
            judge(
                "column-joint",
                about(s, f"shaft-joint-{k}"),
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
        )
    best = ", ".join(f"{v:.0f}" for v in found.best_clocking_deg)
    out.append(
        judge(
            "column-uneven",
            subject,
            found.uneven_percent,
            Why(
                formula="100 * (most - least)",
                values={"most": float(found.ratio.max()), "least": float(found.ratio.min())},
                words=f"speed of the gear over the steering wheel's through half a turn; with the yokes clocked to {best or 'what they are'} degrees {found.best_uneven_percent:.1f} % would be left",
            ),
            changes,
            remedy=f"Clock the lower yoke by {best} degrees against the upper one: {found.best_uneven_percent:.1f} % is left then."
            if best
            else "Share the bend between two joints.",
        )
    )
    if len(shaft.joints) == THREE:
        there = 1.0 if shaft.bearing else 0.0
        out.append(
            judge(
                "column-bearing",
                subject,
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
        )
    return [*out, *_clamp(q, shaft, changes)]


def _clamp(q: SteerStudy, shaft: SteeringShaft, changes: Changes) -> list[Check]:
    if shaft.clamp is None:
        return []
    clamp, need = shaft.clamp, slot_needed_mm(shaft.clamp)
    words = f"bore {clamp.bore_mm:.2f} mm on a column of {clamp.column_mm:.2f} mm: the slot closes by pi times the play before the tube bites"
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
        else f"A slot wider than {need:.1f} mm, and the bite besides."
    )
    return [judge("clamp-closes", about(q.study, "column-clamp"), value, why, changes, remedy=remedy)]
