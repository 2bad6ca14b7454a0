"""Both rails as walls: web, flanges and what closes them, cut where they are cut, in the planned frame.

A round tube, a top-hat and lips are drawn as the solid between their faces: their own walls would say no more from
outside.
"""

from collections.abc import Iterator

import numpy as np
from shapely import unary_union
from shapely.geometry.base import BaseGeometry

from nodulant.clearance.rail_prisms import openings
from nodulant.frame.columns import rail_at
from nodulant.frame.model import planned_state, route_on
from nodulant.frame.ops.union import Operation
from nodulant.frame.seen import RailSeen, pieces_of, rail_seen, side_of
from nodulant.model3d.body import Body, several
from nodulant.parts.sides import LEFT_RIGHT
from nodulant.survey.rail import Rail
from nodulant.survey.vehicle import Survey

WALLED = frozenset({"channel", "rect-tube", "two-skin"})
Wall = tuple[str, BaseGeometry, float, float]
"""What it is, its shape from the side, and the distances of its faces from the centre plane."""


def rail_bodies(survey: Survey, operations: tuple[Operation, ...]) -> Iterator[Body]:
    """Walls of both rails; raises InputError where an operation cannot be."""
    for side in LEFT_RIGHT:
        route = route_on(survey, operations, side, planned_state(operations))
        seen = rail_seen(survey, side, route)
        gone = unary_union(openings(survey, operations, side, route))
        for number, run in enumerate(pieces_of(seen, route), 1):
            for what, shape, y0, y1 in _walls(survey.rails.of(side), seen, run):
                for mesh in several(shape.difference(gone), y0, y1):
                    yield Body(f"{side} rail, piece {number}, {what}", "frame", mesh)


def _walls(rail: Rail, seen: RailSeen, run: tuple[int, int]) -> list[Wall]:
    own = slice(run[0], run[1] + 1)
    web, tip = float(np.mean(seen.web[own])), float(np.mean(seen.tip[own]))
    _, _, _, wall = rail_at(rail, float(np.mean(seen.stock_x[own])))
    whole = side_of(seen, *run).buffer(0)
    if rail.kind not in WALLED or wall <= 0:
        return [("whole", whole, web, tip)]
    inward = 1.0 if tip > web else -1.0
    far = tip - inward * wall if rail.kind == "rect-tube" else tip
    flange = (web + inward * wall, far)
    walls: list[Wall] = [
        ("web", whole, web, web + inward * wall),
        ("top", side_of(seen, *run, top_mm=wall).buffer(0), *flange),
        ("bottom", side_of(seen, *run, bottom_mm=wall).buffer(0), *flange),
    ]
    if rail.kind == "rect-tube":
        walls.append(("far wall", whole, far, tip))
    if rail.kind == "two-skin":
        walls.append(("skin", whole, tip, tip + inward * (rail.second_wall_mm or wall)))
    return walls
