"""An upper mount inside the rail: a slot in the bottom flange for the coilover, its bolt through both walls."""

from collections.abc import Iterable
from functools import lru_cache
from typing import Annotated, ClassVar, Literal, Self

from pydantic import Field, ValidationError, model_validator

from nodulant.base.errors import InputError
from nodulant.base.model import Extra, Size, Thickness
from nodulant.base.shown import Shown
from nodulant.frame.additions import Additions
from nodulant.frame.columns import RailColumns
from nodulant.frame.here import OnRail, Span
from nodulant.frame.ops.fresh import Setting
from nodulant.frame.ops.notches.notch import Notch, SidePlate
from nodulant.frame.ops.notches.notch_shape import TrapezoidShape
from nodulant.frame.ops.operation import Adds, RailOperation
from nodulant.frame.place import Place
from nodulant.geometry import Outline, Vertex
from nodulant.geometry.outline import polygon
from nodulant.materials import find_steel
from nodulant.materials.bolts import Bolt, find_bolt, hole_n
from nodulant.parts.cautions import DUST, HOT
from nodulant.parts.part import Part, Seam, part_id
from nodulant.parts.solid import Solid, block
from nodulant.parts.specs import CheckSpec, FatigueDetail, FigureSpec, HoldPoint, ReadingSpec, StepSpec
from nodulant.survey.rail import Rail
from nodulant.survey.vehicle import Feature

ROOM_MM = 12.0
"""Free length beside a spring's or damper's body in its slot, both ends together (common practice: 6 mm each)."""


