"""Joint angles through travel, what is left of their unevenness, slip and critical speed.

The angle of a universal joint is that between its two shafts in space. One joint's speed is
uneven by 1/cos b - cos b peak to peak (cardan equation, textbook). Joints in phase add up as
b^2 turned by twice the angle of their plane about the shaft between them: what is left is that
of one joint of the equivalent angle sqrt(|sum +- b^2 e^(2i phi)|) (second harmonic, Wagner,
Universal Joint and Driveshaft Design Manual, SAE, from memory). Critical speed of a pinned tube:
n = (60 pi / 2) sqrt(1000 E I / (m L^4)).
"""

import math
from dataclasses import dataclass
from itertools import pairwise

import numpy as np

from nodulant.axles.points import on_axle
from nodulant.base.arrays import Columns, cross
from nodulant.driveline.driveline import Driveline
from nodulant.linkage.rotation import rotated
from nodulant.materials.steel import DENSITY_KG_PER_MM3, ELASTIC_MODULUS_MPA
from nodulant.suspension.motion import Motion


@dataclass(frozen=True)
class ShaftMotion:
    """The shaft through travel: joints by name from the front, degrees; what is left of their unevenness, as one angle."""

    joints: dict[str, Columns]
    left_deg: Columns
    length: Columns
    """Of the shaft that slides, joint to joint, mm."""
    points: Columns
    """Joints in space, (travels, joints, 3)."""


def shaft_motion(d: Driveline, m: Motion, pinion_deg: float) -> ShaftMotion:
    """Follow the shaft with the axle; ``pinion_deg`` nose up at ride height."""
    pose, hub = m.level.pose, m.setting.hub
    end = pose.origin + rotated(pose.rotation, np.array([on_axle(d.pinion, hub)]) - np.array(hub))[:, 0]
    # from the joint into the axle: rearward, down where the nose is up, to the left where it points to the right
    into = rotated(pose.rotation, np.array([_line(pinion_deg, -d.pinion_plan_deg)]))[:, 0]
    out = np.tile(_line(d.gearbox_deg, d.gearbox_plan_deg), (len(end), 1))
    fixed = [d.gearbox] if d.bearing is None else [d.gearbox, d.bearing]
    points = [np.tile(p.xyz(), (len(end), 1)) for p in fixed] + [end]
    shafts = [_unit(b - a) for a, b in pairwise(points)]
    lines = [out, *shafts, into]
    names = ("gearbox", "pinion") if d.bearing is None else ("gearbox", "bearing", "pinion")
    joints = {name: _between(a, b) for name, a, b in zip(names, lines[:-1], lines[1:], strict=True)}
    length = np.sqrt(((points[-1] - points[-2]) ** 2).sum(axis=1))
    return ShaftMotion(joints, _left(lines), length, np.stack(points, axis=1))


def _line(down_deg: float, right_deg: float) -> tuple[float, float, float]:
    """Unit vector straight back, down and to the right by angles in degrees."""
    down, right = math.radians(down_deg), math.radians(right_deg)
    return (math.cos(down) * math.cos(right), math.cos(down) * math.sin(right), -math.sin(down))


def _unit(v: Columns) -> Columns:
    return np.asarray(v / np.maximum(np.sqrt((v * v).sum(axis=1, keepdims=True)), 1e-9))


def _between(a: Columns, b: Columns) -> Columns:
    """Angle between two directions, degrees; exact for small ones."""
    return np.asarray(np.degrees(np.arctan2(np.sqrt((cross(a, b) ** 2).sum(axis=1)), (a * b).sum(axis=1))))


def _left(lines: list[Columns]) -> Columns:
    """Equivalent angle of all joints, degrees: yokes of every shaft in one plane, so that every other joint counts against."""
    total = np.zeros(len(lines[0]), dtype=complex)
    for k, (a, b) in enumerate(pairwise(lines)):
        axis = cross(a, b)
        size = np.sqrt((axis**2).sum(axis=1))
        angle = np.arctan2(size, (a * b).sum(axis=1))
        # the joint's plane about the fore-and-aft line: level or upright planes turn it by 0 or 90 degrees
        phase = np.arctan2(axis[:, 2], axis[:, 1])
        total += (-1) ** k * angle**2 * np.exp(2j * phase)
    return np.degrees(np.sqrt(np.abs(total)))


def critical_rpm(d: Driveline, length_mm: float) -> float:
    """First bending critical speed of the shaft between its joints, pinned."""
    inner = d.tube_mm - 2 * d.wall_mm
    inertia = math.pi / 64 * (d.tube_mm**4 - inner**4)
    mass = math.pi / 4 * (d.tube_mm**2 - inner**2) * DENSITY_KG_PER_MM3
    return 30 * math.pi * math.sqrt(1000 * ELASTIC_MODULUS_MPA * inertia / (mass * length_mm**4))


def unevenness(angle_deg: Columns) -> Columns:
    """Peak-to-peak variation of the output's speed over the input's for one joint at ``angle_deg``."""
    cos = np.cos(np.radians(angle_deg))
    return np.asarray(1 / cos - cos)


def clearances(d: Driveline, s: ShaftMotion) -> list[Columns]:
    """Gap from the tube to each thing near it through travel, mm; infinite where the shaft does not pass its station."""
    out = []
    for thing in d.near:
        gap = np.full(len(s.length), np.inf)
        for k in range(s.points.shape[1] - 1):
            a, b = s.points[:, k], s.points[:, k + 1]
            run = b[:, 0] - a[:, 0]
            t = (thing.x_mm - a[:, 0]) / np.where(np.abs(run) < 1e-9, 1e-9, run)
            z = a[:, 2] + t * (b[:, 2] - a[:, 2])
            own = (z - thing.z_mm if thing.lies == "below" else thing.z_mm - z) - d.tube_mm / 2
            gap = np.where((t >= 0) & (t <= 1), np.minimum(gap, own), gap)
        out.append(gap)
    return out
