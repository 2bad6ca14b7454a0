"""After the first 100 and the first 1000 km: what is looked at again, on which day, and what was found.

What settles does so early: bolts in paint and bushes in the first kilometres, cracks that a weld's end begins show in
the first thousand (common practice).
"""

from collections.abc import Iterator
from datetime import date, timedelta
from typing import Literal

from nodulant.asbuilt.log import standing
from nodulant.asbuilt.record import InspectionEntry, OnTheRoadEntry
from nodulant.base.model import Frozen
from nodulant.job.document import Inputs
from nodulant.proof.record import weld_record

Km = Literal[100, 1000]
KMS: tuple[Km, ...] = (100, 1000)


class LookAgain(Frozen):
    """One thing to look at, and what was found the last time at this distance; ``ok`` None while nobody looked."""

    what: str
    words: str
    ok: bool | None
    found: str
    by: str


class Inspection(Frozen):
    """One of the two: its day where the first drive is known, and its list."""

    km: Km
    day: str
    """ISO; empty while nobody said when it was first driven."""
    rows: tuple[LookAgain, ...]


class After(Frozen):
    """The first drive as it was written down, and both inspections."""

    first: str
    km_week: float | None
    inspections: tuple[Inspection, ...]


def after(inputs: Inputs) -> After:
    """From the stored design and log; raises InputError and UnknownReference."""
    entries = standing(inputs.as_built.entries)
    road = next((e for e in reversed(entries) if isinstance(e, OnTheRoadEntry)), None)
    found = {(e.km, e.what): e for e in entries if isinstance(e, InspectionEntry)}
    wanted = list(_wanted(inputs))
    return After(
        first=road.first if road else "",
        km_week=road.km_week if road else None,
        inspections=tuple(
            Inspection(
                km=km,
                day=_day(road, km),
                rows=tuple(_row(what, words, found.get((km, what))) for what, words in wanted),
            )
            for km in KMS
        ),
    )


def _day(road: OnTheRoadEntry | None, km: Km) -> str:
    if road is None:
        return ""
    first = day_of(road.first)
    return "" if first is None else (first + timedelta(days=max(1, round(7 * km / road.km_week)))).isoformat()


def day_of(text: str) -> date | None:
    """The day that is written; None for one that no calendar has."""
    try:
        return date.fromisoformat(text)
    except ValueError:
        return None


def _row(what: str, words: str, entry: InspectionEntry | None) -> LookAgain:
    if entry is None:
        return LookAgain(what=what, words=words, ok=None, found="", by="")
    return LookAgain(what=what, words=words, ok=entry.ok, found=entry.found, by=entry.by)


def _wanted(inputs: Inputs) -> Iterator[tuple[str, str]]:
    """By what the design has: its welds and bolts by their work, its joints, springs, hoses, and what moves near what."""
    works: dict[tuple[str, str], list[str]] = {}
    for row in weld_record(inputs).rows:
        works.setdefault((row.kind, row.operation), []).append(row.work)
    for (kind, operation), names in works.items():
        if kind == "weld":
            yield f"{operation}/welds", f"{names[0]}: {len(names)} welds clean, no crack at their ends, no rust line"
        else:
            yield f"{operation}/bolts", f"{names[0]}: marks in line, torque again"
    for own in inputs.design.suspensions:
        axle = own.axle
        yield f"{axle}/joints", f"{axle} joints and bushings: no play, lock nuts tight, boots whole"
        yield f"{axle}/springs", f"{axle} springs, dampers and stops: seats, bolts, no oil, marks on the stops"
        if own.hoses:
            yield f"{axle}/hoses", f"{axle} hoses and lines: nothing rubs in bump, droop and lock; no leak"
        if own.steering is not None:
            yield f"{axle}/steering", f"{axle} steering: gear's bolts, rod ends, lock to lock free"
        yield f"{axle}/wheels", f"{axle} wheels: nuts to torque, tyres without rubbing marks"
    yield "frame/height", "Ride height left and right as proved, no new lean"
    yield "frame/rubbing", "Frame, body and axle: bright places where something rubs"
