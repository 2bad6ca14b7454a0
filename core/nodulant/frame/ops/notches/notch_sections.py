"""What a notch changes in the rail's sections, as columns along the rail."""

from dataclasses import replace

import numpy as np

from nodulant.base.arrays import Columns
from nodulant.frame.additions import Additions, Plate, Role
from nodulant.frame.columns import RailColumns
from nodulant.frame.ops.mounts.bolted import BoltGroup
from nodulant.frame.ops.notches.notch_plan import Cap, Liner, NotchPlan, SidePlate
from nodulant.frame.ops.plates.plate_welds import cap_development, plate_development, plate_line, taper_mm
from nodulant.materials import find_steel
from nodulant.sections.development import Reach
from nodulant.sections.liner import effective_share_simple, outstand_share, sloping_share


def notch_additions(
    notch: NotchPlan, centre_mm: float, rail: RailColumns, carried: frozenset[str], boxed: bool
) -> Additions:
    """Cut and plates of ``notch`` at ``centre_mm``; ``carried`` are the roles that are welded on.

    ``boxed`` says that the rail has a closing plate beside the cut, which a liner needs.
    """
    cut, slope = notch.shape.edge(rail.x - centre_mm, notch.depth_mm)
    plates: list[Plate] = []
    if notch.liner and "liner" in carried:
        plates.append(_liner(notch, notch.liner, centre_mm, rail, (cut, slope), boxed or "inner" in carried))
    if notch.outer_plate and "outer" in carried:
        plates.append(_side(notch, notch.outer_plate, "outer", centre_mm, rail))
    if notch.inner_plate and "inner" in carried:
        plates.append(_side(notch, notch.inner_plate, "inner", centre_mm, rail))
    if notch.cap and "cap" in carried:
        plates.append(_cap(notch, notch.cap, centre_mm, rail))
    if notch.bolts:
        plates = [_bolted(notch, notch.bolts, plate, centre_mm, rail) for plate in plates]
    spots = bolt_spots(notch, centre_mm, float(np.median(rail.height)))
    holes = notch.bolts.holes_at(spots, boxed) if notch.bolts else ()
    made = Additions(cut, tuple(plates), holes=holes)
    return made if notch.from_ == "below" else _turned_over(made, rail)


def bolt_spots(notch: NotchPlan, centre_mm: float, height_mm: float) -> list[tuple[float, float]]:
    """Stations and heights above the underside of a bolted bracket's bolts; none where it is welded."""
    side = notch.outer_plate or notch.inner_plate
    if notch.bolts is None or side is None:
        return []
    reach = notch.half_mouth_mm + side.overlap_mm
    found = notch.bolts.on_end(height_mm - 2 * side.inset_mm, side.overlap_mm, side.end == "diamond")
    return [(centre_mm + s * (reach - along), height_mm / 2 + up) for s in (-1.0, 1.0) for along, up in found]


def _bolted(notch: NotchPlan, bolts: BoltGroup, plate: Plate, centre: float, rail: RailColumns) -> Plate:
    """A plate of a bolted bracket: its bolts bring it in by bearing and shear over its overlap, holes take their width.

    It closes no cell: bolts slip before a wall conducts flow.
    """
    side = notch.outer_plate or notch.inner_plate
    overlap, steel = (side.overlap_mm, side.steel_id) if side else (1.0, "mild")
    depth = float(np.median(rail.height)) - (2 * side.inset_mm if side else 0.0)
    wide = float(np.median(rail.width)) if plate.role.startswith("liner") else depth
    most = bolts.share(plate.thickness_mm * wide, plate.thickness_mm, steel)
    grown = max(overlap - bolts.edge_mm, 1.0)
    reach = notch.half_mouth_mm + overlap
    share = most * np.clip((reach - np.abs(rail.x - centre)) / grown, 0.0, 1.0)
    if plate.role.startswith("liner"):
        share = share * (plate.share > 0)
    return replace(
        plate,
        share=share,
        credit=plate.credit * np.where(np.abs(rail.x - centre) > notch.half_mouth_mm, bolts.net(depth), 1.0),
        line_n_per_mm=0.0,
        closure=np.zeros_like(share),
        grown_mm=grown,
        kinks=(centre - reach, centre + reach, centre - reach + grown, centre + reach - grown),
    )


_OVER: dict[Role, Role] = {"liner": "liner-top", "cap": "cap-below"}


def _turned_over(made: Additions, rail: RailColumns) -> Additions:
    """The same from above: heights counted down from the rail's top."""
    plates = tuple(
        replace(p, role=_OVER.get(p.role, p.role), low=rail.height - p.high, high=rail.height - p.low)
        for p in made.plates
    )
    return Additions(np.zeros_like(rail.x), plates, made.cut, made.holes)


