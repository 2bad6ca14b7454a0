"""What to try in place of the piece between two ends of a cut rail: box, side plates, gussets, overlap."""

import itertools
from collections.abc import Iterator
from typing import NamedTuple

import numpy as np

from nodulant.frame.here import OnRail
from nodulant.frame.ops.narrow import Narrow
from nodulant.frame.ops.notch_plan import SidePlate
from nodulant.frame.ops.splice_plates import overlap_needed
from nodulant.frame.ops.stretch import Stretch
from nodulant.frame.ops.zstep import Gusset, ZStep
from nodulant.search.plate_sets import Stock

Joined = ZStep | Stretch | Narrow
"""Operations that put a piece between two ends of the rail."""
DEPTHS = (1.0, 1.25, 1.5)
"""A post's depth along the rail, in rail heights."""
LEGS = (0.5, 0.75, 1.0)
"""A gusset's leg, in steps' rises."""
LAPS = (1.5, 2.0, 2.5, 3.0)
"""An overlap's length, in rail heights."""


class PieceRow(NamedTuple):
    """Box wall and depth, outer and inner plate, gusset and its leg, overlap, mm; 0 where there is none."""

    wall: float
    depth: float
    outer: float
    inner: float
    gusset: float
    leg: float
    lap: float

    @property
    def kinds(self) -> tuple[bool, ...]:
        """Which kinds of metal it uses besides the piece itself."""
        return self.outer > 0, self.inner > 0, self.gusset > 0


def piece_rows(op: Joined, stock: Stock, height_mm: float) -> Iterator[PieceRow]:
    """Every set that the stock allows for ``op`` on a rail ``height_mm`` high."""
    thick = stock.thicknesses_mm
    plates = [(0.0, 0.0)]
    if not isinstance(op, Narrow):
        plates += [(t, 0.0) for t in thick] + [(t, t) for t in thick]
    step = op if isinstance(op, ZStep) else None
    lapped = step is not None and step.method == "set-on"
    gussets = [(0.0, 0.0)]
    if step and not lapped:
        gussets += [(t, round(share * step.rise_mm)) for t in thick for share in LEGS]
    depths = [round(d * height_mm, 1) for d in DEPTHS] if step and step.method == "post" else [0.0]
    laps = [round(lap * height_mm) for lap in LAPS] if lapped else [0.0]
    for wall, depth, (outer, inner), (gusset, leg), lap in itertools.product(thick, depths, plates, gussets, laps):
        yield PieceRow(wall, depth, outer, inner, gusset, leg, lap)


def with_piece(op: Joined, row: PieceRow, on: OnRail, steel_id: str) -> Joined:
    """``op`` with the metal of ``row``; plates overlap as far as they need."""
    update: dict[str, object] = {
        "box": op.box.model_copy(update={"wall_mm": row.wall, "depth_mm": row.depth, "steel_id": steel_id})
    }
    if not isinstance(op, Narrow):
        update["outer_plate"] = _plate(op.outer_plate, row.outer, on, steel_id)
        update["inner_plate"] = _plate(op.inner_plate, row.inner, on, steel_id)
    if isinstance(op, ZStep):
        held = Gusset(leg_mm=row.leg, thickness_mm=row.gusset, steel_id=steel_id) if row.gusset else None
        update["gusset"] = held
        if row.lap:
            update["overlap_mm"] = row.lap
    return op.model_copy(update=update)


def _plate(old: SidePlate | None, thickness: float, on: OnRail, steel_id: str) -> SidePlate | None:
    if thickness == 0:
        return None
    base = old or SidePlate(thickness_mm=thickness, overlap_mm=0)
    plate = base.model_copy(update={"thickness_mm": thickness, "steel_id": steel_id})
    return plate.model_copy(update={"overlap_mm": float(np.ceil(overlap_needed(plate, on)))})
