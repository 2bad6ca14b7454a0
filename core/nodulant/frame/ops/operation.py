"""What every operation on a rail says of itself; the layers above ask nothing else.

An operation is one frozen model with its parameters, and these answers. All of them have a
plain default, so that a new operation states only what it does.
"""

from collections.abc import Iterable
from typing import Annotated, ClassVar, NamedTuple, Self

from nodulant.base.model import Frozen, Id, Name
from nodulant.base.shown import Shown
from nodulant.frame.additions import Additions, untouched
from nodulant.frame.columns import RailColumns
from nodulant.frame.here import OnRail, Span
from nodulant.frame.ops.fresh import Setting, fresh_piece, unused
from nodulant.frame.place import Place
from nodulant.frame.pose import Pose
from nodulant.frame.route import Move
from nodulant.geometry import Outline, Vertex
from nodulant.parts.bought import Needed
from nodulant.parts.joint import Joint
from nodulant.parts.part import Part, Seam
from nodulant.parts.sides import Side, Sides
from nodulant.parts.solid import Solid
from nodulant.parts.specs import CheckSpec, FatigueDetail, FigureSpec, ReadingSpec, StepSpec
from nodulant.survey.crossmember import Crossmember
from nodulant.survey.rail import Rail
from nodulant.survey.vehicle import Feature, Rails, Survey


class Adds(NamedTuple):
    """How a kind of operation is offered: what it is called, and what for in one line."""

    name: str
    says: str


