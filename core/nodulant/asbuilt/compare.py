"""As-built readings against the plan: which readings are asked for, and what they say.

A reading holds only when its deviation plus half its instrument's resolution is inside the
tolerance (the uncertainty of a scale reading, common practice).
"""

from functools import lru_cache

from nodulant.asbuilt.log import Entry, ReadingEntry, latest_readings, standing
from nodulant.base.model import Frozen
from nodulant.checks.check import Changes, Check, Subject, Why, judge
from nodulant.frame.model import planned_state
from nodulant.frame.ops.union import Operation
from nodulant.frame.state import FrameState
from nodulant.parts.apart import named_apart
from nodulant.parts.sides import Side, on_sides
from nodulant.parts.specs import ReadingSpec
from nodulant.survey.vehicle import Survey


class AskedReading(Frozen):
    """One reading that the design asks for, with the newest value if there is one."""

    id: str
    operation: str
    side: Side
    spec: ReadingSpec
    value_mm: float | None
    text: str = ""
    decision: str | None = None


def asked_readings(operations: tuple[Operation, ...], survey: Survey, entries: tuple[Entry, ...]) -> list[AskedReading]:
    """Every reading of every operation and side, in the order of work."""
    latest, names = latest_readings(entries), {f.id: f.name for f in survey.features}
    decided: dict[str, str] = {e.subject: e.choice for e in standing(entries) if e.kind == "decision"}
    out = []
    for op in operations:
        for side in on_sides(op.side):
            datum = names.get(op.anchor.anchor_id, op.anchor.anchor_id)
            every = _of_one_piece(op, side, datum, survey) if op.one_piece else _unread(op, datum, side)
            out += [_asked(op.id, side, a.spec, latest[a.id], decided) if a.id in latest else a for a in every]
    titles = named_apart([(a.spec.name, a.operation) for a in out], {op.id: op.name for op in operations})
    return [
        a if a.spec.name == title else a.model_copy(update={"spec": a.spec.model_copy(update={"name": title})})
        for a, title in zip(out, titles, strict=True)
    ]


@lru_cache(maxsize=256)
def _unread(op: Operation, datum: str, side: Side) -> tuple[AskedReading, ...]:
    return tuple(_asked(op.id, side, spec, None, {}) for spec in op.readings(datum))


def _of_one_piece(op: Operation, side: Side, datum: str, survey: Survey) -> tuple[AskedReading, ...]:
    return tuple(_asked(op.id, side, spec, None, {}) for spec in op.readings_on(side, datum, survey))


def asked_reading(operation: str, side: Side, spec: ReadingSpec, entries: tuple[Entry, ...]) -> AskedReading:
    """One reading with the newest value of the log."""
    decided: dict[str, str] = {e.subject: e.choice for e in standing(entries) if e.kind == "decision"}
    return _asked(operation, side, spec, latest_readings(entries).get(f"{operation}/{spec.key}/{side}"), decided)


def _asked(
    operation: str, side: Side, spec: ReadingSpec, reading: ReadingEntry | None, decided: dict[str, str]
) -> AskedReading:
    id_ = f"{operation}/{spec.key}/{side}"
    if reading is None:
        return AskedReading(id=id_, operation=operation, side=side, spec=spec, value_mm=None)
    return AskedReading(
        id=id_,
        operation=operation,
        side=side,
        spec=spec,
        value_mm=reading.value_mm,
        text=reading.text,
        decision=decided.get(id_),
    )


def as_built_state(operations: tuple[Operation, ...], entries: tuple[Entry, ...]) -> FrameState | None:
    """The planned state with measured values in place; None while nothing of these operations was measured."""
    own = {op.id for op in operations}
    readings = {key: r for key, r in latest_readings(entries).items() if r.operation in own}
    if not readings:
        return None
    planned = planned_state(operations)
    return FrameState(
        name="as-built", cuts=planned.cuts, parts=planned.parts, measured={k: r.value_mm for k, r in readings.items()}
    )


def reading_checks(asked: list[AskedReading], entries: tuple[Entry, ...], changes: Changes) -> list[Check]:
    """A check for each reading that was taken."""
    latest, checks = latest_readings(entries), []
    for reading in asked:
        if reading.value_mm is None:
            continue
        half = latest[reading.id].resolution_mm / 2
        values = {"measured": reading.value_mm, "planned": reading.spec.planned_mm, "half_resolution": half}
        off = abs(reading.value_mm - reading.spec.planned_mm) + half
        subject = Subject(
            subject=f"{reading.operation}-{reading.spec.key}", side=reading.side, state="as-built", stage="prove"
        )
        why = Why(
            formula="abs(measured - planned) + half_resolution",
            values=values,
            words=f"from {reading.spec.datum}" + (f"; decided: {reading.decision}" if reading.decision else ""),
        )
        checks.append(
            judge(
                reading.spec.limit_id,
                subject,
                off,
                why,
                changes,
                detail=reading.spec.name.lower(),
                remedy="See what it costs in the as-built checks, then accept with a reason or rework.",
            )
        )
    return checks
