"""Properties of whole sections from their pieces.

Terms: area A, centroid, I about the centroid's horizontal (i_y) and vertical (i_z) axis,
product i_yz, S top and bottom = I over the distance to the extreme fibre. A fibre of a
plate that is developed to ``share`` carries ``share`` of the strain-compatible stress, so
its modulus is I / (share c). Capacity = yield x S of the fibre that yields first.
"""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from nodulant.base.arrays import Columns
from nodulant.sections.pieces import Integrals, Piece, integrate


@dataclass(frozen=True)
class Properties:
    """One value per station: mm2, mm, mm4, mm3 and N mm."""

    area: Columns
    centroid_y: Columns
    centroid_z: Columns
    i_y: Columns
    i_z: Columns
    i_yz: Columns
    s_top: Columns
    s_bottom: Columns
    reference_top: Columns
    """Yield moment of the top fibre with reference yields, N mm."""
    reference_bottom: Columns
    working_top: Columns
    """Yield moment of the top fibre with the yields of absolute checks, N mm."""
    working_bottom: Columns
    reference_side: Columns
    """Yield moment of the weaker fibre in bending across the rail, reference yields, N mm."""
    working_side: Columns


@dataclass(frozen=True)
class _Stacked:
    """Pieces with metal and the voids in them, one row each: shape (pieces, stations)."""

    pieces: Sequence[Piece]
    integrals: Sequence[Integrals]

    def sums(self) -> Columns:
        """Area, first and second moments of the whole, shape (6, stations)."""
        weight = np.stack([p.sign * p.share * p.credit for p in self.pieces])
        every = np.stack([(i.area, i.q_y, i.q_z, i.i_y, i.i_z, i.i_yz) for i in self.integrals])
        return np.asarray((weight[:, None] * every).sum(axis=0))

    def moduli(self, inertia: Columns, centre: Columns, upward: float, across: bool = False) -> Columns:
        """Modulus and yield moments, reference and working, of the fibre that yields first; shape (3, stations)."""
        metal = [(p, i) for p, i in zip(self.pieces, self.integrals, strict=True) if p.sign > 0]
        low, high = ("y_low", "y_high") if across else ("z_low", "z_high")
        edge = np.stack([getattr(i, high if upward > 0 else low) for _, i in metal])
        share = np.stack([np.where(i.area > 1e-9, p.share, 0.0) for p, i in metal])
        yields = np.array([(1.0, p.yield_reference_mpa, p.yield_mpa) for p, _ in metal]).T
        lever = upward * share * (edge - centre)
        own = np.divide(inertia, lever, out=np.full_like(lever, np.inf), where=lever > 1e-9)
        least = (own * yields[:, :, None]).min(axis=1)
        return np.where(np.isfinite(least), least, 0.0)


def combine(pieces: Sequence[Piece]) -> Properties:
    """Sum the pieces of each station; shapes (stations,)."""
    stacked = _Stacked(pieces, [integrate(piece) for piece in pieces])
    area, q_y, q_z, i_y, i_z, i_yz = stacked.sums()
    safe = np.maximum(area, 1e-9)
    z, y = q_y / safe, q_z / safe
    inertia = np.maximum(i_y - area * z * z, 0.0)
    top, bottom = stacked.moduli(inertia, z, 1.0), stacked.moduli(inertia, z, -1.0)
    across = np.maximum(i_z - area * y * y, 0.0)
    side = np.minimum(stacked.moduli(across, y, 1.0, across=True), stacked.moduli(across, y, -1.0, across=True))
    return Properties(
        area,
        y,
        z,
        inertia,
        across,
        i_yz - area * y * z,
        top[0],
        bottom[0],
        top[1],
        bottom[1],
        top[2],
        bottom[2],
        side[1],
        side[2],
    )
