"""Append-only entries: readings, lengths between points, sign-offs, overrides, decisions and withdrawals.

Nothing is changed or deleted; a wrong entry is withdrawn by a counter-entry.
"""

from typing import Annotated, Literal, Self

from pydantic import Field, model_validator

from nodulant.base.errors import InputError
from nodulant.base.model import Frozen, Id, Name, Text
from nodulant.parts.sides import Side
from nodulant.units.inline import as_length

Number = Annotated[int, Field(ge=1)]


class _Entry(Frozen):
    number: Number
    at: Annotated[str, Field(max_length=40)]
    """When, ISO 8601 with offset."""
    by: Name
    imported: Annotated[str, Field(max_length=200)] = ""
    """By whom and from which file, where it was not written here: its name and time are what that file says."""


class _Measured(_Entry):
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


class SignOffEntry(_Entry):
    """A step signed; names the hash of what was evaluated."""

    kind: Literal["sign-off"] = "sign-off"
    step: Annotated[str, Field(max_length=130)]
    evaluated: Annotated[str, Field(max_length=80)]
    reading: Number | None = None
    note: Text = ""


class OverrideEntry(_Entry):
    """A lock or hold point passed with a reason."""

    kind: Literal["override"] = "override"
    subject: Annotated[str, Field(max_length=130)]
    reason: Name


class DecisionEntry(_Entry):
    """A deviation accepted or sent back."""

    kind: Literal["decision"] = "decision"
    subject: Annotated[str, Field(max_length=130)]
    choice: Literal["accept", "rework"]
    reason: Name


class WithdrawalEntry(_Entry):
    """Takes back the entry of that number."""

    kind: Literal["withdrawal"] = "withdrawal"
    entry: Number
    reason: Name


Entry = Annotated[
    ReadingEntry | LengthEntry | SignOffEntry | OverrideEntry | DecisionEntry | WithdrawalEntry,
    Field(discriminator="kind"),
]


def standing(entries: tuple[Entry, ...]) -> tuple[Entry, ...]:
    """Entries that were not withdrawn, withdrawals left out."""
    gone = {e.entry for e in entries if isinstance(e, WithdrawalEntry)}
    return tuple(e for e in entries if e.number not in gone and not isinstance(e, WithdrawalEntry))


def latest_readings(entries: tuple[Entry, ...]) -> dict[str, ReadingEntry]:
    """The newest standing reading of each '<operation>/<key>/<side>'."""
    return {f"{e.operation}/{e.key}/{e.side}": e for e in standing(entries) if isinstance(e, ReadingEntry)}


def overridden(entries: tuple[Entry, ...], subject: str) -> OverrideEntry | None:
    """The newest standing override of ``subject``, if there is one."""
    own = [e for e in standing(entries) if isinstance(e, OverrideEntry) and e.subject == subject]
    return own[-1] if own else None
