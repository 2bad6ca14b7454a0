"""Least distances between moving and standing bodies, position by position.

A bar against a convex body: the signed distance along a straight line is convex, so golden
sections find its least. Two bars: closed form of two segments (Ericson, Real-Time Collision
Detection, chapter 5.1.9, from memory). A tyre is a ring of rounded section: the distance to it is
in closed form for a point; against a bar it is sought along the bar, against a convex body by
alternating nearest points of the body and of the tyre filled up to its rim (convex, so it converges).
"""

from collections.abc import Callable
from typing import NamedTuple

import numpy as np

from nodulant.base.arrays import Columns, Rows
from nodulant.clearance.shapes import Pack

Off = Callable[[Columns], Columns]
"""A distance as a function of places."""
GOLDEN = (5.0**0.5 - 1.0) / 2.0
SECTIONS = 38
RING_SAMPLES, SAMPLED = 13, 7
SWAPS, QUICK_SWAPS, QUICK_STILL_MM = 400, 80, 1e-3
STILL_MM, TOUCHING_MM, MOSTLY = 1e-5, 1e-6, 0.8


class Near(NamedTuple):
    """Distances (n,), negative inside, and the nearest points of the moving and of the other body, (n, 3)."""

    gap: Columns
    mine: Columns
    other: Columns


def bar_to_convex(a: Columns, b: Columns, radius: float, pack: Pack, sections: int = SECTIONS) -> Near:
    """Bars (n, 3) to (n, 3), each against its own body of a pack."""

    def off(t: Columns) -> Columns:
        return pack.distance(a + t[:, None] * (b - a))

    t = _golden(off, np.zeros(len(a)), np.ones(len(a)), sections)
    axis, depth = a + t[:, None] * (b - a), off(t)
    near = pack.nearest(axis)
    inside = depth < TOUCHING_MM
    out = _unit(axis - near)
    if inside.any():
        # the axis itself is in the body: the way out is the nearest face's
        rows = np.flatnonzero(inside)
        out[rows] = _slope(pack.some(rows).distance, axis[rows])
        near[rows] = axis[rows] - out[rows] * depth[rows, None]
    return Near(depth - radius, axis - out * radius, near)


def _unit(v: Columns) -> Columns:
    return np.asarray(v / np.maximum(np.sqrt((v * v).sum(axis=-1, keepdims=True)), 1e-12))


def _golden(off: Off, low: Columns, high: Columns, sections: int) -> Columns:
    """Least of convex functions, all at once; ends count as well."""
    ends = np.stack([low, high])
    one, two = high - GOLDEN * (high - low), low + GOLDEN * (high - low)
    f1, f2 = off(one), off(two)
    for _ in range(sections):
        left = f1 <= f2
        low, high = np.where(left, low, one), np.where(left, two, high)
        fresh = np.where(left, high - GOLDEN * (high - low), low + GOLDEN * (high - low))
        f = off(fresh)
        one, two, f1, f2 = (
            np.where(left, fresh, two),
            np.where(left, one, fresh),
            np.where(left, f, f2),
            np.where(left, f1, f),
        )
    best = (low + high) / 2
    tried = np.stack([off(best), off(ends[0]), off(ends[1])])
    places = np.stack([best, ends[0], ends[1]])
    return np.asarray(np.take_along_axis(places, np.argmin(tried, axis=0)[None], axis=0)[0])


def _towards(start: Columns, end: Columns, by: float) -> Columns:
    """``start`` moved towards ``end`` by ``by``, no further than it."""
    d = end - start
    far = np.sqrt((d**2).sum(axis=-1, keepdims=True))
    return np.asarray(start + d * np.minimum(by / np.maximum(far, 1e-12), 1.0))


def bar_to_bar(a: Columns, b: Columns, radius: float, c: Columns, d: Columns, other: float) -> Near:
    """Bars against bars, both (n, 3) to (n, 3)."""
    u, v, w = b - a, d - c, a - c
    uu, vv, uv = (u * u).sum(axis=-1), (v * v).sum(axis=-1), (u * v).sum(axis=-1)
    uw, vw = (u * w).sum(axis=-1), (v * w).sum(axis=-1)
    flat = uu * vv - uv * uv
    s = np.where(flat > 1e-9 * uu * vv, np.clip((uv * vw - vv * uw) / np.where(flat > 0, flat, 1.0), 0.0, 1.0), 0.0)
    t = (uv * s + vw) / np.maximum(vv, 1e-12)
    held = np.clip(t, 0.0, 1.0)
    s = np.where(held == t, s, np.clip((uv * held - uw) / np.maximum(uu, 1e-12), 0.0, 1.0))
    p, q = a + s[..., None] * u, c + held[..., None] * v
    gap = np.sqrt(((p - q) ** 2).sum(axis=-1)) - radius - other
    along = _unit(q - p)
    return Near(gap, p + along * radius, q - along * other)


