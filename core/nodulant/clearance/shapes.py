"""Bodies that stand: their signed distance to points (negative inside), and their nearest point.

All are convex. Distances are exact outside; inside they are minus the way to the nearest face.
Bodies of one kind stand in one pack and are told apart by their number, so that many points are
set against many bodies at once. A prism is a quadrilateral in the x-z plane over a width in y:
rails are made of them.
"""

import math
from dataclasses import dataclass
from functools import cached_property

import numpy as np

from nodulant.base.arrays import Columns, Mask, Rows, dot

ALMOST = 1e-12


@dataclass(frozen=True, eq=False)
class Boxes:
    """Boxes along the axes, each (n, 3)."""

    low: Columns
    high: Columns

    def apart(self, other: "Boxes") -> Columns:
        """Distance of every box to every one of ``other``, (n, m); 0 where they overlap."""
        total = np.zeros((len(self.low), len(other.low)))
        for k in range(3):
            gap = np.maximum(
                self.low[:, None, k] - other.high[None, :, k], other.low[None, :, k] - self.high[:, None, k]
            )
            total += np.maximum(gap, 0.0) ** 2
        return np.sqrt(total)

    def some(self, which: Rows) -> "Boxes":
        """Some of them."""
        return Boxes(self.low[which], self.high[which])

    @cached_property
    def whole(self) -> "Boxes":
        """The one box that holds them all."""
        return Boxes(self.low.min(axis=0, keepdims=True), self.high.max(axis=0, keepdims=True))


def _beside(own: Columns, points: Columns) -> Columns:
    """What n bodies have, one row each, beside points (n, 3) or (n, k, 3)."""
    return own if points.ndim == 2 else own[:, None]


def _crossed(start: Columns, way: Columns, level: Columns | float) -> Columns:
    """Where start + t * way is ``level``; 0 where it never comes near it."""
    gap = level - start
    return np.divide(gap, way, out=np.zeros(np.broadcast_shapes(gap.shape, way.shape)), where=np.abs(way) > ALMOST)


@dataclass(frozen=True, eq=False)
class Blocks:
    """Boxes about their middles (n, 3), half sizes (n, 3) along their own axes, the columns of ``axes`` (n, 3, 3)."""

    middle: Columns
    half: Columns
    axes: Columns

    def _own(self, points: Columns) -> Columns:
        gap = points - _beside(self.middle, points)
        return np.einsum("ni,nij->nj", gap, self.axes) if gap.ndim == 2 else np.asarray(gap @ self.axes)

    def distance(self, points: Columns) -> Columns:
        """Signed distance."""
        q = np.abs(self._own(points)) - _beside(self.half, points)
        out, deep = np.maximum(q, 0.0), np.maximum(np.maximum(q[..., 0], q[..., 1]), q[..., 2])
        return np.asarray(np.sqrt(dot(out, out)) + np.minimum(deep, 0.0))

    def nearest(self, points: Columns) -> Columns:
        """Nearest point."""
        held = np.clip(self._own(points), -self.half, self.half)
        return np.asarray(self.middle + np.einsum("nj,nij->ni", held, self.axes))

    def turns(self, a: Columns, d: Columns) -> Columns:
        """Where along lines from ``a`` (n, 3), in lengths of ``d``, another face, edge or corner may become the nearest: (6, n)."""
        start, way = self._own(a), np.einsum("ni,nij->nj", d, self.axes)
        return np.concatenate([_crossed(start.T, way.T, self.half.T), _crossed(start.T, way.T, -self.half.T)])

    @cached_property
    def boxes(self) -> Boxes:
        """Along the axes."""
        reach = np.einsum("nij,nj->ni", np.abs(self.axes), self.half)
        return Boxes(self.middle - reach, self.middle + reach)

    def some(self, which: Rows | Mask) -> "Blocks":
        """Only some."""
        return Blocks(self.middle[which], self.half[which], self.axes[which])


@dataclass(frozen=True, eq=False)
class Bars:
    """Round bars with round ends, from ``a`` to ``b`` (n, 3)."""

    a: Columns
    b: Columns
    radius: Columns

    def _on_line(self, points: Columns) -> Columns:
        a, d = _beside(self.a, points), _beside(self.b - self.a, points)
        t = dot(points - a, d) / np.maximum(dot(d, d), ALMOST)
        return np.asarray(a + np.clip(t, 0.0, 1.0)[..., None] * d)

    def distance(self, points: Columns) -> Columns:
        """Signed distance."""
        off = points - self._on_line(points)
        return np.asarray(np.sqrt(dot(off, off)) - _beside(self.radius, off))

    def nearest(self, points: Columns) -> Columns:
        """Nearest point."""
        on = self._on_line(points)
        out, radius = points - on, self.radius[:, None]
        far = np.sqrt(dot(out, out))[:, None]
        return np.asarray(np.where(far <= radius, points, on + out * (radius / np.maximum(far, ALMOST))))

    @cached_property
    def boxes(self) -> Boxes:
        """Along the axes."""
        r = self.radius[:, None]
        return Boxes(np.minimum(self.a, self.b) - r, np.maximum(self.a, self.b) + r)

    def some(self, which: Rows | Mask) -> "Bars":
        """Only some."""
        return Bars(self.a[which], self.b[which], self.radius[which])


