"""What a template or plate is hung on: surveyed holes, rail ends and places of the frame, where they are on it.

The rail's own edges fix height and slope; a hole, a rail end or a line across the rail fixes the place along it.
A template without one of these slides along the rail.
"""

from collections.abc import Iterable
from dataclasses import dataclass

from shapely import Point, Polygon

from nodulant.drawn.dimension import Callout, Dimension, Span, dimension
from nodulant.frame.columns import rail_at
from nodulant.geometry import Outline
from nodulant.geometry.outline import circle, line
from nodulant.parts.part import Part
from nodulant.parts.sides import Side, on_sides
from nodulant.patterns.pattern import Layer, Stroke
from nodulant.survey.crossmember import Crossmember, spoken
from nodulant.survey.vehicle import Feature, Survey
from nodulant.units.inline import as_length, as_thickness

REACH_MM = 300.0
"""How far a template reaches for something to hang on (Nodulant default: one sheet of card)."""
ROUND_MM = 25.0
"""Card beyond the edge of a hole, or beyond a line."""
PLACE_MM = 0.5
"""Tolerance of a mark that a template is placed by (common practice: a scribed line)."""
TICK_MM = 12.0
SEEN = frozenset({"hanger", "crossmember", "body-mount", "engine-mount", "steering"})
"""Kinds of places that are seen on the rail; an axle's line is not."""
SIDE_PLATES = frozenset({"outer", "boxing", "foot", "plate", "patch"})
"""Plates that hang on the rail's own side; all others follow the cut's edge or another plate."""


@dataclass(frozen=True)
class Reference:
    """A place on one rail, mm: a hole's station, height above the rail's underside and diameter, or a line across the rail."""

    name: str
    x_mm: float
    height_mm: float | None = None
    diameter_mm: float = 0.0


@dataclass(frozen=True)
class Hung:
    """Marks in the axes of an outline, what they measure, and what it hangs on in words."""

    strokes: tuple[Stroke, ...] = ()
    dimensions: tuple[Dimension, ...] = ()
    callouts: tuple[Callout, ...] = ()
    on: tuple[str, ...] = ()
    missing: str = ""
    """Where nothing fixes it along the rail: what to survey."""

    @property
    def words(self) -> str:
        """What is written on it."""
        return f"hang on: {', '.join(self.on)}" if self.on else self.missing


FREE = Hung()
"""Hangs on nothing of the survey and need not: it follows a cut's edge or another plate."""


def references(survey: Survey, side: Side) -> tuple[Reference, ...]:
    """Everything surveyed on one rail that a template can hang on, front to rear."""
    rail = survey.rails.of(side)
    own = [f for f in survey.features if side in on_sides(f.side)]
    found = [r for f in own if (r := _of_feature(f)) is not None]
    found += [Reference("front end of the rail", rail.start_mm), Reference("rear end of the rail", rail.end_mm)]
    found += [
        Reference(f"middle of the {spoken(c.name)}", c.x_mm) for c in survey.crossmembers if not _has_a_face(c, own)
    ]
    return tuple(sorted(found, key=lambda r: r.x_mm))


def _of_feature(feature: Feature) -> Reference | None:
    if feature.height_mm is not None and feature.diameter_mm is not None:
        return Reference(feature.name, feature.x_mm, feature.height_mm, feature.diameter_mm)
    return Reference(feature.name, feature.x_mm) if feature.kind in SEEN else None


def _has_a_face(crossmember: Crossmember, features: Iterable[Feature]) -> bool:
    """Whether one of its faces was surveyed: then its middle, which nobody sees, is not asked for."""
    return any(f.kind == "crossmember" and abs(f.x_mm - crossmember.x_mm) <= crossmember.width_mm for f in features)


def reach(near: Iterable[Reference], low: float, high: float, least_mm: float) -> tuple[float, float]:
    """How far a template over stations ``low`` to ``high`` goes on ahead and behind, mm: to the nearest hole, else line.

    Nothing farther than ``REACH_MM`` is reached for.
    """
    away = [(max(low - r.x_mm, r.x_mm - high), r) for r in near]
    found = [(d, r) for d, r in away if 0 < d <= REACH_MM]
    if not found:
        return least_mm, least_mm
    gap, nearest = min(found, key=lambda row: (row[1].height_mm is None, row[0]))
    needed = max(gap + ROUND_MM + nearest.diameter_mm / 2, least_mm)
    return (needed, least_mm) if nearest.x_mm <= low else (least_mm, needed)


