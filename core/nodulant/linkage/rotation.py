"""Rotations of many poses at once, shapes (poses, 3, 3), angles in radians.

R = Rz(psi) Rx(phi) Ry(theta): psi steers left about +z, phi lifts the right end of an axle,
theta turns what points forward upward. Sums are written out element by element, so that a
pose's bits do not depend on how many others are solved with it.
"""

import numpy as np

from nodulant.base.arrays import Columns


def turned(psi: Columns, phi: Columns, theta: Columns) -> Columns:
    """R of the three angles, each of shape (poses,)."""
    a, b, c = np.cos(psi), np.cos(phi), np.cos(theta)
    d, e, f = np.sin(psi), np.sin(phi), np.sin(theta)
    rows = (
        (a * c - d * e * f, -d * b, a * f + d * e * c),
        (d * c + a * e * f, a * b, d * f - a * e * c),
        (-b * f, e, b * c),
    )
    return np.stack([np.stack(row, axis=-1) for row in rows], axis=-2)


def angles(rotation: Columns) -> tuple[Columns, Columns, Columns]:
    """psi, phi and theta of R."""
    phi = np.arcsin(np.clip(rotation[:, 2, 1], -1.0, 1.0))
    psi = np.arctan2(-rotation[:, 0, 1], rotation[:, 1, 1])
    theta = np.arctan2(-rotation[:, 2, 0], rotation[:, 2, 2])
    return psi, phi, theta


def exponential(omega: Columns) -> Columns:
    """Rotation by the vector ``omega`` (poses, 3), by Rodrigues' formula."""
    angle = np.sqrt((omega * omega).sum(axis=-1))
    small = angle < 1e-8
    safe = np.where(small, 1.0, angle)
    s, c = np.where(small, 1.0, np.sin(safe) / safe), np.where(small, 0.5, (1 - np.cos(safe)) / safe**2)
    x, y, z = omega[:, 0], omega[:, 1], omega[:, 2]
    rows = (
        (1 - c * (y * y + z * z), c * x * y - s * z, c * x * z + s * y),
        (c * x * y + s * z, 1 - c * (x * x + z * z), c * y * z - s * x),
        (c * x * z - s * y, c * y * z + s * x, 1 - c * (x * x + y * y)),
    )
    return np.stack([np.stack(row, axis=-1) for row in rows], axis=-2)


def rotated(rotation: Columns, points: Columns) -> Columns:
    """R p of every pose and point: (poses, 3, 3) with (points, 3) or (poses, points, 3) gives (poses, points, 3)."""
    p = points if points.ndim == 3 else points[None]
    r = rotation[:, None]
    out: Columns = r[..., 0] * p[..., 0:1] + r[..., 1] * p[..., 1:2] + r[..., 2] * p[..., 2:3]
    return out


def composed(a: Columns, b: Columns) -> Columns:
    """A B of every pose."""
    out: Columns = a[:, :, 0:1] * b[:, 0:1] + a[:, :, 1:2] * b[:, 1:2] + a[:, :, 2:3] * b[:, 2:3]
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
