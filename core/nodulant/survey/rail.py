"""Rails as surveyed: stations with height, width and wall.

Axes: x rearward from the front axle centreline, z up from the frame datum plane, y across.
A channel's web stands outboard (``opens`` inward) or inboard (outward).
"""

from itertools import pairwise
from typing import Annotated, Literal, Self

from pydantic import Field, model_validator

from nodulant.base.errors import InputError
from nodulant.base.model import Coordinate, Extra, Frozen, Thickness

RailSize = Annotated[float, Field(ge=20, le=600)]


class Station(Frozen):
    """One measured cross-section: underside height z, rail height, flange width and wall, mm."""

    x_mm: Coordinate
    underside_z_mm: Coordinate
    height_mm: RailSize
    width_mm: RailSize
    wall_mm: Thickness | None = None

    @model_validator(mode="after")
    def _wall_fits(self) -> Self:
        if self.wall_mm is not None and self.wall_mm > min(self.height_mm, self.width_mm) / 4:
            raise InputError(
                "the wall is too thick for this rail",
                field="wall_mm",
                found=f"{self.wall_mm:g}",
                acceptable="at most a quarter of height and width",
            )
        return self


class Rail(Frozen):
    """A channel rail of one side: its stations in order from front to rear."""

    kind: Literal["channel"] = "channel"
    opens: Literal["inward", "outward"] = "inward"
    web_y_mm: Coordinate = 400.0
    """Distance of the web's outer face from the centre plane."""
    inside_radius_mm: Extra = 0.0
    steel_id: str = "unknown"
    stations: Annotated[tuple[Station, ...], Field(min_length=2, max_length=400)]

    @model_validator(mode="after")
    def _in_order(self) -> Self:
        for number, (a, b) in enumerate(pairwise(self.stations), start=2):
            if b.x_mm <= a.x_mm:
                raise InputError(
                    f"station {number} does not lie behind station {number - 1}",
                    field=f"stations/{number - 1}/x_mm",
                    found=f"{b.x_mm:g}",
                    acceptable=f"more than {a.x_mm:g}",
                )
        return self

    @property
    def closed(self) -> bool:
        """Whether the rail is a closed box by itself."""
        return False

    @property
    def start_mm(self) -> float:
        """Station of the rail's front end."""
        return self.stations[0].x_mm

    @property
    def end_mm(self) -> float:
        """Station of the rail's rear end."""
        return self.stations[-1].x_mm
