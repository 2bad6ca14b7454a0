"""Append-only entries: readings, lengths between points, sign-offs, overrides, decisions and withdrawals.

Nothing is changed or deleted; a wrong entry is withdrawn by a counter-entry.
"""

from typing import Annotated, Literal, Self

from pydantic import Field, model_validator

from nodulant.asbuilt.entry import Logged, Number, Subject
from nodulant.asbuilt.floor import FLOOR_KINDS, GoOnEntry, LeftOffEntry, NoteEntry, PhotoEntry, ReworkEntry, StopEntry
from nodulant.asbuilt.record import RECORD_KINDS, BoltsEntry, InspectionEntry, OnTheRoadEntry, PaintEntry, WeldEntry
from nodulant.base.errors import InputError
from nodulant.base.model import Frozen, Id, Name, Text
from nodulant.parts.measure import Measure
from nodulant.parts.sides import Side
from nodulant.units.inline import as_length


class _Measured(Logged):
    """A number as it was typed, with the instrument and what that is read to, in the reading's unit."""

    text: Annotated[str, Field(max_length=60)] = ""
    instrument: Annotated[str, Field(max_length=60)] = "tape"
    resolution: Annotated[float, Field(ge=0, le=50)] = 0.5
    note: Text = ""

    @model_validator(mode="before")
    @classmethod
    def _as_written_before(cls, data: object) -> object:
        """Entries of an older version were lengths and said so in the field's name."""
        return by_new_names(data)


def by_new_names(data: object) -> object:
    """A reading with its fields' names as they are now."""
    if not isinstance(data, dict):
        return data
    return {_NEW_NAMES.get(key, key): value for key, value in data.items()}


_NEW_NAMES = {"value_mm": "value", "resolution_mm": "resolution"}


class ReadingEntry(_Measured):
    """A measured value of one operation, suspension or wheel on one side, in the unit of what is read."""

    kind: Literal["reading"] = "reading"
    operation: Id
    key: Id
    side: Side
    value: Annotated[float, Field(ge=-20_000, le=20_000)]
    unit: Measure = "mm"
    again: bool = False
    """Read once more on the same metal: it counts with those before it, and does not stand in their place."""

    @model_validator(mode="after")
    def _a_size_is_positive(self) -> Self:
        if self.unit == "mm" and self.value <= 0 and self.key.rsplit("-", 1)[-1] not in SIGNED:
            raise InputError(
                "a measured size is more than nothing",
                field="value",
                found=as_length(self.value),
                acceptable="more than 0",
            )
        return self


SIGNED = frozenset({"position", "off", "along", "up", "across"})
"""Last words of the keys of lengths that may point either way."""
LONGEST_MM = 20_000.0
When = Literal["", "before", "tacked", "done"]
"""When the frame was taped: before the cut, after the tack, at the end; empty where nobody said."""
HUBS = ("hub-front", "hub-rear")
"""Points of a network that are no feature: the middle of each hub's flange."""


class FramePoint(Frozen):
    """A surveyed feature on one rail, plumbed down to the floor or taped at the web's outer face; or a hub."""

    feature_id: Id
    side: Side

    @property
    def id(self) -> str:
        """By which a network refers to it."""
        return f"{self.feature_id}/{self.side}"


class LengthEntry(_Measured):
    """A tape stretched between two points of the frame, mm."""

    kind: Literal["length"] = "length"
    start: FramePoint
    end: FramePoint
    value: float
    resolution: Annotated[float, Field(ge=0, le=50)] = 1.0
    when: When = ""

    @model_validator(mode="after")
    def _between_two(self) -> Self:
        if not 0 < self.value <= LONGEST_MM:
            raise InputError(
                "no tape between two points of a frame reads that",
                field="value",
                found=self.text or as_length(self.value),
                acceptable="more than nothing and less than 20 m (65 ft)",
            )
        if self.start == self.end:
            raise InputError(
                "a length lies between two points",
                field="end",
                found=self.end.id,
                acceptable="another point than the one it starts at",
            )
        return self


class LevelEntry(_Measured):
    """How high the underside stands at a point of the frame over one level line, mm; below it negative."""

    kind: Literal["level"] = "level"
    point: FramePoint
    value: Annotated[float, Field(ge=-5_000, le=5_000)]
    instrument: Annotated[str, Field(max_length=60)] = "levels from one line"
    when: When = ""


class SignOffEntry(Logged):
    """A step signed; names the hash of what was evaluated."""

    kind: Literal["sign-off"] = "sign-off"
    step: Subject
    evaluated: Annotated[str, Field(max_length=80)]
    reading: Number | None = None
    minutes: Annotated[int, Field(ge=0, le=10_000)] | None = None
    """How long it took; None where nobody said."""
    planned_minutes: Annotated[int, Field(ge=0, le=10_000)] | None = None
    """How long the plan gave it then."""
    note: Text = ""


class OverrideEntry(Logged):
    """A lock or hold point passed with a reason."""

    kind: Literal["override"] = "override"
    subject: Subject
    reason: Name


class DecisionEntry(Logged):
    """A deviation accepted or sent back."""

    kind: Literal["decision"] = "decision"
    subject: Subject
    choice: Literal["accept", "rework"]
    reason: Name


class PartEntry(Logged):
    """A part that sets a size is here, the right one and measured; or it is not, after all."""

    kind: Literal["part"] = "part"
    part: Subject
    here: bool = True
    text: Text = ""
    """What was read on it."""


class WithdrawalEntry(Logged):
    """Takes back the entry of that number."""

    kind: Literal["withdrawal"] = "withdrawal"
    entry: Number
    reason: Name


Entry = Annotated[
    ReadingEntry
    | LengthEntry
    | LevelEntry
    | SignOffEntry
    | OverrideEntry
    | DecisionEntry
    | WithdrawalEntry
    | PartEntry
    | NoteEntry
    | PhotoEntry
    | ReworkEntry
    | LeftOffEntry
    | StopEntry
    | GoOnEntry
    | WeldEntry
    | BoltsEntry
    | PaintEntry
    | OnTheRoadEntry
    | InspectionEntry,
    Field(discriminator="kind"),
]


def standing(entries: tuple[Entry, ...]) -> tuple[Entry, ...]:
    """Entries that were not withdrawn, withdrawals left out."""
    gone = {e.entry for e in entries if isinstance(e, WithdrawalEntry)}
    return tuple(e for e in entries if e.number not in gone and not isinstance(e, WithdrawalEntry))


def deciding(entries: tuple[Entry, ...]) -> tuple[Entry, ...]:
    """Entries that a figure or a step's state depends on: all but the floor's own notes and the record of joints."""
    return tuple(e for e in entries if e.kind not in FLOOR_KINDS | RECORD_KINDS)


def stopped(entries: tuple[Entry, ...]) -> StopEntry | None:
    """The stop that still holds: a later 'go on' ends it."""
    own = [e for e in standing(entries) if isinstance(e, StopEntry | GoOnEntry)]
    return own[-1] if own and isinstance(own[-1], StopEntry) else None


def in_hand(entries: tuple[Entry, ...]) -> dict[str, PartEntry]:
    """The newest standing word on each part."""
    return {e.part: e for e in standing(entries) if isinstance(e, PartEntry)}


def overridden(entries: tuple[Entry, ...], subject: str) -> OverrideEntry | None:
    """The newest standing override of ``subject``, if there is one."""
    own = [e for e in standing(entries) if isinstance(e, OverrideEntry) and e.subject == subject]
    return own[-1] if own else None
