"""Both inspections after the first drive as a calendar."""

from datetime import date, timedelta

from icalendar import Calendar, Event

from nodulant.formats.plan_ics import named_event
from nodulant.proof.after import After
from nodulant.units.inline import as_distance, told
from nodulant.units.show import Style


def after_ics(job: str, of: str, found: After, style: Style) -> bytes:
    """RFC 5545: one whole-day event an inspection with its list; empty calendar while the first drive is not known."""
    calendar = Calendar()
    calendar.add("prodid", "-//Nodulant//inspections//EN")
    calendar.add("version", "2.0")
    calendar.add("x-wr-calname", f"{job}: inspections")
    for own in found.inspections:
        if not own.day:
            continue
        event = Event()
        event.add("summary", f"{job}: look again after {told(as_distance(own.km), style)}")
        event.add("description", "\n".join([*(told(row.words, style) for row in own.rows), of]))
        event.add("dtstart", date.fromisoformat(own.day))
        event.add("dtend", date.fromisoformat(own.day) + timedelta(days=1))
        named_event(event, f"{job}/inspection-{own.km}")
        calendar.add_component(event)
    made = calendar.to_ical()
    return made if isinstance(made, bytes) else made.encode()
