"""Rotations of many poses at once, shapes (poses, 3, 3), angles in radians.

R = Rz(psi) Rx(phi) Ry(theta): psi steers left about +z, phi lifts the right end of an axle,
theta turns what points forward upward. Sums are written out element by element, so that a
pose's bits do not depend on how many others are solved with it.
"""

import numpy as np

from nodulant.base.arrays import Columns

_Row = tuple[Columns, Columns, Columns]


def _matrices(rows: tuple[_Row, _Row, _Row]) -> Columns:
    """Nine columns of shape (poses,) as (poses, 3, 3)."""
    out = np.empty((len(rows[0][0]), 3, 3))
    for i, row in enumerate(rows):
        for j, column in enumerate(row):
            out[:, i, j] = column
    return out


def turned(psi: Columns, phi: Columns, theta: Columns) -> Columns:
    """R of the three angles, each of shape (poses,)."""
    a, b, c = np.cos(psi), np.cos(phi), np.cos(theta)
    d, e, f = np.sin(psi), np.sin(phi), np.sin(theta)
    return _matrices(
        (
            (a * c - d * e * f, -d * b, a * f + d * e * c),
            (d * c + a * e * f, a * b, d * f - a * e * c),
            (-b * f, e, b * c),
        )
    )


def angles(rotation: Columns) -> tuple[Columns, Columns, Columns]:
    """psi, phi and theta of R."""
    phi = np.arcsin(np.clip(rotation[:, 2, 1], -1.0, 1.0))
    psi = np.arctan2(-rotation[:, 0, 1], rotation[:, 1, 1])
    theta = np.arctan2(-rotation[:, 2, 0], rotation[:, 2, 2])
    return psi, phi, theta


def exponential(omega: Columns) -> Columns:
    """Rotation by the vector ``omega`` (poses, 3), by Rodrigues' formula."""
    x, y, z = omega[:, 0].copy(), omega[:, 1].copy(), omega[:, 2].copy()
    xx, yy, zz = x * x, y * y, z * z
    angle = np.sqrt(xx + yy + zz)
    small = angle < 1e-8
    safe = np.where(small, 1.0, angle)
    s, c = np.where(small, 1.0, np.sin(safe) / safe), np.where(small, 0.5, (1 - np.cos(safe)) / safe**2)
    cxy, cxz, cyz = c * x * y, c * x * z, c * y * z
    sx, sy, sz = s * x, s * y, s * z
    return _matrices(
        (
            (1 - c * (yy + zz), cxy - sz, cxz + sy),
            (cxy + sz, 1 - c * (xx + zz), cyz - sx),
            (cxz - sy, cyz + sx, 1 - c * (xx + yy)),
        )
    )


def rotated(rotation: Columns, points: Columns) -> Columns:
    """R p of every pose and point: (poses, 3, 3) with (points, 3) or (poses, points, 3) gives (poses, points, 3)."""
    x, y, z = points[..., 0], points[..., 1], points[..., 2]
    out = np.empty((len(rotation), points.shape[-2], 3))
    by_entry = np.ascontiguousarray(rotation.reshape(-1, 9).T)[..., None]
    for i in range(3):
        own = by_entry[3 * i] * x
        own += by_entry[3 * i + 1] * y
        own += by_entry[3 * i + 2] * z
        out[..., i] = own
    return out


def composed(a: Columns, b: Columns) -> Columns:
    """A B of every pose."""
    out = np.empty_like(a)
    p, q = (np.ascontiguousarray(m.reshape(-1, 9).T) for m in (a, b))
    for i in range(3):
        for j in range(3):
            out[:, i, j] = p[3 * i] * q[j] + p[3 * i + 1] * q[3 + j] + p[3 * i + 2] * q[6 + j]
    return out


def rotation_vector(rotation: Columns) -> Columns:
    """The vector whose rotation is R, shape (poses, 3); angles below pi."""
    cos = np.clip((rotation[:, 0, 0] + rotation[:, 1, 1] + rotation[:, 2, 2] - 1) / 2, -1.0, 1.0)
    angle = np.arccos(cos)
    sin = np.sin(angle)
    factor = np.where(sin < 1e-9, 0.5, angle / (2 * np.where(sin < 1e-9, 1.0, sin)))
    skew = np.stack(
        [
            rotation[:, 2, 1] - rotation[:, 1, 2],
            rotation[:, 0, 2] - rotation[:, 2, 0],
            rotation[:, 1, 0] - rotation[:, 0, 1],
        ],
        axis=-1,
    )
    out: Columns = factor[:, None] * skew
    return out
