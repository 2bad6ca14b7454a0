"""A pattern as SVG in millimetres, arcs as true arcs."""

import math
from xml.sax.saxutils import escape

from nodulant.geometry import Outline
from nodulant.geometry.outline import arc_centre, is_straight
from nodulant.patterns.pattern import Pattern

DASHES = {"CUT": "", "HOLE": "", "BEND": ' stroke-dasharray="6 2"', "ETCH": ' stroke-dasharray="1 1"'}
EDGE_MM = 5.0


def svg_path(outline: Outline, height_mm: float) -> str:
    """SVG path data with y turned downwards within ``height_mm``."""
    first = outline.vertices[0]
    out = [f"M{first.x:.4f} {height_mm - first.y:.4f}"]
    for a, b in outline.segments():
        if is_straight(a.bulge):
            out.append(f"L{b.x:.4f} {height_mm - b.y:.4f}")
        else:
            radius = arc_centre(a, b)[2]
            large = 1 if abs(4 * math.atan(a.bulge)) > math.pi else 0
            sweep = 0 if a.bulge > 0 else 1
            out.append(f"A{radius:.4f} {radius:.4f} 0 {large} {sweep} {b.x:.4f} {height_mm - b.y:.4f}")
    return "".join(out) + ("Z" if outline.closed else "")


def pattern_svg(pattern: Pattern) -> bytes:
    """The pattern as an SVG document whose user unit is 1 mm."""
    _, _, width, height = pattern.bounds()
    box = f"{-EDGE_MM:g} {-EDGE_MM:g} {width + 2 * EDGE_MM:.3f} {height + 2 * EDGE_MM:.3f}"
    rows = [
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{width + 2 * EDGE_MM:.3f}mm" height="{height + 2 * EDGE_MM:.3f}mm" viewBox="{box}">',
        f"<title>{escape(pattern.title)} {pattern.side}</title>",
    ]
    for stroke in pattern.strokes:
        rows.append(
            f'<path class="{stroke.layer}" d="{svg_path(stroke.outline, height)}" fill="none" stroke="#000" stroke-width="0.2"{DASHES[stroke.layer]}/>'
        )
    for label in pattern.labels:
        rows.append(
            f'<text x="{label.x:.2f}" y="{height - label.y:.2f}" font-size="{label.height_mm:.2f}" font-family="sans-serif">{escape(label.text)}</text>'
        )
    return "\n".join([*rows, "</svg>"]).encode()
