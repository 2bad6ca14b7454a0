"""Both rails alike: what was worked out for the left one holds for the right."""

from dataclasses import replace

from nodulant.checks.check import Check
from nodulant.frame.parts import work_on
from nodulant.job.document import Inputs
from nodulant.strength.rail import RailComparison


def alike(inputs: Inputs) -> bool:
    """Whether rails, operations and holes are planned the same left and right."""
    rails, design = inputs.survey.rails, inputs.design
    return (
        rails.left == rails.right
        and all(op.side == "both" for op in design.operations)
        and all(feature.side == "both" for feature in inputs.survey.features)
    )


def right_of(inputs: Inputs, left: RailComparison) -> RailComparison:
    """The right rail's comparison from the left one's."""
    return replace(left, side="right", work=work_on(inputs.survey, "right", left.placed))


def mirrored(check: Check) -> Check:
    """The same check of the right rail."""
    own, *state = check.id.split("@")
    id_ = "@".join([f"{own.removesuffix(':left')}:right", *state])
    missing = tuple(pointer.replace("/rails/left/", "/rails/right/") for pointer in check.missing)
    cause = check.cause.replace("/rails/left/", "/rails/right/")
    return check.model_copy(update={"id": id_, "missing": missing, "cause": cause})