class SpringPocket(RailOperation):
    """A slot ``length_mm`` long through the bottom flange, cut ``depth_mm`` up; the bolt ``bolt_up_mm`` above the underside."""

    adds: ClassVar[Adds] = Adds(
        "Spring pocket in the rail",
        "a slot through the bottom flange, the coilover's bolt through both walls, doublers and a gusset",
    )
    follows: ClassVar[tuple[str, ...]] = ("place", "bolt_up_mm")
    kind: Literal["spring-pocket"] = "spring-pocket"
    place: Annotated[Place, Shown("Middle")]
    length_mm: Annotated[Size, Shown("Slot, long")] = 110.0
    depth_mm: Annotated[Size, Shown("Cut up the walls")] = 15.0
    corner_radius_mm: Annotated[Extra, Shown("Corner radius", kind="thickness")] = 6.5
    bolt_up_mm: Annotated[Size, Shown("Bolt above the underside")] = 90.0
    bolt_size: Annotated[str, Field(max_length=20), Shown("Bolt")] = "M14"
    grade: Annotated[str, Field(max_length=20), Shown("Its grade")] = "10.9"
    body_mm: Annotated[Size, Shown("Body in the slot")] = 76.0
    """Outside diameter of what stands in the slot."""
    plate_mm: Annotated[Extra, Shown("Doublers (0: none)", kind="thickness")] = 5.0
    """Doublers on both walls around the bolt and past the slot; 0 for none."""
    overlap_mm: Annotated[Extra, Shown("Past the slot")] = 200.0
    gusset_mm: Annotated[Extra, Shown("Gusset's leg (0: none)")] = 60.0
    """Leg of a gusset from the rail's wall inward under the bolt's load; 0 for none."""
    steel_id: Annotated[str, Shown("Steel")] = "mild"
    weld_leg_mm: Annotated[Thickness, Shown("Weld leg")] = 5.0
    sleeve: Annotated[bool, Shown("Spacers from eye to walls")] = True
    """Spacers or sleeves between eye and walls, so that the bolt does not pull them in."""
    spring_n: Annotated[float, Field(ge=0, le=500_000), Shown("Force of one side")] = 0.0

    @classmethod
    def fresh_values(cls, on: Setting) -> dict[str, object]:
        """Where it begins and what no default tells."""
        return {"place": on.near(-300)}

    @model_validator(mode="after")
    def _can_be_cut(self) -> Self:
        try:
            self.as_notch()
        except ValidationError as error:
            raise InputError(
                "a slot of this length and depth cannot hold its corners",
                field="corner_radius_mm",
                found=f"{self.corner_radius_mm:g} mm",
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
    def anchor(self) -> Place:
        """Its centre."""
        return self.place

    def place_fields(self) -> tuple[str, str]:
        """One place holds both ends."""
        return ("place/offset_mm", "place/offset_mm")

    def span(self, rail: Rail, features: Iterable[Feature], field: str) -> Span:
        """The slot."""
        return self.as_notch().span(rail, features, field)

    def cut_spans(self, span: Span) -> tuple[Span, ...]:
        """The slot."""
        return (span,)

    def refuse(self, rail_height_mm: float, field: str) -> None:
        """Something of the rail stays, and the bolt lies in its wall."""
        self.as_notch().refuse(rail_height_mm, field)
        edge = 1.5 * self.bolt().size.diameter_mm
        if not self.depth_mm + edge <= self.bolt_up_mm <= rail_height_mm - edge:
            raise InputError(
                "the bolt does not lie in what is left of the wall",
                field=f"{field}/bolt_up_mm",
                found=f"{self.bolt_up_mm:g} mm above the underside",
                acceptable=f"{self.depth_mm + edge:.1f} to {rail_height_mm - edge:.1f} mm",
            )

    def roles(self) -> tuple[str, ...]:
        """Doublers and gusset."""
        plates = ("outer", "inner") if self.plate_mm > 0 else ()
        return (*plates, "pocket-gusset") if self.gusset_mm > 0 else plates

    def additions(self, span: Span, rail: RailColumns, carried: frozenset[str], boxed: bool) -> Additions:
        """Slot and doublers as columns."""
        return self.as_notch().additions(span, rail, carried, boxed)

    def parts(self, on: OnRail) -> list[Part]:
        """Doublers, and the gusset."""
        out = self.as_notch().parts(on)
        if self.gusset_mm > 0:
            x, g = on.span.centre_mm, self.gusset_mm
            out.append(
                Part(
                    id=part_id(self.id, "pocket-gusset", on.side),
                    operation=self.id,
                    role="pocket-gusset",
                    side=on.side,
                    name="Gusset beside the slot, two of it",
                    face="across",
                    outline=polygon([(x, 0.0), (x + g, 0.0), (x, g)]),
                    thickness_mm=max(self.plate_mm, 3.0),
                    steel_id=self.steel_id,
                    count=2,
                )
            )
        return out

    def seams(self, on: OnRail, parts: list[Part]) -> list[Seam]:
        """Fillets around the plates."""
        rail = f"rail/{on.side}"
        return [Seam(part_a=rail, part_b=p.id, kind="fillet", leg_mm=self.weld_leg_mm, path=p.outline) for p in parts]

    @property
    def opens(self) -> bool:
        """The slot has an edge."""
        return True

    def cut_edge(self) -> Outline:
        """Edge of the slot in the wall."""
        return self.as_notch().cut_edge()

    def edge_above(self, level_mm: float) -> tuple[Vertex, ...]:
        """The part of the edge above a level."""
        return self.as_notch().edge_above(level_mm)

    def checks(self, on: OnRail) -> tuple[CheckSpec, ...]:
        """Room in the slot, the bolt and its holes in both walls, sleeves in a closed rail."""
        at, room = on.span.centre_mm, self.length_mm - self.body_mm
        rows = [
            CheckSpec(
                limit_id="pocket-room",
                value=room,
                formula="length - body",
                values={"length": self.length_mm, "body": self.body_mm},
                words="free length of the slot beside what stands in it at ride height; it swings through travel besides",
                station_mm=at,
                remedy=f"A slot of {self.body_mm + ROOM_MM:.0f} mm or more.",
            ),
            CheckSpec(
                limit_id="sleeve-there",
                about="pocket",
                value=1.0 if self.sleeve else 0.0,
                formula="sleeves",
                values={"sleeves": 1.0 if self.sleeve else 0.0},
                words="spacers from the eye to both walls: without them the bolt pulls the walls in",
                station_mm=at,
                same_as_stock=self.sleeve,
                remedy="Weld spacers to the walls' insides, as long as the eye leaves room.",
            ),
        ]
        if self.spring_n <= 0:
            remedy = "The spring's force at full bump is not given."
            rows += [
                CheckSpec(limit_id=r, value=None, station_mm=at, missing=("spring_n",), remedy=remedy)
                for r in ("link-bolt", "tab-hole")
            ]
            return tuple(rows)
        bolt, capacity = self.bolt(), self.bolt().shear_n(2)
        wall = on.here.wall + self.plate_mm
        ultimate = min(find_steel(self.steel_id).ultimate_mpa, find_steel(on.rail.steel_id).ultimate_mpa)
        hole = 2 * hole_n(bolt, min(self.bolt_up_mm - self.depth_mm, on.here.height - self.bolt_up_mm), wall, ultimate)
        return (
            *rows,
            CheckSpec(
                limit_id="link-bolt",
                value=self.spring_n / capacity,
                formula="force / capacity",
                values={"force": self.spring_n, "capacity": capacity},
                words="2 shear planes, one at each wall",
                station_mm=at,
                remedy="A bigger bolt.",
            ),
            CheckSpec(
                limit_id="tab-hole",
                value=self.spring_n / hole,
                formula="force / capacity",
                values={"force": self.spring_n, "capacity": hole},
                words="bearing or tear-out of wall and doubler on both sides",
                station_mm=at,
                remedy="Doublers on both walls, or a bolt further from the slot's edge.",
            ),
        )

    def details(self, on: OnRail) -> tuple[FatigueDetail, ...]:
        """The slot's bare edge, and the doublers' ends."""
        start, end = on.span.start_mm, on.span.end_mm
        edge = FatigueDetail(
            about="edge", detail="edge-dressed", start_mm=start, end_mm=end, words="dressed edge of the slot"
        )
        if self.plate_mm <= 0:
            return (edge,)
        ends = (start - self.overlap_mm, end + self.overlap_mm)
        return (
            edge,
            *(
                FatigueDetail(
                    about="plate-end", detail="plate-end", start_mm=x - 1, end_mm=x + 1, words="end of the doublers"
                )
                for x in ends
            ),
        )

    def figures(self, on: OnRail) -> tuple[FigureSpec, ...]:
        """Torque of the bolt."""
        bolt = self.bolt()
        return (
            FigureSpec(
                key="link-torque",
                name=f"Torque of the {bolt.size.id} {bolt.grade.id} bolt, dry",
                value=bolt.torque_nm("dry"),
                unit="N m",
                basis="T = 0.2 F d; tightened at ride height where the eye is rubber",
            ),
        )

    def solids(self, on: OnRail) -> tuple[Solid, ...]:
        """The bolt through the rail."""
        d, width = self.bolt().size.diameter_mm, on.here.width
        middle = on.rail.web_y_mm - width / 2 * (1 if on.rail.opens == "inward" else -1)
        return (
            block(
                self.name,
                "frame",
                (on.span.centre_mm, middle, on.here.underside + self.bolt_up_mm),
                (d, width + 4 * d, d),
            ),
        )

    def steps(self, datum: str) -> list[StepSpec]:
        """Doublers first, then the slot, then the bolt."""
        at = f"{self.place.offset_mm:+.1f} mm from {datum}"
        rows = [
            StepSpec(
                key="slot",
                phase="cut",
                title="Cut the slot for the coilover",
                detail=f"{at}: {self.length_mm:.1f} mm long through the bottom flange, {self.depth_mm:.1f} mm up the walls, corners drilled {2 * self.corner_radius_mm:g} mm.",
                minutes=60,
                tools=("drill", "cut-off wheel", "file"),
                cautions=(DUST, HOT),
                hold=HoldPoint(kind="reading", ask="Middle of the slot from its datum", reading="position"),
            ),
            StepSpec(
                key="bolt",
                phase="fit",
                title="Drill for the bolt and weld its spacers",
                detail=f"{self.bolt_up_mm:.1f} mm above the underside, square through both walls from one side; spacers welded to the walls, eye free between them.",
                minutes=60,
                tools=("drill", "square", "welder"),
                cautions=(HOT,),
            ),
        ]
        if self.plate_mm > 0:
            rows.append(
                StepSpec(
                    key="doublers",
                    phase="plate",
                    title="Doublers on both walls",
                    detail=f"{self.plate_mm:g} mm, long edges first, tapered ends last.",
                    minutes=90,
                    tools=("clamps", "welder"),
                    cautions=(HOT,),
                    hides="the walls around the bolt",
                )
            )
        return rows

    def measured_fields(self) -> dict[str, str]:
        """What is read after cutting."""
        return {"position": "place", "bolt-up": "bolt_up_mm"}

    def readings(self, datum: str) -> list[ReadingSpec]:
        """Place, and the bolt's height."""
        return [
            ReadingSpec(
                key="position",
                name="Middle of the slot",
                planned_mm=self.place.offset_mm,
                limit_id="as-built",
                datum=datum,
            ),
            ReadingSpec(
                key="bolt-up",
                name="Bolt above the underside",
                planned_mm=self.bolt_up_mm,
                limit_id="as-built",
                datum="rail underside beside the slot",
            ),
        ]


@lru_cache(maxsize=256)
def _as_notch(pocket: SpringPocket) -> Notch:
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
