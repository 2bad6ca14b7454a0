"""Crossmembers that tie the rails, as surveyed.

The end's fixity (1 welded solid, 0 a pin) is a Nodulant default: nobody measures it, and a
user may change the end's kind to see how much it matters.
"""

from typing import Annotated, Literal, Self

from pydantic import Field, model_validator

from nodulant.base.errors import InputError
from nodulant.base.model import Coordinate, Frozen, Id, Name, Size, Thickness
from nodulant.units.inline import as_length, as_thickness

EndKind = Literal["riveted", "riveted-flanges", "welded", "gusseted"]
END_FIXITY: dict[EndKind, float] = {"riveted": 0.4, "riveted-flanges": 0.6, "welded": 0.8, "gusseted": 1.0}
WARPING_FIXITY: dict[EndKind, float] = {"riveted": 0.1, "riveted-flanges": 0.5, "welded": 0.8, "gusseted": 0.9}
"""How far a joint keeps an open rail's flanges from warping, 0 not at all, 1 altogether (Nodulant default)."""


class Crossmember(Frozen):
    """One crossmember at a station: profile sizes, mm, and how its ends are joined to the rails."""

    id: Id
    name: Name
    x_mm: Coordinate
    profile: Literal["tube", "box", "channel"] = "channel"
    height_mm: Size
    width_mm: Size
    wall_mm: Thickness
    end: EndKind = "riveted"
    """Riveted through the web only, through web and flanges, welded all round, or welded with gussets."""
    up_mm: Coordinate | None = None
    """Its middle above the rails' underside; None where nobody measured it: it is then no body in the sweep."""
    warping_fixity: Annotated[float, Field(ge=0, le=0.99)] | None = None
    """How far its joint keeps an open rail from warping, where the kind of its end says it badly."""

    @model_validator(mode="after")
    def _wall_fits(self) -> Self:
        wall_fits(self.profile, self.height_mm, self.width_mm, self.wall_mm)
        return self


def spoken(name: str) -> str:
    """A crossmember in a sentence: 'nose' is the nose crossmember."""
    return name if "crossmember" in name.lower() else f"{name} crossmember"


def warping_fixity(crossmember: Crossmember) -> float:
    """How far a crossmember's joint keeps an open rail from warping."""
    own = crossmember.warping_fixity
    return WARPING_FIXITY[crossmember.end] if own is None else own


def wall_fits(profile: str, height_mm: float, width_mm: float, wall_mm: float) -> None:
    """Refuse a wall that fills its profile; raises InputError at ``wall_mm``."""
    least = height_mm if profile == "tube" else min(height_mm, width_mm)
    if 2 * wall_mm >= least:
        raise InputError(
            "the wall fills the crossmember",
            field="wall_mm",
            found=as_thickness(wall_mm),
            acceptable=f"less than {as_length(least / 2)}",
        )
