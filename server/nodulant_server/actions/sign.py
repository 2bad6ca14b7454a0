"""Sign a step: what it waits for, what its hold point asks, and a job that was stopped."""

from dataclasses import dataclass
from typing import Any

from django.db import transaction

from nodulant.asbuilt.compare import reading_of
from nodulant.asbuilt.log import Entry, ReadingEntry, SignOffEntry
from nodulant.base.errors import InputError
from nodulant.build.plan import Step
from nodulant.evaluate import evaluate
from nodulant.job.document import Design
from nodulant_server.actions.log import MEASURES, append, entries_of, inputs_of, refuse_stopped
from nodulant_server.models import Job
from nodulant_server.roles import Acting, require


@dataclass(frozen=True)
class Signing:
    """What is signed: a step, the reading its hold point asks for, how long it took, and what the sender calls it."""

    step: str
    reading: dict[str, Any] | None = None
    note: str = ""
    minutes: int | None = None
    when: dict[str, str] | None = None
    """``done_at`` and ``clock``, where it was done earlier than it is sent."""
    mark: str | None = None


def sign_step(acting: Acting, job: Job, design: Design, signing: Signing) -> list[Entry]:
    """Sign a step whose prerequisites are met; a reading hold point needs its reading. Raises Forbidden, InputError."""
    require(acting, "log")
    entries = entries_of(job)
    when = signing.when or {}
    refuse_stopped(entries, "" if when.get("clock") else when.get("done_at", ""))
    result = evaluate(inputs_of(job, design), MEASURES)
    step = next((s for s in result.steps if s.id == signing.step), None)
    if step is None:
        raise InputError(
            "there is no such step", field="/step", found=signing.step[:80], acceptable="a step of this design"
        )
    _refuse_done(step, entries)
    _refuse_waiting(step, result.steps)
    hold, made, mark = step.spec.hold, list[Entry](), signing.mark
    with transaction.atomic():
        if hold and hold.kind == "reading":
            if signing.reading is None:
                raise InputError(
                    "this hold point needs a reading", field="/reading", found="nothing", acceptable=hold.ask
                )
            asked = reading_of(result.readings, step.operation, step.side, hold.reading or "")
            side = step.side if asked is None else asked.side
            of = {"kind": "reading", "operation": step.operation, "key": hold.reading, "side": side}
            made.append(append(acting, job, {**of, **signing.reading, **when}, mark and f"{mark}/reading"))
        number = made[0].number if made and isinstance(made[0], ReadingEntry) else None
        fields = {
            "kind": "sign-off",
            "step": step.id,
            "evaluated": result.content_hash,
            "reading": number,
            "minutes": signing.minutes,
            "planned_minutes": None if signing.minutes is None else step.spec.minutes,
            "note": signing.note,
            **when,
        }
        made.append(append(acting, job, fields, mark))
    return made


def _refuse_done(step: Step, entries: tuple[Entry, ...]) -> None:
    if step.status == "done":
        signed = next((e for e in entries if isinstance(e, SignOffEntry) and e.step == step.id), None)
        by = f"by {signed.by}, {signed.at[:10]}" if signed else "signed"
        raise InputError("this step is signed already", field="/step", found=by, acceptable="withdraw that one first")


def _refuse_waiting(step: Step, steps: tuple[Step, ...]) -> None:
    if step.status != "waiting":
        return
    waits = [s.spec.title for s in steps if s.id in step.needs and s.status in {"waiting", "open"}]
    why = "; ".join(waits[:3]) or step.held
    raise InputError(
        "this step is not open yet",
        field="/step",
        found=f"waits for: {why}",
        acceptable="sign those first, or override with a reason",
    )
