"""Rotations of many poses at once, shapes (poses, 3, 3), angles in radians.

R = Rz(psi) Rx(phi) Ry(theta): psi steers left about +z, phi lifts the right end of an axle,
theta turns what points forward upward. Every pose is its own 3 x 3 product, so that its bits do
not depend on how many others are solved with it.
"""

import numpy as np

from nodulant.base.arrays import Columns, dot


def angles(rotation: Columns) -> tuple[Columns, Columns, Columns]:
    """psi, phi and theta of R."""
    phi = np.arcsin(np.clip(rotation[:, 2, 1], -1.0, 1.0))
    psi = np.arctan2(-rotation[:, 0, 1], rotation[:, 1, 1])
    theta = np.arctan2(-rotation[:, 2, 0], rotation[:, 2, 2])
    return psi, phi, theta


def exponential(omega: Columns) -> Columns:
    """Rotation by the vector ``omega`` (poses, 3), by Rodrigues' formula: I + K sin a / a + K K (1 - cos a) / a^2."""
    k, whole, once, _ = _series(omega)
    return np.asarray(_UNIT + whole * k + once * (k @ k))


def screw(v: Columns, omega: Columns) -> tuple[Columns, Columns]:
    """How far an origin goes, (poses, 3), and how its body turns, (poses, 3, 3), at the twist (v, omega) for unit time.

    The exponential of a rigid motion, along the screw of the twist: v + K v (1 - cos a) / a^2 + K K v (a - sin a) / a^3.
    The last factor loses its digits in small angles, but K K v has none to tell then.
    """
    k, whole, once, twice = _series(omega)
    sideways = k @ v[..., None]
    shift = v + (once * sideways + twice * (k @ sideways))[..., 0]
    return shift, np.asarray(_UNIT + whole * k + once * (k @ k))


def _series(omega: Columns) -> tuple[Columns, Columns, Columns, Columns]:
    """K, sin a / a, (1 - cos a) / a^2 and (a - sin a) / a^3."""
    angle = np.maximum(np.sqrt(dot(omega, omega)), LEAST)[:, None, None]
    half, whole = np.sin(angle / 2) / angle, np.sin(angle) / angle
    return (omega @ _SKEW).reshape(-1, 3, 3), whole, 2 * half * half, (1 - whole) / (angle * angle)


LEAST = 1e-12
"""Radians; sin a / a is 1 to the last bit below it."""
_UNIT = np.eye(3)
_SKEW = np.array(
    [[0, 0, 0, 0, 0, -1, 0, 1, 0], [0, 0, 1, 0, 0, 0, -1, 0, 0], [0, -1, 0, 1, 0, 0, 0, 0, 0]], dtype=float
)
"""omega times this is K, row by row: K p = omega x p."""


def rotated(rotation: Columns, points: Columns) -> Columns:
    """R p of every pose and point: (poses, 3, 3) with (points, 3) or (poses, points, 3) gives (poses, points, 3)."""
    return np.asarray(points @ rotation.transpose(0, 2, 1))


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
