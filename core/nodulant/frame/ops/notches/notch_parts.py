"""The plates of a notch on one side, as flat shapes, and the seams that hold them."""

import math

from nodulant.frame.here import RailHere
from nodulant.frame.ops.notches.notch_plan import Cap, NotchPlan, SidePlate
from nodulant.frame.ops.notches.notch_shape import TrapezoidShape
from nodulant.frame.ops.notches.tube_parts import saddle_outline, straddling_parts
from nodulant.frame.ops.plates.plate_welds import taper_mm
from nodulant.geometry import Outline, Vertex
from nodulant.geometry.outline import polygon, rectangle
from nodulant.parts.part import Face, Part, Seam, part_id
from nodulant.parts.sides import Side
from nodulant.units.inline import as_length


def notch_parts(notch: NotchPlan, side: Side, rail: RailHere) -> list[Part]:
    """Every plate that ``notch`` adds on ``side``."""
    parts: list[Part] = []
    if notch.liner:
        flat = _liner_outline(notch, notch.liner.thickness_mm, rail)
        parts.append(
            _part(notch, "liner", side, "Liner", "bottom", flat, notch.liner.thickness_mm, notch.liner.steel_id)
        )
    plates: tuple[tuple[Face, SidePlate | None], ...] = (("outer", notch.outer_plate), ("inner", notch.inner_plate))
    for face, plate in plates:
        if plate:
            outline = side_plate_outline(notch, plate, rail)
            parts.append(
                _part(
                    notch,
                    face,
                    side,
                    f"{face.capitalize()} side plate",
                    face,
                    outline,
                    plate.thickness_mm,
                    plate.steel_id,
                )
            )
    if notch.cap:
        parts.extend(_cap_parts(notch, notch.cap, side, rail))
    return parts


def _liner_outline(notch: NotchPlan, liner_mm: float, rail: RailHere) -> Outline:
    """The liner unrolled, in station and width, mm."""
    if rail.round:
        return saddle_outline(notch, liner_mm, rail)
    run = notch.shape.unrolled_mm(notch.depth_mm, liner_mm) / 2
    return rectangle(rail.centre - run, 0.0, rail.centre + run, rail.closed_width)


def side_plate_outline(notch: NotchPlan, plate: SidePlate, rail: RailHere) -> Outline:
    """Side plate with its lower edge following the cut, in station and height, mm."""
    low, high = plate.inset_mm, rail.height - plate.inset_mm
    end, depth = notch.half_mouth_mm + plate.overlap_mm, rail.height - 2 * plate.inset_mm
    taper = taper_mm(depth, plate.end)
    front: list[Vertex]
    if plate.end == "diamond":
        front = [Vertex(x=-end + taper, y=high), Vertex(x=-end, y=(low + high) / 2), Vertex(x=-end + taper, y=low)]
    else:
        front = [Vertex(x=-end + taper, y=high), Vertex(x=-end, y=low)]
    rear = [Vertex(x=-v.x, y=v.y) for v in reversed(front)]
    edge = notch.shape.path_above(notch.depth_mm, low)
    return Outline(vertices=(*front, *edge, *rear)).moved(rail.centre, rail.underside)


def _cap_parts(notch: NotchPlan, cap: Cap, side: Side, rail: RailHere) -> list[Part]:
    rows = straddling_parts(notch, cap, rail) if rail.round else _box_parts(notch, cap, rail)
    return [
        _part(notch, role, side, name, face, outline, cap.thickness_mm, cap.steel_id)
        for role, name, face, outline in rows
    ]


def _box_parts(notch: NotchPlan, cap: Cap, rail: RailHere) -> list[tuple[str, str, Face, Outline]]:
    """Role, name, face and outline of a cap's five plates on a flat flange."""
    end, h, t = notch.half_mouth_mm + cap.overlap_mm, cap.height_mm, cap.thickness_mm
    taper = taper_mm(h, cap.end)
    web = polygon([(-end, 0), (end, 0), (end - taper, h), (-end + taper, h)]).moved(
        rail.centre, rail.underside + rail.height
    )
    inside = max(rail.width - 2 * t, 1.0)
    top = rectangle(rail.centre - end + taper, t, rail.centre + end - taper, t + inside)
    slant = (h * h + taper * taper) ** 0.5
    ends = rectangle(0.0, t, slant, t + inside)
    return [
        ("cap", "Cap top", "top", top),
        ("cap-side-outer", "Cap side, outer", "outer", web),
        ("cap-side-inner", "Cap side, inner", "inner", web),
        ("cap-end-front", "Cap end, front", "top", ends.moved(rail.centre - end, 0)),
        ("cap-end-rear", "Cap end, rear", "top", ends.moved(rail.centre + end - slant, 0)),
    ]


