"""The polygons of a rail by its section kind, with what a cut from below and from above leaves.

Axes as in ``sections.pieces``: y across from the web's outer face, z up from the underside.
"""

import numpy as np

from nodulant.base.arrays import Columns
from nodulant.frame.columns import RailColumns
from nodulant.sections import pieces as shapes
from nodulant.sections.pieces import Piece


def rail_pieces(rail: RailColumns, cut: Columns, cut_top: Columns) -> list[Piece]:
    """What is left of the rail's own metal between the two cuts."""
    band = (cut, np.maximum(rail.height - cut_top, cut))
    if rail.round:
        return _round(rail, band)
    if rail.kind == "rect-tube" and rail.inside_radius > 0:
        return _rounded_box(rail, band)
    if rail.kind == "top-hat":
        return _top_hat(rail, band)
    one = np.ones_like(rail.height)
    channel = Piece("rail", *rail.channel_corners, *band, one, one, *rail.yields)
    return [channel, *_beside_the_channel(rail, band)]


_Band = tuple[Columns, Columns]


def _upright(
    rail: RailColumns, name: str, y: tuple[Columns, Columns], z: tuple[Columns, Columns], band: _Band
) -> Piece:
    """A rectangle of rail metal, clipped to the band where it lies inside the rail's height."""
    one = np.ones_like(rail.height)
    low, high = np.maximum(z[0], np.minimum(band[0], z[1])), np.minimum(z[1], np.maximum(band[1], z[0]))
    return shapes.rectangle(name, y[0], y[1], low, high, one, one, rail.yields)


def _beside_the_channel(rail: RailColumns, band: _Band) -> list[Piece]:
    h, b, t = rail.height, rail.width, rail.wall
    if rail.kind == "rect-tube":
        return [_upright(rail, "rail", (b - t, b), (t, h - t), band)]
    if rail.kind == "two-skin":
        return [_upright(rail, "rail", (b, b + rail.second), (0 * h, h), band)]
    if rail.kind == "lipped-channel":
        lip = rail.lip
        inward = ((t, 0 * h + lip), (h - lip, h - t))
        apart = ((t - lip, 0 * h), (h, h + lip - t))
        return [_lip(rail, z, band) for z in (inward if rail.lips == "inward" else apart)]
    return []


def _lip(rail: RailColumns, z: tuple[Columns, Columns], band: _Band) -> Piece:
    """A lip goes with the flange that carries it."""
    b, t = rail.width, rail.wall
    low_side = float(z[0].mean()) < float(rail.height.mean()) / 2
    gone = band[0] > t if low_side else band[1] < rail.height - t
    low, high = np.maximum(z[0], 0.0) if low_side and rail.lips == "inward" else z[0], z[1]
    low = np.where(gone, high, low)
    one = np.ones_like(b)
    return shapes.rectangle("rail", b - t, b, low, high, one, one, rail.yields)


def _top_hat(rail: RailColumns, band: _Band) -> list[Piece]:
    h, b, t, lip = rail.height, rail.width, rail.wall, rail.lip
    none = 0 * h
    out = [
        _upright(rail, "rail", (none, b), (none, t), band),
        _upright(rail, "rail", (none, t), (t, h), band),
        _upright(rail, "rail", (b - t, b), (t, h), band),
        _upright(rail, "rail", (none - lip, none), (h - t, h), band),
        _upright(rail, "rail", (b, b + lip), (h - t, h), band),
    ]
    if rail.second > 0:
        floor = (none - lip, b + lip), (h, h + rail.second)
        one = np.ones_like(h)
        out.append(shapes.rectangle("rail", *floor[0], *floor[1], one, one, rail.yields))
    return out


CIRCLE = 48
"""Sides of the polygon that stands for a circle; it has the circle's area."""


def _round(rail: RailColumns, band: _Band) -> list[Piece]:
    r = rail.height / 2
    inner = r - rail.wall
    return [_disc(rail, r, r, band, 1.0), _disc(rail, r, inner, band, -1.0)]


def _disc(rail: RailColumns, centre: Columns, radius: Columns, band: _Band, sign: float) -> Piece:
    turn = 2 * np.pi * (np.arange(CIRCLE) + 0.5) / CIRCLE
    same_area = np.sqrt(2 * np.pi / (CIRCLE * np.sin(2 * np.pi / CIRCLE)))
    y = centre[:, None] + (radius * same_area)[:, None] * np.cos(turn)
    z = centre[:, None] + (radius * same_area)[:, None] * np.sin(turn)
    one = np.ones_like(radius)
    return Piece("rail", y, z, band[0], band[1], one, one, *rail.yields, sign=sign)


def _rounded_box(rail: RailColumns, band: _Band) -> list[Piece]:
    one, (outside, inside) = np.ones_like(rail.height), rail.rounded_box
    return [
        Piece("rail", *outside, band[0], band[1], one, one, *rail.yields),
        Piece("rail", *inside, band[0], band[1], one, one, *rail.yields, sign=-1.0),
    ]
