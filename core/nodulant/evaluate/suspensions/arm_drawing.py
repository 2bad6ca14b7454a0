"""Wishbones that something stands on, as bodies that swing; their layouts have no pieces of their own, so they are numbered from 1."""

import numpy as np

from nodulant.axles.springs import Foothold, LeafPack
from nodulant.axles.suspension import Suspension
from nodulant.axles.wishbone import wishbone_of
from nodulant.evaluate.suspensions.travel_drawing import Turning
from nodulant.linkage.mechanism import CARRIER, FRAME
from nodulant.linkage.rotation import rotated
from nodulant.suspension.motion import Motion


def arm_bodies(own: Suspension) -> dict[Foothold, int]:
    """The number of the body that each foothold is, of those that springs and dampers stand on."""
    stood = [part.on for part in (own.springs, own.damper) if part is not None and not isinstance(part, LeafPack)]
    arms = sorted({on for on in stood if on != "upright"})
    return {"upright": CARRIER, **{on: k for k, on in enumerate(arms, start=1)}}


def arms_turning(own: Suspension, m: Motion) -> tuple[Turning, ...]:
    """The swings of those arms in every pose, by their number."""
    pose, there, out = m.level.pose, m.there, []
    for name in arm_bodies(own):
        arm = wishbone_of(m.layout, name, m.setting.hub)
        if arm is None:
            continue
        ball = pose.origin + rotated(pose.rotation, np.array([arm.ball]) - np.array(m.setting.hub))[:, 0]
        angle = np.round(np.where(there, arm.angle(ball), 0.0), 5).tolist()
        axis = np.round(arm.hinge, 6).tolist()
        out.append(Turning(parent=FRAME, point=list(arm.front), axis=axis, angle=angle))
    return tuple(out)