class Ring(NamedTuple):
    """Tyres in n positions: centres and unit spin axes (n, 3), and the radii and width that they share, mm."""

    centre: Columns
    spin: Columns
    outside: float
    rim: float
    width: float
    shoulder: float

    def distance(self, points: Columns) -> Columns:
        """Signed distance of one point to each tyre, (n, 3) or (n, k, 3); the ring is open inside its rim."""
        out, along = self._seen(points)
        middle, half = (self.outside + self.rim) / 2, (self.outside - self.rim) / 2
        q = np.stack([np.abs(out - middle) - half + self.shoulder, np.abs(along) - self.width / 2 + self.shoulder])
        outside = np.hypot(np.maximum(q[0], 0.0), np.maximum(q[1], 0.0))
        return np.asarray(outside + np.minimum(q.max(axis=0), 0.0) - self.shoulder)

    def some(self, rows: Rows) -> "Ring":
        """Some of the positions."""
        return self._replace(centre=self.centre[rows], spin=self.spin[rows])

    def _seen(self, points: Columns) -> tuple[Columns, Columns]:
        """How far from the axis and along it points are."""
        lift = points.ndim - self.centre.ndim
        centre, spin = (v.reshape(len(v), *([1] * lift), 3) for v in (self.centre, self.spin))
        r = points - centre
        along = (r * spin).sum(axis=-1)
        return np.sqrt(np.maximum((r * r).sum(axis=-1) - along**2, 0.0)), along

    def filled(self, points: Columns) -> Columns:
        """Signed distance to the tyre with its rim filled: a rounded disc, which is convex."""
        out, along = self._seen(points)
        q = np.stack([out - self.outside + self.shoulder, np.abs(along) - self.width / 2 + self.shoulder])
        outside = np.hypot(np.maximum(q[0], 0.0), np.maximum(q[1], 0.0))
        return np.asarray(outside + np.minimum(q.max(axis=0), 0.0) - self.shoulder)

    def core(self, points: Columns) -> Columns:
        """Nearest point of the flat disc inside the rounding, (n, 3)."""
        r = points - self.centre
        along = (r * self.spin).sum(axis=-1, keepdims=True)
        flat = r - along * self.spin
        far = np.sqrt((flat**2).sum(axis=-1, keepdims=True))
        held = flat * np.minimum((self.outside - self.shoulder) / np.maximum(far, 1e-12), 1.0)
        half = self.width / 2 - self.shoulder
        return np.asarray(self.centre + held + np.clip(along, -half, half) * self.spin)


def ring_to_bar(ring: Ring, a: Columns, b: Columns, radius: float, sections: int = SECTIONS) -> Near:
    """Tyres against bars, position by position: sampled along each bar, then golden sections about the best sample."""
    share = np.linspace(0.0, 1.0, RING_SAMPLES)
    points = a[:, None] + share[None, :, None] * (b - a)[:, None]
    best = np.argmin(ring.distance(points), axis=1)
    low, high = share[np.maximum(best - 1, 0)], share[np.minimum(best + 1, RING_SAMPLES - 1)]

    def off(t: Columns) -> Columns:
        return ring.distance(a + t[:, None] * (b - a))

    # the samples have closed in on it already
    t = _golden(off, low, high, max(sections - SAMPLED, SAMPLED))
    axis = a + t[:, None] * (b - a)
    gap = off(t) - radius
    out = _slope(ring.distance, axis)
    return Near(gap, axis - out * off(t)[:, None], axis - out * radius)


def ring_to_convex(ring: Ring, pack: Pack, sections: int = SECTIONS) -> Near:
    """Tyres, each against its own body of a pack; inside each other, the body's deepest point. Fewer sections: a quick look."""
    swaps, stays = (SWAPS, STILL_MM) if sections >= SECTIONS else (QUICK_SWAPS, QUICK_STILL_MM)
    p = pack.nearest(ring.centre)
    rows, tyres, theirs = np.arange(len(p)), ring, pack
    for k in range(swaps):
        here = p[rows]
        nearer = theirs.nearest(tyres.core(here))
        p[rows] = nearer
        moving = ((nearer - here) ** 2).sum(axis=-1) >= stays**2
        if not moving.any():
            break
        # those that stand still are left alone, now and then so that picking them out costs less than it saves
        if k % 4 == 3 and moving.mean() < MOSTLY:
            rows = rows[moving]
            tyres, theirs = ring.some(rows), pack.some(rows)
    gap = ring.filled(p)
    deep = gap < -ring.shoulder / 2
    if deep.any():
        # the disc itself is entered: how deep the body's own deepest point lies
        p = np.where(deep[:, None], _deepest(ring, pack, p), p)
        gap = ring.filled(p)
    mine = _towards(ring.core(p), p, ring.shoulder)
    inside = np.flatnonzero(gap < TOUCHING_MM)
    if len(inside):
        part = ring.some(inside)
        mine[inside] = p[inside] - _slope(part.filled, p[inside]) * gap[inside, None]
    return Near(gap, mine, p)


def _deepest(ring: Ring, pack: Pack, p: Columns) -> Columns:
    """Points of the body pushed down the tyre's own slope and back on the body, as long as it gets deeper."""
    step, best, least = 0.25 * ring.width, p, ring.filled(p)
    for _ in range(24):
        trial = pack.nearest(best - step * _slope(ring.filled, best))
        here = ring.filled(trial)
        better = here < least
        best, least = np.where(better[:, None], trial, best), np.where(better, here, least)
        step *= 0.75
    return best


def _slope(distance: Off, points: Columns, h: float = 1e-4) -> Columns:
    """Gradient of a distance by central differences, unit length."""
    out = np.empty_like(points)
    for k in range(3):
        shift = np.zeros(3)
        shift[k] = h
        out[:, k] = (distance(points + shift) - distance(points - shift)) / (2 * h)
    return np.asarray(out / np.maximum(np.sqrt((out**2).sum(axis=-1, keepdims=True)), 1e-12))