def hung_template(
    near: Iterable[Reference], zero: float, card: Outline, height: float, *, open_above: bool = False
) -> Hung:
    """A card over the rail about its line at station ``zero``: holes cut to their size where it covers them, lines as ticks.

    Ticks stand at the edge that is not cut: the rail's top, or its underside where the cut is ``open_above``.
    """
    left, _, right, _ = card.bounds()
    metal = Polygon(card.points(0.1))
    inside = [(r, r.x_mm - zero) for r in near if left <= r.x_mm - zero <= right]
    placed = [(r, x, r.height_mm) for r, x in inside if r.height_mm is not None]
    holes = [(r, x, y) for r, x, y in placed if metal.contains(Point(x, y).buffer(r.diameter_mm / 2))]
    lines = [(r, x) for r, x in inside if r.height_mm is None]
    strokes = [s for r, x, y in holes for s in _ring(x, y, r.diameter_mm, "HOLE")]
    tick = 0.0 if open_above else height - TICK_MM
    for _, x in lines:
        strokes.append(Stroke(layer="ETCH", outline=line(x, tick, x, tick + TICK_MM)))
    dimensions = [d for r, x, y in holes for d in _from_line(r, x, y, right)]
    for r, x in lines:
        span = Span(edge="above", a=0, b=x, from_a=height, from_b=height)
        dimensions.append(dimension(f"{r.name} from the line", span, PLACE_MM, critical=True))
    return Hung(
        tuple(strokes),
        tuple(dimensions),
        tuple(_named(r, x, y) for r, x, y in holes),
        (*(r.name for r, _, _ in holes), *(r.name for r, _ in lines)),
        "" if holes or lines else nothing_near(),
    )


def nothing_near() -> str:
    """What is missing where a template slides."""
    return f"nothing surveyed fixes it along the rail: survey a hole within {as_length(REACH_MM)} of it"


def hung_plate(part: Part, near: Iterable[Reference], survey: Survey) -> Hung:
    """A plate on the rail's side: a ring and cross where a surveyed hole lies under it, else how far the nearest is."""
    if part.role not in SIDE_PLATES or part.face not in {"inner", "outer"}:
        return FREE
    rail, shape = survey.rails.of(part.side), Polygon(part.outline.points(0.1))
    holes = [(r, r.x_mm, rail_at(rail, r.x_mm)[0] + r.height_mm) for r in near if r.height_mm is not None]
    under = [(r, x, y) for r, x, y in holes if shape.contains(Point(x, y).buffer(r.diameter_mm / 2))]
    if under:
        strokes = tuple(s for r, x, y in under for s in _ring(x, y, r.diameter_mm, "ETCH"))
        return Hung(strokes, (), tuple(_named(r, x, y) for r, x, y in under), tuple(r.name for r, _, _ in under))
    x0, y0, x1, _ = part.outline.bounds()
    beside = [(max(x0 - x, x - x1, 0.0), r.name, x, y) for r, x, y in holes]
    if not beside or min(beside)[0] > REACH_MM:
        return Hung(missing=nothing_near())
    _, name, x, y = min(beside)
    return Hung(on=(_beside(name, x, y, (x0, y0, x1)),))


def _beside(name: str, x: float, y: float, plate: tuple[float, float, float]) -> str:
    """Where a plate lies from a hole that it does not cover, by its nearer end and its lower edge."""
    x0, y0, x1 = plate
    which, end = ("front", x0) if abs(x - x0) <= abs(x - x1) else ("rear", x1)
    along = f"{as_length(abs(end - x))} {'behind' if end > x else 'ahead of'} the middle of {name}"
    return f"{which} end {along}, lower edge {as_length(abs(y0 - y))} {'above' if y0 > y else 'below'} it"


def _ring(x: float, y: float, diameter: float, layer: Layer) -> tuple[Stroke, ...]:
    """A hole at its place and size; a cross through it where it is only drawn."""
    ring = Stroke(layer=layer, outline=circle(x, y, diameter))
    if layer == "HOLE":
        return (ring,)
    arm = diameter / 2 + 2
    return (
        ring,
        Stroke(layer="ETCH", outline=line(x - arm, y, x + arm, y)),
        Stroke(layer="ETCH", outline=line(x, y - arm, x, y + arm)),
    )


def _from_line(r: Reference, x: float, y: float, right: float) -> tuple[Dimension, ...]:
    along = Span(edge="above", a=0, b=x, from_a=y, from_b=y)
    up = Span(edge="right", a=0, b=y, from_a=right, from_b=x)
    return (
        dimension(f"{r.name} from the line", along, PLACE_MM, critical=True),
        dimension(f"{r.name} from the lower edge", up, PLACE_MM, critical=True),
    )


def _named(r: Reference, x: float, y: float) -> Callout:
    reach_mm = 0.7071 * r.diameter_mm / 2
    text = f"{r.name} ø {as_thickness(r.diameter_mm)}"
    return Callout(x=x + reach_mm, y=y + reach_mm, text=text, kind="diameter", centre_x=x, centre_y=y)
