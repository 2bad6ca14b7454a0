"""What the user placed, as bodies that stand."""

import numpy as np

from nodulant.base.arrays import Columns, Rows
from nodulant.clearance.distance import bar_to_convex
from nodulant.clearance.obstacle import BarShape, BoxShape, Obstacle
from nodulant.clearance.shapes import Bars, Blocks, Pack, Standing, block_axes

ACROSS = 7
"""Points along each edge of a box that are looked for in a rail."""


def standing_of(obstacle: Obstacle) -> Standing:
    """One obstacle, with its mirror image where it has one."""
    sides = (1.0, -1.0) if obstacle.mirrored else (1.0,)
    pack = _blocks(obstacle.body, sides) if isinstance(obstacle.body, BoxShape) else _bars(obstacle.body, sides)
    return Standing(obstacle.name, obstacle.kind, pack, obstacle.id)


def _blocks(box: BoxShape, sides: tuple[float, ...]) -> Pack:
    flips = np.array([[1.0, side, 1.0] for side in sides])
    middle = np.array(box.middle.xyz()) * flips
    half = np.tile([box.long_mm / 2, box.wide_mm / 2, box.high_mm / 2], (len(sides), 1))
    axes = np.stack([block_axes(box.nose_up_deg, side * box.yaw_deg) for side in sides])
    return Blocks(middle, half, axes)


def _bars(bar: BarShape, sides: tuple[float, ...]) -> Pack:
    flips = np.array([[1.0, side, 1.0] for side in sides])
    return Bars(np.array(bar.a.xyz()) * flips, np.array(bar.b.xyz()) * flips, np.full(len(sides), bar.diameter_mm / 2))


def depth_in_rail(thing: Standing, rail: Standing) -> float:
    """How deep a thing stands in a rail, mm; 0 where it does not. Boxes are looked at point by point."""
    prisms = rail.pack
    near = np.flatnonzero(thing.pack.boxes.whole.apart(prisms.boxes)[0] <= 0.0)
    if len(near) == 0:
        return 0.0
    if isinstance(thing.pack, Bars):
        return max(-_bar_gap(thing.pack, prisms, near), 0.0)
    points = _points(thing.pack) if isinstance(thing.pack, Blocks) else np.zeros((0, 3))
    rows, which = np.repeat(points, len(near), axis=0), np.tile(near, len(points))
    return max(-float(prisms.some(which).distance(rows).min()), 0.0)


def _bar_gap(bars: Bars, prisms: Pack, near: Rows) -> float:
    gaps = []
    for a, b, radius in zip(bars.a, bars.b, bars.radius, strict=True):
        ends = [np.tile(v, (len(near), 1)) for v in (a, b)]
        gaps.append(float(bar_to_convex(ends[0], ends[1], float(radius), prisms.some(near)).gap.min()))
    return min(gaps)


def _points(blocks: Blocks) -> Columns:
    share = np.linspace(-1.0, 1.0, ACROSS)
    unit = np.stack(np.meshgrid(share, share, share, indexing="ij"), axis=-1).reshape(-1, 3)
    every = [m + (unit * h) @ a.T for m, h, a in zip(blocks.middle, blocks.half, blocks.axes, strict=True)]
    return np.concatenate(every)
