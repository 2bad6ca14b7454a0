"""Checks of the steering: sense, lock, grip of rods on arms, bump and roll steer."""

from dataclasses import replace

import numpy as np

from nodulant.axles.layouts.independent import Steered
from nodulant.axles.points import Joints
from nodulant.axles.steering import DragLink, Rack
from nodulant.checks.check import Changes, Check, Governs, Subject, Why, judge, not_computed
from nodulant.steering.study import (
    Lock,
    SteerStudy,
    ackermann_percent,
    bump_steer,
    bump_steer_per_inch,
    gear_grips_deg,
    grips_deg,
    lock,
    sense,
    turns_back,
)
from nodulant.suspension.study import Study
from nodulant.units.said import said

ROLL_DEG, NEARLY, ACKERMANN_AT_DEG = 3.0, 1e-6, 20.0
RULES = ("steer-sense", "lock-reached", "bump-steer")


def about(s: Study, part: str = "steering", side: str = "both") -> Subject:
    """Checks of the steering belong to their own stage."""
    return Subject(subject=f"{s.suspension.axle}-{part}", side=side, stage="steer")


def _bumping(q: SteerStudy) -> Subject:
    """What bump does to the steering is told together."""
    return replace(about(q.study), cause=f"bump steers {q.study.suspension.axle}")


def unsteered_checks(s: Study, changes: Changes) -> list[Check]:
    """A front axle whose steering was not given, or whose suspension does not move: nothing is computed."""
    missing = s.missing or (f"/design/suspensions/{s.suspension.axle}/steering",)
    reason = s.trouble.message if s.trouble else "give the steering gear"
    checks = [not_computed(rule, about(s), missing, changes) for rule in RULES]
    return [check.model_copy(update={"remedy": reason}) for check in checks]


def steer_checks(q: SteerStudy, changes: Changes) -> list[Check]:
    """Every check of one axle's steering; 'not computed' with the reason where it does not move."""
    s = q.study
    if q.trouble is not None:
        field = f"/design/suspensions/{s.suspension.axle}/{q.trouble.field or 'steering'}"
        checks = [not_computed(rule, about(s), (field,), changes) for rule in RULES]
        return [check.model_copy(update={"remedy": q.trouble.message}) for check in checks]
    return [
        *_sense(q, changes),
        *_locks(q, changes),
        *_ackermann(q, changes),
        *_grips(q, changes),
        *_tilts(q, changes),
        *_bump(q, changes),
        *_roll(q, changes),
    ]


def _sense(q: SteerStudy, changes: Changes) -> list[Check]:
    turned = sense(q)
    if turned is None:
        missing = (f"/design/suspensions/{q.study.suspension.axle}/steering/gear",)
        check = not_computed("steer-sense", about(q.study), missing, changes)
        return [check.model_copy(update={"remedy": "the wheels do not turn at all about the middle"})]
    back = turns_back(q)
    if back is not None:
        return [_passes_over(q, back, changes)]
    return [
        judge(
            "steer-sense",
            about(q.study),
            turned,
            Why(
                formula="turned",
                values={"turned": turned},
                words="1 where both wheels turn right on a steering wheel turned right; followed through gear, rods and arms. Prove it on the vehicle before the first drive",
            ),
            changes,
            remedy="Mirror the arm or the box, move the rods to the other side of the axle, or say which way the gear moves.",
            same_as_stock=True,
        )
    ]


def _passes_over(q: SteerStudy, back: float, changes: Changes) -> Check:
    """A wheel that turns back within the stroke: an arm has passed over its rod."""
    check = judge(
        "steer-sense",
        about(q.study),
        0.0,
        Why(
            formula="turned",
            values={"turned": 0.0, "at": back},
            words="every wheel turns one way over the whole stroke",
        ),
        changes,
        remedy="Turn the arm on its shaft, shorten its swing, or move the rod, until no arm comes in line with its rod.",
    )
    way = "right" if back > 0 else "left"
    words = said(
        f"an arm passes over its rod at {{at}} of the lock to the {way}: beyond it a wheel turns back",
        at=(abs(back), "share"),
    )
    return check.model_copy(update={"said": words})


