"""A rail as prisms, its cuts and holes taken out, plates on its flanges put on: what an axle, a rod or a tyre may touch.

The rail counts as solid between its faces, an open one too, so nothing is told to fit inside a
channel. Notches are open as far as their liner leaves them, holes as far as their pipe does.
Arcs are drawn by chords that leave metal by up to 0.3 mm; where a rail runs askew in plan it is
cut short enough that its stepped faces lie within 2 mm outside of it.
"""

from collections.abc import Sequence
from itertools import pairwise

import numpy as np
from shapely.geometry import Polygon
from shapely.ops import unary_union

from nodulant.base.arrays import Columns, Mask
from nodulant.base.errors import InputError
from nodulant.base.memo import remembered
from nodulant.clearance.shapes import Prisms, Standing
from nodulant.frame.columns import rail_at
from nodulant.frame.in_place import lying_in_place
from nodulant.frame.model import placed_on, planned_state, route_on
from nodulant.frame.ops.hole import WebHole
from nodulant.frame.ops.notches.notch import Notch
from nodulant.frame.ops.union import Operation
from nodulant.frame.route import Route
from nodulant.frame.seen import rail_seen
from nodulant.parts.sides import Side
from nodulant.survey.vehicle import Survey

ARC_MM, ASKEW_MM, THIN_MM, LEAST_HOLE_MM = 0.3, 2.0, 1e-6, 15.0


@remembered(4)
def rail_body(survey: Survey, operations: tuple[Operation, ...], side: Side) -> Standing:
    """The planned rail of one side."""
    route = route_on(survey, operations, side, planned_state(operations))
    seen = rail_seen(survey, side, route)
    outline = Polygon([*zip(seen.x, seen.low, strict=True), *zip(seen.x[::-1], seen.high[::-1], strict=True)])
    gone = openings(survey, operations, side, route)
    solid = outline.buffer(0).difference(unary_union(gone)) if gone else outline.buffer(0)
    flat = lying_in_place(survey, operations, side, planned_state(operations), route)
    solid = unary_union([solid, *(Polygon(edge.points()) for _, edge in flat)]) if flat else solid
    found = [strips(part, seen.x, (seen.web, seen.tip)) for part in polygons(solid)]
    return Standing(f"{side} rail", "rail", prisms_of(found))


Strips = tuple[Columns, Columns, Columns]
"""Corners (strips, 4, 2), x and z, and each one's least and most y (strips,)."""


def prisms_of(found: Sequence[Strips]) -> Prisms:
    """Strips of several polygons as one pack; there is one or more."""
    return Prisms(*(np.concatenate(own) for own in zip(*found, strict=True)))


def openings(survey: Survey, operations: tuple[Operation, ...], side: Side, route: Route) -> list[Polygon]:
    """What is cut out of the rail, less its liners, in its place on the planned frame."""
    try:
        placed = placed_on(survey, operations, side, planned_state(operations))
    except InputError:
        return []
    rail, out = survey.rails.of(side), []
    for p in placed:
        under, height = rail_at(rail, p.centre_mm)[:2]
        dx, dz = route.shift_at(p.centre_mm)
        if (edge := p.op.cut_edge()) is not None:
            own = edge.upside_down().moved(0.0, height) if p.op.from_above else edge
            shape = Polygon(own.moved(p.centre_mm + dx, under + dz).points(ARC_MM))
            liner = p.op.liner.thickness_mm if isinstance(p.op, Notch) and p.op.liner else 0.0
            out.append(_lined(shape, liner, p.op.from_above))
        elif isinstance(p.op, WebHole) and p.op.work != "plug" and p.op.clear_mm >= LEAST_HOLE_MM:
            outline = p.op.clear_outline().moved(p.centre_mm + dx, under + p.op.height_mm + dz)
            out.append(Polygon(outline.points(ARC_MM)))
    return [shape for shape in (polygon.buffer(0) for polygon in out) if shape.area > 0]


