"""Everything that the readings say of what was built, in one answer."""

from nodulant.base.model import Frozen
from nodulant.evaluate import Want, evaluate
from nodulant.evaluate.suspensions.travel import suspension_studies
from nodulant.job.document import Inputs
from nodulant.job.riding import in_place
from nodulant.job.touched import completed, touched_axles
from nodulant.proof.as_side import WorseAsBuilt, changed_by
from nodulant.proof.built import AxleAsBuilt, axles_as_built, measured_joints
from nodulant.proof.leaning import Leaning, leanings

WANT = Want(strips=False, parts=False, steps=False, frame=False, interim=False, along=False)


class Built(Frozen):
    """As built: axles and wheels, rails left against right, and which checks are worse for it."""

    axles: tuple[AxleAsBuilt, ...]
    leaning: tuple[Leaning, ...]
    worse: tuple[WorseAsBuilt, ...]


def built(stored: Inputs) -> Built:
    """Solve what was read; empty where nothing was. Raises InvalidInputs."""
    asked = list(evaluate(stored, WANT).readings)
    inputs = in_place(stored)
    loaded = inputs.model_copy(update={"survey": completed(inputs.survey, touched_axles(stored.survey, stored.design))})
    studies = suspension_studies(loaded)
    measured = {s.suspension.axle: measured_joints(s, asked) for s in studies}
    return Built(
        axles=axles_as_built(asked, studies, stored.design.limits),
        leaning=leanings(inputs, asked),
        worse=changed_by(stored, studies, measured),
    )
