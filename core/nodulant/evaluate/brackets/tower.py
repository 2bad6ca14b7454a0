"""A spring pocket in the rail and Travel's upper eye are one point: which coilover a pocket holds, and where its bolt belongs."""

from collections.abc import Iterable, Sequence

from nodulant.axles.points import HardPoint
from nodulant.axles.springs import Coilover
from nodulant.base.errors import NodulantError
from nodulant.frame.columns import rail_at
from nodulant.frame.ops.pockets.spring_pocket import SpringPocket
from nodulant.frame.ops.union import Operation
from nodulant.frame.place import Place, resolve
from nodulant.job.document import Inputs
from nodulant.job.riding import on_rails
from nodulant.suspension.study import Study

REACH_MM = 250.0
"""A pocket this near along the rail to a coilover's upper eye holds that coilover."""


def held_in_a_pocket(inputs: Inputs, operations: Iterable[Operation], eye: HardPoint) -> bool:
    """Whether a spring pocket of the design is there for an upper eye; ``eye`` on the surveyed rail."""
    return any(isinstance(op, SpringPocket) and _near(inputs, op, eye) for op in operations)


def pocket_at_its_eye(inputs: Inputs, op: SpringPocket, studies: Sequence[Study]) -> SpringPocket | None:
    """The pocket with its middle and its bolt where its coilover's upper eye is; None where no coilover is near."""
    for s in studies:
        if not isinstance(s.suspension.springs, Coilover):
            continue
        eye = on_rails(inputs, s.suspension.springs.upper)
        if not _near(inputs, op, eye):
            continue
        anchor = next(f for f in inputs.survey.features if f.id == op.place.anchor_id)
        up = eye.z_mm - rail_at(inputs.survey.rails.right, eye.x_mm)[0]
        place = Place(anchor_id=anchor.id, offset_mm=round(eye.x_mm - anchor.x_mm, 3))
        return op.model_copy(update={"place": place, "bolt_up_mm": round(up, 3)})
    return None


def _near(inputs: Inputs, op: SpringPocket, eye: HardPoint) -> bool:
    try:
        return abs(resolve(op.place, inputs.survey.features) - eye.x_mm) < REACH_MM
    except NodulantError:
        return False
