"""Wishbones as bodies that swing, for what stands on them; numbered after the mechanism's own pieces, of which such layouts have none."""

import numpy as np

from nodulant.axles.layouts.independent import DoubleWishbone, Strut
from nodulant.axles.springs import Foothold
from nodulant.axles.wishbone import wishbone_of
from nodulant.evaluate.travel_drawing import Turning
from nodulant.linkage.mechanism import CARRIER, FRAME
from nodulant.linkage.rotation import rotated
from nodulant.suspension.motion import Motion

ARM_BODIES: dict[Foothold, int] = {"upright": CARRIER, "lower-arm": 1, "upper-arm": 2}


def arms_turning(m: Motion) -> tuple[Turning, ...]:
    """The arms' swings in every pose, lower one first; none where the layout has none."""
    if not isinstance(m.layout, DoubleWishbone | Strut):
        return ()
    names: tuple[Foothold, ...] = ("lower-arm", "upper-arm") if isinstance(m.layout, DoubleWishbone) else ("lower-arm",)
    pose, there, out = m.level.pose, m.there, []
    for name in names:
        arm = wishbone_of(m.layout, name, m.setting.hub)
        if arm is None:
            continue
        ball = pose.origin + rotated(pose.rotation, np.array([arm.ball]) - np.array(m.setting.hub))[:, 0]
        angle = np.round(np.where(there, arm.angle(ball), 0.0), 6).tolist()
        out.append(Turning(parent=FRAME, point=list(arm.front), axis=arm.hinge.tolist(), angle=angle))
    return tuple(out)