def _ackermann(q: SteerStudy, changes: Changes) -> list[Check]:
    """Inner against outer wheel on the way to both locks, the worse of both ways; a lock too small for it says so by itself."""
    if q.study.vehicle.wheelbase_mm is None:
        return [not_computed("ackermann-least", about(q.study), ("/survey/wheelbase_mm",), changes)]
    found = [p for way in (1, -1) if (p := ackermann_percent(q, ACKERMANN_AT_DEG, way)) is not None]
    if not found:
        return []
    out = []
    for rule, value in (("ackermann-least", min(found)), ("ackermann-most", max(found))):
        why = Why(
            formula="percent",
            values={"percent": value},
            words=f"share of Ackermann's difference with the inner wheel at {ACKERMANN_AT_DEG:.0f} degrees: 100 rolls freely, 0 is parallel, below 0 the outer wheel turns more",
        )
        remedy = "Steering arms that point to the middle of the rear axle, or the rods to the other side of the axle."
        out.append(
            judge(
                rule,
                replace(about(q.study), cause=f"ackermann {q.study.suspension.axle}"),
                value,
                why,
                changes,
                remedy=remedy,
            )
        )
    return out


def _locks(q: SteerStudy, changes: Changes) -> list[Check]:
    out: list[Check] = []
    found: dict[str, Lock] = {}
    ends = ("", "") if q.wheels is None else q.wheels.ends
    for way, side, end in ((1, "right", ends[1]), (-1, "left", ends[0])):
        here = lock(q, way)
        if here is None:
            continue
        found[side] = here
        out.append(
            judge(
                "lock-reached",
                about(q.study, "steering", side),
                here.reached,
                Why(
                    formula="reached",
                    values={"reached": here.reached},
                    words=f"share of the gear's stroke at ride height; inner wheel {here.inner_deg:.1f}, outer {here.outer_deg:.1f} degrees there. {end}",
                ),
                changes,
                detail=f"to the {side}",
                remedy=f"{end[:1].upper()}{end[1:]}." if end else "",
                same_as_stock=True,
            )
        )
    if len(found) == 2:
        one, two = found["right"].inner_deg, found["left"].inner_deg
        out.append(
            judge(
                "lock-equal",
                about(q.study),
                abs(one - two),
                Why(
                    formula="abs(one - two)",
                    values={"one": one, "two": two},
                    words="inner wheel at full lock, to the right and to the left",
                ),
                changes,
                remedy="Centre the gear between its stops, and the wheels on it.",
            )
        )
    return out


def _grips(q: SteerStudy, changes: Changes) -> list[Check]:
    return [
        judge(
            "rod-grip",
            about(q.study, name.split(",")[0].replace(" ", "-"), name.partition(", ")[2] or "both"),
            angle,
            Why(
                formula="angle",
                values={"angle": angle},
                words=f"between rod and arm along the arm's own axis, at {abs(at):.0%} of the lock to the {'right' if at >= 0 else 'left'}; 90 pulls best, at 0 the rod passes over its arm",
            ),
            changes,
            detail=name.split(",")[0],
            remedy="A longer arm, a shorter stroke, or the rod's inner joint moved so that it stands squarer.",
        )
        for name, (angle, at) in {**grips_deg(q), **gear_grips_deg(q)}.items()
    ]


