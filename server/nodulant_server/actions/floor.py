"""What the floor writes: signatures, notes, rework, where one left off, a stop; each once, however often it is sent."""

from datetime import UTC, datetime, timedelta
from typing import Any

from django.utils import timezone

from nodulant.asbuilt.floor import StopEntry
from nodulant.asbuilt.log import Entry, stopped
from nodulant.base.errors import InputError
from nodulant.build.estimates import Took, took_of
from nodulant.evaluate.gates.parts_here import parts_needed
from nodulant.job.document import Inputs
from nodulant.proof.after import after, day_of
from nodulant.proof.record import weld_record
from nodulant_server.actions.log import ENTRY, append, entries_of, give_reason, take_length, take_level, take_reading
from nodulant_server.actions.sign import Signing, sign_step
from nodulant_server.models import Job, LogEntry
from nodulant_server.roles import Acting, require

AHEAD = timedelta(minutes=5)
"""So far a device's clock may be ahead of ours and still be believed."""
LEARNED_FROM = ("sign-off", "rework", "withdrawal")


def when_done(job: Job, done_at: str) -> dict[str, str]:
    """When it was done as the device says, and whether that clock can be right; nothing where it is sent at once.

    Raises InputError for what is no time.
    """
    if not done_at:
        return {}
    try:
        said = datetime.fromisoformat(done_at)
    except ValueError:
        raise InputError(
            "this is no time", field="/done_at", found=done_at[:40], acceptable="ISO 8601 with its offset"
        ) from None
    said = said if said.tzinfo else said.replace(tzinfo=UTC)
    clock = "ahead" if said > timezone.now() + AHEAD else "behind" if said < job.created_at - AHEAD else ""
    return {"done_at": said.astimezone(UTC).isoformat(timespec="seconds"), "clock": clock}


def on_the_floor(
    acting: Acting, job: Job, inputs: Inputs, act: dict[str, Any], mark: str | None, done_at: str
) -> list[Entry]:
    """Take what the floor sends; what was taken before under its mark is told again. Raises Forbidden, InputError."""
    if mark and (before := taken(job, mark)):
        return before
    when, kind = when_done(job, done_at), act["kind"]
    if kind == "sign":
        signing = Signing(
            step=act["step"],
            reading=act["reading"],
            note=act["note"],
            minutes=act["minutes"],
            when=when,
            mark=mark,
        )
        return sign_step(acting, job, inputs.design, signing)
    if kind == "reading":
        reading = {**act["reading"], **when, "operation": act["operation"], "key": act["key"], "side": act["side"]}
        return [take_reading(acting, job, inputs, reading, mark)]
    if kind == "length":
        told = {"start": act["start"], "end": act["end"], "when": act["when"]}
        return [take_length(acting, job, {**act["reading"], **told, **when}, mark)]
    if kind == "level":
        return [take_level(acting, job, {**act["reading"], **when, "point": act["point"], "when": act["when"]}, mark)]
    if kind == "part":
        _refuse_unknown_part(inputs, act["part"])
    if kind in {"weld", "bolts"}:
        _refuse_unknown_joint(inputs, act["joint"])
    if kind == "on-the-road" and day_of(act["first"]) is None:
        raise InputError(
            "no calendar has that day", field="/first", found=act["first"], acceptable="such as 2026-12-01"
        )
    if kind == "inspection":
        _refuse_unknown_look(inputs, act["what"])
    if kind == "pass":
        return [give_reason(acting, job, act["step"], act["reason"], None, mark)]
    if kind == "go-on":
        _may_go_on(acting, stopped(entries_of(job)))
    return [append(acting, job, {**act, **when}, mark)]


def _refuse_unknown_part(inputs: Inputs, part: str) -> None:
    known = [p.key for p in parts_needed(inputs)]
    if part not in known:
        raise InputError(
            "this design needs no such part", field="/part", found=part[:80], acceptable=", ".join(known) or "none"
        )


def _refuse_unknown_joint(inputs: Inputs, joint: str) -> None:
    if joint not in {row.joint for row in weld_record(inputs).rows}:
        raise InputError(
            "this design has no such joint",
            field="/joint",
            found=joint[:80],
            acceptable="a joint of its weld map, or one that is bolted",
        )


def _refuse_unknown_look(inputs: Inputs, what: str) -> None:
    known = [row.what for row in after(inputs).inspections[0].rows]
    if what not in known:
        raise InputError(
            "nothing of that is looked at again", field="/what", found=what[:80], acceptable=", ".join(known)
        )


def taken(job: Job, mark: str) -> list[Entry]:
    """Entries that came under this mark."""
    rows = LogEntry.objects.filter(job=job, mark__in=(mark, f"{mark}/reading"))
    return [ENTRY.validate_python(row.document) for row in rows]


def _may_go_on(acting: Acting, stop: StopEntry | None) -> None:
    if stop is None:
        raise InputError("the job is not stopped", field="/kind", found="go on", acceptable="nothing: it goes on")
    if stop.by != acting.name:
        require(acting, "decide")


def timed_elsewhere(job: Job) -> tuple[Took, ...]:
    """What steps took on the shop's other jobs."""
    rows = LogEntry.objects.filter(
        job__workshop=job.workshop, job__deleted_at=None, job__example=False, document__kind__in=LEARNED_FROM
    ).exclude(job=job)
    by_job: dict[int, list[Entry]] = {}
    for row in rows.order_by("job", "number"):
        by_job.setdefault(row.job_id, []).append(ENTRY.validate_python(row.document))
    return tuple(took for entries in by_job.values() for took in took_of(tuple(entries)))
