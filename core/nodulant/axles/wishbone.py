"""An arm as a body of its own: it swings about its two pivots and carries its ball joint, and perhaps a spring.

``place = front + a u + b e + c n``: u along the hinge, e square to it towards the ball joint, n = u x e,
with a, b, c as they are at ride height; e follows the ball joint.
"""

from dataclasses import dataclass
from functools import cached_property

import numpy as np

from nodulant.axles.layouts.independent import DoubleWishbone, Strut
from nodulant.axles.layouts.layout import Layout
from nodulant.axles.points import on_axle
from nodulant.axles.springs import Foothold
from nodulant.base.arrays import Columns, cross
from nodulant.base.errors import InputError
from nodulant.linkage.mechanism import Point
from nodulant.units.inline import as_length

LEAST_ARM_MM = 20.0


@dataclass(frozen=True)
class Wishbone:
    """The right-hand arm at ride height, frame axes, mm."""

    name: Foothold
    front: Point
    rear: Point
    ball: Point

    @cached_property
    def hinge(self) -> Columns:
        """Unit vector from the front to the rear pivot, (3,)."""
        along = np.array(self.rear) - np.array(self.front)
        return np.asarray(along / np.linalg.norm(along))

    def outward(self, ball: Columns) -> Columns:
        """Unit vectors square to the hinge towards the ball joint at ``ball`` (..., 3)."""
        gap = ball - np.array(self.front)
        u = self.hinge
        square = gap - (gap @ u)[..., None] * u
        return np.asarray(square / np.linalg.norm(square, axis=-1, keepdims=True))

    def carried(self, point: Point, ball: Columns) -> Columns:
        """Where a point of the arm is while its ball joint is at ``ball`` (..., 3)."""
        u, rest = self.hinge, self.outward(np.array(self.ball))
        arm = np.array(point) - np.array(self.front)
        out = self.outward(ball)
        along, reach, above = arm @ u, arm @ rest, arm @ cross(u, rest)
        return np.asarray(np.array(self.front) + along * u + reach * out + above * cross(u, out))

    def angle(self, ball: Columns) -> Columns:
        """How far the arm has swung about its hinge since ride height, radians, right-handed about it."""
        rest, out = self.outward(np.array(self.ball)), self.outward(ball)
        return np.arctan2(cross(rest, out) @ self.hinge, out @ rest)

    def leverage(self, at: Columns, ball: Columns, push: Columns) -> tuple[Columns, Columns]:
        """What a push of 1 along ``push`` on the arm at ``at`` bears on the ball joint with: its size, and which way.

        Moments about the hinge (statics); what is left goes into the pivots. Shapes (n,) and (n, 3).
        """
        u, out = self.hinge, self.outward(ball)
        way = cross(u, out)
        front = np.array(self.front)
        reach = ((ball - front) * out).sum(axis=-1)
        moment = cross(at - front, push) @ u
        return moment / reach, way


def wishbone_of(layout: Layout, on: Foothold, hub: Point) -> Wishbone | None:
    """The arm that a foot stands on; None for the upright or axle itself. Raises InputError where there is no such arm."""
    if on == "upright":
        return None
    if not isinstance(layout, DoubleWishbone | Strut) or (isinstance(layout, Strut) and on == "upper-arm"):
        raise InputError(
            f"this layout has no {on.replace('-', ' ')}",
            field="on",
            found=on,
            acceptable="upright, or an arm that is there",
        )
    if isinstance(layout, DoubleWishbone) and on == "upper-arm":
        front, rear, ball = layout.upper_front, layout.upper_rear, layout.upper_ball
    else:
        front, rear, ball = layout.lower_front, layout.lower_rear, layout.lower_ball
    arm = Wishbone(on, front.xyz(), rear.xyz(), on_axle(ball, hub))
    gap = np.array(arm.ball) - np.array(arm.front)
    if np.linalg.norm(cross(gap, arm.hinge)) < LEAST_ARM_MM:
        raise InputError(
            f"the {on.replace('-', ' ')}'s ball joint lies on its hinge",
            field="on",
            found=on,
            acceptable=f"{as_length(LEAST_ARM_MM)} or more beside it",
        )
    return arm
