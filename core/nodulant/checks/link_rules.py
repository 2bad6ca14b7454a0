"""Checks of links under launch, braking, bump and kerb."""

import math

from nodulant.axles.layouts.layout import NamedLink
from nodulant.axles.points import on_axle
from nodulant.checks.check import Changes, Check, Governs, Why, judge, not_computed
from nodulant.checks.travel_rules import subject_of_link
from nodulant.materials.steel import SAFETY_ON_YIELD
from nodulant.suspension.forces import NAMES, LoadCase
from nodulant.suspension.study import Study
from nodulant.suspension.tube import FACTOR, critical_n
from nodulant.units.inline import as_length

RULES = ("link-buckling", "link-pull", "link-joint")


def link_checks(s: Study, changes: Changes) -> list[Check]:
    """Each link in its worst case; 'not computed' without springs, masses or a joint's rating."""
    if s.motion is None or s.setting is None:
        return []
    out: list[Check] = []
    for named in s.suspension.layout.links():
        subject = subject_of_link(s, named)
        if not s.forces:
            need = (
                ("/survey/masses",) if s.suspension.springs else (f"/design/suspensions/{s.suspension.axle}/springs",)
            )
            out += [not_computed(rule, subject, need, changes, named.name.partition(", ")[0]) for rule in RULES]
            continue
        out += _link(s, named, changes)
    return out


def worst_of(s: Study, name: str) -> dict[str, tuple[LoadCase, float]]:
    """Most pressed and most pulled of a rod: case and force, N (tension positive)."""
    row = s.motion.sweep.compiled.mechanism.names.index(name) if s.motion else 0
    found: list[tuple[LoadCase, float]] = [(case, float(f.tension[row])) for case, f in s.forces.items()]
    return {"pressed": min(found, key=lambda r: r[1]), "most": max(found, key=lambda r: abs(r[1]))}


def length_of(s: Study, named: NamedLink) -> float:
    """Length of a link, centre to centre, mm."""
    hub = s.setting.hub if s.setting else (0.0, 0.0, 0.0)
    return math.dist(on_axle(named.link.axle, hub), named.link.frame.xyz())


def _link(s: Study, named: NamedLink, changes: Changes) -> list[Check]:
    subject = subject_of_link(s, named)
    worst, tube, length = worst_of(s, named.name), named.link.tube, length_of(s, named)
    case, force = worst["pressed"]
    pressed, holds = max(-force, 0.0), critical_n(tube, length)
    most_case, most = worst["most"]
    carries = tube.area_mm2 * tube.yield_mpa / SAFETY_ON_YIELD
    rating = named.link.joints.rating_n
    out = [
        judge(
            "link-buckling",
            subject,
            FACTOR * pressed / holds,
            Why(
                formula="factor * pressed / holds",
                values={"factor": FACTOR, "pressed": pressed, "holds": holds},
                words=f"{NAMES[case]}; N; {as_length(length)} between the joints, both ends pinned, yield beside the welds",
            ),
            changes,
            governs=Governs(case=case),
            detail=named.name.partition(", ")[0],
            remedy="A larger tube, a thicker wall, or a shorter link.",
        ),
        judge(
            "link-pull",
            subject,
            abs(most) / carries,
            Why(
                formula="force / carries",
                values={"force": abs(most), "carries": carries},
                words=f"{NAMES[most_case]}; N; area times yield beside the welds over 1.5",
            ),
            changes,
            governs=Governs(case=most_case),
            detail=named.name.partition(", ")[0],
            remedy="A thicker tube.",
        ),
    ]
    if rating is None:
        missing = (f"/design/suspensions/{s.suspension.axle}/layout/{named.path}/joints/rating_n",)
        return [*out, not_computed("link-joint", subject, missing, changes, named.name.partition(", ")[0])]
    return [
        *out,
        judge(
            "link-joint",
            subject,
            abs(most) / rating,
            Why(
                formula="force / rating",
                values={"force": abs(most), "rating": rating},
                words=f"{NAMES[most_case]}; N; what its maker allows along the link",
            ),
            changes,
            governs=Governs(case=most_case),
            detail=named.name.partition(", ")[0],
            remedy="A larger joint.",
        ),
    ]
