"""What every operation that cuts a rail through shares: side plates, welds, steps and readings."""

from typing import Annotated, ClassVar, Literal

from nodulant.base.model import Extra, Frozen, Thickness
from nodulant.base.shown import Shown
from nodulant.frame.additions import Additions
from nodulant.frame.columns import RailColumns
from nodulant.frame.here import OnRail, Span
from nodulant.frame.ops.at_place import AtPlace
from nodulant.frame.ops.cut_lines import saw_lines
from nodulant.frame.ops.fresh import Setting
from nodulant.frame.ops.notches.notch_plan import SidePlate
from nodulant.frame.ops.through.splice_plates import (
    Box,
    ButtWeld,
    butt,
    fillets,
    joint_details,
    overlap_checks,
    piece_seams,
    plate_columns,
    plate_part,
)
from nodulant.frame.ops.welded import braces, braces_off, welded
from nodulant.frame.ops.words import BUTTS, PLATES
from nodulant.frame.place import Place
from nodulant.geometry import Outline
from nodulant.materials.weld import throat_after_grinding_mm
from nodulant.parts.cautions import DUST, HOT, WHEEL
from nodulant.parts.part import Part, Seam
from nodulant.parts.specs import CheckSpec, FatigueDetail, HoldPoint, ReadingSpec, StepSpec, reading
from nodulant.units.inline import as_amount, as_length, as_place, as_thickness

BRACE = "The rail is about to be in two."
OPEN_SIDE = "The rail is about to be in two: the cut's open side only, its other side is held already."
AS_HEAVY = f"An end over {as_amount('mass', 25)} takes a helper, one over {as_amount('mass', 60)} a crane."
ONE_SIDE = "One side at a time; the other side stays whole until this one is tacked and propped."
AS_ONE = f"Both sides are cut before anything moves: leave a bridge of {as_length(10)} in each corner here until the other side is cut as far."
CROWN_MM = 1.5
"""What a bead stands proud before it is ground."""
SQUARE = f"Plumb, square and level checked against the datum on both rails, diagonals within {as_length(2)}, before anything but tacks."


