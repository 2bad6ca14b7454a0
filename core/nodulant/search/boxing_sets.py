"""Boxing plates that a search may add where a rail is open: over a cut, or ahead of a piece and behind it."""

from collections.abc import Sequence, Set
from typing import NamedTuple

from nodulant.frame.columns import rail_at
from nodulant.frame.here import RailHere
from nodulant.frame.model import Placed
from nodulant.frame.ops.plates.boxing import Boxing
from nodulant.frame.ops.union import Operation
from nodulant.frame.place import Place
from nodulant.materials.steel import DENSITY_KG_PER_MM3
from nodulant.materials.weld import least_leg_mm, most_leg_mm
from nodulant.parts.sides import Side
from nodulant.search.plate_sets import Stock
from nodulant.survey.rail import Rail
from nodulant.survey.vehicle import Survey

REACH, FARTHEST, CLEAR_MM = 2.5, 6.0, 3.0
"""Rail heights that a plate reaches past a cut at least, and from a piece to the next crossmember at most; gap to a piece."""


class Around(NamedTuple):
    """An operation on one rail, what else is placed there, and the plate to choose from."""

    survey: Survey
    operations: tuple[Operation, ...]
    own: Placed
    placed: Sequence[Placed]
    side: Side
    stock: Stock

    @property
    def rail(self) -> Rail:
        """The surveyed rail."""
        return self.survey.rails.of(self.side)


def least_leg(plate_mm: float, wall_mm: float) -> float:
    """The least fillet leg that the thicker part asks for."""
    return least_leg_mm(max(plate_mm, wall_mm))


def fillet_mm(plate_mm: float, wall_mm: float) -> float:
    """The least leg that the thicker part asks for, at most what the plate's edge takes."""
    return min(least_leg(plate_mm, wall_mm), most_leg_mm(plate_mm))


def weldable_with(plate_mm: float, wall_mm: float) -> bool:
    """Whether a plate's edge takes the leg that its thicker partner asks for."""
    return least_leg(plate_mm, wall_mm) <= most_leg_mm(plate_mm) + 1e-9


def boxing_over(here: Around) -> Boxing | None:
    """A boxing plate over the cut, where nothing closes the rail yet."""
    rail, own = here.rail, here.own
    if _closed(here, own.start_mm, own.end_mm):
        return None
    reach = own.end_mm - own.centre_mm + REACH * rail_at(rail, own.centre_mm)[1]
    start, end = max(own.centre_mm - reach, rail.start_mm + 1), min(own.centre_mm + reach, rail.end_mm - 1)
    return _plate(here, (start, end), "Boxing over the cut")


def boxing_beside(here: Around) -> tuple[Boxing, ...]:
    """Boxing plates ahead of a piece and behind it, to the next crossmember where it is near; none where the rail is closed."""
    rail, own, height = here.rail, here.own, rail_at(here.rail, here.own.centre_mm)[1]
    ties, out = sorted(c.x_mm for c in here.survey.crossmembers), list[Boxing]()
    near, far = REACH * height, FARTHEST * height
    ahead = max((x for x in ties if own.start_mm - far <= x <= own.start_mm - near), default=own.start_mm - near)
    behind = min((x for x in ties if own.end_mm + near <= x <= own.end_mm + far), default=own.end_mm + near)
    for start, end, name in (
        (max(ahead, rail.start_mm + 1), own.start_mm - CLEAR_MM, "Boxing ahead"),
        (own.end_mm + CLEAR_MM, min(behind, rail.end_mm - 1), "Boxing behind"),
    ):
        clash = any(cut.start_mm < end and start < cut.end_mm for p in here.placed if p is not own for cut in p.cuts)
        if end - start > height and not clash and not _closed(here, start, end):
            out.append(_plate(here, (start, end), name, {plate.id for plate in out}))
    return tuple(out)


def _closed(here: Around, start_mm: float, end_mm: float) -> bool:
    """Whether the rail is closed, or boxed somewhere between two stations."""
    boxed = any(p.op.closes is not None and p.start_mm < end_mm and start_mm < p.end_mm for p in here.placed)
    return boxed or here.rail.closed or here.rail.kind == "top-hat"


def _plate(here: Around, between: tuple[float, float], name: str, more: Set[str] = frozenset()) -> Boxing:
    """A plate as thick as the wall, or as near to it as its welds allow; ``more`` are ids that are taken besides the design's."""
    wall, stock, own = rail_at(here.rail, here.own.centre_mm)[3], here.stock, here.own
    able = [t for t in stock.thicknesses_mm if weldable_with(t, wall)] or [max(stock.thicknesses_mm)]
    thick = min((t for t in able if t >= wall - 1e-6), default=max(able))
    taken, anchor = {op.id for op in here.operations} | more, own.op.anchor
    at = next(f.x_mm for f in here.survey.features if f.id == anchor.anchor_id)
    start, end = (Place(anchor_id=anchor.anchor_id, offset_mm=x - at) for x in between)
    return Boxing(
        id=next(f"boxing-{n}" for n in range(1, 99) if f"boxing-{n}" not in taken),
        name=name,
        side=own.op.side,
        start=start,
        end=end,
        thickness_mm=thick,
        weld_leg_mm=fillet_mm(thick, wall),
        steel_id=stock.steel_id,
    )


def boxing_kg(boxing: Boxing, here: RailHere) -> float:
    """Mass of a plate on one side."""
    long = boxing.end.offset_mm - boxing.start.offset_mm
    return boxing.thickness_mm * here.height * long * DENSITY_KG_PER_MM3
