"""What a notch changes in the rail's sections, as columns along the rail."""

from dataclasses import replace

import numpy as np

from nodulant.base.arrays import Columns
from nodulant.frame.additions import Additions, Plate, Role
from nodulant.frame.columns import RailColumns
from nodulant.frame.ops.bolted import BoltGroup
from nodulant.frame.ops.notch_plan import Cap, Liner, NotchPlan, SidePlate
from nodulant.frame.ops.plate_welds import cap_development, plate_development, plate_line, taper_mm
from nodulant.materials import find_steel
from nodulant.sections.development import share_along
from nodulant.sections.liner import effective_share_simple, sloping_share


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
    made = Additions(cut, tuple(plates))
    return made if notch.from_ == "below" else _turned_over(made, rail)


NEVER_CLOSED = 0.999
"""A bolted wall slips before it closes a cell."""


def _bolted(notch: NotchPlan, bolts: BoltGroup, plate: Plate, centre: float, rail: RailColumns) -> Plate:
    """A plate of a bolted bracket: friction brings it in over its overlap, holes take their width."""
    side = notch.outer_plate or notch.inner_plate
    overlap = side.overlap_mm if side else 1.0
    depth = float(np.median(rail.height)) - (2 * side.inset_mm if side else 0.0)
    area = plate.thickness_mm * (depth if plate.role in {"outer", "inner"} else float(np.median(rail.width)))
    most = min(bolts.share(area, side.steel_id if side else "mild"), NEVER_CLOSED)
    along = (notch.half_mouth_mm + overlap - np.abs(rail.x - centre)) / max(overlap - bolts.edge_mm, 1.0)
    share = most * np.clip(along, 0.0, 1.0) * (plate.share > 0 if plate.role.startswith("liner") else 1.0)
    return replace(plate, share=share, credit=plate.credit * bolts.net(depth), line_n_per_mm=0.0)


_OVER: dict[Role, Role] = {"liner": "liner-top", "cap": "cap-below"}


def _turned_over(made: Additions, rail: RailColumns) -> Additions:
    """The same from above: heights counted down from the rail's top."""
    plates = tuple(
        replace(p, role=_OVER.get(p.role, p.role), low=rail.height - p.high, high=rail.height - p.low)
        for p in made.plates
    )
    return Additions(np.zeros_like(rail.x), plates, made.cut)


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
    t, middle = liner.thickness_mm, len(rail.x) // 2
    width = float(rail.width_at(np.full_like(cut, min(notch.depth_mm, float(rail.height[middle]))))[middle])
    wall = float(rail.wall[middle])
    run = notch.shape.unrolled_mm(notch.depth_mm, t)
    along = np.abs(rail.x - centre) / max(notch.half_mouth_mm, 1e-9)
    grown = plate_development(liner, width, wall).length_mm
    share = np.clip((1.0 - along) * run / 2 / max(grown, 1e-6), 0.0, 1.0)
    credit = sloping_share(slope) * (liner_effective_share(notch, width - wall) if held else 0.0)
    low = np.maximum(cut - t / np.maximum(np.cos(slope), 0.05), 0.0)
    steel, line = find_steel(liner.steel_id), plate_line(liner, wall)
    return Plate("liner", t, np.where(cut > 0, share, 0.0), low, cut, steel, credit, slope, line_n_per_mm=line)


def _side(notch: NotchPlan, plate: SidePlate, role: Role, centre: float, rail: RailColumns) -> Plate:
    middle = int(np.argmin(np.abs(rail.x - centre)))
    depth = float(rail.height[middle]) - 2 * plate.inset_mm
    reach = notch.half_mouth_mm + plate.overlap_mm - taper_mm(depth, plate.end)
    grown = plate_development(plate, depth, float(rail.wall[middle])).length_mm
    share = share_along(rail.x, centre - reach, centre + reach, grown)
    low, high = np.full_like(rail.x, plate.inset_mm), rail.height - plate.inset_mm
    return Plate(
        role,
        plate.thickness_mm,
        share,
        low,
        high,
        find_steel(plate.steel_id),
        np.ones_like(share),
        np.zeros_like(share),
        line_n_per_mm=plate_line(plate, float(rail.wall[middle])),
    )


def _cap(notch: NotchPlan, cap: Cap, centre: float, rail: RailColumns) -> Plate:
    middle = int(np.argmin(np.abs(rail.x - centre)))
    foot = float(rail.height[middle]) / 2 if rail.round else 0.0
    reach = notch.half_mouth_mm + cap.overlap_mm - taper_mm(cap.height_mm + foot, cap.end)
    grown = cap_development(cap, float(rail.width[middle]), float(rail.wall[middle]), foot).length_mm
    share = share_along(rail.x, centre - reach, centre + reach, grown)
    return Plate(
        "cap",
        cap.thickness_mm,
        share,
        rail.height / 2 if rail.round else rail.height,
        rail.height + cap.height_mm,
        find_steel(cap.steel_id),
        np.ones_like(share),
        np.zeros_like(share),
        line_n_per_mm=plate_line(cap, float(rail.wall[middle])),
    )
