"""Pieces put into an outline from its lower left, by no-fit polygons.

The no-fit polygon of a lying piece A and a new one B is the Minkowski sum of A and -B (Art 1966, from memory): B's origin may
stand anywhere outside it. Outlines that are not convex are summed piece by piece (their triangles, joined where
that stays convex).
"""

from collections.abc import Iterable, Sequence

import numpy as np
from numpy.typing import NDArray
from shapely import Polygon, box, constrained_delaunay_triangles, unary_union
from shapely.affinity import rotate, scale
from shapely.geometry.base import BaseGeometry
from shapely.geometry.polygon import orient

from nodulant.stock.nesting.piece import placed_shape, quarters

ALMOST_MM = 1e-4
"""A piece may touch what is beside it."""
SMOOTH_MM = 1.0
"""Arcs are followed from outside to this, so that no-fit polygons stay small."""
FEW = 16
"""Corners of an outline without arcs."""
Corners = NDArray[np.float64]
Parts = list[Corners]
Spot = tuple[float, float, float]
"""Where a piece's origin stands, mm, and how far it is turned, degrees."""


def bottom_left(
    shapes: Sequence[Polygon], room: Polygon, gap_mm: float, most: int, there: Iterable[Polygon] = (), *, grain: bool
) -> dict[int, Spot]:
    """Put each shape in turn where it reaches the least far along and then across ``room``; by index, those that fit.

    ``room`` is what the edge's margin leaves, ``there`` what lies in it already. Pieces stand ``gap_mm`` apart at
    least; ``most`` are put, and it stops when so many different ones did not fit.
    """
    apart = room.buffer(gap_mm / 2, join_style="mitre")
    lying = [convex_parts(_body(shape, gap_mm)) for shape in there]
    out: dict[int, Spot] = {}
    too_large: list[Polygon] = []
    for k, shape in enumerate(shapes):
        if len(out) == most or len(too_large) == most or any(shape.equals(other) for other in too_large):
            continue
        body = _body(shape, gap_mm)
        spot = _best(body, apart, lying, _turns(body, grain=grain))
        if spot is None:
            too_large.append(shape)
            continue
        out[k] = spot
        lying.append(convex_parts(placed_shape(body, *spot)))
    return out


def _best(body: Polygon, room: Polygon, lying: Sequence[Parts], turns: Iterable[float]) -> Spot | None:
    """The turn and place that reach the least far."""
    best: tuple[tuple[float, float], Spot] | None = None
    for turn in turns:
        turned = placed_shape(body, 0.0, 0.0, turn)
        at = _lowest(turned, room, lying)
        if at is not None:
            reach = (at[0] + turned.bounds[2], at[1] + turned.bounds[3])
            if best is None or reach < best[0]:
                best = (reach, (*at, turn))
    return None if best is None else best[1]


def _turns(body: Polygon, *, grain: bool) -> tuple[float, ...]:
    """Quarter turns that lay it differently; half turns along the grain."""
    turns = quarters(grain=grain)
    half = rotate(body, 180, origin=body.envelope.centroid)
    return turns[::2] if half.symmetric_difference(body).area < 1e-3 * body.area else turns


def _body(shape: Polygon, gap_mm: float) -> Polygon:
    """A shape with half the gap round it; arcs a little coarser, never smaller."""
    if len(shape.exterior.coords) <= FEW:
        return shape.buffer(gap_mm / 2, join_style="mitre", mitre_limit=2.0)
    grown = shape.buffer(gap_mm / 2 + SMOOTH_MM / 2, join_style="mitre", mitre_limit=2.0).simplify(SMOOTH_MM / 2)
    return grown if isinstance(grown, Polygon) and grown.covers(shape) else shape.convex_hull.buffer(gap_mm / 2)


def _lowest(body: Polygon, room: Polygon, lying: Iterable[Parts]) -> tuple[float, float] | None:
    """The place of a body's origin, least along and then across, where it is inside the room and over nothing."""
    x0, y0, x1, y1 = room.bounds
    a0, b0, a1, b1 = body.bounds
    if a1 - a0 > x1 - x0 + ALMOST_MM or b1 - b0 > y1 - y0 + ALMOST_MM:
        return None
    inside = box(x0 - a0 - ALMOST_MM, y0 - b0 - ALMOST_MM, x1 - a1 + ALMOST_MM, y1 - b1 + ALMOST_MM)
    frame = box(x0, y0, x1, y1).difference(room)
    turned = convex_parts(scale(body, -1.0, -1.0, origin=(0, 0)))
    blocked = [no_fit(parts, turned) for parts in (*(convex_parts(p) for p in polygons_of(frame)), *lying)]
    free = inside.difference(unary_union(blocked).buffer(-ALMOST_MM)) if blocked else inside
    corners = [c for part in polygons_of(free) for ring in (part.exterior, *part.interiors) for c in ring.coords]
    return min(((float(c[0]), float(c[1])) for c in corners), default=None)


def no_fit(lying: Parts, turned: Parts) -> BaseGeometry:
    """Where the origin of a body may not stand, so that it lies over no metal: ``turned`` are its parts, turned by half."""
    return unary_union([_sum(one, two) for one in lying for two in turned])


def _sum(one: Corners, two: Corners) -> Polygon:
    """Minkowski sum of two convex outlines: their edges in the order of their direction, from both lowest corners."""
    edges = np.concatenate([np.roll(one, -1, axis=0) - one, np.roll(two, -1, axis=0) - two])
    order = np.argsort(np.arctan2(edges[:, 1], edges[:, 0]) % (2 * np.pi), kind="stable")
    return Polygon(np.cumsum(np.vstack([one[0] + two[0], edges[order][:-1]]), axis=0))


def convex_parts(shape: Polygon) -> Parts:
    """Corners of convex pieces that make up a polygon: triangles, joined while they stay convex."""
    if shape.convex_hull.area - shape.area < 1e-6 * shape.area:
        return [_from_lowest(shape)]
    parts = [t for t in constrained_delaunay_triangles(shape).geoms if t.area > 1e-9]
    merged = True
    while merged:
        merged = False
        for i in range(len(parts)):
            for j in range(i + 1, len(parts)):
                whole = parts[i].union(parts[j])
                if isinstance(whole, Polygon) and whole.convex_hull.area - whole.area < 1e-6 * whole.area:
                    parts[i] = whole
                    del parts[j]
                    merged = True
                    break
            if merged:
                break
    return [_from_lowest(p) for p in parts]


def _from_lowest(shape: Polygon) -> Corners:
    """Corners of the hull of a convex outline, against the clock from the lowest, of two the left one."""
    corners = np.array(orient(shape.convex_hull).exterior.coords)[:-1]
    first = int(np.lexsort((corners[:, 0], corners[:, 1]))[0])
    return np.roll(corners, -first, axis=0)


def polygons_of(shape: BaseGeometry) -> list[Polygon]:
    """Every outline that a geometry holds."""
    parts = getattr(shape, "geoms", [shape])
    return [p for p in parts if isinstance(p, Polygon) and not p.is_empty and p.area > 1e-9]
