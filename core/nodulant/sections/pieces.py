"""Pieces of a cross-section, one batch for all stations.

Section axes: y across the rail from the web's outer face towards the open side, z up from
the rail's underside, mm. A piece is a polygon per station of which only the metal between
``low`` and ``high`` exists, so a horizontal cut needs no polygon clipping. ``share`` is the
developed share (a plate that the welds have not yet loaded); ``credit`` is the part of its
width that works (a curved liner). Both scale area; only ``share`` scales its stress.
"""

from dataclasses import dataclass, replace

import numpy as np

from nodulant.base.arrays import Columns, Rows

ARC_STEPS = 10
"""Chords per quarter turn of a corner: 0.4 % of the corner's own area, under 0.06 % of a rail's."""


@dataclass(frozen=True)
class Piece:
    """Polygon (stations, corners) in y and z with what of it exists and works."""

    name: str
    y: Columns
    z: Columns
    low: Columns
    high: Columns
    share: Columns
    credit: Columns
    yield_reference_mpa: float
    yield_mpa: float
    sign: float = 1.0
    strain: Columns | None = None
    """Stress over that of the rail's axis at its height: below 1 where it slopes. None for 1."""
    upright: bool = False
    """A rectangle with its sides along the axes, corners in the order of ``rectangle``."""

    def rows(self, at: Rows) -> "Piece":
        """The same at some of the stations."""
        own = {name: getattr(self, name) for name in ("y", "z", "low", "high", "share", "credit", "strain")}
        return replace(self, **{name: column[at] for name, column in own.items() if column is not None})


@dataclass(frozen=True)
class Integrals:
    """Area mm2, first moments mm3, second moments mm4 about the section axes; extremes of z and y, mm."""

    area: Columns
    q_y: Columns
    q_z: Columns
    i_y: Columns
    i_z: Columns
    i_yz: Columns
    z_low: Columns
    z_high: Columns
    y_low: Columns
    y_high: Columns


def integrate(piece: Piece) -> Integrals:
    """Exact Green integrals of the metal between ``low`` and ``high``.

    Written as contour integrals in dz, in which horizontal edges vanish, so clamping each
    edge to the band is the exact clip. Along a straight edge y and z are uniform about their
    middles: means, variances and covariance give the cubic integrands exactly.
    """
    if piece.upright:
        return _integrate_rectangle(piece)
    y0, z0 = piece.y, piece.z
    clamped = np.minimum(np.maximum(z0, piece.low[:, None]), np.maximum(piece.high, piece.low)[:, None])
    rise, span = _next(z0) - z0, _next(clamped) - clamped
    slope = (_next(y0) - y0) / np.where(np.abs(rise) > 1e-12, rise, np.inf)
    z = clamped + span / 2
    y = y0 + (z - z0) * slope
    var_z = span * span / 12
    cov = slope * var_z
    var_y = slope * cov
    yz, yy = y * z + cov, y * y + var_y

    def along(integrand: Columns) -> Columns:
        return np.asarray(np.einsum("ij,ij->i", span, integrand))

    return Integrals(
        along(y),
        along(yz),
        along(yy) / 2,
        along((yz + cov) * z + y * var_z),
        along(y * (yy + 2 * var_y)) / 3,
        along(yy * z + 2 * y * cov) / 2,
        clamped.min(axis=1),
        clamped.max(axis=1),
        y0.min(axis=1),
        y0.max(axis=1),
    )


def _next(corners: Columns) -> Columns:
    """Each corner's next one round the polygon."""
    return np.concatenate([corners[:, 1:], corners[:, :1]], axis=1)


def _integrate_rectangle(piece: Piece) -> Integrals:
    y0, y1, z0, z1 = piece.y[:, 0], piece.y[:, 1], piece.low, piece.high
    b, h = y1 - y0, z1 - z0
    area, y, z = b * h, (y0 + y1) / 2, (z0 + z1) / 2
    return Integrals(
        area,
        area * z,
        area * y,
        area * (h * h / 12 + z * z),
        area * (b * b / 12 + y * y),
        area * y * z,
        z0,
        z1,
        np.minimum(y0, y1),
        np.maximum(y0, y1),
    )


def rectangle(
    name: str,
    y0: Columns,
    y1: Columns,
    z0: Columns,
    z1: Columns,
    share: Columns,
    credit: Columns,
    yields: tuple[float, float],
    sign: float = 1.0,
    strain: Columns | None = None,
) -> Piece:
    """A piece with its sides along the axes; empty where z1 <= z0."""
    high = np.maximum(z0, z1)
    y = np.stack([y0, y1, y1, y0], axis=1)
    z = np.stack([z0, z0, high, high], axis=1)
    return Piece(name, y, z, z0, high, share, credit, yields[0], yields[1], sign, strain, upright=True)


def channel_corners(height: Columns, width: Columns, wall: Columns, inside_radius: float) -> tuple[Columns, Columns]:
    """Corners (stations, corners) of a channel with its web at y = 0, open towards +y."""
    inner = np.minimum(inside_radius, np.minimum(width, height / 2) - wall)
    outer = np.where(inner > 0, inner + wall, 0.0)
    zero = np.zeros_like(height)
    return _corners(
        (
            (zero, zero, outer, 180.0, 270.0, 1),
            (width, zero, zero, 0.0, 0.0, 1),
            (width, wall, zero, 0.0, 0.0, 1),
            (wall, wall, inner, 270.0, 180.0, 1),
            (wall, height - wall, inner, 180.0, 90.0, 1),
            (width, height - wall, zero, 0.0, 0.0, 1),
            (width, height, zero, 0.0, 0.0, 1),
            (zero, height, outer, 90.0, 180.0, 1),
        ),
        rounded=inside_radius > 0,
    )


def rounded(y: tuple[Columns, Columns], z: tuple[Columns, Columns], radius: Columns) -> tuple[Columns, Columns]:
    """Corners (stations, corners) of an upright rectangle with rounded corners, counter-clockwise."""
    return _corners(
        (
            (y[0], z[0], radius, 180.0, 270.0, 1),
            (y[1], z[0], radius, 270.0, 360.0, 1),
            (y[1], z[1], radius, 0.0, 90.0, 1),
            (y[0], z[1], radius, 90.0, 180.0, 1),
        ),
        rounded=True,
    )


_Corner = tuple[Columns, Columns, Columns, float, float, int]


def _corners(corners: tuple[_Corner, ...], rounded: bool) -> tuple[Columns, Columns]:
    ys, zs = [], []
    for y, z, radius, start, end, _ in corners:
        if not rounded or start == end:
            ys.append(y)
            zs.append(z)
            continue
        middle = np.radians((start + end) / 2)
        centre_y, centre_z = y - radius * np.sign(np.cos(middle)), z - radius * np.sign(np.sin(middle))
        for turn in np.radians(np.linspace(start, end, ARC_STEPS + 1)):
            ys.append(centre_y + radius * np.cos(turn))
            zs.append(centre_z + radius * np.sin(turn))
    return np.stack(ys, axis=1), np.stack(zs, axis=1)
