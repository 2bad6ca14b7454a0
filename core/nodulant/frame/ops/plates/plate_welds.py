"""Development of the plates of a notch or a box, from their own weld and size."""

from nodulant.frame.ops.notches.notch_plan import Cap, Liner, SidePlate
from nodulant.materials import find_steel, line_capacity
from nodulant.parts.part import EndShape
from nodulant.sections.development import Development, development

_TAPER = {"square": 0.0, "taper": 1.0, "diamond": 0.5}


def taper_mm(depth_mm: float, end: EndShape) -> float:
    """Length over which an end of 45 degrees grows to full depth, mm."""
    return _TAPER[end] * depth_mm


def line_n_per_mm(thickness_mm: float, leg_mm: float, steel_id: str, wall_mm: float) -> float:
    """Allowable load of one weld line between a plate and the rail's wall, N/mm."""
    return line_capacity(leg_mm, min(thickness_mm, wall_mm), find_steel(steel_id).yield_mpa)


def plate_line(plate: Liner | SidePlate | Cap, wall_mm: float) -> float:
    """Allowable load of one of the plate's long welds, N/mm."""
    return line_n_per_mm(plate.thickness_mm, plate.weld_leg_mm, plate.steel_id, wall_mm)


def plate_development(plate: Liner | SidePlate | Cap, depth_mm: float, wall_mm: float) -> Development:
    """Development of a plate ``depth_mm`` deep welded along both long edges."""
    q = plate_line(plate, wall_mm)
    return development(depth_mm, plate.thickness_mm, find_steel(plate.steel_id).yield_mpa, 2, q)


def cap_development(cap: Cap, width_mm: float, wall_mm: float, foot_mm: float = 0.0) -> Development:
    """Development of a cap: both feet welded, ``foot_mm`` below the rail's top, its whole girth brought in by them."""
    return plate_development(cap, 2 * (cap.height_mm + foot_mm) + width_mm - 2 * cap.thickness_mm, wall_mm)


def needed_overlap(
    plate: SidePlate | Cap, height_mm: float, width_mm: float, wall_mm: float, foot_mm: float = 0.0
) -> tuple[float, dict[str, float]]:
    """Overlap past the cut that rule and weld ask for, mm, with the three candidates by name.

    ``foot_mm``: how far below the rail's top a cap stands (half of a round tube's height).
    """
    if isinstance(plate, Cap):
        grown = cap_development(plate, width_mm, wall_mm, foot_mm)
        taper = taper_mm(plate.height_mm + foot_mm, plate.end)
    else:
        depth = height_mm - 2 * plate.inset_mm
        grown = plate_development(plate, depth, wall_mm)
        taper = taper_mm(depth, plate.end)
    reasons = {"rail height": height_mm, "development": taper + grown.spread_mm, "weld length": taper + grown.weld_mm}
    return max(reasons.values()), reasons
