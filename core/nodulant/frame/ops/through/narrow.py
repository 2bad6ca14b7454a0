"""Narrow or widen: between two cuts the rail moves sideways, and what crosses the frame loses twice that."""

from collections.abc import Iterable
from typing import Annotated, ClassVar, Literal, Self

from pydantic import Field, model_validator

from nodulant.base.errors import InputError
from nodulant.base.model import Frozen, Size, Thickness
from nodulant.base.shown import Shown
from nodulant.frame.here import OnRail, Span
from nodulant.frame.ops.cut_lines import saw_lines
from nodulant.frame.ops.fresh import Setting
from nodulant.frame.ops.operation import Adds, RailOperation
from nodulant.frame.ops.through.splice_plates import DETAIL, Box, ButtWeld, box_parts, joint_of, piece_seams
from nodulant.frame.ops.welded import braces_off, welded
from nodulant.frame.ops.words import BUTTS
from nodulant.frame.place import Place, resolve
from nodulant.frame.route import FRONT, Move
from nodulant.geometry import Outline
from nodulant.geometry.outline import rectangle
from nodulant.parts.cautions import DUST, HOT, WHEEL
from nodulant.parts.joint import Joint
from nodulant.parts.part import Part, Seam
from nodulant.parts.sides import Side
from nodulant.parts.specs import CheckSpec, FatigueDetail, FigureSpec, HoldPoint, ReadingSpec, StepSpec, reading
from nodulant.survey.rail import Rail
from nodulant.survey.vehicle import Feature
from nodulant.units.inline import as_length

APART_MM = 600.0
"""Between two cuts, to begin with."""


