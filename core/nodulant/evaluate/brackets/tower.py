"""A spring pocket in the rail and Travel's upper eye are one point: which coilover a pocket holds, and where its bolt belongs."""

from nodulant.axles.points import HardPoint
from nodulant.base.errors import NodulantError
from nodulant.frame.columns import rail_at
from nodulant.frame.ops.pockets.spring_pocket import SpringPocket
from nodulant.frame.place import Place, resolve
from nodulant.job.document import Inputs

REACH_MM = 250.0
"""A pocket this near along the rail to a coilover's upper eye holds that coilover."""


def pocket_at_its_eye(inputs: Inputs, eye: HardPoint, spring_n: float, across_n: float) -> SpringPocket | None:
    """The design's pocket for an upper eye (on the surveyed rail), its middle and bolt there, with that coilover's forces."""
    op = next((o for o in inputs.design.operations if isinstance(o, SpringPocket) and _near(inputs, o, eye)), None)
    if op is None:
        return None
    anchor = next(f for f in inputs.survey.features if f.id == op.place.anchor_id)
    up = eye.z_mm - rail_at(inputs.survey.rails.right, eye.x_mm)[0]
    place = Place(anchor_id=anchor.id, offset_mm=round(eye.x_mm - anchor.x_mm, 3))
    forces = {"spring_n": round(spring_n, 1), "across_n": round(across_n, 1)}
    return op.model_copy(update={"place": place, "bolt_up_mm": round(up, 3), **forces})


def _near(inputs: Inputs, op: SpringPocket, eye: HardPoint) -> bool:
    try:
        return abs(resolve(op.place, inputs.survey.features) - eye.x_mm) < REACH_MM
    except NodulantError:
        return False
