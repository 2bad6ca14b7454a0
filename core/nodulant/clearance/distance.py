"""Least distances between moving and standing bodies, position by position.

A bar against a convex body with flat faces, outside it: the way from the body's nearest point, taken
along the bar, grows with the place on the bar and is straight between the places where another
face, edge or corner becomes the nearest; halving among those finds the piece with its zero, which
is the nearest place, exactly. In a body the signed distance along a straight line is convex, so
trying places side by side and keeping what lies about the best finds its least. Two bars: closed
form of two segments (Ericson, Real-Time Collision Detection, chapter 5.1.9, from memory). A tyre is a ring of
rounded section: the distance to it is in closed form for a point; against a bar it is sought along
the bar, against a convex body by alternating nearest points of the body and of the tyre filled up
to its rim (convex, so it converges).
"""

from collections.abc import Callable
from typing import NamedTuple

import numpy as np

from nodulant.base.arrays import TINY, Columns, Rows, dot
from nodulant.clearance.shapes import Bars, Flat, Pack

Off = Callable[[Columns], Columns]
"""A distance as a function of places."""
ROUNDS = 14
"""Of narrowing a span down to a quarter: to four billionths of a bar."""
RING_SAMPLES, SAMPLED = 13, 2
SWAPS, QUICK_SWAPS, QUICK_STILL_MM = 400, 80, 1e-3
STILL_MM, TOUCHING_MM, MOSTLY = 1e-5, 1e-6, 0.8


class Near(NamedTuple):
    """Distances (n,), negative inside, and the nearest points of the moving and of the other body, (n, 3)."""

    gap: Columns
    mine: Columns
    other: Columns


def bar_to_convex(a: Columns, b: Columns, radius: Columns | float, pack: Pack, rounds: int = ROUNDS) -> Near:
    """Bars (n, 3) to (n, 3) with one radius or one each, each against its own body of a pack; ``rounds`` where it is entered."""
    if isinstance(pack, Bars):
        return bar_to_bar(a, b, radius, pack.a, pack.b, pack.radius)
    axis = a + nearest_along(pack, a, b)[:, None] * (b - a)
    near = pack.nearest(axis)
    away = axis - near
    depth = np.sqrt(dot(away, away))
    out = away / np.maximum(depth, 1e-12)[:, None]
    inside = np.flatnonzero(depth < TOUCHING_MM)
    if len(inside):
        # the axis itself is in the body: the way out is the nearest face's
        entered, p, q = pack.some(inside), a[inside], b[inside]
        t = _least_along(entered.distance, p, q, WHOLE, rounds)
        axis[inside] = p + t[:, None] * (q - p)
        depth[inside], out[inside] = entered.distance(axis[inside]), _slope(entered.distance, axis[inside])
        near[inside] = axis[inside] - out[inside] * depth[inside, None]
    return Near(depth - radius, axis - out * np.reshape(radius, (-1, 1)), near)


def nearest_along(pack: Flat, a: Columns, b: Columns) -> Columns:
    """Where on the lines a to b (n, 3) each is nearest to its own body of a pack: shares (n,); anywhere in it where it is entered."""
    d, rows = b - a, np.arange(len(a))

    def slope(t: Columns) -> Columns:
        p = a + t[:, None] * d
        return dot(p - pack.nearest(p), d)

    marks = np.sort(
        np.concatenate([np.zeros((1, len(a))), np.clip(pack.turns(a, d), 0.0, 1.0), np.ones((1, len(a)))]), axis=0
    )
    low, high = np.zeros(len(a), dtype=np.int64), np.full(len(a), len(marks) - 1)
    at_low, at_high = slope(marks[0]), slope(marks[-1])
    for _ in range((len(marks) - 2).bit_length()):
        middle = (low + high) // 2
        here = slope(marks[middle, rows])
        below = here < 0.0
        low, at_low = np.where(below, middle, low), np.where(below, here, at_low)
        high, at_high = np.where(below, high, middle), np.where(below, at_high, here)
    rise = at_high - at_low
    share = np.clip(-at_low / np.where(rise > TINY, rise, 1.0), 0.0, 1.0)
    # a line that leaves the body all along is nearest at its start, one that comes nearer at its end
    return np.asarray(marks[low, rows] + share * (marks[high, rows] - marks[low, rows]))


