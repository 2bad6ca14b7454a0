"""A wheel: its rim's width and where its mounting face lies; lengths mm.

``backspacing = width/2 + lip + offset``: from the inner lip's edge to the mounting face, the width between the bead
seats, offset outward from the rim's middle positive (definitions of the trade, common practice).
"""

from typing import Annotated, Self

from pydantic import Field, model_validator

from nodulant.base.errors import InputError
from nodulant.base.model import Extra, Frozen, Size
from nodulant.parts.tyre import Tyre
from nodulant.units.show import MM_PER_INCH

GROWS_MM_PER_HALF_INCH = 5.0
"""A tyre's section per half inch of rim width (from memory, common practice)."""
SHARES = ((0.72, 0.70), (0.57, 0.75), (0.47, 0.80), (0.42, 0.85), (0.0, 0.90))
"""From which section height over width on, which share of the width the measuring rim has (from memory; half inches)."""
Face = Annotated[float, Field(ge=-250, le=250)]


class Wheel(Frozen):
    """Rim width between the bead seats, and offset or backspacing: the other one follows."""

    rim_width_mm: Size = 165.1
    offset_mm: Face | None = None
    """Mounting face outside the rim's middle is positive: the more, the further in the tyre stands."""
    backspacing_mm: Face | None = None
    """From the inner lip's edge to the mounting face."""
    lip_mm: Extra = 12.7
    """Of each flange beyond its bead seat."""

    @model_validator(mode="after")
    def _one_of_both(self) -> Self:
        if (self.offset_mm is None) == (self.backspacing_mm is None):
            found = "neither" if self.offset_mm is None else "both"
            raise InputError(
                "a wheel has its offset or its backspacing; the other one follows",
                field="offset_mm",
                found=found,
                acceptable="one of the two",
            )
        return self

    @property
    def face_mm(self) -> float:
        """Offset: the mounting face outside the rim's middle."""
        if self.offset_mm is not None:
            return self.offset_mm
        return (self.backspacing_mm or 0.0) - self.rim_width_mm / 2 - self.lip_mm

    @property
    def back_mm(self) -> float:
        """Backspacing."""
        return self.face_mm + self.rim_width_mm / 2 + self.lip_mm

    def moved_in(self, by_mm: float) -> "Wheel":
        """The same rim with its face so much further out: the tyre stands so much further in."""
        return Wheel(rim_width_mm=self.rim_width_mm, offset_mm=self.face_mm + by_mm, lip_mm=self.lip_mm)


def measuring_rim_mm(tyre: Tyre) -> float:
    """Rim width that a tyre's size is given on, to half an inch; an estimate from its proportions."""
    high = (tyre.free_diameter_mm - tyre.rim_mm) / 2 / tyre.section_width_mm
    share = next(s for least, s in SHARES if high >= least)
    half = MM_PER_INCH / 2
    return round(share * tyre.section_width_mm / half) * half


def section_on(tyre: Tyre, wheel: Wheel | None) -> float:
    """Section width of a tyre on a wheel, mm; the size's own where the wheel is not known."""
    if wheel is None:
        return tyre.section_width_mm
    wider = wheel.rim_width_mm - measuring_rim_mm(tyre)
    return tyre.section_width_mm + GROWS_MM_PER_HALF_INCH * wider / (MM_PER_INCH / 2)


def on_wheel(tyre: Tyre, wheel: Wheel | None) -> Tyre:
    """The tyre as wide as it is on its wheel."""
    return tyre.model_copy(update={"section_width_mm": section_on(tyre, wheel)})
