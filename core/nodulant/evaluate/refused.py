"""What keeps a design from being looked at at all: every problem with its field, so that all fields can show theirs."""

from collections.abc import Callable

from nodulant.base.errors import NodulantError
from nodulant.evaluate.evaluation import InvalidInputs
from nodulant.frame.model import STOCK, place_one, placed_on, planned_state
from nodulant.frame.ties import planned_crossmembers
from nodulant.job.document import Inputs
from nodulant.job.riding import in_place
from nodulant.parts.sides import LEFT_RIGHT
from nodulant.targets.drop import add_up


def refuse_broken(inputs: Inputs) -> None:
    """Raise InvalidInputs with the problems of operations, crossmembers, stacks and suspensions."""
    design = inputs.design
    problems = _placing(inputs) + _twice(inputs)
    problems += _raised_by(lambda: planned_crossmembers(inputs.survey, design.operations, design.crossmembers))
    problems += _raised_by(lambda: add_up(design.targets)) + _raised_by(lambda: add_up(design.targets.front, "front"))
    if problems := problems or _raised_by(lambda: in_place(inputs)):
        raise InvalidInputs(problems)


def _raised_by(tried: Callable[[], object]) -> list[NodulantError]:
    try:
        tried()
    except NodulantError as error:
        return [error]
    return []


def _placing(inputs: Inputs) -> list[NodulantError]:
    """What keeps operations from their places: each by itself first, then together."""
    return (_alone(inputs) or together) if (together := _together(inputs)) else []


def _twice(inputs: Inputs) -> list[NodulantError]:
    """Two that would be one: suspensions of an axle, and operations, seats, supports and whatever else goes by an id."""
    problems = []
    for root, held in (("design", inputs.design.suspensions), ("survey", inputs.survey.suspensions)):
        axles = [own.axle for own in held]
        if len(set(axles)) != len(axles):
            problems.append(
                NodulantError(
                    "two suspensions hold one axle",
                    field=f"/{root}/suspensions/1/axle",
                    found=" and ".join(axles),
                    acceptable="one of the front, one of the rear",
                )
            )
    linked = [own.axle for own in inputs.design.loads.links]
    if len(set(linked)) != len(linked):
        problems.append(
            NodulantError(
                "two sets of links push for one axle",
                field="/design/loads/links/1/axle",
                found=" and ".join(linked),
                acceptable="one of the front, one of the rear",
            )
        )
    for root, document in (("survey", inputs.survey), ("design", inputs.design)):
        for name, held in document:
            ids = [own.id for own in held if hasattr(own, "id")] if isinstance(held, tuple) else []
            if len(set(ids)) != len(ids):
                problems.append(
                    NodulantError(
                        f"two {name.replace('_', ' ')} share an id",
                        field=f"/{root}/{name}",
                        found=", ".join(ids),
                        acceptable="different ids",
                    )
                )
    return problems


def _alone(inputs: Inputs) -> list[NodulantError]:
    """What keeps operations from being placed even by themselves, one problem each."""
    problems: list[NodulantError] = []
    for number, op in enumerate(inputs.design.operations):
        for side in LEFT_RIGHT:
            try:
                place_one(inputs.survey, op, number, side, STOCK)
            except NodulantError as error:
                problems.append(error)
                break
    return problems


def _together(inputs: Inputs) -> list[NodulantError]:
    for side in LEFT_RIGHT:
        try:
            placed_on(inputs.survey, inputs.design.operations, side, planned_state(inputs.design.operations))
        except NodulantError as error:
            return [error]
    return []
