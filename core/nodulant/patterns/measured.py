"""What is measured on a pattern: its size, its holes and corners from the line it is placed by, its radii.

Everything is taken from the part's own outline, before it is mirrored or moved.
"""

import math
from collections.abc import Iterable

from nodulant.drawn.dimension import Callout, Dimension, Edge, Span, dimension, size
from nodulant.geometry import Outline, Vertex
from nodulant.geometry.outline import arc_centre, is_straight
from nodulant.parts.part import Part, RoundHole
from nodulant.units.inline import as_length, as_thickness

SAME_MM = 0.05
TURN_DEG = 3.0
MOST = 4
"""More corners or hole rows than this are not measured one by one: the sheet would be lines only."""
LEAST_RADIUS_MM = 3.0
THICKNESS_TOLERANCE_MM = 0.3
SIZE_TOLERANCE_MM, HEIGHT_TOLERANCE_MM, HOLE_TOLERANCE_MM, CORNER_TOLERANCE_MM = 1.5, 1.0, 0.8, 1.5
"""Common practice of a fabrication shop: flame-cut sizes, fitted heights, drilled holes."""


def plate_dimensions(part: Part, line_mm: float | None) -> tuple[Dimension, ...]:
    """Length, height, holes and corners of a plate, measured from its line where it has one, else from its front end."""
    x0, y0, x1, y1 = part.outline.bounds()
    points = part.outline.points(0.1)

    def at_x(x: float) -> float:
        return min((p[1] for p in points if abs(p[0] - x) < 1.0), default=y0)

    def at_y(y: float) -> float:
        return min((p[0] for p in points if abs(p[1] - y) < 1.0), default=x0)

    span = Span(edge="below", a=x0, b=x1, from_a=at_x(x0), from_b=at_x(x1))
    out = [dimension("length", span, SIZE_TOLERANCE_MM, critical=part.role not in {"boxing"})]
    span = Span(edge="left", a=y0, b=y1, from_a=at_y(y0), from_b=at_y(y1))
    out.append(dimension("height", span, HEIGHT_TOLERANCE_MM, critical=True))
    zero = x0 if line_mm is None else line_mm
    out += _from_line("hole", zero, y0, _rows((h.x_mm, h.y_mm) for h in part.holes), "below", HOLE_TOLERANCE_MM)
    heights = [(y, x) for y, x in _rows((h.y_mm, h.x_mm) for h in part.holes) if y - y0 > SAME_MM]
    if len(heights) <= MOST:
        out += [
            dimension(
                f"hole {i} from the lower edge",
                Span(edge="right", a=y0, b=y, from_a=x1, from_b=x),
                HOLE_TOLERANCE_MM,
                critical=True,
            )
            for i, (y, x) in enumerate(heights, 1)
        ]
    corners = [(x, y) for x, y in _corners(part.outline) if x0 + SAME_MM < x < x1 - SAME_MM]
    upper, lower = ([p for p in corners if (p[1] > (y0 + y1) / 2) == up] for up in (True, False))
    out += _from_line("corner", zero, y1, _rows(upper), "above", CORNER_TOLERANCE_MM)
    also_above = {round(x, 1) for x, _ in upper}
    lower = [(x, y) for x, y in lower if round(x, 1) not in also_above]
    out += _from_line("lower corner", zero, y0, _rows(lower), "below", CORNER_TOLERANCE_MM)
    if line_mm is None:
        out = [d.model_copy(update={"name": d.name.replace("from the line", "from the front end")}) for d in out]
    if line_mm is not None:
        span = Span(edge="above", a=x0, b=line_mm, from_a=max(p[1] for p in points if p[0] < x0 + 1.0), from_b=y1)
        out.append(dimension("line from the front end", span, SIZE_TOLERANCE_MM))
    return (*out, size("thickness", part.thickness_mm, THICKNESS_TOLERANCE_MM))


def _corners(outline: Outline) -> list[tuple[float, float]]:
    """Vertices at which the outline turns: neither a point along a line nor where an arc runs out into it."""
    segments = outline.segments()
    return [
        (b.x, b.y)
        for (a, b), (_, c) in zip(segments, [*segments[1:], segments[0]], strict=True)
        if abs(math.remainder(_heading(b, c, -1.0) - _heading(a, b, 1.0), math.tau)) > math.radians(TURN_DEG)
    ]


