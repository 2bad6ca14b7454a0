"""How far two standing things are apart: every body of the one against every body of the other.

Round bars against anything by the distances of the sweep; boxes and prisms by nearest points taken
by turns (von Neumann's alternating projections: between convex bodies they come to the least
distance). Bodies that meet are 0 apart.
"""

import numpy as np

from nodulant.base.arrays import Columns, Rows
from nodulant.clearance.distance import bar_to_convex
from nodulant.clearance.shapes import Bars, Pack, Standing

TURNS, STILL_MM, MEETS_MM, AT_ONCE, ROUNDS = 600, 1e-6, 1e-3, 12, 9


def apart(one: Standing, two: Standing) -> float:
    """Least distance, mm, 0 where they meet."""
    bounds = one.pack.boxes.apart(two.pack.boxes)
    order = np.argsort(bounds, axis=None, kind="stable")
    best = np.inf
    for start in range(0, len(order), AT_ONCE):
        i, k = np.unravel_index(order[start : start + AT_ONCE], bounds.shape)
        near = bounds[i, k] < best
        if not near.any():
            break
        best = min(best, float(_gaps(one.pack, two.pack, i[near], k[near]).min()))
    return 0.0 if best < MEETS_MM else best


def _gaps(one: Pack, two: Pack, i: Rows, k: Rows) -> Columns:
    """Distances of numbered bodies of both, pair by pair."""
    a, b = one.some(i), two.some(k)
    if isinstance(b, Bars):
        a, b = b, a
    return bar_to_convex(a.a, a.b, a.radius, b, ROUNDS).gap if isinstance(a, Bars) else _by_turns(a, b)


def _by_turns(a: Pack, b: Pack) -> Columns:
    p = a.nearest((b.boxes.low + b.boxes.high) / 2)
    for _ in range(TURNS):
        moved = a.nearest(b.nearest(p))
        still = np.abs(moved - p).max() < STILL_MM
        p = moved
        if still:
            break
    return np.asarray(np.sqrt(((p - b.nearest(p)) ** 2).sum(axis=1)))
