"""A surveyed rail at many stations at once."""

from dataclasses import dataclass
from functools import cached_property, lru_cache
from itertools import pairwise
from typing import Literal

import numpy as np

from nodulant.base.arrays import Columns
from nodulant.materials import Steel, find_steel
from nodulant.sections.pieces import channel_corners, rounded
from nodulant.survey.rail import Rail, RailKind


@dataclass(frozen=True)
class RailColumns:
    """Interpolated rail: station, underside, height, width and wall, mm, shape (stations,).

    ``lost`` is what rust has taken of each wall; ``sound`` walls are those before it.
    """

    x: Columns
    underside: Columns
    height: Columns
    width: Columns
    wall: Columns
    inside_radius: float
    steel: Steel
    kind: RailKind = "channel"
    lip: float = 0.0
    lips: Literal["inward", "outward"] = "inward"
    second: float = 0.0
    """Thickness of the second skin or of the floor that closes a top-hat."""
    lost: Columns | None = None

    @cached_property
    def rounded_box(self) -> tuple[tuple[Columns, Columns], tuple[Columns, Columns]]:
        """Corners (y, z) of the outside and of the inside of a rectangular tube with corner radii."""
        h, b, t = self.height, self.width, self.wall
        none, inner = 0 * h, np.minimum(self.inside_radius, np.minimum(b, h) / 2 - t)
        return rounded((none, b), (none, h), inner + t), rounded((t, b - t), (t, h - t), inner)

    @cached_property
    def channel_corners(self) -> tuple[Columns, Columns]:
        """Corners (y, z) of a channel of this size."""
        return channel_corners(self.height, self.width, self.wall, self.inside_radius)

    @property
    def closed(self) -> bool:
        """Whether the rail is a closed box by itself."""
        return self.kind in {"rect-tube", "round-tube", "two-skin"} or (self.kind == "top-hat" and self.second > 0)

    @property
    def round(self) -> bool:
        """Whether the rail is a round tube."""
        return self.kind == "round-tube"

    def width_at(self, level: Columns) -> Columns:
        """Width outside at a height above the underside, mm: a round tube's chord."""
        if not self.round:
            return self.width
        return 2 * np.sqrt(np.maximum(level * (self.height - level), 0.0))

    @property
    def yields(self) -> tuple[float, float]:
        """Reference and working yield, MPa."""
        return self.steel.yield_reference_mpa, self.steel.yield_mpa


def rail_columns(rail: Rail, x: Columns, sound: bool = True) -> RailColumns:
    """Interpolate ``rail`` linearly at ``x``, sound or as rust left it; every wall must have been measured."""
    return _rail_columns(rail, x.tobytes(), sound)


@lru_cache(maxsize=32)
def _rail_columns(rail: Rail, stations: bytes, sound: bool) -> RailColumns:
    x: Columns = np.frombuffer(stations)
    at = np.array([s.x_mm for s in rail.stations])

    def column(field: str) -> Columns:
        values: Columns = np.interp(x, at, np.array([getattr(s, field) for s in rail.stations], dtype=float))
        return values

    lost = column("rust_loss_mm")
    wall = column("wall_mm")
    return RailColumns(
        x,
        column("underside_z_mm"),
        column("height_mm"),
        column("height_mm" if rail.kind == "round-tube" else "width_mm"),
        wall if sound else wall - lost,
        rail.inside_radius_mm,
        find_steel(rail.steel_id),
        rail.kind,
        rail.lip_mm,
        rail.lips,
        rail.second_wall_mm or 0.0,
        lost,
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


def slope_at(rail: Rail, x_mm: float) -> float:
    """Rise of the underside per length rearward at one station; where two stretches meet, the mean of both."""
    slopes = [
        (b.underside_z_mm - a.underside_z_mm) / (b.x_mm - a.x_mm)
        for a, b in pairwise(rail.stations)
        if a.x_mm <= x_mm <= b.x_mm
    ]
    return sum(slopes) / len(slopes) if slopes else 0.0


def _between(a: float, b: float, t: float) -> float:
    return a + (b - a) * t
