"""All patterns of a design, both sides; a length of tube, box or channel has none but the wrap of its copes."""

from nodulant.frame.here import OnRail
from nodulant.frame.model import placed_on, planned_state, route_on
from nodulant.frame.ops.union import Operation
from nodulant.frame.parts import added_parts, on_rail, rail_here
from nodulant.parts.apart import named_apart
from nodulant.parts.bought import TubeNeeded
from nodulant.parts.sides import LEFT_RIGHT, Side, on_sides
from nodulant.patterns.cope import cope_wrap
from nodulant.patterns.crossmember_end import crossmember_ends
from nodulant.patterns.cut_line import cut_line_templates
from nodulant.patterns.draw import cut_template, part_pattern
from nodulant.patterns.hung import hung_plate, references
from nodulant.patterns.mark_card import mark_cards
from nodulant.patterns.pattern import Pattern, Stroke
from nodulant.patterns.wrap import wrap_template
from nodulant.survey.vehicle import Feature, Survey

SPOT_MM = 2.0
"""Work on a shorter stretch than this has one place, not two ends."""


def patterns_of(survey: Survey, operations: tuple[Operation, ...]) -> tuple[Pattern, ...]:
    """Cut templates first, then plates, left before right. Raises InputError."""
    found = [pattern for side in LEFT_RIGHT for pattern in _of_side(survey, operations, side)]
    titles = named_apart([(p.title, p.id.split("/")[0]) for p in found], {op.id: op.name for op in operations})
    return tuple(
        p if p.title == title else p.model_copy(update={"title": title}) for p, title in zip(found, titles, strict=True)
    )


def _of_side(survey: Survey, operations: tuple[Operation, ...], side: Side) -> list[Pattern]:
    placed = placed_on(survey, operations, side, planned_state(operations))
    by_id = {p.op.id: p for p in placed}
    near, route = references(survey, side), route_on(survey, operations, side, planned_state(operations))
    out = []
    for p in placed:
        for wall, edge in p.op.cut_templates():
            here = rail_here(survey, side, p.centre_mm, placed)
            anchor = _anchor(survey, p.op.anchor.anchor_id)
            drawn = (wrap_template if here.round else cut_template)(p, edge, side, here, anchor, near)
            out.append(_for_wall(drawn, wall) if wall else drawn)
        on = on_rail(survey, side, p, placed)
        lines = () if on.here.round else p.op.cut_lines(on)
        if lines:
            out += cut_line_templates(p, lines, on, _anchor(survey, p.op.anchor.anchor_id), near, route)
        out += mark_cards(survey, p, side)
        if side == on_sides(p.op.side)[0]:
            out += crossmember_ends(survey, p)
    for part in added_parts(survey, side, placed).parts:
        if not part.from_plate:
            continue
        p = by_id[part.operation]
        bends = tuple(Stroke(layer="BEND", outline=line) for line in p.op.bends(part, p.centre_mm))
        spot = p.end_mm - p.start_mm < SPOT_MM
        at = p.centre_mm if p.op.opens or spot else p.start_mm
        hung = hung_plate(part, near, survey)
        out.append(part_pattern(part, at, _anchor(survey, p.op.anchor.anchor_id), bends, hung, p.op.formed(part)))
    out += [wrap for p in placed for wrap in _wraps(p.op, on_rail(survey, side, p, placed))]
    return out


def _wraps(op: Operation, on: OnRail) -> list[Pattern]:
    """A paper wrap for the coped ends of each tube of an operation."""
    out: list[Pattern] = []
    for tube in op.bought(on):
        if isinstance(tube, TubeNeeded) and tube.coped is not None:
            wrap = cope_wrap(tube.coped, f"both ends of {tube.name}")
            update = {
                "id": f"{op.id}/cope-{len(out) + 1}/{on.side}",
                "title": f"{tube.name}: cope wrap",
                "side": on.side,
                "count": 2 * tube.count,
            }
            out.append(wrap.model_copy(update=update))
    return out


def _for_wall(template: Pattern, wall: str) -> Pattern:
    """A template that is for one of the rail's walls says which."""
    tail = wall.replace(" ", "-")
    id_ = template.id.replace("/cut-template/", f"/cut-template-{tail}/")
    return template.model_copy(update={"id": id_, "title": f"{template.title}, {wall}"})


def _anchor(survey: Survey, anchor_id: str) -> Feature:
    return next(f for f in survey.features if f.id == anchor_id)
