"""Patterns of every part and of the cut itself."""

import math
from itertools import pairwise

from nodulant.drawn.dimension import Callout, Dimension
from nodulant.frame.here import RailHere
from nodulant.frame.model import Placed
from nodulant.geometry import Outline, Vertex
from nodulant.geometry.outline import arc_centre, circle, is_straight, line
from nodulant.materials import find_steel
from nodulant.parts.part import Face, Part, RoundHole
from nodulant.parts.sides import Side
from nodulant.patterns.hung import FREE, Hung, Reference, hung_template, reach
from nodulant.patterns.measured import arc_callouts, cut_dimensions, hole_callouts, plate_dimensions
from nodulant.patterns.pattern import Label, Pattern, Stroke
from nodulant.patterns.text_inside import text_inside
from nodulant.survey.vehicle import Feature
from nodulant.units.inline import as_place, as_thickness

MARGIN_MM = 60.0
FRONT = "FRONT to the left"
LIES: dict[Face, str] = {"across": "stands crosswise, UP at the top", "axle": "on the axle, UP at the top"}
"""Faces on which the front is not to the left."""
WIDE_PER_HIGH = 0.62
"""Width of a letter over its height, about."""


def cut_template(
    placed: Placed, edge: Outline, side: Side, rail: RailHere, anchor: Feature, near: tuple[Reference, ...]
) -> Pattern:
    """Template for the rail's side: edges of the rail, cut line, centre line, drill points, scale, and what it hangs on."""
    op, half = placed.op, (placed.end_mm - placed.start_mm) / 2
    offset = placed.centre_mm - anchor.x_mm
    ahead, behind = reach(near, placed.start_mm, placed.end_mm, MARGIN_MM)
    left, right = -half - ahead, half + behind
    card = _card(edge, left, right, rail.height)
    drilled = [circle(*centre, DRILL_POINT_MM) for centre in _corners(edge)]
    dimensions, callouts = cut_dimensions(edge, rail.height, -left), arc_callouts(edge)
    if op.from_above:
        card, *drilled = (shape.upside_down().moved(0.0, rail.height) for shape in (card, *drilled))
        dimensions = tuple(d.upside_down(rail.height) for d in dimensions)
        callouts = tuple(c.upside_down(rail.height) for c in callouts)
    strokes = [Stroke(layer="CUT", outline=card), Stroke(layer="ETCH", outline=line(0, 0, 0, rail.height))]
    uncut = rail.height / 8 if op.from_above else 7 * rail.height / 8
    strokes.append(datum_tick(0.0, uncut, offset))
    strokes += [
        Stroke(layer="ETCH", outline=line(x, rail.height, x, rail.height - (8 if x % 50 == 0 else 4)))
        for x in range(int(left // 10 + 1) * 10, int(right) + 1, 10)
    ]
    strokes += [Stroke(layer="HOLE", outline=point) for point in drilled]
    hung = hung_template(near, placed.centre_mm, card, rail.height, open_above=op.from_above)
    datum = f"{as_place(offset)} {anchor.name}"
    rows = (
        f"{op.name} · rail cut · {side[0].upper()}",
        f"centre line {datum}",
        f"top edge = rail top · {FRONT}",
        hung.words,
    )
    return finish(
        f"{op.id}/cut-template/{side}",
        f"{op.name}: rail cut template",
        side,
        None,
        [*strokes, *hung.strokes],
        labels(left, rail.height, rows),
        (*dimensions, *hung.dimensions),
        datum,
        (*callouts, *hung.callouts),
        hung,
    )


DRILL_POINT_MM = 2.0


def _card(edge: Outline, left: float, right: float, height: float) -> Outline:
    """The rail's side from ``left`` to ``right`` with the cut in its underside."""
    foot = (Vertex(x=left, y=height), Vertex(x=left, y=0))
    return Outline(vertices=(*foot, *edge.vertices, Vertex(x=right, y=0), Vertex(x=right, y=height)))


def _corners(edge: Outline) -> list[tuple[float, float]]:
    """Centres of the rounded corners of a cut: where to drill first. An edge that is one arc has none."""
    rounded = [(a, b) for a, b in edge.segments() if not is_straight(a.bulge)]
    return [arc_centre(a, b)[:2] for a, b in rounded] if len(rounded) > 1 else []


def part_pattern(
    part: Part, centre_mm: float, anchor: Feature, bends: tuple[Stroke, ...] = (), hung: Hung = FREE, formed: str = ""
) -> Pattern:
    """Pattern of one plate, with its alignment line at ``centre_mm`` where it crosses the plate."""
    x0, y0, x1, y1 = part.outline.bounds()
    strokes = [Stroke(layer="CUT", outline=part.outline), *bends, *(_drilled(hole) for hole in part.holes)]
    strokes += hung.strokes
    offset = centre_mm - anchor.x_mm
    datum = f"{as_place(offset)} {anchor.name}"
    note = "to fit"
    if x0 < centre_mm < x1:
        low = max([y0, *(y for x, y in part.outline.points(0.1) if abs(x - centre_mm) < 2 and y < y1 - 1)])
        strokes.append(Stroke(layer="ETCH", outline=line(centre_mm, low + 2, centre_mm, y1 - 2)))
        if part.face in RAIL_SIDES:
            strokes.append(datum_tick(centre_mm, (low + y1) / 2, offset))
        note = f"line: {datum}"
    steel = find_steel(part.steel_id)
    rows = (
        f"{part.name} · {part.side[0].upper()} · {as_thickness(part.thickness_mm)} {steel.name}"
        + (f" · {part.count} off" if part.count > 1 else ""),
        f"{note} · {LIES.get(part.face, FRONT)}",
        *((formed,) if formed else ()),
    )
    longest = max(len(row) for row in rows)
    height = min(5.0, (y1 - y0) / 6, (x1 - x0) / (WIDE_PER_HIGH * longest))
    points = part.outline.points(0.1)
    lines = [(text, y1 - (1.8 + 1.7 * i) * height) for i, text in enumerate(rows)]
    left = max(_left_edge(points, y) for _, y in lines) + 2 * height
    texts = tuple(Label(text=text, x=left, y=y, height_mm=height) for text, y in lines)
    through = centre_mm if x0 < centre_mm < x1 else None
    callouts = (*hole_callouts(part.holes), *arc_callouts(part.outline), *hung.callouts)
    measured = plate_dimensions(part, through)
    drawn = finish(part.id, part.name, part.side, part, strokes, texts, measured, datum, callouts, hung)
    return drawn.model_copy(update={"formed": formed}) if formed else drawn


RAIL_SIDES = frozenset({"outer", "inner"})
TICK_MM, BARB_MM = 10.0, 3.0
"""Of the datum tick: its length and its barbs."""


def datum_tick(x: float, y: float, offset_mm: float) -> Stroke:
    """An arrow from the line at ``x`` towards the datum, which lies ``offset_mm`` ahead of it; across the line where it is the datum."""
    if abs(offset_mm) < TICK_MM:
        return Stroke(layer="ETCH", outline=line(x - TICK_MM / 2, y, x + TICK_MM / 2, y))
    way = -math.copysign(1.0, offset_mm)
    tip, back = x + way * TICK_MM, x + way * (TICK_MM - BARB_MM)
    points = ((x, y), (tip, y), (back, y + BARB_MM), (tip, y), (back, y - BARB_MM))
    return Stroke(layer="ETCH", outline=Outline(vertices=tuple(Vertex(x=a, y=b) for a, b in points), closed=False))


def _left_edge(points: list[tuple[float, float]], y: float) -> float:
    """Where a plate begins at height ``y``, mm: its ends may taper."""
    ring = [*points, points[0]]
    at = [
        x0 + (x1 - x0) * (y - y0) / (y1 - y0)
        for (x0, y0), (x1, y1) in pairwise(ring)
        if min(y0, y1) <= y <= max(y0, y1) and y0 != y1
    ]
    return min(at)


def finish(
    id_: str,
    title: str,
    side: Side,
    part: Part | None,
    strokes: list[Stroke],
    texts: tuple[Label, ...],
    dimensions: tuple[Dimension, ...],
    datum: str,
    callouts: tuple[Callout, ...] = (),
    hung: Hung = FREE,
) -> Pattern:
    """The pattern at its origin, mirrored for the right side, its text where the metal has room for it."""
    steel = find_steel(part.steel_id).name if part else "card or thin sheet"
    pattern = Pattern(
        id=id_,
        title=title,
        side=side,
        part_id=part.id if part else None,
        thickness_mm=part.thickness_mm if part else None,
        steel=steel,
        strokes=tuple(strokes),
        labels=texts,
        dimensions=dimensions,
        datum=datum,
        callouts=callouts,
        count=part.count if part else 1,
        hangs_on=hung.on,
        missing=hung.missing,
    )
    return text_inside((_mirrored(pattern) if side == "right" else pattern).at_origin())


def _mirrored(pattern: Pattern) -> Pattern:
    strokes = tuple(s.model_copy(update={"outline": s.outline.mirrored()}) for s in pattern.strokes)
    x0, _, x1, _ = pattern.bounds()
    labels = tuple(
        t.model_copy(update={"x": -x1 + (t.x - x0), "text": t.text.replace(FRONT, "FRONT to the right")})
        for t in pattern.labels
    )
    measured = {
        "dimensions": tuple(d.mirrored() for d in pattern.dimensions),
        "callouts": tuple(c.mirrored() for c in pattern.callouts),
    }
    return pattern.model_copy(update={"strokes": strokes, "labels": labels, **measured})


def labels(x: float, top: float, rows: tuple[str, ...]) -> tuple[Label, ...]:
    """Lines of text below each other from ``top`` down, mm."""
    return tuple(Label(text=text, x=x + 6, y=top - 18 - 8 * i) for i, text in enumerate(rows))


def _drilled(hole: RoundHole) -> Stroke:
    return Stroke(layer="HOLE", outline=circle(hole.x_mm, hole.y_mm, hole.diameter_mm))
