"""The planned rails as prisms for the view in space."""

import numpy as np

from nodulant.base.model import Frozen
from nodulant.clearance.arches import arch_of
from nodulant.clearance.obstacle import Obstacle
from nodulant.clearance.rail_prisms import rail_body
from nodulant.clearance.shapes import Bars, Prisms
from nodulant.job.document import Inputs
from nodulant.job.riding import in_place
from nodulant.parts.sides import LEFT_RIGHT, Side


class RailSolid(Frozen):
    """A rail: each prism is four corners (x, z), counter-clockwise, then the least and the most y, mm."""

    side: Side
    prisms: list[list[float]]


class FrameSolids(Frozen):
    """Both rails, and what stands around them."""

    rails: tuple[RailSolid, ...]
    arches: list[list[float]]
    """Edges of wheel arches as bars: both ends (x, y, z, x, y, z) and the radius, mm."""
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
    return FrameSolids(rails=tuple(out), arches=_arches(inputs), things=in_place(inputs).design.obstacles)


def _arches(inputs: Inputs) -> list[list[float]]:
    rows: list[list[float]] = []
    for name, axle in (("front", inputs.survey.front), ("rear", inputs.survey.rear)):
        arch = arch_of(name, axle)
        if arch is not None and isinstance(arch.pack, Bars):
            own = np.concatenate([arch.pack.a, arch.pack.b, arch.pack.radius[:, None]], axis=1)
            rows += np.round(own, 2).tolist()
    return rows
