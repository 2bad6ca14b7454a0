"""Where both rails stand in the planned frame at one station: what a gauge between them has to reach."""

from dataclasses import dataclass

import numpy as np

from nodulant.frame.columns import rail_at
from nodulant.frame.model import Placed, placed_on, planned_state, route_on
from nodulant.frame.ops.union import Operation
from nodulant.frame.route import Route
from nodulant.parts.sides import LEFT_RIGHT, Side
from nodulant.survey.vehicle import Survey


@dataclass(frozen=True)
class RailsHere:
    """Both rails as planned, by side: how they run, and what is done to each."""

    survey: Survey
    routes: dict[Side, Route]
    placed: dict[Side, tuple[Placed, ...]]

    def stock_across(self, side: Side, x_mm: float) -> tuple[float, float]:
        """Inner and outer face of one rail from the centre plane as surveyed, mm."""
        rail = self.survey.rails.of(side)
        wide = rail_at(rail, x_mm)[2]
        inward = rail.opens == "inward"
        return (rail.web_y_mm - wide, rail.web_y_mm) if inward else (rail.web_y_mm, rail.web_y_mm + wide)

    def across(self, side: Side, x_mm: float) -> tuple[float, float]:
        """The same in the planned frame, at a stock station."""
        near, far = self.stock_across(side, x_mm)
        inward = float(self.routes[side].shift(np.array([x_mm])).inward[0])
        return near - inward, far - inward

    def between_stock(self, x_mm: float) -> float:
        """From inner face to inner face as surveyed, mm."""
        return sum(self.stock_across(side, x_mm)[0] for side in LEFT_RIGHT)

    def between(self, x_mm: float) -> float:
        """From inner face to inner face at a stock station, mm."""
        return sum(self.across(side, x_mm)[0] for side in LEFT_RIGHT)

    def over(self, x_mm: float) -> float:
        """From outer face to outer face at a stock station, mm."""
        return sum(self.across(side, x_mm)[1] for side in LEFT_RIGHT)

    def underside(self, side: Side, x_mm: float) -> float:
        """Rail's underside above the datum plane in the planned frame, at a stock station."""
        return rail_at(self.survey.rails.of(side), x_mm)[0] + self.routes[side].shift_at(x_mm)[1]

    def risen(self, side: Side, x_mm: float, still_mm: float) -> float:
        """Rail's underside at a stock station when the part of the frame at ``still_mm`` has not moved."""
        route = self.routes[side]
        return rail_at(self.survey.rails.of(side), x_mm)[0] + route.shift_at(x_mm)[1] - route.shift_at(still_mm)[1]

    def pairs(self) -> list[tuple[Placed, Placed | None]]:
        """Every operation once, with the same on the other rail where it is on both."""
        right = {p.op.id: p for p in self.placed["right"]}
        out: list[tuple[Placed, Placed | None]] = [(p, right.pop(p.op.id, None)) for p in self.placed["left"]]
        return out + [(p, None) for p in right.values()]


def rails_here(survey: Survey, operations: tuple[Operation, ...]) -> RailsHere:
    """Of a design; raises InputError."""
    state = planned_state(operations)
    routes = {side: route_on(survey, operations, side, state) for side in LEFT_RIGHT}
    return RailsHere(survey, routes, {side: placed_on(survey, operations, side, state) for side in LEFT_RIGHT})
