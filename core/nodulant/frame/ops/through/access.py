"""Access cut: a piece taken out so that something can enter, put back and plated on both sides."""

from typing import Annotated, ClassVar, Literal

import numpy as np

from nodulant.base.model import Frozen, Size, Thickness
from nodulant.base.shown import Shown
from nodulant.frame.additions import Additions
from nodulant.frame.columns import RailColumns
from nodulant.frame.here import OnRail, Span
from nodulant.frame.ops.cut_lines import window
from nodulant.frame.ops.fresh import Setting
from nodulant.frame.ops.notches.notch_plan import SidePlate
from nodulant.frame.ops.operation import Adds
from nodulant.frame.ops.ranged import Ranged
from nodulant.frame.ops.through.splice_plates import (
    DETAIL,
    ButtWeld,
    fillets,
    overlap_checks,
    plate_columns,
    plate_part,
)
from nodulant.frame.ops.welded import braces, braces_off, welded
from nodulant.frame.ops.words import BUTTS, PLATES
from nodulant.geometry import Outline
from nodulant.geometry.outline import rectangle
from nodulant.parts.cautions import DUST, HOT, WHEEL
from nodulant.parts.part import Part, Seam, part_id
from nodulant.parts.specs import CheckSpec, FatigueDetail, HoldPoint, ReadingSpec, StepSpec, reading
from nodulant.units.inline import as_length, as_thickness


