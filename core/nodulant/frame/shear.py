"""Shear area and capacity of the upright walls, station by station.

A round tube's shear area is 2 A / pi (EN 1993-1-1, 6.2.6 (3) g, from memory); elsewhere it is
the walls that stand upright.
"""

import numpy as np

from nodulant.base.arrays import Columns
from nodulant.frame.additions import Hole, Plate
from nodulant.frame.columns import RailColumns
from nodulant.frame.layout import Layout, own_closing
from nodulant.sections.torsion import SHEAR_YIELD


def shear(layout: Layout) -> tuple[Columns, Columns]:
    """Shear area, mm2, and its load at shear yield, N; shapes (stations,)."""
    rail = layout.rail
    area = _own(rail, layout.crown - layout.cut)
    through = np.zeros_like(area)
    for hole in layout.holes:
        high = hole_height(layout, hole)
        area = area - (rail.wall + (own_closing(rail) if hole.through else 0.0)) * high
        through = through + high * hole.through
    capacity = area * rail.yields[0]
    for plate in layout.plates:
        for strip in layout.strips(plate):
            if strip.upright:
                gone = 0.0 if plate.lie.box else through
                tall = plate.share * np.maximum(strip.height - gone, 0.0)
                own = _taken_out(rail, plate) * tall
                added = plate.thickness_mm * tall
                area = area + added - own
                capacity = capacity + added * layout.plate_yield(plate) - own * rail.yields[0]
    return area, SHEAR_YIELD * capacity


def _taken_out(rail: RailColumns, plate: Plate) -> Columns:
    """Thickness of the rail's own wall whose place a piece takes, mm; 0 for a plate that lies on it."""
    if not plate.lie.let_in:
        return np.zeros_like(rail.wall)
    return rail.wall if plate.lie.on == "in-web" else own_closing(rail)


def _own(rail: RailColumns, height: Columns) -> Columns:
    if rail.round:
        return 2 * (rail.height - rail.wall) * rail.wall * height / rail.height
    if rail.kind == "two-skin":
        return (rail.wall + rail.second) * height
    return rail.wall * height * (2.0 if rail.kind in {"rect-tube", "top-hat"} else 1.0)


def hole_height(layout: Layout, hole: Hole) -> Columns:
    """Height of the web that a hole takes, mm."""
    half = hole.half(layout.rail.x)
    low = np.clip(hole.height - half, layout.cut, layout.crown)
    return np.asarray(np.clip(hole.height + half, low, layout.crown) - low)
