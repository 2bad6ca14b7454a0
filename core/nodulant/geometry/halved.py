"""An outline parted by an upright line, arcs kept true."""

from collections.abc import Callable

from nodulant.geometry.outline import Outline, Vertex, is_straight


def halved(outline: Outline, x: float) -> tuple[Outline, Outline] | None:
    """What of a closed outline lies ahead of ``x`` and behind it; None where the line runs through an arc or beside it, or more than once through."""
    crossed = [(a, b) for a, b in outline.segments() if min(a.x, b.x) < x < max(a.x, b.x)]
    if len(crossed) != 2 or any(not is_straight(a.bulge) for a, _ in crossed):
        return None
    if any(abs(v.x - x) < TOUCH_MM for v in outline.vertices):
        return None
    ahead, behind = _kept(outline, x, lambda v: v.x < x), _kept(outline, x, lambda v: v.x > x)
    # an arc may bow over the line with both its ends on one side
    return (ahead, behind) if ahead.bounds()[2] <= x + TOUCH_MM and behind.bounds()[0] >= x - TOUCH_MM else None


TOUCH_MM = 1e-6


def _kept(outline: Outline, x: float, inside: Callable[[Vertex], bool]) -> Outline:
    out: list[Vertex] = []
    for a, b in outline.segments():
        if inside(a):
            out.append(a)
        if inside(a) != inside(b):
            out.append(Vertex(x=x, y=a.y + (b.y - a.y) * (x - a.x) / (b.x - a.x)))
    return Outline(vertices=tuple(out))
