"""Sets of plates for a cut into the rail: a welded notch, a bolted one, or a pocket with its floor and box."""

import itertools
from collections.abc import Iterator

from nodulant.base.errors import InputError
from nodulant.frame.here import RailHere
from nodulant.frame.model import placed_on, planned_state
from nodulant.frame.ops.notches.notch import Notch
from nodulant.frame.ops.plates.boxing import Boxing
from nodulant.frame.ops.pockets.raise_into import Raise
from nodulant.frame.ops.union import Operation
from nodulant.frame.parts import added_parts, rail_here
from nodulant.materials.steel import DENSITY_KG_PER_MM3
from nodulant.materials.weld import most_leg_mm
from nodulant.parts.sides import Side
from nodulant.search.boxing_sets import Around, boxing_kg, boxing_over, least_leg, weldable_with
from nodulant.search.finder import Stiffer, Trial
from nodulant.search.plate_sets import (
    Row,
    Stock,
    can_be,
    candidates,
    overlap_for,
    overlapped,
    plates_volume_mm3,
    with_plates,
)
from nodulant.survey.vehicle import Survey
from nodulant.units.said import Kind, Said, said

PER_END = (4, 6, 8, 10, 12)
"""Bolts an end that are tried on a bolted bracket."""


def cut_trials(survey: Survey, operations: tuple[Operation, ...], index: int, side: Side, stock: Stock) -> list[Trial]:
    """Every set of the stock on one cut, with a boxing plate besides where the rail is open there."""
    op = operations[index]
    placed = placed_on(survey, operations, side, planned_state(operations))
    own = next(p for p in placed if p.index == index)
    here = rail_here(survey, side, own.centre_mm, placed)
    box = boxing_over(Around(survey, operations, own, placed, side, stock))
    made: list[tuple[Operation, Said, tuple[bool | str, ...], float]] = []
    if isinstance(op, Raise):
        made = list(_pockets(op, here, stock))
    elif isinstance(op, Notch) and op.bolts is not None:
        made = list(_bolted(op, here, stock))
    elif isinstance(op, Notch):
        made = list(_welded(op, here, stock))
    out = []
    for boxing in (None, box) if box is not None else (None,):
        plate = 0.0 if boxing is None else boxing_kg(boxing, here)
        for each, words, kinds, mass in made:
            added = () if boxing is None else (boxing,)
            changed = (*operations[:index], each, *operations[index + 1 :], *added)
            told = words if boxing is None else _with_boxing(words, boxing)
            out.append(Trial(changed, (each,), added, (*kinds, boxing is not None), told, mass + plate))
    return out


def _welded(notch: Notch, here: RailHere, stock: Stock) -> Iterator[tuple[Notch, Said, tuple[bool | str, ...], float]]:
    usable = tuple(t for t in stock.thicknesses_mm if weldable_with(t, here.wall))
    own = stock.model_copy(update={"thicknesses_mm": usable})
    for row in candidates(own, flat_sides=not here.round) if usable else ():
        made = overlapped(legged(with_plates(notch, row, here, stock.steel_id), here.wall), here)
        if can_be(made):
            volume = plates_volume_mm3(made, here.height, here.width, here.closed_width)
            kinds: tuple[bool | str, ...] = (row[1] > 0, row[2] > 0, row[3] > 0, f"{row[4]:g}")
            yield made, _row_words(row), kinds, volume * DENSITY_KG_PER_MM3


def legged(notch: Notch, wall_mm: float, most: bool = False) -> Notch:
    """The notch with every weld as small as its plates allow, or as large; overlaps as long as they then need."""
    update: dict[str, object] = {}
    for role in ("liner", "outer_plate", "inner_plate", "cap"):
        plate = getattr(notch, role)
        if plate is not None:
            leg = most_leg_mm(plate.thickness_mm) if most else least_leg(plate.thickness_mm, wall_mm)
            update[role] = plate.model_copy(update={"weld_leg_mm": leg})
    return notch.model_copy(update=update)


