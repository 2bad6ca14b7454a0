"""What a search of a suspension found, judged in the whole design before it is offered."""

from collections.abc import Generator

from nodulant.axles.suspension import Suspension
from nodulant.base.errors import NodulantError
from nodulant.evaluate.evaluation import Want
from nodulant.evaluate.run import evaluate
from nodulant.job.document import Inputs
from nodulant.search.bracket_holes import Asked, FoundHoles, search_holes
from nodulant.search.fit_coilover import CoilWish, FoundCoil, fit_coilover
from nodulant.search.link_window import AskedWindow, FoundWindow, search_window
from nodulant.search.steps import Progress
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
    failing = [c for c in evaluate(_with(inputs, index, found.suspension), TRAVEL).checks if c.verdict == "fails"]
    of_it = [c.title for c in failing if c.id.split(":")[1].startswith((f"{own.axle}-coil", f"{own.axle}-springs"))]
    return found.model_copy(update={"fails": tuple(of_it)})


def holes_judged(inputs: Inputs, index: int, asked: Asked) -> Generator[Progress, None, FoundHoles]:
    """The search for bracket holes, its best places judged. Raises NotSolvable."""
    found = yield from search_holes(asked)
    before = _failing(inputs)
    judged = [c.model_copy(update={"fails": _new(inputs, index, c.suspension, before)}) for c in found.choices]
    return found.model_copy(update={"choices": tuple(judged)})


def window_judged(inputs: Inputs, index: int, asked: AskedWindow) -> Generator[Progress, None, FoundWindow]:
    """The search for a link's place, its best places judged. Raises NotSolvable."""
    found = yield from search_window(asked)
    before = _failing(inputs)
    judged = [c.model_copy(update={"fails": _new(inputs, index, c.suspension, before)}) for c in found.choices]
    return found.model_copy(update={"choices": tuple(judged)})


def _with(inputs: Inputs, index: int, suspension: Suspension) -> Inputs:
    design = inputs.design
    suspensions = (*design.suspensions[:index], suspension, *design.suspensions[index + 1 :])
    return inputs.model_copy(update={"design": design.model_copy(update={"suspensions": suspensions})})


def _failing(inputs: Inputs) -> dict[str, str]:
    """Titles of what fails, by id."""
    return {c.id: c.title for c in evaluate(inputs, TRAVEL).checks if c.verdict == "fails"}


def _new(inputs: Inputs, index: int, suspension: Suspension, before: dict[str, str]) -> tuple[str, ...]:
    """What fails with a suspension and did not before; one title once."""
    try:
        after = _failing(_with(inputs, index, suspension))
    except NodulantError as error:
        return (error.message,)
    return tuple(dict.fromkeys(title for id_, title in after.items() if id_ not in before))
