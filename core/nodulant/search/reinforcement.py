"""The lightest plates from stock that bring every capacity of a notch to 1.00.

All combinations of liner, side plates and cap from the shop's stock are ranked by mass and
screened at the stations inside the cut and beside it, where the checks govern; the first
that also passes the whole rail is the answer. Screening uses a subset of the stations, so it
drops no set that would pass. Overlaps are made as long as each plate needs, and the cut grows
or shrinks with the liner so that the opening that the axle needs stays clear.
"""

import itertools
from collections.abc import Generator, Iterator

import numpy as np

from nodulant.base.arrays import Columns, Mask
from nodulant.base.errors import InputError, NotSolvable, UnknownReference
from nodulant.base.model import Frozen
from nodulant.frame.columns import rail_at
from nodulant.frame.model import STOCK, Placed, placed_on, planned_state, sections
from nodulant.frame.ops.notch import Cap, Liner, Notch, SidePlate
from nodulant.frame.ops.notch_shape import ArcShape, NotchShape
from nodulant.frame.ops.plate_welds import needed_overlap, taper_mm
from nodulant.frame.ops.union import Operation
from nodulant.frame.parts import added_parts, rail_here
from nodulant.frame.stations import stations
from nodulant.geometry import Outline
from nodulant.parts.sides import Side, on_sides
from nodulant.strength.compare import ratios
from nodulant.strength.rail import missing_for_sections
from nodulant.survey.vehicle import Survey

ENOUGH = 1.0 - 1e-6
Progress = tuple[int, int]
"""Sets tried and sets in all."""


class Stock(Frozen):
    """Thicknesses and cap heights to choose from, mm."""

    thicknesses_mm: tuple[float, ...]
    cap_heights_mm: tuple[float, ...]
    steel_id: str = "mild"


class Candidate(Frozen):
    """A set of plates, mm; 0 means none."""

    liner_mm: float
    outer_mm: float
    inner_mm: float
    cap_mm: float
    cap_height_mm: float
    mass_kg: float


class Found(Frozen):
    """The lightest set and the notch that carries it, or the reason why there is none."""

    notch: Notch | None
    best: Candidate | None
    tried: int
    reason: str
    least_ratio: float
    governs: str


def candidates(stock: Stock) -> Iterator[tuple[float, float, float, float, float]]:
    """Every (liner, outer, inner, cap, cap height) that the stock allows."""
    plates = (0.0, *stock.thicknesses_mm)
    caps = [(0.0, 0.0), *itertools.product(stock.thicknesses_mm, stock.cap_heights_mm)]
    for liner, outer, inner, (cap, height) in itertools.product(stock.thicknesses_mm, plates, plates, caps):
        yield liner, outer, inner, cap, height


def with_room_for(notch: Notch, liner_mm: float) -> Notch:
    """``notch`` cut wider and deeper, or less so, that a liner of ``liner_mm`` leaves the same clear opening."""
    more = liner_mm - (notch.liner.thickness_mm if notch.liner else 0.0)
    shape = notch.shape
    if isinstance(shape, ArcShape):
        grown: NotchShape = ArcShape(radius_mm=max(shape.radius_mm + more, 1.0))
    else:
        grown = shape.model_copy(
            update={
                "top_width_mm": shape.top_width_mm + 2 * more,
                "mouth_width_mm": shape.mouth_width_mm + 2 * more,
                "corner_radius_mm": max(shape.corner_radius_mm + more, 0.0),
            }
        )
    return notch.model_copy(update={"shape": grown, "depth_mm": notch.depth_mm + more})


