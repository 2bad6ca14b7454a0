"""A surveyed rail at many stations at once."""

from dataclasses import dataclass
from itertools import pairwise

import numpy as np

from nodulant.base.arrays import Columns
from nodulant.materials import Steel, find_steel
from nodulant.survey.rail import Rail


@dataclass(frozen=True)
class RailColumns:
    """Interpolated rail: station, underside, height, width and wall, mm, shape (stations,)."""

    x: Columns
    underside: Columns
    height: Columns
    width: Columns
    wall: Columns
    inside_radius: float
    steel: Steel

    @property
    def yields(self) -> tuple[float, float]:
        """Reference and working yield, MPa."""
        return self.steel.yield_reference_mpa, self.steel.yield_mpa


def rail_columns(rail: Rail, x: Columns) -> RailColumns:
    """Interpolate ``rail`` linearly at ``x``; every wall must have been measured."""
    at = np.array([s.x_mm for s in rail.stations])

    def column(field: str) -> Columns:
        values: Columns = np.interp(x, at, np.array([getattr(s, field) for s in rail.stations], dtype=float))
        return values

    steel = find_steel(rail.steel_id)
    return RailColumns(
        x,
        column("underside_z_mm"),
        column("height_mm"),
        column("width_mm"),
        column("wall_mm"),
        rail.inside_radius_mm,
        steel,
    )


def rail_at(rail: Rail, x_mm: float) -> tuple[float, float, float, float]:
    """Underside, height, width and wall at one station, mm."""
    for a, b in pairwise(rail.stations):
        if x_mm <= b.x_mm or b is rail.stations[-1]:
            t = min(max((x_mm - a.x_mm) / (b.x_mm - a.x_mm), 0.0), 1.0)
            return (
                _between(a.underside_z_mm, b.underside_z_mm, t),
                _between(a.height_mm, b.height_mm, t),
                _between(a.width_mm, b.width_mm, t),
                _between(a.wall_mm or 0.0, b.wall_mm or 0.0, t),
            )
    raise AssertionError("a rail has two stations or more")


def _between(a: float, b: float, t: float) -> float:
    return a + (b - a) * t
