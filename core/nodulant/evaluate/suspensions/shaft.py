"""The propeller shaft as the screen gets it: joints to drag, tubes, curves."""

from itertools import pairwise

from nodulant.axles.points import on_axle
from nodulant.driveline.driveline import Driveline
from nodulant.driveline.shaft import ShaftMotion, shaft_motion
from nodulant.evaluate.curve import Band, Curve, curves_of
from nodulant.evaluate.suspensions.travel_drawing import Member
from nodulant.evaluate.suspensions.travel_parts import point
from nodulant.linkage.mechanism import End, Point
from nodulant.suspension.motion import Motion
from nodulant.suspension.study import Study


def shaft_of(driveline: Driveline | None, s: Study | None) -> ShaftMotion | None:
    """The shaft through the rear axle's travel; None without one of them, or the pinion's angle."""
    if driveline is None or s is None or s.motion is None or s.suspension.pinion_deg is None:
        return None
    return shaft_motion(driveline, s.motion, s.suspension.pinion_deg)


def shaft_grips(driveline: Driveline | None, hub: Point) -> dict[str, tuple[str, End]]:
    """The shaft's joints as points to drag."""
    if driveline is None:
        return {}
    out = {
        "driveline.gearbox": ("shaft, gearbox", End(-1, driveline.gearbox.xyz())),
        "driveline.pinion": ("shaft, pinion", End(0, on_axle(driveline.pinion, hub))),
    }
    if driveline.bearing is not None:
        out["driveline.bearing"] = ("shaft, bearing", End(-1, driveline.bearing.xyz()))
    return out


def shaft_members(driveline: Driveline | None, s: Study) -> tuple[Member, ...]:
    """The shaft's tubes as drawn."""
    if driveline is None or s.setting is None:
        return ()
    fixed = [driveline.gearbox] if driveline.bearing is None else [driveline.gearbox, driveline.bearing]
    ends = [End(-1, p.xyz()) for p in fixed] + [End(0, on_axle(driveline.pinion, s.setting.hub))]
    return tuple(
        Member(
            name=f"shaft {k}",
            kind="shaft",
            path="driveline",
            a=point(a),
            b=point(b),
            diameter_mm=driveline.tube_mm,
        )
        for k, (a, b) in enumerate(pairwise(ends), start=1)
    )


def shaft_curves(driveline: Driveline | None, s: Study, m: Motion, shaft: ShaftMotion | None) -> tuple[Curve, ...]:
    """Joint angles, what is left of their unevenness, and the slide."""
    if shaft is None or driveline is None:
        return ()
    words = "between its two shafts in space"
    rows = [(f"joint-{n}", f"Shaft joint, {n}", "deg", column, words) for n, column in shaft.joints.items()]
    rows.append(("joints-left", "Shaft's unevenness left", "deg", shaft.left_deg, "as one joint at this angle"))
    slide = shaft.length - shaft.length[s.ride]
    rows.append(("slip", "Shaft gets longer by", "mm", slide, "joint to joint, against ride height"))
    bands = {f"joint-{n}": Band(most=driveline.joint_deg) for n in shaft.joints}
    bands["slip"] = Band(least=driveline.engaged_mm - driveline.slip_mm, most=driveline.engaged_mm)
    return curves_of(rows, m.there, s.ride, bands)
