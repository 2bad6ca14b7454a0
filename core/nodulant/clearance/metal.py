"""Clearance from the axle tube to any metal seen from the side: posts, risers, gussets, side plates, a rail's other stretch.

A tube runs across the vehicle, so whatever lies in its way at any width counts.
"""

from dataclasses import dataclass

import numpy as np

from nodulant.base.arrays import Columns, Mask
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


def tube_to_metal(path: TubePath, metal: Metal) -> tuple[Columns, Columns]:
    """Clearance at every pose, negative in the metal, and the station of its nearest edge, mm; shapes (poses,)."""
    centres = np.stack([path.x, path.z], axis=1)
    a, b = metal.corners, np.roll(metal.corners, -1, axis=0)
    along = b - a
    long = np.maximum((along**2).sum(axis=1), 1e-12)
    t = np.clip(((centres[:, None] - a) * along).sum(axis=2) / long, 0.0, 1.0)
    nearest = a + t[..., None] * along
    away = np.hypot(*(centres[:, None] - nearest).transpose(2, 0, 1))
    best = np.argmin(away, axis=1)
    rows = np.arange(len(centres))
    off = np.where(_inside(centres, a, b), -away[rows, best], away[rows, best])
    return off - path.radius, nearest[rows, best, 0]


def _inside(points: Columns, a: Columns, b: Columns) -> Mask:
    """Even-odd rule: an upright line from each point crosses the outline an odd number of times."""
    x, z = points[:, :1], points[:, 1:]
    over = (a[:, 0] > x) != (b[:, 0] > x)
    run = np.where(np.abs(b[:, 0] - a[:, 0]) < 1e-12, 1.0, b[:, 0] - a[:, 0])
    height = a[:, 1] + (x - a[:, 0]) / run * (b[:, 1] - a[:, 1])
    return np.asarray((over & (height > z)).sum(axis=1) % 2 == 1)
