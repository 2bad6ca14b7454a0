"""A pattern as SVG in millimetres, arcs as true arcs."""

import math
from xml.sax.saxutils import escape

from nodulant.drawn.lines import TEXT_MM, drawn_dimensions, leader, room_round
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
    room = {edge: EDGE_MM + deep for edge, deep in room_round(pattern.dimensions).items()}
    wide, high = width + room["left"] + room["right"], height + room["below"] + room["above"]
    box = f"{-room['left']:.3f} {-room['above']:.3f} {wide:.3f} {high:.3f}"
    rows = [
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{wide:.3f}mm" height="{high:.3f}mm" viewBox="{box}">',
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
    rows += _measures(pattern, height)
    return "\n".join([*rows, "</svg>"]).encode()


def _measures(pattern: Pattern, height: float) -> list[str]:
    """Dimension lines and callouts in a group of their own, so that a cutter can leave them out."""
    style = f'fill="#000" font-family="sans-serif" font-size="{TEXT_MM}"'
    rows = ['<g class="DIM" stroke="#000" stroke-width="0.15">']
    for drawn in drawn_dimensions(pattern.dimensions, pattern.bounds()):
        for (x0, y0), (x1, y1) in drawn.lines:
            rows.append(f'<path d="M{x0:.3f} {height - y0:.3f}L{x1:.3f} {height - y1:.3f}"/>')
        for head in drawn.arrows:
            corners = " ".join(f"{x:.3f},{height - y:.3f}" for x, y in head)
            rows.append(f'<polygon points="{corners}" fill="#000" stroke="none"/>')
        x, y = drawn.at[0], height - drawn.at[1]
        turn = f' transform="rotate(-90 {x:.2f} {y:.2f})"' if drawn.upright else ""
        weight = ' font-weight="bold"' if drawn.critical else ""
        text = escape(drawn.text)
        rows.append(
            f'<text x="{x:.2f}" y="{y:.2f}" text-anchor="middle" stroke="none" {style}{weight}{turn}>{text}</text>'
        )
    for callout in pattern.callouts:
        ((x0, y0), (x1, y1)), (x, y) = leader(callout, pattern.bounds())
        rows.append(f'<path d="M{x0:.3f} {height - y0:.3f}L{x1:.3f} {height - y1:.3f}"/>')
        rows.append(f'<text x="{x:.2f}" y="{height - y:.2f}" stroke="none" {style}>{escape(callout.text)}</text>')
    return [*rows, "</g>"]
