"""What one marks on the rail before an operation: where it lies from its datum, how long, how deep, how high the rail is."""

from collections.abc import Mapping

from nodulant.base.errors import InputError
from nodulant.drawn.dimension import Dimension, Span, dimension
from nodulant.evaluate.evaluation import Measured
from nodulant.frame.columns import rail_at
from nodulant.frame.model import Placed, placed_on
from nodulant.frame.route import Route
from nodulant.frame.state import FrameState
from nodulant.geometry import Outline
from nodulant.job.document import Inputs
from nodulant.parts.sides import LEFT_RIGHT, Side

BESIDE_MM = 1.0
SPOT_MM = 2.0
"""Nearer to its datum, or shorter, than this there is nothing to mark off."""
PLACE_TOLERANCE_MM, CUT_TOLERANCE_MM, SURVEY_TOLERANCE_MM = 0.8, 1.5, 1.0
"""Common practice: a scribed line to half a millimetre or so, a ground cut edge, a survey by tape."""


def measured(inputs: Inputs, side: Side, state: FrameState, routes: Mapping[Side, Route]) -> tuple[Measured, ...]:
    """Dimensions of every operation of one rail on its planned route; none where the readings make no cut."""
    try:
        placed = placed_on(inputs.survey, inputs.design.operations, side, state)
    except InputError:
        return ()
    every = (_of(inputs, side, p, routes) for p in placed)
    return tuple(m for m in every if len(m.dimensions) > 1)


def _of(inputs: Inputs, side: Side, p: Placed, routes: Mapping[Side, Route]) -> Measured:
    route = routes[side]
    under, height = rail_at(inputs.survey.rails.of(side), p.centre_mm)[:2]
    dx, dz = route.shift_at(p.centre_mm)
    low, high = under + dz, under + height + dz
    start, end, centre = p.start_mm + dx, p.end_mm + dx, p.centre_mm + dx
    anchor = next(f for f in inputs.survey.features if f.id == p.op.anchor.anchor_id)
    zero = route.x_at(anchor.x_mm)
    at = centre if p.op.opens or end - start < SPOT_MM else start
    out: list[Dimension] = []
    if abs(at - zero) > SPOT_MM:
        out.append(_above(f"from {anchor.name}", zero, at, high, PLACE_TOLERANCE_MM, critical=True))
    edge = p.op.cut_edge()
    if edge is not None:
        out += _cut(edge, centre, (low, high), from_above=p.op.from_above)
    elif end - start > SPOT_MM:
        out.append(_above("length", start, end, high, CUT_TOLERANCE_MM))
    before, after = (float(route.shift_at(x)[1]) for x in (p.start_mm - BESIDE_MM, p.end_mm + BESIDE_MM))
    if abs(after - before) > SPOT_MM:
        rise = Span(edge="right", a=under + before, b=under + after, from_a=end, from_b=end)
        out.append(dimension("rise", rise, CUT_TOLERANCE_MM, critical=True))
    rail = Span(edge="left", a=low, b=high, from_a=start, from_b=start)
    out.append(dimension("rail height", rail, SURVEY_TOLERANCE_MM))
    return Measured(
        operation=p.op.id,
        x0_mm=start,
        z0_mm=low,
        x1_mm=end,
        z1_mm=high,
        dimensions=tuple(out),
        plan=_from_above(inputs, side, p, routes),
    )


def _from_above(inputs: Inputs, side: Side, p: Placed, routes: Mapping[Side, Route]) -> tuple[Dimension, ...]:
    """The rail's width, both rails from outside to outside, and how far a jog moves the rail in."""
    route = routes[side]
    start, end = (x + route.shift_at(x)[0] for x in (p.start_mm, p.end_mm))
    web, tip = _faces(inputs, side, p.start_mm - BESIDE_MM, routes)
    wide = Span(edge="left", a=tip, b=web, from_a=start, from_b=start)
    out = [dimension("width of the rail", wide, SURVEY_TOLERANCE_MM)]
    outer = [max(_faces(inputs, s, p.end_mm + BESIDE_MM, routes), key=abs) for s in LEFT_RIGHT]
    over = Span(edge="right", a=min(outer), b=max(outer), from_a=end, from_b=end)
    out.append(dimension("over both rails", over, SURVEY_TOLERANCE_MM))
    beyond = _faces(inputs, side, p.end_mm + BESIDE_MM, routes)[0]
    if abs(beyond - web) > SPOT_MM:
        across = Span(edge="right", a=web, b=beyond, from_a=start, from_b=end)
        out.append(dimension("moved across", across, CUT_TOLERANCE_MM, critical=True))
    return tuple(out)


def _faces(inputs: Inputs, side: Side, x_mm: float, routes: Mapping[Side, Route]) -> tuple[float, float]:
    """Web's face and flange's tip of a rail at a surveyed station, mm from the centre plane, the right side positive."""
    rail, sign = inputs.survey.rails.of(side), -1.0 if side == "left" else 1.0
    web, width = rail.web_y_mm - routes[side].inward_at(x_mm), rail_at(rail, x_mm)[2]
    return sign * web, sign * (web - width if rail.opens == "inward" else web + width)


def _above(name: str, a: float, b: float, high: float, tolerance_mm: float, *, critical: bool = False) -> Dimension:
    return dimension(name, Span(edge="above", a=a, b=b, from_a=high, from_b=high), tolerance_mm, critical=critical)


def _cut(edge: Outline, centre: float, rail: tuple[float, float], *, from_above: bool) -> list[Dimension]:
    """Width at the face that is cut, and depth from it."""
    x0, _, x1, depth = edge.bounds()
    face = rail[1] if from_above else rail[0]
    peak = face - depth if from_above else face + depth
    across = Span(edge="above", a=centre + x0, b=centre + x1, from_a=face, from_b=face)
    deep = Span(edge="right", a=face, b=peak, from_a=centre + x1, from_b=centre + (x0 + x1) / 2)
    return [
        dimension("width of the cut", across, CUT_TOLERANCE_MM, critical=True),
        dimension("depth of the cut", deep, CUT_TOLERANCE_MM, critical=True),
    ]
