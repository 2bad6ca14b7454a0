"""Clearance from the axle tube to any metal seen from the side: posts, risers, gussets, side plates, a rail's other stretch.

A tube runs across the vehicle, so whatever lies in its way at any width counts.
"""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from nodulant.base.arrays import Columns
from nodulant.targets.axle_path import TubePath


@dataclass(frozen=True, eq=False)
class Metal:
    """A piece's closed outline in side view, corners (n, 2), mm: along, and above the rail's underside at the axle."""

    name: str
    corners: Columns

    @property
    def span(self) -> tuple[float, float]:
        """Its ends along, mm."""
        return float(self.corners[:, 0].min()), float(self.corners[:, 0].max())


def tube_to_metal(path: TubePath, pieces: Sequence[Metal]) -> tuple[Columns, Columns]:
    """Clearance of every piece at every pose, negative in it, and the station of its nearest edge, mm; shapes (pieces, poses)."""
    a = np.concatenate([piece.corners for piece in pieces])[..., None]
    b = np.concatenate([np.roll(piece.corners, -1, axis=0) for piece in pieces])[..., None]
    counts = [len(piece.corners) for piece in pieces]
    first = np.cumsum([0, *counts[:-1]])
    ax, az, dx, dz = a[:, 0], a[:, 1], b[:, 0] - a[:, 0], b[:, 1] - a[:, 1]
    x, z = path.x[None] - ax, path.z[None] - az
    t = np.clip((x * dx + z * dz) / np.maximum(dx * dx + dz * dz, 1e-12), 0.0, 1.0)
    away = np.hypot(x - t * dx, z - t * dz)
    # even-odd rule: an upright line from a point in the outline crosses it an odd number of times
    over = ((x < 0.0) != (x < dx)) & (x / np.where(np.abs(dx) < 1e-12, 1.0, dx) * dz > z)
    inside = np.add.reduceat(over.astype(int), first, axis=0) % 2 == 1
    least = np.minimum.reduceat(away, first, axis=0)
    edges = np.arange(len(away))[:, None]
    nearest = np.where(away == np.repeat(least, counts, axis=0), edges, len(away))
    best = np.minimum.reduceat(nearest, first, axis=0)
    stations = np.take_along_axis(ax + t * dx, best, axis=0)
    return np.where(inside, -least, least) - path.radius, stations
