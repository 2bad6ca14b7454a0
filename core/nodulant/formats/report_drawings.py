"""Drawings of the report: side elevation over the axle, and the section before and after."""

from collections.abc import Callable

from reportlab.graphics.shapes import Circle, Drawing, Line, Polygon, PolyLine, String
from reportlab.lib.colors import Color, black, white

from nodulant.evaluate.evaluation import AxleDrawing, Evaluation, SectionDrawing, SectionShape
from nodulant.parts.sides import Side

ADDED = Color(0.55, 0.55, 0.55)
STOCK_FILL = Color(0.9, 0.9, 0.9)


def elevation(
    result: Evaluation, side: Side, width_pt: float, centre_mm: float, half_mm: float, bump_mm: float
) -> Drawing:
    """Side elevation from ``centre_mm`` - ``half_mm`` to + ``half_mm``: rail, plates, cut, tube at ride and full bump."""
    scale = width_pt / (2 * half_mm)
    drawing = Drawing(width_pt, 420 * scale)
    left, base = centre_mm - half_mm, -200.0

    def at(x: float, z: float) -> tuple[float, float]:
        return (min(max(x, left), left + 2 * half_mm) - left) * scale, (z - base) * scale

    rail = next(r for r in result.rails if r.side == side)
    for edge in (rail.underside_z_mm, rail.top_z_mm):
        drawing.add(PolyLine([c for x, z in zip(rail.x_mm, edge, strict=True) for c in at(x, z)], strokeWidth=1))
    for part in result.parts:
        if part.side == side and part.face in {"outer", "inner"}:
            points = [c for x, z in part.outline.points(0.2) for c in at(x, z)]
            drawing.add(Polygon(points, fillColor=None, strokeColor=ADDED, strokeWidth=0.8))
    for plate in rail.flange_plates:
        points = [c for x, z in plate.outline.points(0.2) for c in at(x, z)]
        drawing.add(Polygon(points, fillColor=ADDED, strokeColor=ADDED, strokeWidth=0.8))
    for cut in rail.cuts:
        points = [c for x, z in cut.points(0.2) for c in at(x, z)]
        drawing.add(Polygon(points, fillColor=white, strokeColor=black, strokeWidth=1.4))
    for axle in result.axle:
        if axle.side == side:
            _tube(drawing, axle, bump_mm, at, scale)
    _stations(drawing, left, half_mm, scale)
    return drawing


def _tube(
    drawing: Drawing, axle: AxleDrawing, bump_mm: float, at: Callable[[float, float], tuple[float, float]], scale: float
) -> None:
    for pose, dash in ((0.0, None), (bump_mm, [3, 2])):
        i = min(range(len(axle.travel_mm)), key=lambda k: abs(axle.travel_mm[k] - pose))
        x, z = at(axle.x_mm[i], axle.z_mm[i])
        radius = axle.diameter_mm / 2 * scale
        drawing.add(Circle(x, z, radius, fillColor=None, strokeColor=black, strokeDashArray=dash))


def _stations(drawing: Drawing, left: float, half_mm: float, scale: float) -> None:
    first = int(left // 100 + 1) * 100
    for x in range(first, int(left + 2 * half_mm), 100):
        drawing.add(Line((x - left) * scale, 0, (x - left) * scale, 6, strokeWidth=0.5))
        drawing.add(String((x - left) * scale + 2, 2, f"{x}", fontSize=6))


FILLS = {"rail": STOCK_FILL, "void": white}


def section(drawn: SectionDrawing, width_pt: float) -> Drawing:
    """Section before (left) and after (right), at the same scale."""
    shapes = [*drawn.before, *drawn.after]
    low = min(z for s in shapes for z in s.z_mm)
    high = max(z for s in shapes for z in s.z_mm)
    scale = min(1.0, width_pt / 260)
    drawing = Drawing(width_pt, (high - low + 30) * scale)
    for offset, pieces, title in ((20.0, drawn.before, "stock"), (150.0, drawn.after, "planned")):
        for piece in pieces:
            drawing.add(_polygon(piece, offset, low, scale))
        drawing.add(String(offset * scale, (high - low + 18) * scale, title, fontSize=8))
    return drawing


def _polygon(piece: SectionShape, offset: float, low: float, scale: float) -> Polygon:
    points = [
        c for y, z in zip(piece.y_mm, piece.z_mm, strict=True) for c in ((y + offset) * scale, (z - low + 5) * scale)
    ]
    return Polygon(points, fillColor=FILLS.get(piece.name, ADDED), strokeColor=black, strokeWidth=0.4)
