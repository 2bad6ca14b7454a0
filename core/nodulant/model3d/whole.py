"""Everything of a design in space: rails, what is added, crossmembers, what was placed, and the suspension at ride height."""

from collections.abc import Iterator

import numpy as np
import trimesh
from shapely import Polygon

from nodulant.clearance.moving import Mover, RoundBar
from nodulant.clearance.shapes import Bars, Blocks, Prisms, Standing
from nodulant.evaluate.clearances.sweep import scene
from nodulant.job.document import Inputs
from nodulant.job.riding import in_place
from nodulant.model3d.added import added_bodies
from nodulant.model3d.body import SIDES, Body, bar, upright
from nodulant.model3d.rails import rail_bodies

CROSSING = " crossmember"
"""How the sweep calls a crossmember's body, after its name."""


def bodies_of(inputs: Inputs) -> tuple[Body, ...]:
    """All of them, each closed; raises InputError and UnknownReference."""
    inputs = in_place(inputs)
    survey, operations = inputs.survey, inputs.design.operations
    here = scene(inputs)
    return (
        *rail_bodies(survey, operations),
        *added_bodies(survey, operations),
        *(body for thing in here.standing for body in _standing(thing)),
        *(body for mover in here.movers if (body := _moving(mover)) is not None),
    )


def _standing(thing: Standing) -> Iterator[Body]:
    """What was placed, and crossmembers; rails and work are prisms to the sweep, and are drawn from their own plates."""
    pack = thing.pack
    if isinstance(pack, Bars):
        for a, b, radius in zip(pack.a, pack.b, pack.radius, strict=True):
            yield Body(thing.name, "placed", bar(a, b, float(radius)))
    elif isinstance(pack, Blocks):
        for middle, half, axes in zip(pack.middle, pack.half, pack.axes, strict=True):
            turn = np.eye(4)
            turn[:3, :3], turn[:3, 3] = axes, middle
            yield Body(thing.name, "placed", trimesh.creation.box(extents=2 * half, transform=turn))
    elif isinstance(pack, Prisms) and thing.name.endswith(CROSSING):
        for corners, y0, y1 in zip(pack.corners, pack.low_y, pack.high_y, strict=True):
            yield Body(thing.name, "crossmembers", upright(Polygon(corners), float(y0), float(y1)))


def _moving(mover: Mover) -> Body | None:
    """As it stands at ride height, level and straight ahead; a tyre as a ring without its rounded shoulders."""
    at = mover.positions.ride()
    if not mover.there[at]:
        return None
    body = mover.body
    if isinstance(body, RoundBar):
        a, b = body.a[at], body.b[at]
        return Body(mover.name, "suspension", bar(a, b, body.radius)) if np.linalg.norm(b - a) > 1.0 else None
    spin = body.spin[at] / np.linalg.norm(body.spin[at])
    ends = (body.centre[at] - spin * body.width / 2, body.centre[at] + spin * body.width / 2)
    ring = trimesh.creation.annulus(r_min=body.rim, r_max=body.outside, height=body.width, sections=SIDES)
    ring.apply_transform(trimesh.geometry.align_vectors((0.0, 0.0, 1.0), spin))
    ring.apply_translation((ends[0] + ends[1]) / 2)
    return Body(mover.name, "suspension", ring)
