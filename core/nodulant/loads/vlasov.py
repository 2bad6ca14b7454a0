"""Stiffness of an open thin-walled member in torsion, held against warping at its ends or not.

Vlasov's beam, E I_w phi^IV - G J phi^II = 0: with k = sqrt(G J / (E I_w)), u = k L and d = u sinh u -
2 (cosh u - 1), for twist and twist per length (phi, psi) at both ends: G J k sinh u / d, G J (cosh u - 1) / d,
near end G J / k (u cosh u - sinh u) / d, far end G J / k (sinh u - u) / d (the same algebra as a tie in
tension, from memory). Below u = 0.3 by series, above 20 in the limit of large u.
"""

import numpy as np

from nodulant.base.arrays import Columns
from nodulant.materials.steel import ELASTIC_MODULUS_MPA, SHEAR_MODULUS_MPA

SMALL, LARGE = 0.3, 20.0


def vlasov_stiffness(j_mm4: Columns, i_w_mm6: Columns, length_mm: Columns) -> Columns:
    """Stiffness for twist and twist per length at both ends, N mm and N mm2, shape (m, 4, 4)."""
    stiff, shear = ELASTIC_MODULUS_MPA * i_w_mm6, SHEAR_MODULUS_MPA * j_mm4
    u = length_mm * np.sqrt(shear / stiff)
    twist, mixed, near, far = np.where(u < SMALL, _series(u), np.where(u > LARGE, _limit(u), _exact(u)))
    each = stiff / length_mm
    a, b, c, d = each / length_mm**2 * twist, each / length_mm * mixed, each * near, each * far
    rows = ((a, b, -a, b), (b, c, -b, d), (-a, -b, a, -b), (b, d, -b, c))
    return np.stack([np.stack(row, axis=1) for row in rows], axis=1)


def _series(u: Columns) -> Columns:
    """Factors of E I_w over L^3, L^2, L and L, shape (4, m)."""
    p = np.minimum(u, SMALL) ** 2
    return np.stack(
        [
            12 + 6 * p / 5 - p * p / 700,
            6 + p / 10 - p * p / 1400,
            4 + 2 * p / 15 - 11 * p * p / 6300,
            2 - p / 30 + 13 * p * p / 12600,
        ]
    )


def _exact(u: Columns) -> Columns:
    v = np.clip(u, SMALL, LARGE)
    s, c = np.sinh(v), np.cosh(v)
    d = v * s - 2 * (c - 1)
    return np.stack([v**3 * s / d, v**2 * (c - 1) / d, v * (v * c - s) / d, v * (s - v) / d])


def _limit(u: Columns) -> Columns:
    v = np.maximum(u, LARGE)
    d = v - 2
    return np.stack([v**3 / d, v**2 / d, v * (v - 1) / d, v / d])
