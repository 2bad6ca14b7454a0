"""Room of links and springs beside the rails; half shafts within their joints."""

from dataclasses import replace
from functools import lru_cache

import numpy as np

from nodulant.axles.points import on_axle
from nodulant.axles.springs import AirSpring, Coilover
from nodulant.base.arrays import Rows
from nodulant.checks.check import Changes, Check, Governs, Subject, Why, judge, not_computed
from nodulant.checks.travel_rules import subject_of, subject_of_link
from nodulant.clearance.link_to_rail import Gap, RailBox, Swept, link_to_rail, swept
from nodulant.parts.sides import LEFT_RIGHT, Side
from nodulant.suspension.half_shaft import half_shaft_motion
from nodulant.suspension.motion import Motion
from nodulant.suspension.study import Study
from nodulant.units.inline import as_length

AT_BRACKET_MM = 80.0
"""A link is not judged this near its own frame end."""
AT_MOUNT_MM = 10.0
"""Nor a spring's own end at its mount."""
SPRING_ROOM_MM = 6.0
"""A spring keeps this besides its radius (common practice)."""


def room_checks(s: Study, rails: dict[Side, RailBox], changes: Changes) -> list[Check]:
    """Links and springs against the rail of their side, over all travel and roll."""
    if s.motion is None or s.setting is None:
        return []
    out = []
    for named in s.suspension.layout.links():
        if named.path == "toe" and s.suspension.steering is not None:
            # it passes the rail with the wheels turned: only the sweep, which takes the rail's cuts off, can say
            missing = (f"/design/suspensions/{s.suspension.axle}/layout/toe",)
            check = not_computed("link-room", subject_of_link(s, named), missing, changes, named.name)
            out.append(check.model_copy(update={"remedy": "sweep it in the Clearance stage: it turns with the wheels"}))
            continue
        a, b = on_axle(named.link.axle, s.setting.hub), named.link.frame.xyz()
        sides = [side for side in LEFT_RIGHT if _beside(side, a[1], b[1])]
        gaps = [g for side in sides if (g := _gap(s, a, b, named.link.tube.od_mm / 2, rails[side], AT_BRACKET_MM))]
        if gaps:
            out.append(_judged(s, subject_of_link(s, named), min(gaps, key=lambda g: g.gap_mm), named.name, changes))
    springs = s.suspension.springs
    if isinstance(springs, Coilover | AirSpring):
        radius = (springs.body_mm if isinstance(springs, Coilover) else springs.diameter_mm) / 2 + SPRING_ROOM_MM
        for side in LEFT_RIGHT[-1:] if s.suspension.layout.independent else LEFT_RIGHT:
            sign = 1.0 if side == "right" else -1.0
            low, up = on_axle(springs.lower, s.setting.hub), springs.upper.xyz()
            ends = [(p[0], sign * p[1], p[2]) for p in (low, up)]
            gap = _gap(s, ends[0], ends[1], radius, rails[side], radius + AT_MOUNT_MM)
            if gap:
                out.append(_judged(s, subject_of(s, "spring", side), gap, "spring", changes))
    return out


def _beside(side: Side, *across: float) -> bool:
    """Whether a member reaches over to the side of that rail."""
    sign = 1.0 if side == "right" else -1.0
    return max(sign * y for y in across) > -AT_BRACKET_MM


def _gap(
    s: Study,
    low: tuple[float, float, float],
    up: tuple[float, float, float],
    radius: float,
    rail: RailBox,
    spare: float,
) -> Gap | None:
    if s.motion is None:
        return None
    gap = link_to_rail(_swept(s, low, up, spare), radius, rail)
    return None if gap is None else replace(gap, row=int(_looked_at(s.motion)[gap.row]))


@lru_cache(maxsize=64)
def _swept(s: Study, low: tuple[float, float, float], up: tuple[float, float, float], spare: float) -> Swept:
    """Where a member passes: the rails have no part in it."""
    if s.motion is None or s.setting is None:
        raise ValueError("a study that moves has its motion")
    rows = _looked_at(s.motion)
    pose = s.motion.sweep.solved.pose.rows(rows)
    a = pose.origin + np.einsum("nij,j->ni", pose.rotation, np.array(low) - np.array(s.setting.hub))
    return swept(a, np.tile(up, (len(a), 1)), s.motion.sweep.there.reshape(-1)[rows], spare)


def _looked_at(m: Motion) -> Rows:
    """Every third travel with both ends, level and at the most roll either way: between them a gap runs nearly straight."""
    last, rolls = len(m.travel) - 1, len(m.sweep.roll)
    travels = np.unique([*range(0, last + 1, 3), last])
    columns = np.unique([0, m.middle, rolls - 1])
    return np.asarray((travels[:, None] * rolls + columns).reshape(-1))


def _judged(s: Study, subject: Subject, gap: Gap, name: str, changes: Changes) -> Check:
    motion = s.motion
    travel = float(motion.travel[gap.row // len(motion.sweep.roll)]) if motion else 0.0
    roll = float(np.degrees(motion.sweep.roll[gap.row % len(motion.sweep.roll)])) if motion else 0.0
    return judge(
        "link-room",
        subject,
        gap.gap_mm,
        Why(
            formula="gap",
            values={"gap": gap.gap_mm},
            words=f"mm from its surface to the rail, at {roll:+.0f} degrees of roll; cuts are not taken off the rail, within {as_length(AT_BRACKET_MM)} of its own bracket a link is not judged",
        ),
        changes,
        detail=name.partition(", ")[0],
        governs=Governs(station_mm=gap.station_mm, pose_mm=travel),
        remedy="Move it away from the rail, or cut the rail for it.",
    )


def half_shaft_checks(s: Study, changes: Changes) -> list[Check]:
    """Angle and plunge of an independent wheel's shaft; 'not computed' where a driven one has none."""
    own = s.suspension
    if not own.layout.independent or not own.driven:
        return []
    subject = subject_of(s, "half-shaft")
    rules = ("half-shaft-angle", "half-shaft-plunge")
    if own.half_shaft is None or s.motion is None:
        missing = (f"/design/suspensions/{own.axle}/half_shaft",)
        return [not_computed(rule, subject, missing, changes) for rule in rules]
    h, there = half_shaft_motion(own.half_shaft, s.motion), s.motion.there
    worst = np.where(there, np.maximum(h.inner_deg, h.outer_deg), 0.0)
    i = int(np.argmax(worst))
    span = float(h.length[there].max() - h.length[there].min())
    return [
        judge(
            rules[0],
            subject,
            float(worst[i]) / own.half_shaft.joint_deg,
            Why(
                formula="angle / limit",
                values={"angle": float(worst[i]), "limit": own.half_shaft.joint_deg},
                words="the larger of both joints, degrees",
            ),
            changes,
            governs=Governs(pose_mm=float(s.motion.travel[i])),
            remedy="Bring the differential nearer to the hubs' height, or take joints that stand further.",
        ),
        judge(
            rules[1],
            subject,
            span / own.half_shaft.plunge_mm,
            Why(
                formula="slide / allowed",
                values={"slide": span, "allowed": own.half_shaft.plunge_mm},
                words="how far the distance between the joints changes over the travel, mm",
            ),
            changes,
            remedy="Joints with more plunge, or an arm whose pivot lies nearer to the inner joint.",
        ),
    ]
