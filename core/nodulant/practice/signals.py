"""What the tools say of a job that is not as it should be: failing checks, stands that tip, steps signed out of order."""

from nodulant.base.errors import NodulantError
from nodulant.evaluate import Evaluation, Want, evaluate
from nodulant.job.document import Inputs
from nodulant.supports.look import look

WANT = Want(strips=False, parts=False)


def signals(inputs: Inputs) -> frozenset[str]:
    """By rule and subject; empty for a job that is in order. Raises InvalidInputs."""
    result = evaluate(inputs, WANT)
    failing = {c.id for c in result.checks if c.verdict == "fails"}
    return frozenset(failing | _tips(inputs) | _out_of_order(result))


def _tips(inputs: Inputs) -> set[str]:
    own = inputs.design
    if not own.supports:
        return set()
    try:
        found = look(inputs.survey, own.operations, own.supports, own.lifts)
    except NodulantError:
        return set()
    return {f"tips:{m.key}" for m in found.moments if not m.holds}


def _out_of_order(result: Evaluation) -> set[str]:
    """Signed steps that wait for one that nobody signed."""
    status = {s.id: s.status for s in result.steps}
    return {
        f"order:{s.id}"
        for s in result.steps
        if s.status == "done" and any(status.get(n) in {"open", "waiting"} for n in s.needs)
    }