@dataclass(frozen=True, eq=False)
class Prisms:
    """Convex quadrilaterals ``corners`` (n, 4, 2) in x and z, counter-clockwise, from ``low_y`` to ``high_y`` (n,)."""

    corners: Columns
    low_y: Columns
    high_y: Columns

    @cached_property
    def _sides(self) -> tuple[Columns, Columns, Columns, Columns, Columns]:
        """Of each side, (4, n): where it starts and how it runs in x and z, and its length squared."""
        x, z = np.ascontiguousarray(self.corners[..., 0].T), np.ascontiguousarray(self.corners[..., 1].T)
        dx, dz = np.concatenate([x[1:], x[:1]]) - x, np.concatenate([z[1:], z[:1]]) - z
        return x, z, dx, dz, np.maximum(dx * dx + dz * dz, ALMOST)

    def _seen(self, points: Columns) -> tuple[Columns, Columns, Columns, Columns]:
        """From each side's nearest point, (4, n..): x, z and their squares' sum; and how far outside the outermost side."""
        start_x, start_z, dx, dz, long = self._sides if points.ndim == 2 else (v[..., None] for v in self._sides)
        x, z = points[..., 0] - start_x, points[..., 2] - start_z
        t = np.minimum(np.maximum((x * dx + z * dz) / long, 0.0), 1.0)
        off = ((x * dz - z * dx) / np.sqrt(long)).max(axis=0)
        x -= t * dx
        z -= t * dz
        return x, z, x * x + z * z, off

    def distance(self, points: Columns) -> Columns:
        """Signed distance."""
        _, _, square, off = self._seen(points)
        flat = np.where(off <= 0.0, off, np.sqrt(square.min(axis=0)))
        low, high, y = _beside(self.low_y, points), _beside(self.high_y, points), points[..., 1]
        across = np.maximum(low - y, y - high)
        outside = np.hypot(np.maximum(flat, 0.0), np.maximum(across, 0.0))
        return np.asarray(outside + np.minimum(np.maximum(flat, across), 0.0))

    def nearest(self, points: Columns) -> Columns:
        """Nearest point."""
        gx, gz, square, off = self._seen(points)
        x, z, least = gx[0], gz[0], square[0]
        for k in range(1, len(square)):
            nearer = square[k] < least
            x, z, least = np.where(nearer, gx[k], x), np.where(nearer, gz[k], z), np.where(nearer, square[k], least)
        out = off > 0.0
        near = np.empty_like(points)
        near[:, 0], near[:, 2] = points[:, 0] - out * x, points[:, 2] - out * z
        near[:, 1] = np.minimum(np.maximum(points[:, 1], self.low_y), self.high_y)
        return near

    def turns(self, a: Columns, d: Columns) -> Columns:
        """Where along lines from ``a`` (n, 3), in lengths of ``d``, another face, edge or corner may become the nearest: (14, n)."""
        start_x, start_z, dx, dz, long = self._sides
        x, z, y = a[:, 0] - start_x, a[:, 2] - start_z, a[:, 1]
        foot, along = x * dx + z * dz, d[:, 0] * dx + d[:, 2] * dz
        off, out = x * dz - z * dx, d[:, 0] * dz - d[:, 2] * dx
        sides = np.stack([self.low_y, self.high_y])
        return np.concatenate(
            [
                _crossed(foot, along, 0.0),
                _crossed(foot, along, long),
                _crossed(off, out, 0.0),
                _crossed(y, d[:, 1], sides),
            ]
        )

    @cached_property
    def boxes(self) -> Boxes:
        """Along the axes."""
        low, high = self.corners.min(axis=1), self.corners.max(axis=1)
        return Boxes(
            np.stack([low[:, 0], self.low_y, low[:, 1]], axis=-1),
            np.stack([high[:, 0], self.high_y, high[:, 1]], axis=-1),
        )

    def some(self, which: Rows | Mask) -> "Prisms":
        """Only some."""
        return Prisms(self.corners[which], self.low_y[which], self.high_y[which])


Flat = Blocks | Prisms
"""Bodies with flat faces."""
Pack = Flat | Bars
"""Convex bodies of one kind."""


@dataclass(frozen=True, eq=False)
class Standing:
    """Something that stands: a pack of convex bodies; a rail is many."""

    name: str
    kind: str
    pack: Pack
    obstacle_id: str = ""


def block_axes(nose_up_deg: float, yaw_deg: float) -> Columns:
    """Axes of a turned box as columns: nose up about y, then yaw to the left about z, degrees."""
    p, w = math.radians(nose_up_deg), math.radians(yaw_deg)
    up = np.array([[math.cos(p), 0.0, math.sin(p)], [0.0, 1.0, 0.0], [-math.sin(p), 0.0, math.cos(p)]])
    turn = np.array([[math.cos(w), -math.sin(w), 0.0], [math.sin(w), math.cos(w), 0.0], [0.0, 0.0, 1.0]])
    return np.asarray(turn @ up)
