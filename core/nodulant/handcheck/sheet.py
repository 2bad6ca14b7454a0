"""The whole sheet of one design."""

from nodulant.base.errors import NotSolvable
from nodulant.base.model import Frozen
from nodulant.evaluate.rails.solved import solved_inputs
from nodulant.evaluate.run import evaluate
from nodulant.handcheck.assumptions import Assumption, assumptions
from nodulant.handcheck.places import GoverningPlace, governing_places
from nodulant.handcheck.sensitive import Sensitive, sensitivities
from nodulant.job.document import Inputs
from nodulant.parts.sides import LEFT_RIGHT
from nodulant.strength.rail import missing_for_sections


class HandCheck(Frozen):
    """Governing places reckoned by hand, what was assumed, and the inputs that matter most."""

    content_hash: str
    places: tuple[GoverningPlace, ...]
    assumptions: tuple[Assumption, ...]
    sensitive: tuple[Sensitive, ...]


def hand_check(inputs: Inputs) -> HandCheck:
    """Reckon the sheet; raises InvalidInputs, and NotSolvable where no section is known."""
    for side in LEFT_RIGHT:
        if missing := missing_for_sections(inputs.survey, side):
            raise NotSolvable(
                "a wall of the rail was not measured", field=missing[0], found="nothing", acceptable="a thickness"
            )
    result, solved = evaluate(inputs), solved_inputs(inputs)
    return HandCheck(
        content_hash=result.content_hash,
        places=governing_places(result.checks, solved),
        assumptions=assumptions(solved),
        sensitive=sensitivities(inputs),
    )
