"""Plates that lie flat on a rail's flange, seen from the side: what is drawn, swept and kept clear of the axle."""

from collections.abc import Iterable

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
