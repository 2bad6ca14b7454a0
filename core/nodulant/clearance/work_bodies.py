"""What an operation adds to a rail as bodies that stand: plates on the webs, posts, risers, gussets, caps, brackets, mounts.

Plates that lie on a flange are part of the rail's own body. A plate on a web is as thick as it is;
what stands between two cut ends, in a corner or on the rail's top counts as solid from web to tip.
"""

import numpy as np
from shapely.geometry import Polygon

from nodulant.base.errors import InputError
from nodulant.base.memo import remembered
from nodulant.clearance.rail_prisms import ARC_MM, Strips, polygons, prisms_of, strips
from nodulant.clearance.shapes import Standing
from nodulant.frame.here import OnRail
from nodulant.frame.in_place import part_in_place, solid_in_place
from nodulant.frame.model import placed_on, planned_state, route_on
from nodulant.frame.ops.union import Operation
from nodulant.frame.parts import work_on
from nodulant.frame.route import Route
from nodulant.frame.seen import RailSeen, rail_seen
from nodulant.parts.part import Part
from nodulant.parts.sides import Side
from nodulant.parts.solid import Solid
from nodulant.survey.vehicle import Survey

ON_WEB = frozenset({"outer", "inner", "boxing", "patch", "patch-far", "foot", "plate"})
"""Roles of plates that lie on one wall of the rail; what else stands on a web reaches across it."""


@remembered(4)
def work_bodies(survey: Survey, operations: tuple[Operation, ...], side: Side) -> tuple[Standing, ...]:
    """One body for each operation that adds something beside the rail; none where a reading makes no rail."""
    state = planned_state(operations)
    try:
        placed = placed_on(survey, operations, side, state)
    except InputError:
        return ()
    route = route_on(survey, operations, side, state)
    seen, out = rail_seen(survey, side, route), []
    for work, p in zip(work_on(survey, side, placed), placed, strict=True):
        rows = [row for solid in work.solids if solid.on == "frame" for row in _of_solid(solid, work.on, route, side)]
        if not rows:
            rows = [row for part in work.parts for row in _of_part(part_in_place(part, route, p.centre_mm), seen)]
        if rows:
            out.append(Standing(f"{p.op.name}, {side}", "work", prisms_of(rows)))
    return tuple(out)


def _of_part(part: Part, seen: RailSeen) -> list[Strips]:
    """A piece on a web; what lies on a flange or goes across is none."""
    if part.face not in {"inner", "outer"}:
        return []
    if part.role in ON_WEB and part.count == 1:
        outward = np.sign(seen.web - seen.tip)
        near = seen.web if part.face == "outer" else seen.tip
        away = outward if part.face == "outer" else -outward
        faces = (near, near + away * part.thickness_mm)
    else:
        faces = (seen.web, seen.tip)
    shape = Polygon(part.outline.points(ARC_MM)).buffer(0)
    return [strips(polygon, seen.x, faces) for polygon in polygons(shape)]


def _of_solid(solid: Solid, on: OnRail, route: Route, side: Side) -> list[Strips]:
    """A block of a mount, or its plate's own outline; given for the right side."""
    there = solid_in_place(solid, route, on.span.centre_mm)
    y = there.y if side == "right" else [-there.y[1], -there.y[0]]
    if not there.side:
        (x0, x1), (z0, z1) = there.x, there.z
        return [(np.array([[(x0, z0), (x1, z0), (x1, z1), (x0, z1)]]), np.array(y[:1]), np.array(y[1:]))]
    x = np.array(there.x)
    faces = (np.full(2, y[0]), np.full(2, y[1]))
    return [strips(polygon, x, faces) for polygon in polygons(Polygon(there.side).buffer(0))]
