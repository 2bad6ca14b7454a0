"""The boxing plate of one side as a flat shape, notched where the rail is."""

from itertools import pairwise

from nodulant.frame.here import Cutting, OnRail
from nodulant.frame.ops.plates.boxing_plan import BoxingPlan
from nodulant.geometry import Outline, Vertex
from nodulant.parts.part import Part, Seam, part_id
from nodulant.parts.sides import Side
from nodulant.survey.rail import Rail


def boxing_outline(boxing: BoxingPlan, on: OnRail) -> Outline:
    """Outline in station and height, mm: the rail's own wavy edges, less the cuts."""
    rail, start_mm, end_mm = on.rail, on.span.start_mm, on.span.end_mm
    at = [start_mm, *(s.x_mm for s in rail.stations if start_mm < s.x_mm < end_mm), end_mm]
    low = [_edge(rail, x, boxing, top=False) for x in at]
    high = [_edge(rail, x, boxing, top=True) for x in at]
    edges = []
    for z, above in ((low, False), (high, True)):
        edge = [Vertex(x=x, y=y) for x, y in zip(at, z, strict=True)]
        for cut in on.cuts:
            if cut.edge.from_above is above and start_mm < cut.centre_mm < end_mm:
                edge = _cut_into(edge, cut, rail, boxing)
        edges.append(edge)
    return Outline(vertices=(*edges[0], *_backwards(edges[1])))


def _backwards(path: list[Vertex]) -> list[Vertex]:
    """The same path from its rear to its front: each bulge goes with the segment that now leaves its vertex."""
    bulges = [0.0, *(-v.bulge for v in path[:-1])]
    turned = [Vertex(x=v.x, y=v.y, bulge=b) for v, b in zip(path, bulges, strict=True)]
    return turned[::-1]


def _cut_into(edge: list[Vertex], cut: Cutting, rail: Rail, boxing: BoxingPlan) -> list[Vertex]:
    """``edge`` of the plate with the cut's edge in it."""
    centre, up = cut.centre_mm, -1.0 if cut.edge.from_above else 1.0
    base = _interpolate(rail, centre, "underside_z_mm")
    if cut.edge.from_above:
        base += _interpolate(rail, centre, "height_mm")
    level = up * (_edge(rail, centre, boxing, top=cut.edge.from_above) - base)
    inside = [Vertex(x=v.x + centre, y=base + up * v.y, bulge=up * v.bulge) for v in cut.edge.edge_above(level)]
    if not inside:
        return edge
    before = [v for v in edge if v.x < inside[0].x]
    behind = [v for v in edge if v.x > inside[-1].x]
    return [*before, *inside, *behind]


def _edge(rail: Rail, x: float, boxing: BoxingPlan, top: bool) -> float:
    z = _interpolate(rail, x, "underside_z_mm")
    wall = 0.0 if boxing.fit == "over-lips" else _interpolate(rail, x, "wall_mm")
    return z + _interpolate(rail, x, "height_mm") - wall if top else z + wall


def _interpolate(rail: Rail, x: float, field: str) -> float:
    rows = [(s.x_mm, float(getattr(s, field) or 0.0)) for s in rail.stations]
    for (x0, v0), (x1, v1) in pairwise(rows):
        if x0 <= x <= x1:
            return v0 + (v1 - v0) * (x - x0) / (x1 - x0)
    return rows[0][1] if x < rows[0][0] else rows[-1][1]


def boxing_part(boxing: BoxingPlan, side: Side, outline: Outline) -> Part:
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


def boxing_seam(boxing: BoxingPlan, side: Side, part: Part) -> Seam:
    """Fillet around the plate, full length or stitched."""
    return Seam(
        part_a=f"rail/{side}",
        part_b=part.id,
        kind="fillet",
        leg_mm=boxing.weld_leg_mm,
        path=part.outline,
        welded_share=boxing.welded_share,
    )
