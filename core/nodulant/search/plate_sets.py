"""Sets of plates from stock on one notch: what there is to try, and what each weighs."""

import itertools
from collections.abc import Iterator

import numpy as np

from nodulant.base.errors import InputError
from nodulant.base.model import Frozen
from nodulant.frame.here import RailHere
from nodulant.frame.ops.notches.notch import Cap, Liner, Notch, SidePlate
from nodulant.frame.ops.notches.notch_shape import ArcShape, NotchShape
from nodulant.frame.ops.plates.plate_welds import needed_overlap, taper_mm
from nodulant.geometry import Outline

Row = tuple[float, float, float, float, float]
"""Liner, outer and inner plate, cap and its height, mm; 0 where there is none."""


class Stock(Frozen):
    """Thicknesses and cap heights to choose from, mm."""

    thicknesses_mm: tuple[float, ...]
    cap_heights_mm: tuple[float, ...]
    steel_id: str = "mild"


def candidates(stock: Stock, flat_sides: bool = True) -> Iterator[Row]:
    """Every (liner, outer, inner, cap, cap height) that the stock allows; side plates need flat sides."""
    plates = (0.0, *stock.thicknesses_mm) if flat_sides else (0.0,)
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


def with_plates(notch: Notch, row: Row, rail: RailHere, steel_id: str) -> Notch:
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
    return overlapped(base, rail)


def overlapped(notch: Notch, here: RailHere) -> Notch:
    """The notch with overlaps as long as each plate needs."""
    update: dict[str, object] = {}
    for role in ("outer_plate", "inner_plate", "cap"):
        plate = getattr(notch, role)
        if plate is not None:
            update[role] = plate.model_copy(update={"overlap_mm": overlap_for(plate, here)})
    return notch.model_copy(update=update)


def overlap_for(plate: SidePlate | Cap, here: RailHere) -> float:
    """Whole millimetres that a plate needs past its cut."""
    return float(np.ceil(needed_overlap(plate, here.height, here.width, here.wall, here.foot)[0]))


def can_be(notch: Notch) -> bool:
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