def _row_words(row: Row) -> Said:
    liner, outer, inner, cap, height = row
    parts: list[tuple[str, str, float]] = [("liner", "liner {liner}", liner)]
    parts += [("outer", "outer plate {outer}", outer), ("inner", "inner plate {inner}", inner)]
    parts += [("cap", "cap {cap}, {height} high", cap)]
    used = [(name, text, mm) for name, text, mm in parts if mm > 0]
    of: dict[str, tuple[float, Kind]] = {name: (mm, "thickness") for name, _, mm in used}
    if cap > 0:
        of["height"] = (height, "length")
    return said(", ".join(text for _, text, _ in used), **of)


def _with_boxing(words: Said, boxing: Boxing) -> Said:
    extra = said("boxing plate {boxing}", boxing=(boxing.thickness_mm, "thickness"))
    return Said(text=f"{words.text}, {extra.text}", of={**words.of, **extra.of})


def _bolted(notch: Notch, here: RailHere, stock: Stock) -> Iterator[tuple[Notch, Said, tuple[bool | str, ...], float]]:
    if notch.bolts is None:
        return
    both = (False, True) if notch.inner_plate is not None else (False,)
    edge = max(notch.bolts.edge_mm, 2.0 * notch.bolts.bolt().size.diameter_mm)
    for liner, plate, inner, n in itertools.product(stock.thicknesses_mm, stock.thicknesses_mm, both, PER_END):
        base = with_plates(notch, (liner, plate, plate if inner else 0.0, 0.0, 0.0), here, stock.steel_id)
        made = base.model_copy(update={"bolts": notch.bolts.model_copy(update={"per_end": n, "edge_mm": edge})})
        if not can_be(made):
            continue
        words = said(
            "liner {liner}, plate {plate}, {bolts} bolts an end",
            liner=(liner, "thickness"),
            plate=(plate, "thickness"),
            bolts=(float(n), "count"),
        )
        volume = plates_volume_mm3(made, here.height, here.width, here.closed_width)
        yield made, words, (inner, str(n)), volume * DENSITY_KG_PER_MM3


def _pockets(
    pocket: Raise, here: RailHere, stock: Stock
) -> Iterator[tuple[Raise, Said, tuple[bool | str, ...], float]]:
    for floor, box in itertools.product(stock.thicknesses_mm, repeat=2):
        if not (weldable_with(floor, here.wall) and weldable_with(box, here.wall)):
            continue
        leg = max(least_leg(floor, here.wall), least_leg(box, here.wall))
        try:
            made = Raise.model_validate(
                {
                    **{name: getattr(pocket, name) for name in Raise.model_fields},
                    "floor_mm": floor,
                    "box_mm": box,
                    "weld_leg_mm": min(leg, most_leg_mm(min(floor, box))),
                    "depth_mm": pocket.depth_mm + floor - pocket.floor_mm,
                    "inner_depth_mm": pocket.inner_mm + floor - pocket.floor_mm if pocket.tapered else None,
                }
            )
        except (InputError, ValueError):
            continue
        cap = made.as_notch().cap
        if cap is not None:
            made = made.model_copy(update={"overlap_mm": overlap_for(cap, here)})
        words = said("floor {floor}, box on top {box}", floor=(floor, "thickness"), box=(box, "thickness"))
        volume = plates_volume_mm3(made.as_notch(), here.height, here.width, here.closed_width)
        yield made, words, ("pocket",), volume * DENSITY_KG_PER_MM3


def stiffer_cut(here: RailHere, index: int) -> Stiffer:
    """Makes the welds of a set as large as its plates allow, with the overlaps that they then need."""

    def stiffer(trial: Trial) -> Trial | None:
        op = trial.changed[0]
        if not isinstance(op, Notch) or op.bolts is not None:
            return None
        made = overlapped(legged(op, 0.0, most=True), here)
        if made == op:
            return None
        operations = (*trial.operations[:index], made, *trial.operations[index + 1 :])
        return Trial(operations, (made,), trial.added, trial.kinds, trial.words, trial.mass_kg)

    return stiffer


def mass_of(survey: Survey, operations: tuple[Operation, ...], side: Side, own: set[str]) -> float:
    """Mass of the parts of some operations on one side, kg."""
    placed = placed_on(survey, operations, side, planned_state(operations))
    return sum(part.mass_kg() for part in added_parts(survey, side, placed).parts if part.operation in own)
