"""Drawings of the report: side elevation over the axle, and the section before and after."""

from collections.abc import Callable

from reportlab.graphics.shapes import Circle, Drawing, Group, Line, Polygon, PolyLine, String
from reportlab.lib.colors import Color, black, white

from nodulant.drawn.lines import drawn_dimensions
from nodulant.evaluate.evaluation import AxleDrawing, Evaluation, Measured, SectionDrawing, SectionShape
from nodulant.parts.sides import Side
from nodulant.units.show import MM_PER_INCH, Style, show_length

PT_PER_MM = 72 / 25.4
TEXT_PT = 8.0
NEAR_MM = 5.0
ADDED = Color(0.55, 0.55, 0.55)
STOCK_FILL = Color(0.9, 0.9, 0.9)


def elevation_scale(width_pt: float, half_mm: float) -> float:
    """Paper over steel of an elevation that is ``width_pt`` wide and shows twice ``half_mm``."""
    return width_pt / PT_PER_MM / (2 * half_mm)


def scale_in_words(scale: float) -> str:
    """As a title block tells it, where the paper was not made larger or smaller."""
    return f"scale 1:{1 / scale:.3g} where the page is printed at 100 %"


def elevation(
    result: Evaluation, side: Side, width_pt: float, centre_mm: float, half_mm: float, bump_mm: float, style: Style
) -> Drawing:
    """Side elevation from ``centre_mm`` - ``half_mm`` to + ``half_mm``: rail, plates, cut, tube at ride and full bump.

    What is marked off for the cut in the middle stands round it as dimension lines, in ``style``.
    """
    scale = elevation_scale(width_pt, half_mm) * PT_PER_MM
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
    _stations(drawing, left, half_mm, scale, style)
    for own in rail.measured:
        if abs((own.x0_mm + own.x1_mm) / 2 - centre_mm) < NEAR_MM and any(
            d.name.startswith("depth") for d in own.dimensions
        ):
            _marked(drawing, own, at)
    return drawing


def _marked(drawing: Drawing, own: Measured, at: Callable[[float, float], tuple[float, float]]) -> None:
    """Dimension lines at the paper's own size round a part that is drawn smaller."""

    def on_paper(x: float, z: float) -> tuple[float, float]:
        across, up = at(x, z)
        return across / PT_PER_MM, up / PT_PER_MM

    (x0, y0), (x1, y1) = on_paper(own.x0_mm, own.z0_mm), on_paper(own.x1_mm, own.z1_mm)
    placed = [d.model_copy(update={"span": d.span.through(on_paper)}) for d in own.dimensions if d.span]
    for line in drawn_dimensions(placed, (x0, y0, x1, y1)):
        for (ax, ay), (bx, by) in line.lines:
            ends = (ax * PT_PER_MM, ay * PT_PER_MM, bx * PT_PER_MM, by * PT_PER_MM)
            drawing.add(Line(*ends, strokeWidth=0.3))
        for head in line.arrows:
            corners = [c * PT_PER_MM for point in head for c in point]
            drawing.add(Polygon(corners, fillColor=black, strokeColor=None))
        x, y = (c * PT_PER_MM for c in line.at)
        text = String(0, 0, line.text, fontSize=TEXT_PT, textAnchor="middle")
        turned = Group(text, transform=(0, 1, -1, 0, x, y) if line.upright else (1, 0, 0, 1, x, y))
        drawing.add(turned)


def _tube(
    drawing: Drawing, axle: AxleDrawing, bump_mm: float, at: Callable[[float, float], tuple[float, float]], scale: float
) -> None:
    for pose, dash in ((0.0, None), (bump_mm, [3, 2])):
        i = min(range(len(axle.travel_mm)), key=lambda k: abs(axle.travel_mm[k] - pose))
        x, z = at(axle.x_mm[i], axle.z_mm[i])
        if not 0.0 < x < drawing.width:
            continue
        radius = axle.diameter_mm / 2 * scale
        drawing.add(Circle(x, z, radius, fillColor=None, strokeColor=black, strokeDashArray=dash))


def _stations(drawing: Drawing, left: float, half_mm: float, scale: float, style: Style) -> None:
    step = 100.0 if style == "mm" else 4 * MM_PER_INCH
    for i in range(int(left // step) + 1, int((left + 2 * half_mm) // step) + 1):
        x = (i * step - left) * scale
        drawing.add(Line(x, 0, x, 6, strokeWidth=0.5))
        drawing.add(String(x + 2, 2, show_length(i * step, style), fontSize=6))


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
