"""A rail as it is seen: its faces along its planned route, and the edges of its cuts in their places."""

from dataclasses import dataclass
from itertools import pairwise

import numpy as np
from shapely import Polygon

from nodulant.base.arrays import Columns
from nodulant.base.errors import InputError
from nodulant.frame.columns import rail_at
from nodulant.frame.model import placed_on
from nodulant.frame.ops.union import Operation
from nodulant.frame.route import EDGE, Route
from nodulant.frame.state import FrameState
from nodulant.geometry import Outline
from nodulant.parts.sides import Side
from nodulant.survey.rail import Rail
from nodulant.survey.vehicle import Survey


@dataclass(frozen=True)
class RailSeen:
    """A rail's faces along its planned route, mm; ``stock_x`` are the surveyed stations of the same columns."""

    stock_x: Columns
    x: Columns
    low: Columns
    high: Columns
    web: Columns
    tip: Columns


def rail_seen(survey: Survey, side: Side, route: Route) -> RailSeen:
    """The faces of one rail at its surveyed stations and both sides of every cut."""
    rail = survey.rails.of(side)
    sign, inward = (-1.0 if side == "left" else 1.0), (-1.0 if rail.opens == "inward" else 1.0)
    x = _drawn_stations(rail, route)
    shift = route.shift(x)

    def at(field: str) -> Columns:
        values: Columns = np.interp(x, [s.x_mm for s in rail.stations], [getattr(s, field) for s in rail.stations])
        return values

    under, web = at("underside_z_mm") + shift.dz, rail.web_y_mm - shift.inward
    tip = sign * (web + inward * at("width_mm"))
    return RailSeen(x, x + shift.dx, under, under + at("height_mm"), np.asarray(sign * web), np.asarray(tip))


def _drawn_stations(rail: Rail, route: Route) -> Columns:
    """Surveyed stations that are still there, and both sides of every cut."""
    marks = [s.x_mm for s in rail.stations]
    for move in route.moves:
        if rail.start_mm < move.at_mm < rail.end_mm:
            marks += [move.at_mm, move.at_mm + max(move.gone_mm, 2 * EDGE)]
    every = np.unique(np.array(marks))
    return np.asarray(every[route.exists(every)])


def pieces_of(seen: RailSeen, route: Route) -> list[tuple[int, int]]:
    """First and last column of every stretch of rail that is in one piece."""
    starts = [0]
    for k in range(1, len(seen.stock_x)):
        if any(seen.stock_x[k - 1] <= move.at_mm < seen.stock_x[k] for move in route.moves):
            starts.append(k)
    return [(a, b - 1) for a, b in pairwise([*starts, len(seen.stock_x)]) if b - a > 1]


def side_of(seen: RailSeen, first: int, last: int, top_mm: float = 0.0, bottom_mm: float = 0.0) -> Polygon:
    """A stretch seen from the side: all of it, or so much along its top or its underside."""
    own = slice(first, last + 1)
    x, under, top = seen.x[own], seen.low[own], seen.high[own]
    if top_mm:
        under = top - top_mm
    if bottom_mm:
        top = under + bottom_mm
    return Polygon([*zip(x, under, strict=True), *zip(x[::-1], top[::-1], strict=True)])


def cut_outlines(
    survey: Survey, operations: tuple[Operation, ...], side: Side, state: FrameState, route: Route
) -> tuple[Outline, ...]:
    """Edges of the cuts in their planned places; none where the readings do not make a cut."""
    try:
        placed = placed_on(survey, operations, side, state)
    except InputError:
        return ()
    rail = survey.rails.of(side)
    out = []
    for p in placed:
        edge = p.op.cut_edge()
        if edge is None:
            continue
        under, height = rail_at(rail, p.centre_mm)[:2]
        own = edge.upside_down().moved(0.0, height) if p.op.from_above else edge
        dx, dz = route.shift_at(p.centre_mm)
        out.append(own.moved(p.centre_mm + dx, under + dz))
    return tuple(out)
