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
from nodulant.sections.pieces import Piece, integrate

STOCK, VOID = "rail", "hole"
"""Names of the rail's own metal and of what is missing in it; every other name is a plate's."""
FIBRES = np.array([1, 0, 3, 2])
"""Right, left, top and bottom, as they stand among the edges of a piece."""
OUTWARD = np.array([1.0, -1.0, 1.0, -1.0])[:, None, None]


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
    every: Columns
    """Area, first and second moments of each piece, (pieces, 6, stations)."""
    weight: Columns
    """What of each counts, (pieces, stations)."""
    edges: Columns
    """y and z of the extreme fibres: y low, y high, z low, z high; (pieces, 4, stations)."""

    def without(self, name: str) -> "_Stacked":
        """The same without the plates of one name."""
        kept = [k for k, piece in enumerate(self.pieces) if piece.name != name]
        return _Stacked([self.pieces[k] for k in kept], self.every[kept], self.weight[kept], self.edges[kept])

    def sums(self) -> Columns:
        """Area, first and second moments of the whole, shape (6, stations)."""
        return np.asarray(np.einsum("ps,pis->is", self.weight, self.every))

    def moduli(self, inertia: Columns, centre: Columns) -> Columns:
        """Modulus and yield moments, reference and working, of each of ``FIBRES`` that yields first; shape (4, 3, stations).

        ``inertia`` and ``centre`` are (4, stations), those of the bending that each fibre is strained by.
        """
        metal = [k for k, piece in enumerate(self.pieces) if piece.sign > 0]
        share = np.stack([p.share if p.strain is None else p.share * p.strain for p in (self.pieces[k] for k in metal)])
        share = np.where(self.every[metal, 0] > 1e-9, share, 0.0)
        yields = np.array([(1.0, self.pieces[k].yield_reference_mpa, self.pieces[k].yield_mpa) for k in metal])
        out = self.edges[metal][:, FIBRES].transpose(1, 0, 2) - centre[:, None]
        lever = OUTWARD * share * out
        own = np.divide(inertia[:, None], lever, out=np.full_like(lever, np.inf), where=lever > 1e-9)
        least = (own[:, :, None] * yields[:, :, None]).min(axis=1)
        return np.where(np.isfinite(least), least, 0.0)

    def bending(self) -> tuple[Columns, Columns]:
        """Sums of the whole (6, stations), and moduli of ``FIBRES`` (4, 3, stations)."""
        total = self.sums()
        area = np.maximum(total[0], 1e-9)
        z, y = total[1] / area, total[2] / area
        upright = np.maximum(total[3] - total[0] * z * z, 0.0)
        across = np.maximum(total[4] - total[0] * y * y, 0.0)
        return total, self.moduli(np.stack([across, across, upright, upright]), np.stack([y, y, z, z]))


def _stack(pieces: Sequence[Piece]) -> _Stacked:
    found = [integrate(piece) for piece in pieces]
    every = np.stack([(i.area, i.q_y, i.q_z, i.i_y, i.i_z, i.i_yz) for i in found])
    weight = np.stack([p.sign * p.share * p.credit for p in pieces])
    edges = np.stack([(i.y_low, i.y_high, i.z_low, i.z_high) for i in found])
    return _Stacked(pieces, every, weight, edges)


def combine(pieces: Sequence[Piece]) -> Properties:
    """Sum the pieces of each station; shapes (stations,). A plate never lowers a capacity: what is stronger without it counts so."""
    stacked = _stack(pieces)
    total, moduli = stacked.bending()
    strongest = moduli
    plates = {p.name for p in pieces} - {STOCK, VOID}
    for name in plates if any(p.name == STOCK for p in pieces) else ():
        strongest = np.maximum(strongest, stacked.without(name).bending()[1])
    area, q_y, q_z, i_y, i_z, i_yz = total
    safe = np.maximum(area, 1e-9)
    z, y = q_y / safe, q_z / safe
    side = np.minimum(strongest[0], strongest[1])
    top, bottom = strongest[2], strongest[3]
    return Properties(
        area,
        y,
        z,
        np.maximum(i_y - area * z * z, 0.0),
        np.maximum(i_z - area * y * y, 0.0),
        i_yz - area * y * z,
        moduli[2, 0],
        moduli[3, 0],
        top[1],
        bottom[1],
        top[2],
        bottom[2],
        side[1],
        side[2],
    )
