"""An anti-roll bar as the screen draws it: its straight part, an arm that turns about it, a link down or up to the axle."""

from dataclasses import dataclass

import numpy as np

from nodulant.axles.points import on_axle
from nodulant.axles.suspension import Suspension
from nodulant.base.arrays import Columns
from nodulant.evaluate.suspensions.arm_drawing import arm_bodies
from nodulant.evaluate.suspensions.travel_drawing import Member
from nodulant.evaluate.suspensions.travel_parts import point
from nodulant.linkage.mechanism import CARRIER, FRAME, End, Point
from nodulant.linkage.rotation import rotated
from nodulant.suspension.anti_roll import bar_arm
from nodulant.suspension.motion import Motion

LINK_MM = 14.0


@dataclass(frozen=True)
class DrawnArm:
    """One side's arm: its root on the bar's axis, its hole at ride height, and how far it turns in every pose, radians."""

    side: str
    root: Point
    eye: Point
    foot: Point
    """The link's joint on the axle at ride height."""
    angle: Columns


def bar_arms(own: Suspension, m: Motion) -> tuple[DrawnArm, ...]:
    """The right arm of a single wheel, both arms of a beam axle; none where nobody measured where the bar runs."""
    bar = own.anti_roll
    if bar is None or bar.runs is None:
        return ()
    rest, hub, pose = on_axle(bar.drop, m.setting.hub), np.array(m.setting.hub), m.sweep.solved.pose
    there, out = m.sweep.there.reshape(-1), []
    for side, sign in (("right", 1.0),) if own.layout.independent else (("right", 1.0), ("left", -1.0)):
        flip = np.array([1.0, sign, 1.0])
        joint = pose.origin + rotated(pose.rotation, np.array([rest]) * flip - hub)[:, 0]
        eyes = bar_arm(bar, bar.runs, rest, np.concatenate([joint * flip, np.array([rest])])).eye
        x, _, z = bar.runs.bend.xyz()
        turned = np.arctan2(eyes[:, 2] - z, eyes[:, 0] - x)
        # about an axis to the right what points rearward goes down
        angle = (turned[-1] - turned[:-1] + np.pi) % (2 * np.pi) - np.pi
        root, eye, foot = (_flipped(p, sign) for p in (bar.runs.bend.xyz(), eyes[-1], rest))
        out.append(DrawnArm(side, root, eye, foot, np.where(there, angle, 0.0)))
    return tuple(out)


def bar_members(own: Suspension, m: Motion) -> list[Member]:
    """The straight part, arms and links; arms are bodies of their own, after those of the layout and the wishbones."""
    arms, bar = bar_arms(own, m), own.anti_roll
    if not arms or bar is None:
        return []
    first = 1 + len(m.sweep.compiled.mechanism.pieces) + len(arm_bodies(own)) - 1
    x, y, z = arms[0].root
    far = 0.0 if own.layout.independent else -y
    out = [_member("anti-roll bar", End(FRAME, (x, far, z)), End(FRAME, arms[0].root), bar.diameter_mm)]
    for k, arm in enumerate(arms, start=first):
        out.append(_member(f"anti-roll bar's arm, {arm.side}", End(k, arm.root), End(k, arm.eye), bar.diameter_mm))
        out.append(_member(f"anti-roll bar's link, {arm.side}", End(k, arm.eye), End(CARRIER, arm.foot), LINK_MM))
    return out


def _member(name: str, a: End, b: End, wide: float) -> Member:
    return Member(name=name, kind="rod", path="", a=point(a), b=point(b), diameter_mm=wide)


def _flipped(p: Point | Columns, sign: float) -> Point:
    return float(p[0]), sign * float(p[1]), float(p[2])
