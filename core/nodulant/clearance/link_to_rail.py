"""A round member that moves against a rail that stands: the least gap over all its poses.

The member is sampled along its length; at every sample the rail is its rectangle at that station
(web to tips, underside to top), cuts not taken off, so the gap is never too large where the rail
is straight. Near a fixed end, where its bracket is, nothing is judged.
"""

from dataclasses import dataclass

import numpy as np

from nodulant.base.arrays import Columns, Mask

SAMPLES = 17


@dataclass(frozen=True)
class RailBox:
    """A rail as columns along it, mm: station, underside, top, and the two faces across."""

    x: Columns
    low: Columns
    high: Columns
    inner: Columns
    outer: Columns


@dataclass(frozen=True)
class Gap:
    """Least gap, mm, the pose's row, and the station; negative inside the rail."""

    gap_mm: float
    row: int
    station_mm: float


@dataclass(frozen=True)
class Swept:
    """Samples along a member in every pose, each column (poses, samples), and which of them are judged."""

    x: Columns
    y: Columns
    z: Columns
    judged: Mask


def swept(a: Columns, b: Columns, there: Mask, spare_mm: float) -> Swept:
    """The member from ``a`` (moving) to ``b`` (fixed), both (poses, 3), but for ``spare_mm`` beside its fixed end."""
    share = np.linspace(0.0, 1.0, SAMPLES)
    points = a[:, None] + share[None, :, None] * (b - a)[:, None]
    judged = (np.sqrt(((points - b[:, None]) ** 2).sum(axis=-1)) > spare_mm) & there[:, None]
    return Swept(points[..., 0], points[..., 1], points[..., 2], judged)


def link_to_rail(member: Swept, radius_mm: float, rail: RailBox) -> Gap | None:
    """Least gap of the member; None where it never passes the rail."""
    x, y, z = member.x, member.y, member.z
    inside = (x >= rail.x[0]) & (x <= rail.x[-1]) & member.judged
    if not inside.any():
        return None
    low, high, left, right = _rail_at(rail, x)
    dy, dz = np.maximum(left - y, y - right), np.maximum(low - z, z - high)
    off = np.where((dy > 0) & (dz > 0), np.hypot(dy, dz), np.maximum(dy, dz)) - radius_mm
    off = np.where(inside, off, np.inf)
    i = int(np.argmin(off))
    row, k = divmod(i, SAMPLES)
    return Gap(float(off[row, k]), row, float(x[row, k]))


def _rail_at(rail: RailBox, x: Columns) -> tuple[Columns, Columns, Columns, Columns]:
    """Underside, top, and both faces in order across, at every ``x``; one search serves all four."""
    i = np.clip(np.searchsorted(rail.x, x) - 1, 0, len(rail.x) - 2)
    start = rail.x[i]
    share = np.clip((x - start) / np.maximum(rail.x[i + 1] - start, 1e-9), 0.0, 1.0)

    def at(column: Columns) -> Columns:
        return np.asarray(column[i] + share * (column[i + 1] - column[i]))

    return at(rail.low), at(rail.high), at(np.minimum(rail.inner, rail.outer)), at(np.maximum(rail.inner, rail.outer))
