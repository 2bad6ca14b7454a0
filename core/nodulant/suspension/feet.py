"""Springs and dampers through travel: their lower ends on the carrier, or on a wishbone that the carrier swings.

A torsion bar counts at its arm's ball joint: its 'length' is the ball joint's way along its arc, mm, its force the
torque over the arm's reach; so what holds for a spring between two eyes holds for it.
"""

from dataclasses import dataclass
from functools import cached_property

import numpy as np

from nodulant.axles.points import HardPoint, on_axle
from nodulant.axles.springs import Foothold
from nodulant.axles.wishbone import Wishbone, wishbone_of
from nodulant.base.arrays import Columns, cross
from nodulant.linkage.compiled import Pose
from nodulant.linkage.mechanism import Point
from nodulant.suspension.motion import Motion, own_rise


@dataclass(frozen=True)
class Foot:
    """A lower end at ride height, frame axes, and the arm that it stands on, if it stands on one."""

    at: Point
    arm: Wishbone | None = None

    def mirrored(self) -> "Foot":
        """The left one of a beam axle."""
        return Foot((self.at[0], -self.at[1], self.at[2]), self.arm)


@dataclass(frozen=True)
class Strung:
    """A spring or damper between a foot and a point of the frame."""

    foot: Foot
    upper: Point

    def lengths(self, place: Columns) -> Columns:
        """From end to end while its foot is at ``place`` (..., 3), mm."""
        return np.asarray(np.sqrt(((place - np.array(self.upper)) ** 2).sum(axis=-1)))

    def push(self, place: Columns) -> Columns:
        """Unit vectors along which it pushes its foot, (..., 3)."""
        gap = place - np.array(self.upper)
        return np.asarray(gap / self.lengths(place)[..., None])

    def on_arm(self, place: Columns, newtons: float) -> Columns:
        """Force on its foot, N, (3,)."""
        return newtons * self.push(place)

    def on_frame(self, place: Columns, newtons: float) -> list[tuple[Point, Columns]]:
        """Where it bears on the frame, and with what force, N."""
        return [(self.upper, -newtons * self.push(place))]


KEY_MM = 100.0
"""Half of the crossmember's width that a bar's key is taken to bear on (common practice)."""


@dataclass(frozen=True)
class Twisted:
    """A torsion bar along an arm's hinge; its foot is the arm's ball joint."""

    foot: Foot
    arm: Wishbone
    anchor: Point
    """Its end at the key, on the frame."""

    @property
    def upper(self) -> Point:
        """Its end on the frame."""
        return self.anchor

    @cached_property
    def reach_mm(self) -> float:
        """From the hinge to the ball joint, square to the hinge."""
        gap = np.array(self.arm.ball) - np.array(self.arm.front)
        return float(np.linalg.norm(cross(gap, self.arm.hinge)))

    @cached_property
    def _down(self) -> float:
        """1 where a turn right-handed about the hinge lets the ball joint down, else -1."""
        return -1.0 if cross(self.arm.hinge, self.arm.outward(np.array(self.arm.ball)))[2] > 0 else 1.0

    def lengths(self, place: Columns) -> Columns:
        """How far the ball joint hangs along its arc below its place at ride height, mm."""
        return np.asarray(self._down * self.reach_mm * self.arm.angle(place))

    def push(self, place: Columns) -> Columns:
        """Unit vectors along the arc, down, (..., 3)."""
        return np.asarray(self._down * cross(self.arm.hinge, self.arm.outward(place)))

    def on_arm(self, place: Columns, newtons: float) -> Columns:
        """It twists the arm and does not push it: none."""
        return np.zeros(3)

    def on_frame(self, place: Columns, newtons: float) -> list[tuple[Point, Columns]]:
        """Its torque at the key, as a couple of upright forces."""
        x, y, z = self.anchor
        lift = self._down * newtons * self.reach_mm * float(self.arm.hinge[0]) / (2 * KEY_MM)
        return [((x, y + side * KEY_MM, z), np.array([0.0, 0.0, -side * lift])) for side in (1.0, -1.0)]


Springing = Strung | Twisted


def foot_of(point: HardPoint, on: Foothold, m: Motion) -> Foot:
    """A lower end as the document has it; raises InputError where its arm is not there."""
    hub = m.setting.hub
    return Foot(on_axle(point, hub), wishbone_of(m.layout, on, hub))


def stands(foot: Foot, m: Motion) -> Columns:
    """Where a foot is through level travel, (travels, 3)."""
    return stands_in(foot, m.setting.hub, m.level.pose)


def stands_in(foot: Foot, hub: Point, pose: Pose) -> Columns:
    """Where a foot is in every pose, (poses, 3)."""

    def carried(point: Point) -> Columns:
        return np.asarray(pose.origin + np.einsum("nij,j->ni", pose.rotation, np.array(point) - np.array(hub)))

    return carried(foot.at) if foot.arm is None else foot.arm.carried(foot.at, carried(foot.arm.ball))


def moves(foot: Foot, m: Motion) -> Columns:
    """Its velocity per unit of the heave drive, (travels, 3)."""
    v, w = m.heave[:, :3], m.heave[:, 3:6]
    if foot.arm is None:
        return np.asarray(v + cross(w, _arm(foot.at, m)))
    arm = foot.arm
    to_ball = _arm(arm.ball, m)
    ball = m.level.pose.origin + to_ball
    ball_v = v + cross(w, to_ball)
    out = arm.outward(ball)
    front = np.array(arm.front)
    reach = ((ball - front) * out).sum(axis=1)
    turning = (ball_v * cross(arm.hinge, out)).sum(axis=1) / reach
    place = arm.carried(foot.at, ball)
    return np.asarray(turning[:, None] * cross(arm.hinge, place - front))


def heights(strung: Springing, m: Motion) -> tuple[Columns, Columns]:
    """Length of a spring through travel, mm, and its motion ratio: MR = -d(length)/d(wheel travel) in heave."""
    place = stands(strung.foot, m)
    return strung.lengths(place), -(strung.push(place) * moves(strung.foot, m)).sum(axis=1) / own_rise(m)


def bears(strung: Springing, m: Motion, row: int) -> tuple[Columns, Columns]:
    """Force on the carrier per newton that the spring pushes, and where it acts, (3,) each, frame axes; at one travel."""
    place = stands(strung.foot, m)[row]
    push = strung.push(place)
    if strung.foot.arm is None:
        return push, place
    ball = m.level.pose.origin[row] + _arm(strung.foot.arm.ball, m)[row]
    size, way = strung.foot.arm.leverage(place[None], ball[None], push[None])
    return np.asarray(size[0] * way[0]), ball


def _arm(point: Point, m: Motion) -> Columns:
    return np.asarray(np.einsum("nij,j->ni", m.level.pose.rotation, np.array(point) - np.array(m.setting.hub)))