class Narrow(RailOperation):
    """From ``start`` (or the rail's front end) to ``end`` (or its rear end) the rail stands ``inward_mm`` further in.

    A jog joins the two lines at each cut: ``butt`` sets the ends side by side in a short box,
    ``angled`` runs over ``run_mm``, ``plated`` overlaps the ends with a plate between.
    """

    adds: ClassVar[Adds] = Adds(
        "Narrowed stretch",
        "between two cuts both rails stand further in, or out: what crosses the frame loses twice that",
    )
    searched: ClassVar[bool] = True
    saws_through: ClassVar[bool] = True
    kind: Literal["narrow"] = "narrow"
    start: Annotated[Place | None, Shown("Front cut", note="without it: from the rail's front end")] = None
    end: Annotated[Place | None, Shown("Rear cut", note="without it: to the rail's rear end")] = None
    inward_mm: Annotated[float, Field(ge=-300, le=300), Shown("Each rail inward by")]
    jog: Annotated[
        Literal["butt", "angled", "plated"],
        Shown("Jog", choices={"angled": "angled run", "butt": "butted ends", "plated": "plated overlap"}),
    ] = "angled"
    run_mm: Annotated[Size, Shown("Length of the run", when=("jog", "angled"))] = 120.0
    box: Annotated[Box, Shown("Piece")] = Box()
    weld: Annotated[ButtWeld, Shown("Butt weld", choices=BUTTS)] = "one-sided-backed"
    weld_leg_mm: Annotated[Thickness, Shown("Weld leg")] = 5.0

    def fresh_piece(self, at: str, choice: str, on: Setting) -> Frozen:
        """The other cut begins on its own side of the one that is there."""
        other, way = (self.end, -1.0) if at == "start" else (self.start, 1.0)
        if at not in {"start", "end"} or other is None:
            return super().fresh_piece(at, choice, on)
        return other.model_copy(update={"offset_mm": other.offset_mm + way * APART_MM})

    @classmethod
    def fresh_values(cls, on: Setting) -> dict[str, object]:
        """Where it begins and what no default tells: most narrowing makes room for the front wheels' lock or tuck."""
        return {"end": on.front(500), "inward_mm": 20.0, "box": Box(wall_mm=6.0)}

    @model_validator(mode="after")
    def _is_cut(self) -> Self:
        if self.start is None and self.end is None:
            raise InputError(
                "nothing is cut: the whole rail would move",
                field="end",
                found="no end",
                acceptable="a front or a rear cut",
            )
        return self

    @property
    def anchor(self) -> Place:
        """The cut that is there."""
        place = self.end or self.start
        if place is None:
            raise ValueError("a narrowed stretch has a cut")
        return place

    def measured_fields(self) -> dict[str, str]:
        """What is read after welding."""
        return {"inward": "inward_mm"}

    def place_fields(self) -> tuple[str, str]:
        """The cuts that it has: one alone stands for both."""
        front = "end" if self.start is None else "start"
        rear = "start" if self.end is None else "end"
        return (f"{front}/offset_mm", f"{rear}/offset_mm")

    def span(self, rail: Rail, features: Iterable[Feature], field: str) -> Span:
        """The stretch that stands further in."""
        known = tuple(features)
        start = resolve(self.start, known, f"{field}/start") if self.start else rail.start_mm
        end = resolve(self.end, known, f"{field}/end") if self.end else rail.end_mm
        return Span(start, end)

    def cut_spans(self, span: Span) -> tuple[Span, ...]:
        """The two jogs, each inside the stretch."""
        run = self._run(span)
        front = (Span(span.start_mm, span.start_mm + run),) if self.start else ()
        rear = (Span(span.end_mm - run, span.end_mm),) if self.end else ()
        return (*front, *rear)

    def cut_lines(self, on: OnRail) -> tuple[Outline, ...]:
        """Through the rail at both ends of every jog."""
        return tuple(line for jog in self.cut_spans(on.span) for line in saw_lines(jog, on.here.height))

    def _run(self, span: Span) -> float:
        return min(self.run_mm if self.jog == "angled" else 1.0, (span.end_mm - span.start_mm) / 2)

    def moves(self, span: Span, side: Side) -> tuple[Move, ...]:
        """In at the front cut, out again at the rear one; the jog takes the place of its own length of rail."""
        run = self._run(span)
        front = (
            Move(span.start_mm, inward_mm=self.inward_mm, gone_mm=run)
            if self.start
            else Move(FRONT, inward_mm=self.inward_mm)
        )
        rear = (Move(span.end_mm - run, inward_mm=-self.inward_mm, gone_mm=run),) if self.end else ()
        return (front, *rear)

    def roles(self) -> tuple[str, ...]:
        """A jog at each cut."""
        return (("jog-front",) if self.start else ()) + (("jog-rear",) if self.end else ())

    def joints(self, on: OnRail) -> tuple[Joint, ...]:
        """The jogs."""
        signs = ((1.0,) if self.start else ()) + ((-1.0,) if self.end else ())
        return tuple(
            joint_of(self.id, on, "jog", self.box, (), span=cut, inward_mm=sign * self.inward_mm)
            for cut, sign in zip(self.cut_spans(on.span), signs, strict=True)
        )

    def parts(self, on: OnRail) -> list[Part]:
        """The jogs' sides."""
        out = []
        for role, cut in zip(self.roles(), self.cut_spans(on.span), strict=True):
            length = max(((cut.end_mm - cut.start_mm) ** 2 + self.inward_mm**2) ** 0.5, 1.0)
            flat = rectangle(0.0, 0.0, length, on.here.height).moved(cut.start_mm, on.here.underside)
            pieces = box_parts(self.id, role, f"Jog, {role.removeprefix('jog-')}", self.box, on, flat, length)
            out += [p.model_copy(update={"rides_mm": cut.start_mm}) for p in pieces]
        return out

    def seams(self, on: OnRail, parts: list[Part]) -> list[Seam]:
        """Each jog's corners, and a butt at both its ends."""
        out: list[Seam] = []
        for k, cut in enumerate(self.cut_spans(on.span)):
            ends = tuple((x, on.here.underside) for x in (cut.start_mm, cut.end_mm))
            out += piece_seams(parts[2 * k : 2 * k + 2], self.box, on, ends, ground=False)
        return out

    def checks(self, on: OnRail) -> tuple[CheckSpec, ...]:
        """A butt offset by more than the rail is wide has nothing to weld to."""
        if self.jog != "butt":
            return ()
        lap = 1.0 - abs(self.inward_mm) / on.here.width
        return (
            CheckSpec(
                limit_id="jog-lap",
                value=lap,
                formula="1 - offset / width",
                values={"offset": abs(self.inward_mm), "width": on.here.width},
                words="how much of the two ends still face each other",
                station_mm=on.span.end_mm,
                remedy="An angled run or a plated overlap carries a jog this wide.",
            ),
        )

    def details(self, on: OnRail) -> tuple[FatigueDetail, ...]:
        """The butts at both ends of each jog."""
        return tuple(
            FatigueDetail(
                about=role,
                detail=DETAIL[self.weld],
                start_mm=cut.start_mm - 1,
                end_mm=cut.end_mm + 1,
                words=f"{self.weld.replace('-', ' ')} butts of the jog",
            )
            for role, cut in zip(self.roles(), self.cut_spans(on.span), strict=True)
        )

    def figures(self, on: OnRail) -> tuple[FigureSpec, ...]:
        """What crosses the frame loses twice the offset."""
        return (
            FigureSpec(
                key="crossmembers",
                name="Crossmembers and mounts in this stretch get shorter by",
                value=2 * self.inward_mm,
                unit="mm",
                basis="both rails move; engine mounts stay tied by a bar and are refitted at their old width",
            ),
        )

    def steps(self, datum: str) -> list[StepSpec]:
        """Tie, mark, cut, move, tack, look and weld."""
        return [
            StepSpec(
                key="tie",
                phase="brace",
                title="Tie the engine mounts to each other by a bar",
                detail="The bar keeps their width and height while the rails move; note both before it goes on.",
                minutes=45,
                tools=("square tube", "welder"),
                once=True,
            ),
            StepSpec(
                key="slide",
                phase="brace",
                title="Temporary crossmember that lets one rail slide",
                detail=f"A tube in a tube, or a bar in clamps, ahead of the stretch and behind it: it keeps both rails level and square and lets one go in by {as_length(2 * self.inward_mm)} while the other stands still. Marked at both ends of its travel; locked before the tacks.",
                minutes=60,
                people=2,
                tools=("square tube", "clamps"),
                acts=("braces",),
                once=True,
            ),
            StepSpec(
                key="mark",
                phase="mark",
                title="Mark both cuts",
                detail=f"Square across both rails from {datum}; centre line of the frame struck on the floor.",
                minutes=40,
                tools=("layout dye", "plumb bob", "square"),
            ),
            StepSpec(
                key="cut",
                phase="cut",
                title="Cut at both jogs",
                detail=f"Crossmembers in between are cut {as_length(2 * self.inward_mm)} shorter first, half from each end where their holes allow. Bridges of {as_length(10)} in the corners stay until all cuts are as far.",
                minutes=90,
                people=2,
                tools=("cut-off wheel",),
                cautions=(WHEEL, DUST, HOT),
                hides="the uncut rail",
                acts=("cuts",),
            ),
            StepSpec(
                key="move",
                phase="fit",
                title=f"Part the bridges and move the rails {as_length(self.inward_mm)} inward",
                detail="By the sliding crossmember, both rails by turns, parallel to the line on the floor; locked and clamped.",
                minutes=60,
                people=2,
                tools=("clamps", "cut-off wheel"),
                cautions=(WHEEL,),
                acts=("moves",),
                once=True,
            ),
            welded(
                key="tack",
                phase="tack",
                title="Tack the jogs",
                detail=f"Parallel to the centre line, diagonals within {as_length(2)}, same height left and right.",
                minutes=120,
                people=2,
                with_tools=("clamps",),
                hold=HoldPoint(kind="reading", ask="Offset of the web from its old line", reading="inward"),
            ),
            welded(
                key="weld",
                phase="weld",
                title="Weld the jogs",
                detail="Short beads, side to side, hand-warm between; the crossmember stays locked until cold.",
                minutes=150,
                hides="the roots",
                acts=("welds",),
            ),
            braces_off(),
        ]

    def readings(self, datum: str) -> list[ReadingSpec]:
        """How far the rail went in."""
        return [reading("inward", "Offset of the web from its old line", self.inward_mm, "centre line of the frame")]
