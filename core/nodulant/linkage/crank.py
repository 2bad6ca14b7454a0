"""A crank that a rod turns: the angle at which its end is the rod's length away from a point, in closed form.

The end runs on a circle q + u cos t + v sin t about its pivot. |end - point|^2 = L^2 becomes
a cos t + b sin t = c, so t = atan2(b, a) -+ arccos(c/hypot(a, b)): two ways to assemble it. The
one it is built in at rest (t = 0) is kept (textbook, circle against sphere).
"""

from dataclasses import dataclass

import numpy as np

from nodulant.base.arrays import Columns, Mask, cross
from nodulant.linkage.mechanism import Point

LEAST_ARM_MM = 1e-6


@dataclass(frozen=True)
class Crank:
    """A pivot, a unit axis, and the end at rest; mm."""

    pivot: Point
    axis: Point
    end: Point

    def circle(self) -> tuple[Columns, Columns, Columns]:
        """Middle of the end's circle and the two arms u (at rest) and v (a quarter turn on)."""
        q, k, r = np.array(self.pivot), np.array(self.axis), np.array(self.end) - np.array(self.pivot)
        along = (r @ k) * k
        u = r - along
        return q + along, u, cross(k, u)

    def at(self, angle: Columns) -> Columns:
        """Where the end is at every angle, radians; (n,) in, (n, 3) out."""
        middle, u, v = self.circle()
        return np.asarray(middle + np.cos(angle)[:, None] * u + np.sin(angle)[:, None] * v)


@dataclass(frozen=True)
class Cranked:
    """Angles, radians, 0 where the rod cannot reach; and whether it reaches."""

    angle: Columns
    reaches: Mask


def crank_angle(crank: Crank, held: Columns, length_mm: float, rest: Point) -> Cranked:
    """Angle at which the crank's end is ``length_mm`` from each point ``held`` (n, 3); ``rest`` is the point at rest."""
    middle, u, v = crank.circle()
    sign = -np.sign(_phase(np.array([rest]) - middle, u, v)[0][0]) or 1.0
    w = held - middle
    phase, size = _phase(w, u, v)
    c = ((u @ u) + (w * w).sum(axis=1) - length_mm**2) / 2
    share = c / np.maximum(size, LEAST_ARM_MM)
    reaches = np.abs(share) <= 1.0
    angle = phase + sign * np.arccos(np.clip(share, -1.0, 1.0))
    return Cranked(np.where(reaches, np.arctan2(np.sin(angle), np.cos(angle)), 0.0), reaches)


def _phase(w: Columns, u: Columns, v: Columns) -> tuple[Columns, Columns]:
    """atan2(b, a) and hypot(a, b) of a = w.u and b = w.v."""
    a, b = w @ u, w @ v
    return np.arctan2(b, a), np.hypot(a, b)


def axis_of(lower: Point, upper: Point) -> Point:
    """Unit vector from one point to the other."""
    d = np.array(upper) - np.array(lower)
    x, y, z = d / np.linalg.norm(d)
    return (float(x), float(y), float(z))


def turned_about(points: Columns, pivot: Columns, axis: Columns, angle: Columns) -> Columns:
    """``points`` (n, 3) turned about axes through ``pivot`` by ``angle`` (n,), Rodrigues' formula."""
    r = points - pivot
    k = np.broadcast_to(axis, r.shape)
    s, c = np.sin(angle)[:, None], np.cos(angle)[:, None]
    along = (k * r).sum(axis=1, keepdims=True) * k
    return np.asarray(pivot + r * c + cross(k, r) * s + along * (1 - c))
