"""Parts where they stand on the planned frame, and plates that lie flat on a flange: drawn, swept, kept clear of the axle."""

from collections.abc import Iterable

import numpy as np

from nodulant.base.errors import InputError
from nodulant.frame.columns import rail_at
from nodulant.frame.model import placed_on
from nodulant.frame.ops.union import Operation
from nodulant.frame.parts import work_on
from nodulant.frame.route import Route
from nodulant.frame.state import FrameState
from nodulant.geometry import Outline
from nodulant.geometry.outline import polygon
from nodulant.parts.part import Part
from nodulant.parts.sides import Side
from nodulant.parts.solid import Solid
from nodulant.survey.rail import Rail
from nodulant.survey.vehicle import Survey


def lying(parts: Iterable[Part]) -> list[Part]:
    """Those of some parts that lie flat on a flange."""
    return [part for part in parts if part.lower_face_mm is not None]


def from_the_side(part: Part, rail: Rail) -> Outline:
    """A lying plate in side view: stations and heights over the datum plane of the stock rail, mm.

    It follows the flange as surveyed; raises ValueError for a part that lies on no flange.
    """
    if part.lower_face_mm is None:
        raise ValueError(f"'{part.name}' lies on no flange")
    ends = [v.x for v in part.outline.vertices]
    start, end = min(ends), max(ends)
    x = [start, *(s.x_mm for s in rail.stations if start < s.x_mm < end), end]
    on_top = part.lower_face_mm > 0
    edge = [z + (height if on_top else 0.0) for z, height in (rail_at(rail, at)[:2] for at in x)]
    t = part.thickness_mm if on_top else -part.thickness_mm
    near, far = list(zip(x, edge, strict=True)), [(at, z + t) for at, z in zip(x, edge, strict=True)]
    return polygon([*near, *reversed(far)])


def lying_in_place(
    survey: Survey, operations: tuple[Operation, ...], side: Side, state: FrameState, route: Route
) -> list[tuple[str, Outline]]:
    """Lying plates of one rail by part id, in side view on the planned frame; none where the readings make no rail."""
    try:
        placed = placed_on(survey, operations, side, state)
    except InputError:
        return []
    rail, out = survey.rails.of(side), []
    for work, p in zip(work_on(survey, side, placed), placed, strict=True):
        dx, dz = route.shift_at(p.centre_mm)
        out += [(part.id, from_the_side(part, rail).moved(dx, dz)) for part in lying(work.parts)]
    return out


def blocks_in_place(
    survey: Survey,
    operations: tuple[Operation, ...],
    side: Side,
    state: FrameState,
    route: Route,
    *,
    rail_to_rail: bool,
) -> list[tuple[str, str, Outline]]:
    """Mounts on one rail, or what reaches from rail to rail: operation, name and outline from the side.

    None where the readings make no rail.
    """
    try:
        placed = placed_on(survey, operations, side, state)
    except InputError:
        return []
    out = []
    for work, p in zip(work_on(survey, side, placed), placed, strict=True):
        for solid in work.solids:
            if solid.on == "frame" and p.op.one_piece == rail_to_rail:
                there = solid_in_place(solid, route, p.centre_mm)
                out.append((p.op.id, solid.name, polygon(corners_of(there))))
    return out


def corners_of(solid: Solid) -> list[tuple[float, float]]:
    """A block seen from the side."""
    if solid.side:
        return [(x, z) for x, z in solid.side]
    (x0, x1), (z0, z1) = solid.x, solid.z
    return [(x0, z0), (x1, z0), (x1, z1), (x0, z1)]


def part_in_place(part: Part, route: Route, middle_mm: float) -> Part:
    """A part where its rail is in the planned frame; it rides with its own station or its operation's middle."""
    dx, dz = route.shift_at(middle_mm if part.rides_mm is None else part.rides_mm)
    if part.turn:
        turned = part.outline.turned(part.turn.degrees, part.turn.x_mm, part.turn.z_mm)
        part = part.model_copy(update={"outline": turned})
    if not dx and not dz:
        return part
    up = dz if part.face in {"inner", "outer"} else 0.0
    holes = tuple(hole.moved(dx, up) for hole in part.holes)
    return part.model_copy(update={"outline": part.outline.moved(dx, up), "holes": holes})


def solid_in_place(solid: Solid, route: Route, middle_mm: float) -> Solid:
    """A mount's block of the right side where its rail is in the planned frame; what is on the axle stays."""
    shift = route.shift(np.array([middle_mm]))
    dx, dz, inward = float(shift.dx[0]), float(shift.dz[0]), float(shift.inward[0])
    if solid.on != "frame" or not (dx or dz or inward):
        return solid
    # what reaches the centre plane goes across from rail to rail: its outer end alone moves in
    y = [v - inward if v > 0 else v for v in solid.y]
    return solid.model_copy(
        update={
            "x": [v + dx for v in solid.x],
            "y": y,
            "z": [v + dz for v in solid.z],
            "side": [[x + dx, z + dz] for x, z in solid.side],
        }
    )
