"""Where a steered wheel and the rods that steer it stand in every pose."""

from dataclasses import dataclass

import numpy as np

from nodulant.base.arrays import Columns, Mask, cross

LEAST_MM = 1e-9


@dataclass(frozen=True)
class WheelPoses:
    """One wheel: centre, outward spin axis, lower and upper point of its king pin, each (travels, steers, 3)."""

    centre: Columns
    spin: Columns
    lower: Columns
    upper: Columns
    there: Mask
    """Where it can be at all, (travels, steers)."""


@dataclass(frozen=True)
class SteerRod:
    """A rod to a knuckle's arm: both ends, (travels, steers, 3), the wheel that it turns, its radius."""

    name: str
    inner: Columns
    outer: Columns
    wheel: WheelPoses
    radius_mm: float

    def grip_deg(self) -> Columns:
        """Angle between the rod and the arm that it turns, seen along the king pin: 90 pulls best, 0 not at all."""
        k = self.wheel.upper - self.wheel.lower
        return between_along(self.outer - self.wheel.lower, self.outer - self.inner, k)

    def outer_tilt_deg(self, ride: int, ahead: int) -> Columns:
        """How far the outer joint tilts from where it stands straight ahead at ride height, its stud along the king pin, degrees."""
        k = self.wheel.upper - self.wheel.lower
        d = self.outer - self.inner
        sizes = np.maximum(np.linalg.norm(k, axis=-1) * np.linalg.norm(d, axis=-1), LEAST_MM)
        angle = np.degrees(np.arcsin(np.clip((k * d).sum(axis=-1) / sizes, -1.0, 1.0)))
        return np.asarray(np.abs(angle - angle[ride, ahead]))

    def off_axis_deg(self, axis: Columns) -> Columns:
        """Angle between the rod and a line, such as a rack's own, degrees."""
        d = self.outer - self.inner
        d = d / np.maximum(np.linalg.norm(d, axis=-1, keepdims=True), LEAST_MM)
        return np.asarray(np.degrees(np.arccos(np.clip(np.abs(d @ axis), 0.0, 1.0))))


def between_along(arm: Columns, rod: Columns, axis: Columns) -> Columns:
    """Angle between an arm and a rod seen along an axis, 0 to 90 degrees: 90 pulls best, 0 not at all."""
    k = axis / np.maximum(np.linalg.norm(axis, axis=-1, keepdims=True), LEAST_MM)
    one, two = _square(arm, k), _square(rod, k)
    sizes = np.linalg.norm(one, axis=-1) * np.linalg.norm(two, axis=-1)
    lever = np.abs((cross(one, two) * k).sum(axis=-1)) / np.maximum(sizes, LEAST_MM)
    return np.asarray(np.degrees(np.arcsin(np.clip(lever, 0.0, 1.0))))


def _square(v: Columns, k: Columns) -> Columns:
    """``v`` without what lies along ``k``."""
    return np.asarray(v - (v * k).sum(axis=-1, keepdims=True) * k)
