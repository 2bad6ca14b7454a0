"""A pattern as DXF: R2010, millimetres, closed polylines with bulges, layers CUT, HOLE, BEND, ETCH.

Dimensions are real ones, on a layer DIM that a cutting table leaves out; their text is in the job's unit.
"""

import io

import ezdxf
from ezdxf import units as dxf_units
from ezdxf.layouts import Modelspace

from nodulant.drawn.dimension import stacked
from nodulant.drawn.lines import ARROW_MM, GAP_MM, PAST_MM, TEXT_MM, line_at, text_width
from nodulant.patterns.pattern import Pattern

COLOURS = {"CUT": 7, "HOLE": 5, "BEND": 3, "ETCH": 8, "DIM": 4}


def pattern_dxf(pattern: Pattern) -> bytes:
    """The pattern as the bytes of a DXF file; lower left corner at (0, 0)."""
    drawing = ezdxf.new("R2010", units=dxf_units.MM)
    for name, colour in COLOURS.items():
        drawing.layers.add(name, color=colour)
    space = drawing.modelspace()
    for stroke in pattern.strokes:
        points = [(v.x, v.y, v.bulge) for v in stroke.outline.vertices]
        space.add_lwpolyline(points, format="xyb", close=stroke.outline.closed, dxfattribs={"layer": stroke.layer})
    for label in pattern.labels:
        space.add_text(label.text, height=label.height_mm, dxfattribs={"layer": "ETCH"}).set_placement(
            (label.x, label.y)
        )
    _measure(space, pattern)
    stream = io.StringIO()
    drawing.write(stream)
    return stream.getvalue().encode("utf-8", errors="replace")


LOOK = {"dimtxt": TEXT_MM, "dimasz": ARROW_MM, "dimexo": GAP_MM, "dimexe": PAST_MM, "dimgap": 1.0, "dimtad": 1}


def _measure(space: Modelspace, pattern: Pattern) -> None:
    on_layer, bounds = {"layer": "DIM"}, pattern.bounds()
    for d, span, row in stacked(pattern.dimensions, text_width):
        line = line_at(span.edge, row, bounds)
        if span.across_the_sheet:
            base, one, two, angle = (span.a, line), (span.a, span.from_a), (span.b, span.from_b), 0.0
        else:
            base, one, two, angle = (line, span.a), (span.from_a, span.a), (span.from_b, span.b), 90.0
        space.add_linear_dim(base, one, two, angle=angle, text=d.text, override=LOOK, dxfattribs=on_layer).render()
    for c in pattern.callouts:
        centre, point = (c.centre_x, c.centre_y), (c.x, c.y)
        if c.kind == "radius":
            space.add_radius_dim(centre, mpoint=point, text=c.text, override=LOOK, dxfattribs=on_layer).render()
        else:
            space.add_diameter_dim(centre, mpoint=point, text=c.text, override=LOOK, dxfattribs=on_layer).render()
