"""Changes of the frame that take load off a place: a crossmember there, or a seat that is moved."""

from collections.abc import Iterator

from nodulant.evaluate.load_plan import plan_of
from nodulant.frame.model import placed_on, planned_state, route_through
from nodulant.frame.ties import SAME_PLACE_MM, planned_crossmembers
from nodulant.job.document import Inputs
from nodulant.parts.sides import LEFT_RIGHT
from nodulant.remedies.patch import Patch
from nodulant.strength.typed_mounts import bears_across, bears_spring
from nodulant.survey.crossmember import Crossmember
from nodulant.units.said import said

MOVES_MM = (-150.0, -100.0, -50.0, 50.0, 100.0, 150.0)
NEAR_MM = 400.0
TRACK_BAR = 0.5
"""Of a force across: what takes more than this of it is a track bar."""
BAY_MM = 1500.0
"""A spring or a track bar this near may be what a place feels: its torque goes from crossmember to crossmember."""
BESIDE_MM = 80.0
"""A crossmember this far from what twists a rail still carries it, and stands clear of what is at that place."""
TIE = {"profile": "tube", "height_mm": 60.0, "width_mm": 60.0, "wall_mm": 4.0, "end": "welded"}


def frame_changes(inputs: Inputs, station_mm: float) -> Iterator[Patch]:
    """A crossmember at a stock station or where springs and track bars twist the rails, and every planned seat near it moved."""
    design = inputs.design
    ties = planned_crossmembers(inputs.survey, design.operations, design.crossmembers)
    taken = {c.id for c in ties}
    name = next(f"tie-{n}" for n in range(1, 99) if f"tie-{n}" not in taken)
    rails = inputs.survey.rails
    start = max(rails.left.start_mm, rails.right.start_mm)
    end = min(rails.left.end_mm, rails.right.end_mm)
    for place in (station_mm, *_twisting(inputs, station_mm)):
        if not start <= place <= end or any(abs(c.x_mm - place) < SAME_PLACE_MM for c in ties):
            continue
        tie = Crossmember.model_validate({"id": name, "name": "Added", "x_mm": round(place), **TIE})
        words = said("a tube crossmember welded in at {at}", at=(tie.x_mm, "length"))
        yield Patch(clauses=(words,), crossmembers=(tie,))
    for seat in design.seats:
        if abs(seat.x_mm - station_mm) > NEAR_MM:
            continue
        for move in MOVES_MM:
            if not start <= seat.x_mm + move <= end:
                continue
            moved = tuple(s.model_copy(update={"x_mm": s.x_mm + move}) if s.id == seat.id else s for s in design.seats)
            where = "rearward" if move > 0 else "forward"
            words = said(f"{seat.name} {{by}} {where}", by=(abs(move), "length"))
            yield Patch(clauses=(words,), seats=moved)


def _twisting(inputs: Inputs, station_mm: float) -> list[float]:
    """Stock stations of springs, track bars and their mounts that are not far from a place, and beside the springs."""
    survey, operations = inputs.survey, inputs.design.operations
    axles = plan_of(inputs).axles.values()
    left, right = (placed_on(survey, operations, side, planned_state(operations)) for side in LEFT_RIGHT)
    route = route_through(survey, left, "left")
    springs = {route.stock_x(pull.at[0]) for own in axles for pull in own.springs}
    bars = {route.stock_x(pull.at[0]) for own in axles for pull in own.sideways if abs(pull.force[1]) > TRACK_BAR}
    springs |= {p.centre_mm for p in (*left, *right) if bears_spring(p.op)}
    bars |= {p.centre_mm for p in (*left, *right) if bears_across(p.op)}
    near = [x for x in sorted(springs | bars) if abs(x - station_mm) <= BAY_MM]
    return near + [x + by for x in near if x in springs for by in (BESIDE_MM, -BESIDE_MM)]
