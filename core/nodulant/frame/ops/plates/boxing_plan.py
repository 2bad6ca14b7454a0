"""Boxing: a plate that closes the open side of a channel between two stations."""

from typing import Annotated, ClassVar, Literal, Self

import numpy as np
from pydantic import Field, model_validator

from nodulant.base.errors import InputError
from nodulant.base.model import Extra, Size, Thickness
from nodulant.base.shown import Shown
from nodulant.frame.additions import Additions, Plate
from nodulant.frame.columns import RailColumns
from nodulant.frame.ops.fresh import Setting
from nodulant.frame.ops.operation import Adds, RailOperation
from nodulant.frame.ops.plates.plate_welds import line_n_per_mm
from nodulant.frame.place import Place
from nodulant.materials import find_steel
from nodulant.sections.development import Development, Reach, development
from nodulant.units.inline import as_length

Fit = Literal["over-lips", "flush", "inside"]


class BoxingPlan(RailOperation):
    """A boxing plate from ``start`` to ``end``: over the flange lips, flush with them or inside."""

    adds: ClassVar[Adds] = Adds("Boxing plate", "closes an open channel: buys torsion, little bending")
    kind: Literal["boxing"] = "boxing"
    start: Annotated[Place, Shown("Front end")]
    end: Annotated[Place, Shown("Rear end")]
    thickness_mm: Annotated[Thickness, Shown("Thickness")]
    fit: Annotated[
        Fit,
        Shown(
            "Fit",
            choices={"over-lips": "over the lips", "flush": "flush with the lips", "inside": "inside the lips"},
            note="Default: over the lips, since fit-up is easier on a wavy rail and it is one clean joint; inside keeps the rail's outer width.",
        ),
    ] = "over-lips"
    inset_mm: Annotated[Extra, Shown("Step inside by", when=("fit", "inside"))] = 4.0
    """Step inside the lips, for the fit 'inside'."""
    steel_id: Annotated[str, Shown("Steel")] = "mild"
    weld_leg_mm: Annotated[Thickness, Shown("Weld leg")] = 4.0
    lengths: Annotated[
        int,
        Field(ge=1, le=4),
        Shown("Made of lengths", note="More than one where no sheet is as long; butts staggered, clear of the cuts."),
    ] = 1
    seam: Annotated[
        Literal["full", "stitch"],
        Shown(
            "Seam",
            choices={"full": "full length", "stitch": "stitched"},
            note="Default: full length in short beads spread along and around. Stitches are for hidden inset boxing and bring the plate in by their share.",
        ),
    ] = "full"
    bead_mm: Annotated[Size, Shown("Stitch", when=("seam", "stitch"))] = 50.0
    """Length of one stitch."""
    pitch_mm: Annotated[Size, Shown("Pitch", when=("seam", "stitch"))] = 100.0
    """From the start of one stitch to the start of the next."""

    @classmethod
    def fresh_values(cls, on: Setting) -> dict[str, object]:
        """Where it begins and what no default tells."""
        return {**on.between(400, -400), "thickness_mm": on.plate(5.0)}

    @model_validator(mode="after")
    def _stitches_leave_gaps(self) -> Self:
        if self.seam == "stitch" and self.bead_mm > self.pitch_mm:
            raise InputError(
                "a stitch longer than its pitch is a full seam",
                field="bead_mm",
                found=as_length(self.bead_mm),
                acceptable=f"at most {as_length(self.pitch_mm)}",
            )
        return self

    @property
    def welded_share(self) -> float:
        """Share of the seam's length that is welded."""
        return 1.0 if self.seam == "full" else self.bead_mm / self.pitch_mm

    def as_measured(self, measured: dict[str, float]) -> Self:
        """The plate with its measured thickness, mm."""
        if "boxing-thickness" not in measured:
            return self
        return self.model_copy(update={"thickness_mm": measured["boxing-thickness"]})

    def set_in_mm(self) -> float:
        """How far the plate's outer face lies inside the lips; negative over them."""
        return {"over-lips": -self.thickness_mm, "flush": 0.0, "inside": self.inset_mm}[self.fit]


def boxing_line(boxing: BoxingPlan, wall_mm: float) -> float:
    """What the seam along each lip may carry on average, N/mm: stitches by their share of the length."""
    return boxing.welded_share * line_n_per_mm(boxing.thickness_mm, boxing.weld_leg_mm, boxing.steel_id, wall_mm)


def boxing_development(boxing: BoxingPlan, height_mm: float, wall_mm: float) -> Development:
    """Development length of the boxing plate at its ends."""
    q = boxing_line(boxing, wall_mm)
    return development(height_mm, boxing.thickness_mm, find_steel(boxing.steel_id).yield_mpa, 2, q)


def boxing_additions(
    boxing: BoxingPlan, start_mm: float, end_mm: float, rail: RailColumns, carried: frozenset[str]
) -> Additions:
    """The plate of ``boxing`` as columns; nothing when it is not welded on."""
    none = np.zeros_like(rail.x)
    if "boxing" not in carried:
        return Additions(none, ())
    middle = int(np.argmin(np.abs(rail.x - (start_mm + end_mm) / 2)))
    height, wall = float(rail.height[middle]), float(rail.wall[middle])
    grown = boxing_development(boxing, height, wall).length_mm
    along = Reach(start_mm, end_mm, grown, max(height, float(rail.width[middle])))
    inside = boxing.fit != "over-lips"
    plate = Plate(
        "boxing",
        boxing.thickness_mm,
        along.share(rail.x),
        rail.wall if inside else none,
        rail.height - rail.wall if inside else rail.height,
        find_steel(boxing.steel_id),
        np.ones_like(none),
        none,
        boxing.set_in_mm(),
        boxing_line(boxing, wall),
        closure=along.closure(rail.x),
        grown_mm=grown,
        kinks=along.kinks,
    )
    return Additions(none, (plate,))
