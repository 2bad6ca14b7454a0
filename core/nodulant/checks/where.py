"""Names of places along a rail, as people say them, and the operation that a place belongs to."""

from collections.abc import Sequence

from nodulant.frame.columns import rail_at
from nodulant.frame.model import Placed
from nodulant.strength.rail import RailComparison
from nodulant.survey.vehicle import Survey

AXLE_MM, FEATURE_MM, BESIDE_MM = 150.0, 120.0, 25.0


def operation_at(rail: RailComparison, survey: Survey, x_mm: float) -> Placed | None:
    """The operation whose work a place on the rail belongs to: inside it, else within the rail's height of it."""
    height = rail_at(survey.rails.of(rail.side), x_mm)[1]
    near = [(_away(p, x_mm), p.op.opens, p) for p in rail.placed if p.op.on_rail]
    reached = [(away, not opens, k) for k, (away, opens, _) in enumerate(near) if away <= height]
    return near[min(reached)[2]][2] if reached else None


def _away(p: Placed, x_mm: float) -> float:
    if p.op.closes is not None:
        return min(abs(x_mm - p.start_mm), abs(x_mm - p.end_mm))
    return max(p.start_mm - x_mm, x_mm - p.end_mm, 0.0)


def cause_at(rail: RailComparison, survey: Survey, x_mm: float) -> str:
    """What checks of strength at a place are told together by."""
    placed = operation_at(rail, survey, x_mm)
    return f"strength {placed.op.id}" if placed else f"strength {round(x_mm / 250.0)}"


def place_words(rail: RailComparison, survey: Survey, x_mm: float) -> str:
    """'Rail over the rear axle', 'Rail at the front hanger'; plainly 'Rail' where nothing is near."""
    axles = [(0.0, "the front axle")] + ([(survey.wheelbase_mm, "the rear axle")] if survey.wheelbase_mm else [])
    if name := _nearest(x_mm, axles, AXLE_MM):
        return f"Rail over {name}"
    placed = operation_at(rail, survey, x_mm)
    if placed is not None:
        return f"Rail at '{placed.op.name}'"
    spots = [(f.x_mm, f.name) for f in survey.features] + [(s.x_mm, s.name) for s in survey.seats]
    spots += [(c.x_mm, f"{c.name} crossmember") for c in survey.crossmembers]
    name = _nearest(x_mm, spots, FEATURE_MM)
    return f"Rail at {name[0].lower()}{name[1:]}" if name else "Rail"


def _nearest(x_mm: float, spots: Sequence[tuple[float, str]], most_mm: float) -> str:
    near = min(((abs(x - x_mm), name) for x, name in spots), default=(most_mm + 1.0, ""))
    return near[1] if near[0] <= most_mm else ""
