"""The boxing plate of one side as a flat shape, notched where the rail is."""

from itertools import pairwise

from nodulant.frame.ops.boxing import Boxing
from nodulant.frame.ops.notch import Notch
from nodulant.geometry import Outline, Vertex
from nodulant.parts.part import Part, Seam, part_id
from nodulant.parts.sides import Side
from nodulant.survey.rail import Rail


def boxing_outline(
    boxing: Boxing, start_mm: float, end_mm: float, rail: Rail, notches: list[tuple[Notch, float]]
) -> Outline:
    """Outline in station and height, mm: the rail's own wavy edges, less the cuts."""
    at = [start_mm, *(s.x_mm for s in rail.stations if start_mm < s.x_mm < end_mm), end_mm]
    low = [_edge(rail, x, boxing, top=False) for x in at]
    high = [_edge(rail, x, boxing, top=True) for x in at]
    bottom = [Vertex(x=x, y=z) for x, z in zip(at, low, strict=True)]
    for notch, centre in notches:
        if start_mm < centre < end_mm:
            bottom = _cut_into(bottom, notch, centre, rail, boxing)
    top = [Vertex(x=x, y=z) for x, z in zip(reversed(at), reversed(high), strict=True)]
    return Outline(vertices=(*bottom, *top))


def _cut_into(bottom: list[Vertex], notch: Notch, centre: float, rail: Rail, boxing: Boxing) -> list[Vertex]:
    base = _interpolate(rail, centre, "underside_z_mm")
    level = _edge(rail, centre, boxing, top=False) - base
    edge = [Vertex(x=v.x + centre, y=v.y + base, bulge=v.bulge) for v in notch.shape.path_above(notch.depth_mm, level)]
    if not edge:
        return bottom
    before = [v for v in bottom if v.x < edge[0].x]
    behind = [v for v in bottom if v.x > edge[-1].x]
    return [*before, *edge, *behind]


def _edge(rail: Rail, x: float, boxing: Boxing, top: bool) -> float:
    z = _interpolate(rail, x, "underside_z_mm")
    wall = 0.0 if boxing.fit == "over-lips" else _interpolate(rail, x, "wall_mm")
    return z + _interpolate(rail, x, "height_mm") - wall if top else z + wall


def _interpolate(rail: Rail, x: float, field: str) -> float:
    rows = [(s.x_mm, float(getattr(s, field) or 0.0)) for s in rail.stations]
    for (x0, v0), (x1, v1) in pairwise(rows):
        if x0 <= x <= x1:
            return v0 + (v1 - v0) * (x - x0) / (x1 - x0)
    return rows[0][1] if x < rows[0][0] else rows[-1][1]


def boxing_part(boxing: Boxing, side: Side, outline: Outline) -> Part:
    """The boxing plate of ``side``."""
    return Part(
        id=part_id(boxing.id, "boxing", side),
        operation=boxing.id,
        role="boxing",
        side=side,
        name="Boxing plate",
        face="inner",
        outline=outline,
        thickness_mm=boxing.thickness_mm,
        steel_id=boxing.steel_id,
    )


def boxing_seam(boxing: Boxing, side: Side, part: Part) -> Seam:
    """Fillet around the plate, full length."""
    return Seam(part_a=f"rail/{side}", part_b=part.id, kind="fillet", leg_mm=boxing.weld_leg_mm, path=part.outline)
