"""Every part and seam that the operations add to one rail."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property, lru_cache

from nodulant.base.memo import remembered
from nodulant.frame.columns import rail_at, slope_at
from nodulant.frame.here import Cutting, OnRail, RailHere
from nodulant.frame.model import Placed
from nodulant.frame.ops.union import Operation
from nodulant.parts.joint import Joint
from nodulant.parts.part import Part, Seam
from nodulant.parts.sides import Side
from nodulant.parts.solid import Solid
from nodulant.parts.specs import CheckSpec, FatigueDetail, FigureSpec
from nodulant.survey.vehicle import Survey


@dataclass(frozen=True)
class Added:
    """Parts and seams of one rail."""

    parts: tuple[Part, ...]
    seams: tuple[Seam, ...]


def rail_here(survey: Survey, side: Side, centre_mm: float, placed: Sequence[Placed]) -> RailHere:
    """The rail at one station, with the width that a boxing plate closes it to and how far the plan moves it inward."""
    rail = survey.rails.of(side)
    underside, height, width, wall = rail_at(rail, centre_mm)
    slope = math.atan(slope_at(rail, centre_mm))
    inward = sum(m.inward_mm for p in placed for m in p.op.moves(p.span, side) if m.at_mm < centre_mm)
    if rail.kind == "round-tube":
        return RailHere(centre_mm, underside, height, height, wall, height, slope, round=True, inward=inward)
    set_in = [p.op.closes for p in placed if p.op.closes is not None and p.start_mm <= centre_mm <= p.end_mm]
    closed = max([width, *(width - inset for inset in set_in)])
    return RailHere(centre_mm, underside, height, width, wall, closed, slope, boxed=bool(set_in), inward=inward)


def _cuts(placed: Sequence[Placed]) -> tuple[Cutting, ...]:
    return tuple(Cutting(q.centre_mm, q.op) for q in placed if q.op.opens)


def on_rail(survey: Survey, side: Side, p: Placed, placed: Sequence[Placed]) -> OnRail:
    """One placed operation with the rail around it and the cuts of all."""
    return OnRail(side, survey.rails.of(side), p.span, rail_here(survey, side, p.centre_mm, placed), _cuts(placed))


@dataclass(frozen=True)
class Work:
    """What one operation gives on one rail, each worked out once."""

    op: Operation
    on: OnRail

    @cached_property
    def parts(self) -> tuple[Part, ...]:
        """Plates and pieces."""
        return tuple(self.op.parts(self.on))

    @cached_property
    def mass_kg(self) -> float:
        """Mass of its parts, kg."""
        return sum(part.mass_kg() for part in self.parts)

    @cached_property
    def seams(self) -> tuple[Seam, ...]:
        """The welds that hold them."""
        return tuple(self.op.seams(self.on, list(self.parts)))

    @cached_property
    def weld_mm(self) -> float:
        """Length that is welded, mm."""
        return sum(seam.welded_mm for seam in self.seams)

    @cached_property
    def checks(self) -> tuple[CheckSpec, ...]:
        """Checks that need only the operation and the rail."""
        return self.op.checks(self.on)

    @cached_property
    def details(self) -> tuple[FatigueDetail, ...]:
        """Edges and welds whose fatigue counts."""
        return self.op.details(self.on)

    @cached_property
    def figures(self) -> tuple[FigureSpec, ...]:
        """Numbers that are shown."""
        return self.op.figures(self.on)

    @cached_property
    def joints(self) -> tuple[Joint, ...]:
        """What is put in where the rail is cut through."""
        return self.op.joints(self.on)

    @cached_property
    def solids(self) -> tuple[Solid, ...]:
        """What its parts fill in space."""
        return self.op.solids(self.on)


_work = lru_cache(maxsize=512)(Work)


@remembered(8)
def work_on(survey: Survey, side: Side, placed: Sequence[Placed]) -> tuple[Work, ...]:
    """The work of every operation on ``side``, remembered by content: an edit of one leaves the others' alone."""
    rail, cuts = survey.rails.of(side), _cuts(placed)
    return tuple(
        _work(p.op, OnRail(side, rail, p.span, rail_here(survey, side, p.centre_mm, placed), cuts)) for p in placed
    )


def added_parts(survey: Survey, side: Side, placed: Sequence[Placed]) -> Added:
    """Parts and seams of every operation on one rail."""
    work = work_on(survey, side, placed)
    return Added(tuple(p for w in work for p in w.parts), tuple(s for w in work for s in w.seams))
