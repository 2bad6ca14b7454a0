"""Checks of a suspension's geometry: reach, bind, anti-squat, spread and tilt of its links."""

import math
from dataclasses import replace

import numpy as np

from nodulant.axles.layouts.layout import NamedLink
from nodulant.axles.layouts.live import LeafSprings, ParallelFourLink, ThreeLink, TriangulatedFourLink
from nodulant.axles.points import Bolt, Link, bolt_axis, on_axle
from nodulant.base.arrays import Columns
from nodulant.checks.check import Changes, Check, Governs, Subject, Why, judge, not_computed
from nodulant.linkage.sweep import stretches
from nodulant.suspension import motion as of
from nodulant.suspension.motion import Motion, Setting
from nodulant.suspension.study import Study
from nodulant.units.inline import as_amount, as_length

GEOMETRY = ("travel-reached", "joint-swing")
BIND_DEG = (1.0, 3.0, 5.0)


def subject_of(s: Study, about: str = "", side: str = "both") -> Subject:
    """Checks of a suspension are about its axle, or a part of it."""
    return Subject(subject=f"{s.suspension.axle}-{about}" if about else s.suspension.axle, side=side, stage="travel")


def in_droop(s: Study, about: str) -> Subject:
    """What the axle hanging lowest asks of a part is told together: strap, shock and coil stop each other."""
    return replace(subject_of(s, about), cause=f"full droop {s.suspension.axle}")


def subject_of_link(s: Study, named: NamedLink) -> Subject:
    """A link's checks; those of a pair differ by their side."""
    name, _, side = named.name.partition(", ")
    return subject_of(s, name.replace(" ", "-"), side or "both")


def travel_checks(s: Study, changes: Changes) -> list[Check]:
    """Every check of the geometry; 'not computed' with the reason where the linkage does not move."""
    if s.motion is None or s.setting is None:
        field = s.missing or (f"/design/suspensions/{s.suspension.axle}",)
        reason = s.trouble.message if s.trouble else ""
        checks = [not_computed(rule, subject_of(s), field, changes) for rule in GEOMETRY]
        return [check.model_copy(update={"remedy": reason}) for check in checks]
    out = _reach(s, s.motion, changes) + _bind(s, s.motion, changes) + _anti_squat(s, s.motion, changes)
    out += _spread(s, s.setting, changes)
    for link in s.suspension.layout.links():
        out.append(_swing(s, s.motion, link, changes))
    return out


def _reach(s: Study, m: Motion, changes: Changes) -> list[Check]:
    """How much of droop and bump the linkage exists over."""
    (low, high), ends = of.dead_points(m), m.sweep.ends
    rows = (("droop", -low, s.suspension.droop_mm), ("bump", high, s.suspension.bump_mm))
    return [
        judge(
            "travel-reached",
            subject_of(s, name),
            reached / wanted,
            Why(formula="reached / wanted", values={"reached": reached, "wanted": wanted}, words=end),
            changes,
            detail=name,
            governs=Governs(pose_mm=reached if name == "bump" else -reached),
            remedy=f"{end[:1].upper()}{end[1:]}.",
            same_as_stock=not end,
        )
        for (name, reached, wanted), end in zip(rows, ends, strict=True)
    ]


def _bind(s: Study, m: Motion, changes: Changes) -> list[Check]:
    c = m.sweep.compiled
    if c.held + len(c.drives) <= c.mechanism.freedoms:
        return []
    give = np.abs(stretches(m.sweep)).reshape(len(m.travel), len(m.sweep.roll), -1)
    give = np.where(m.sweep.there[..., None], give, 0.0)
    values, worst = {}, (0, 0)
    for degrees in BIND_DEG:
        columns = np.flatnonzero(np.abs(np.abs(np.degrees(m.sweep.roll)) - degrees) < 1e-6)
        rows = give[:, columns].max(axis=1)
        values[f"at_{degrees:.0f}_deg"] = float(rows.max())
        if degrees == 3.0:
            row, rod = divmod(int(np.argmax(rows)), rows.shape[1])
            worst = (row, rod)
    part = c.mechanism.names[worst[1]]
    force = values["at_3_deg"] * float(c.stiffness[worst[1]])
    return [
        judge(
            "bind",
            subject_of(s),
            values["at_3_deg"],
            Why(
                formula="at_3_deg",
                values=values,
                words=f"most that one rod has to give if its bushes do not, mm; {part} would then carry {as_amount('force', force)}",
            ),
            changes,
            governs=Governs(pose_mm=float(m.travel[worst[0]])),
            detail=part,
            remedy="Bars of equal slope, one upper bar fewer, converging uppers in place of the track bar, or soft bushes.",
        )
    ]


def _anti_squat(s: Study, m: Motion, changes: Changes) -> list[Check]:
    if s.suspension.axle != "rear" or not s.suspension.driven:
        return []
    rules = ("anti-squat-least", "anti-squat-most")
    high, base = s.centre_above_ground_mm, s.vehicle.wheelbase_mm
    if high is None or base is None:
        return [not_computed(rule, subject_of(s), ("/survey/masses/0/z_mm",), changes) for rule in rules]
    slope = float(of.torque_slope(m, braking=False)[s.ride])
    why = Why(
        formula="100 * slope * base / high",
        values={"slope": slope, "base": base, "high": high},
        words="slope of the contact patch's path (or of the wheel's centre where the differential hangs on the frame) to the vertical; wheelbase over height of the sprung mass",
    )
    remedies = (
        "Steeper lower links, or upper links that fall forward more.",
        "Flatter lower links, or upper links nearer to level.",
    )
    out = [
        judge(rule, subject_of(s), 100 * slope * base / high, why, changes, governs=Governs(pose_mm=0.0), remedy=remedy)
        for rule, remedy in zip(rules, remedies, strict=True)
    ]
    if isinstance(s.suspension.layout, LeafSprings):  # a spring's eye is where it is: nobody chooses its anti-squat
        out = [c.model_copy(update={"verdict": "note", "remedy": ""}) for c in out]
    return out


