"""One rail compared: stock against a state, each under its own supports."""

from collections.abc import Mapping
from dataclasses import dataclass
from functools import cached_property

import numpy as np

from nodulant.base.arrays import Columns
from nodulant.frame.assembly import SectionColumns
from nodulant.frame.model import STOCK, Placed, placed_on, route_through, sections
from nodulant.frame.ops.union import Operation
from nodulant.frame.parts import Work, work_on
from nodulant.frame.route import Route
from nodulant.frame.state import FrameState
from nodulant.frame.stations import stations
from nodulant.loads.beam import Internal, internal_forces
from nodulant.loads.carried import moved_masses, moved_seats
from nodulant.parts.joint import Joint
from nodulant.parts.sides import LEFT_RIGHT, Side
from nodulant.strength.compare import HALF_OF_PEAK, Ratios, Use, bending_stress, ratios, use
from nodulant.survey.vehicle import Seat, Survey

BESIDE_MM = 2.0
"""Stations this near both sides of a crossmember, so that the jump there is not spread along the rail."""


@dataclass(frozen=True)
class Loading:
    """Internal forces and use of both frames at 1 g."""

    stock: Internal
    state: Internal
    use_stock: Use
    use_state: Use


@dataclass(frozen=True)
class RailComparison:
    """Stock and state along one rail; ``loading`` is None where masses or seats are missing."""

    side: Side
    state: FrameState
    x: Columns
    placed: tuple[Placed, ...]
    stock: SectionColumns
    built: SectionColumns
    ratios: Ratios
    loading: Loading | None
    route: Route
    work: tuple[Work, ...]
    """What each of ``placed`` gives, in the same order."""

    def between(self, start_mm: float, end_mm: float) -> slice:
        """Rows of the stations from one place to another, both included."""
        return slice(int(np.searchsorted(self.x, start_mm)), int(np.searchsorted(self.x, end_mm, side="right")))

    @cached_property
    def stress_after(self) -> Columns | None:
        """MPa at 1 g of the weaker fibre in this state; None where loads are not known."""
        return None if self.loading is None else bending_stress(self.built, self.loading.state.moment)

    @cached_property
    def stress(self) -> tuple[Columns, Columns] | None:
        """MPa at 1 g: stock's own or half its peak, and this state's; None where loads are not known."""
        if self.loading is None or self.stress_after is None:
            return None
        before = bending_stress(self.stock, self.loading.stock.moment)
        return np.maximum(before, HALF_OF_PEAK * float(before.max())), self.stress_after


def missing_for_sections(survey: Survey, side: Side) -> tuple[str, ...]:
    """Pointers of the readings without which no section can be computed."""
    rail = survey.rails.of(side)
    return tuple(f"/survey/rails/{side}/stations/{i}/wall_mm" for i, s in enumerate(rail.stations) if s.wall_mm is None)


def missing_for_loads(survey: Survey) -> tuple[str, ...]:
    """Pointers of the inputs without which no moment can be computed."""
    return tuple(p for p, have in (("/survey/masses", survey.weighs), ("/survey/seats", survey.seats)) if not have)


def compare_rail(
    survey: Survey,
    operations: tuple[Operation, ...],
    seats: tuple[Seat, ...],
    side: Side,
    state: FrameState,
    also: tuple[float, ...] = (),
) -> RailComparison:
    """Evaluate one rail, at the stations ``also`` too; walls must have been measured. Raises InputError and NotSolvable."""
    placed = placed_on(survey, operations, side, state)
    rail = survey.rails.of(side)
    ties = [c.x_mm + step for c in survey.crossmembers for step in (-BESIDE_MM, 0.0, BESIDE_MM)]
    marks = [s.x_mm for s in (*survey.seats, *seats)] + ties + _hole_stations(survey) + list(also)
    route = route_through(survey, [p for p in placed if p.op.id in state.cuts], side)
    x = stations(rail.start_mm, rail.end_mm, placed, marks)
    x = x[route.exists(x)]
    stock = sections(survey, (), side, x, STOCK)
    built = sections(survey, operations, side, x, state)
    loading = None if missing_for_loads(survey) else _loading(survey, seats, x, stock, built, route)
    return RailComparison(
        side=side,
        state=state,
        x=x,
        placed=placed,
        stock=stock,
        built=built,
        ratios=ratios(stock, built),
        loading=loading,
        route=route,
        work=work_on(survey, side, placed),
    )


def _hole_stations(survey: Survey) -> list[float]:
    return [f.x_mm for f in survey.features if f.kind == "hole"]


def _loading(
    survey: Survey,
    seats: tuple[Seat, ...],
    x: Columns,
    stock: SectionColumns,
    built: SectionColumns,
    route: Route,
) -> Loading:
    before = internal_forces(x, survey.masses, survey.seats)
    both = dict.fromkeys(LEFT_RIGHT, route)
    masses = survey.masses if route.straight else moved_masses(survey.masses, both)
    own = seats or survey.seats
    after = internal_forces(route.x(x), masses, own if route.straight else moved_seats(own, both))
    return Loading(before, after, use(stock.properties, before.moment), use(built.properties, after.moment))


def joints_of(rails: Mapping[Side, RailComparison]) -> tuple[Joint, ...]:
    """Everything that was put in where a rail was cut through, both sides."""
    return tuple(joint for rail in rails.values() for work in rail.work for joint in work.joints)
