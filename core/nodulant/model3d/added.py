"""What a design adds: plates on the rail's side where they stand, everything else laid flat beside the frame.

Each piece is there with its true outline, holes and thickness, so that volume times density is its mass. Mounts stand
on the frame as the blocks that the sweep knows them by.
"""

from collections.abc import Iterator

import numpy as np
import trimesh
from shapely import Point, Polygon

from nodulant.frame.in_place import part_in_place, solid_in_place
from nodulant.frame.model import placed_on, planned_state, route_on
from nodulant.frame.ops.union import Operation
from nodulant.frame.parts import work_on
from nodulant.frame.seen import RailSeen, rail_seen
from nodulant.model3d.body import CHORD_MM, Body, flat, upright
from nodulant.parts.part import Part
from nodulant.parts.sides import LEFT_RIGHT
from nodulant.parts.solid import Solid
from nodulant.survey.vehicle import Survey

BENCH_Y_MM, BESIDE_MM = 1600.0, 40.0
"""Where pieces lie that do not stand on a rail's side: out on the right, one behind the other."""


def added_bodies(survey: Survey, operations: tuple[Operation, ...]) -> Iterator[Body]:
    """Of both sides; raises InputError."""
    state, bench = planned_state(operations), 0.0
    for side in LEFT_RIGHT:
        route = route_on(survey, operations, side, state)
        seen = rail_seen(survey, side, route)
        for work in work_on(survey, side, placed_on(survey, operations, side, state)):
            middle, called = work.on.span.centre_mm, work.op.name
            for part, number in ((p, k) for p in work.parts for k in range(p.count)):
                name = f"{called}: {part.name}, {side}" + (f" {number + 1}" if part.count > 1 else "")
                if part.face in {"inner", "outer"}:
                    placed = part_in_place(part, route, middle)
                    yield Body(name, "added", upright(shape_of(placed), *_across(placed, seen, number)), part.id)
                else:
                    yield Body(name, "laid flat", _lying(part, bench), part.id)
                    bench += part.outline.bounds()[3] - part.outline.bounds()[1] + BESIDE_MM
            for solid in work.solids:
                if solid.on == "frame":
                    there = solid_in_place(solid, route, middle)
                    yield Body(f"{called}: {solid.name}, {side}", "mounts", _block(there, right=side == "right"))


def _lying(part: Part, along_mm: float) -> trimesh.Trimesh:
    """A piece on the floor beside the frame."""
    x0, y0, _, _ = part.outline.bounds()
    mesh = flat(shape_of(part), 0.0, part.thickness_mm)
    mesh.apply_translation((-x0, BENCH_Y_MM + along_mm - y0, 0.0))
    return mesh


def shape_of(part: Part) -> Polygon:
    """Its outline with its holes."""
    whole = Polygon(part.outline.points(CHORD_MM)).buffer(0)
    for hole in part.holes:
        whole = whole.difference(Point(hole.x_mm, hole.y_mm).buffer(hole.diameter_mm / 2, quad_segs=32))
    return whole if isinstance(whole, Polygon) else max(whole.geoms, key=lambda piece: piece.area)


def _across(part: Part, seen: RailSeen, number: int) -> tuple[float, float]:
    """Both faces of a plate on a web or on the open side; the second of two stands on the other wall."""
    middle = sum(part.outline.bounds()[::2]) / 2
    web, tip = (float(np.interp(middle, seen.x, face)) for face in (seen.web, seen.tip))
    out = 1.0 if web > tip else -1.0
    near, away = (web, out) if part.face == "outer" else (tip, -out)
    if part.count > 1:
        # a built box: its sides are the rail's own walls
        near, away = (web, -out) if number == 0 else (tip, out)
    return near, near + away * part.thickness_mm


def _block(solid: Solid, *, right: bool) -> trimesh.Trimesh:
    """A mount's block or side outline; solids are given for the right side."""
    (x0, x1), (z0, z1) = solid.x, solid.z
    corners = [(x, z) for x, z in solid.side] or [(x0, z0), (x1, z0), (x1, z1), (x0, z1)]
    y0, y1 = (solid.y[0], solid.y[1]) if right else (-solid.y[1], -solid.y[0])
    return upright(Polygon(corners).buffer(0), y0, y1)
