"""One closed body with its name and what it belongs to; mm, x rearward, y to the right, z up."""

from dataclasses import dataclass
from typing import Literal

import numpy as np
import shapely
import trimesh
from shapely import Polygon

from nodulant.base.arrays import Columns
from nodulant.clearance.rail_prisms import polygons

Group = Literal["frame", "added", "laid flat", "mounts", "crossmembers", "placed", "suspension"]
CHORD_MM = 0.05
"""How near a body follows an arc: its volume is then right to a ten-thousandth."""
SIDES = 48
"""Of a round bar."""


@dataclass(frozen=True, eq=False)
class Body:
    """A closed mesh; its volume is its metal, where it is a part."""

    name: str
    group: Group
    mesh: trimesh.Trimesh
    part_id: str = ""


def upright(shape: Polygon, y0: float, y1: float) -> trimesh.Trimesh:
    """A shape seen from the side (x, z) between two distances from the centre plane."""
    mesh = trimesh.creation.extrude_polygon(shape, abs(y1 - y0))
    # (x, z, depth) to (x, y, z): the mirrored turn is put right by turning the faces
    points = np.column_stack([mesh.vertices[:, 0], min(y0, y1) + mesh.vertices[:, 2], mesh.vertices[:, 1]])
    return trimesh.Trimesh(points, mesh.faces[:, ::-1], process=False)


def flat(shape: Polygon, z0: float, thick: float) -> trimesh.Trimesh:
    """A shape in plan (x, y), its lower face at a height."""
    mesh = trimesh.creation.extrude_polygon(shape, thick)
    mesh.apply_translation((0.0, 0.0, z0))
    return mesh


def bar(a: Columns, b: Columns, radius: float) -> trimesh.Trimesh:
    """A round bar from end to end."""
    made: trimesh.Trimesh = trimesh.creation.cylinder(radius=radius, segment=np.array([a, b]), sections=SIDES)
    return made


def several(shape: object, y0: float, y1: float) -> list[trimesh.Trimesh]:
    """Every piece of a shape that may be in several."""
    return [upright(piece, y0, y1) for piece in polygons(shape) if shapely.is_valid(piece)]
