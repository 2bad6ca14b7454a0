"""Outlines laid close together along one sheet, by a general-purpose nesting library (spyrrow, a strip-packing solver)."""

import threading
from collections.abc import Generator, Sequence
from typing import NamedTuple

import spyrrow
from shapely import Polygon

from nodulant.search.steps import Clock, Progress
from nodulant.stock.nesting.piece import quarters

LOOK_S = 0.25
"""How often the solver is asked what it has found."""


class InStrip(NamedTuple):
    """Which shape lies where: its number, its origin, mm, and its turn, degrees."""

    shape: int
    x_mm: float
    y_mm: float
    turned_deg: float


def in_strip(
    shapes: Sequence[Polygon], wide_mm: float, gap_mm: float, seconds: int, clock: Clock, *, grain: bool
) -> Generator[Progress, None, tuple[InStrip, ...]]:
    """Lay all shapes along a strip ``wide_mm`` across, ``gap_mm`` apart; yields progress while it searches.

    The strip is as long as it comes out: the caller cuts it into sheets. Every shape has turns across it.
    """
    items = [
        spyrrow.Item(
            str(k),
            [(float(x), float(y)) for x, y in shape.exterior.coords[:-1]],
            demand=1,
            allowed_orientations=turns_across(shape, wide_mm, gap_mm, grain=grain),
        )
        for k, shape in enumerate(shapes)
    ]
    instance = spyrrow.StripPackingInstance("sheet", strip_height=wide_mm, items=items)
    config = spyrrow.StripPackingConfig(
        early_termination=True, min_items_separation=gap_mm, total_computation_time=max(seconds, 1), seed=1
    )
    found: list[spyrrow.StripPackingSolution] = []
    search = threading.Thread(target=lambda: found.append(instance.solve(config)), daemon=True)
    search.start()
    gone = 0.0
    while search.is_alive():
        search.join(LOOK_S)
        gone += LOOK_S
        yield clock.step(gone)
    return tuple(
        InStrip(int(p.id), float(p.translation[0]), float(p.translation[1]), float(p.rotation))
        for p in (found[0].placed_items if found else [])
    )


def turns_across(shape: Polygon, wide_mm: float, gap_mm: float, *, grain: bool) -> tuple[float, ...]:
    """Turns in which a shape lies across a strip, whose edges the solver keeps the gap to: it wastes its time on others."""
    x0, y0, x1, y1 = shape.bounds
    across = {0.0: y1 - y0, 180.0: y1 - y0, 90.0: x1 - x0, 270.0: x1 - x0}
    return tuple(turn for turn in quarters(grain=grain) if across[turn] < wide_mm - 2 * gap_mm)
