"""Which way an axle points, from what was measured at its wheels."""

import math

from nodulant.asbuilt.compare import AskedReading, apart_unsure, uncertain_check
from nodulant.checks.check import Changes, Check, Subject, Why
from nodulant.parts.limits import find_limit
from nodulant.suspension.study import Study


def pointing_deg(left_mm: float, right_mm: float, apart_mm: float) -> float:
    """Thrust angle of a beam axle: atan((x_right - x_left)/between the hubs), positive points right."""
    return math.degrees(math.atan2(right_mm - left_mm, apart_mm))


def thrust_checks(asked: list[AskedReading], studies: list[Study], changes: Changes) -> list[Check]:
    """Of the rear axle: a beam by its wheelbases, single wheels by half of what their toe differs."""
    rear = next((s for s in studies if s.suspension.axle == "rear" and s.setting), None)
    if rear is None or rear.setting is None:
        return []
    by = {r.id: r for r in asked if r.value is not None}
    single = rear.suspension.layout.independent
    one, other = (by.get(f"{'rear-wheel/toe' if single else 'vehicle/wheelbase'}/{side}") for side in ("left", "right"))
    if one is None or other is None or one.value is None or other.value is None:
        return []
    unsure = apart_unsure(one, other)
    apart = 2 * rear.setting.half_track_mm
    if single:
        turned, sure = (one.value - other.value) / 2, unsure / 2
        why = Why(formula="abs((left - right) / 2)", values={"left": one.value, "right": other.value}, words="toe-in")
    else:
        turned, sure = pointing_deg(one.value, other.value, apart), math.degrees(unsure / apart)
        values = {"left": one.value, "right": other.value, "apart": apart}
        words = "atan of right less left over what they are apart, degrees; the front axle taken as square; between the tyres' middles"
        why = Why(formula="abs(points)", values={"points": turned, **values}, words=words)
    allowed = find_limit("thrust", changes)[0].value
    way = "right" if turned > 0 else "left"
    told = f"points {abs(turned):.2f} deg to the {way} ± {sure:.2f}; {allowed:g} allowed"
    return [
        uncertain_check(
            "thrust",
            Subject(subject="rear-axle", state="as-built", stage="prove"),
            (abs(turned), sure),
            why,
            changes,
            detail="rear axle",
            words=told,
            remedy="Press 'Solve what was read' in Prove: link turns that bring it square are worked out there.",
        )
    ]
