"""Lower ends of springs and dampers through travel: on the carrier, or on a wishbone that the carrier swings."""

from dataclasses import dataclass

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


def heights(strung: Strung, m: Motion) -> tuple[Columns, Columns]:
    """Length of a spring through travel, mm, and its motion ratio: MR = -d(length)/d(wheel travel) in heave."""
    gap = stands(strung.foot, m) - np.array(strung.upper)
    length = np.sqrt((gap**2).sum(axis=1))
    return length, -((gap / length[:, None]) * moves(strung.foot, m)).sum(axis=1) / own_rise(m)


def bears(strung: Strung, m: Motion, row: int) -> tuple[Columns, Columns]:
    """Force on the carrier per newton that the spring pushes, and where it acts, (3,) each, frame axes; at one travel."""
    place = stands(strung.foot, m)[row]
    gap = place - np.array(strung.upper)
    push = gap / np.linalg.norm(gap)
    if strung.foot.arm is None:
        return push, place
    ball = m.level.pose.origin[row] + _arm(strung.foot.arm.ball, m)[row]
    size, way = strung.foot.arm.leverage(place[None], ball[None], push[None])
    return np.asarray(size[0] * way[0]), ball


def _arm(point: Point, m: Motion) -> Columns:
    return np.asarray(np.einsum("nij,j->ni", m.level.pose.rotation, np.array(point) - np.array(m.setting.hub)))
