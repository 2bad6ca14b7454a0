"""Checks of hoses: long enough for droop and full lock."""

from nodulant.checks.check import Changes, Check, Governs, Why, judge
from nodulant.checks.travel_rules import subject_of
from nodulant.steering.hoses import hose_reach
from nodulant.steering.study import SteerStudy
from nodulant.suspension.study import Study
from nodulant.units.inline import as_length


def hose_checks(s: Study, q: SteerStudy | None, changes: Changes) -> list[Check]:
    """What each hose has to spare where its ends are furthest apart."""
    out = []
    for k, hose in enumerate(s.suspension.hoses):
        found = hose_reach(s, q, hose)
        if found is None:
            continue
        way = "bump" if found.travel_mm > 0 else "droop"
        lock = f", {abs(found.input):.0%} of the lock" if found.input else ""
        why = Why(
            formula="length - reach",
            values={"length": hose.length_mm, "reach": found.most_mm},
            words=f"mm; ends furthest apart at {as_length(abs(found.travel_mm))} of {way}{lock}; straight from end to end, bends not counted",
        )
        out.append(
            judge(
                "hose-slack",
                subject_of(s, f"hose-{k + 1}"),
                hose.length_mm - found.most_mm,
                why,
                changes,
                detail=hose.name,
                governs=Governs(pose_mm=found.travel_mm),
                remedy="A longer hose, or its bracket nearer to the middle of what the wheel does.",
            )
        )
    return out