def with_plates(
    notch: Notch, row: tuple[float, float, float, float, float], rail: tuple[float, float, float], steel_id: str
) -> Notch:
    """``notch`` with the plates of ``row``, overlaps as long as they need, and the clear opening kept."""
    liner, outer, inner, cap, height = row
    base = with_room_for(notch, liner).model_copy(
        update={
            "liner": Liner(thickness_mm=liner, steel_id=steel_id),
            "outer_plate": SidePlate(thickness_mm=outer, overlap_mm=0, steel_id=steel_id) if outer else None,
            "inner_plate": SidePlate(thickness_mm=inner, overlap_mm=0, steel_id=steel_id) if inner else None,
            "cap": Cap(thickness_mm=cap, height_mm=height, overlap_mm=0, steel_id=steel_id) if cap else None,
        }
    )
    update: dict[str, object] = {}
    for role in ("outer_plate", "inner_plate", "cap"):
        plate = getattr(base, role)
        if plate is not None:
            needed = needed_overlap(base, plate, *rail)[0]
            update[role] = plate.model_copy(update={"overlap_mm": float(np.ceil(needed))})
    return base.model_copy(update=update)


def find_reinforcement(survey: Survey, operations: tuple[Operation, ...], notch_id: str, stock: Stock) -> Found:
    """Search the stock for ``notch_id`` to the end; raises UnknownReference."""
    search = search_reinforcement(survey, operations, notch_id, stock)
    while True:
        try:
            next(search)
        except StopIteration as end:
            found: Found = end.value
            return found


def search_reinforcement(
    survey: Survey, operations: tuple[Operation, ...], notch_id: str, stock: Stock
) -> Generator[Progress, None, Found]:
    """Search step by step: yields progress now and then, returns what was found; stop it at will."""
    index, notch = _notch_named(operations, notch_id)
    for each in on_sides(notch.side):
        if missing := missing_for_sections(survey, each):
            raise NotSolvable(
                "a wall of the rail was not measured", field=missing[0], found="nothing", acceptable="a thickness"
            )
    side = on_sides(notch.side)[0]
    rows = _by_mass(survey, operations, index, notch, side, stock)
    best = (0.0, "")
    for done, (row, candidate) in enumerate(rows):
        if done % 40 == 0:
            yield done, len(rows)
        trial = (*operations[:index], candidate, *operations[index + 1 :])
        screened = least_ratio(survey, trial, side, screen=True)
        best = max(best, screened)
        if screened[0] < ENOUGH:
            continue
        whole = min(least_ratio(survey, trial, s, screen=False) for s in on_sides(notch.side))
        best = max(best, whole)
        if whole[0] >= ENOUGH:
            liner, outer, inner, cap, height = row
            mass = _mass(survey, trial, side)
            chosen = Candidate(
                liner_mm=liner, outer_mm=outer, inner_mm=inner, cap_mm=cap, cap_height_mm=height, mass_kg=mass
            )
            return Found(
                notch=candidate, best=chosen, tried=done + 1, reason="", least_ratio=screened[0], governs=screened[1]
            )
    reason = _reason(operations, best)
    return Found(notch=None, best=None, tried=len(rows), reason=reason, least_ratio=best[0], governs=best[1])


def _notch_named(operations: tuple[Operation, ...], notch_id: str) -> tuple[int, Notch]:
    for index, op in enumerate(operations):
        if op.id == notch_id and isinstance(op, Notch):
            return index, op
    names = ", ".join(op.id for op in operations if isinstance(op, Notch)) or "none in this design"
    raise UnknownReference(f"there is no notch '{notch_id}'", field="/notch_id", found=notch_id, acceptable=names)


def _by_mass(
    survey: Survey, operations: tuple[Operation, ...], index: int, notch: Notch, side: Side, stock: Stock
) -> list[tuple[tuple[float, float, float, float, float], Notch]]:
    placed = placed_on(survey, operations, side, planned_state(operations))
    centre = next(p.centre_mm for p in placed if p.op.id == notch.id)
    _, height, width, wall = rail_at(survey.rails.of(side), centre)
    every = [(row, with_plates(notch, row, (height, width, wall), stock.steel_id)) for row in candidates(stock)]
    made = [(row, trial) for row, trial in every if _can_be(trial)]
    closed = rail_here(survey, side, centre, placed).closed_width
    weight = [plates_volume_mm3(n, height, width, closed) for _, n in made]
    order = np.argsort(np.array(weight), kind="stable")
    return [made[i] for i in order]


