"""When the shop works and with whom; what an option waits for that is no work: painters, machinists, deliveries."""

from typing import Annotated, Literal, Self

from pydantic import Field, model_validator

from nodulant.asbuilt.entry import Subject
from nodulant.base.errors import InputError
from nodulant.base.model import Frozen, Name, Text
from nodulant.parts.outside import Outside

Weekday = Literal["Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday"]
Clock = Annotated[str, Field(pattern=r"^([01]\d|2[0-3]):[0-5]\d$")]
Day = Annotated[str, Field(pattern=r"^\d{4}-\d{2}-\d{2}$")]
Days = Annotated[int, Field(ge=1, le=120)]
LEAST_MIN = 15
MIDNIGHT_MIN = 24 * 60


class WorkSession(Frozen):
    """A time of every week in which somebody works, and who."""

    weekday: Weekday
    start: Clock
    minutes: Annotated[int, Field(ge=0, le=MIDNIGHT_MIN)]
    who: Annotated[tuple[Name, ...], Field(min_length=1, max_length=8)]

    @model_validator(mode="after")
    def _is_some_time(self) -> Self:
        if self.minutes < LEAST_MIN:
            raise InputError(
                "in so short a session nothing is done",
                field="minutes",
                found=f"{self.minutes} minutes",
                acceptable=f"{LEAST_MIN} minutes or more",
            )
        if self.begins_min + self.minutes > MIDNIGHT_MIN:
            raise InputError(
                "a session ends on its own day",
                field="minutes",
                found=f"{self.minutes} minutes from {self.start}",
                acceptable=f"at most {MIDNIGHT_MIN - self.begins_min} minutes",
            )
        return self

    @property
    def begins_min(self) -> int:
        """Minutes after midnight."""
        return 60 * int(self.start[:2]) + int(self.start[3:])


EVENINGS: tuple[WorkSession, ...] = (
    WorkSession(weekday="Tuesday", start="18:30", minutes=180, who=("one", "two")),
    WorkSession(weekday="Thursday", start="18:30", minutes=180, who=("one", "two")),
    WorkSession(weekday="Saturday", start="09:00", minutes=360, who=("one", "two")),
)
"""What stands there until the shop says when it works."""


class Handout(Frozen):
    """A step that somebody outside does: it takes days, and nobody here."""

    step: Subject
    to: Outside
    days: Days
    note: Text = ""


class Arrival(Frozen):
    """Something that has to come before a step can begin."""

    what: Name
    step: Subject
    on: Day


class Timing(Frozen):
    """What an option's plan waits for, and by when it is to be done."""

    due: Day | None = None
    handouts: Annotated[tuple[Handout, ...], Field(max_length=40)] = ()
    arrivals: Annotated[tuple[Arrival, ...], Field(max_length=80)] = ()
