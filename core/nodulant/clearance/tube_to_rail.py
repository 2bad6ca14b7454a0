"""Clearance from the axle tube to the rail through travel.

The rail's metal edge is a chain of segments: underside, cut edge, underside. The liner's
face lies its thickness inside the cut edge. Clearance = distance to the edge - liner - tube
radius, negative in metal; a tube centre above the edge counts its distance as negative. Plates
that lie under the lower flange are metal of their own, across a notch's mouth too.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from typing import NamedTuple

import numpy as np

from nodulant.base.arrays import Columns, Rows
from nodulant.clearance.metal import Metal, tube_to_metal
from nodulant.frame.ops.notches.notch import Notch
from nodulant.frame.ops.notches.notch_shape import NotchShape
from nodulant.targets.axle_path import TubePath

REACH_MM = 600.0
RAIL = "rail or liner"


class Underneath(NamedTuple):
    """A plate under the lower flange: stations of its ends and thickness, mm."""

    start_mm: float
    end_mm: float
    thickness_mm: float


@dataclass(frozen=True)
class Clearances:
    """Clearance per pose and the station of the nearest metal, mm; shapes (poses,)."""

    travel: Columns
    clearance: Columns
    nearest_x: Columns
    names: tuple[str, ...] = (RAIL,)
    nearest: Rows | None = None
    """Which of the names it is at each pose; the first one where left out."""

    def nearest_name(self, pose: int) -> str:
        """What is nearest at a pose."""
        return self.names[0 if self.nearest is None else int(self.nearest[pose])]


def tube_to_rail(
    path: TubePath,
    notches: list[tuple[Notch, float]],
    axle_x_mm: float,
    underneath: Sequence[Underneath] = (),
    metal: Sequence[Metal] = (),
) -> Clearances:
    """Clearance at every pose; ``notches`` are (notch, centre station) on this rail, ``metal`` is what stands beside it."""
    edge = _to_edge(path, notches, axle_x_mm)
    rows = [(RAIL, edge.clearance, edge.nearest_x)]
    rows += [("plate under the rail", *_to_plate(path, plate)) for plate in underneath]
    if metal:
        rows += zip((piece.name for piece in metal), *tube_to_metal(path, metal), strict=True)
    gaps, places = np.stack([gap for _, gap, _ in rows]), np.stack([x for _, _, x in rows])
    # what is equally near is the rail itself
    best = np.argmin(np.round(gaps, 6), axis=0)
    poses = np.arange(len(path.travel))
    return Clearances(path.travel, gaps[best, poses], places[best, poses], tuple(name for name, _, _ in rows), best)


def _to_plate(path: TubePath, plate: Underneath) -> tuple[Columns, Columns]:
    """Signed distance of the tube to a plate's rectangle, and the station of its nearest metal, mm.

    A tube over the plate has gone through it and counts as in metal.
    """
    along = np.maximum(plate.start_mm - path.x, path.x - plate.end_mm)
    below = -plate.thickness_mm - path.z
    up = np.where(along < 0, below, np.maximum(below, path.z))
    outside = np.hypot(np.maximum(along, 0.0), np.maximum(up, 0.0))
    signed = outside + np.minimum(np.maximum(along, up), 0.0) - path.radius
    return np.asarray(signed), np.clip(path.x, plate.start_mm, plate.end_mm)


def _to_edge(path: TubePath, notches: list[tuple[Notch, float]], axle_x_mm: float) -> Clearances:
    points, cover = _edge(notches, axle_x_mm)
    start, (along, up) = points[:-1], np.diff(points, axis=0).T
    x, z = path.x[:, None] - start[:, 0], path.z[:, None] - start[:, 1]
    t = (x * along + z * up) / np.maximum(along * along + up * up, 1e-12)
    t = np.minimum(np.maximum(t, 0.0), 1.0)
    distance = np.hypot(x - t * along, z - t * up)
    inside = _in_metal(path, notches)[:, None]
    signed = np.where(inside, -distance, distance) - cover - path.radius
    # what is equally near is the foremost
    best = np.argmin(np.round(np.where(inside, distance, signed), 6), axis=1)
    rows = np.arange(len(path.x))
    return Clearances(path.travel, signed[rows, best], start[best, 0] + t[rows, best] * along[best])


def _edge(notches: list[tuple[Notch, float]], axle_x_mm: float) -> tuple[Columns, Columns]:
    points: list[tuple[float, float]] = [(axle_x_mm - REACH_MM, 0.0)]
    cover: list[float] = []
    for notch, centre in sorted(notches, key=lambda pair: pair[1]):
        edge = [(centre + x, z) for x, z in _flattened(notch.shape, notch.depth_mm)]
        points += edge
        cover += [0.0] + [notch.liner.thickness_mm if notch.liner else 0.0] * (len(edge) - 1)
    points.append((axle_x_mm + REACH_MM, 0.0))
    cover.append(0.0)
    return np.array(points), np.array(cover)


@lru_cache(maxsize=64)
def _flattened(shape: NotchShape, depth_mm: float) -> list[tuple[float, float]]:
    """Points on the cut edge, within 0.05 mm of its arcs; both rails ask for the same."""
    return shape.path(depth_mm).points(0.05)


def _in_metal(path: TubePath, notches: list[tuple[Notch, float]]) -> np.ndarray[tuple[int], np.dtype[np.bool_]]:
    height = np.zeros_like(path.x)
    for notch, centre in notches:
        height = np.maximum(height, notch.shape.edge(path.x - centre, notch.depth_mm)[0])
    return np.asarray(path.z > height + 1e-9)


def travel_until(clearances: Clearances, needed_mm: float) -> float | None:
    """Bump travel at which the clearance first falls to ``needed_mm``; None if it never does."""
    below = np.flatnonzero((clearances.clearance < needed_mm) & (clearances.travel >= 0))
    if not len(below):
        return None
    i = int(below[0])
    if i == 0 or clearances.travel[i - 1] < 0:
        return float(clearances.travel[i])
    c0, c1 = clearances.clearance[i - 1], clearances.clearance[i]
    z0, z1 = clearances.travel[i - 1], clearances.travel[i]
    return float(z0 + (z1 - z0) * (c0 - needed_mm) / max(c0 - c1, 1e-9))
