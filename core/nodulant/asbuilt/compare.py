"""As-built readings against the plan: which readings are asked for, what they say, and whether they can tell."""

import math
from collections.abc import Iterable
from functools import lru_cache

from nodulant.asbuilt.instruments import suiting
from nodulant.asbuilt.log import Entry, standing
from nodulant.asbuilt.said_of import off_in_words
from nodulant.asbuilt.taken import Answer, Taken, answer, taken_readings
from nodulant.base.memo import remembered
from nodulant.base.model import Frozen
from nodulant.checks.check import Changes, Check, Subject, Why, not_computed, told
from nodulant.frame.model import planned_state
from nodulant.frame.ops.union import Operation
from nodulant.frame.state import FrameState
from nodulant.parts.apart import named_apart
from nodulant.parts.limits import find_limit
from nodulant.parts.sides import Side, on_sides
from nodulant.parts.specs import ReadingSpec
from nodulant.survey.vehicle import Survey
from nodulant.units.said import said
from nodulant.units.show import Style

IN_HAND = "kit-"
BESIDE = (IN_HAND, "apart-", "bow-")
"""How keys of readings begin that change nothing of the rail itself."""


class AskedReading(Frozen):
    """One reading that the design asks for, in its own unit, with what was read of it so far."""

    id: str
    operation: str
    side: Side
    spec: ReadingSpec
    about: str = ""
    """What it is a reading of: the work's name, or the part of the vehicle."""
    read_with: tuple[str, ...] = ()
    """Instruments that can take it, by id, the one made for it first."""
    value: float | None
    text: str = ""
    decision: str | None = None
    count: int = 0
    """How many readings its value is the middle of."""
    expanded: float | None = None
    """Plus or minus how much, about 95 %."""
    by_hand: float | None = None
    """Of that, what does not cancel against another reading with the same instrument."""
    instrument: str = ""
    allowed: float | None = None
    answer: Answer | None = None
    again: bool = False
    """Two readings of it differ by more than the instrument explains: a third is wanted."""
    words: str = ""
    """What it says, in a sentence."""


class Known:
    """What the log knows of readings: those taken, what was decided on them, and the limits in force."""

    def __init__(self, entries: tuple[Entry, ...], changes: Changes, style: Style) -> None:
        self.taken, self.changes, self.style = taken_readings(entries), changes, style
        self.decided: dict[str, str] = {e.subject: e.choice for e in standing(entries) if e.kind == "decision"}

    def asked(self, operation: str, side: Side, spec: ReadingSpec, about: str) -> AskedReading:
        """One reading with what was read of it; ``about`` is what it is a reading of."""
        id_ = f"{operation}/{spec.key}/{side}"
        found = self.taken.get(id_)
        own = _to_read(id_, operation, side, spec, about)
        return own if found is None or found.unit != spec.unit else self._with(own, found)

    def _with(self, asked: AskedReading, found: Taken) -> AskedReading:
        spec, off = asked.spec, found.value - asked.spec.planned
        allowed = find_limit(spec.limit_id, self.changes)[0].value
        says = answer(off, found.expanded, allowed)
        return asked.model_copy(
            update={
                "value": found.value,
                "text": found.text,
                "decision": self.decided.get(asked.id),
                "count": found.count,
                "expanded": found.expanded,
                "by_hand": found.by_hand,
                "instrument": found.instrument,
                "allowed": allowed,
                "answer": says,
                "again": found.again,
                "words": off_in_words(found, off, allowed, self.style, spec.limit_id),
            }
        )


def reading_of(
    readings: Iterable[AskedReading], operation: str | None, side: str | None, key: str
) -> AskedReading | None:
    """The reading that a hold point waits for; of what is done on both sides as one the right one, or the only one."""
    own = [r for r in readings if r.operation == operation and r.spec.key == key and side in {r.side, "both"}]
    return own[-1] if own else None


def apart_unsure(one: AskedReading, other: AskedReading) -> float:
    """Expanded uncertainty of the difference of two readings: one instrument's own error cancels, two instruments' do not."""
    if one.instrument == other.instrument:
        return math.hypot(one.by_hand or 0.0, other.by_hand or 0.0)
    return math.hypot(one.expanded or 0.0, other.expanded or 0.0)


