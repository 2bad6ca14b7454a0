"""As-built readings of links: centre to centre, each side, and left against right.

Links of a pair equal within 1 mm (common practice): a longer one on one side makes the axle steer.
"""

import math

from nodulant.asbuilt.compare import AskedReading, Known, apart_unsure, uncertain_check
from nodulant.axles.points import on_axle
from nodulant.axles.suspension import Suspension
from nodulant.checks.check import Check, Subject, Why
from nodulant.job.document import Inputs
from nodulant.parts.limits import find_limit
from nodulant.parts.sides import Side
from nodulant.parts.specs import reading
from nodulant.suspension.study import hub_height
from nodulant.targets.drop import towards_rail
from nodulant.units.inline import as_deviation


def link_readings(inputs: Inputs, known: Known) -> list[AskedReading]:
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
            out.append(known.asked(f"{own.axle}-links", side, spec, f"{own.axle.capitalize()} links"))
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


def equal_checks(asked: list[AskedReading], inputs: Inputs) -> list[Check]:
    """Left against right of every pair that was measured on both sides."""
    taken, out = {r.id: r for r in asked if r.value is not None}, []
    limits = inputs.design.limits
    for one in taken.values():
        other = taken.get(one.id.removesuffix("/left") + "/right")
        if one.side != "left" or other is None or one.value is None or other.value is None:
            continue
        off = abs(one.value - other.value)
        unsure = apart_unsure(one, other)
        allowed = find_limit("links-equal", limits)[0].value
        out.append(
            uncertain_check(
                "links-equal",
                Subject(subject=f"{one.operation}-{one.spec.key}", side="both", state="as-built", stage="prove"),
                (off, unsure),
                Why(formula="abs(left - right)", values={"left": one.value, "right": other.value}, words="mm"),
                limits,
                detail=one.spec.name.lower(),
                words=f"{as_deviation(off)} apart ± {as_deviation(unsure)}, {as_deviation(allowed)} allowed",
                remedy="Set both links to one length on one jig, then look at the axle's squareness again.",
            )
        )
    return out
