"""Both rails and both frames of one design, solved once for those that look closer than the checks."""

from dataclasses import dataclass

from nodulant.base.errors import NodulantError
from nodulant.evaluate.load_plan import plan_of
from nodulant.frame.model import planned_state
from nodulant.frame.ties import planned_crossmembers
from nodulant.job.document import Inputs
from nodulant.loads.plan import PlanInForce
from nodulant.parts.sides import LEFT_RIGHT, Side
from nodulant.strength.rail import RailComparison, compare_rail, joints_of
from nodulant.strength.space import FrameComparison, Planned, compare_frames, missing_for_space


@dataclass(frozen=True)
class SolvedInputs:
    """Inputs with their plan in force, rails and frames; ``frames`` is None where the frame has no solution."""

    inputs: Inputs
    plan: PlanInForce
    rails: dict[Side, RailComparison]
    frames: FrameComparison | None


def solved_inputs(inputs: Inputs) -> SolvedInputs:
    """Compare rails and frames; walls must have been measured. Raises InputError and NotSolvable."""
    survey, design, plan = inputs.survey, inputs.design, plan_of(inputs)
    state = planned_state(design.operations)
    rails = {s: compare_rail(survey, design.operations, design.seats, s, state) for s in LEFT_RIGHT}
    if missing_for_space(survey):
        return SolvedInputs(inputs, plan, rails, None)
    ties = planned_crossmembers(survey, design.operations, design.crossmembers)
    planned = Planned(design.seats, ties, joints_of(rails), plan, design.targets.drop_mm)
    try:
        return SolvedInputs(inputs, plan, rails, compare_frames(survey, planned, rails))
    except NodulantError:
        return SolvedInputs(inputs, plan, rails, None)