def _can_be(notch: Notch) -> bool:
    """Whether the cut and its liner fit each other; copies are not validated by themselves."""
    try:
        notch.shape.fits(notch.depth_mm, notch.liner.thickness_mm if notch.liner else 0.0)
    except InputError:
        return False
    return True


def plates_volume_mm3(notch: Notch, height: float, width: float, closed_width: float) -> float:
    """Volume of a notch's plates, mm3, in closed form: the same as the sum over its flat parts."""
    mouth = notch.half_mouth_mm
    total = (
        notch.shape.unrolled_mm(notch.depth_mm, notch.liner.thickness_mm) * closed_width * notch.liner.thickness_mm
        if notch.liner
        else 0.0
    )
    for plate in (notch.outer_plate, notch.inner_plate):
        if plate:
            depth, taper = height - 2 * plate.inset_mm, taper_mm(height - 2 * plate.inset_mm, plate.end)
            edge = notch.shape.path_above(notch.depth_mm, plate.inset_mm)
            gone = abs(Outline(vertices=edge).area_mm2()) if edge else 0.0
            total += plate.thickness_mm * (2 * depth * (mouth + plate.overlap_mm) - depth * taper - gone)
    if notch.cap:
        total += _cap_volume(notch.cap, mouth + notch.cap.overlap_mm, width)
    return total


def _cap_volume(cap: Cap, end: float, width: float) -> float:
    h, t, taper = cap.height_mm, cap.thickness_mm, taper_mm(cap.height_mm, cap.end)
    inside = max(width - 2 * t, 1.0)
    return t * ((2 * end - 2 * taper) * inside + 2 * h * (2 * end - taper) + 2 * float(np.hypot(h, taper)) * inside)


def least_ratio(survey: Survey, operations: tuple[Operation, ...], side: Side, screen: bool) -> tuple[float, str]:
    """The least capacity ratio on ``side`` and what it is, at all stations or inside the cuts only.

    A set that cannot be placed (a cut as deep as the rail, say) has ratio 0 and its reason.
    """
    state = planned_state(operations)
    try:
        placed = placed_on(survey, operations, side, state)
    except InputError as error:
        return 0.0, error.message
    rail = survey.rails.of(side)
    x = stations(rail.start_mm, rail.end_mm, placed, [])
    if screen:
        x = x[_beside_cuts(x, placed)]
    found = ratios(sections(survey, (), side, x, STOCK), sections(survey, operations, side, x, state))
    rows = (
        (found.modulus_top, "bending capacity, top fibre"),
        (found.modulus_bottom, "bending capacity, bottom fibre"),
        (found.shear_area, "web shear capacity"),
        (found.torsion_constant, "torsion constant"),
        (found.torsion_capacity, "torsion capacity"),
    )
    return min(
        (float(values.min()), f"{name} at station {x[int(values.argmin())]:.0f} mm, {side}") for values, name in rows
    )


def _beside_cuts(x: Columns, placed: list[Placed]) -> Mask:
    """Which stations lie in a cut or just beside it."""
    cuts = [p for p in placed if isinstance(p.op, Notch)]
    near: Mask = np.zeros(len(x), dtype=bool)
    for p in cuts:
        near = near | ((x >= p.start_mm - 1) & (x <= p.end_mm + 1))
    return near


def _mass(survey: Survey, operations: tuple[Operation, ...], side: Side) -> float:
    placed = placed_on(survey, operations, side, planned_state(operations))
    cuts = {p.op.id for p in placed if isinstance(p.op, Notch)}
    return sum(part.mass_kg() for part in added_parts(survey, side, placed).parts if part.operation in cuts)


def _reason(operations: tuple[Operation, ...], best: tuple[float, str]) -> str:
    boxed = any(op.kind == "boxing" for op in operations)
    hint = (
        ""
        if boxed
        else " The rail is not boxed here: a liner held by one web is not counted as a flange, and the cell stays open."
    )
    return f"No set from this stock reaches stock strength: the best of it leaves the {best[1]} at {best[0]:.2f} of stock.{hint} Add thicker plate or a higher cap to the stock, make the notch shallower, or use a straight-sided cut."
