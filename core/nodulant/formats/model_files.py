"""Bodies in space as files: glTF binary in metres, y up, a node for every body; STL in millimetres, z up, as one solid."""

from collections.abc import Iterable
from itertools import chain, count

import numpy as np
import trimesh
from trimesh.exchange.gltf import export_glb
from trimesh.exchange.stl import export_stl

from nodulant.model3d.body import Body, Group

METRE = 0.001
TURN = np.array([[0.0, -1.0, 0.0, 0.0], [0.0, 0.0, 1.0, 0.0], [-1.0, 0.0, 0.0, 0.0], [0.0, 0.0, 0.0, 1.0]])
"""x rearward, y right, z up to glTF's: y up, the front along +z, so the vehicle's left is +x (glTF 2.0, 3.4)."""
COLOURS: dict[Group, tuple[int, int, int, int]] = {
    "frame": (120, 124, 134, 255),
    "added": (30, 130, 106, 255),
    "laid flat": (30, 130, 106, 255),
    "mounts": (150, 116, 40, 255),
    "crossmembers": (96, 100, 110, 255),
    "placed": (150, 90, 110, 160),
    "suspension": (60, 84, 150, 255),
}


def model_glb(bodies: Iterable[Body]) -> bytes:
    """A scene with a named node for each body, grouped by what it belongs to."""
    scene, used = trimesh.Scene(), set[str]()
    to_gltf = TURN * np.array([METRE, METRE, METRE, 1.0])[:, None]
    groups = set[Group]()
    for body in bodies:
        if body.group not in groups:
            groups.add(body.group)
            scene.graph.update(frame_from=scene.graph.base_frame, frame_to=body.group)
        name = next(n for n in chain([body.name], (f"{body.name} ({k})" for k in count(2))) if n not in used)
        used.add(name)
        mesh = body.mesh.copy()
        mesh.apply_transform(to_gltf)
        mesh.visual = trimesh.visual.ColorVisuals(mesh, face_colors=COLOURS[body.group])
        scene.add_geometry(mesh, node_name=name, geom_name=name, parent_node_name=body.group)
    return bytes(export_glb(scene))


def model_stl(bodies: Iterable[Body]) -> bytes:
    """Every body in one binary STL."""
    return bytes(export_stl(trimesh.util.concatenate([body.mesh for body in bodies])))
