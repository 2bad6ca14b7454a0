"""The work of crossmembers that a design lists beside its operations: what one takes that is added by an operation."""

from collections.abc import Iterable

from nodulant.frame.here import OnRail
from nodulant.frame.model import placed_on, planned_state
from nodulant.frame.ops.crossmember_change import CrossmemberChange
from nodulant.frame.ops.union import Operation
from nodulant.frame.parts import Work, rail_here
from nodulant.frame.place import Place
from nodulant.frame.ties import planned_crossmembers
from nodulant.parts.sides import LEFT_RIGHT
from nodulant.survey.crossmember import Crossmember
from nodulant.survey.vehicle import Survey

LONGEST = 36
"""So much of an id leaves room for what tells it from an operation's."""


def tie_changes(
    survey: Survey, operations: tuple[Operation, ...], added: tuple[Crossmember, ...]
) -> tuple[CrossmemberChange, ...]:
    """Each added crossmember as the operation that adds it, measured from the nearest feature.

    Nothing for one that stands there already or beyond the rails, and nothing where no feature is there to measure from.
    Raises InputError where an operation changes a crossmember that is not there.
    """
    if not added or not survey.features:
        return ()
    planned, taken = planned_crossmembers(survey, operations, added), {op.id for op in operations}
    there = [c for c in added if any(c is own for own in planned) and _on_both_rails(survey, c.x_mm)]
    return tuple(_change(survey, c, taken) for c in there)


def _on_both_rails(survey: Survey, x_mm: float) -> bool:
    return all(survey.rails.of(side).start_mm <= x_mm <= survey.rails.of(side).end_mm for side in LEFT_RIGHT)


def _change(survey: Survey, c: Crossmember, taken: Iterable[str]) -> CrossmemberChange:
    near = min(survey.features, key=lambda f: abs(f.x_mm - c.x_mm))
    sizes = c.model_dump(include={"name", "profile", "height_mm", "width_mm", "wall_mm", "up_mm", "end"})
    # as it was typed: a distance to the nearest feature may be longer than anybody would type
    place = Place.model_construct(anchor_id=near.id, offset_mm=c.x_mm - near.x_mm)
    return CrossmemberChange(id=f"{c.id[:LONGEST]}-tie" if c.id in taken else c.id, place=place, **sizes)


def tie_works(survey: Survey, operations: tuple[Operation, ...], added: tuple[Crossmember, ...]) -> tuple[Work, ...]:
    """What each takes: its length, its weight and its welds, from rail to rail and so once. Raises InputError."""
    changes = tie_changes(survey, operations, added)
    if not changes:
        return ()
    placed, out = placed_on(survey, operations, "left", planned_state(operations)), []
    for op in changes:
        span = op.span(survey.rails.left, survey.features, "/design/crossmembers")
        here = rail_here(survey, "left", span.centre_mm, placed)
        out.append(Work(op, OnRail("left", survey.rails.left, span, here, ())))
    return tuple(out)
