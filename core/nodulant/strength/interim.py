"""The frame between two steps: one cut made on one rail, nothing welded on yet.

Bending use at 1 g on the vehicle's own supports with the yields of absolute checks. What is
allowed follows from it: a frame may be moved only where three times the standing load stays
below yield/1.5, and stood on only where once does. A rail that is cut through carries nothing.
Tacks are trusted with half of what their throats would carry, against three times static
(Nodulant defaults); they are never the only support over a person.
"""

from collections.abc import Callable
from dataclasses import dataclass, replace
from functools import lru_cache, partial

import numpy as np

from nodulant.base.memo import remembered
from nodulant.frame.model import bending_properties, placed_on, planned_state
from nodulant.frame.ops.union import Operation
from nodulant.frame.state import FrameState
from nodulant.frame.stations import stations
from nodulant.loads.beam import G, internal_forces
from nodulant.materials.weld import tack_n
from nodulant.parts.sides import LEFT_RIGHT, Side, on_sides
from nodulant.strength.compare import use
from nodulant.survey.vehicle import Survey

ALL_CUTS = "all-cuts"
MOVING = 3.0
TACKS, TACK_MM, TACK_LEG_MM = 8, 20.0, 5.0
"""Eight tacks of 20 mm, 5 mm leg: four at each end of what is tacked (common practice)."""


@dataclass(frozen=True)
class Interim:
    """One rail with one cut open; ``use`` at 1 g is None where loads are not known, and where it is in two, ``through``."""

    operation: str
    name: str
    side: Side
    through: bool
    use: float | None
    station_mm: float
    tack_n: float
    tack_needed_n: float | None

    @property
    def standing(self) -> bool | None:
        """Whether it may stand on its own wheels."""
        return False if self.through else None if self.use is None else self.use <= 1.0

    @property
    def moving(self) -> bool | None:
        """Whether it may be rolled, sat in or have its engine put in."""
        return False if self.through else None if self.use is None else MOVING * self.use <= 1.0


def interim_states(survey: Survey, operations: tuple[Operation, ...]) -> list[Interim]:
    """Every cut of every rail by itself, as it is before anything is welded on, and all cuts of one rail at once."""
    each = [_alone(survey, (op,), side) for op in operations for side in on_sides(op.side)]
    return [made for made in each if made is not None] + _one_side_open(survey, operations)


def _one_side_open(survey: Survey, operations: tuple[Operation, ...]) -> list[Interim]:
    """All cuts of one rail at once, nothing on: what a job left over a week may look like."""
    out = []
    for side in LEFT_RIGHT:
        placed = placed_on(survey, operations, side, planned_state(operations))
        opened = tuple(p.op for p in placed if p.cuts)
        made = _alone(survey, opened, side) if len(opened) > 1 else None
        if made is not None:
            out.append(replace(made, operation=ALL_CUTS, name=f"All {len(opened)} cuts of one rail"))
    return out


def _alone(survey: Survey, ops: tuple[Operation, ...], side: Side) -> Interim | None:
    """``_interim`` of one rail; rails that are alike are worked out once."""
    on: Side = "left" if _alike(survey) else side
    made = _opened(survey)(tuple(op.model_copy(update={"side": on}) for op in ops), on)
    return replace(made, side=side) if made else None


@remembered(4)
def _alike(survey: Survey) -> bool:
    """Whether both rails are the same metal, holes included."""
    left, right = survey.rails.left, survey.rails.right
    one_sided = any(f.kind == "hole" and f.side != "both" for f in survey.features)
    return not one_sided and left == right.model_copy(update={"opens": left.opens})


@remembered(4)
def _opened(survey: Survey) -> Callable[[tuple[Operation, ...], Side], Interim | None]:
    """``_interim`` on one surveyed frame, which keeps what it has worked out."""
    return lru_cache(maxsize=64)(partial(_interim, survey))


def _interim(survey: Survey, ops: tuple[Operation, ...], side: Side) -> Interim | None:
    """The cuts of ``ops`` alone on one rail; None where they cut nothing."""
    state = FrameState(name="interim", cuts=frozenset(op.id for op in ops))
    placed, op = placed_on(survey, ops, side, state), ops[0]
    if not placed[0].cuts:
        return None
    rail = survey.rails.of(side)
    through = any(bool(p.op.moves(p.span, side)) or p.op.kind == "splice" for p in placed)
    tacked = tack_n(TACKS, TACK_MM, TACK_LEG_MM)
    if not survey.weighs or not survey.seats:
        return Interim(op.id, op.name, side, through, None, placed[0].centre_mm, tacked, None)
    x = stations(rail.start_mm, rail.end_mm, placed, [s.x_mm for s in survey.seats])
    forces = internal_forces(x, survey.masses, survey.seats)
    needed = MOVING * max(float(np.abs(forces.shear).max()), sum(m.mass_kg for m in survey.masses) * G / 8)
    if through:
        beside = float(x[np.argmin(np.abs(x - placed[0].centre_mm))])
        return Interim(op.id, op.name, side, through, None, beside, tacked, needed)
    used = use(bending_properties(survey, ops, side, x, state), forces.moment).working
    at = int(np.argmax(used))
    return Interim(op.id, op.name, side, through, float(used[at]), float(x[at]), tacked, needed)