def _lined(cut: Polygon, liner_mm: float, from_above: bool) -> Polygon:
    """The cut less its liner, carried on past the rail's edge where it opens."""
    x0, z0, x1, z1 = cut.bounds
    past = z1 if from_above else z0
    mouth = Polygon([(x0, past - 1.0), (x1, past - 1.0), (x1, past + 1.0), (x0, past + 1.0)])
    if liner_mm <= 0:
        return unary_union([cut, mouth])
    far = 4 * liner_mm
    low, high = (z1 - 0.01, z1 + far) if from_above else (z0 - far, z0 + 0.01)
    # the mouth has no liner across it: lengthened before the liner is taken off on all sides
    longer = unary_union([cut, Polygon([(x0, low), (x1, low), (x1, high), (x0, high)])])
    return longer.buffer(-liner_mm, join_style="mitre")


def polygons(shape: object) -> list[Polygon]:
    """The polygons that a shape is made of."""
    parts = getattr(shape, "geoms", [shape])
    return [p for p in parts if isinstance(p, Polygon) and p.area > THIN_MM]


def strips(part: Polygon, x: Columns, faces: tuple[Columns, Columns]) -> Strips:
    """Upright strips between every two corners; each is one trapezium, or several above each other.

    ``faces`` are both of its sides (y) along stations ``x``.
    """
    rings = [np.array(r.coords) for r in (part.exterior, *part.interiors)]
    edges = np.concatenate([np.stack([r[:-1], r[1:]], axis=1) for r in rings])
    marks = _marks(np.unique(np.round(np.concatenate([r[:, 0] for r in rings]), 6)), x, faces)
    there = [np.interp(marks, x, face) for face in faces]
    near, far = np.minimum(*there), np.maximum(*there)
    near, far = np.minimum(near[:-1], near[1:]), np.maximum(far[:-1], far[1:])
    start, end = marks[:-1], marks[1:]
    middle = (start + end) / 2
    over = (edges[..., 0].min(axis=1)[:, None] < middle) & (edges[..., 0].max(axis=1)[:, None] > middle)
    z = _heights(edges, np.stack([start, middle, end]), over)
    order, count = np.argsort(z[:, 1], axis=0), over.sum(axis=0)
    # metal begins at every first edge from below and ends at every second one
    rows = [np.flatnonzero(count >= 2 * k) for k in range(1, int(count.max(initial=0)) // 2 + 1)]
    strip = np.concatenate([np.zeros(0, dtype=np.int64), *rows])
    pair = np.repeat(np.arange(len(rows)), [len(own) for own in rows])
    under, above = order[2 * pair, strip], order[2 * pair + 1, strip]
    x0, x1 = start[strip], end[strip]
    ends = [(x0, z[under, 0, strip]), (x1, z[under, 2, strip]), (x1, z[above, 2, strip]), (x0, z[above, 0, strip])]
    corners = np.stack([np.stack(corner, axis=1) for corner in ends], axis=1)
    return corners, near[strip], far[strip]


def _marks(corners: Columns, x: Columns, faces: tuple[Columns, Columns]) -> Columns:
    """Corners, and between them enough more where the rail runs askew in plan."""
    marks = [corners[0]]
    across = np.maximum(*(np.abs(np.diff(np.interp(corners, x, face))) for face in faces))
    for k, (x0, x1) in enumerate(pairwise(corners)):
        if x1 - x0 < THIN_MM:
            continue
        askew = float(across[k])
        marks += list(np.linspace(x0, x1, max(int(np.ceil(askew / ASKEW_MM)), 1) + 1)[1:])
    return np.array(marks)


def _heights(edges: Columns, x: Columns, over: Mask) -> Columns:
    """Height of every edge at places ``x`` (places, strips) where it is over a strip, (edges, places, strips); infinite where not."""
    a, b = edges[:, 0], edges[:, 1]
    long = np.where(b[:, 0] != a[:, 0], b[:, 0] - a[:, 0], 1.0)
    share = (x - a[:, :1, None]) / long[:, None, None]
    at = a[:, 1:, None] + share * (b[:, 1:] - a[:, 1:])[..., None]
    return np.where(over[:, None], at, np.inf)
