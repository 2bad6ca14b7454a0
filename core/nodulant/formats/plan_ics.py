"""The schedule as a calendar: one event a session with its steps, one for everything handed out or due."""

import hashlib
from datetime import UTC, date, datetime, timedelta

from icalendar import Calendar, Event

from nodulant.schedule.schedule import Meeting, Planned, Schedule
from nodulant.units.inline import told
from nodulant.units.show import Style

STAMP = datetime(2000, 1, 1, tzinfo=UTC)
"""The same plan gives the same file."""


def plan_ics(job: str, of: str, schedule: Schedule, style: Style) -> bytes:
    """RFC 5545, floating local times: sessions are the shop's own evenings."""
    calendar = Calendar()
    calendar.add("prodid", "-//Nodulant//build plan//EN")
    calendar.add("version", "2.0")
    calendar.add("x-wr-calname", job)
    steps = {p.step: p for p in schedule.steps}
    for meeting in schedule.sessions:
        calendar.add_component(_session(job, of, meeting, steps, style))
    for p in schedule.steps:
        if p.handout is not None:
            words = f"{job}: {told(p.title, style)} at the {p.handout.to}"
            calendar.add_component(_days(words, p.handout.note, p.begins, p.ends, f"{job}/{p.step}"))
    if schedule.due:
        calendar.add_component(_days(f"{job}: due", of, schedule.due, schedule.due, f"{job}/due"))
    made = calendar.to_ical()
    return made if isinstance(made, bytes) else made.encode()


def _session(job: str, of: str, meeting: Meeting, steps: dict[str, Planned], style: Style) -> Event:
    own = [steps[id_] for id_ in meeting.steps]
    event = Event()
    first = told(own[0].title, style) + (f" and {len(own) - 1} more" if len(own) > 1 else "")
    event.add("summary", f"{job}: {first}")
    rows = [f"{p.begins[11:]} {told(p.title, style)}{f', {p.side}' if p.side else ''}: {p.minutes} min" for p in own]
    event.add("description", "\n".join([*rows, f"With {', '.join(meeting.who)}.", of]))
    event.add("dtstart", datetime.fromisoformat(meeting.begins))
    event.add("dtend", datetime.fromisoformat(meeting.ends))
    named_event(event, f"{job}/{meeting.begins}")
    return event


def _days(words: str, more: str, begins: str, ends: str, name: str) -> Event:
    event = Event()
    event.add("summary", words)
    if more:
        event.add("description", more)
    event.add("dtstart", date.fromisoformat(begins[:10]))
    event.add("dtend", date.fromisoformat(ends[:10]) + timedelta(days=1))
    named_event(event, name)
    return event


def named_event(event: Event, name: str) -> None:
    """With an id that follows from its name, and a stamp that never changes."""
    event.add("uid", f"{hashlib.sha256(name.encode()).hexdigest()[:24]}@nodulant")
    event.add("dtstamp", STAMP)
