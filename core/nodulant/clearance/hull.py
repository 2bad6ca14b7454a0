"""What rods sweep where they pass a rail: their outline on the rail's side plane, and the holes that hold it.

A round rod cut by the plane of the rail's face is an ellipse, v'(I - d d')v <= rho^2 with d its
direction. A straight rod between both faces lies within the hull of both ellipses; over all
positions the outline is the hull of all of them. The smallest circle is that of all hull points;
an oblong is two half circles one above the other that hold them.
"""

from dataclasses import dataclass

import numpy as np
import shapely
from shapely.geometry import MultiPoint, Polygon

from nodulant.base.arrays import Columns
from nodulant.clearance.moving import Mover, RoundBar

ROUND = 24
"""Points of every ellipse; their polygon is drawn round it, not in it."""


@dataclass(frozen=True)
class Circle:
    """Middle in x and z, and radius, mm."""

    x: float
    z: float
    radius: float


@dataclass(frozen=True)
class Oblong:
    """Two half circles one above the other: middle, radius, and the straight part between them, mm."""

    x: float
    z: float
    radius: float
    tall: float

    @property
    def area(self) -> float:
        """What it takes out of a web, mm2."""
        return float(np.pi * self.radius**2 + 2 * self.radius * self.tall)


def swept_hull(movers: tuple[Mover, ...], face_a: float, face_b: float, room_mm: float = 0.0) -> Polygon | None:
    """Hull in x and z of all that bars sweep between two planes across, y, with room square to each of them; None where none comes between them."""
    low, high = min(face_a, face_b), max(face_a, face_b)
    points = [p for m in movers if isinstance(m.body, RoundBar) for p in _between(m, m.body, low, high, room_mm)]
    if not points:
        return None
    hull = MultiPoint(np.concatenate(points)).convex_hull
    return hull if isinstance(hull, Polygon) else None


def _between(mover: Mover, body: RoundBar, low: float, high: float, room_mm: float) -> list[Columns]:
    a, b = body.a[mover.there], body.b[mover.there]
    d = b - a
    long = np.sqrt((d**2).sum(axis=1, keepdims=True))
    unit = d / np.maximum(long, 1e-9)
    out = []
    for y in (low, high):
        run = np.where(np.abs(d[:, 1]) < 1e-9, 1e-9, d[:, 1])
        t = np.clip((y - a[:, 1]) / run, 0.0, 1.0)
        at = a + t[:, None] * d
        # an end that stops short of the plane still reaches into the rail while it lies between both planes
        inside = (at[:, 1] >= low - 1e-6) & (at[:, 1] <= high + 1e-6)
        if inside.any():
            out.append(_ellipses(at[inside][:, ::2], unit[inside][:, ::2], body.radius + room_mm))
    return out


def _ellipses(middle: Columns, d: Columns, radius: float) -> Columns:
    """Points round each ellipse (n, 2): long way along d in the plane, 1/|d_y| of the radius."""
    flat = np.sqrt((d**2).sum(axis=1, keepdims=True))
    along = np.where(flat > 1e-9, d / np.maximum(flat, 1e-9), np.array([1.0, 0.0]))
    across = np.stack([-along[:, 1], along[:, 0]], axis=1)
    long = radius / np.sqrt(np.maximum(1.0 - flat**2, 1e-4))
    turn = 2 * np.pi * np.arange(ROUND) / ROUND
    grow = 1.0 / np.cos(np.pi / ROUND)
    u, v = np.cos(turn)[None, :, None], np.sin(turn)[None, :, None]
    points = middle[:, None] + grow * (u * (long * along)[:, None] + v * (radius * across)[:, None])
    return np.asarray(points.reshape(-1, 2))


def least_circle(hull: Polygon) -> Circle:
    """The smallest circle round the hull."""
    circle = shapely.minimum_bounding_circle(hull)
    radius = shapely.minimum_bounding_radius(hull)
    return Circle(float(circle.centroid.x), float(circle.centroid.y), float(radius))


def least_oblong(hull: Polygon, radii: tuple[float, ...]) -> Oblong | None:
    """Of half circles to choose from, the oblong that takes the least; None where none is wide enough."""
    points = np.array(hull.exterior.coords)
    found = [o for radius in radii if (o := _oblong(points, radius)) is not None]
    return min(found, key=lambda o: o.area, default=None)


def _oblong(points: Columns, radius: float) -> Oblong | None:
    """The shortest oblong of one radius that holds all points."""
    x = float(points[:, 0].min() + points[:, 0].max()) / 2
    off = radius**2 - (points[:, 0] - x) ** 2
    if (off < 0).any():
        return None
    reach = np.sqrt(off)
    # each point asks for a middle line that comes within its reach from below and from above
    top, bottom = float((points[:, 1] - reach).max()), float((points[:, 1] + reach).min())
    if top <= bottom:
        return Oblong(x, (top + bottom) / 2, radius, 0.0)
    return Oblong(x, (top + bottom) / 2, radius, top - bottom)
