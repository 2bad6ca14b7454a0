"""Gauges that are cut flat: their patterns, with holes on their centres."""

import math
from collections.abc import Iterable

from nodulant.drawn.dimension import Span, dimension
from nodulant.gauges.gauge import Gauge
from nodulant.geometry import Outline
from nodulant.geometry.outline import circle, line, polygon, rectangle
from nodulant.parts.sides import Sides
from nodulant.parts.specs import Phase
from nodulant.patterns.pattern import Label, Pattern, Stroke
from nodulant.patterns.text_inside import text_inside
from nodulant.units.inline import as_thickness

BAR_MM = 40.0
"""Width of a flat bar, and what it goes on past its holes."""
BASE_MM = 120.0
"""Foot of an angle block."""
FIT_MM = 0.1
"""Tolerance of a gauge: a tenth (common practice of jigs)."""


def flat(
    id_: str,
    title: str,
    outline: Outline,
    holes: Iterable[tuple[float, float, float]],
    marks: Iterable[Stroke] = (),
    *,
    side: Sides = "both",
    thickness_mm: float,
    measured: Iterable[tuple[str, Span]] = (),
) -> Pattern:
    """A flat gauge from its outline and holes (x, y, diameter), its lower left corner at the origin."""
    drilled = tuple(holes)
    strokes = [Stroke(layer="CUT", outline=outline)]
    strokes += [Stroke(layer="HOLE", outline=circle(x, y, d)) for x, y, d in drilled]
    strokes += marks
    pattern = Pattern(
        id=id_,
        title=title,
        side="right" if side == "right" else "left",
        part_id=None,
        thickness_mm=thickness_mm,
        steel="flat bar or plate, any steel",
        strokes=tuple(strokes),
        labels=(Label(text=f"{title} · gauge", x=2.0, y=2.0, height_mm=4.0),),
        dimensions=tuple(dimension(name, span, FIT_MM, critical=True) for name, span in measured),
        datum="its own lower edge",
    )
    return text_inside(pattern.at_origin())


def strut_bar(id_: str, title: str, apart_mm: float, eye_mm: float) -> Pattern:
    """A bar with an eye at each end, ``apart_mm`` from centre to centre."""
    half = BAR_MM / 2
    outline = rectangle(0.0, 0.0, apart_mm + BAR_MM, BAR_MM)
    span = Span(edge="below", a=half, b=half + apart_mm, from_a=half, from_b=half)
    eyes = ((half, half, eye_mm), (half + apart_mm, half, eye_mm))
    return flat(id_, title, outline, eyes, thickness_mm=6.0, measured=(("eye to eye", span),))


def guide(
    id_: str, title: str, side: Sides, spots: tuple[tuple[float, float], ...], pilot_mm: float, edge_mm: float
) -> Pattern:
    """A plate over a group of holes with a pilot in each, ``edge_mm`` round them; centre lines are etched."""
    x0, x1 = min(x for x, _ in spots) - edge_mm, max(x for x, _ in spots) + edge_mm
    y0, y1 = min(y for _, y in spots) - edge_mm, max(y for _, y in spots) + edge_mm
    first = spots[0]
    along = {round(x, 1): (x, y) for x, y in reversed(spots[1:]) if abs(x - first[0]) > FIT_MM}
    above = {round(y, 1): (x, y) for x, y in reversed(spots[1:]) if abs(y - first[1]) > FIT_MM}
    rows = [
        (f"holes {k} from the first", Span(edge="below", a=first[0], b=x, from_a=first[1], from_b=y))
        for k, (x, y) in enumerate(along.values(), 1)
    ]
    rows += [
        (f"holes {k} above the first", Span(edge="right", a=first[1], b=y, from_a=first[0], from_b=x))
        for k, (x, y) in enumerate(above.values(), 1)
    ]
    middle = (x0 + x1) / 2
    centre = Stroke(layer="ETCH", outline=line(middle, y0, middle, y1))
    holes = [(x, y, pilot_mm) for x, y in spots]
    return flat(id_, title, rectangle(x0, y0, x1, y1), holes, (centre,), side=side, thickness_mm=12.0, measured=rows)


def wedge(id_: str, name: str, angle_deg: float, operation: str | None, phase: Phase, says: str) -> Gauge:
    """A right triangle whose slope is an angle."""
    turn = abs(angle_deg)
    high = BASE_MM * math.tan(math.radians(turn))
    base = Span(edge="below", a=0.0, b=BASE_MM, from_a=0.0, from_b=0.0)
    up = Span(edge="right", a=0.0, b=high, from_a=BASE_MM, from_b=BASE_MM)
    pattern = flat(
        id_,
        name,
        polygon([(0.0, 0.0), (BASE_MM, 0.0), (BASE_MM, high)]),
        (),
        thickness_mm=6.0,
        measured=(("foot", base), ("height", up)),
    )
    return Gauge(
        id=id_,
        kind="angle-block",
        name=name,
        says=says,
        operation=operation,
        phase=phase,
        made_of=f"plate, {as_thickness(6.0)} or more",
        angle_deg=turn,
        long_mm=BASE_MM,
        pattern=pattern,
    )