def liner_effective_share(notch: NotchPlan, width_mm: float) -> float:
    """Effective width of the liner's crown as a share of its width; 1 when it is flat."""
    radius = notch.shape.crown_radius_mm()
    if notch.liner is None or radius is None:
        return 1.0
    t = notch.liner.thickness_mm
    return effective_share_simple(width_mm, radius - t / 2, t)


def _liner(
    notch: NotchPlan, liner: Liner, centre: float, rail: RailColumns, edge: tuple[Columns, Columns], held: bool
) -> Plate:
    cut, slope = edge
    t, middle = liner.thickness_mm, int(np.argmin(np.abs(rail.x - centre)))
    deepest = min(notch.depth_mm, float(rail.height[middle]))
    width = float(rail.width_at(np.full_like(cut, deepest))[middle])
    wall = float(rail.wall[middle])
    run = notch.shape.unrolled_mm(notch.depth_mm, t)
    away = np.abs(rail.x - centre) / max(notch.half_mouth_mm, 1e-9)
    grown = plate_development(liner, width, wall).length_mm
    share = np.clip((1.0 - away) * run / 2 / max(grown, 1e-6), 0.0, 1.0)
    works = liner_effective_share(notch, width - wall) if held else liner_outstand_share(notch, width - wall / 2)
    low = np.maximum(cut - t / np.maximum(np.cos(slope), 0.05), 0.0)
    steel, line = find_steel(liner.steel_id), plate_line(liner, wall)
    there, turned = cut > 0, max(1.0 - 2 * grown / max(run, 1e-6), 0.0) * notch.half_mouth_mm
    return Plate(
        "liner",
        t,
        np.where(there, share, 0.0),
        low,
        cut,
        steel,
        sloping_share(slope) * works,
        slope,
        line_n_per_mm=line,
        closure=there.astype(float),
        grown_mm=grown,
        kinks=(centre - turned, centre + turned),
    )


def liner_outstand_share(notch: NotchPlan, outstand_mm: float) -> float:
    """Effective share of a liner that hangs on the one web of an open channel."""
    if notch.liner is None:
        return 0.0
    radius, t = notch.shape.crown_radius_mm(), notch.liner.thickness_mm
    yield_mpa = find_steel(notch.liner.steel_id).yield_mpa
    return outstand_share(outstand_mm, None if radius is None else radius - t / 2, t, yield_mpa)


def _side(notch: NotchPlan, plate: SidePlate, role: Role, centre: float, rail: RailColumns) -> Plate:
    middle = int(np.argmin(np.abs(rail.x - centre)))
    depth = float(rail.height[middle]) - 2 * plate.inset_mm
    reach = notch.half_mouth_mm + plate.overlap_mm - taper_mm(depth, plate.end)
    grown = plate_development(plate, depth, float(rail.wall[middle])).length_mm
    along = Reach(centre - reach, centre + reach, grown, float(max(rail.height[middle], rail.width[middle])))
    return Plate(
        role,
        plate.thickness_mm,
        along.share(rail.x),
        np.full_like(rail.x, plate.inset_mm),
        rail.height - plate.inset_mm,
        find_steel(plate.steel_id),
        np.ones_like(rail.x),
        np.zeros_like(rail.x),
        line_n_per_mm=plate_line(plate, float(rail.wall[middle])),
        closure=along.closure(rail.x),
        grown_mm=grown,
        kinks=along.kinks,
    )


def _cap(notch: NotchPlan, cap: Cap, centre: float, rail: RailColumns) -> Plate:
    middle = int(np.argmin(np.abs(rail.x - centre)))
    foot = float(rail.height[middle]) / 2 if rail.round else 0.0
    taper = taper_mm(cap.height_mm + foot, cap.end)
    reach = notch.half_mouth_mm + cap.overlap_mm - taper
    grown = cap_development(cap, float(rail.width[middle]), float(rail.wall[middle]), foot).length_mm
    # its ends are closed by plates: the cell is there as soon as it has its height
    along, cell = Reach(centre - reach, centre + reach, grown, grown), Reach(0, 2 * (reach + taper), 1, max(taper, 1.0))
    return Plate(
        "cap",
        cap.thickness_mm,
        along.share(rail.x),
        rail.height / 2 if rail.round else rail.height,
        rail.height + cap.height_mm,
        find_steel(cap.steel_id),
        np.ones_like(rail.x),
        np.zeros_like(rail.x),
        line_n_per_mm=plate_line(cap, float(rail.wall[middle])),
        closure=cell.closure(rail.x - centre + reach + taper),
        grown_mm=grown,
        kinks=(*along.kinks, centre - reach - taper, centre + reach + taper),
    )
