"""Card that finds a subframe again: two scribed lines square to each other beside the rail, before the work and after it.

Its upper edge lies along the rail's underside, so that the heights on it are a gauge block's.
"""

from nodulant.drawn.dimension import Edge, Span, dimension
from nodulant.frame.model import Placed
from nodulant.frame.ops.subframes.subframe import Subframe
from nodulant.geometry.outline import line, rectangle
from nodulant.parts.sides import Side
from nodulant.patterns.draw import finish, labels
from nodulant.patterns.hung import PLACE_MM
from nodulant.patterns.pattern import Pattern, Stroke
from nodulant.survey.vehicle import Survey
from nodulant.units.inline import as_length, as_place

ROOM_MM, CROSS_MM = 60.0, 15.0
"""Card round the marks, and half of a scribed cross."""
SAME_MM = 0.05


def mark_cards(survey: Survey, placed: Placed, side: Side) -> list[Pattern]:
    """The card of one side for a subframe that is measured on the vehicle and moved; a donor has no place to be found again."""
    op = placed.op
    if not isinstance(op, Subframe) or op.measured != "vehicle":
        return []
    back, low, high = op.back_mm, op.height_mm, op.height_mm + op.up_mm
    left, right = min(back, 0.0) - ROOM_MM, max(back, 0.0) + ROOM_MM
    bottom, top = min(low, high, 0.0) - ROOM_MM / 2, max(low, high, 0.0) + ROOM_MM / 2
    moved = abs(back) > SAME_MM or abs(op.up_mm) > SAME_MM
    strokes = [
        Stroke(layer="CUT", outline=rectangle(left, bottom, right, top)),
        Stroke(layer="ETCH", outline=line(left, 0.0, right, 0.0)),
        *_cross(0.0, low),
        *(_cross(back, high) if moved else ()),
    ]
    anchor = next(f for f in survey.features if f.id == op.anchor.anchor_id)
    datum = f"{as_place(placed.centre_mm - anchor.x_mm)} {anchor.name}"
    after = f"after: line across {as_length(abs(back))} {'rearward' if back >= 0 else 'forward'}, line along {as_length(abs(op.up_mm))} {'up' if op.up_mm >= 0 else 'down'}"
    rows = (f"{op.name} · marks · {side[0].upper()}", "long line = rail's underside", f"first cross: {datum}", after)
    marks: list[tuple[str, float, float, Edge, float]] = [("before", 0.0, low, "left", left)]
    if moved:
        marks.append(("after", back, high, "right", right))
    measured = tuple(
        dimension(
            f"gauge block {when}, from the rail's underside",
            Span(edge=edge, a=0.0, b=y, from_a=end, from_b=x),
            PLACE_MM,
            critical=True,
        )
        for when, x, y, edge, end in marks
        if abs(y) > SAME_MM
    )
    along = (
        dimension("scribed line moves along", Span(edge="above", a=0.0, b=back, from_a=low, from_b=high), PLACE_MM),
    )
    card = finish(
        f"{op.id}/marks/{side}",
        f"{op.name}: marks before and after",
        side,
        None,
        strokes,
        labels(left, top, rows),
        (*measured, *(along if abs(back) > SAME_MM else ())),
        datum,
    )
    return [card.model_copy(update={"after": after})]


def _cross(x: float, y: float) -> tuple[Stroke, ...]:
    arms = (line(x - CROSS_MM, y, x + CROSS_MM, y), line(x, y - CROSS_MM, x, y + CROSS_MM))
    return tuple(Stroke(layer="ETCH", outline=arm) for arm in arms)
