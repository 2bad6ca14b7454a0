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


def combine(pieces: Sequence[Piece]) -> Properties:
    """Sum the pieces of each station; shapes (stations,)."""
    parts = [(piece, integrate(piece)) for piece in pieces]
    area, q_y, q_z, i_y, i_z, i_yz = (_sum(parts, name) for name in ("area", "q_y", "q_z", "i_y", "i_z", "i_yz"))
    safe = np.maximum(area, 1e-9)
    z, y = q_y / safe, q_z / safe
    inertia = np.maximum(i_y - area * z * z, 0.0)
    top, bottom = _moduli(parts, inertia, z, 1.0), _moduli(parts, inertia, z, -1.0)
    across = np.maximum(i_z - area * y * y, 0.0)
    sides = [_moduli(parts, across, y, sense, across=True) for sense in (1.0, -1.0)]
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
        np.minimum(sides[0][1], sides[1][1]),
        np.minimum(sides[0][2], sides[1][2]),
    )


def _sum(parts: list[tuple[Piece, Integrals]], name: str) -> Columns:
    total: Columns = np.zeros_like(parts[0][0].share)
    for piece, integrals in parts:
        total = total + piece.sign * piece.share * piece.credit * getattr(integrals, name)
    return total


def _moduli(
    parts: list[tuple[Piece, Integrals]], inertia: Columns, centre: Columns, upward: float, across: bool = False
) -> tuple[Columns, Columns, Columns]:
    modulus = np.full_like(inertia, np.inf)
    reference, working = modulus.copy(), modulus.copy()
    for piece, integrals in parts:
        if piece.sign < 0:
            continue
        low, high = (integrals.y_low, integrals.y_high) if across else (integrals.z_low, integrals.z_high)
        edge = high if upward > 0 else low
        lever = np.where(integrals.area > 1e-9, piece.share * upward * (edge - centre), 0.0)
        own = np.divide(inertia, lever, out=np.full_like(inertia, np.inf), where=lever > 1e-9)
        modulus = np.minimum(modulus, own)
        reference = np.minimum(reference, own * piece.yield_reference_mpa)
        working = np.minimum(working, own * piece.yield_mpa)
    return _finite(modulus), _finite(reference), _finite(working)


def _finite(values: Columns) -> Columns:
    return np.where(np.isfinite(values), values, 0.0)
