"""What to try in place of the piece between two ends of a cut rail, or over its butt: box, side plates, gussets, overlap."""

import itertools
from collections.abc import Callable, Iterator
from typing import NamedTuple

import numpy as np

from nodulant.frame.here import OnRail
from nodulant.frame.ops.notches.notch_plan import SidePlate
from nodulant.frame.ops.plates.boxing import Boxing
from nodulant.frame.ops.through.narrow import Narrow
from nodulant.frame.ops.through.splice import Splice
from nodulant.frame.ops.through.splice_plates import overlap_needed
from nodulant.frame.ops.through.stretch import Stretch
from nodulant.frame.ops.through.zstep import Gusset, ZStep
from nodulant.frame.ops.union import Operation
from nodulant.search.boxing_sets import boxing_kg, fillet_mm, weldable_with
from nodulant.search.finder import Trial
from nodulant.search.plate_sets import Stock
from nodulant.units.said import Kind, Said, said

Joined = ZStep | Stretch | Narrow | Splice
"""Operations that cut a rail through and join its ends."""
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


Boxed = Callable[[Joined], tuple[Boxing, ...]]
"""Boxing plates beside a piece, where the rail is open there."""


def open_beside(op: Joined) -> tuple[Boxing, ...]:
    """None."""
    return ()


def piece_trials(
    operations: tuple[Operation, ...], index: int, op: Joined, stock: Stock, on: OnRail, boxed: Boxed = open_beside
) -> list[Trial]:
    """Every set that the stock allows for ``op``, with the rail open beside it and with it boxed there."""
    out = []
    for row in piece_rows(op, stock, on.here.height):
        if not all(weldable_with(t, on.here.wall) for t in (row.outer, row.inner) if t > 0):
            continue
        made = with_piece(op, row, on, stock.steel_id)
        mass = sum(part.mass_kg() for part in made.parts(on))
        for added in dict.fromkeys(((), boxed(made))):
            whole = (*operations[:index], made, *operations[index + 1 :], *added)
            more = sum(boxing_kg(plate, on.here) for plate in added)
            out.append(Trial(whole, (made,), added, (*row.kinds, bool(added)), _words(row, added), mass + more))
    return out


def _words(row: PieceRow, boxing: tuple[Boxing, ...]) -> Said:
    parts: list[tuple[str, str, float, Kind]] = [
        ("wall", "box {wall} thick", row.wall, "thickness"),
        ("depth", "{depth} deep along the rail", row.depth, "length"),
        ("outer", "outer plate {outer}", row.outer, "thickness"),
        ("inner", "inner plate {inner}", row.inner, "thickness"),
        ("gusset", "gussets {gusset}", row.gusset, "thickness"),
        ("leg", "legs {leg}", row.leg, "length"),
        ("lap", "overlap {lap}", row.lap, "length"),
        ("boxing", "boxed beside it {boxing}", boxing[0].thickness_mm if boxing else 0.0, "thickness"),
    ]
    used = [(name, text, mm, kind) for name, text, mm, kind in parts if mm > 0]
    return said(", ".join(text for _, text, _, _ in used), **{name: (mm, kind) for name, _, mm, kind in used})


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
    walls = (0.0,) if isinstance(op, Splice) else thick
    laps = [round(lap * height_mm) for lap in LAPS] if lapped else [0.0]
    for wall, depth, (outer, inner), (gusset, leg), lap in itertools.product(walls, depths, plates, gussets, laps):
        yield PieceRow(wall, depth, outer, inner, gusset, leg, lap)


def with_piece(op: Joined, row: PieceRow, on: OnRail, steel_id: str) -> Joined:
    """``op`` with the metal of ``row``; plates overlap as far as they need."""
    update: dict[str, object] = {}
    if not isinstance(op, Splice):
        update["box"] = op.box.model_copy(update={"wall_mm": row.wall, "depth_mm": row.depth, "steel_id": steel_id})
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
    leg = fillet_mm(thickness, on.here.wall)
    plate = base.model_copy(update={"thickness_mm": thickness, "steel_id": steel_id, "weld_leg_mm": leg})
    return plate.model_copy(update={"overlap_mm": float(np.ceil(overlap_needed(plate, on)))})
