"""Splice: the rail from a place rearward is another one, bought or built; the identity stays with one part."""

from collections.abc import Iterable
from dataclasses import replace
from typing import Annotated, ClassVar, Literal, Self

import numpy as np
from pydantic import Field

from nodulant.base.model import Name, Size, Thickness
from nodulant.base.shown import Shown
from nodulant.frame.columns import RailColumns
from nodulant.frame.here import OnRail, Span
from nodulant.frame.ops.fresh import Piece, Setting
from nodulant.frame.ops.operation import Adds
from nodulant.frame.ops.through.cut_through import CutThrough
from nodulant.frame.place import resolve
from nodulant.materials import find_steel
from nodulant.parts.specs import CheckSpec, FigureSpec
from nodulant.survey.rail import Rail, RailKind
from nodulant.survey.vehicle import Feature

CUT_LENGTH = {"square": 1.0, "scarf": 1.41, "stepped": 2.0}
"""Length of the butt against a square one: a scarf at 45 degrees, a step half the height deep."""


class Donor(Piece):
    """The rail that takes over from the cut."""

    kind: Annotated[RailKind, Shown("Kind")] = "rect-tube"
    height_mm: Annotated[Size, Shown("Height")]
    width_mm: Annotated[Size, Shown("Width")]
    wall_mm: Annotated[Thickness, Shown("Wall")]
    steel_id: Annotated[str, Shown("Steel")] = "mild"
    cut_from_kit_datum_mm: Annotated[
        Annotated[float, Field(ge=-20_000, le=20_000)] | None, Shown("Cut, from the kit's datum")
    ] = None
    """Where the kit's own drawing puts the cut, from the kit's datum."""
    spreader_mm: Annotated[Size | None, Shown("Spreader width")] = None
    """Width at which the bought half must be held while it is tacked."""

    @classmethod
    def fresh(cls, on: Setting) -> Self:
        """A usual one to begin with."""
        return cls(height_mm=120.0, width_mm=60.0, wall_mm=5.0)


class Splice(CutThrough):
    """A butt through the whole rail at ``place``, with another rail behind it or the same one again."""

    adds: ClassVar[Adds] = Adds(
        "Splice", "another rail from a cut rearward, bought or built, or the same one joined again"
    )
    searched: ClassVar[bool] = True
    kind: Literal["splice"] = "splice"
    style: Annotated[
        Literal["square", "scarf", "stepped"],
        Shown(
            "Butt",
            note="Default: square with tapered plates on both sides; a scarf or step is a longer butt and harder to prepare.",
        ),
    ] = "square"
    donor: Annotated[Donor | None, Shown("Bought or built rail behind")] = None
    identity_stays: Annotated[
        Literal["front", "rear", "not known"],
        Shown(
            "Legal identity stays with",
            choices={"not known": "not known yet", "front": "the front part", "rear": "the rear part"},
        ),
    ] = "not known"
    """Which part carries the frame's legal identity."""
    identity_note: Annotated[Name | None, Shown("How that is known")] = None

    @classmethod
    def fresh_values(cls, on: Setting) -> dict[str, object]:
        """Where it begins and what no default tells."""
        return {"place": on.inward(800)}

    def span(self, rail: Rail, features: Iterable[Feature], field: str) -> Span:
        """The cut."""
        at = resolve(self.place, features, f"{field}/place")
        return Span(at, at + 1.0)

    def run_mm(self, on: OnRail) -> float:
        """The ends meet."""
        return 0.0

    def replaces(self, span: Span, x_mm: float) -> bool:
        """Everything behind the cut, where another rail takes over."""
        return self.donor is not None and x_mm > span.start_mm

    def rework(self, rail: RailColumns, span: Span, carried: frozenset[str]) -> RailColumns:
        """The donor's section behind the cut."""
        if self.donor is None:
            return rail
        behind = rail.x > span.start_mm
        d = self.donor

        def swapped(
            own: np.ndarray[tuple[int], np.dtype[np.float64]], other: float
        ) -> np.ndarray[tuple[int], np.dtype[np.float64]]:
            return np.where(behind, other, own)

        weaker = min(find_steel(d.steel_id), rail.steel, key=lambda s: s.yield_mpa)
        return replace(
            rail,
            height=swapped(rail.height, d.height_mm),
            width=swapped(rail.width, d.width_mm),
            wall=swapped(rail.wall, d.wall_mm),
            steel=weaker,
        )

    def checks(self, on: OnRail) -> tuple[CheckSpec, ...]:
        """Plates, and whether the identity is settled before the cut."""
        known = 0.0 if self.identity_stays == "not known" else 1.0
        settled = CheckSpec(
            limit_id="identity",
            value=known,
            formula="known",
            values={"known": known},
            words="the part that carries the frame's number and plate decides what the vehicle legally is: ask the registration office first",
            station_mm=on.span.start_mm,
            remedy="Find out which part keeps the vehicle's legal identity, and write it down.",
            same_as_stock=known == 1.0,
        )
        return (*super().checks(on), settled)

    def figures(self, on: OnRail) -> tuple[FigureSpec, ...]:
        """The kit's own cut station, the width to hold, the length of the butt."""
        rows = [
            FigureSpec(
                key="butt",
                name="Butt against a square cut",
                value=CUT_LENGTH[self.style],
                unit="x",
                basis=f"{self.style}: a longer butt, harder to prepare",
            )
        ]
        if self.donor and self.donor.cut_from_kit_datum_mm is not None:
            rows.append(
                FigureSpec(
                    key="kit",
                    name="Cut from the bought half's own datum",
                    value=self.donor.cut_from_kit_datum_mm,
                    unit="mm",
                    basis="the kit's drawing",
                )
            )
        if self.donor and self.donor.spreader_mm is not None:
            rows.append(
                FigureSpec(
                    key="spreader",
                    name="Spreader between the rails while tacked",
                    value=self.donor.spreader_mm,
                    unit="mm",
                    basis="the kit's drawing",
                )
            )
        return tuple(rows)

    def work(self) -> str:
        """What is made here, in words."""
        donor = "a bought or built rail behind" if self.donor else "the same rail again"
        return f"{self.style.capitalize()} splice, {donor}"
