"""As-built readings of links: centre to centre, each side, and left against right.

Links of a pair equal within 1 mm (common practice): a longer one on one side makes the axle steer.
"""

import math

from nodulant.asbuilt.compare import AskedReading, asked_reading
from nodulant.asbuilt.log import Entry, latest_readings
from nodulant.axles.points import on_axle
from nodulant.axles.suspension import Suspension
from nodulant.checks.check import Check, Subject, Why, judge
from nodulant.job.document import Inputs
from nodulant.parts.sides import Side
from nodulant.parts.specs import reading
from nodulant.suspension.study import hub_height
from nodulant.targets.drop import towards_rail


def link_readings(inputs: Inputs) -> list[AskedReading]:
    """Length of every link of the design; none where the hubs are not known."""
    out: list[AskedReading] = []
    for own in inputs.design.suspensions:
        for stem, path, side, length in _lengths(inputs, own):
            spec = reading(
                f"{path.replace('.', '-').replace('_', '-')}-length",
                f"Length of the {own.axle} {stem}",
                length,
                "centre of one joint to centre of the other",
                "as-built-link",
            )
            out.append(asked_reading(f"{own.axle}-links", side, spec, inputs.as_built.entries))
    return out


def _lengths(inputs: Inputs, own: Suspension) -> list[tuple[str, str, Side, float]]:
    """Name, path, side and length of every link; a single one counts with the right."""
    high = hub_height(inputs.survey, own, towards_rail(inputs.design.targets, own.axle))
    x = 0.0 if own.axle == "front" else inputs.survey.wheelbase_mm
    if high is None or x is None:
        return []
    rows: list[tuple[str, str, Side, float]] = []
    for named in own.layout.links():
        stem, _, tail = named.name.partition(", ")
        side: Side = "left" if tail == "left" else "right"
        length = math.dist(on_axle(named.link.axle, (x, 0.0, high)), named.link.frame.xyz())
        rows.append((stem, named.path, side, length))
    return rows


def equal_checks(asked: list[AskedReading], entries: tuple[Entry, ...], inputs: Inputs) -> list[Check]:
    """Left against right of every pair that was measured on both sides."""
    taken = {r.id: r for r in asked if r.value_mm is not None}
    latest, out = latest_readings(entries), []
    for one in taken.values():
        other = taken.get(one.id.removesuffix("/left") + "/right")
        if one.side != "left" or other is None or one.value_mm is None or other.value_mm is None:
            continue
        unsure = (latest[one.id].resolution_mm + latest[other.id].resolution_mm) / 2
        values = {"left": one.value_mm, "right": other.value_mm, "unsure": unsure}
        out.append(
            judge(
                "links-equal",
                Subject(subject=f"{one.operation}-{one.spec.key}", side="both", state="as-built", stage="prove"),
                abs(one.value_mm - other.value_mm) + unsure,
                Why(
                    formula="abs(left - right) + unsure",
                    values=values,
                    words="mm; half of what each instrument reads to is added",
                ),
                inputs.design.limits,
                detail=one.spec.name.lower(),
                remedy="Set both links to one length on one jig, then look at the axle's squareness again.",
            )
        )
    return out