def notch_seams(notch: NotchPlan, side: Side, parts: list[Part]) -> list[Seam]:
    """Fillets around the plates; the rail itself is part 'rail/<side>'. A bolted bracket is welded to itself only."""
    if notch.bolts is not None:
        return _bracket_seams(notch, parts)
    legs = {"liner": notch.liner, "outer": notch.outer_plate, "inner": notch.inner_plate}
    seams = []
    for part in parts:
        holder = legs.get(part.role, notch.cap)
        leg = holder.weld_leg_mm if holder else 5.0
        seams.append(Seam(part_a=f"rail/{side}", part_b=part.id, kind="fillet", leg_mm=leg, path=part.outline))
    return seams


def _bracket_seams(notch: NotchPlan, parts: list[Part]) -> list[Seam]:
    """The liner along its edge in every side plate: bench work, before the bracket goes on."""
    liner = next((p for p in parts if p.role == "liner"), None)
    if liner is None or notch.liner is None:
        return []
    x0, _, x1, _ = liner.outline.bounds()
    leg = notch.liner.weld_leg_mm
    sides = (p for p in parts if p.role in {"outer", "inner"})
    return [
        Seam(part_a=liner.id, part_b=p.id, kind="fillet", leg_mm=leg, path=p.outline, long_mm=x1 - x0) for p in sides
    ]


def _part(
    notch: NotchPlan, role: str, side: Side, name: str, face: Face, outline: Outline, thickness: float, steel: str
) -> Part:
    return Part(
        id=part_id(notch.id, role, side),
        operation=notch.id,
        role=role,
        side=side,
        name=name,
        face=face,
        outline=outline,
        thickness_mm=thickness,
        steel_id=steel,
    )


def liner_bends(notch: NotchPlan, part: Part, centre_mm: float) -> tuple[Outline, ...]:
    """Where each bend of a liner begins and ends, or its roll, on its mid-thickness development."""
    _, y0, _, y1 = part.outline.bounds()
    return tuple(
        Outline(vertices=(Vertex(x=centre_mm + x, y=y0), Vertex(x=centre_mm + x, y=y1)), closed=False)
        for x in _formed_at(notch)
    )


def _formed_at(notch: NotchPlan) -> list[float]:
    """Along the development from its middle, mm; a roll that runs from end to end has none."""
    shape, thick = notch.shape, notch.liner.thickness_mm if notch.liner else 0.0
    if not isinstance(shape, TrapezoidShape):
        turned = (shape.radius_mm - thick / 2) * math.pi / 2
        return [-turned, turned] if notch.depth_mm > shape.radius_mm else []
    flat = shape.path(notch.depth_mm).vertices[3].x
    curved = max(shape.corner_radius_mm - thick / 2, 0.0) * shape.side_angle(notch.depth_mm)
    ends = [flat, flat + curved] if curved > LEAST_CURVE_MM else [flat]
    return [sign * x for sign in (-1, 1) for x in ends]


LEAST_CURVE_MM = 1.0
"""Two marks nearer than this are one."""


def liner_formed(notch: NotchPlan, thickness_mm: float) -> str:
    """How a liner is bent or rolled, and which way."""
    shape, depth = notch.shape, notch.depth_mm
    if not isinstance(shape, TrapezoidShape):
        r = shape.radius_mm
        turn = math.degrees(2 * math.acos((r - min(depth, r)) / r))
        legs = f", straight legs of {as_length(depth - r)}" if depth > r else ""
        return f"roll to {as_length(r - thickness_mm)} inside, {turn:.0f} degrees{legs}"
    turn = math.degrees(shape.side_angle(depth))
    inside = max(shape.corner_radius_mm - thickness_mm, 0.0)
    return f"bend {turn:.0f} degrees each, {as_length(inside)} inside"


MARKS_OUT = "marks on the side that meets the cut"
"""Which way it goes: the hollow is the other side."""
