"""Whether a torsion bar's key stands at a crossmember: its torque goes into one, or twists a rail."""

from nodulant.axles.springs import TorsionBar
from nodulant.base.errors import NodulantError
from nodulant.checks.check import Check, Why, judge, not_computed
from nodulant.checks.travel_rules import subject_of
from nodulant.frame.ties import planned_crossmembers
from nodulant.job.document import Inputs
from nodulant.suspension.spring_motion import key_ends
from nodulant.suspension.study import Study


def key_checks(inputs: Inputs, studies: list[Study]) -> list[Check]:
    """Of each axle on torsion bars: how far its key stands from the nearest crossmember, along the frame."""
    limits, out = inputs.design.limits, []
    for s in studies:
        bar = s.suspension.springs
        if not isinstance(bar, TorsionBar) or s.motion is None:
            continue
        try:
            key = key_ends(bar, s.motion)[1]
            ties = planned_crossmembers(inputs.survey, inputs.design.operations, inputs.design.crossmembers)
        except NodulantError:
            continue  # told where the arm, or the crossmember's place, is given
        own = subject_of(s, "key")
        if not ties:
            out.append(not_computed("key-carried", own, ("/survey/crossmembers",), limits))
            continue
        nearest = min(ties, key=lambda tie: abs(tie.x_mm - key[0]))
        why = Why(
            formula="abs(key - crossmember)",
            values={"key": key[0], "crossmember": nearest.x_mm},
            words=f"mm along the frame, key and middle of the {nearest.name} crossmember",
        )
        remedy = "Put a crossmember under the key, or choose a bar whose key stands at one."
        out.append(judge("key-carried", own, abs(key[0] - nearest.x_mm), why, limits, remedy=remedy))
    return out
