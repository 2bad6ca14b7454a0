"""A figure over what moves it, on paper: both axes with their ends."""

from collections.abc import Sequence

from reportlab.graphics.shapes import Drawing, Group, Line, PolyLine, String
from reportlab.lib.colors import Color
from reportlab.lib.units import mm

from nodulant.evaluate.curve import Curve
from nodulant.formats.dossier.parts import figure
from nodulant.units.show import Style

FAINT = Color(0.6, 0.6, 0.6)
HIGH, LEFT, FOOT = 34 * mm, 33.0, 16.0


def graph(curve: Curve, over: Sequence[float], wide: float, style: Style, named: tuple[str, str, str]) -> Drawing:
    """``over`` runs from one end past 0 to the other; its ends and its 0 are ``named`` along the foot."""
    points = [(t, v) for t, v in zip(over, curve.values, strict=False) if v is not None]
    drawing = Drawing(wide, HIGH + 12)
    drawing.add(String(0, HIGH + 2, curve.name, fontSize=7))
    if len(points) < 2:
        drawing.add(String(LEFT, HIGH / 2, "not known", fontSize=7))
        return drawing
    t0, t1, low, top = over[0], over[-1], min(v for _, v in points), max(v for _, v in points)
    spread = top - low or 1.0

    def at(t: float, v: float) -> tuple[float, float]:
        return LEFT + (t - t0) / (t1 - t0) * (wide - LEFT - 6), FOOT + (v - low) / spread * (HIGH - FOOT - 8)

    axes = Group(
        Line(LEFT, FOOT, wide - 4, FOOT, strokeWidth=0.4),
        Line(LEFT, FOOT, LEFT, HIGH - 4, strokeWidth=0.4),
        Line(*at(0.0, low), *at(0.0, low + spread), strokeWidth=0.3, strokeDashArray=[2, 2], strokeColor=FAINT),
    )
    drawing.add(axes)
    drawing.add(PolyLine([c for t, v in points for c in at(t, v)], strokeWidth=1))
    for v in (low, top):
        told = figure(v, curve.unit, style)[:12]
        drawing.add(String(LEFT - 2, at(t0, v)[1] - 2, told, fontSize=5.5, textAnchor="end"))
    for t, name, anchor in zip((t0, 0.0, t1), named, ("middle", "middle", "end"), strict=True):
        drawing.add(String(at(t, low)[0], FOOT - 8, name, fontSize=5.5, textAnchor=anchor))
    return drawing
