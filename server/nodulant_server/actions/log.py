"""Append to a job's log: readings, sign-offs, overrides, decisions, withdrawals."""

from functools import lru_cache
from typing import Any

from django.db import transaction
from django.db.models import TextField
from django.db.models.functions import Cast
from django.utils import timezone
from pydantic import TypeAdapter

from nodulant.asbuilt.log import HUBS, Entry, standing, stopped
from nodulant.base.errors import InputError
from nodulant.evaluate import Want, evaluate
from nodulant.job.document import MOST_ENTRIES, AsBuilt, Design, Inputs
from nodulant.survey.vehicle import Survey
from nodulant_server.actions.limits import one_at_a_time, refuse_beyond
from nodulant_server.models import Job, LogEntry
from nodulant_server.roles import Acting, require

ENTRY: TypeAdapter[Entry] = TypeAdapter(Entry)
MEASURES = Want(strips=False, parts=False, steps=True, readings=True)


def entries_of(job: Job) -> tuple[Entry, ...]:
    """All entries of a job in order."""
    texts = job.log.annotate(text=Cast("document", TextField())).values_list("text", flat=True)
    return tuple(_entry(text) for text in texts)


@lru_cache(maxsize=MOST_ENTRIES)
def _entry(text: str) -> Entry:
    """An entry from its JSON: one that was written is never changed, and is asked for with every move of a hand."""
    return ENTRY.validate_json(text)


def inputs_of(job: Job, design: Design, survey: Survey | None = None, *, logged: bool = True) -> Inputs:
    """What an evaluation of ``design`` on this job sees; the newest survey where none is given, an empty log if not ``logged``."""
    return Inputs(
        survey=survey or job.survey_head().survey(),
        design=design,
        as_built=AsBuilt(entries=entries_of(job)) if logged else AsBuilt(),
        shop=job.shop_model(),
    )


def append(acting: Acting, job: Job, fields: dict[str, Any], mark: str | None = None) -> Entry:
    """Validate and append one entry; number, time and person come from here, ``mark`` from who sends it."""
    require(acting, "decide" if fields.get("kind") in {"override", "decision"} else "log")
    with transaction.atomic():
        one_at_a_time(job)
        if mark and (before := job.log.filter(mark=mark).first()) is not None:
            return ENTRY.validate_python(before.document)
        number = (job.log.order_by("-number").values_list("number", flat=True).first() or 0) + 1
        refuse_beyond(number, MOST_ENTRIES, "log entries", "withdraw nothing: begin a copy of the job")
        at = timezone.now().isoformat(timespec="seconds")
        entry = ENTRY.validate_python({**fields, "number": number, "at": at, "by": acting.name})
        LogEntry(job=job, number=number, document=entry.model_dump(mode="json"), mark=mark).save()
    return entry


def refuse_stopped(entries: tuple[Entry, ...], done_at: str = "") -> None:
    """Nothing is signed while a stop holds, but what was done before it by a clock that can be right. Raises InputError."""
    stop = stopped(entries)
    if stop is not None and not ("" < done_at < (stop.done_at or stop.at)):
        raise InputError(
            "the job is stopped",
            field="/step",
            found=f"{stop.reason} ({stop.by})",
            acceptable="let it go on first, and say why it may",
        )


def give_reason(
    acting: Acting, job: Job, subject: str, reason: str, choice: str | None, mark: str | None = None
) -> Entry:
    """Pass a step or lock, or decide on a reading, with a reason; raises InputError for what none of the options has."""
    require(acting, "decide")
    if choice is None:
        refuse_stopped(entries_of(job))
    fields = {"kind": "decision", "choice": choice} if choice else {"kind": "override"}
    for option in job.live_options():
        found = evaluate(inputs_of(job, option.head().design()), MEASURES)
        known = {r.id for r in found.readings} if choice else {s.id for s in found.steps}
        if subject in known:
            return append(acting, job, {**fields, "subject": subject, "reason": reason}, mark)
    kind = "reading" if choice else "step"
    raise InputError(
        f"there is no such {kind}",
        field="/subject",
        found=subject[:80],
        acceptable=f"a {kind} of an option of this job",
    )


def take_reading(acting: Acting, job: Job, inputs: Inputs, fields: dict[str, Any], mark: str | None = None) -> Entry:
    """Append a reading that the design asks for; raises InputError for any other."""
    asked = evaluate(inputs, MEASURES).readings
    wanted = f"{fields['operation']}/{fields['key']}/{fields['side']}"
    units = {reading.id: reading.spec.unit for reading in asked}
    if wanted not in units:
        raise InputError(
            "this design asks for no such reading", field="/key", found=wanted, acceptable="a reading of the Prove list"
        )
    if fields.get("unit", "mm") != units[wanted]:
        raise InputError("it is read in another unit", field="/unit", found=fields["unit"], acceptable=units[wanted])
    return append(acting, job, {"kind": "reading", **fields}, mark)


def take_length(acting: Acting, job: Job, fields: dict[str, Any], mark: str | None = None) -> Entry:
    """Append a length between two surveyed features; raises InputError for a feature that is not there."""
    for end in ("start", "end"):
        _refuse_unknown_point(job, fields[end]["feature_id"], f"/{end}/feature_id", HUBS)
    return append(acting, job, {"kind": "length", **fields}, mark)


def take_level(acting: Acting, job: Job, fields: dict[str, Any], mark: str | None = None) -> Entry:
    """Append the height of a surveyed feature over one level line; raises InputError for one that is not there."""
    _refuse_unknown_point(job, fields["point"]["feature_id"], "/point/feature_id")
    return append(acting, job, {"kind": "level", **fields}, mark)


def _refuse_unknown_point(job: Job, point: str, field: str, more: tuple[str, ...] = ()) -> None:
    known = {*(f.id for f in job.survey_head().survey().features), *more}
    if point not in known:
        raise InputError(
            "there is no such point to tape from",
            field=field,
            found=point,
            acceptable="one of " + ", ".join(sorted(known)),
        )


def withdraw(acting: Acting, job: Job, number: int, reason: str) -> Entry:
    """Take an entry back by a counter-entry: one's own, or anybody's by who decides; raises InputError, Forbidden."""
    entry = next((e for e in standing(entries_of(job)) if e.number == number), None)
    if entry is None:
        raise InputError(
            "there is no such entry to take back", field="/entry", found=str(number), acceptable="a standing entry"
        )
    if entry.by != acting.name or entry.kind in {"override", "decision"}:
        require(acting, "decide")
    return append(acting, job, {"kind": "withdrawal", "entry": number, "reason": reason})
