"""The lightest metal for one operation, with the whole evaluation as its goal."""

from collections.abc import Generator
from dataclasses import replace

from nodulant.base.errors import NodulantError, NotSolvable, UnknownReference
from nodulant.checks.check import Check
from nodulant.evaluate.evaluation import Want
from nodulant.evaluate.rails.both_sides import bump_of
from nodulant.evaluate.rails.solved import solved_inputs
from nodulant.evaluate.run import evaluate
from nodulant.frame.here import OnRail
from nodulant.frame.model import Placed, placed_on, planned_state
from nodulant.frame.ops.notches.notch import Notch
from nodulant.frame.ops.plates.boxing import Boxing
from nodulant.frame.ops.pockets.raise_into import Raise
from nodulant.frame.ops.union import Operation
from nodulant.frame.parts import on_rail, rail_here
from nodulant.job.document import Inputs
from nodulant.parts.sides import LEFT_RIGHT, on_sides
from nodulant.search.boxing_sets import Around, boxing_beside
from nodulant.search.cut_sets import cut_trials, stiffer_cut
from nodulant.search.finder import FoundSets, Judge, Judged, Progress, Trial, search
from nodulant.search.piece_sets import Joined, piece_trials
from nodulant.search.plate_sets import Stock
from nodulant.search.screens import Cut, cut_screen, piece_screen
from nodulant.strength.rail import missing_for_sections
from nodulant.strength.space import missing_for_space

QUICK = Want(strips=False, parts=False, steps=False, readings=False, interim=False, along=False, travel=False)
"""What a verdict near a cut needs."""
OF_PLACE_AND_SIZE = frozenset(
    {"notch-depth", "notch-width", "corner-radius", "hole-distance", "end-distance", "in-the-cut"}
)
"""Rows that no metal mends: where a cut is and how big."""
FINDABLE = Notch | Raise | Joined


def find_sets(inputs: Inputs, operation_id: str, stock: Stock | None = None) -> Generator[Progress, None, FoundSets]:
    """Search step by step; raises UnknownReference and NotSolvable."""
    index, op = _named(inputs.design.operations, operation_id)
    rack = stock or Stock(thicknesses_mm=inputs.shop.plate_stock_mm, cap_heights_mm=inputs.shop.cap_heights_mm)
    for each in LEFT_RIGHT:
        if missing := missing_for_sections(inputs.survey, each):
            raise NotSolvable(
                "a wall of the rail was not measured", field=missing[0], found="nothing", acceptable="a thickness"
            )
    if isinstance(op, Joined):
        return _pieces(inputs, index, op, rack)
    return _cuts(inputs, index, op, rack)


def _named(operations: tuple[Operation, ...], operation_id: str) -> tuple[int, FINDABLE]:
    for index, op in enumerate(operations):
        if op.id == operation_id and isinstance(op, FINDABLE):
            return index, op
    names = ", ".join(op.id for op in operations if isinstance(op, FINDABLE)) or "none in this design"
    raise UnknownReference(
        f"there is no cut '{operation_id}' to find metal for",
        field="/operation_id",
        found=operation_id,
        acceptable=names,
    )


def _cuts(inputs: Inputs, index: int, op: Notch | Raise, stock: Stock) -> Generator[Progress, None, FoundSets]:
    survey, design, side = inputs.survey, inputs.design, on_sides(op.side)[0]
    trials = cut_trials(survey, design.operations, index, side, stock)
    placed = placed_on(survey, design.operations, side, planned_state(design.operations))
    own = next(p for p in placed if p.index == index)
    here = rail_here(survey, side, own.centre_mm, placed)
    cut = Cut(survey, design.seats, design.limits, design.rule, bump_of(inputs).factor, side)
    hint = "Add thicker plate or a higher cap to the stock, make the cut shallower, or use a straight-sided one."
    return search(trials, cut_screen(cut, op.id), judge_near(inputs, op.id), stiffer_cut(here, index), hint)