def _unit(v: Columns) -> Columns:
    return np.asarray(v / np.maximum(np.sqrt(dot(v, v))[..., None], 1e-12))


def _least_along(off: Off, a: Columns, b: Columns, span: Columns, rounds: int) -> Columns:
    """Where on the lines a to b (n, 3) a convex distance is least: shares (n,) within ``span`` (.., 2), ends counted.

    Every round tries places side by side and keeps what lies beside the best, a quarter of the span;
    at the end the foot of the parabola through the best and its neighbours is tried as well.
    """
    low, high = np.broadcast_to(span[..., 0], len(a)), np.broadcast_to(span[..., 1], len(a))
    along, rows = (b - a)[:, None], np.arange(len(a))
    ends, foot = (low, high), low
    for left in range(rounds, 0, -1):
        t = low[:, None] + _SHARES * (high - low)[:, None]
        tried = off(a[:, None] + t[..., None] * along)
        k = np.argmin(tried, axis=1)
        step = (high - low) / (TRIED + 1)
        low, high = t[rows, k] - step, t[rows, k] + step
        if left == 1:
            foot = low + step * (1.0 + _foot(tried, rows, k))
    t = np.stack([(low + high) / 2, foot, *ends], axis=1)
    return np.asarray(t[rows, np.argmin(off(a[:, None] + t[..., None] * along), axis=1)])


def _foot(tried: Columns, rows: Rows, k: Rows) -> Columns:
    """From the best place to the foot of the parabola through it and two beside it, in steps, within one."""
    middle = np.clip(k, 1, TRIED - 2)
    one, two, three = (tried[rows, middle + side] for side in (-1, 0, 1))
    bend = np.maximum(one - 2.0 * two + three, TINY)
    return np.clip(0.5 * (one - three) / bend + middle - k, -1.0, 1.0)


TRIED = 7
WHOLE = np.array([0.0, 1.0])
_SHARES = np.arange(1, TRIED + 1) / (TRIED + 1)


def _towards(start: Columns, end: Columns, by: float) -> Columns:
    """``start`` moved towards ``end`` by ``by``, no further than it."""
    d = end - start
    far = np.sqrt(dot(d, d))[..., None]
    return np.asarray(start + d * np.minimum(by / np.maximum(far, 1e-12), 1.0))


