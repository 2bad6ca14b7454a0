"""What the user placed, where it stands in the planned vehicle."""

import numpy as np

from nodulant.axles.points import HardPoint
from nodulant.clearance.obstacle import BoxShape, Obstacle
from nodulant.evaluate.taken_along import by_pocket
from nodulant.frame.model import placed_on, planned_state, route_on
from nodulant.job.document import Inputs


def planned_things(inputs: Inputs) -> tuple[Obstacle, ...]:
    """Things that were measured before the cut go along with their stretch of the frame; others stay as placed."""
    own = inputs.design.obstacles
    if not any(o.goes_along for o in own):
        return own
    survey, operations = inputs.survey, inputs.design.operations
    state = planned_state(operations)
    route = route_on(survey, operations, "left", state)
    placed = placed_on(survey, operations, "left", state)
    out = []
    for thing in own:
        if not thing.goes_along:
            out.append(thing)
            continue
        x = _station(thing)
        shift = route.shift(np.array([x]))
        by = (float(shift.dx[0]), float(shift.dz[0]) + by_pocket(x, placed))
        out.append(_moved(thing, *by))
    return tuple(out)


def _station(thing: Obstacle) -> float:
    body = thing.body
    return body.middle.x_mm if isinstance(body, BoxShape) else (body.a.x_mm + body.b.x_mm) / 2


def _moved(thing: Obstacle, back: float, up: float) -> Obstacle:
    def at(p: HardPoint) -> HardPoint:
        return p.model_copy(update={"x_mm": p.x_mm + back, "z_mm": p.z_mm + up})

    body = thing.body
    if isinstance(body, BoxShape):
        return thing.model_copy(update={"body": body.model_copy(update={"middle": at(body.middle)})})
    return thing.model_copy(update={"body": body.model_copy(update={"a": at(body.a), "b": at(body.b)})})
