"""The cut in a round tube as a template to wrap round it: drawn on the tube's unrolled outside.

Along the template runs the tube, across it the girth from the line that is cut (the tube's
underside, or its top for a cut from above).
"""

import math

from nodulant.drawn.dimension import Span, dimension, size
from nodulant.frame.here import RailHere
from nodulant.frame.model import Placed
from nodulant.frame.ops.notches.tube_parts import along_edge
from nodulant.geometry import Outline
from nodulant.geometry.outline import line, polygon
from nodulant.parts.sides import Side
from nodulant.patterns.draw import MARGIN_MM, finish, labels
from nodulant.patterns.hung import TICK_MM, Hung, Reference, nothing_near
from nodulant.patterns.pattern import Pattern, Stroke
from nodulant.survey.vehicle import Feature
from nodulant.units.inline import as_place


def wrapped(edge: Outline, diameter_mm: float) -> Outline:
    """The cut's edge on the unrolled tube: station from the centre and girth from the line that is cut, mm."""
    r = diameter_mm / 2
    ring = [(x, r * math.acos(min(max(1.0 - z / r, -1.0), 1.0))) for x, z in along_edge(edge)]
    return polygon([*ring, *((x, -girth) for x, girth in reversed(ring[1:-1]))])


def wrap_template(
    placed: Placed, edge: Outline, side: Side, rail: RailHere, anchor: Feature, near: tuple[Reference, ...]
) -> Pattern:
    """Card to wrap round the tube: the cut, the line it is centred on, the tube's sides, the centre line."""
    op, half, girth = placed.op, (placed.end_mm - placed.start_mm) / 2, math.pi * rail.height
    cut, beyond, offset = wrapped(edge, rail.height), half + MARGIN_MM, placed.centre_mm - anchor.x_mm
    hung = _round(near, placed, beyond)
    from_line = "top" if op.from_above else "underside"
    strokes = [
        Stroke(layer="CUT", outline=cut),
        Stroke(layer="ETCH", outline=line(-beyond, 0, beyond, 0)),
        Stroke(layer="ETCH", outline=line(0, -girth / 4, 0, girth / 4)),
        *(Stroke(layer="ETCH", outline=line(-beyond, s * girth / 4, beyond, s * girth / 4)) for s in (-1, 1)),
    ]
    rows = (
        f"{op.name} · wrap round the tube · {side[0].upper()}",
        f"middle line = tube {from_line} · outer lines = its sides · FRONT to the left",
        f"centre line {as_place(offset)} {anchor.name}",
        hung.words,
    )
    dimensions = (
        size("depth", edge.bounds()[3], 1.5),
        dimension(
            f"width at the {from_line}", Span(edge="below", a=-half, b=half, from_a=0, from_b=0), 1.5, critical=True
        ),
        dimension(
            "girth of the cut", Span(edge="right", a=cut.bounds()[1], b=cut.bounds()[3], from_a=0, from_b=0), 1.5
        ),
        size("tube outside diameter", rail.height, 1.0),
    )
    return finish(
        f"{op.id}/cut-template/{side}",
        f"{op.name}: rail cut template",
        side,
        None,
        [*strokes, *hung.strokes],
        labels(-beyond, girth / 4 + 14, rows),
        dimensions,
        f"{as_place(offset)} {anchor.name}",
        hung=hung,
    )


def _round(near: tuple[Reference, ...], placed: Placed, beyond: float) -> Hung:
    """Lines across the tube that the card reaches; round a tube a hole's height does not say how far round it is."""
    lines = [r for r in near if r.height_mm is None and abs(r.x_mm - placed.centre_mm) <= beyond]
    if not lines:
        return Hung(missing=nothing_near())
    ticks = tuple(
        Stroke(layer="ETCH", outline=line(x, -TICK_MM, x, TICK_MM)) for r in lines for x in (r.x_mm - placed.centre_mm,)
    )
    return Hung(strokes=ticks, on=tuple(r.name for r in lines))
