"""A rail's stations from its side outline, and its section kind from a cross-section, as drawn.

The wall of a thin section follows from its area and girth: A = t (P/2), corners corrected. The
kind is the one whose own area and upright inertia come nearest to the drawn polygon's; how near
is told, so that a section that is none of these is seen.
"""

from itertools import pairwise
from typing import Literal

import numpy as np
from shapely.geometry import LineString, Polygon

from nodulant.base.errors import InputError
from nodulant.base.model import Frozen
from nodulant.formats.drawn_shapes import outer_with_holes, read_shapes
from nodulant.frame.columns import rail_columns
from nodulant.frame.rail_pieces import rail_pieces
from nodulant.sections.properties import combine
from nodulant.survey.rail import Rail, RailKind, Station

LEAST_STEP_MM = 20.0
NEAR = 0.03
"""A kind whose area or inertia is further off than this is no match."""


def stations_from_outline(text: str, unit: str, front_x_mm: float, like: Station) -> tuple[Station, ...]:
    """Stations at the outline's corners; its left-most point is at ``front_x_mm``, width and wall are as ``like``.

    Heights stay as drawn: the drawing's y = 0 is the datum plane. Raises InputError.
    """
    shape = read_shapes(text, unit)[0]
    left, low, right, high = shape.bounds
    corners = sorted({round(x, 1) for x, _ in shape.exterior.coords})
    kept = [corners[0]]
    for x in corners[1:]:
        if x - kept[-1] >= LEAST_STEP_MM:
            kept.append(x)
    kept[-1] = corners[-1] if corners[-1] - kept[-1] < LEAST_STEP_MM else kept[-1]
    out = []
    for x in kept:
        inside = min(max(x, left + 1e-3), right - 1e-3)
        line = shape.intersection(LineString([(inside, low - 1), (inside, high + 1)]))
        _, z0, _, z1 = line.bounds
        out.append(
            like.model_copy(
                update={
                    "x_mm": round(x - left + front_x_mm, 2),
                    "underside_z_mm": round(z0, 2),
                    "height_mm": round(z1 - z0, 2),
                }
            )
        )
    checked = tuple(Station.model_validate(s.model_dump()) for s in out)
    if len(checked) < 2 or any(b.x_mm <= a.x_mm for a, b in pairwise(checked)):
        raise InputError(
            "this outline is no rail seen from the side",
            found=f"{len(checked)} stations",
            acceptable="a long closed outline",
        )
    return checked


Lips = Literal["inward", "outward"]


class DrawnSection(Frozen):
    """What a drawn cross-section is taken for, and how far area and inertia of that are off, as shares."""

    kind: RailKind
    height_mm: float
    width_mm: float
    wall_mm: float
    lip_mm: float
    lips: Lips
    area_off: float
    inertia_off: float


def section_from_drawing(text: str, unit: str) -> DrawnSection:
    """The kind and sizes that a drawn cross-section comes nearest to; raises InputError where none is near."""
    shape = outer_with_holes(read_shapes(text, unit))
    found = [d for d in (_judged(kind, lips, shape) for kind, lips in KINDS) if d is not None]
    best = min(found, key=lambda d: max(abs(d.area_off), abs(d.inertia_off)), default=None)
    if best is None or max(abs(best.area_off), abs(best.inertia_off)) > NEAR:
        off = "nothing near" if best is None else f"nearest {best.kind}, inertia off by {best.inertia_off:.0%}"
        raise InputError(
            "this section is none of the kinds that are computed",
            found=off,
            acceptable="channel, with or without lips, rectangular or round tube, top-hat; in mm, web upright",
        )
    return best


KINDS: tuple[tuple[RailKind, Lips], ...] = (
    ("channel", "inward"),
    ("lipped-channel", "inward"),
    ("lipped-channel", "outward"),
    ("rect-tube", "inward"),
    ("round-tube", "inward"),
    ("top-hat", "outward"),
)


def _judged(kind: RailKind, lips: Lips, shape: Polygon) -> DrawnSection | None:
    """The sizes that give ``kind`` the drawn bounds, girth and area, and what is then off."""
    if bool(shape.interiors) != (kind in {"rect-tube", "round-tube"}):
        return None
    x0, y0, x1, y1 = shape.bounds
    height, width, wall = y1 - y0, x1 - x0, _wall(shape)
    lip = 0.0
    if kind == "lipped-channel":
        lip = (shape.area / wall - (height + 2 * width - 2 * wall)) / 2 + wall
        if lips == "outward":
            lip = _reach_of_lips(shape)
            height -= 2 * (lip - wall)
    elif kind == "top-hat":
        body = shape.intersection(LineString([(x0 - 1, (y0 + y1) / 2), (x1 + 1, (y0 + y1) / 2)])).bounds
        lip = (width - (body[2] - body[0])) / 2
        width = body[2] - body[0]
    if kind in {"lipped-channel", "top-hat"} and lip <= wall:
        return None
    try:
        rows = tuple(
            Station(x_mm=x, underside_z_mm=0.0, height_mm=height, width_mm=width, wall_mm=wall) for x in (0.0, 100.0)
        )
        rail = Rail(kind=kind, lip_mm=lip, lips=lips, stations=rows, steel_id="mild")
    except ValueError:
        return None
    columns, none = rail_columns(rail, np.array([50.0])), np.zeros(1)
    p = combine(rail_pieces(columns, none, none))
    return DrawnSection(
        kind=kind,
        height_mm=round(height, 2),
        width_mm=round(width, 2),
        wall_mm=round(wall, 3),
        lip_mm=round(lip, 2),
        lips=lips,
        area_off=float(p.area[0]) / shape.area - 1.0,
        inertia_off=float(p.i_y[0]) / _inertia(shape) - 1.0,
    )


def _wall(shape: Polygon) -> float:
    """Thickness of a thin wall: exact for strips with square corners. Open: A = s t, P = 2 s + 2 t; hollow: A = t P/2."""
    girth = shape.exterior.length + sum(r.length for r in shape.interiors)
    if shape.interiors:
        return float(2 * shape.area / girth)
    return (float(girth) - float(np.sqrt(max(girth**2 - 16 * shape.area, 0.0)))) / 4


def _reach_of_lips(shape: Polygon) -> float:
    """Depth of lips turned apart: from the outermost edge to the flange's inner face, seen beside the web."""
    x0, y0, x1, y1 = shape.bounds
    middle = (x0 + x1) / 2
    flange = shape.intersection(LineString([(middle, y0 - 1), (middle, (y0 + y1) / 2)])).bounds
    return float(flange[3] - y0) if flange else 0.0


def _inertia(shape: Polygon) -> float:
    """Second moment about the horizontal axis through the centroid, mm4."""
    total = 0.0
    for ring, sign in [(shape.exterior, 1.0), *((r, -1.0) for r in shape.interiors)]:
        points = list(ring.coords)
        turn = sum(x0 * y1 - x1 * y0 for (x0, y0), (x1, y1) in pairwise(points))
        own = sum((x0 * y1 - x1 * y0) * (y0 * y0 + y0 * y1 + y1 * y1) for (x0, y0), (x1, y1) in pairwise(points)) / 12
        total += sign * own * (1.0 if turn > 0 else -1.0)
    return float(total - shape.area * shape.centroid.y**2)
