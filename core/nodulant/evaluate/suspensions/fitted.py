"""What a search of a suspension found, judged in the whole design before it is offered."""

from collections.abc import Generator
from typing import TypeVar

from nodulant.axles.suspension import Suspension
from nodulant.base.errors import NodulantError
from nodulant.evaluate.brackets.mount_follows import brought_up_to_date
from nodulant.evaluate.evaluation import Want
from nodulant.evaluate.run import evaluate
from nodulant.evaluate.suspensions.hung import Hung, hung
from nodulant.evaluate.suspensions.travel import suspension_studies
from nodulant.job.document import Inputs
from nodulant.search.bracket_holes import Asked, FoundHoles, Holes, Wanted, search_holes
from nodulant.search.bump_steer import AskedSteer, FoundSteer, SteerWish, find_bump_steer
from nodulant.search.fit_coilover import CoilWish, FoundCoil, fit_coilover
from nodulant.search.link_window import AskedWindow, FoundWindow, Window, search_window
from nodulant.search.steps import Progress

TRAVEL = Want(
    strips=False, parts=False, steps=False, readings=False, frame=False, interim=False, along=False, travel=True
)


def fitted(inputs: Inputs, index: int, wish: CoilWish) -> FoundCoil:
    """Fit the coilover of a suspension and name its own rows that fail. Raises NotSolvable and UnknownReference."""
    h = hung(inputs, index)
    design, own = h.planned.design, h.own
    found = fit_coilover(inputs.survey, own, design.seats, h.towards_rail_mm, wish)
    if found.suspension is None:
        return found
    failing = _failing(_with(h.planned, index, found.suspension))
    names = (f"{own.axle}-coil", f"{own.axle}-springs")
    of_it = [title for id_, title in failing.items() if id_.split(":")[1].startswith(names)]
    return h.back(found.model_copy(update={"fails": tuple(of_it)}))


def holes_judged(inputs: Inputs, index: int, holes: Holes, wanted: Wanted) -> Generator[Progress, None, FoundHoles]:
    """The search for bracket holes, its best places judged. Raises NotSolvable and UnknownReference."""
    h = hung(inputs, index)
    d = h.planned.design
    asked = Asked(inputs.survey, h.own, d.seats, h.towards_rail_mm, d.loads.grip, holes, wanted)
    return _judged(h, search_holes(asked))


def window_judged(
    inputs: Inputs, index: int, link: str, window: Window, wanted: Wanted
) -> Generator[Progress, None, FoundWindow]:
    """The search for a link's place, its best places judged. Raises NotSolvable and UnknownReference."""
    h = hung(inputs, index)
    d = h.planned.design
    asked = AskedWindow(inputs.survey, h.own, d.seats, h.towards_rail_mm, d.loads.grip, link, window, wanted)
    return _judged(h, search_window(asked))


def steer_cured(inputs: Inputs, index: int, wish: SteerWish) -> FoundSteer:
    """What cures the bump steer of a suspension. Raises NotSolvable and UnknownReference."""
    h = hung(inputs, index)
    return h.back(find_bump_steer(AskedSteer(inputs.survey, h.own, h.planned.design.seats, h.towards_rail_mm, wish)))


Places = TypeVar("Places", FoundHoles, FoundWindow)


def _judged(h: Hung, search: Generator[Progress, None, Places]) -> Generator[Progress, None, Places]:
    found = yield from search
    before = _failing(h.planned)
    judged = [c.model_copy(update={"fails": _new(h.planned, h.index, c.suspension, before)}) for c in found.choices]
    return h.back(found.model_copy(update={"choices": tuple(judged)}))


def _with(inputs: Inputs, index: int, suspension: Suspension) -> Inputs:
    design = inputs.design
    suspensions = (*design.suspensions[:index], suspension, *design.suspensions[index + 1 :])
    return inputs.model_copy(update={"design": design.model_copy(update={"suspensions": suspensions})})


def _failing(inputs: Inputs) -> dict[str, str]:
    """Titles of what fails once the mounts stand where their joints are, by id."""
    operations = brought_up_to_date(inputs, suspension_studies(inputs), all_asked=False)
    design = inputs.design.model_copy(update={"operations": operations})
    followed = inputs.model_copy(update={"design": design})
    return {c.id: c.title for c in evaluate(followed, TRAVEL).checks if c.verdict == "fails"}


def _new(inputs: Inputs, index: int, suspension: Suspension, before: dict[str, str]) -> tuple[str, ...]:
    """What fails with a suspension and did not before; one title once."""
    try:
        after = _failing(_with(inputs, index, suspension))
    except NodulantError as error:
        return (error.message,)
    return tuple(dict.fromkeys(title for id_, title in after.items() if id_ not in before))
