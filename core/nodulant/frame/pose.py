"""How something rigid that hangs on the rails is set against where it was measured: put in place, raised, shifted, turned, narrowed.

Axes are the frame's: x rearward, y to the right, z up, mm. A pose first brings what was measured on
the bench to its datum, then narrows it, turns it about the datum (nose up about y, square about z,
right side up about x, in this order) and shifts it.
"""

import math
from dataclasses import dataclass
from functools import cached_property

import numpy as np

from nodulant.base.arrays import Columns

Vector = tuple[float, float, float]
STILL: Vector = (0.0, 0.0, 0.0)


@dataclass(frozen=True)
class Pose:
    """Its datum's station and height on the surveyed frame, and what is done to it there; mm and degrees."""

    x_mm: float
    z_mm: float = 0.0
    back_mm: float = 0.0
    right_mm: float = 0.0
    up_mm: float = 0.0
    nose_up_deg: float = 0.0
    nose_right_deg: float = 0.0
    right_up_deg: float = 0.0
    narrower_mm: float = 0.0
    """How far each side goes towards the centre plane."""
    on_bench: bool = False
    """Points are given from its own datum, not in the frame's axes."""

    @cached_property
    def turn(self) -> Columns:
        """The rotation, (3, 3)."""
        a, b, c = (math.radians(v) for v in (self.nose_up_deg, self.nose_right_deg, self.right_up_deg))
        pitch = np.array([[math.cos(a), 0, math.sin(a)], [0, 1, 0], [-math.sin(a), 0, math.cos(a)]])
        yaw = np.array([[math.cos(b), math.sin(b), 0], [-math.sin(b), math.cos(b), 0], [0, 0, 1]])
        roll = np.array([[1, 0, 0], [0, math.cos(c), -math.sin(c)], [0, math.sin(c), math.cos(c)]])
        turned: Columns = roll @ yaw @ pitch
        return turned

    @property
    def _datum(self) -> Columns:
        return np.array([self.x_mm, 0.0, self.z_mm])

    def of(self, point: Vector) -> Vector:
        """Where a point of it stands, its rails not yet moved."""
        x, y, z = point
        y = math.copysign(max(abs(y) - self.narrower_mm, 0.0), y)
        from_datum = np.array([x, y, z]) - (0.0 if self.on_bench else self._datum)
        there = self.turn @ from_datum + self._datum + (self.back_mm, self.right_mm, self.up_mm)
        return (float(there[0]), float(there[1]), float(there[2]))

    def before(self, point: Vector) -> Vector:
        """The point as it was measured, from where it stands; what was narrowed to the middle stays there."""
        from_datum = self.turn.T @ (np.array(point) - (self.back_mm, self.right_mm, self.up_mm) - self._datum)
        x, y, z = (float(v) for v in from_datum + (0.0 if self.on_bench else self._datum))
        return (x, math.copysign(abs(y) + self.narrower_mm, y) if abs(y) > 1e-9 else 0.0, z)

    def shift(self, point: Vector) -> Vector:
        """How far a point of the surveyed frame goes with it; nothing where it was not on the vehicle before."""
        if self.on_bench:
            return STILL
        there = self.of(point)
        return (there[0] - point[0], there[1] - point[1], there[2] - point[2])
