"""Card for the ends of a crossmember between rails that move inward: what comes off each end, square to its length."""

from nodulant.drawn.dimension import Span, dimension
from nodulant.frame.columns import rail_at
from nodulant.frame.model import Placed
from nodulant.frame.ops.through.narrow import Narrow
from nodulant.geometry.outline import line, rectangle
from nodulant.parts.sides import LEFT_RIGHT
from nodulant.patterns.draw import finish, labels
from nodulant.patterns.pattern import Pattern, Stroke
from nodulant.survey.crossmember import Crossmember, spoken
from nodulant.survey.vehicle import Survey
from nodulant.units.inline import as_length

BEYOND_MM = 80.0
"""Card past the saw line, along the crossmember."""


def crossmember_ends(survey: Survey, placed: Placed) -> list[Pattern]:
    """One card for each surveyed crossmember in a stretch that is narrowed; none where it gets wider or stays."""
    op = placed.op
    if not isinstance(op, Narrow) or op.inward_mm <= 0:
        return []
    own = (c for c in survey.crossmembers if placed.start_mm <= c.x_mm <= placed.end_mm)
    return [_card(survey, op, c) for c in own]


def _card(survey: Survey, op: Narrow, c: Crossmember) -> Pattern:
    off, high = op.inward_mm, c.height_mm
    stock = sum(_inner(survey, side, c.x_mm) for side in LEFT_RIGHT)
    strokes = [
        Stroke(layer="CUT", outline=rectangle(0.0, 0.0, off + BEYOND_MM, high)),
        Stroke(layer="ETCH", outline=line(off, 0.0, off, high)),
    ]
    rows = (
        f"{spoken(c.name)} · end, both alike",
        f"saw at the line: {as_length(off)} off each end",
        f"{as_length(stock)} between the rails becomes {as_length(stock - 2 * off)}",
    )
    measured = (
        dimension("off each end", Span(edge="below", a=0.0, b=off, from_a=0.0, from_b=0.0), 0.5, critical=True),
        dimension("height", Span(edge="left", a=0.0, b=high, from_a=0.0, from_b=0.0), 1.0),
    )
    card = finish(
        f"{op.id}/crossmember/{c.id}",
        f"{op.name}: end of the {spoken(c.name)}",
        "left",
        None,
        strokes,
        labels(off, high, rows),
        measured,
        "its own end",
    )
    return card.model_copy(
        update={
            "count": 2,
            "after": f"the {spoken(c.name)} is {as_length(stock - 2 * off)} long between the rails' inner faces",
        }
    )


def _inner(survey: Survey, side: str, x_mm: float) -> float:
    rail = survey.rails.left if side == "left" else survey.rails.right
    return rail.web_y_mm - (rail_at(rail, x_mm)[2] if rail.opens == "inward" else 0.0)
