"""Levels of the frame over one line: how far it is twisted and how far it sags, whatever way the vehicle leans.

A level line says heights only up to a plane: what the whole vehicle leans and pitches is not the frame's. At
each pair the roll is the difference of left and right over their width; twist is the last pair's roll less
the first one's. Sag is how far a pair's middle lies off the straight line between first and last pair.
"""

import math
from collections.abc import Mapping

from nodulant.base.model import Frozen

COVERS = 2.0
Place = tuple[float, float, float]


class PairLevel(Frozen):
    """One pair against its plan: middle off the line through the outer pairs, mm, and roll against the first one, degrees."""

    name: str
    x_mm: float
    sag_mm: float
    twist_deg: float


class Levels(Frozen):
    """What the levels say; expanded uncertainties beside."""

    pairs: tuple[PairLevel, ...]
    twist_deg: float
    """Of the last pair against the first, right side up positive."""
    twist_mm: float
    """The same over the width between the rails."""
    twist_sure_mm: float
    sag_mm: float
    """The largest, below the line positive."""
    sag_at: str
    sag_sure_mm: float


def levelled(planned: Mapping[str, Place], read: Mapping[str, float], spread_mm: float) -> Levels | None:
    """From heights by '<point>/<side>'; None with fewer than two pairs."""
    rows = []
    for name in {id_.rsplit("/", 1)[0] for id_ in read}:
        left, right = f"{name}/left", f"{name}/right"
        if {left, right} <= read.keys() & planned.keys():
            (x, yl, zl), (_, yr, zr) = planned[left], planned[right]
            one, other = read[left] - zl, read[right] - zr
            rows.append((x, name, (one + other) / 2, (other - one) / (yr - yl), yr - yl))
    rows.sort()
    if len(rows) < 2 or rows[-1][0] - rows[0][0] < 1.0:
        return None
    (x0, _, m0, r0, _), (x1, _, m1, r1, width) = rows[0], rows[-1]
    pairs = tuple(
        PairLevel(
            name=name,
            x_mm=x,
            sag_mm=m0 + (m1 - m0) * (x - x0) / (x1 - x0) - m,
            twist_deg=math.degrees(r - r0),
        )
        for x, name, m, r, _ in rows
    )
    worst = max(pairs, key=lambda p: abs(p.sag_mm))
    share = (worst.x_mm - x0) / (x1 - x0)
    return Levels(
        pairs=pairs,
        twist_deg=math.degrees(r1 - r0),
        twist_mm=(r1 - r0) * width,
        twist_sure_mm=COVERS * 2.0 * spread_mm,
        sag_mm=worst.sag_mm,
        sag_at=worst.name,
        sag_sure_mm=COVERS * spread_mm / math.sqrt(2) * math.sqrt(1 + (1 - share) ** 2 + share**2),
    )
