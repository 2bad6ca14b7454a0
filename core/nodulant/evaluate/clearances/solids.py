"""The planned rails and the work on them as prisms for the view in space: the bodies that are swept."""

import numpy as np

from nodulant.base.model import Frozen
from nodulant.clearance.arches import arch_of
from nodulant.clearance.obstacle import Obstacle
from nodulant.clearance.rail_prisms import rail_body
from nodulant.clearance.shapes import Bars, Prisms, Standing
from nodulant.clearance.work_bodies import work_bodies
from nodulant.job.document import Inputs
from nodulant.job.riding import in_place
from nodulant.parts.sides import LEFT_RIGHT, Side


class RailSolid(Frozen):
    """A rail: each prism is four corners (x, z), counter-clockwise, then the least and the most y, mm."""

    side: Side
    prisms: list[list[float]]


class WorkSolid(Frozen):
    """What one operation adds beside a rail, as prisms like those of the rail."""

    name: str
    prisms: list[list[float]]


class FrameSolids(Frozen):
    """Both rails, the work on them, and what stands around them."""

    rails: tuple[RailSolid, ...]
    work: tuple[WorkSolid, ...]
    arches: list[list[float]]
    """Edges of wheel arches as bars: both ends (x, y, z, x, y, z) and the radius, mm."""
    things: tuple[Obstacle, ...]
    """What the user placed, where it stands in the planned vehicle."""


def frame_solids(inputs: Inputs) -> FrameSolids:
    """Both rails with their cuts, and what every operation adds."""
    rails, work = [], []
    for side in LEFT_RIGHT:
        body = rail_body(inputs.survey, inputs.design.operations, side)
        rails.append(RailSolid(side=side, prisms=_prisms(body)))
        for own in work_bodies(inputs.survey, inputs.design.operations, side):
            work.append(WorkSolid(name=own.name, prisms=_prisms(own)))
    return FrameSolids(
        rails=tuple(rails), work=tuple(work), arches=_arches(inputs), things=in_place(inputs).design.obstacles
    )


def _prisms(body: Standing) -> list[list[float]]:
    pack = body.pack
    if not isinstance(pack, Prisms):
        raise ValueError("rails and their work are made of prisms")
    rows = np.concatenate([pack.corners.reshape(-1, 8), pack.low_y[:, None], pack.high_y[:, None]], axis=1)
    found: list[list[float]] = np.round(rows, 2).tolist()
    return found


def _arches(inputs: Inputs) -> list[list[float]]:
    rows: list[list[float]] = []
    for name, axle in (("front", inputs.survey.front), ("rear", inputs.survey.rear)):
        arch = arch_of(name, axle)
        if arch is not None and isinstance(arch.pack, Bars):
            own = np.concatenate([arch.pack.a, arch.pack.b, arch.pack.radius[:, None]], axis=1)
            rows += np.round(own, 2).tolist()
    return rows
