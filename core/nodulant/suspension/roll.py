"""Roll stiffness of an axle from its springs and its anti-roll bar.

A bar of length L and polar moment J with arms a twists by 2 d/a when its ends move d against each
other, so each end feels 2 G J d/(L a^2) (textbook torsion; the arms' own bending is left out).
An axle's roll stiffness is twice the wheel rate in roll times half the track squared; the wheel rate is
k MR^2 + F d2c/dz2 in roll as it is in heave (virtual work).
"""

import math

import numpy as np

from nodulant.axles.points import on_axle
from nodulant.axles.springs import AntiRollBar
from nodulant.base.arrays import Columns, cross
from nodulant.materials.steel import SHEAR_MODULUS_MPA
from nodulant.suspension.motion import Motion, roll_ratio
from nodulant.suspension.spring_motion import SpringMotion

FAR_MM = 1.0e5


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
    if bar is not None and (lift := drop_ratio(m, bar)) is not None:
        total, known = total + bar_rate(bar) * lift**2, True
    if not known:
        return None
    return np.asarray(total * 2 * m.setting.half_track_mm**2 / 1000 * math.radians(1.0))


def drop_ratio(m: Motion, bar: AntiRollBar) -> Columns | None:
    """How far a drop link moves up per mm that its wheel rises in roll; 1 by heave for a single wheel."""
    low = on_axle(bar.drop, m.setting.hub)
    if m.roll is None:
        arm = np.einsum("nij,j->ni", m.level.pose.rotation, np.array(low) - np.array(m.setting.hub))
        v = m.heave[:, :3] + cross(m.heave[:, 3:6], arm)
        return np.asarray(v[:, 2])
    return roll_ratio(low, (low[0], low[1], low[2] + FAR_MM), m)
