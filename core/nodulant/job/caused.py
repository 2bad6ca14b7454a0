"""Drop that cuts make by themselves: a step or a raised pocket enters the stacks of the axles that it lowers."""

from collections.abc import Mapping

import numpy as np

from nodulant.base.model import Id
from nodulant.frame.model import place_one, planned_state
from nodulant.frame.ops.mounts.pad import Pad
from nodulant.frame.ops.pockets.raise_into import Raise
from nodulant.frame.ops.subframes.subframe import Subframe
from nodulant.frame.ops.through.zstep import ZStep
from nodulant.frame.ops.union import Operation
from nodulant.frame.place import resolve
from nodulant.frame.route import route_of
from nodulant.loads.plan import LoadPlan, StopPads
from nodulant.parts.sides import LEFT_RIGHT, AxleName
from nodulant.survey.vehicle import Survey
from nodulant.targets.drop import COUNTS_MM, CausedEntry, DropEntry, Mechanism, Targets

NEAR_MM = 700.0
"""A pocket takes along what sits this near on its subframe: masses, mounts, and the axle under it."""


Carriers = Mapping[AxleName, frozenset[str]]
"""What the planned suspension of an axle rides with; an axle that keeps its stock suspension is left out."""


def with_caused(
    survey: Survey, operations: tuple[Operation, ...], targets: Targets, carriers: Carriers | None = None
) -> Targets:
    """Targets whose stacks hold what the cuts do; what was typed of a mechanism stands for all of that mechanism."""
    rear = _made(survey, operations, "rear", targets.entries, carriers or {})
    front = _made(survey, operations, "front", targets.front.entries, carriers or {})
    if not rear and not front:
        return targets
    stack = targets.front.model_copy(update={"entries": (*targets.front.entries, *front)})
    return targets.model_copy(update={"entries": (*targets.entries, *rear), "front": stack})


def _made(
    survey: Survey,
    operations: tuple[Operation, ...],
    axle: AxleName,
    typed: tuple[DropEntry, ...],
    carriers: Carriers,
) -> tuple[CausedEntry, ...]:
    told = {entry.mechanism for entry in typed}
    subframes = [op for op in operations if isinstance(op, Subframe) and _carries(survey, op, axle, carriers)]
    # where a subframe is a part of its own, its pockets only make room for it
    pocket = None if subframes else _pocket_of(survey, operations, axle)
    own = [*subframes, *(op for op in operations if isinstance(op, ZStep) or op is pocket)]
    rows = (_row(op, *_lowers(survey, op, axle)) for op in operations if op in own)
    return tuple(r for r in rows if r.mechanism not in told and abs(r.amount_mm or 0.0) > COUNTS_MM)


def _pocket_of(survey: Survey, operations: tuple[Operation, ...], axle: AxleName) -> Raise | None:
    """Several pockets take up one subframe, and it comes down once: by the pocket that is nearest to the axle."""
    x = 0.0 if axle == "front" else survey.wheelbase_mm or 0.0
    near = [op for op in operations if isinstance(op, Raise) and _near(survey, op, axle)]
    return min(near, key=lambda op: abs(resolve(op.place, survey.features) - x), default=None)


def _carries(survey: Survey, op: Subframe, axle: AxleName, carriers: Carriers) -> bool:
    """Whether an axle hangs on a subframe: its planned suspension says so, a stock one by where it is."""
    return op.id in carriers[axle] if axle in carriers else _near(survey, op, axle)


def _row(op: Operation, mechanism: Mechanism, amount_mm: float) -> CausedEntry:
    return CausedEntry(id=_id(op.id), name=op.name, mechanism=mechanism, amount_mm=amount_mm)


def _id(operation_id: str) -> Id:
    return f"cut-{operation_id}"[:40]


def _near(survey: Survey, op: Raise | Subframe, axle: AxleName) -> bool:
    x = 0.0 if axle == "front" else survey.wheelbase_mm or 0.0
    return abs(resolve(op.place, survey.features) - x) < NEAR_MM


def _lowers(survey: Survey, op: ZStep | Raise | Subframe, axle: AxleName) -> tuple[Mechanism, float]:
    """How far an operation lowers the rails' straight part against an axle, mm, mean of both rails."""
    x = 0.0 if axle == "front" else survey.wheelbase_mm or 0.0
    if isinstance(op, Subframe):
        return "raise", op.lowers()
    if isinstance(op, Raise):
        return "raise", op.lowers()
    at = np.array([x, (survey.wheelbase_mm or 0.0) / 2])
    datum = next(f.x_mm for f in survey.features if f.id == survey.datum.feature_id)
    lifts = []
    for side in LEFT_RIGHT:
        placed = place_one(survey, op, 0, side, planned_state((op,)))
        dz = route_of(op.moves(placed.span, side) if placed else (), datum).shift(at).dz
        lifts.append(float(dz[0] - dz[1]))
    return "z-step", sum(lifts) / len(lifts)


def with_stops(survey: Survey, operations: tuple[Operation, ...], loads: LoadPlan) -> LoadPlan:
    """The load plan with the places where bump stops strike: a stop's plate under the rail says its own; typed ones stand."""
    if survey.wheelbase_mm is None:
        return loads
    found = {own.axle: own for own in loads.stops}
    for op in operations:
        if isinstance(op, Pad) and op.holds == "bump-stop":
            x = resolve(op.place, survey.features)
            axle: AxleName = "front" if x < survey.wheelbase_mm / 2 else "rear"
            found.setdefault(axle, StopPads(x_mm=x, axle=axle))
    stops = tuple(found.values())
    return loads if stops == loads.stops else loads.model_copy(update={"stops": stops})
