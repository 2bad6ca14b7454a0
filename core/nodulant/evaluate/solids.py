"""The planned rails as prisms for the view in space."""

import numpy as np

from nodulant.base.model import Frozen
from nodulant.clearance.obstacle import Obstacle
from nodulant.clearance.rail_prisms import rail_body
from nodulant.clearance.shapes import Prisms
from nodulant.evaluate.placed import planned_things
from nodulant.job.document import Inputs
from nodulant.parts.sides import LEFT_RIGHT, Side


class RailSolid(Frozen):
    """A rail: each prism is four corners (x, z), counter-clockwise, then the least and the most y, mm."""

    side: Side
    prisms: list[list[float]]


class FrameSolids(Frozen):
    """Both rails, and what stands around them."""

    rails: tuple[RailSolid, ...]
    things: tuple[Obstacle, ...]
    """What the user placed, where it stands in the planned vehicle."""


def frame_solids(inputs: Inputs) -> FrameSolids:
    """Both rails with their cuts."""
    out = []
    for side in LEFT_RIGHT:
        pack = rail_body(inputs.survey, inputs.design.operations, side).pack
        if not isinstance(pack, Prisms):
            raise ValueError("a rail is made of prisms")
        rows = np.concatenate([pack.corners.reshape(-1, 8), pack.low_y[:, None], pack.high_y[:, None]], axis=1)
        out.append(RailSolid(side=side, prisms=np.round(rows, 2).tolist()))
    return FrameSolids(rails=tuple(out), things=planned_things(inputs))
