"""Roll stiffness of an axle from its springs and its anti-roll bar.

A bar of length L and polar moment J with arms a twists by 2 d/a when its ends move d against each
other, so each end feels 2 G J d/(L a^2) (textbook torsion; the arms' own bending is left out). Where the
bar was measured, its drop link turns the arm by e.v/(a e.t) as its joint moves by v, with e the link's
direction and t the way that the arm's hole goes (a rigid link's velocities); else arms count as level
and links as upright.
An axle's roll stiffness is twice the wheel rate in roll times half the track squared; the wheel rate is
k MR^2 + F d2c/dz2 in roll as it is in heave (virtual work).
"""

import math

import numpy as np

from nodulant.axles.points import on_axle
from nodulant.axles.springs import AntiRollBar
from nodulant.base.arrays import Columns, cross, dot
from nodulant.materials.steel import SHEAR_MODULUS_MPA
from nodulant.suspension.anti_roll import LEAST_MM, arm_through_travel
from nodulant.suspension.motion import Motion
from nodulant.suspension.spring_motion import SpringMotion


def bar_rate(bar: AntiRollBar) -> float:
    """Force at each drop link per mm that it moves against the other's mm, N/mm."""
    polar = math.pi * bar.diameter_mm**4 / 32
    return 2 * SHEAR_MODULUS_MPA * polar / (bar.length_mm * bar.arm_mm**2)


def roll_stiffness(m: Motion, springs: SpringMotion | None, bar: AntiRollBar | None) -> Columns | None:
    """Of springs and bar together through travel, N m/deg; None where neither is known."""
    total = np.zeros(len(m.travel))
    known = False
    if springs is not None and springs.own_rate is not None:
        ratio = springs.ratio if springs.roll_ratio is None else springs.roll_ratio
        preload = 0.0 if springs.roll_rate is None else springs.roll_rate
        total, known = total + springs.own_rate * ratio**2 + preload, True
    if bar is not None:
        total, known = total + bar_rate(bar) * arm_ratio(m, bar) ** 2, True
    if not known:
        return None
    return np.asarray(total * 2 * m.setting.half_track_mm**2 / 1000 * math.radians(1.0))


def arm_ratio(m: Motion, bar: AntiRollBar) -> Columns:
    """How far an arm's hole goes on its arc per mm that its wheel rises in roll, (travels,); by heave for a single wheel."""
    low = np.array(on_axle(bar.drop, m.setting.hub)) - np.array(m.setting.hub)
    joint = np.einsum("nij,j->ni", m.level.pose.rotation, low)
    turning, each = (m.heave, 1.0) if m.roll is None else (m.roll, m.setting.half_track_mm)
    v = (turning[:, :3] + cross(turning[:, 3:6], joint)) / each
    if bar.runs is None:
        return np.asarray(v[:, 2])
    arm = arm_through_travel(bar, bar.runs, m)
    link = m.level.pose.origin + joint - arm.eye
    out = (arm.eye - np.array(bar.runs.bend.xyz())) / bar.arm_mm
    goes = dot(link, np.stack([-out[:, 2], np.zeros(len(out)), out[:, 0]], axis=1))
    held = arm.reaches & (np.abs(goes) > LEAST_MM)
    # where the link does not reach, or stands in line with the arm, the travel ends: nothing is twisted further there
    return np.where(held, dot(link, v) / np.where(held, goes, 1.0), 0.0)