def _pieces(inputs: Inputs, index: int, op: Joined, stock: Stock) -> Generator[Progress, None, FoundSets]:
    survey, design = inputs.survey, inputs.design
    if missing := missing_for_space(survey):
        raise NotSolvable(
            "the frame cannot be solved yet", field=missing[0], found="nothing", acceptable="what it is made of"
        )
    solved = solved_inputs(inputs)
    if solved.frames is None:
        raise NotSolvable(
            "the frame cannot be solved",
            field="/survey/crossmembers",
            found="no solution",
            acceptable="what ties the rails",
        )
    trials, on = joined_trials(inputs, index, op, stock)
    screen = piece_screen(solved.rails, solved.frames, solved.plan, design.limits, on, survey)
    hint = "Add thicker plate to the stock, change how the ends are joined, or box the rail ahead of it and behind it."
    return search(trials, screen, judge_near(inputs, op.id), _as_it_is, hint)


def joined_trials(inputs: Inputs, index: int, op: Joined, stock: Stock) -> tuple[list[Trial], OnRail]:
    """Every set of a piece between two ends of a rail, and where it stands."""
    survey, design, side = inputs.survey, inputs.design, on_sides(op.side)[0]
    placed = placed_on(survey, design.operations, side, planned_state(design.operations))
    own = next(p for p in placed if p.index == index)
    on = on_rail(survey, side, own, placed)

    def boxed(made: Joined) -> tuple[Boxing, ...]:
        span = made.span(on.rail, survey.features, "")
        there = replace(own, start_mm=span.start_mm, end_mm=span.end_mm)
        others = [p for p in placed if p is not own]
        return boxing_beside(Around(survey, design.operations, there, others, side, stock))

    return piece_trials(design.operations, index, op, stock, on, boxed), on


def _as_it_is(trial: Trial) -> None:
    """A piece's welds follow its plates already."""


def judge_near(inputs: Inputs, operation_id: str) -> Judge:
    """Judges a design by every row of the operation, of the rail within twice its height of it, and by what it makes fail elsewhere."""
    without = _failing_without(inputs, operation_id)

    def judge(operations: tuple[Operation, ...]) -> Judged:
        design = inputs.design.model_copy(update={"operations": operations})
        try:
            result = evaluate(inputs.model_copy(update={"design": design}), QUICK)
        except NodulantError as error:
            return Judged(1, 99.0, error.message)
        new = {op.id for op in operations} - {op.id for op in inputs.design.operations}
        near = _near(inputs, operations, operation_id)
        rows = [c for c in result.checks if _concerns(c, {operation_id, *new}, near)]
        failing = [c for c in rows if c.verdict == "fails"]
        failing += [c for c in result.checks if _elsewhere(c) and c.id not in without and c not in failing]
        judged = [c for c in rows if c.verdict in {"close", "holds"}]
        worst = max(failing or judged, key=lambda c: c.beyond or 0.0, default=None)
        return Judged(len(failing), (worst.beyond or 0.0) if worst else 0.0, worst.title if worst else "")

    return judge


def _failing_without(inputs: Inputs, operation_id: str) -> frozenset[str]:
    """What of the frame fails without the operation: no set on it is to blame."""
    others = tuple(op for op in inputs.design.operations if op.id != operation_id)
    design = inputs.design.model_copy(update={"operations": others})
    try:
        result = evaluate(inputs.model_copy(update={"design": design}), QUICK)
    except NodulantError:
        return frozenset()
    return frozenset(c.id for c in result.checks if _elsewhere(c))


def _elsewhere(check: Check) -> bool:
    """Whether a case fails somewhere on a rail."""
    return check.verdict == "fails" and check.governs.case is not None and check.id.split(":")[1].startswith("rail")


def _near(inputs: Inputs, operations: tuple[Operation, ...], operation_id: str) -> tuple[float, float]:
    """Stations within twice the rail's height of an operation, mm."""
    spans: list[Placed] = []
    for side in LEFT_RIGHT:
        placed = placed_on(inputs.survey, operations, side, planned_state(operations))
        spans += [p for p in placed if p.op.id == operation_id]
    height = max(s.height_mm for s in inputs.survey.rails.left.stations)
    return min(p.start_mm for p in spans) - 2 * height, max(p.end_mm for p in spans) + 2 * height


def _concerns(check: Check, ids: set[str], near: tuple[float, float]) -> bool:
    """Whether a check is of the operation, or of the rail's strength beside it."""
    subject, x = check.id.split(":")[1], check.governs.station_mm
    if check.stage != "cut" or check.state != "planned" or check.limit_id in OF_PLACE_AND_SIZE:
        return False
    if any(subject == own or subject.startswith(f"{own}-") for own in ids):
        return True
    return subject.startswith("rail") and x is not None and near[0] <= x <= near[1]
