"""All patterns of a design, both sides."""

from nodulant.frame.model import placed_on, planned_state
from nodulant.frame.ops.notch import Notch
from nodulant.frame.ops.union import Operation
from nodulant.frame.parts import added_parts, rail_here
from nodulant.parts.sides import LEFT_RIGHT, Side
from nodulant.patterns.draw import cut_template, liner_bends, part_pattern
from nodulant.patterns.pattern import Pattern
from nodulant.survey.vehicle import Feature, Survey


def patterns_of(survey: Survey, operations: tuple[Operation, ...]) -> tuple[Pattern, ...]:
    """Cut templates first, then plates, left before right. Raises InputError."""
    return tuple(pattern for side in LEFT_RIGHT for pattern in _of_side(survey, operations, side))


def _of_side(survey: Survey, operations: tuple[Operation, ...], side: Side) -> list[Pattern]:
    placed = placed_on(survey, operations, side, planned_state(operations))
    by_id = {p.op.id: p for p in placed}
    out = []
    for p in placed:
        if isinstance(p.op, Notch):
            out.append(
                cut_template(
                    p.op, p, side, rail_here(survey, side, p.centre_mm, placed), _anchor(survey, p.op.place.anchor_id)
                )
            )
    for part in added_parts(survey, side, placed).parts:
        p = by_id[part.operation]
        if isinstance(p.op, Notch):
            bends = liner_bends(p.op, part, p.centre_mm) if part.role == "liner" else ()
            out.append(part_pattern(part, p.centre_mm, _anchor(survey, p.op.place.anchor_id), bends))
        else:
            anchor = _anchor(survey, p.op.start.anchor_id)
            out.append(part_pattern(part, anchor.x_mm, anchor))
    return out


def _anchor(survey: Survey, anchor_id: str) -> Feature:
    return next(f for f in survey.features if f.id == anchor_id)
