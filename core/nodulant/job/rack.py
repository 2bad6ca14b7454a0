"""What stands in the shop's rack: sheets that are sold, offcuts with their true outline, and how metal is parted."""

from typing import Annotated, Self

from pydantic import Field, model_validator
from shapely import Polygon

from nodulant.base.errors import InputError
from nodulant.base.model import Frozen, Id, Name, Thickness
from nodulant.units.show import MM_PER_INCH, Style

SheetSide = Annotated[float, Field(ge=50, le=20_000)]
Across = Annotated[float, Field(ge=-20_000, le=20_000)]


class Sheet(Frozen):
    """A sheet as it is sold, mm; of every thickness where none is named."""

    long_mm: SheetSide
    wide_mm: SheetSide
    thickness_mm: Thickness | None = None
    price: Annotated[float, Field(ge=0, le=1e6)] | None = None
    """Of one, in the shop's currency."""


class Corner(Frozen):
    """How far along and across, mm."""

    along_mm: Across
    across_mm: Across


class Offcut(Frozen):
    """A piece left over: its corners in order, mm, as it lies on the bench."""

    id: Id
    name: Name
    thickness_mm: Thickness
    steel_id: Id = "mild"
    corners: Annotated[tuple[Corner, ...], Field(min_length=3, max_length=60)]

    @model_validator(mode="after")
    def _closed_once(self) -> Self:
        drawn = self.shape()
        if not drawn.is_valid or drawn.area < 1.0:
            raise InputError(
                "an offcut's lines cross, or hold no metal between them",
                field="corners",
                found=f"{len(self.corners)} corners",
                acceptable="its corners one after the other, once round",
            )
        return self

    def shape(self) -> Polygon:
        """Its outline, mm."""
        return Polygon([(c.along_mm, c.across_mm) for c in self.corners])


def corners_of(long_mm: float, wide_mm: float) -> tuple[Corner, ...]:
    """Of a rectangle from its lower left."""
    around = ((0.0, 0.0), (long_mm, 0.0), (long_mm, wide_mm), (0.0, wide_mm))
    return tuple(Corner(along_mm=x, across_mm=y) for x, y in around)


class RackTube(Frozen):
    """A length of round tube or bar in the rack, mm."""

    od_mm: Annotated[float, Field(gt=3, le=400)]
    wall_mm: Thickness
    long_mm: Annotated[float, Field(ge=10, le=20_000)]
    steel_id: Id = "mild"


Price = Annotated[float, Field(ge=0, le=1e6)]


class Prices(Frozen):
    """What the shop pays, in its currency: metal and wire by the kilogram, gas by the cubic metre, the rest by the piece or m2."""

    tube_kg: Price | None = None
    bolt: Price | None = None
    wire_kg: Price | None = None
    gas_m3: Price | None = None
    primer_m2: Price | None = None
    disc: Price | None = None
    drill: Price | None = None


class OnShelf(Frozen):
    """What of something that is not metal by the length lies there: pieces, kg of wire, m3 of gas, m2 that primer covers."""

    key: Annotated[str, Field(min_length=1, max_length=60)]
    """As the order list calls it."""
    quantity: Annotated[float, Field(ge=0, le=1e6)]


class MetalRack(Frozen):
    """Sheets, offcuts, and what parting takes."""

    sheets: Annotated[tuple[Sheet, ...], Field(min_length=1, max_length=20)] = (Sheet(long_mm=2500.0, wide_mm=1250.0),)
    offcuts: Annotated[tuple[Offcut, ...], Field(max_length=60)] = ()
    kerf_mm: Annotated[float, Field(ge=0.1, le=12)] = 2.0
    """Between two pieces: what the cut takes (about 2 mm for plasma, 0.3 for a laser, 1.2 for a thin wheel; common practice)."""
    margin_mm: Annotated[float, Field(ge=0, le=50)] = 6.0
    """Between a piece and the edge of its sheet."""
    tubes: Annotated[tuple[RackTube, ...], Field(max_length=60)] = ()
    shelf: Annotated[tuple[OnShelf, ...], Field(max_length=200)] = ()
    prices: Prices = Prices()
    block_mm: Annotated[float, Field(gt=0, le=500)] | None = None
    """Height of one of the shop's spacer blocks, measured: a nominal size is not its height."""
    together: bool = False
    """Whether the plates of one operation stay on one sheet, so that they leave the table as one heap."""
    grain: bool = False
    """Whether pieces keep their length along the sheet's: rolled plate is bent across its grain."""

    @classmethod
    def reading(cls, style: Style) -> Self:
        """Of a shop that reads its tape so: 4 by 8 feet where it is in inches."""
        return cls() if style == "mm" else cls(sheets=(Sheet(long_mm=96 * MM_PER_INCH, wide_mm=48 * MM_PER_INCH),))
