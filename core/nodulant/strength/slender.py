"""Slenderness of the walls that stand in compression.

Class 3 limits of EN 1993-1-1 table 5.2 (from memory), e = sqrt(235/f_y): outstand flange 14 e,
flange between two webs 42 e, web in bending 124 e, a round tube's diameter over its wall 90 e^2. A wall inside them reaches yield before it
buckles. A plate that was added shall reach yield in shear too: its height over its thickness stays
below 31 e sqrt(k) (EN 1993-1-5 5.1, from memory), k = 5.34 + 4 (h/a)^2 for a field of length a and height h,
4 + 5.34 (h/a)^2 where it is shorter than high (annex A.3); welds across its ends shorten the field.
"""

from dataclasses import dataclass

import numpy as np

from nodulant.base.arrays import Columns
from nodulant.frame.layout import Layout

OUTSTAND, BETWEEN, WEB, SHEAR, TUBE = 14.0, 42.0, 124.0, 31.0, 90.0


@dataclass(frozen=True)
class Slender:
    """A wall of a rail, or a plate on it, against its limit."""

    ratio: float
    wall: str
    station_mm: float
    slenderness: float
    limit: float


def slenders(layout: Layout) -> dict[str, Slender]:
    """Every wall of the rail and every plate by its name, at its worst station."""
    rail = layout.rail
    e = float(np.sqrt(235.0 / rail.yields[1]))
    face, boxed = layout.closing_plane
    held = (boxed > 0) | rail.closed
    web = np.maximum(layout.crown - layout.cut, 0.0)
    upright, across = layout.patched("patch", rail.wall, web), layout.patched("patch-bottom", rail.wall, rail.width)
    across = np.minimum(across, layout.patched("patch-top", rail.wall, rail.width))
    flange_limit = np.where(held, BETWEEN, OUTSTAND) * e
    flange = (rail.width - rail.wall * (1 + held)) / across
    rows: list[tuple[str, Columns, Columns]] = (
        [("tube", rail.height / rail.wall, np.full_like(web, TUBE * e * e))]
        if rail.round
        else [("web", web / upright, np.full_like(web, WEB * e)), ("flange", flange, flange_limit)]
    )
    for plate in layout.plates:
        local, name = float(np.sqrt(235.0 / plate.steel.yield_mpa)), plate.role.replace("-", " ")
        there = plate.share > 0
        if plate.lie.upright and not plate.lie.box and not plate.lie.let_in:
            tall = np.where(there, layout.strips(plate)[0].height, 0.0)
            label = "boxing plate" if plate.lie.on == "closing" else f"{name} plate"
            long = float(np.ptp(rail.x[there])) if there.any() else 0.0
            rows.append((label, tall / plate.thickness_mm, SHEAR * local * np.sqrt(shear_factor(tall, long))))
        if plate.lie.box:
            side = np.where(there, layout.strips(plate)[0].height, 0.0)
            rows.append((f"{name}'s sides", side / plate.thickness_mm, np.full_like(web, BETWEEN * local)))
        if plate.lie.box or (plate.lie.on in {"cut-below", "cut-above"} and held.any()):
            wide = np.where(there & (held | plate.lie.box), (face - 2 * rail.wall) / plate.thickness_mm, 0.0)
            rows.append((name, wide, np.full_like(web, BETWEEN * local)))
    out: dict[str, Slender] = {}
    for name, value, limit in rows:
        k = int(np.argmax(value / limit))
        found = Slender(float((value / limit)[k]), name, float(rail.x[k]), float(value[k]), float(limit[k]))
        if name not in out or found.ratio > out[name].ratio:
            out[name] = found
    return out


def shear_factor(tall: Columns, long_mm: float) -> Columns:
    """Buckling factor in shear of a field ``tall`` high and ``long_mm`` long, held along all four edges; shape (stations,)."""
    long, high = max(long_mm, 1e-6), np.maximum(tall, 1e-6)
    flat = 5.34 + 4.0 * (high / long) ** 2
    upright = 4.0 + 5.34 * (high / long) ** 2
    return np.asarray(np.where(long >= high, flat, upright))