def _spread(s: Study, setting: Setting, changes: Changes) -> list[Check]:
    """Upper against lower links: height between them at both ends, convergence, belly."""
    layout = s.suspension.layout
    if not isinstance(layout, TriangulatedFourLink | ParallelFourLink | ThreeLink):
        return []
    upper, lower = layout.upper, layout.lower
    at_axle, at_frame = upper.axle.z_mm - lower.axle.z_mm, upper.frame.z_mm - lower.frame.z_mm
    tyre = s.vehicle.tyre_mm or 2 * setting.radius_mm
    out = [
        judge(
            "link-separation",
            subject_of(s),
            at_axle / tyre,
            Why(
                formula="apart / tyre",
                values={"apart": at_axle, "tyre": tyre},
                words="mm; the tyre's diameter by its size",
            ),
            changes,
            remedy=f"{as_length(0.25 * tyre)} or more between the axle's brackets.",
        ),
        judge(
            "separation-front",
            subject_of(s),
            at_frame / at_axle if abs(at_axle) > 1e-6 else 0.0,
            Why(
                formula="frame / axle",
                values={"frame": at_frame, "axle": at_axle or 1.0},
                words="mm, upper above lower",
            )
            if abs(at_axle) > 1e-6
            else Why(formula="none", values={"none": 0.0}, words="no height between the links at the axle"),
            changes,
            remedy="Bring the frame's brackets nearer to each other.",
        ),
        _belly(s, setting, lower, changes),
    ]
    if isinstance(layout, TriangulatedFourLink):
        out.append(_convergence(s, setting, upper, changes))
    return out


def _belly(s: Study, setting: Setting, lower: Link, changes: Changes) -> Check:
    hub = setting.hub[2]
    lowest = min(on_axle(lower.axle, setting.hub)[2], lower.frame.z_mm) - lower.tube.od_mm / 2
    line = hub - s.suspension.belly_mm
    return judge(
        "belly",
        subject_of(s),
        lowest - line,
        Why(
            formula="lowest - line",
            values={"lowest": lowest, "line": line},
            words="underside of the lower links at their ends above the datum, against the belly line: hub less what may hang below it",
        ),
        changes,
        remedy="Raise the lower brackets, or say how far they may hang below the hubs.",
    )


def _convergence(s: Study, setting: Setting, upper: Link, changes: Changes) -> Check:
    a, b = on_axle(upper.axle, setting.hub), upper.frame.xyz()
    along, across = abs(a[0] - b[0]), abs(a[1] - b[1])
    return judge(
        "convergence",
        subject_of(s),
        math.degrees(math.atan2(across, along)),
        Why(
            formula="angle",
            values={"angle": math.degrees(math.atan2(across, along))},
            words=f"in plan, against fore and aft: {as_length(across)} over {as_length(along)}; side loads in the links grow as 1/sin",
        ),
        changes,
        remedy="Bring the upper links' axle ends nearer to each other, their frame ends further apart.",
    )


def _swing(s: Study, m: Motion, named: NamedLink, changes: Changes) -> Check:
    """The most that either end's joint tilts out of its bolt's square, over all travel and roll."""
    link, joints = named.link, named.link.joints
    frame, travel = tilts(m, link, joints.frame_bolt, on_frame=True)
    axle, at = tilts(m, link, joints.axle_bolt, on_frame=False)
    most, where, end = max((frame, travel, "frame"), (axle, at, "axle"))
    return judge(
        "joint-swing",
        subject_of_link(s, named),
        most / joints.swing_deg,
        Why(
            formula="tilt / allowed",
            values={"tilt": most, "allowed": joints.swing_deg},
            words=f"degrees out of square to the bolt, at the {end} end; the worst of travel and {max(np.degrees(m.sweep.roll)):.0f} degrees of roll",
        ),
        changes,
        governs=Governs(pose_mm=where),
        detail=named.name.partition(", ")[0],
        remedy="A joint that tilts further, a bolt that lies square to the link, or a bracket clocked to it.",
    )


def tilts(m: Motion, link: Link, bolt: Bolt, *, on_frame: bool) -> tuple[float, float]:
    """Most tilt of one joint, degrees, and the travel where it happens, mm.

    The bolt is square to the link's own plane at best: the tilt is the angle between the link and
    the plane across the bolt, plus nothing for turning about it.
    """
    pose = m.sweep.solved.pose
    there = m.sweep.there.reshape(-1)
    arm = np.array(on_axle(link.axle, m.setting.hub)) - np.array(m.setting.hub)
    end = pose.origin + np.einsum("nij,j->ni", pose.rotation, arm)
    d: Columns = end - np.array(link.frame.xyz())
    d = d / np.linalg.norm(d, axis=1, keepdims=True)
    first, last = on_axle(link.axle, m.setting.hub), link.frame.xyz()
    axis = np.array(bolt_axis(bolt, (first[0] - last[0], first[1] - last[1], first[2] - last[2])))
    along = d @ axis if on_frame else np.einsum("ni,ni->n", d, np.einsum("nij,j->ni", pose.rotation, axis))
    tilt = np.where(there, np.degrees(np.arcsin(np.clip(np.abs(along), 0.0, 1.0))), 0.0)
    i = int(np.argmax(tilt))
    return float(tilt[i]), float(m.travel[i // len(m.sweep.roll)])