def _heading(a: Vertex, b: Vertex, end: float) -> float:
    """Direction of a segment at its end (+1) or beginning (-1), radians; an arc turns by 4 atan(bulge) in all."""
    return math.atan2(b.y - a.y, b.x - a.x) + end * 2 * math.atan(a.bulge)


def _rows(points: Iterable[tuple[float, float]]) -> list[tuple[float, float]]:
    """One point for every place along, in order."""
    kept: list[tuple[float, float]] = []
    for along, across in sorted(points):
        if not kept or along - kept[-1][0] > SAME_MM:
            kept.append((along, across))
    return kept


def _from_line(
    name: str, zero: float, zero_from: float, rows: list[tuple[float, float]], edge: Edge, tolerance_mm: float
) -> list[Dimension]:
    """Places measured from the line; two that lie as far from it on both sides are measured across as one pair."""
    away = [(along, across) for along, across in rows if abs(along - zero) > SAME_MM]
    if len(away) > 2 * MOST:
        return []
    out, done = [], set[float]()
    critical = name == "hole"
    for i, (along, across) in enumerate(away, 1):
        if along in done:
            continue
        pair = next((row for row in away if abs(row[0] + along - 2 * zero) < SAME_MM), None)
        if pair:
            done.add(pair[0])
            span = Span(edge=edge, a=along, b=pair[0], from_a=across, from_b=pair[1])
            out.append(dimension(f"{name}s apart, even about the line", span, tolerance_mm, critical=critical))
        else:
            span = Span(edge=edge, a=zero, b=along, from_a=zero_from, from_b=across)
            out.append(dimension(f"{name} {i} from the line", span, tolerance_mm, critical=critical))
    return out[:MOST]


def cut_dimensions(edge: Outline, rail_height_mm: float, reach_mm: float) -> tuple[Dimension, ...]:
    """Depth and width of a cut and the rail's height, on a template whose rail runs from -reach to +reach."""
    x0, _, x1, depth = edge.bounds()
    peak = [x for x, y in edge.points(0.05) if y > depth - 0.1]
    half = (x1 - x0) / 2
    first, last = edge.vertices[0].x, edge.vertices[-1].x
    low, high = min(first, last), max(first, last)
    return (
        dimension("depth", Span(edge="right", a=0, b=depth, from_a=high, from_b=max(peak)), 1.5, critical=True),
        dimension("width at the underside", Span(edge="below", a=low, b=high, from_a=0, from_b=0), 1.5, critical=True),
        *(
            (dimension("widest", Span(edge="below", a=x0, b=x1, from_a=depth / 2, from_b=depth / 2), 1.5),)
            if half - (high - low) / 2 > SAME_MM
            else ()
        ),
        dimension("rail height", Span(edge="left", a=0, b=rail_height_mm, from_a=-reach_mm, from_b=-reach_mm), 1.0),
    )


def hole_callouts(holes: Iterable[RoundHole]) -> tuple[Callout, ...]:
    """One callout for holes of one size, at the first of them: how many, and their diameter."""
    by_size: dict[float, list[RoundHole]] = {}
    for hole in holes:
        by_size.setdefault(round(hole.diameter_mm, 2), []).append(hole)
    out = []
    for across, own in sorted(by_size.items()):
        first, count = own[0], f"{len(own)} × " if len(own) > 1 else ""
        text = f"{count}ø {as_thickness(across)}"
        r = across * 0.7071 / 2
        out.append(
            Callout(
                x=first.x_mm + r,
                y=first.y_mm + r,
                text=text,
                kind="diameter",
                centre_x=first.x_mm,
                centre_y=first.y_mm,
            )
        )
    return tuple(out)


def arc_callouts(outline: Outline) -> tuple[Callout, ...]:
    """One callout for every radius of an outline, at the middle of its first arc."""
    seen: dict[float, Callout] = {}
    for a, b in outline.segments():
        if is_straight(a.bulge):
            continue
        cx, cy, radius = arc_centre(a, b)
        if radius < LEAST_RADIUS_MM or round(radius, 1) in seen:
            continue
        middle_x, middle_y = (a.x + b.x) / 2, (a.y + b.y) / 2
        # the arc's middle lies bulge x half its chord to the right of the way from a to b
        x, y = middle_x + a.bulge * (b.y - a.y) / 2, middle_y - a.bulge * (b.x - a.x) / 2
        text = f"R {as_length(radius)}"
        seen[round(radius, 1)] = Callout(x=x, y=y, text=text, kind="radius", centre_x=cx, centre_y=cy)
    return tuple(seen.values())
