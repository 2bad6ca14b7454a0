"""Patterns of every part and of the cut itself."""

from itertools import pairwise

from nodulant.drawn.dimension import Callout, Dimension
from nodulant.frame.here import RailHere
from nodulant.frame.model import Placed
from nodulant.geometry import Outline, Vertex
from nodulant.geometry.outline import arc_centre, is_straight
from nodulant.materials import find_steel
from nodulant.parts.part import Part, RoundHole
from nodulant.parts.sides import Side
from nodulant.patterns.measured import arc_callouts, cut_dimensions, hole_callouts, plate_dimensions
from nodulant.patterns.pattern import Label, Pattern, Stroke
from nodulant.patterns.text_inside import text_inside
from nodulant.survey.vehicle import Feature
from nodulant.units.inline import as_place, as_thickness

MARGIN_MM = 60.0
WIDE_PER_HIGH = 0.62
"""Width of a letter over its height, about."""


def cut_template(placed: Placed, edge: Outline, side: Side, rail: RailHere, anchor: Feature) -> Pattern:
    """Template for the rail's side: edges of the rail, cut line, centre line, corner drill points, station scale."""
    op, half = placed.op, (placed.end_mm - placed.start_mm) / 2
    path = edge.vertices
    offset = placed.centre_mm - anchor.x_mm
    left, right = -half - MARGIN_MM, half + MARGIN_MM
    outline = Outline(
        vertices=(
            Vertex(x=left, y=rail.height),
            Vertex(x=left, y=0),
            *path,
            Vertex(x=right, y=0),
            Vertex(x=right, y=rail.height),
        )
    )
    strokes = [Stroke(layer="CUT", outline=outline), Stroke(layer="ETCH", outline=line(0, 0, 0, rail.height))]
    strokes += [
        Stroke(layer="ETCH", outline=line(x, rail.height, x, rail.height - (8 if x % 50 == 0 else 4)))
        for x in range(int(left // 10 + 1) * 10, int(right) + 1, 10)
    ]
    strokes += [_cross(*centre) for centre in _corners(edge)]
    texts = labels(
        left,
        rail.height,
        (
            f"{op.name} · rail cut · {side[0].upper()}",
            f"centre line {as_place(offset)} {anchor.name}",
            "top edge = rail top · FRONT to the left",
        ),
    )
    dimensions = cut_dimensions(edge, rail.height, right)
    return finish(
        f"{op.id}/cut-template/{side}",
        f"{op.name}: rail cut template",
        side,
        None,
        strokes,
        texts,
        dimensions,
        f"{as_place(offset)} {anchor.name}",
        arc_callouts(edge),
    )


def _corners(edge: Outline) -> list[tuple[float, float]]:
    """Centres of the rounded corners of a cut: where to drill first. An edge that is one arc has none."""
    rounded = [(a, b) for a, b in edge.segments() if not is_straight(a.bulge)]
    return [arc_centre(a, b)[:2] for a, b in rounded] if len(rounded) > 1 else []


def part_pattern(part: Part, centre_mm: float, anchor: Feature, bends: tuple[Stroke, ...] = ()) -> Pattern:
    """Pattern of one plate, with its alignment line at ``centre_mm`` where it crosses the plate."""
    x0, y0, x1, y1 = part.outline.bounds()
    strokes = [Stroke(layer="CUT", outline=part.outline), *bends, *(_drilled(hole) for hole in part.holes)]
    offset = centre_mm - anchor.x_mm
    datum = f"{as_place(offset)} {anchor.name}"
    note = "to fit"
    if x0 < centre_mm < x1:
        low = max([y0, *(y for x, y in part.outline.points(0.1) if abs(x - centre_mm) < 2 and y < y1 - 1)])
        strokes.append(Stroke(layer="ETCH", outline=line(centre_mm, low + 2, centre_mm, y1 - 2)))
        note = f"line: {datum}"
    steel = find_steel(part.steel_id)
    rows = (
        f"{part.name} · {part.side[0].upper()} · {as_thickness(part.thickness_mm)} {steel.name}",
        f"{note} · FRONT to the left",
    )
    longest = max(len(row) for row in rows)
    height = min(5.0, (y1 - y0) / 6, (x1 - x0) / (WIDE_PER_HIGH * longest))
    points = part.outline.points(0.1)
    lines = [(text, y1 - (1.8 + 1.7 * i) * height) for i, text in enumerate(rows)]
    left = max(_left_edge(points, y) for _, y in lines) + 2 * height
    texts = tuple(Label(text=text, x=left, y=y, height_mm=height) for text, y in lines)
    through = centre_mm if x0 < centre_mm < x1 else None
    callouts = (*hole_callouts(part.holes), *arc_callouts(part.outline))
    return finish(
        part.id, f"{part.name}", part.side, part, strokes, texts, plate_dimensions(part, through), datum, callouts
    )


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
    )
    return text_inside((_mirrored(pattern) if side == "right" else pattern).at_origin())


def _mirrored(pattern: Pattern) -> Pattern:
    strokes = tuple(s.model_copy(update={"outline": s.outline.mirrored()}) for s in pattern.strokes)
    x0, _, x1, _ = pattern.bounds()
    labels = tuple(
        t.model_copy(update={"x": -x1 + (t.x - x0), "text": t.text.replace("FRONT to the left", "FRONT to the right")})
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


def line(x0: float, y0: float, x1: float, y1: float) -> Outline:
    """A straight line, mm."""
    return Outline(vertices=(Vertex(x=x0, y=y0), Vertex(x=x1, y=y1)), closed=False)


def _drilled(hole: RoundHole) -> Stroke:
    r = hole.diameter_mm / 2
    ends = (Vertex(x=hole.x_mm - r, y=hole.y_mm, bulge=1.0), Vertex(x=hole.x_mm + r, y=hole.y_mm, bulge=1.0))
    return Stroke(layer="HOLE", outline=Outline(vertices=ends))


def _cross(x: float, y: float) -> Stroke:
    return Stroke(
        layer="HOLE", outline=Outline(vertices=(Vertex(x=x - 1, y=y, bulge=1.0), Vertex(x=x + 1, y=y, bulge=1.0)))
    )
