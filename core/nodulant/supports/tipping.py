"""Whether a body stands on its supports: its centre of mass over their polygon, and what each of them carries.

Three supports carry by statics. With four and more the floor decides: each is sized for its most over the triangles
of supports that hold the centre of mass (common practice); where none does, the body tips.
"""

import math
from collections.abc import Sequence
from itertools import combinations, pairwise

import numpy as np
from shapely import MultiPoint, Point, Polygon

from nodulant.base.model import Frozen
from nodulant.supports.bodies import Body
from nodulant.supports.support import Support

LEAST_MM, SHARE = 100.0, 0.15
"""Least margin: the larger of this, and this share of the polygon's depth across its nearest edge."""
FLAT_MM2 = 1.0


class StandLoad(Frozen):
    """What one support carries at most, kg, and that over its rating."""

    support: str
    name: str
    load_kg: float
    use: float


class PlanPoint(Frozen):
    """A place on the plan: station, and across to the right, mm."""

    x_mm: float
    y_mm: float


class Stands(Frozen):
    """One body on its supports; ``margin_mm`` is negative where its centre of mass lies outside of them."""

    body: Body
    margin_mm: float | None
    """None where nothing is under it."""
    needed_mm: float
    corners: tuple[PlanPoint, ...]
    """Of the polygon."""
    loads: tuple[StandLoad, ...]
    holds: bool
    """Whether it stands with its margin and no support carries more than its rating."""
    words: str


def stands_on(body: Body, supports: Sequence[Support]) -> Stands:
    """A body on the supports that stand under it; ties hold it, and carry nothing."""
    own = [s for s in supports if body.start_mm <= s.x_mm <= body.end_mm and s.kind != "tie-down"]
    tied = any(body.start_mm <= s.x_mm <= body.end_mm and s.kind == "tie-down" for s in supports)
    if not own:
        words = f"nothing is under {body.name}"
        return Stands(body=body, margin_mm=None, needed_mm=LEAST_MM, corners=(), loads=(), holds=False, words=words)
    shape = MultiPoint([(s.x_mm, s.y_mm) for s in own]).convex_hull
    at = Point(body.x_mm, body.y_mm)
    if not isinstance(shape, Polygon) or shape.area < FLAT_MM2:
        words = f"{body.name} stands on a line: it tips"
        return Stands(
            body=body,
            margin_mm=-float(shape.distance(at)),
            needed_mm=LEAST_MM,
            corners=tuple(PlanPoint(x_mm=s.x_mm, y_mm=s.y_mm) for s in own),
            loads=(),
            holds=False,
            words=words,
        )
    away = float(shape.exterior.distance(at))
    margin = away if shape.covers(at) else -away
    needed = max(LEAST_MM, SHARE * _depth(shape, at))
    loads = _loads(body, own)
    most = max((row.use for row in loads), default=0.0)
    firm = margin >= needed or (margin >= 0 and tied)
    return Stands(
        body=body,
        margin_mm=margin,
        needed_mm=needed,
        corners=tuple(PlanPoint(x_mm=float(x), y_mm=float(y)) for x, y in list(shape.exterior.coords)[:-1]),
        loads=loads,
        holds=firm and bool(loads) and most <= 1.0,
        words=_words(body, margin, needed, most, tied=tied),
    )


def _words(body: Body, margin: float, needed: float, most: float, *, tied: bool) -> str:
    if margin < 0:
        return f"{body.name} tips"
    if margin < needed and not tied:
        return f"{body.name} stands too near to its edge"
    return f"a stand under {body.name} carries more than its rating" if most > 1.0 else f"{body.name} stands"


def _depth(shape: Polygon, at: Point) -> float:
    """How deep the polygon is across the edge that is nearest to ``at``, mm."""
    ring = np.array(shape.exterior.coords)
    best, depth = math.inf, 0.0
    for a, b in pairwise(ring):
        along = (b - a) / max(float(np.linalg.norm(b - a)), 1e-9)
        normal = np.array([-along[1], along[0]])
        away = abs(float((np.array([at.x, at.y]) - a) @ normal))
        if away < best:
            reach = (ring - a) @ normal
            best, depth = away, float(reach.max() - reach.min())
    return depth


def _loads(body: Body, own: Sequence[Support]) -> tuple[StandLoad, ...]:
    """The most that each carries; none where the body tips."""
    most = dict.fromkeys((s.id for s in own), 0.0)
    held = False
    for three in combinations(own, 3):
        shares = triangle_shares([(s.x_mm, s.y_mm) for s in three], (body.x_mm, body.y_mm))
        if shares is None or min(shares) < -1e-9:
            continue
        held = True
        for s, share in zip(three, shares, strict=True):
            most[s.id] = max(most[s.id], share * body.mass_kg)
    if not held:
        return ()
    return tuple(StandLoad(support=s.id, name=s.name, load_kg=most[s.id], use=most[s.id] / s.rating_kg) for s in own)


def triangle_shares(corners: Sequence[tuple[float, float]], at: tuple[float, float]) -> tuple[float, ...] | None:
    """Shares of a load at ``at`` that three supports carry: its barycentric coordinates; None where they stand in a line."""
    (x0, y0), (x1, y1), (x2, y2) = corners
    twice = (y1 - y2) * (x0 - x2) + (x2 - x1) * (y0 - y2)
    if abs(twice) < FLAT_MM2:
        return None
    a = ((y1 - y2) * (at[0] - x2) + (x2 - x1) * (at[1] - y2)) / twice
    b = ((y2 - y0) * (at[0] - x2) + (x0 - x2) * (at[1] - y2)) / twice
    return a, b, 1.0 - a - b
