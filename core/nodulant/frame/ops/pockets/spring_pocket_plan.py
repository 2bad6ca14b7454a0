"""A spring pocket's sizes, and the slot that they make."""

from functools import lru_cache
from typing import Annotated, ClassVar, Literal, Self

from pydantic import Field, ValidationError, model_validator

from nodulant.base.errors import InputError
from nodulant.base.model import Extra, Size, Thickness
from nodulant.base.shown import Shown
from nodulant.frame.ops.at_place import AtPlace
from nodulant.frame.ops.fresh import Setting
from nodulant.frame.ops.notches.notch import Notch, SidePlate
from nodulant.frame.ops.notches.notch_shape import TrapezoidShape
from nodulant.frame.ops.operation import Adds
from nodulant.frame.place import Place
from nodulant.materials.bolts import Bolt, find_bolt
from nodulant.units.inline import as_thickness

EDGE_PER_D = 1.5
"""Hole to edge over the bolt's diameter."""
Force = Annotated[float, Field(ge=0, le=500_000)]


class SpringPocketPlan(AtPlace):
    """A slot ``length_mm`` long through the bottom flange, cut ``depth_mm`` up; the bolt ``bolt_up_mm`` above the underside."""

    adds: ClassVar[Adds] = Adds(
        "Spring pocket in the rail",
        "a slot for the coilover, its bolt through both walls or between cheeks above the rail, doublers and a gusset",
    )
    follows: ClassVar[tuple[str, ...]] = ("place", "bolt_up_mm", "spring_n", "across_n")
    kind: Literal["spring-pocket"] = "spring-pocket"
    place: Annotated[Place, Shown("Middle")]
    length_mm: Annotated[Size, Shown("Slot, long")] = 110.0
    depth_mm: Annotated[Size, Shown("Cut up the walls")] = 15.0
    corner_radius_mm: Annotated[Extra, Shown("Corner radius", kind="thickness")] = 6.5
    bolt_up_mm: Annotated[Size, Shown("Bolt above the underside")] = 90.0
    """Above the rail's top it stands between raised cheeks."""
    line_from: Annotated[
        Literal["inner", "outer"],
        Shown("Cut line told from", choices={"inner": "inner face (engine side)", "outer": "outer face"}),
    ] = "inner"
    line_mm: Annotated[Extra, Shown("Cut line from that face (0: right through)")] = 0.0
    """What stays of the flanges beside that face, and its wall whole; 0 cuts both walls."""
    bolt_size: Annotated[str, Field(max_length=20), Shown("Bolt")] = "M14"
    grade: Annotated[str, Field(max_length=20), Shown("Its grade")] = "10.9"
    body_mm: Annotated[Size, Shown("Body in the slot")] = 76.0
    """Outside diameter of what stands in the slot."""
    plate_mm: Annotated[Extra, Shown("Doublers (0: none)", kind="thickness")] = 5.0
    """Doublers on both walls around the bolt and past the slot; 0 for none."""
    overlap_mm: Annotated[Extra, Shown("Past the slot")] = 200.0
    gusset_mm: Annotated[Extra, Shown("Gusset's leg (0: none)")] = 60.0
    """Leg of a gusset from the rail's wall inward under the bolt's load; 0 for none."""
    cheek_mm: Annotated[Thickness, Shown("Cheeks, where it is raised", kind="thickness")] = 6.0
    steel_id: Annotated[str, Shown("Steel")] = "mild"
    weld_leg_mm: Annotated[Thickness, Shown("Weld leg")] = 5.0
    sleeve: Annotated[bool, Shown("Spacers from eye to walls")] = True
    """Spacers or sleeves between eye and walls, so that the bolt does not pull them in."""
    spring_n: Annotated[Force, Shown("Force of one side")] = 0.0
    across_n: Annotated[Force, Shown("Of it inward")] = 0.0
    """What of it pushes inward, from its lean."""

    @classmethod
    def fresh_values(cls, on: Setting) -> dict[str, object]:
        """Where it begins and what no default tells."""
        return {"place": on.inward(300)}

    @model_validator(mode="after")
    def _can_be_cut(self) -> Self:
        try:
            self.as_notch()
        except ValidationError as error:
            raise InputError(
                "a slot of this length and depth cannot hold its corners",
                field="corner_radius_mm",
                found=as_thickness(self.corner_radius_mm),
                acceptable="a smaller radius, or a longer or deeper slot",
            ) from error
        return self

    def as_notch(self) -> Notch:
        """The slot as a straight-sided cut without a liner, doublers as its side plates."""
        return _as_notch(self)

    def bolt(self) -> Bolt:
        """Size and grade; raises UnknownReference."""
        return find_bolt(self.bolt_size, self.grade)

    @property
    def edge_mm(self) -> float:
        """From the bolt's middle to the nearest edge of metal, mm."""
        return EDGE_PER_D * self.bolt().size.diameter_mm

    def raised(self, rail_height_mm: float) -> bool:
        """Whether the bolt stands too high for the rail's own walls."""
        return self.bolt_up_mm > rail_height_mm - self.edge_mm


@lru_cache(maxsize=256)
def _as_notch(pocket: SpringPocketPlan) -> Notch:
    plate = (
        SidePlate(
            thickness_mm=pocket.plate_mm,
            overlap_mm=pocket.overlap_mm,
            end="taper",
            steel_id=pocket.steel_id,
            weld_leg_mm=pocket.weld_leg_mm,
        )
        if pocket.plate_mm > 0
        else None
    )
    return Notch(
        id=pocket.id,
        name=pocket.name,
        side=pocket.side,
        place=pocket.place,
        depth_mm=pocket.depth_mm,
        shape=TrapezoidShape(
            top_width_mm=pocket.length_mm, mouth_width_mm=pocket.length_mm, corner_radius_mm=pocket.corner_radius_mm
        ),
        outer_plate=plate,
        inner_plate=plate,
    )
