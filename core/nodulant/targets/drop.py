"""The drop stack: named contributions that add up to the drop at an axle.

Drop is positive when the body goes down. Each mechanism has defaults for what it keeps and
whether it brings the axle closer to the rail ('costs travel'). A notch lowers nothing: it
buys travel, so an entry of that mechanism counts as zero and is reported.
"""

from typing import Annotated, Literal, Self

from pydantic import Field, model_validator

from nodulant.base.errors import InputError
from nodulant.base.model import Frozen, Id, Name
from nodulant.parts.sides import AxleName
from nodulant.units.inline import as_length

Mechanism = Literal[
    "springs",
    "torsion-keys",
    "drop-arms",
    "spring-flip",
    "blocks",
    "air",
    "tyre",
    "spindle",
    "pivots-raised",
    "z-step",
    "raise",
    "other",
    "notch",
]
Amount = Annotated[float, Field(ge=-1000, le=1000)]
OVERLAPPING: tuple[frozenset[str], ...] = (
    frozenset({"pivots-raised", "raise"}),
    frozenset({"z-step", "raise"}),
    frozenset({"pivots-raised", "z-step"}),
    frozenset({"springs", "air"}),
    frozenset({"springs", "torsion-keys"}),
)
"""Mechanisms that often are one movement of the same parts (common practice)."""


COUNTS_MM = 0.05


class Keeps(Frozen):
    """What a mechanism leaves as designed, each judged for itself."""

    camber: bool = True
    toe: bool = True
    anti_dive: bool = True


class DropEntry(Frozen):
    """One contribution; ``amount_mm`` None is the one to be solved for."""

    id: Id
    name: Name
    mechanism: Mechanism
    amount_mm: Amount | None = None
    keeps: Keeps = Keeps()
    costs_travel: bool = False
    """It moves the axle towards the rail."""


class CausedEntry(DropEntry):
    """A contribution that a cut makes: nobody types it, and it is as much as the cut moves."""


class StraightPath(Frozen):
    """The axle moves straight up and down."""

    kind: Literal["straight"] = "straight"


class ArcPath(Frozen):
    """The axle swings about a pivot ahead of or behind it."""

    kind: Literal["arc"] = "arc"
    radius_mm: Annotated[float, Field(ge=150, le=5000)]
    pivot: Literal["ahead", "behind"] = "ahead"
    pivot_above_mm: Annotated[float, Field(ge=-1000, le=1000)] = 0.0
    """Pivot above the axle's centre at ride height."""

    @model_validator(mode="after")
    def _reaches(self) -> Self:
        if abs(self.pivot_above_mm) > 0.7 * self.radius_mm:
            raise InputError(
                "the pivot lies too far above or below for this radius",
                field="pivot_above_mm",
                found=as_length(self.pivot_above_mm),
                acceptable=f"within {as_length(0.7 * self.radius_mm)}",
            )
        return self


AxlePath = Annotated[StraightPath | ArcPath, Field(discriminator="kind")]


class Stack(Frozen):
    """Target at one axle and what it is made of: the frame's straight part against the ground, new less stock."""

    drop_mm: Amount = 0.0
    entries: Annotated[tuple[DropEntry, ...], Field(max_length=20)] = ()


class FrontTarget(Stack):
    """Target at the front axle; its bump counts where no suspension is designed there."""

    bump_mm: Annotated[float, Field(ge=1, le=500)] | None = None


class Targets(Stack):
    """Target at the rear axle with its stack, travel and the axle's path, and the target at the front."""

    front: FrontTarget = FrontTarget()
    bump_mm: Annotated[float, Field(ge=1, le=500)] = 80.0
    droop_mm: Annotated[float, Field(ge=1, le=500)] = 80.0
    path: AxlePath = StraightPath()


class SolvedEntry(Frozen):
    """One entry with its amount, mm, and whether it was solved."""

    id: str
    name: str
    amount_mm: float
    solved: bool
    caused: bool
    """Whether a cut of the plan makes it."""


class Overlap(Frozen):
    """Two entries that may be one movement of the same parts."""

    one: str
    two: str


class DropResult(Frozen):
    """The stack added up, mm."""

    entries: tuple[SolvedEntry, ...]
    total_mm: float
    towards_rail_mm: float
    claimed_by_notch_mm: float
    camber_lost_to: tuple[str, ...]
    """Names of entries that count for something and do not keep camber; none where it is kept."""
    toe_lost_to: tuple[str, ...]
    anti_dive_lost_to: tuple[str, ...]
    overlapping: tuple[Overlap, ...]


def stack_of(targets: Targets, axle: AxleName) -> Stack:
    """The stack of one axle."""
    return targets.front if axle == "front" else targets


def towards_rail(targets: Targets, axle: AxleName) -> float:
    """How far the stack brings an axle closer to the frame, mm; raises InputError as ``add_up`` does."""
    return add_up(stack_of(targets, axle), axle).towards_rail_mm


def add_up(targets: Stack, axle: AxleName = "rear") -> DropResult:
    """Add the stack and solve its one unknown entry; raises InputError when two are unknown."""
    at = "/design/targets/front" if axle == "front" else "/design/targets"
    unknown = [i for i, e in enumerate(targets.entries) if e.amount_mm is None and e.mechanism != "notch"]
    if len(unknown) > 1:
        raise InputError(
            "only one entry of the stack can be left to be solved",
            field=f"{at}/entries/{unknown[1]}/amount_mm",
            found="empty",
            acceptable="an amount",
        )
    known = sum(_counted(e) for e in targets.entries)
    rest = targets.drop_mm - known
    solved = tuple(
        SolvedEntry(
            id=e.id,
            name=e.name,
            amount_mm=rest if i in unknown else _counted(e),
            solved=i in unknown,
            caused=isinstance(e, CausedEntry),
        )
        for i, e in enumerate(targets.entries)
    )
    costs = {e.id for e in targets.entries if e.costs_travel}
    amounts = {e.id: e.amount_mm for e in solved}
    counting = [e for e in targets.entries if abs(amounts[e.id]) > COUNTS_MM]
    return DropResult(
        entries=solved,
        total_mm=sum(e.amount_mm for e in solved),
        towards_rail_mm=sum(e.amount_mm for e in solved if e.id in costs),
        claimed_by_notch_mm=sum(abs(e.amount_mm or 0.0) for e in targets.entries if e.mechanism == "notch"),
        camber_lost_to=tuple(e.name for e in counting if not e.keeps.camber),
        toe_lost_to=tuple(e.name for e in counting if not e.keeps.toe),
        anti_dive_lost_to=tuple(e.name for e in counting if not e.keeps.anti_dive),
        overlapping=_overlapping(targets),
    )


def _counted(entry: DropEntry) -> float:
    return 0.0 if entry.mechanism == "notch" or entry.amount_mm is None else entry.amount_mm


def _overlapping(targets: Stack) -> tuple[Overlap, ...]:
    pairs = []
    for i, one in enumerate(targets.entries):
        for two in targets.entries[:i]:
            both_cut = isinstance(one, CausedEntry) and isinstance(two, CausedEntry)
            if frozenset({one.mechanism, two.mechanism}) in OVERLAPPING and not both_cut:
                pairs.append(Overlap(one=two.name, two=one.name))
    return tuple(pairs)
