"""Stretch or shorten: metal goes in at a cut, or comes out between two."""

import math
from collections.abc import Iterable
from typing import Annotated, ClassVar, Literal, Self

from pydantic import Field, model_validator

from nodulant.base.errors import InputError
from nodulant.base.shown import Shown
from nodulant.frame.here import OnRail, Span
from nodulant.frame.ops.fresh import Setting
from nodulant.frame.ops.operation import Adds
from nodulant.frame.ops.through.cut_through import CutThrough
from nodulant.frame.ops.through.splice_plates import Box, box_parts, joint_of
from nodulant.frame.place import resolve
from nodulant.frame.route import Move
from nodulant.geometry.outline import rectangle
from nodulant.parts.joint import Joint
from nodulant.parts.part import Part
from nodulant.parts.sides import Side
from nodulant.parts.specs import FigureSpec, ReadingSpec, reading
from nodulant.survey.rail import Rail
from nodulant.survey.vehicle import Feature
from nodulant.units.inline import as_length

KERF_MM = 1.0
"""What the saw and the butt take, so that the two ends never fall on one station."""
FOLLOWS = "driveshaft, brake and fuel lines, loom and exhaust follow"


class Stretch(CutThrough):
    """The rail behind ``place`` moves rearward by ``length_mm``; a negative length takes that much out behind it."""

    adds: ClassVar[Adds] = Adds(
        "Stretch or shorten", "metal goes in at a cut, or comes out behind it; driveline, lines and loom follow"
    )
    searched: ClassVar[bool] = True
    kind: Literal["stretch"] = "stretch"
    length_mm: Annotated[float, Field(ge=-3000, le=3000), Shown("Longer by (minus: shorter)")]
    box: Annotated[Box, Shown("Piece")] = Box(profile="channel")
    """The piece that goes in."""

    @classmethod
    def fresh_values(cls, on: Setting) -> dict[str, object]:
        """Where it begins and what no default tells."""
        return {"place": on.inward(900), "length_mm": 200.0}

    @model_validator(mode="after")
    def _changes_something(self) -> Self:
        if abs(self.length_mm) < 1.0:
            raise InputError(
                "nothing goes in and nothing comes out",
                field="length_mm",
                found=as_length(self.length_mm),
                acceptable=f"{as_length(1)} or more either way",
            )
        return self

    def span(self, rail: Rail, features: Iterable[Feature], field: str) -> Span:
        """The cut, or the length that comes out."""
        at = resolve(self.place, features, f"{field}/place")
        return Span(at, at + max(-self.length_mm, 0.0) + KERF_MM)

    def moves(self, span: Span, side: Side) -> tuple[Move, ...]:
        """Along only."""
        return (Move(span.start_mm, dx_mm=self.length_mm, gone_mm=span.end_mm - span.start_mm),)

    def run_mm(self, on: OnRail) -> float:
        """Where the rail behind starts."""
        return max(self.length_mm, 0.0)

    @property
    def moves_as_one(self) -> bool:
        """Both rails behind it are one end."""
        return self.side == "both" and self.length_mm != 0

    def roles(self) -> tuple[str, ...]:
        """The piece, where one goes in, and the plates."""
        return (("insert",) if self.length_mm > 0 else ()) + super().roles()

    def joints(self, on: OnRail) -> tuple[Joint, ...]:
        """The piece that goes in; a shortened rail is butted to itself."""
        if self.length_mm <= 0:
            return ()
        return (joint_of(self.id, on, "insert", self.box, self.plates().values()),)

    def parts(self, on: OnRail) -> list[Part]:
        """The piece and the side plates."""
        out = super().parts(on)
        if self.length_mm > 0:
            side = rectangle(0.0, 0.0, self.length_mm, on.here.height).moved(on.span.start_mm, on.here.underside)
            return [*box_parts(self.id, "insert", "Inserted piece", self.box, on, side, self.length_mm), *out]
        return out

    @property
    def piece(self) -> Box:
        """The piece that makes it longer."""
        return self.box

    def figures(self, on: OnRail) -> tuple[FigureSpec, ...]:
        """What follows the frame's length."""
        return (
            FigureSpec(key="length", name="The frame gets longer by", value=self.length_mm, unit="mm", basis=FOLLOWS),
        )

    def work(self) -> str:
        """What is made here, in words."""
        how = "Stretch" if self.length_mm > 0 else "Shorten"
        return f"{how} by {as_length(abs(self.length_mm))}; {FOLLOWS}"

    def readings(self, datum: str) -> list[ReadingSpec]:
        """Cut line and length."""
        name = "Length put in" if self.length_mm > 0 else "Length taken out"
        length = reading("length", name, abs(self.length_mm), "the cut line")
        return [*super().readings(datum), length]

    def as_measured(self, measured: dict[str, float]) -> Self:
        """The same with its measured length and place."""
        placed = super().as_measured(measured)
        if "length" not in measured:
            return placed
        return placed.model_copy(update={"length_mm": math.copysign(measured["length"], self.length_mm)})