def bar_to_bar(a: Columns, b: Columns, radius: Columns | float, c: Columns, d: Columns, other: Columns | float) -> Near:
    """Bars against bars, both (n, 3) to (n, 3), each with one radius or one each."""
    u, v, w = b - a, d - c, a - c
    uu, vv, uv = dot(u, u), dot(v, v), dot(u, v)
    uw, vw = dot(u, w), dot(v, w)
    flat = uu * vv - uv * uv
    s = np.where(flat > 1e-9 * uu * vv, np.clip((uv * vw - vv * uw) / np.where(flat > 0, flat, 1.0), 0.0, 1.0), 0.0)
    t = (uv * s + vw) / np.maximum(vv, 1e-12)
    held = np.clip(t, 0.0, 1.0)
    # seen back from there: the same where neither was held, and right for parallel bars and for one of no length
    s = np.clip((uv * held - uw) / np.maximum(uu, 1e-12), 0.0, 1.0)
    p, q = a + s[..., None] * u, c + held[..., None] * v
    off = q - p
    gap, along = np.sqrt(dot(off, off)) - radius - other, _unit(off)
    return Near(gap, p + along * np.reshape(radius, (-1, 1)), q - along * np.reshape(other, (-1, 1)))


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
        return self._rounded(np.abs(out - middle) - half, along)

    def _rounded(self, out: Columns, along: Columns) -> Columns:
        """From a section with round shoulders: how far a point is out of it, and along the axis from its middle."""
        one, two = out + self.shoulder, np.abs(along) - (self.width / 2 - self.shoulder)
        outside = np.hypot(np.maximum(one, 0.0), np.maximum(two, 0.0))
        return np.asarray(outside + np.minimum(np.maximum(one, two), 0.0) - self.shoulder)

    def some(self, rows: Rows) -> "Ring":
        """Some of the positions."""
        return self._replace(centre=self.centre[rows], spin=self.spin[rows])

    def _seen(self, points: Columns) -> tuple[Columns, Columns]:
        """How far from the axis and along it points are."""
        lift = points.ndim - self.centre.ndim
        centre, spin = (v.reshape(len(v), *([1] * lift), 3) for v in (self.centre, self.spin))
        r = points - centre
        along = dot(r, spin)
        return np.sqrt(np.maximum(dot(r, r) - along * along, 0.0)), along

    def filled(self, points: Columns) -> Columns:
        """Signed distance to the tyre with its rim filled: a rounded disc, which is convex."""
        out, along = self._seen(points)
        return self._rounded(out - self.outside, along)

    def core(self, points: Columns) -> Columns:
        """Nearest point of the flat disc inside the rounding, (n, 3)."""
        r = points - self.centre
        along = dot(r, self.spin)[:, None]
        flat = r - along * self.spin
        far = np.sqrt(dot(flat, flat))[:, None]
        held = flat * np.minimum((self.outside - self.shoulder) / np.maximum(far, 1e-12), 1.0)
        half = self.width / 2 - self.shoulder
        return np.asarray(self.centre + held + np.clip(along, -half, half) * self.spin)


def ring_to_bar(ring: Ring, a: Columns, b: Columns, radius: Columns | float, rounds: int = ROUNDS) -> Near:
    """Tyres against bars, position by position: sampled along each bar, then narrowed down about the best sample."""
    share = np.linspace(0.0, 1.0, RING_SAMPLES)
    best = np.argmin(ring.distance(a[:, None] + share[None, :, None] * (b - a)[:, None]), axis=1)
    span = share[np.stack([np.maximum(best - 1, 0), np.minimum(best + 1, RING_SAMPLES - 1)], axis=1)]
    # the samples have closed in on it already
    t = _least_along(ring.distance, a, b, span, max(rounds - SAMPLED, SAMPLED))
    axis = a + t[:, None] * (b - a)
    depth, out = ring.distance(axis), _slope(ring.distance, axis)
    return Near(depth - radius, axis - out * depth[:, None], axis - out * np.reshape(radius, (-1, 1)))


def ring_to_convex(ring: Ring, pack: Pack, rounds: int = ROUNDS) -> Near:
    """Tyres, each against its own body of a pack; inside each other, the body's deepest point. Fewer rounds: a quick look."""
    if isinstance(pack, Bars):
        return _ring_to_round(ring, pack, rounds)
    swaps, stays = (SWAPS, STILL_MM) if rounds >= ROUNDS else (QUICK_SWAPS, QUICK_STILL_MM)
    p = pack.nearest(ring.centre)
    rows, tyres, theirs = np.arange(len(p)), ring, pack
    for k in range(swaps):
        here = p[rows]
        nearer = theirs.nearest(tyres.core(here))
        p[rows] = nearer
        step = nearer - here
        moving = dot(step, step) >= stays**2
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


def _ring_to_round(ring: Ring, bars: Bars, rounds: int) -> Near:
    """Tyres filled up to their rim, each against its own round bar: sought along the bar's axis."""
    t = _least_along(ring.filled, bars.a, bars.b, WHOLE, rounds)
    axis = bars.a + t[:, None] * (bars.b - bars.a)
    depth, out = ring.filled(axis), _slope(ring.filled, axis)
    return Near(depth - bars.radius, axis - out * depth[:, None], axis - out * bars.radius[:, None])


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
    """Gradient of a distance by central differences, unit length; it is asked for (n, 6, 3) points at once."""
    off = distance(points[:, None] + h * _SIX)
    return _unit(off[:, :3] - off[:, 3:])


_SIX = np.concatenate([np.eye(3), -np.eye(3)])
