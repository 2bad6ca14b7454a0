"""What stands beside the rail's own stretch at an axle, seen from the side: pieces on the webs, and the rail past a step."""

from collections.abc import Sequence

import numpy as np

from nodulant.base.arrays import Columns
from nodulant.clearance.metal import Metal
from nodulant.frame.in_place import corners_of, part_in_place, solid_in_place
from nodulant.frame.model import Placed, route_through
from nodulant.frame.parts import work_on
from nodulant.frame.route import Route
from nodulant.frame.seen import RailSeen, rail_seen
from nodulant.job.document import Inputs
from nodulant.parts.sides import Side

OTHER_MM = 0.5
"""A stretch whose height differs by less is the axle's own."""
ARC_MM = 0.1


def beside_axle(
    inputs: Inputs, side: Side, placed: Sequence[Placed], axle_x_mm: float, reach_mm: float
) -> tuple[Metal, ...]:
    """Pieces within ``reach_mm`` of the axle, heights above the planned underside there, stations of the surveyed rail."""
    route = route_through(inputs.survey, placed, side)
    dx, dz = route.shift_at(axle_x_mm)
    stations = inputs.survey.rails.of(side).stations
    under = float(np.interp(axle_x_mm, [s.x_mm for s in stations], [s.underside_z_mm for s in stations]))
    out = []
    for work, p in zip(work_on(inputs.survey, side, placed), placed, strict=True):
        blocks = [solid_in_place(s, route, p.centre_mm) for s in work.solids if s.on == "frame"]
        out += [Metal(p.op.name, np.array(corners_of(block)) - (dx, under + dz)) for block in blocks]
        for part in work.parts:
            if blocks or part.face not in {"inner", "outer"}:
                continue
            there = part_in_place(part, route, p.centre_mm)
            corners = np.array(there.outline.points(ARC_MM)) - (dx, under + dz)
            out.append(Metal(f"{part.name.lower()} of {p.op.name}", corners))
    if not route.level:
        out += [
            Metal("the rail's other stretch", corners - (dx, under + dz))
            for corners in _other_stretches(rail_seen(inputs.survey, side, route), route, dz)
        ]
    near = (axle_x_mm - reach_mm, axle_x_mm + reach_mm)
    return tuple(m for m in out if m.span[0] < near[1] and m.span[1] > near[0])


def _other_stretches(seen: RailSeen, route: Route, dz: float) -> list[Columns]:
    """Outlines of the rail's stretches that stand at another height than the axle's."""
    lift = route.shift(seen.stock_x).dz
    edges = np.flatnonzero(np.abs(np.diff(lift)) > OTHER_MM) + 1
    out = []
    for rows in np.split(np.arange(len(lift)), edges):
        if len(rows) < 2 or abs(float(lift[rows[0]]) - dz) < OTHER_MM:
            continue
        x, low, high = seen.x[rows], seen.low[rows], seen.high[rows]
        out.append(np.concatenate([np.stack([x, low], axis=1), np.stack([x[::-1], high[::-1]], axis=1)]))
    return out
