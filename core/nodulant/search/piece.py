"""The lightest piece between two ends of a cut rail that meets every verdict on it.

All sets of the stock are ranked by mass and screened with the forces of the frame as it is; the
first that still passes once the frame is solved with it is the answer, and the next ones that
use other kinds of metal are its alternatives, each with what it is nearest to failing in.
"""

from collections.abc import Generator, Iterator
from dataclasses import dataclass, replace

import numpy as np

from nodulant.base.errors import InputError, NodulantError, UnknownReference
from nodulant.base.model import Frozen
from nodulant.checks.check import Check
from nodulant.checks.joint_rules import joint_checks
from nodulant.checks.seam_rules import seam_checks
from nodulant.frame.here import OnRail
from nodulant.frame.model import placed_on, planned_state
from nodulant.frame.ops.union import Operation
from nodulant.frame.parts import on_rail
from nodulant.frame.ties import planned_crossmembers
from nodulant.loads.plan import LoadPlan
from nodulant.parts.joint import Joint
from nodulant.parts.limit import LimitChange
from nodulant.parts.sides import LEFT_RIGHT, Side, on_sides
from nodulant.search.piece_sets import Joined, PieceRow, piece_rows, with_piece
from nodulant.search.plate_sets import Stock
from nodulant.search.steps import Progress, to_the_end
from nodulant.strength.rail import RailComparison, compare_rail, joints_of
from nodulant.strength.space import FrameComparison, Planned, compare_frames
from nodulant.survey.crossmember import Crossmember
from nodulant.survey.vehicle import Seat, Survey

PASSES = -1e-6
ALTERNATIVES = 4
CONFIRMED = 40
"""How many sets are solved with the frame before the search gives up."""


class PieceChoice(Frozen):
    """A set that passes: the operation that carries it, its mass a side, and what it is nearest to failing in."""

    operation: Operation
    wall_mm: float
    depth_mm: float
    outer_mm: float
    inner_mm: float
    gusset_mm: float
    gusset_leg_mm: float
    overlap_mm: float
    mass_kg: float
    least_margin: float
    governs: str


class FoundPiece(Frozen):
    """Sets that pass, lightest first and each of other kinds of metal, or the reason why there is none."""

    choices: tuple[PieceChoice, ...]
    tried: int
    reason: str = ""


@dataclass(frozen=True)
class Whole:
    """The frame that the piece stands in: all that evaluating it asks for."""

    survey: Survey
    operations: tuple[Operation, ...]
    seats: tuple[Seat, ...]
    crossmembers: tuple[Crossmember, ...]
    plan: LoadPlan
    limits: dict[str, LimitChange]
    drop_mm: float


def find_piece(whole: Whole, operation_id: str, stock: Stock) -> FoundPiece:
    """Search the stock to the end; raises UnknownReference and NotSolvable."""
    return to_the_end(search_piece(whole, operation_id, stock))


@dataclass(frozen=True)
class _Trial:
    row: PieceRow
    op: Joined
    mass_kg: float
    margin: float
    governs: str


def search_piece(whole: Whole, operation_id: str, stock: Stock) -> Generator[Progress, None, FoundPiece]:
    """Search step by step: yields progress, returns what was found."""
    index, op = _named(whole.operations, operation_id)
    side = on_sides(op.side)[0]
    frames = _solved(whole, whole.operations)[1]
    on = _on(whole, whole.operations, index, side)
    rows = list(piece_rows(op, stock, on.here.height))
    trials = []
    rail = _rails(whole, whole.operations)[side]
    for done, row in enumerate(rows):
        if done % 40 == 0:
            yield done, len(rows)
        if trial := _screened(whole, frames, rail, row, with_piece(op, row, on, stock.steel_id), on):
            trials.append(trial)
    trials.sort(key=lambda t: t.mass_kg)
    choices: list[PieceChoice] = []
    best = max(trials, key=lambda t: t.margin, default=None)
    fit = [t for t in trials if t.margin >= PASSES]
    kinds: set[tuple[bool, ...]] = set()
    chosen: list[PieceRow] = []
    solved = 0
    for trial in fit:
        if len(choices) > ALTERNATIVES or solved >= CONFIRMED:
            break
        if trial.row.kinds in kinds or any(_no_less(trial.row, c) for c in chosen):
            continue
        solved += 1
        yield len(rows), len(rows)
        margin, governs = _confirmed(whole, index, trial.op)
        if margin >= PASSES:
            kinds.add(trial.row.kinds)
            chosen.append(trial.row)
            choices.append(_choice(replace(trial, margin=margin, governs=governs)))
    return FoundPiece(choices=tuple(choices), tried=len(rows), reason="" if choices else _reason(best))


