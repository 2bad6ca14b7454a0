"""Bodies that stand: their signed distance to points (negative inside), and their nearest point.

All are convex. Distances are exact outside; inside they are minus the way to the nearest face.
A prism is a convex polygon in the x-z plane over a width in y: rails are made of them.
"""

import math
from dataclasses import dataclass
from functools import cached_property

import numpy as np

from nodulant.base.arrays import Columns

ALMOST = 1e-12


@dataclass(frozen=True)
class Bounds:
    """The box along the axes that holds a body, (3,) each."""

    low: Columns
    high: Columns

    def apart(self, other: "Bounds") -> float:
        """Distance between two boxes, 0 where they overlap."""
        gap = np.maximum(np.maximum(self.low - other.high, other.low - self.high), 0.0)
        return float(np.linalg.norm(gap))


@dataclass(frozen=True, eq=False)
class Block:
    """A box about ``middle`` with half sizes along its own axes, the columns of ``axes``."""

    middle: Columns
    half: Columns
    axes: Columns

    def distance(self, points: Columns) -> Columns:
        """Signed distance of points (.., 3)."""
        q = np.abs((points - self.middle) @ self.axes) - self.half
        outside = np.sqrt((np.maximum(q, 0.0) ** 2).sum(axis=-1))
        return np.asarray(outside + np.minimum(q.max(axis=-1), 0.0))

    def nearest(self, points: Columns) -> Columns:
        """Nearest point of the box; a point inside is its own."""
        local = np.clip((points - self.middle) @ self.axes, -self.half, self.half)
        return np.asarray(self.middle + local @ self.axes.T)

    @cached_property
    def bounds(self) -> Bounds:
        """Its box along the axes."""
        reach = np.abs(self.axes) @ self.half
        return Bounds(self.middle - reach, self.middle + reach)


@dataclass(frozen=True, eq=False)
class Bar:
    """A round bar with round ends."""

    a: Columns
    b: Columns
    radius: float

    def distance(self, points: Columns) -> Columns:
        """Signed distance of points (.., 3)."""
        return np.asarray(np.sqrt(((points - self._on_line(points)) ** 2).sum(axis=-1)) - self.radius)

    def nearest(self, points: Columns) -> Columns:
        """Nearest point of the bar; a point inside is its own."""
        on = self._on_line(points)
        out = points - on
        far = np.sqrt((out**2).sum(axis=-1, keepdims=True))
        return np.asarray(np.where(far <= self.radius, points, on + out * (self.radius / np.maximum(far, ALMOST))))

    def _on_line(self, points: Columns) -> Columns:
        d = self.b - self.a
        t = np.clip(((points - self.a) @ d) / max(float(d @ d), ALMOST), 0.0, 1.0)
        return np.asarray(self.a + t[..., None] * d)

    @cached_property
    def bounds(self) -> Bounds:
        """Its box along the axes."""
        return Bounds(np.minimum(self.a, self.b) - self.radius, np.maximum(self.a, self.b) + self.radius)


@dataclass(frozen=True, eq=False)
class Prism:
    """A convex polygon ``corners`` (n, 2) in x and z, counter-clockwise, from ``low_y`` to ``high_y``."""

    corners: Columns
    low_y: float
    high_y: float

    @cached_property
    def _sides(self) -> tuple[Columns, Columns, Columns, Columns]:
        """Starts, directions, lengths squared and outward normals of the polygon's sides."""
        start = self.corners
        along = np.roll(start, -1, axis=0) - start
        long = np.maximum((along**2).sum(axis=1), ALMOST)
        normal = np.stack([along[:, 1], -along[:, 0]], axis=1) / np.sqrt(long)[:, None]
        return start, along, long, normal

    def _flat(self, p: Columns) -> tuple[Columns, Columns]:
        """Signed distance to the polygon of points (.., 2), and the nearest point on its edge."""
        start, along, long, normal = self._sides
        off = p[..., None, :] - start
        t = np.clip((off * along).sum(axis=-1) / long, 0.0, 1.0)
        gap = off - t[..., None] * along
        square = (gap**2).sum(axis=-1)
        k = np.argmin(square, axis=-1)
        near = np.take_along_axis(start + t[..., None] * along, k[..., None, None], axis=-2)[..., 0, :]
        inside = ((off * normal).sum(axis=-1) <= 0.0).all(axis=-1)
        far = np.sqrt(np.take_along_axis(square, k[..., None], axis=-1)[..., 0])
        return np.where(inside, -far, far), near

    def distance(self, points: Columns) -> Columns:
        """Signed distance of points (.., 3)."""
        flat, _ = self._flat(points[..., ::2])
        across = np.maximum(self.low_y - points[..., 1], points[..., 1] - self.high_y)
        outside = np.hypot(np.maximum(flat, 0.0), np.maximum(across, 0.0))
        return np.asarray(outside + np.minimum(np.maximum(flat, across), 0.0))

    def nearest(self, points: Columns) -> Columns:
        """Nearest point of the prism; a point inside is its own."""
        flat, near = self._flat(points[..., ::2])
        xz = np.where((flat > 0.0)[..., None], near, points[..., ::2])
        return np.stack([xz[..., 0], np.clip(points[..., 1], self.low_y, self.high_y), xz[..., 1]], axis=-1)

    @cached_property
    def bounds(self) -> Bounds:
        """Its box along the axes."""
        low, high = self.corners.min(axis=0), self.corners.max(axis=0)
        return Bounds(np.array([low[0], self.low_y, low[1]]), np.array([high[0], self.high_y, high[1]]))


Convex = Block | Bar | Prism


@dataclass(frozen=True, eq=False)
class Standing:
    """Something that stands: one or more convex bodies; a rail is many."""

    name: str
    kind: str
    bodies: tuple[Convex, ...]
    obstacle_id: str = ""

    @cached_property
    def bounds(self) -> Bounds:
        """The box that holds them all."""
        return Bounds(
            np.min([b.bounds.low for b in self.bodies], axis=0), np.max([b.bounds.high for b in self.bodies], axis=0)
        )


def block_axes(nose_up_deg: float, yaw_deg: float) -> Columns:
    """Axes of a turned box as columns: nose up about y, then yaw to the left about z, degrees."""
    p, w = math.radians(nose_up_deg), math.radians(yaw_deg)
    up = np.array([[math.cos(p), 0.0, math.sin(p)], [0.0, 1.0, 0.0], [-math.sin(p), 0.0, math.cos(p)]])
    turn = np.array([[math.cos(w), -math.sin(w), 0.0], [math.sin(w), math.cos(w), 0.0], [0.0, 0.0, 1.0]])
    return np.asarray(turn @ up)
