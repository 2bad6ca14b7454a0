"""A beam axle's knuckles: their angles from drag link and tie rod, and where their wheels stand."""

from dataclasses import dataclass
from typing import NamedTuple

import numpy as np

from nodulant.axles.points import HardPoint, on_axle
from nodulant.axles.steering import DragLink, KingPins
from nodulant.axles.suspension import Suspension
from nodulant.base.arrays import Columns, Mask
from nodulant.linkage.compiled import Pose
from nodulant.linkage.crank import Crank, axis_of, crank_angle, turned_about
from nodulant.linkage.mechanism import Point
from nodulant.linkage.rotation import rotated
from nodulant.steering.gear import pitman_moves
from nodulant.steering.rods import SteerRod, WheelPoses
from nodulant.suspension.motion import Setting, spin_at_rest

ROD_MM = 32.0
"""Diameter that drag link and tie rod are drawn and swept with."""


class Turn(NamedTuple):
    """A knuckle's angle about its king pin, radians, per pose."""

    right: Columns
    left: Columns


def knuckle_angles(gear: DragLink, pins: KingPins, hub: Point, pose: Pose, inner: Columns) -> tuple[Turn, Mask]:
    """Angles of both knuckles for every pose and every place ``inner`` (steers, 3) of the drag link's inner joint.

    All in the axle's own axes at rest: the drag link turns one knuckle, the tie rod the other.
    """
    origin = np.array(hub)
    held = np.repeat(pose.origin, len(inner), axis=0)
    back = np.repeat(np.swapaxes(pose.rotation, 1, 2), len(inner), axis=0)
    seen = rotated(back, (np.tile(inner, (len(pose.origin), 1)) - held)[:, None])[:, 0] + origin
    on_right = gear.knuckle.y_mm >= 0
    crank = {True: _crank(pins, gear.knuckle, hub, True), False: _crank(pins, gear.knuckle, hub, False)}[on_right]
    rest = gear.box.arm_end.xyz()
    length = float(np.linalg.norm(np.array(crank.end) - np.array(rest)))
    first = crank_angle(crank, seen, length, rest)
    arms = {side: _crank(pins, pins.tie_rod if side else pins.tie_rod.mirrored(), hub, side) for side in (True, False)}
    tie = float(np.linalg.norm(np.array(arms[True].end) - np.array(arms[False].end)))
    second = crank_angle(arms[not on_right], arms[on_right].at(first.angle), tie, arms[on_right].end)
    turn = Turn(first.angle, second.angle) if on_right else Turn(second.angle, first.angle)
    return turn, first.reaches & second.reaches


def _crank(pins: KingPins, end: HardPoint, hub: Point, right: bool) -> Crank:
    lower, upper = (p if right else p.mirrored() for p in (pins.lower, pins.upper))
    low = on_axle(lower, hub)
    return Crank(low, axis_of(low, on_axle(upper, hub)), on_axle(end, hub))


def on_knuckle(point: HardPoint, pins: KingPins, hub: Point, pose: Pose, angle: Columns) -> Columns:
    """Where a point of the right knuckle is, one angle for each pose; (n, 3)."""
    places = _crank(pins, point, hub, True).at(angle)
    return np.asarray(pose.origin + rotated(pose.rotation, (places - np.array(hub))[:, None])[:, 0])


@dataclass(frozen=True)
class OnBeam:
    """Both wheels of a beam axle in every pose and input, its rods, and where drag link and tie rod reach."""

    right: WheelPoses
    left: WheelPoses
    rods: tuple[SteerRod, ...]
    turn: Turn
    reaches: Mask


def on_beam(own: Suspension, gear: DragLink, pins: KingPins, setting: Setting, pose: Pose, inputs: Columns) -> OnBeam:
    """Wheels and rods for every pose of the axle and every input, arrays (poses, inputs, ..)."""
    hub, shape = setting.hub, (len(pose.origin), len(inputs))
    inner = np.array(gear.box.arm_end.xyz()) + pitman_moves(gear, inputs)
    turn, reaches = knuckle_angles(gear, pins, hub, pose, inner)
    every = pose.rows(np.repeat(np.arange(shape[0]), shape[1]))
    there = reaches.reshape(shape)

    def stands(points: Columns) -> Columns:
        arm = (points - np.array(hub))[:, None]
        return np.asarray(every.origin + rotated(every.rotation, arm)[:, 0]).reshape(*shape, 3)

    def on_knuckle(point: HardPoint, right: bool) -> Columns:
        return stands(_crank(pins, point, hub, right).at(turn.right if right else turn.left))

    wheels = {}
    for right in (True, False):
        sign = 1.0 if right else -1.0
        lower, upper = (on_axle(p if right else p.mirrored(), hub) for p in (pins.lower, pins.upper))
        crank = _crank(pins, HardPoint(x_mm=0.0, y_mm=sign * setting.half_track_mm, z_mm=0.0), hub, right)
        spin = spin_at_rest(own.camber_deg, own.toe_deg) * np.array([1.0, sign, 1.0])
        angle = turn.right if right else turn.left
        tip = turned_about(
            np.tile(np.array(crank.end) + spin, (len(angle), 1)), np.array(lower), np.array(crank.axis), angle
        )
        centre = stands(crank.at(angle))
        fixed = [stands(np.tile(p, (len(angle), 1))) for p in (lower, upper)]
        wheels[right] = WheelPoses(centre, stands(tip) - centre, fixed[0], fixed[1], there)
    on_right = gear.knuckle.y_mm >= 0
    held = np.broadcast_to(inner, (*shape, 3))
    ends = [on_knuckle(pins.tie_rod if right else pins.tie_rod.mirrored(), right) for right in (True, False)]
    rods = (
        SteerRod("drag link", held, on_knuckle(gear.knuckle, on_right), wheels[on_right], ROD_MM / 2),
        SteerRod("tie rod", ends[1], ends[0], wheels[True], ROD_MM / 2),
    )
    return OnBeam(wheels[True], wheels[False], rods, turn, there)