def _tilts(q: SteerStudy, changes: Changes) -> list[Check]:
    """Joints of the rods over all travel and lock: outer ones on their arms, a rack's inner ones against the rack."""
    if q.wheels is None:
        return []
    own, out = q.study.suspension, []
    joints = own.layout.toe.joints if isinstance(own.layout, Steered) else Joints()
    for rod in q.wheels.rods:
        name, _, side = rod.name.partition(", ")
        ends = [
            (
                "outer",
                rod.outer_tilt_deg(q.ride, q.ahead),
                "from where it stands straight ahead, its stud along the king pin",
            )
        ]
        if own.steering is not None and isinstance(own.steering.gear, Rack):
            words = "against the rack's own line"
            ends.append(("inner", rod.off_axis_deg(np.array([0.0, 1.0, 0.0])), words))
        for end, tilt, words in ends:
            held = np.where(rod.wheel.there, tilt, 0.0)
            t, k = np.unravel_index(int(np.argmax(held)), held.shape)
            most, at = float(held[t, k]), float(q.wheels.inputs[k])
            way = f"{abs(at):.0%} of the lock to the {'right' if at > 0 else 'left'}" if at else "straight ahead"
            why = Why(
                formula="tilt / allowed",
                values={"tilt": most, "allowed": joints.swing_deg},
                words=f"degrees, {words}; {way}",
            )
            out.append(
                judge(
                    "rod-tilt",
                    about(q.study, f"{name.replace(' ', '-')}-{end}", side or "both"),
                    most / joints.swing_deg,
                    why,
                    changes,
                    governs=Governs(pose_mm=float(q.wheels.travel[t])),
                    detail=f"{name}, {end} end",
                    remedy="A joint that tilts further, less lock, or the arm's joint nearer to the rod's line.",
                )
            )
    return out


def _bump(q: SteerStudy, changes: Changes) -> list[Check]:
    values, m = bump_steer(q), q.study.motion
    total = bump_steer_per_inch(q)
    if total is None or values is None or m is None:
        return [
            not_computed(
                "bump-steer", about(q.study), (f"/design/suspensions/{q.study.suspension.axle}/steering",), changes
            )
        ]
    good = m.there & np.isfinite(values)
    words = "steer of both wheels of the axle" if q.beam else "toe of both wheels together"
    span = float(values[good].max() - values[good].min())
    at = int(np.argmax(np.where(good, np.abs(values - values[q.study.ride]), -1.0)))
    return [
        judge(
            "bump-steer",
            _bumping(q),
            abs(total),
            Why(
                formula="abs(slope)",
                values={"slope": total},
                words=f"{words} per inch of travel at ride height, the steering wheel held",
            ),
            changes,
            governs=Governs(pose_mm=0.0),
            remedy=_cure(q),
        ),
        judge(
            "bump-steer-all",
            _bumping(q),
            span,
            Why(
                formula="most - least",
                values={"most": float(values[good].max()), "least": float(values[good].min())},
                words="of one wheel over droop and bump, the steering wheel held",
            ),
            changes,
            governs=Governs(pose_mm=float(m.travel[at])),
            remedy=_cure(q),
        ),
    ]


def _cure(q: SteerStudy) -> str:
    steering = q.study.suspension.steering
    if steering is not None and isinstance(steering.gear, DragLink):
        return "Drag link parallel to the track bar (or to the springs' equivalent arm) and as long; the finder gives heights."
    return "Inner joints on the line through the instant centre, at the right length; the finder gives height, width or spacer."


def _roll(q: SteerStudy, changes: Changes) -> list[Check]:
    m = q.study.motion
    if q.in_roll is None or m is None:
        return []
    degrees = np.degrees(m.sweep.roll)
    rows = np.flatnonzero((np.abs(np.abs(degrees) - ROLL_DEG) < NEARLY) & np.isfinite(q.in_roll))
    if len(rows) == 0:
        return []
    most = float(np.abs(q.in_roll[rows]).max())
    return [
        judge(
            "roll-steer-front",
            about(q.study),
            most,
            Why(
                formula="most",
                values={"most": most},
                words=f"mean steer of both wheels at {ROLL_DEG:.0f} degrees of roll either way, the steering wheel held: axle and drag link together",
            ),
            changes,
            remedy="A drag link as long as the track bar and parallel to it.",
        )
    ]
