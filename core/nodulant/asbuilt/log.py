"""Append-only entries: readings, lengths between points, sign-offs, overrides, decisions and withdrawals.

Nothing is changed or deleted; a wrong entry is withdrawn by a counter-entry.
"""

from typing import Annotated, Literal, Self

from pydantic import Field, model_validator

from nodulant.asbuilt.entry import Logged, Number, Subject
from nodulant.asbuilt.floor import FLOOR_KINDS, GoOnEntry, LeftOffEntry, NoteEntry, PhotoEntry, ReworkEntry, StopEntry
from nodulant.base.errors import InputError
from nodulant.base.model import Frozen, Id, Name, Text
from nodulant.parts.sides import Side
from nodulant.units.inline import as_length


class _Measured(Logged):
    """A number as it was typed, with the instrument and what that can be read to, mm."""

    text: Annotated[str, Field(max_length=60)] = ""
    instrument: Annotated[str, Field(max_length=60)] = "tape"
    resolution_mm: Annotated[float, Field(ge=0, le=50)] = 0.5
    note: Text = ""


class ReadingEntry(_Measured):
    """A measured value of one operation on one side, mm."""

    kind: Literal["reading"] = "reading"
    operation: Id
    key: Id
    side: Side
    value_mm: Annotated[float, Field(ge=-20_000, le=20_000)]

    @model_validator(mode="after")
    def _a_size_is_positive(self) -> Self:
        if self.key != "position" and self.value_mm <= 0:
            raise InputError(
                "a measured size is more than nothing",
                field="value_mm",
                found=as_length(self.value_mm),
                acceptable="more than 0",
            )
        return self


LONGEST_MM = 20_000.0


class FramePoint(Frozen):
    """A surveyed feature on one rail, plumbed down to the floor or taped at the web's outer face."""

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
    value_mm: float
    resolution_mm: Annotated[float, Field(ge=0, le=50)] = 1.0

    @model_validator(mode="after")
    def _between_two(self) -> Self:
        if not 0 < self.value_mm <= LONGEST_MM:
            raise InputError(
                "no tape between two points of a frame reads that",
                field="value_mm",
                found=self.text or as_length(self.value_mm),
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
    | GoOnEntry,
    Field(discriminator="kind"),
]


def standing(entries: tuple[Entry, ...]) -> tuple[Entry, ...]:
    """Entries that were not withdrawn, withdrawals left out."""
    gone = {e.entry for e in entries if isinstance(e, WithdrawalEntry)}
    return tuple(e for e in entries if e.number not in gone and not isinstance(e, WithdrawalEntry))


def deciding(entries: tuple[Entry, ...]) -> tuple[Entry, ...]:
    """Entries that a figure or a step's state depends on: all but the floor's own notes."""
    return tuple(e for e in entries if e.kind not in FLOOR_KINDS)


def stopped(entries: tuple[Entry, ...]) -> StopEntry | None:
    """The stop that still holds: a later 'go on' ends it."""
    own = [e for e in standing(entries) if isinstance(e, StopEntry | GoOnEntry)]
    return own[-1] if own and isinstance(own[-1], StopEntry) else None


def in_hand(entries: tuple[Entry, ...]) -> dict[str, PartEntry]:
    """The newest standing word on each part."""
    return {e.part: e for e in standing(entries) if isinstance(e, PartEntry)}


def latest_readings(entries: tuple[Entry, ...]) -> dict[str, ReadingEntry]:
    """The newest standing reading of each '<operation>/<key>/<side>'."""
    return {f"{e.operation}/{e.key}/{e.side}": e for e in standing(entries) if isinstance(e, ReadingEntry)}


def overridden(entries: tuple[Entry, ...], subject: str) -> OverrideEntry | None:
    """The newest standing override of ``subject``, if there is one."""
    own = [e for e in standing(entries) if isinstance(e, OverrideEntry) and e.subject == subject]
    return own[-1] if own else None
