"""Wrap for a tube that is coped to lie on another: its cut edge unrolled, for the outer wall and for the inner.

Along the branch from where both axes cross, or come nearest: z(phi) = (r cos(phi) cos(theta) + sqrt(R^2 - (r sin(phi)
+ e)^2)) / sin(theta), phi = 0 on the acute side, e the way between the axes (textbook geometry of two cylinders). A
saw cuts through the wall square to the branch: the larger of both walls' lengths is kept; the outer wall alone would touch where the bore is bevelled.
"""

import math

from nodulant.drawn.dimension import Span, dimension, size
from nodulant.geometry import Outline, Vertex
from nodulant.geometry.outline import line, polygon
from nodulant.parts.cope import TURNS, Cope
from nodulant.patterns.pattern import Label, Pattern, Stroke
from nodulant.patterns.text_inside import text_inside
from nodulant.units.inline import as_length, as_thickness

BEYOND_MM, TICK_MM = 40.0, 6.0
"""Paper past the longest point, up to the straight edge that is laid along a square mark; ticks at each quarter of it."""


def cope_wrap(cope: Cope, of: str = "") -> Pattern:
    """The wrap for a tube or for the end ``of`` one: its curved edge is cut to, its straight edge lies square round the branch.

    Raises InputError where the branch runs past the main tube.
    """
    cope.refuse()
    outer = cope.branch_mm / 2
    edge = [(outer * phi, cope.kept(phi)) for phi in TURNS]
    top = max(z for _, z in edge) + BEYOND_MM
    girth = math.tau * outer
    low = min(z for _, z in edge)
    strokes = [
        Stroke(layer="CUT", outline=polygon([*edge, (girth, top), (0.0, top)])),
        Stroke(layer="ETCH", outline=_curve([(outer * phi, cope.at(phi, outer)) for phi in TURNS])),
        *(Stroke(layer="ETCH", outline=line(girth * k / 4, top - TICK_MM, girth * k / 4, top)) for k in (1, 2, 3)),
    ]
    rows = (
        f"Cope wrap · {as_thickness(cope.branch_mm)} x {as_thickness(cope.wall_mm)} on {as_thickness(cope.main_mm)}",
        f"{cope.angle_deg:g} degrees · axes {as_length(abs(cope.offset_mm))} apart",
        f"straight edge {as_length(top)} from the main tube's axis",
        "seam on the acute side",
        "cut to the solid edge; or to the dashed one and bevel the bore",
        *((of,) if of else ()),
    )
    pattern = Pattern(
        id="cope",
        title="Cope wrap",
        side="left",
        part_id=None,
        thickness_mm=None,
        steel="paper",
        strokes=tuple(strokes),
        labels=tuple(Label(text=text, x=4.0, y=top - 8 - 8 * k) for k, text in enumerate(rows)),
        dimensions=(
            dimension("girth", Span(edge="above", a=0.0, b=girth, from_a=top, from_b=top), 0.5, critical=True),
            dimension(
                "cut's depth",
                Span(edge="left", a=low, b=max(z for _, z in edge), from_a=0.0, from_b=0.0),
                0.5,
                critical=True,
            ),
            dimension(
                "straight edge from the cut's lowest point",
                Span(edge="right", a=low, b=top, from_a=girth, from_b=girth),
                0.5,
                critical=True,
            ),
            size("wall", cope.wall_mm, 0.3),
        ),
        datum="the main tube's axis",
    )
    return text_inside(pattern.at_origin())


def _curve(points: list[tuple[float, float]]) -> Outline:
    return Outline(vertices=tuple(Vertex(x=x, y=y) for x, y in points), closed=False)
