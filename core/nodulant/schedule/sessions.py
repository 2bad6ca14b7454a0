"""The shop's sessions one after the other: minutes of work on one line, and when each of them is by the clock."""

from bisect import bisect_right
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, datetime, timedelta
from typing import get_args

from nodulant.base.errors import InputError
from nodulant.job.timing import LEAST_MIN, Weekday, WorkSession

WEEKDAYS: tuple[Weekday, ...] = get_args(Weekday)
MOST_WEEKS = 104


@dataclass(frozen=True)
class Slot:
    """One session: its place on the line of work (minutes), when it begins, and who is there."""

    first: int
    minutes: int
    begins: datetime
    who: tuple[str, ...]


class Line:
    """Minutes of work on one line, session after session."""

    def __init__(self, week: Sequence[WorkSession], begins: datetime, needed_min: int) -> None:
        """From a time on until so many minutes fit; raises InputError where the shop never works."""
        if not week:
            raise InputError(
                "the shop has no session to work in", field="/shop/week", found="none", acceptable="one session or more"
            )
        self.slots: list[Slot] = []
        at, total = begins.date(), 0
        last = at + timedelta(weeks=MOST_WEEKS)
        while total < needed_min and at <= last:
            for session in sorted(week, key=lambda s: s.begins_min):
                if WEEKDAYS.index(session.weekday) != at.weekday():
                    continue
                opens = datetime.combine(at, datetime.min.time()) + timedelta(minutes=session.begins_min)
                late = max(int((begins - opens).total_seconds() // 60), 0)
                if session.minutes - late >= LEAST_MIN:
                    self.slots.append(Slot(total, session.minutes - late, opens + timedelta(minutes=late), session.who))
                    total += session.minutes - late
            at += timedelta(days=1)
        self.total = total
        self._firsts = [slot.first for slot in self.slots]

    def slot_at(self, minute: int) -> int:
        """The session that a minute of work is in."""
        return max(bisect_right(self._firsts, minute) - 1, 0)

    def clock(self, minute: int) -> datetime:
        """When a step that begins at this minute of work begins."""
        slot = self.slots[self.slot_at(minute)]
        return slot.begins + timedelta(minutes=minute - slot.first)

    def clock_end(self, minute: int) -> datetime:
        """When a step that ends at this minute ends: at the end of a session, not at the beginning of the next."""
        slot = self.slots[self.slot_at(max(minute - 1, 0))]
        return slot.begins + timedelta(minutes=minute - slot.first)

    def over(self, start: int, minutes: int) -> datetime:
        """When a step of so many minutes is over; one of none when it begins."""
        return self.clock_end(start + minutes) if minutes else self.clock(start)

    def from_clock(self, when: datetime) -> int:
        """The first minute of work at or after a time; the line's end where it lies beyond."""
        for slot in self.slots:
            if when <= slot.begins:
                return slot.first
            inside = int(-(-(when - slot.begins).total_seconds() // 60))
            if inside < slot.minutes:
                return slot.first + inside
        return self.total


def day_of(text: str, field: str) -> date:
    """A day as typed; raises InputError for one that no calendar has."""
    try:
        return date.fromisoformat(text)
    except ValueError:
        raise InputError(
            "no calendar has this day", field=field, found=text, acceptable="a day as 2026-05-30"
        ) from None
