"""A pattern as DXF: R2010, millimetres, closed polylines with bulges, layers CUT, HOLE, BEND, ETCH."""

import io

import ezdxf
from ezdxf import units as dxf_units

from nodulant.patterns.pattern import Pattern

COLOURS = {"CUT": 7, "HOLE": 5, "BEND": 3, "ETCH": 8}


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
    stream = io.StringIO()
    drawing.write(stream)
    return stream.getvalue().encode("utf-8", errors="replace")