class RailOperation(Frozen):
    """An operation on one rail or on both alike."""

    adds: ClassVar[Adds]
    saws_through: ClassVar[bool] = False
    """Whether it parts the rail, so that an end is free until it is joined again."""
    searched: ClassVar[bool] = False
    """Whether the metal that it needs can be searched for."""
    one_piece: ClassVar[bool] = False
    """Whether it is one thing from rail to rail: its steps are taken once, not once a side."""
    carries: ClassVar[str] = ""
    """What other things can ride with, where something hangs on it that they can: words with its {name}."""
    follows: ClassVar[tuple[str, ...]] = ()
    """Fields that its joint decides, where it is a mount; all others are the mount's own."""
    id: Id
    name: Annotated[Name, Shown("Name")]
    side: Sides = "both"
    pair_id: Id | None = None

    @classmethod
    def fresh_values(cls, on: Setting) -> dict[str, object]:
        """Where a new one begins, and what no default tells."""
        return {}

    @classmethod
    def fresh(cls, on: Setting, taken: Iterable[str]) -> Self:
        """A new one on the rails of this survey; ``taken`` are the ids in use."""
        own_id, number = unused(str(cls.model_fields["kind"].default), taken)
        name = cls.adds.name if number == 1 else f"{cls.adds.name} {number}"
        return cls.model_validate({"id": own_id, "name": name, **cls.fresh_values(on)})

    def fresh_piece(self, at: str, choice: str, on: Setting) -> Frozen:
        """What the optional part ``at`` begins with; raises InputError where there is no such part."""
        info = type(self).model_fields.get(at)
        return fresh_piece(info.annotation if info else None, choice, on, at)

    def following(self, joint: "RailOperation") -> Self:
        """The mount where ``joint``, one of its kind as the suspension asks for it, has it; its own sizes stay."""
        update: dict[str, object] = {}
        for path in self.follows:
            name, _, inner = path.partition(".")
            value = getattr(joint, name)
            if inner:
                part = update.get(name, getattr(self, name))
                value = part.model_copy(update={inner: getattr(value, inner)}) if isinstance(part, Frozen) else part
            update[name] = value
        return self.model_copy(update=update)

    @property
    def anchor(self) -> Place:
        """The place that the operation is measured from."""
        raise NotImplementedError

    def span(self, rail: Rail, features: Iterable[Feature], field: str) -> Span:
        """Stations between which it works; raises UnknownReference at ``field``."""
        raise NotImplementedError

    def place_fields(self) -> tuple[str, str]:
        """Fields that hold the front and the rear end of the span, for errors."""
        return ("start/offset_mm", "end/offset_mm")

    def refuse(self, rail_height_mm: float, field: str) -> None:
        """Raise InputError where the rail here cannot take it."""

    def as_measured(self, measured: dict[str, float]) -> Self:
        """The operation with as-built readings, mm, in place of planned values."""
        update: dict[str, object] = {}
        for key, field in self.measured_fields().items():
            if key in measured:
                planned = getattr(self, field)
                place = isinstance(planned, Place)
                update[field] = planned.model_copy(update={"offset_mm": measured[key]}) if place else measured[key]
        return self.model_copy(update=update) if update else self

    def measured_fields(self) -> dict[str, str]:
        """Which field each reading's key measures; a place is measured by its offset."""
        return {}

    def marks(self, span: Span) -> tuple[float, ...]:
        """Stations that its shape needs: what is not straight between its ends is sectioned there."""
        return ()

    def cut_spans(self, span: Span) -> tuple[Span, ...]:
        """Where stock metal goes, so that no other operation may begin, end or cut there."""
        return ()

    @property
    def on_rail(self) -> bool:
        """Whether it needs the rail whole at its ends; work on an axle does not, nor what stands on the rail's top."""
        return True

    @property
    def closes(self) -> float | None:
        """How far inside the lips a plate that closes an open rail lies, mm; None where there is none."""
        return None

    @property
    def welded(self) -> bool:
        """Whether it welds on the rail, so that the metal beside it loses what cold work or temper gave it."""
        return bool(self.roles())

    def roles(self) -> tuple[str, ...]:
        """Roles of the parts that it adds, in the order they are fitted."""
        return ()

    @property
    def drills(self) -> bool:
        """Whether it makes holes in the rail."""
        return False

    def replaces(self, span: Span, x_mm: float) -> bool:
        """Whether the rail's own metal at a station is taken out and other metal put in its place."""
        return False

    def rework(self, rail: RailColumns, span: Span, carried: frozenset[str]) -> RailColumns:
        """The rail itself where the operation changes its metal: cut back to sound, or another rail spliced on."""
        return rail

    def additions(self, span: Span, rail: RailColumns, carried: frozenset[str], boxed: bool) -> Additions:
        """What it changes in the sections; ``carried`` are the roles welded on, ``boxed`` says the rail is closed here."""
        return untouched(rail.x)

    def moves(self, span: Span, side: Side) -> tuple[Move, ...]:
        """How the rail behind it moves."""
        return ()

    def pose(self, rails: Rails, features: Iterable[Feature]) -> Pose | None:
        """How what hangs on it is set on the surveyed frame; None where nothing hangs on it."""
        return None

    def stands_at(self, span: Span) -> tuple[float, ...]:
        """Stations away from its own place at which it hands forces to the rail."""
        return ()

    def lowers(self) -> float:
        """How far the vehicle comes down over an axle that hangs on it, mm."""
        return 0.0

    def ties(self, x_mm: float) -> tuple[Crossmember, ...]:
        """Crossmembers that it adds at station ``x_mm``."""
        return ()

    def solids(self, on: OnRail) -> tuple[Solid, ...]:
        """What its parts fill in space, for the suspension's views, right side."""
        return ()

    def joints(self, on: OnRail) -> tuple[Joint, ...]:
        """Inserted metal and cut-through joints, for the strength layers."""
        return ()

    def parts(self, on: OnRail) -> list[Part]:
        """Every plate and piece it adds on one side."""
        return []

    def seams(self, on: OnRail, parts: list[Part]) -> list[Seam]:
        """The welds that hold them."""
        return []

    def bought(self, on: OnRail) -> tuple[Needed, ...]:
        """Tube and bolts that it needs on one side, besides its plates."""
        return ()

    def end_on_rail(self, on: OnRail) -> Outline | None:
        """What of a member from rail to rail meets the rail's side, as seen from the side; None where nothing does."""
        return None

    def cut_edge(self) -> Outline | None:
        """Edge of a cut, dx from the centre and z inward from the edge that is cut; None where nothing is cut out."""
        return None

    def cut_templates(self) -> tuple[tuple[str, Outline], ...]:
        """Edges to cut to, each with the wall that it is for where walls differ."""
        edge = self.cut_edge()
        return () if edge is None else (("", edge),)

    def cut_lines(self, on: OnRail) -> tuple[Outline, ...]:
        """Where the rail's side is cut with no edge for plates to follow: stations, and heights above its underside, mm."""
        return ()

    @property
    def opens(self) -> bool:
        """Whether it has such an edge."""
        return False

    @property
    def lined_mm(self) -> float:
        """Thickness of what lines that edge, mm."""
        return 0.0

    @property
    def from_above(self) -> bool:
        """Whether that edge is the rail's top."""
        return False

    def edge_above(self, level_mm: float) -> tuple[Vertex, ...]:
        """The part of that edge above a level, front to rear."""
        return ()

    def bends(self, part: Part, centre_mm: float) -> tuple[Outline, ...]:
        """Bend lines on the flat shape of ``part``."""
        return ()

    def formed(self, part: Part) -> str:
        """How ``part`` is bent or rolled, and which way; empty where it stays flat."""
        return ""

    def checks(self, on: OnRail) -> tuple[CheckSpec, ...]:
        """Checks that need only the operation and the rail."""
        return ()

    def details(self, on: OnRail) -> tuple[FatigueDetail, ...]:
        """Edges and welds whose fatigue counts."""
        return ()

    def figures(self, on: OnRail) -> tuple[FigureSpec, ...]:
        """Numbers that are shown, not judged."""
        return ()

    def steps(self, datum: str) -> list[StepSpec]:
        """Build steps on one side; ``datum`` names the feature it is measured from."""
        return []

    def readings(self, datum: str) -> list[ReadingSpec]:
        """As-built readings on one side."""
        return []

    def readings_on(self, side: Side, datum: str, survey: Survey) -> list[ReadingSpec]:
        """As-built readings of a thing in one piece on one side; those that both sides share are the left's."""
        return self.readings(datum) if side == "left" else []
