"""A fitted coilover judged before it is offered: what of it fails in the design."""

from nodulant.evaluate.evaluation import Want
from nodulant.evaluate.run import evaluate
from nodulant.job.document import Inputs
from nodulant.search.fit_coilover import CoilWish, FoundCoil, fit_coilover
from nodulant.targets.drop import towards_rail

TRAVEL = Want(
    strips=False, parts=False, steps=False, readings=False, frame=False, interim=False, along=False, travel=True
)


def fitted(inputs: Inputs, index: int, wish: CoilWish) -> FoundCoil:
    """Fit the coilover of a suspension and name its own rows that fail. Raises NotSolvable."""
    design = inputs.design
    own = design.suspensions[index]
    found = fit_coilover(inputs.survey, own, design.seats, towards_rail(design.targets, own.axle), wish)
    if found.suspension is None:
        return found
    suspensions = (*design.suspensions[:index], found.suspension, *design.suspensions[index + 1 :])
    tried = inputs.model_copy(update={"design": design.model_copy(update={"suspensions": suspensions})})
    failing = [c for c in evaluate(tried, TRAVEL).checks if c.verdict == "fails"]
    of_it = [c.title for c in failing if c.id.split(":")[1].startswith((f"{own.axle}-coil", f"{own.axle}-springs"))]
    return found.model_copy(update={"fails": tuple(of_it)})
