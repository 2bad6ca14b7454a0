"""Where an anti-roll bar's arms stand: each turns about the bar's axis, held by a drop link of fixed length.

Seen along the bar, with D the drop link's joint on the axle, d from the axis to it, a the arm and l the
link as far as it lies in that plane, the arm stands at the angle from D whose cosine is
(a^2 + d^2 - l^2)/(2 a d) (law of cosines). Which of both ways is the way the link hangs. The link is
upright seen from behind at ride height: the arm's hole lies as far out as its joint there (common practice).
"""

from dataclasses import dataclass

import numpy as np

from nodulant.axles.points import on_axle
from nodulant.axles.springs import AntiRollBar, BarRun
from nodulant.base.arrays import Columns, Mask
from nodulant.linkage.mechanism import Point
from nodulant.linkage.rotation import rotated
from nodulant.suspension.motion import Motion

LEAST_MM = 1e-6


@dataclass(frozen=True)
class BarArm:
    """The right arm's hole for its drop link, (..., 3), mm, and where the link reaches; elsewhere the arm points at its joint."""

    eye: Columns
    reaches: Mask


def bar_arm(bar: AntiRollBar, run: BarRun, rest: Point, joint: Columns) -> BarArm:
    """The right arm for the places ``joint`` (..., 3) of the drop link's joint on the axle, ``rest`` at ride height."""
    axis, arm = run.bend.xyz(), bar.arm_mm
    off = joint[..., 0] - axis[0], joint[..., 2] - axis[2]
    far = np.maximum(np.hypot(*off), LEAST_MM)
    across = joint[..., 1] - rest[1]
    flat = run.link_mm**2 - across**2
    cosine = (arm**2 + far**2 - flat) / (2 * arm * far)
    rearward = rest[0] >= axis[0]
    way = 1.0 if rearward == (run.link_hangs == "down") else -1.0
    angle = np.arctan2(off[1], off[0]) + way * np.arccos(np.clip(cosine, -1.0, 1.0))
    x, z = axis[0] + arm * np.cos(angle), axis[2] + arm * np.sin(angle)
    return BarArm(np.stack([x, np.full_like(x, rest[1]), z], axis=-1), np.abs(cosine) <= 1.0)


def arm_through_travel(bar: AntiRollBar, run: BarRun, m: Motion) -> BarArm:
    """The right arm level through travel, (travels, 3) and (travels,)."""
    rest, pose = on_axle(bar.drop, m.setting.hub), m.level.pose
    joint = pose.origin + rotated(pose.rotation, np.array([rest]) - np.array(m.setting.hub))[:, 0]
    found = bar_arm(bar, run, rest, joint)
    return BarArm(found.eye, found.reaches & m.there)