class AccessCut(Ranged):
    """A piece from ``start`` to ``end``, ``height_mm`` high from the underside; back in, the section is whole again."""

    adds: ClassVar[Adds] = Adds(
        "Access cut", "a piece out so that something can enter, then back in and fish-plated on both sides"
    )
    kind: Literal["access-cut"] = "access-cut"
    height_mm: Annotated[Size, Shown("Height from the underside")]
    corner_radius_mm: Annotated[Size, Shown("Corner radius")] = 12.0
    weld: Annotated[ButtWeld, Shown("Butt weld", choices=BUTTS)] = "one-sided-backed"
    weld_leg_mm: Annotated[Thickness, Shown("Weld leg")] = 5.0
    outer_plate: Annotated[SidePlate | None, Shown("Outer side plate")] = None
    inner_plate: Annotated[SidePlate | None, Shown("Inner side plate")] = None

    def fresh_piece(self, at: str, choice: str, on: Setting) -> Frozen:
        """Side plates reach past a whole joint."""
        return SidePlate.past_a_joint(on) if at in PLATES else super().fresh_piece(at, choice, on)

    @classmethod
    def fresh_values(cls, on: Setting) -> dict[str, object]:
        """Where it begins and what no default tells."""
        return {**on.between(500, 380), "height_mm": 80.0}

    def _plates(self) -> dict[str, SidePlate]:
        rows = {"outer": self.outer_plate, "inner": self.inner_plate}
        return {role: plate for role, plate in rows.items() if plate is not None}

    def cut_spans(self, span: Span) -> tuple[Span, ...]:
        """The piece."""
        return (span,)

    def cut_lines(self, on: OnRail) -> tuple[Outline, ...]:
        """Round the piece."""
        return (window(on.span, 0.0, min(self.height_mm, on.here.height), self.corner_radius_mm),)

    def roles(self) -> tuple[str, ...]:
        """The piece itself and its fish plates."""
        return ("piece", *self._plates())

    def replaces(self, span: Span, x_mm: float) -> bool:
        """The piece that is put back."""
        return span.start_mm <= x_mm <= span.end_mm

    def additions(self, span: Span, rail: RailColumns, carried: frozenset[str], boxed: bool) -> Additions:
        """Open while the piece is out; plates over it once they are on."""
        inside = (rail.x > span.start_mm) & (rail.x < span.end_mm) & ("piece" not in carried)
        cut = np.where(inside, np.minimum(self.height_mm, rail.height), 0.0)
        plates = tuple(
            plate_columns(plate, "outer" if role == "outer" else "inner", rail, span.start_mm, span.end_mm)
            for role, plate in self._plates().items()
            if role in carried
        )
        return Additions(cut, plates)

    def parts(self, on: OnRail) -> list[Part]:
        """The fish plates; the piece is the rail's own metal."""
        run = on.span.end_mm - on.span.start_mm
        return [
            plate_part(self.id, plate, "outer" if role == "outer" else "inner", on, run, 0.0)
            for role, plate in self._plates().items()
        ]

    def seams(self, on: OnRail, parts: list[Part]) -> list[Seam]:
        """Butts around the piece, fillets around the plates."""
        edge = rectangle(on.span.start_mm, on.here.underside, on.span.end_mm, on.here.underside + self.height_mm)
        butt = Seam(
            part_a=f"rail/{on.side}",
            part_b=part_id(self.id, "piece", on.side),
            kind="butt",
            leg_mm=on.here.wall,
            path=edge,
            ground=True,
        )
        return [butt, *fillets(parts, on, self.weld_leg_mm)]

    def checks(self, on: OnRail) -> tuple[CheckSpec, ...]:
        """Corners and the plates' overlap."""
        r = self.corner_radius_mm
        corner = CheckSpec(
            limit_id="corner-radius",
            value=r,
            formula="radius",
            values={"radius": r},
            station_mm=on.span.centre_mm,
            remedy=f"Drill {as_thickness(12.7)} holes in the corners and cut to their centres.",
        )
        return (corner, *overlap_checks(self._plates(), on))

    def details(self, on: OnRail) -> tuple[FatigueDetail, ...]:
        """The butts where the piece went back in."""
        return tuple(
            FatigueDetail(
                about="butt",
                detail=DETAIL[self.weld],
                start_mm=x - 1,
                end_mm=x + 1,
                words=f"{self.weld.replace('-', ' ')} butt of the piece",
            )
            for x in (on.span.start_mm, on.span.end_mm)
        )

    def steps(self, datum: str) -> list[StepSpec]:
        """Cut, enter, close and plate."""
        return [
            StepSpec(
                key="mark",
                phase="mark",
                title="Mark the access piece",
                detail=f"{as_length(self.height_mm)} high; numbered and marked for its way round, it goes back in.",
                minutes=20,
                tools=("scriber",),
            ),
            braces("A piece of its side comes out."),
            StepSpec(
                key="drill",
                phase="cut",
                title="Drill the piece's corners",
                detail=f"{as_thickness(2 * self.corner_radius_mm)} in each, inside the marks.",
                minutes=15,
                tools=("drill",),
                cautions=(DUST,),
                acts=("drills-corners",),
            ),
            StepSpec(
                key="cut",
                phase="cut",
                title="Cut the piece out",
                detail="From hole to hole with a thin wheel, so that the gap stays small. Nothing heavy is moved while it is out.",
                minutes=45,
                tools=("cut-off wheel",),
                cautions=(WHEEL, DUST, HOT),
                hides="the uncut rail",
                acts=("cuts",),
            ),
            welded(
                key="close",
                phase="weld",
                title="Piece back in",
                detail=f"Tacked flush, {self.weld.replace('-', ' ')} butt, ground where a plate covers it.",
                minutes=60,
                hides="the inside of the rail",
                hold=HoldPoint(kind="look", ask="What had to go in is in, fixed and protected"),
                acts=("shuts", "welds"),
            ),
            welded(
                key="plates",
                phase="plate",
                title="Fish plates on both sides",
                detail="From one template and mirrored, over the ground butts.",
                minutes=80,
                with_tools=("clamps",),
                hides="the butts",
            ),
            braces_off(),
        ]

    def measured_fields(self) -> dict[str, str]:
        """What is read after welding."""
        return {"position": "start"}

    def readings(self, datum: str) -> list[ReadingSpec]:
        """Front edge of the piece."""
        return [reading("position", "Front edge of the piece", self.start.offset_mm, datum)]
