"""How an operation's parts are drawn on its sheet: on the planned rail seen from the side, and laid flat beside it."""

from collections.abc import Iterable

import numpy as np
from shapely import Polygon, unary_union

from nodulant.base.model import Frozen
from nodulant.clearance.rail_prisms import openings, polygons
from nodulant.frame.in_place import part_in_place
from nodulant.frame.model import planned_state, route_on
from nodulant.frame.parts import Work
from nodulant.frame.route import Route
from nodulant.frame.seen import pieces_of, rail_seen, side_of
from nodulant.geometry import Outline
from nodulant.geometry.outline import polygon
from nodulant.job.document import Inputs
from nodulant.parts.part import Part, Seam

BESIDE_MM = 250.0
"""So much of the rail is drawn ahead of an operation and behind it."""


class SeenPart(Frozen):
    """A part by its number: where it stands seen from the side, or laid flat. mm."""

    number: int
    outline: Outline
    in_place: bool


class SeenWeld(Frozen):
    """A seam by its number, on a part that stands in place."""

    number: int
    path: Outline


class View(Frozen):
    """What a sheet shows: the rail with its openings, parts in place and laid flat, seams."""

    rail: tuple[Outline, ...]
    parts: tuple[SeenPart, ...]
    welds: tuple[SeenWeld, ...]


def view_of(inputs: Inputs, work: Work, numbers: dict[str, int], welds: Iterable[tuple[int, Seam]]) -> View:
    """One rail's side of it: the other is its mirror, or has rows of its own."""
    survey, ops, side = inputs.survey, inputs.design.operations, work.on.side
    route = route_on(survey, ops, side, planned_state(ops))
    middle = work.on.span.centre_mm
    end, stands = work.op.end_on_rail(work.on), dict[str, Outline]()
    for part in work.parts:
        if part.face in {"inner", "outer"}:
            stands[part.id] = part_in_place(part, route, middle).outline
        elif not part.from_plate and end is not None:
            stands[part.id] = _moved(end, route, middle)
    seen: dict[int, SeenPart] = {}
    for part in work.parts:
        shape, there = stands.get(part.id, part.outline), part.id in stands
        seen.setdefault(numbers[part.id], SeenPart(number=numbers[part.id], outline=shape, in_place=there))
    own = {p.id: p for p in work.parts}
    return View(
        rail=_rail(inputs, work, route, [s.outline for s in seen.values() if s.in_place]),
        parts=tuple(seen.values()),
        welds=tuple(w for number, seam in welds if (w := _weld(number, seam, own, stands, route, middle))),
    )


def _weld(
    number: int, seam: Seam, own: dict[str, Part], stands: dict[str, Outline], route: Route, middle: float
) -> SeenWeld | None:
    part = own.get(seam.part_b) or own.get(seam.part_a)
    if part is None or part.id not in stands:
        return SeenWeld(number=number, path=_moved(seam.path, route, middle)) if part is None else None
    if seam.path == part.outline:
        return SeenWeld(number=number, path=stands[part.id])
    return SeenWeld(number=number, path=_moved(seam.path, route, middle if part.rides_mm is None else part.rides_mm))


def _moved(path: Outline, route: Route, at_mm: float) -> Outline:
    return path.moved(*route.shift_at(at_mm))


def _rail(inputs: Inputs, work: Work, route: Route, parts: list[Outline]) -> tuple[Outline, ...]:
    """The rail as planned from a little ahead of everything to a little behind it."""
    survey, side = inputs.survey, work.on.side
    seen = rail_seen(survey, side, route)
    ends = [route.x_at(work.on.span.start_mm), route.x_at(work.on.span.end_mm)]
    ends += [x for outline in parts for x in outline.bounds()[::2]]
    low, high = min(ends) - BESIDE_MM, max(ends) + BESIDE_MM
    whole = unary_union([side_of(seen, *run).buffer(0) for run in pieces_of(seen, route)])
    gone = openings(survey, inputs.design.operations, side, route)
    shape = whole.difference(unary_union(gone)) if gone else whole
    z0, z1 = float(np.min(seen.low)) - 1.0, float(np.max(seen.high)) + 1.0
    window = shape.intersection(Polygon([(low, z0), (high, z0), (high, z1), (low, z1)]))
    return tuple(polygon(list(part.exterior.coords)[:-1]) for part in polygons(window))
