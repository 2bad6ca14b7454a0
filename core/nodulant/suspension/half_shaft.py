"""A half shaft through travel: angle at both joints and plunge.

The inner joint turns about the car's own cross axis, the outer one about the wheel's; the angle at
each is that between its axis and the shaft; plunge is how far the distance between them changes.
"""

from dataclasses import dataclass

import numpy as np

from nodulant.axles.points import on_axle
from nodulant.axles.springs import HalfShaft
from nodulant.base.arrays import Columns
from nodulant.suspension.motion import Motion


@dataclass(frozen=True)
class HalfShaftMotion:
    """Angles, degrees, and the distance between the joints, mm, through travel."""

    inner_deg: Columns
    outer_deg: Columns
    length: Columns


def half_shaft_motion(shaft: HalfShaft, m: Motion) -> HalfShaftMotion:
    """Follow the shaft with its wheel."""
    pose, hub = m.level.pose, np.array(m.setting.hub)
    outer = pose.origin + np.einsum("nij,j->ni", pose.rotation, np.array(on_axle(shaft.outer, m.setting.hub)) - hub)
    gap = outer - np.array(shaft.inner.xyz())
    length = np.sqrt((gap**2).sum(axis=1))
    along = gap / np.maximum(length, 1e-9)[:, None]
    across = np.array([0.0, 1.0, 0.0])
    wheel = np.einsum("nij,j->ni", pose.rotation, across)
    return HalfShaftMotion(
        np.degrees(np.arccos(np.clip(along @ across, -1.0, 1.0))),
        np.degrees(np.arccos(np.clip((along * wheel).sum(axis=1), -1.0, 1.0))),
        length,
    )
