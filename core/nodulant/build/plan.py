"""Steps of a job in an order that keeps every prerequisite before its step.

General steps come from the job, the others from its operations. A step needs all general
steps of earlier phases and all steps of its own operation and side in earlier phases; the
order is by phase, then operation, then side. State comes from the log.
"""

from bisect import bisect_left
from dataclasses import dataclass
from functools import lru_cache
from typing import Literal

from nodulant.asbuilt.log import Entry, OverrideEntry, SignOffEntry, standing
from nodulant.frame.ops.union import Operation
from nodulant.parts.apart import named_apart
from nodulant.parts.sides import on_sides
from nodulant.parts.specs import PHASES, HoldPoint, StepSpec
from nodulant.survey.vehicle import Feature
from nodulant.units.inline import as_length

StepStatus = Literal["waiting", "open", "done", "overridden"]
SUPPORTS = "Rated stands on flat concrete, never only a jack; wheels chocked."
TEARDOWN = "teardown"
ALONG_STEP = "take-along"
RANK = {phase: i for i, phase in enumerate(PHASES)}

TAKE_ALONG = StepSpec(
    key=ALONG_STEP,
    phase="prepare",
    title="What goes along or is in the way clears: release the cut",
    detail="Engine, sump, steering, column, tank, exhaust, anti-roll bar and hoses: each has a clearance, is not there, or has a way out.",
    minutes=20,
    hold=HoldPoint(kind="look", ask="Every row of the take-along list is settled"),
)

GENERAL: tuple[StepSpec, ...] = (
    StepSpec(
        key=TEARDOWN,
        phase="survey",
        title="Survey complete: release teardown",
        detail="Every reading that teardown destroys is in the survey.",
        minutes=15,
        hold=HoldPoint(kind="look", ask="All readings taken before teardown"),
    ),
    StepSpec(
        key="loads-off",
        phase="prepare",
        title="Loads and fluids off",
        detail="Battery off, tank and lines away or shielded, brake lines off the cut, springs unloaded with the supports already on the frame.",
        minutes=120,
        tools=("stands", "shields"),
        cautions=("Springs store energy.", "Fuel vapour: no flame, no sparks.", SUPPORTS),
    ),
    StepSpec(
        key="supports",
        phase="prepare",
        title="Frame on stands",
        detail="Level, both sides, on either side of the cut.",
        minutes=45,
        people=2,
        tools=("stands", "level"),
        cautions=(SUPPORTS,),
        hold=HoldPoint(kind="look", ask="It stands without the jack and does not rock"),
    ),
    StepSpec(
        key="brace",
        phase="brace",
        title="Brace both sides of the cut",
        detail=f"A tie across and along the rails, unless a crossmember lies within {as_length(150)} of the cut.",
        minutes=60,
        tools=("square tube", "welder"),
        cautions=(SUPPORTS,),
    ),
    StepSpec(
        key="paint",
        phase="finish",
        title="Inspect, prime and paint",
        detail="Look for undercut, missed roots and porosity; bare metal, two coats of epoxy.",
        minutes=120,
        cautions=("Respirator: zinc and paint fumes.",),
        hold=HoldPoint(kind="look", ask="Welds looked at by a second person"),
    ),
    StepSpec(
        key="prove",
        phase="prove",
        title="As-built readings",
        detail="Every reading of the cut and its plates, both sides.",
        minutes=60,
        tools=("tape", "depth gauge", "calliper"),
    ),
    StepSpec(
        key="retorque",
        phase="prove",
        title="Road test and re-torque after 100 km",
        detail="Welds, bolts, joints, rubbing marks; again after 1000 km.",
        minutes=90,
    ),
)


Locked = frozenset[str]
"""Ids of steps that wait for something outside the plan."""


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


def build_plan(
    operations: tuple[Operation, ...],
    features: tuple[Feature, ...],
    entries: tuple[Entry, ...],
    locked: Locked,
    more: tuple[StepSpec, ...] = (),
) -> tuple[Step, ...]:
    """All steps in order; a lock locks signing its step, never designing. ``more`` are general steps of the parts at hand."""
    rows: list[tuple[StepSpec, str | None, str | None]] = [(spec, None, None) for spec in (*GENERAL, *more)]
    rows += _operation_rows(operations, {f.id: f.name for f in features})
    rows.sort(key=lambda row: RANK[row[0].phase])
    ranks: list[int] = []
    own: dict[Owner, list[int]] = {}
    signed = {e.step: e for e in standing(entries) if isinstance(e, SignOffEntry)}
    passed = {e.subject: e for e in standing(entries) if isinstance(e, OverrideEntry)}
    steps: list[Step] = []
    state: dict[str, StepStatus] = {}
    for spec, operation, side in rows:
        id_ = spec.key if operation is None else f"{operation}/{spec.key}/{side}"
        needs = _needs(steps, ranks, own, (operation, side), RANK[spec.phase])
        # logs from before things in one piece had steps of their own signed them side by side
        older = f"{operation}/{spec.key}/left" if side == "both" else id_
        sign, reason = signed.get(id_) or signed.get(older), passed.get(id_) or passed.get(older)
        step = _step(id_, spec, operation, side, needs, reason, sign, state, locked)
        state[id_] = step.status
        own.setdefault((operation, side), []).append(len(steps))
        ranks.append(RANK[spec.phase])
        steps.append(step)
    return tuple(steps)


def _operation_rows(
    operations: tuple[Operation, ...], names: dict[str, str]
) -> list[tuple[StepSpec, str | None, str | None]]:
    rows: list[tuple[StepSpec, str | None, str | None]] = []
    for op in operations:
        specs = _steps(op, names.get(op.anchor.anchor_id, op.anchor.anchor_id))
        sides: tuple[str, ...] = ("both",) if op.one_piece else on_sides(op.side)
        rows += [(spec, op.id, side) for side in sides for spec in specs]
    titles = named_apart([(spec.title, own) for spec, own, _ in rows], {op.id: op.name for op in operations})
    return [
        (spec if spec.title == title else spec.model_copy(update={"title": title}), own, side)
        for (spec, own, side), title in zip(rows, titles, strict=True)
    ]


@lru_cache(maxsize=128)
def _steps(op: Operation, datum: str) -> tuple[StepSpec, ...]:
    return tuple(op.steps(datum))


Owner = tuple[str | None, str | None]
"""Operation and side of a step; neither for a general one."""
NOBODY: Owner = (None, None)


def _needs(
    steps: list[Step], ranks: list[int], own: dict[Owner, list[int]], owner: Owner, rank: int
) -> tuple[str, ...]:
    """Steps that come first: general ones and those of its own operation and side, of earlier phases or before it in its own.

    ``ranks`` are those of ``steps``, which never fall; ``own`` says which of them belong to whom.
    """
    mine, earlier = own.get(owner, []), bisect_left(ranks, rank)
    if owner == NOBODY:
        first = sorted({*range(earlier), *mine})
    else:
        general = own.get(NOBODY, [])
        first = sorted([*general[: bisect_left(general, earlier)], *mine])
    return tuple(steps[k].id for k in first)


def _step(
    id_: str,
    spec: StepSpec,
    operation: str | None,
    side: str | None,
    needs: tuple[str, ...],
    passed: OverrideEntry | None,
    sign: SignOffEntry | None,
    state: dict[str, StepStatus],
    locked: Locked,
) -> Step:
    open_ = all(state[n] in {"done", "overridden"} for n in needs) and id_ not in locked
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
    )
