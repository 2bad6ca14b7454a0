"""An outline moved outward or inward by a distance, its arcs staying arcs: what a torch's middle follows.

A corner that points away from the side moved to becomes an arc about the old corner; one that points towards it stays
sharp, where its two neighbours' lines meet again.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass

from nodulant.base.errors import InputError
from nodulant.geometry.outline import Outline, Vertex, arc_centre, is_straight
from nodulant.units.inline import as_length, as_thickness

NEAR_MM, SAME_MM = 1e-6, 2e-3
"""Lines that meet at all, and ends that are one: where an arc runs out into a line."""
Point = tuple[float, float]


@dataclass(frozen=True)
class _Run:
    """One segment moved sideways: its ends, its bulge, and the circle that it lies on where it is an arc."""

    start: Point
    end: Point
    bulge: float
    circle: tuple[float, float, float] | None


def offset(outline: Outline, by_mm: float) -> Outline:
    """The outline ``by_mm`` further out, inward where it is negative; raises InputError where an arc or side closes up.

    Whichever way round it is drawn, out is away from its metal.
    """
    if not outline.closed:
        raise InputError("an open line has no outside", found="an open line", acceptable="a closed outline")
    out = by_mm if outline.area_mm2() > 0 else -by_mm
    runs = [_moved(a, b, out) for a, b in outline.segments() if math.dist((a.x, a.y), (b.x, b.y)) > NEAR_MM]
    corners = [(a.x, a.y) for a, b in outline.segments() if math.dist((a.x, a.y), (b.x, b.y)) > NEAR_MM]
    vertices: list[Vertex] = []
    joints = [_joint(runs[k - 1], runs[k], corners[k], out) for k in range(len(runs))]
    for k, run in enumerate(runs):
        begin, end = joints[k][-1], joints[(k + 1) % len(runs)][0]
        if len(joints[k]) > 1:
            vertices.append(
                Vertex(x=joints[k][0][0], y=joints[k][0][1], bulge=_bulge(joints[k][0], joints[k][1], corners[k], out))
            )
        vertices.append(Vertex(x=begin[0], y=begin[1], bulge=_along(run, begin, end)))
    return Outline(vertices=tuple(vertices))


def _moved(a: Vertex, b: Vertex, out: float) -> _Run:
    """Out is to the right of the way round."""
    if is_straight(a.bulge):
        long = math.dist((a.x, a.y), (b.x, b.y))
        nx, ny = (b.y - a.y) / long * out, -(b.x - a.x) / long * out
        return _Run((a.x + nx, a.y + ny), (b.x + nx, b.y + ny), 0.0, None)
    cx, cy, radius = arc_centre(a, b)
    grown = radius + out if a.bulge > 0 else radius - out
    if grown <= NEAR_MM:
        raise InputError(
            "an arc is smaller than half of what the cut takes",
            found=f"radius {as_length(radius)}",
            acceptable=f"more than {as_thickness(abs(out))}, or a thinner cut",
        )
    scale = grown / radius
    start = (cx + (a.x - cx) * scale, cy + (a.y - cy) * scale)
    end = (cx + (b.x - cx) * scale, cy + (b.y - cy) * scale)
    return _Run(start, end, a.bulge, (cx, cy, grown))


def _joint(before: _Run, after: _Run, corner: Point, out: float) -> tuple[Point, ...]:
    """Where two runs meet: one point, or the two ends of an arc about the corner."""
    p, q = before.end, after.start
    if math.dist(p, q) < SAME_MM:
        return (p,)
    turn = _cross((p[0] - corner[0], p[1] - corner[1]), (q[0] - corner[0], q[1] - corner[1]))
    if turn * out > 0:
        return p, q
    found = _meet(before, after)
    if not found:
        raise InputError(
            "a side is shorter than what the cut takes beside it",
            found=f"at {as_length(corner[0])}, {as_length(corner[1])}",
            acceptable="a thinner cut, or a plainer corner",
        )
    return (min(found, key=lambda at: math.dist(at, corner)),)


def _cross(u: Point, v: Point) -> float:
    return u[0] * v[1] - u[1] * v[0]


def _meet(one: _Run, two: _Run) -> list[Point]:
    """Where the lines or circles of two runs meet."""
    if one.circle is None and two.circle is None:
        return _lines(one, two)
    if one.circle is not None and two.circle is not None:
        return _circles(one.circle, two.circle)
    straight, circle = (one, two.circle) if one.circle is None else (two, one.circle)
    return [] if circle is None else _line_circle(straight, circle)


def _lines(one: _Run, two: _Run) -> list[Point]:
    u = (one.end[0] - one.start[0], one.end[1] - one.start[1])
    v = (two.end[0] - two.start[0], two.end[1] - two.start[1])
    flat = _cross(u, v)
    if abs(flat) < NEAR_MM:
        return []
    t = _cross((two.start[0] - one.start[0], two.start[1] - one.start[1]), v) / flat
    return [(one.start[0] + t * u[0], one.start[1] + t * u[1])]


def _line_circle(run: _Run, circle: tuple[float, float, float]) -> list[Point]:
    cx, cy, radius = circle
    long = math.dist(run.start, run.end)
    ux, uy = (run.end[0] - run.start[0]) / long, (run.end[1] - run.start[1]) / long
    along = (cx - run.start[0]) * ux + (cy - run.start[1]) * uy
    foot = (run.start[0] + along * ux, run.start[1] + along * uy)
    left = radius**2 - (foot[0] - cx) ** 2 - (foot[1] - cy) ** 2
    if left < 0:
        return []
    half = math.sqrt(left)
    return [(foot[0] + s * half * ux, foot[1] + s * half * uy) for s in (-1, 1)]


def _circles(one: tuple[float, float, float], two: tuple[float, float, float]) -> list[Point]:
    (x0, y0, r0), (x1, y1, r1) = one, two
    apart = math.hypot(x1 - x0, y1 - y0)
    if apart < NEAR_MM or apart > r0 + r1 or apart < abs(r0 - r1):
        return []
    along = (r0**2 - r1**2 + apart**2) / (2 * apart)
    half = math.sqrt(max(r0**2 - along**2, 0.0))
    ux, uy = (x1 - x0) / apart, (y1 - y0) / apart
    foot = (x0 + along * ux, y0 + along * uy)
    return [(foot[0] - s * half * uy, foot[1] + s * half * ux) for s in (-1, 1)]


def _bulge(start: Point, end: Point, about: Point, out: float) -> float:
    """Bulge of an arc about a corner, the shorter way round."""
    a = math.atan2(start[1] - about[1], start[0] - about[0])
    b = math.atan2(end[1] - about[1], end[0] - about[0])
    turn = math.remainder(b - a, math.tau)
    return math.tan(turn / 4) if out else 0.0


def _along(run: _Run, begin: Point, end: Point) -> float:
    """Bulge of a run between where it now begins and ends; it turns the way it did."""
    if run.circle is None:
        return 0.0
    cx, cy, _ = run.circle
    turn = math.atan2(end[1] - cy, end[0] - cx) - math.atan2(begin[1] - cy, begin[0] - cx)
    turn %= math.tau
    return math.tan(turn / 4) if run.bulge > 0 else -math.tan((math.tau - turn) / 4)


def machine_paths(cut: Outline, holes: Sequence[Outline], kerf_mm: float) -> tuple[Outline, tuple[Outline, ...]]:
    """What a torch's middle follows: half a kerf outside a piece, half a kerf inside its holes."""
    return offset(cut, kerf_mm / 2), tuple(offset(hole, -kerf_mm / 2) for hole in holes)
