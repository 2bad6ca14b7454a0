"""A vehicle that is alike on both sides is worked out on one: what is proved to be a mirror image is reflected.

Proved, not assumed: every place of a moving body is compared with its twin's at the opposite roll
and lock, every body of a standing thing with its twin's. What differs by more than a hundred
thousandth of a millimetre is worked out by itself.
"""

import numpy as np

from nodulant.base.arrays import Columns
from nodulant.clearance.moving import Mover, RoundBar, TyreBody
from nodulant.clearance.shapes import Bars, Blocks, Pack, Prisms, Standing

FLIP = np.array([1.0, -1.0, 1.0])
SAME_MM = 1e-5


def other_side(name: str) -> str:
    """The name of a thing's twin; of one without a side its own."""
    for one, two in (("right", "left"), ("left", "right")):
        if name.endswith(f", {one}"):
            return f"{name.removesuffix(one)}{two}"
        if name == f"{one} rail":
            return f"{two} rail"
    return name


def moves_alike(one: Mover, two: Mover) -> bool:
    """Whether ``two`` is the mirror image of ``one`` at the opposite roll and lock."""
    a, b = one.positions, two.positions
    if not (_odd(a.roll, b.roll) and _odd(a.input, b.input) and np.array_equal(a.travel, b.travel)):
        return False
    if not np.array_equal(one.there, two.there[:, ::-1, ::-1]):
        return False
    p, q = one.body, two.body
    if isinstance(p, RoundBar) and isinstance(q, RoundBar):
        straight = _reflected(p.a, q.a) and _reflected(p.b, q.b)
        return p.radius == q.radius and (straight or (_reflected(p.a, q.b) and _reflected(p.b, q.a)))
    if isinstance(p, TyreBody) and isinstance(q, TyreBody):
        sizes = all(getattr(p, n) == getattr(q, n) for n in ("outside", "rim", "width", "shoulder"))
        return sizes and _reflected(p.centre, q.centre) and _reflected(p.spin, q.spin)
    return False


def _odd(a: Columns, b: Columns) -> bool:
    """Columns that run to both sides alike."""
    return a.shape == b.shape and bool(np.allclose(a, -b[::-1], atol=1e-12))


def _reflected(one: Columns, two: Columns) -> bool:
    return bool(np.abs(one - two[:, ::-1, ::-1] * FLIP).max() < SAME_MM)


def stands_alike(one: Standing, two: Standing) -> bool:
    """Whether ``two`` is the mirror image of ``one``, body by body; a thing on both sides may be its own."""
    a, b = _rows(one.pack), _rows(two.pack, mirrored=True)
    if a is None or b is None or a.shape != b.shape:
        return False
    order = [v[np.lexsort(np.round(v, 4).T[::-1])] for v in (a, b)]
    return bool(np.abs(order[0] - order[1]).max(initial=0.0) < SAME_MM)


def _rows(pack: Pack, *, mirrored: bool = False) -> Columns | None:
    """Every body as one row of numbers, its mirror image where asked; None for bodies without a rule."""
    flip = FLIP if mirrored else np.ones(3)
    if isinstance(pack, Prisms):
        low, high = (-pack.high_y, -pack.low_y) if mirrored else (pack.low_y, pack.high_y)
        return np.concatenate([pack.corners.reshape(len(low), -1), low[:, None], high[:, None]], axis=1)
    if isinstance(pack, Bars):
        return np.concatenate([pack.a * flip, pack.b * flip, pack.radius[:, None]], axis=1)
    if isinstance(pack, Blocks):
        # a reflected box is told by the same axes with the cross one turned back
        axes = pack.axes * flip[:, None] * flip[None, :]
        return np.concatenate([pack.middle * flip, pack.half, axes.reshape(len(axes), -1)], axis=1)
    return None