def asked_readings(operations: tuple[Operation, ...], survey: Survey, known: Known) -> list[AskedReading]:
    """Every reading of every operation and side, in the order of work."""
    names = {f.id: f.name for f in survey.features}
    out = []
    for op in operations:
        for side in on_sides(op.side):
            datum = names.get(op.anchor.anchor_id, op.anchor.anchor_id)
            every = _of_one_piece(op, side, datum, survey) if op.one_piece else _unread(op, datum, side)
            out += [known.asked(op.id, side, a.spec, op.name) if a.id in known.taken else a for a in every]
    titles = named_apart([(a.spec.name, a.operation) for a in out], {op.id: op.name for op in operations})
    return [
        a if a.spec.name == title else a.model_copy(update={"spec": a.spec.model_copy(update={"name": title})})
        for a, title in zip(out, titles, strict=True)
    ]


@lru_cache(maxsize=256)
def _unread(op: Operation, datum: str, side: Side) -> tuple[AskedReading, ...]:
    return tuple(_not_taken(op, side, spec) for spec in op.readings(datum))


def _of_one_piece(op: Operation, side: Side, datum: str, survey: Survey) -> tuple[AskedReading, ...]:
    return tuple(_not_taken(op, side, spec) for spec in op.readings_on(side, datum, survey))


def _not_taken(op: Operation, side: Side, spec: ReadingSpec) -> AskedReading:
    return _to_read(f"{op.id}/{spec.key}/{side}", op.id, side, spec, op.name)


def _to_read(id_: str, operation: str, side: Side, spec: ReadingSpec, about: str) -> AskedReading:
    fit = tuple(i.id for i in suiting(spec.unit, spec.limit_id, spec.planned))
    return AskedReading(id=id_, operation=operation, side=side, spec=spec, about=about, read_with=fit, value=None)


@remembered(8)
def as_built_state(operations: tuple[Operation, ...], entries: tuple[Entry, ...]) -> FrameState | None:
    """The planned state with measured values in place; None while nothing of these operations was measured."""
    own = {op.id for op in operations}
    readings = {
        key: r
        for key, r in taken_readings(entries).items()
        if key.split("/")[0] in own and r.unit == "mm" and not key.split("/")[1].startswith(BESIDE)
    }
    if not readings:
        return None
    planned = planned_state(operations)
    return FrameState(
        name="as-built", cuts=planned.cuts, parts=planned.parts, measured={k: r.value for k, r in readings.items()}
    )


def reading_checks(asked: list[AskedReading], changes: Changes) -> list[Check]:
    """A check for each reading that was taken: it holds, it fails, or what it was read with cannot tell."""
    checks = []
    for reading in asked:
        if reading.value is None or reading.expanded is None:
            continue
        values = {"measured": reading.value, "planned": reading.spec.planned, "uncertainty": reading.expanded}
        off = abs(reading.value - reading.spec.planned)
        subject = Subject(
            subject=f"{reading.operation}-{reading.spec.key}", side=reading.side, state="as-built", stage="prove"
        )
        decided = f"; decided: {reading.decision}" if reading.decision else ""
        why = Why(formula="abs(measured - planned)", values=values, words=f"from {reading.spec.datum}{decided}")
        checks.append(
            uncertain_check(
                reading.spec.limit_id,
                subject,
                (off, reading.expanded),
                why,
                changes,
                detail=reading.spec.name.lower(),
                words=reading.words,
                remedy=DECIDE,
            )
        )
    return checks


def uncertain_check(
    limit_id: str,
    subject: Subject,
    off: tuple[float, float],
    why: Why,
    changes: Changes,
    *,
    detail: str,
    words: str,
    remedy: str,
) -> Check:
    """Judge a deviation with its expanded uncertainty; what cannot tell is 'not computed', and says what would."""
    limit, change = find_limit(limit_id, changes)
    says, own = answer(*off, limit.value), said(words)
    if says == "cannot tell":
        row = not_computed(limit_id, subject, (), changes, detail)
        return row.model_copy(update={"said": own, "remedy": FINER})
    fails = says == "fails"
    return told(
        limit,
        subject,
        off[0],
        why,
        "fails" if fails else "holds",
        changed=change is not None,
        detail=detail,
        said=own,
        remedy=remedy if fails else "",
    )


FINER = "Read it again, with what tells, or decide with a reason."
DECIDE = "See what it costs in the as-built checks, then accept with a reason or rework."
