"""Checks of the propeller shaft through the rear axle's travel."""

import numpy as np

from nodulant.checks.check import Changes, Check, Governs, Subject, Why, judge, not_computed
from nodulant.driveline.driveline import Driveline
from nodulant.driveline.shaft import ShaftMotion, clearances, critical_rpm
from nodulant.suspension.study import Study
from nodulant.units.inline import as_length

RULES = ("joint-angle", "joint-binds", "joints-cancel", "slip-engaged", "slip-room", "critical-speed")
ALIGN = "Turn the pinion (or the gearbox) until both joints stand alike and small."
SHIM = "Shim the carrier bearing until the front shaft runs on nearly in line with the gearbox, then turn the pinion."
SUBJECT = Subject(subject="shaft", stage="travel")


def driveline_checks(d: Driveline, s: Study | None, shaft: ShaftMotion | None, changes: Changes) -> list[Check]:
    """Every check of the shaft; 'not computed' without a rear suspension that moves, or its pinion's angle."""
    if s is None or s.motion is None or shaft is None:
        if s is not None and s.motion is not None:
            need = ("/design/suspensions/0/pinion_deg",)
        else:
            need = ("/design/suspensions",)
        return [not_computed(rule, SUBJECT, need, changes) for rule in RULES]
    out = _angles(d, s, shaft, changes) + _slip(d, s, shaft, changes)
    return [*out, _critical(d, s, shaft, changes), *_near(d, s, shaft, changes)]


def _angles(d: Driveline, s: Study, shaft: ShaftMotion, changes: Changes) -> list[Check]:
    out = []
    there = s.motion.there if s.motion else np.ones(1, dtype=bool)
    travel = s.motion.travel if s.motion else np.zeros(1)
    for name, column in shaft.joints.items():
        subject = Subject(subject=f"shaft-{name}", stage="travel", cause="shaft's angles")
        ride = float(column[s.ride])
        words = "between its two shafts in space, degrees"
        out.append(
            judge(
                "joint-angle",
                subject,
                ride,
                Why(formula="angle", values={"angle": ride}, words=f"{words}, at ride height"),
                changes,
                detail=name,
                governs=Governs(pose_mm=0.0),
                remedy=ALIGN if d.bearing is None else SHIM,
            )
        )
        worst = int(np.argmax(np.where(there, column, 0.0)))
        most = float(column[worst])
        out.append(
            judge(
                "joint-binds",
                subject,
                most / d.joint_deg,
                Why(formula="angle / limit", values={"angle": most, "limit": d.joint_deg}, words=words),
                changes,
                detail=name,
                governs=Governs(pose_mm=float(travel[worst])),
                remedy="A joint that stands further, or less travel.",
            )
        )
    left = float(shaft.left_deg[s.ride])
    out.append(
        judge(
            "joints-cancel",
            Subject(subject="shaft", stage="travel", cause="shaft's angles"),
            left,
            Why(
                formula="left",
                values={"left": left, **{name: float(c[s.ride]) for name, c in shaft.joints.items()}},
                words="angle of the one joint that would run as unevenly as all of them together, yokes in phase",
            ),
            changes,
            governs=Governs(pose_mm=0.0),
            remedy="Equal and opposite angles at both ends of the shaft that moves, yokes in phase.",
        )
    )
    return out


def _slip(d: Driveline, s: Study, shaft: ShaftMotion, changes: Changes) -> list[Check]:
    there = s.motion.there if s.motion else np.ones(1, dtype=bool)
    travel = s.motion.travel if s.motion else np.zeros(1)
    change = np.where(there, shaft.length - shaft.length[s.ride], 0.0)
    far, near = int(np.argmax(change)), int(np.argmin(change))
    rows = (
        (
            "slip-engaged",
            d.engaged_mm - float(change[far]),
            "engaged - longer",
            {"engaged": d.engaged_mm, "longer": float(change[far])},
            far,
        ),
        (
            "slip-room",
            d.slip_mm - d.engaged_mm + float(change[near]),
            "splines - engaged - shorter",
            {"splines": d.slip_mm, "engaged": d.engaged_mm, "shorter": -float(change[near])},
            near,
        ),
    )
    remedies = {"slip-engaged": "A longer shaft, or longer splines.", "slip-room": "A shorter shaft."}
    return [
        judge(
            rule,
            SUBJECT,
            value,
            Why(formula=formula, values=values, words="mm; joint to joint through travel, against ride height"),
            changes,
            governs=Governs(pose_mm=float(travel[i])),
            remedy=remedies[rule],
        )
        for rule, value, formula, values, i in rows
    ]


def _critical(d: Driveline, s: Study, shaft: ShaftMotion, changes: Changes) -> Check:
    spans = np.sqrt((np.diff(shaft.points[s.ride], axis=0) ** 2).sum(axis=1))
    longest = float(spans.max())
    limit = critical_rpm(d, longest)
    return judge(
        "critical-speed",
        SUBJECT,
        d.most_rpm / limit,
        Why(
            formula="rpm / critical",
            values={"rpm": d.most_rpm, "critical": limit},
            words=f"first bending speed of the longest tube, {as_length(longest)} between its joints, pinned",
        ),
        changes,
        remedy="A larger tube, or two shafts with a bearing between.",
    )


def _near(d: Driveline, s: Study, shaft: ShaftMotion, changes: Changes) -> list[Check]:
    travel = s.motion.travel if s.motion else np.zeros(1)
    there = s.motion.there if s.motion else np.ones(1, dtype=bool)
    out = []
    for index, (thing, gap) in enumerate(zip(d.near, clearances(d, shaft), strict=True)):
        subject = Subject(subject=f"shaft-near-{index}", stage="travel")
        seen = np.where(there, gap, np.inf)
        if not np.isfinite(seen).any():
            off = not_computed(
                "shaft-clearance", subject, (f"/design/driveline/near/{index}/x_mm",), changes, thing.name
            )
            out.append(off.model_copy(update={"remedy": "The shaft does not pass this station."}))
            continue
        i = int(np.argmin(seen))
        out.append(
            judge(
                "shaft-clearance",
                subject,
                float(gap[i]) - d.clearance_mm,
                Why(
                    formula="gap - wanted",
                    values={"gap": float(gap[i]), "wanted": d.clearance_mm},
                    words=f"from the tube to {thing.name}, which lies {thing.lies} it, mm",
                ),
                changes,
                detail=thing.name,
                governs=Governs(station_mm=thing.x_mm, pose_mm=float(travel[i])),
                remedy="Arch the crossmember over the shaft, move it, or turn the shaft's line.",
            )
        )
    return out