def _no_less(row: PieceRow, other: PieceRow) -> bool:
    """Whether ``row`` only adds metal to ``other``, which passes already."""
    return all(a >= b for a, b in zip(row, other, strict=True))


def _reason(best: _Trial | None) -> str:
    if best is None:
        return "no set of the stock can be placed here: the cut or its plates lie over something else"
    return (
        f"no set of the stock passes; the best still misses {best.governs} by {-best.margin:.0%}"
        if best.margin < PASSES
        else f"sets that pass under today's forces fail once they change the frame's own; the nearest is short in {best.governs}"
    )


def _choice(t: _Trial) -> PieceChoice:
    r = t.row
    return PieceChoice(
        operation=t.op,
        wall_mm=r.wall,
        depth_mm=r.depth,
        outer_mm=r.outer,
        inner_mm=r.inner,
        gusset_mm=r.gusset,
        gusset_leg_mm=r.leg,
        overlap_mm=r.lap,
        mass_kg=t.mass_kg,
        least_margin=t.margin,
        governs=t.governs,
    )


def _named(operations: tuple[Operation, ...], operation_id: str) -> tuple[int, Joined]:
    for index, op in enumerate(operations):
        if op.id == operation_id and isinstance(op, Joined):
            return index, op
    names = ", ".join(op.id for op in operations if isinstance(op, Joined)) or "none in this design"
    raise UnknownReference(
        f"there is no piece '{operation_id}'", field="/operation_id", found=operation_id, acceptable=names
    )


def _on(whole: Whole, operations: tuple[Operation, ...], index: int, side: Side) -> OnRail:
    placed = placed_on(whole.survey, operations, side, planned_state(operations))
    return on_rail(whole.survey, side, next(p for p in placed if p.index == index), placed)


def _rails(whole: Whole, operations: tuple[Operation, ...]) -> dict[Side, RailComparison]:
    state = planned_state(operations)
    return {side: compare_rail(whole.survey, operations, whole.seats, side, state) for side in LEFT_RIGHT}


def _solved(
    whole: Whole, operations: tuple[Operation, ...]
) -> tuple[dict[Side, RailComparison], FrameComparison, tuple[Joint, ...]]:
    rails = _rails(whole, operations)
    joints = joints_of(rails)
    ties = planned_crossmembers(whole.survey, operations, whole.crossmembers)
    planned = Planned(whole.seats, ties, joints, whole.plan, whole.drop_mm)
    return rails, compare_frames(whole.survey, planned, rails), joints


def _screened(
    whole: Whole, frames: FrameComparison, rail: RailComparison, row: PieceRow, op: Joined, on: OnRail
) -> _Trial | None:
    """One set under the forces of the frame as it is; None where it cannot be placed at all."""
    try:
        op.refuse(on.here.height, "")
    except InputError:
        return None
    span = op.span(on.rail, whole.survey.features, "")
    here = replace(on, span=span)
    checks = joint_checks(op.joints(here), {on.side: rail}, frames, whole.plan, whole.limits)
    mass = sum(part.mass_kg() for part in op.parts(here))
    margin, governs = _least(iter(checks))
    return _Trial(row, op, mass, margin, governs)


def _confirmed(whole: Whole, index: int, op: Joined) -> tuple[float, str]:
    """The frame solved with the set in it: the least margin of every check on the piece, both sides."""
    operations = (*whole.operations[:index], op, *whole.operations[index + 1 :])
    try:
        rails, frames, joints = _solved(whole, operations)
    except NodulantError as error:
        return -np.inf, error.message
    by_name: dict[str, RailComparison] = dict(rails.items())
    checks = joint_checks(tuple(j for j in joints if j.operation == op.id), by_name, frames, whole.plan, whole.limits)
    for rail in rails.values():
        own = [c for c in seam_checks(rail, frames, whole.plan, whole.limits) if c.id.split(":")[1].startswith(op.id)]
        checks += own
    return _least(iter(checks))


def _least(checks: Iterator[Check]) -> tuple[float, str]:
    """The worst margin and its title; a check that is not computed is no pass."""
    rows = [(-np.inf if c.margin is None else c.margin, c.title) for c in checks]
    return min(rows, default=(-np.inf, "a piece that is not there"))
