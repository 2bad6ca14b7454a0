"""Angles and distances of a steered wheel in every pose, by the axles and signs of the handbooks.

Camber: top outward positive. Toe: toe-in positive. Steer: to the right positive. Caster: top of the
king pin rearward positive; inclination: top inward positive. Scrub radius: tyre's middle outside
the king pin's foot positive; trail: tyre's middle behind it positive (Gillespie, Fundamentals of
Vehicle Dynamics, chapter 8; SAE J670, from memory). The road is taken level at the tyre's own foot.
"""

from dataclasses import dataclass, fields

import numpy as np

from nodulant.base.arrays import Columns, Rows, cross
from nodulant.steering.rods import WheelPoses

LEVEL = 1e-9


@dataclass(frozen=True)
class Measures:
    """All of shape (travels, steers); degrees and mm."""

    camber_deg: Columns
    toe_deg: Columns
    steer_deg: Columns
    caster_deg: Columns
    inclination_deg: Columns
    scrub_mm: Columns
    trail_mm: Columns
    patch: Columns
    """Middle of the tyre on the road, (travels, steers, 3)."""

    def rows(self, at: Rows) -> "Measures":
        """Some of the travels."""
        return Measures(*(getattr(self, f.name)[at] for f in fields(self)))


def measures(wheel: WheelPoses, sign: float, radius_mm: float) -> Measures:
    """Measure one wheel; ``sign`` is +1 on the right, -1 on the left."""
    a = wheel.spin
    steer = heading_deg(a, sign)
    pin = wheel.upper - wheel.lower
    patch = wheel.centre + radius_mm * _down(a)
    up = np.where(np.abs(pin[..., 2]) < LEVEL, LEVEL, pin[..., 2])
    foot = wheel.lower + pin * ((patch[..., 2] - wheel.lower[..., 2]) / up)[..., None]
    forward = cross(a, np.array([0.0, 0.0, 1.0])) * -sign
    forward = forward / np.linalg.norm(forward, axis=-1, keepdims=True)
    out = np.stack([-forward[..., 1], forward[..., 0], np.zeros_like(steer)], axis=-1) * -sign
    off = patch - foot
    return Measures(
        -np.degrees(np.arcsin(np.clip(a[..., 2], -1.0, 1.0))),
        -sign * steer,
        steer,
        np.degrees(np.arctan2(pin[..., 0], pin[..., 2])),
        np.degrees(np.arctan2(-sign * pin[..., 1], pin[..., 2])),
        (off * out).sum(axis=-1),
        -(off * forward).sum(axis=-1),
        patch,
    )


def heading_deg(spin: Columns, sign: float) -> Columns:
    """Steer angle of a wheel by its outward spin axis (.., 3), to the right positive, degrees."""
    return np.asarray(-sign * np.degrees(np.arctan2(-spin[..., 0], sign * spin[..., 1])))


def _down(spin: Columns) -> Columns:
    """Unit vector down in the wheel's plane."""
    z = np.array([0.0, 0.0, 1.0])
    flat = z - spin * spin[..., 2:3]
    return np.asarray(-flat / np.linalg.norm(flat, axis=-1, keepdims=True))


def ackermann_outer_deg(inner_deg: float, pins_apart_mm: float, wheelbase_mm: float) -> float:
    """Outer wheel's angle at which both axes meet the rear axle's line: cot o - cot i = w/L (Ackermann, textbook)."""
    cot = 1.0 / np.tan(np.radians(inner_deg)) + pins_apart_mm / wheelbase_mm
    return float(np.degrees(np.arctan2(1.0, cot)))


def turning_circle_mm(outer_deg: float, behind_mm: float, tyre_mm: float) -> float:
    """Diameter between kerbs, mm: the outer tyre's foot runs round the rear axle's line, ``behind_mm`` behind it, and half its tyre beside it.

    The middle lies on the rear axle's line and square to the outer wheel (plane geometry, no slip).
    """
    return 2.0 * (behind_mm / float(np.sin(np.radians(outer_deg))) + tyre_mm / 2)
