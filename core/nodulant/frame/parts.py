"""Every part and seam that the operations add to one rail."""

import math
from dataclasses import dataclass

from nodulant.frame.columns import rail_at, slope_at
from nodulant.frame.here import Cutting, OnRail, RailHere
from nodulant.frame.model import Placed
from nodulant.parts.part import Part, Seam
from nodulant.parts.sides import Side
from nodulant.survey.vehicle import Survey


@dataclass(frozen=True)
class Added:
    """Parts and seams of one rail."""

    parts: tuple[Part, ...]
    seams: tuple[Seam, ...]


def rail_here(survey: Survey, side: Side, centre_mm: float, placed: list[Placed]) -> RailHere:
    """The rail at one station, with the width that a boxing plate closes it to."""
    rail = survey.rails.of(side)
    underside, height, width, wall = rail_at(rail, centre_mm)
    slope = math.atan(slope_at(rail, centre_mm))
    if rail.kind == "round-tube":
        return RailHere(centre_mm, underside, height, height, wall, height, slope, round=True)
    set_in = [p.op.closes for p in placed if p.op.closes is not None and p.start_mm <= centre_mm <= p.end_mm]
    closed = max([width, *(width - inset for inset in set_in)])
    return RailHere(centre_mm, underside, height, width, wall, closed, slope)


def on_rail(survey: Survey, side: Side, p: Placed, placed: list[Placed]) -> OnRail:
    """One placed operation with the rail around it and the cuts of all."""
    cuts = tuple(Cutting(q.centre_mm, q.op.edge_above, q.op.from_above) for q in placed if q.op.opens)
    return OnRail(side, survey.rails.of(side), p.span, rail_here(survey, side, p.centre_mm, placed), cuts)


def added_parts(survey: Survey, side: Side, placed: list[Placed]) -> Added:
    """Parts and seams of every operation on ``side``."""
    parts: list[Part] = []
    seams: list[Seam] = []
    for p in placed:
        on = on_rail(survey, side, p, placed)
        own = p.op.parts(on)
        parts += own
        seams += p.op.seams(on, own)
    return Added(tuple(parts), tuple(seams))
