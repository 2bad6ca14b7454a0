"""Steps of a job as a graph, in an order that keeps every prerequisite before its step.

General steps come from the job, the others from its operations. A step needs all general steps of
earlier phases, all earlier steps of its own operation on its rail, and those that a rule of the trade
puts before it; the order is by phase, then operation, then side, and what ties the rails is last in
its phase. State comes from the log.
"""

from bisect import bisect_left
from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from functools import lru_cache
from types import MappingProxyType
from typing import Literal, NamedTuple

from nodulant.asbuilt.log import Entry, OverrideEntry, SignOffEntry, standing
from nodulant.build.general import general_steps
from nodulant.build.rules import Stretch, pairs
from nodulant.frame.ops.union import Operation
from nodulant.parts.apart import named_apart
from nodulant.parts.sides import Side, on_sides
from nodulant.parts.specs import PHASES, Act, StepSpec
from nodulant.survey.vehicle import Survey

StepStatus = Literal["waiting", "open", "done", "overridden"]
RANK = {phase: i for i, phase in enumerate(PHASES)}


Locked = Mapping[str, str]
"""Why steps wait for something outside the plan, by their ids."""
Shut = Mapping[tuple[str | None, Act], str]
"""Why an operation may not do something as it is designed."""


@dataclass(frozen=True, slots=True)
class Step:
    """One step with its prerequisites and state."""

    id: str
    spec: StepSpec
    operation: str | None
    side: str | None
    needs: tuple[str, ...]
    status: StepStatus
    signed_by: str = ""
    signed_at: str = ""
    reason: str = ""
    held: str = ""
    """Why it waits for something outside the plan: a reading, a clearance, a design that tips; empty where it does not."""


def build_plan(
    survey: Survey,
    operations: tuple[Operation, ...],
    entries: tuple[Entry, ...],
    locked: Locked,
    more: tuple[StepSpec, ...] = (),
    *,
    hangs: bool = False,
    parts: bool = False,
    shut: Shut = MappingProxyType({}),
) -> tuple[Step, ...]:
    """All steps in order; a lock locks signing its step, never designing.

    ``more`` are general steps of the parts at hand; ``hangs`` says that a suspension is planned, ``parts`` that
    some of them set sizes, ``shut`` what an operation may not do as it is designed. Raises InputError and
    UnknownReference for an operation that has no place.
    """
    general = (*general_steps(operations, hangs=hangs, parts=parts), *more)
    rows = [Row(spec, None, None) for spec in general]
    rows += _operation_rows(operations, {f.id: f.name for f in survey.features})
    rows.sort(key=lambda row: (RANK[row.spec.phase], "ties" in row.spec.acts))
    ruled: dict[int, list[int]] = {}
    for before, after, _ in pairs(rows, stretches_of(survey, operations)):
        # what a rule puts first stands in an earlier phase, or earlier in its own: the order holds by itself
        if before < after:
            ruled.setdefault(after, []).append(before)
    ranks: list[int] = []
    own: dict[Owner, list[int]] = {}
    signed = {e.step: e for e in standing(entries) if isinstance(e, SignOffEntry)}
    passed = {e.subject: e for e in standing(entries) if isinstance(e, OverrideEntry)}
    steps: list[Step] = []
    state: dict[str, StepStatus] = {}
    for number, (spec, operation, side) in enumerate(rows):
        id_ = spec.key if operation is None else f"{operation}/{spec.key}/{side}"
        needs = _needs(steps, ranks, own, (operation, side), RANK[spec.phase], ruled.get(number, ()))
        # logs from before things in one piece had steps of their own signed them side by side
        older = f"{operation}/{spec.key}/left" if side == "both" else id_
        sign, reason = signed.get(id_) or signed.get(older), passed.get(id_) or passed.get(older)
        held = locked.get(id_, "") or next((why for act in spec.acts if (why := shut.get((operation, act)))), "")
        step = _step(id_, spec, operation, side, needs, reason, sign, state, held=held)
        state[id_] = step.status
        own.setdefault((operation, side), []).append(len(steps))
        ranks.append(RANK[spec.phase])
        steps.append(step)
    return tuple(steps)


class Row(NamedTuple):
    """A step before it is known what it waits for."""

    spec: StepSpec
    operation: str | None
    side: str | None


def _operation_rows(operations: tuple[Operation, ...], names: dict[str, str]) -> list[Row]:
    rows: list[Row] = []
    for op in operations:
        sides: tuple[str, ...] = ("both",) if op.one_piece else on_sides(op.side)
        for spec in _steps(op, names.get(op.anchor.anchor_id, op.anchor.anchor_id)):
            once = spec.once and len(sides) > 1
            rows += [Row(spec, op.id, side) for side in (("both",) if once else sides)]
    named = [(row.spec.title, row.operation or "") for row in rows]
    titles = named_apart(named, {op.id: op.name for op in operations})
    return [
        row if row.spec.title == title else row._replace(spec=row.spec.model_copy(update={"title": title}))
        for row, title in zip(rows, titles, strict=True)
    ]


def stretches_of(survey: Survey, operations: tuple[Operation, ...]) -> dict[tuple[str, Side], Stretch]:
    """From where to where each operation works on each rail; nothing for work beside the rails. Raises UnknownReference."""
    return {
        (op.id, side): (span.start_mm, span.end_mm)
        for op in operations
        for side in on_sides(op.side)
        for span in [op.span(survey.rails.of(side), survey.features, f"/design/operations/{op.id}")]
    }


@lru_cache(maxsize=128)
def _steps(op: Operation, datum: str) -> tuple[StepSpec, ...]:
    return tuple(op.steps(datum))


Owner = tuple[str | None, str | None]
"""Operation and side of a step; neither for a general one."""
NOBODY: Owner = (None, None)


def _needs(
    steps: list[Step],
    ranks: list[int],
    own: dict[Owner, list[int]],
    owner: Owner,
    rank: int,
    ruled: Iterable[int],
) -> tuple[str, ...]:
    """Steps that come first: general ones of earlier phases, its own operation's on its rail, and what a rule puts before it.

    ``ranks`` are those of ``steps``, which never fall; ``own`` says which of them belong to whom.
    """
    earlier, (operation, side) = bisect_left(ranks, rank), owner
    if operation is None:
        first = {*range(earlier), *own.get(owner, ()), *ruled}
    else:
        general = own.get(NOBODY, [])
        sides = ("left", "right", "both") if side == "both" else (side, "both")
        mine = [k for own_side in sides for k in own.get((operation, own_side), ())]
        first = {*general[: bisect_left(general, earlier)], *mine, *ruled}
    return tuple(steps[k].id for k in sorted(first))


def _step(
    id_: str,
    spec: StepSpec,
    operation: str | None,
    side: str | None,
    needs: tuple[str, ...],
    passed: OverrideEntry | None,
    sign: SignOffEntry | None,
    state: dict[str, StepStatus],
    *,
    held: str,
) -> Step:
    open_ = all(state[n] in {"done", "overridden"} for n in needs) and not held
    status: StepStatus = "done" if sign else "overridden" if passed else "open" if open_ else "waiting"
    who = sign or passed
    return Step(
        id=id_,
        spec=spec,
        operation=operation,
        side=side,
        needs=needs,
        status=status,
        signed_by=who.by if who else "",
        signed_at=who.at if who else "",
        reason=passed.reason if passed else "",
        held="" if who else held,
    )
