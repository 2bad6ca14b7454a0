"""Gauges of the suspension: a solid strut in place of each coilover and damper, the pinion's angle."""

import math
from collections.abc import Iterator, Sequence

from nodulant.axles.points import HardPoint, on_axle
from nodulant.axles.springs import Coilover
from nodulant.axles.suspension import Suspension
from nodulant.gauges.draw import strut_bar, wedge
from nodulant.gauges.gauge import Gauge
from nodulant.survey.vehicle import Survey
from nodulant.suspension.study import hub_height
from nodulant.targets.drop import Targets, towards_rail

EYE_MM = 12.7
"""Eye of a strut's ends where nothing says its bolt: half an inch (common practice)."""


def struts(survey: Survey, targets: Targets, suspensions: Sequence[Suspension]) -> Iterator[Gauge]:
    """Eye to eye at ride height, planned hubs; two of each, one a side, twice that for pairs."""
    for own in suspensions:
        what = (
            ("coilover", own.springs) if isinstance(own.springs, Coilover) else None,
            ("damper", own.damper) if own.damper else None,
        )
        for row in what:
            if row is None:
                continue
            name, piece = row
            apart = _apart(survey, targets, own, piece.lower, piece.upper)
            title = f"{own.axle.capitalize()} {name}: solid strut"
            id_ = f"{own.axle}/strut/{name}"
            yield Gauge(
                id=id_,
                kind="strut",
                name=title,
                says=f"Bolted in instead of the {name}: the axle then stands at ride height by itself while everything is tacked and measured. Drill the eyes to the {name}'s own bolts.",
                phase="fit",
                count=2 * piece.count,
                made_of="flat bar or tube with eyes",
                long_mm=apart,
                bore_mm=EYE_MM,
                pattern=None if apart is None else strut_bar(id_, title, apart, EYE_MM),
                missing=f"how high the {own.axle} hubs stand, and the wheelbase" if apart is None else "",
            )


def _apart(survey: Survey, targets: Targets, own: Suspension, lower: HardPoint, upper: HardPoint) -> float | None:
    high = hub_height(survey, own, towards_rail(targets, own.axle))
    x = own.hub_x_mm if own.hub_x_mm is not None else 0.0 if own.axle == "front" else survey.wheelbase_mm
    return None if high is None or x is None else math.dist(on_axle(lower, (x, 0.0, high)), upper.xyz())


def pinions(suspensions: Sequence[Suspension]) -> Iterator[Gauge]:
    """An angle block between a level and the pinion's flange."""
    for own in suspensions:
        if own.pinion_deg:
            nose = "up" if own.pinion_deg > 0 else "down"
            yield wedge(
                f"{own.axle}/angle/pinion",
                f"{own.axle.capitalize()} pinion, nose {nose}",
                own.pinion_deg,
                None,
                "tack",
                f"On the pinion's flange against a plumb line, or under the housing's machined face with a level on it: the nose points {nose}. The frame is level at ride height.",
            )