class CutThrough(AtPlace):
    """An operation at one place where the rail is cut in two and joined again."""

    saws_through: ClassVar[bool] = True
    corner_roles: ClassVar[tuple[str, ...]] = ()
    """Roles of what stiffens the joint's corners."""
    place: Annotated[Place, Shown("Cut")]
    weld: Annotated[ButtWeld, Shown("Butt weld", choices=BUTTS, order=1)] = "one-sided-backed"
    """How the butt is made: it decides the fatigue class."""
    weld_leg_mm: Annotated[Thickness, Shown("Weld leg", order=1)] = 5.0
    root_gap_mm: Annotated[Extra, Shown("Root gap", kind="thickness", order=1)] = 2.5
    """Open root of the butt; about half the wall lets the weld through."""
    ground: Annotated[
        bool,
        Shown(
            "Ground flush",
            order=1,
            note="Default: an open root of half the wall where it will be ground flush; tight where it stays as welded. Wider than the wall it gets a filler piece.",
        ),
    ] = True
    """Ground flush under its side plates: the crown goes, what is fused stays."""
    brace: Annotated[
        Literal["both", "open-side"],
        Shown(
            "Braced",
            choices={"both": "both sides of the cut", "open-side": "only the open side"},
            order=1,
            note=f"Default: both sides, unless a crossmember within {as_length(150)} of the cut is brace enough.",
        ),
    ] = "both"
    outer_plate: Annotated[SidePlate | None, Shown("Outer side plate", order=1)] = None
    inner_plate: Annotated[SidePlate | None, Shown("Inner side plate", order=1)] = None

    def fresh_piece(self, at: str, choice: str, on: Setting) -> Frozen:
        """Side plates reach past a whole joint."""
        return SidePlate.past_a_joint(on) if at in PLATES else super().fresh_piece(at, choice, on)

    def plates(self) -> dict[str, SidePlate]:
        """Side plates by role."""
        rows = {"outer": self.outer_plate, "inner": self.inner_plate}
        return {role: plate for role, plate in rows.items() if plate is not None}

    def cut_spans(self, span: Span) -> tuple[Span, ...]:
        """The rail is in two here."""
        return (span,)

    def cut_lines(self, on: OnRail) -> tuple[Outline, ...]:
        """Through the rail, at both ends of what comes out."""
        return saw_lines(on.span, on.here.height, self.lean_deg)

    @property
    def lean_deg(self) -> float:
        """How far the cut leans rearward going up, degrees."""
        return 0.0

    def roles(self) -> tuple[str, ...]:
        """Its side plates."""
        return tuple(self.plates())

    def rise_behind_mm(self) -> float:
        """How much higher the rail behind stands, mm."""
        return 0.0

    def additions(self, span: Span, rail: RailColumns, carried: frozenset[str], boxed: bool) -> Additions:
        """Side plates over the cut; the rail's own metal is whole beside it."""
        plates = []
        if self.outer_plate and "outer" in carried:
            plates.append(plate_columns(self.outer_plate, "outer", rail, span.start_mm, span.end_mm))
        if self.inner_plate and "inner" in carried:
            plates.append(plate_columns(self.inner_plate, "inner", rail, span.start_mm, span.end_mm))
        return Additions(0.0 * rail.x, tuple(plates))

    def run_mm(self, on: OnRail) -> float:
        """How far behind the cut the rail behind starts in the planned frame, mm."""
        return on.span.end_mm - on.span.start_mm

    def parts(self, on: OnRail) -> list[Part]:
        """Side plates as flat shapes."""
        rise, run = self.rise_behind_mm(), self.run_mm(on)
        out = []
        if self.outer_plate:
            out.append(plate_part(self.id, self.outer_plate, "outer", on, run, rise))
        if self.inner_plate:
            out.append(plate_part(self.id, self.inner_plate, "inner", on, run, rise))
        return out

    def seams(self, on: OnRail, parts: list[Part]) -> list[Seam]:
        """Butts of the joint, fillets around what lies over it."""
        over = [p for p in parts if p.role in {"outer", "inner", *self.corner_roles}]
        return [*self.butts(on, parts), *fillets(over, on, self.weld_leg_mm)]

    def butts(self, on: OnRail, parts: list[Part]) -> list[Seam]:
        """Round the rail's ends: to the piece that goes in between, or to each other."""
        pieces = [p for p in parts if p.role not in {"outer", "inner", *self.corner_roles}]
        under, at = on.here.underside, on.span.start_mm
        if not pieces:
            return [butt(on, f"rail/{on.side}/behind", at, under, ground=self.ground)]
        ends = ((at, under), (at + self.run_mm(on), under + self.rise_behind_mm()))
        return piece_seams(pieces, self.piece, on, ends, ground=self.ground)

    @property
    def piece(self) -> Box:
        """What goes in between."""
        return Box()

    def checks(self, on: OnRail) -> tuple[CheckSpec, ...]:
        """Overlap of the side plates; the butt's throat."""
        return (*overlap_checks(self.plates(), on), self._throat(on))

    def _throat(self, on: OnRail) -> CheckSpec:
        wall, gap = on.here.wall, self.root_gap_mm
        both = self.weld in {"two-sided", "two-sided-ground"}
        throat = wall if both else throat_after_grinding_mm(wall, gap, CROWN_MM, self.ground)
        filler = gap > wall
        return CheckSpec(
            limit_id="throat",
            value=0.0 if filler else throat / wall,
            formula="throat / wall",
            values={"throat": 0.0 if filler else throat, "wall": wall},
            words=f"root gap {as_thickness(gap)}, {'ground flush' if self.ground else 'left as welded'}, {self.weld.replace('-', ' ')}; an open root of half the wall is taken as through",
            station_mm=on.span.start_mm,
            same_as_stock=not filler and throat >= wall - 1e-9,
            remedy="A gap wider than the wall gets a filler piece set just below flush, never a bridge of weld."
            if filler
            else f"Open the root to {as_thickness(wall / 2)}, or weld from both sides.",
        )

    def details(self, on: OnRail) -> tuple[FatigueDetail, ...]:
        """The butt and the plates' ends."""
        return joint_details(self.weld, self.plates(), on)

    def work(self) -> str:
        """What is made here, in words."""
        return "Cut through and join again"

    def steps(self, datum: str) -> list[StepSpec]:
        """Brace, mark, cut, tack, look, weld and plate."""
        place = f"{as_place(self.place.offset_mm)} {datum}"
        rows = [
            braces(BRACE if self.brace == "both" else OPEN_SIDE),
            StepSpec(
                key="mark",
                phase="mark",
                title="Mark the cut",
                detail=f"{self.work()}: cut line {place}, square to the underside, two scribed lines that outlive the cut.",
                minutes=30,
                tools=("layout dye", "scriber", "square"),
                hold=HoldPoint(kind="reading", ask="Cut line from its datum", reading="position"),
            ),
            StepSpec(
                key="cut",
                phase="cut",
                title="Cut through",
                detail=AS_ONE if self.moves_as_one else ONE_SIDE,
                minutes=60,
                tools=("cut-off wheel", "flap disc"),
                cautions=(WHEEL, DUST, HOT),
                hides="the uncut rail",
                acts=("cuts",),
            ),
        ]
        if self.moves_as_one:
            rows.append(self._move())
        rows += self._joining()
        if self.plates():
            rows.append(
                welded(
                    key="plates",
                    phase="plate",
                    title="Side plates on",
                    detail=f"{' and '.join(self.plates())} plate over the ground butts, tapered ends, no weld straight across a tension flange.",
                    minutes=90,
                    with_tools=("clamps",),
                    hides="the butts",
                )
            )
        return [*rows, braces_off()]

    @property
    def moves_as_one(self) -> bool:
        """Whether both rails' ends are one thing that moves once both are cut."""
        return False

    def _move(self) -> StepSpec:
        """The last bridges, and the end moves."""
        return StepSpec(
            key="move",
            phase="fit",
            title="Part the last bridges and move the end",
            detail=f"On its legs or a crane, level, by small steps left and right; onto its measured spacers, then clamped. {AS_HEAVY}",
            minutes=90,
            people=2,
            tools=("jacks", "legs", "spacers", "clamps", "cut-off wheel"),
            cautions=(WHEEL, "Nobody in or under either part while it moves."),
            acts=("moves",),
            once=True,
        )

    def _joining(self) -> list[StepSpec]:
        """Tack and weld."""
        return [
            welded(
                key="tack",
                phase="tack",
                title="Fit and tack",
                detail=SQUARE,
                minutes=120,
                people=2,
                with_tools=("clamps", "level"),
                hold=HoldPoint(kind="look", ask="Square, level and at its height on both rails"),
            ),
            StepSpec(
                key="weld",
                phase="weld",
                title="Weld the butts",
                detail=f"{self.weld.replace('-', ' ')}; short beads spread along and around, hand-warm between.",
                minutes=120,
                tools=("welder",),
                cautions=(HOT, "Battery and computers disconnected before arc welding."),
                hides="the roots",
                acts=("welds",),
            ),
        ]

    def measured_fields(self) -> dict[str, str]:
        """What is read after welding."""
        return {"position": "place"}

    def readings(self, datum: str) -> list[ReadingSpec]:
        """Where the cut is."""
        return [reading("position", "Cut line", self.place.offset_mm, datum)]
