"""Rails as surveyed: stations with height, width and wall.

Axes: x rearward from the front axle centreline, z up from the frame datum plane, y across.
A channel's web stands outboard (``opens`` inward) or inboard (outward).
"""

from itertools import pairwise
from typing import Annotated, Literal, Self

from pydantic import Field, model_validator

from nodulant.base.errors import InputError
from nodulant.base.model import Coordinate, Extra, Frozen, Thickness
from nodulant.materials.carbon import Analysis

RailSize = Annotated[float, Field(ge=20, le=600)]


class Station(Frozen):
    """One measured cross-section: underside height z, rail height, flange width and wall, mm."""

    x_mm: Coordinate
    underside_z_mm: Coordinate
    height_mm: RailSize
    width_mm: RailSize
    wall_mm: Thickness | None = None
    rust_loss_mm: Extra = 0.0
    """Wall lost to rust as measured; stock is reckoned with the sound wall, everything else without it."""

    @model_validator(mode="after")
    def _wall_fits(self) -> Self:
        if self.wall_mm is not None and self.wall_mm > min(self.height_mm, self.width_mm) / 4:
            raise InputError(
                "the wall is too thick for this rail",
                field="wall_mm",
                found=f"{self.wall_mm:g}",
                acceptable="at most a quarter of height and width",
            )
        if self.rust_loss_mm > 0 and self.rust_loss_mm >= (self.wall_mm or 0.0):
            raise InputError(
                "rust has not taken more than the wall",
                field="rust_loss_mm",
                found=f"{self.rust_loss_mm:g}",
                acceptable=f"less than {self.wall_mm or 0:g}, or cut the rail back to sound metal",
            )
        return self


RailKind = Literal["channel", "lipped-channel", "rect-tube", "round-tube", "top-hat", "two-skin"]


class Rail(Frozen):
    """A rail of one side: its section kind, and its stations in order from front to rear.

    A lipped channel's lips turn towards each other or apart; a top-hat opens upward, its lips
    turn outward, and a floor of ``second_wall_mm`` may close it; a two-skin rail is a channel
    closed by a skin of ``second_wall_mm``. A round tube's height is its diameter.
    """

    kind: RailKind = "channel"
    opens: Literal["inward", "outward"] = "inward"
    web_y_mm: Coordinate = 400.0
    """Distance of the web's outer face from the centre plane."""
    inside_radius_mm: Extra = 0.0
    lip_mm: Extra = 0.0
    """Depth of a lip, outside, for a lipped channel and a top-hat."""
    lips: Literal["inward", "outward"] = "inward"
    second_wall_mm: Thickness | None = None
    steel_id: str = "unknown"
    analysis: Analysis | None = None
    """Its chemistry where a certificate or a spectrometer says it."""
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

    @model_validator(mode="after")
    def _kind_is_whole(self) -> Self:
        if self.kind == "two-skin" and self.second_wall_mm is None:
            raise InputError(
                "a two-skin rail has a second skin", field="second_wall_mm", found="nothing", acceptable="a thickness"
            )
        if self.kind in {"lipped-channel", "top-hat"} and self.lip_mm <= 0:
            raise InputError("this rail has lips", field="lip_mm", found="0", acceptable="their depth")
        return self

    @property
    def closed(self) -> bool:
        """Whether the rail is a closed box by itself."""
        return self.kind in {"rect-tube", "round-tube", "two-skin"} or (
            self.kind == "top-hat" and self.second_wall_mm is not None
        )

    @property
    def start_mm(self) -> float:
        """Station of the rail's front end."""
        return self.stations[0].x_mm

    @property
    def end_mm(self) -> float:
        """Station of the rail's rear end."""
        return self.stations[-1].x_mm
