"""Plates over a place where the rail was cut through, and what joins its ends.

The rail ahead ends at the cut; the rail behind starts ``run`` further on (in the planned frame)
and ``rise`` higher. A plate covers both ends and what is between them.
"""

import math
from collections.abc import Iterable, Sequence
from typing import Annotated, Literal

import numpy as np

from nodulant.base.model import Extra, Frozen, Thickness
from nodulant.base.shown import Shown
from nodulant.frame.additions import Plate, Role
from nodulant.frame.columns import RailColumns
from nodulant.frame.here import OnRail, Span
from nodulant.frame.ops.notches.notch_plan import SidePlate
from nodulant.frame.ops.plates.plate_welds import plate_development, plate_line, taper_mm
from nodulant.geometry import Outline, Vertex
from nodulant.geometry.outline import line, rectangle
from nodulant.materials import find_steel
from nodulant.parts.joint import Joint, JointKind
from nodulant.parts.part import Face, Part, Seam, part_id
from nodulant.parts.specs import CheckSpec, DetailId, FatigueDetail
from nodulant.sections.development import Reach
from nodulant.sections.profile import profile
from nodulant.units.inline import as_length

ButtWeld = Literal["one-sided", "one-sided-backed", "two-sided", "two-sided-ground"]
DETAIL: dict[ButtWeld, DetailId] = {
    "one-sided": "butt-blind",
    "one-sided-backed": "butt-backed",
    "two-sided": "butt",
    "two-sided-ground": "butt-ground",
}


class Box(Frozen):
    """Box or channel that goes in between the two ends; sizes outside, mm."""

    profile: Annotated[Literal["box", "channel"], Shown("Piece")] = "box"
    depth_mm: Annotated[Extra, Shown("Its depth (0: rail height)")] = 0.0
    """Depth along the bending, 0 for the rail's own height."""
    wall_mm: Annotated[Thickness, Shown("Its wall")] = 5.0
    steel_id: Annotated[str, Shown("Its steel")] = "mild"


def plate_columns(plate: SidePlate, role: Role, rail: RailColumns, start_mm: float, end_mm: float) -> Plate:
    """A side plate over a cut from ``start_mm`` to ``end_mm`` (stock stations) as columns."""
    middle = int(np.argmin(np.abs(rail.x - start_mm)))
    depth = float(rail.height[middle]) - 2 * plate.inset_mm
    reach = plate.overlap_mm - taper_mm(depth, plate.end)
    grown = plate_development(plate, depth, float(rail.wall[middle])).length_mm
    along = Reach(start_mm - reach, end_mm + reach, grown, float(max(rail.height[middle], rail.width[middle])))
    low, high = np.full_like(rail.x, plate.inset_mm), rail.height - plate.inset_mm
    one, none = np.ones_like(rail.x), np.zeros_like(rail.x)
    line, steel = plate_line(plate, float(rail.wall[middle])), find_steel(plate.steel_id)
    return Plate(
        role,
        plate.thickness_mm,
        along.share(rail.x),
        low,
        high,
        steel,
        one,
        none,
        line_n_per_mm=line,
        closure=along.closure(rail.x),
        grown_mm=grown,
        kinks=along.kinks,
    )


def plate_outline(plate: SidePlate, on: OnRail, run_mm: float, rise_mm: float) -> Outline:
    """Flat shape in station and height, in the place of the rail ahead of the cut."""
    i, height, over = plate.inset_mm, on.here.height, plate.overlap_mm
    low, high = i, height - i
    taper = taper_mm(high - low, "taper" if plate.end == "diamond" else plate.end)
    up = [(-over, low), (run_mm if rise_mm >= 0 else 0.0, low)]
    up += [(up[1][0], low + rise_mm), (run_mm + over, low + rise_mm)]
    down = [(run_mm + over - taper, high + rise_mm), (0.0 if rise_mm >= 0 else run_mm, high + rise_mm)]
    down += [(down[1][0], high), (-over + taper, high)]
    points = [*up, *down] if abs(rise_mm) > 1e-9 else [up[0], up[3], down[0], down[3]]
    outline = Outline(vertices=tuple(Vertex(x=x, y=y) for x, y in points))
    return outline.moved(on.span.start_mm, on.here.underside)


def plate_part(operation: str, plate: SidePlate, role: Face, on: OnRail, run_mm: float, rise_mm: float) -> Part:
    """One side plate as a part; it rides with the rail ahead of the cut."""
    return Part(
        id=part_id(operation, role, on.side),
        operation=operation,
        role=role,
        side=on.side,
        name=f"{role.capitalize()} side plate",
        face=role,
        outline=plate_outline(plate, on, run_mm, rise_mm),
        thickness_mm=plate.thickness_mm,
        steel_id=plate.steel_id,
        rides_mm=on.span.start_mm,
    )


def fillets(parts: list[Part], on: OnRail, leg_mm: float) -> list[Seam]:
    """A fillet around each part."""
    rail = f"rail/{on.side}"
    return [Seam(part_a=rail, part_b=p.id, kind="fillet", leg_mm=leg_mm, path=p.outline) for p in parts]


def overlap_needed(plate: SidePlate, on: OnRail) -> float:
    """Overlap past a through cut that rail height, development and weld length ask for, mm."""
    depth = on.here.height - 2 * plate.inset_mm
    grown, taper = plate_development(plate, depth, on.here.wall), taper_mm(depth, plate.end)
    return max(on.here.height, taper + grown.spread_mm, taper + grown.weld_mm)


def overlap_checks(plates: dict[str, SidePlate], on: OnRail) -> tuple[CheckSpec, ...]:
    """Overlap of each plate against rail height, development and weld length."""
    out = []
    for role, plate in plates.items():
        needed = overlap_needed(plate, on)
        out.append(
            CheckSpec(
                limit_id="overlap",
                about=role,
                value=plate.overlap_mm / needed,
                formula="overlap / needed",
                values={"overlap": plate.overlap_mm, "needed": needed},
                words="needed: the largest of rail height, development and weld length",
                detail=f"{role} plate",
                station_mm=on.span.start_mm - plate.overlap_mm,
                remedy=f"Overlap the cut by {as_length(needed)} or more at each end.",
            )
        )
    return tuple(out)


def joint_details(weld: ButtWeld, plates: dict[str, SidePlate], on: OnRail) -> tuple[FatigueDetail, ...]:
    """The butt at the cut and the plates' ends."""
    start, end = on.span.start_mm, on.span.end_mm
    rows = [
        FatigueDetail(
            about="butt",
            detail=DETAIL[weld],
            start_mm=start - 1,
            end_mm=end + 1,
            words=f"{weld.replace('-', ' ')} butt where the rail was cut through",
        )
    ]
    for role, plate in plates.items():
        for at in (start - plate.overlap_mm, end + plate.overlap_mm):
            rows.append(
                FatigueDetail(
                    about=f"{role}-end",
                    detail="plate-end",
                    start_mm=at - 1,
                    end_mm=at + 1,
                    words=f"end of the {role} plate",
                )
            )
    return tuple(rows)


def joint_of(
    operation: str,
    on: OnRail,
    kind: JointKind,
    box: Box,
    plates: Iterable[SidePlate],
    span: Span | None = None,
    rise_mm: float = 0.0,
    inward_mm: float = 0.0,
) -> Joint:
    """The inserted piece as a joint: its box or channel, side plates lying on its sides counted over its depth."""
    span = span or on.span
    depth = box.depth_mm or on.here.height
    width = on.here.closed_width
    p = profile(box.profile, depth, width, box.wall_mm)
    sheets = [plate.thickness_mm for plate in plates]
    webs = (2 if box.profile == "box" else 1) * box.wall_mm + sum(sheets)
    i_y = p.i_y + sum(t * depth**3 / 12 for t in sheets)
    i_z = p.i_z + sum(t * depth * (width / 2) ** 2 for t in sheets)
    steel = find_steel(box.steel_id)
    return Joint(
        operation=operation,
        side=on.side,
        kind=kind,
        at_mm=span.start_mm,
        behind_mm=span.end_mm,
        area=p.area + sum(t * depth for t in sheets),
        i_y=i_y,
        i_z=i_z,
        j=p.j,
        s_y=2 * i_y / depth,
        s_z=2 * i_z / width,
        w_t=p.w_t,
        yield_reference_mpa=steel.yield_reference_mpa,
        yield_mpa=steel.beside_weld_mpa,
        rise_mm=rise_mm,
        inward_mm=inward_mm,
        panel_mm2=webs * depth,
    )


def box_parts(
    operation: str, role: str, name: str, box: Box, on: OnRail, outline: Outline, run_mm: float
) -> list[Part]:
    """The inserted piece as plates: its sides (one for a channel) and the two faces between them, ``run_mm`` long."""
    common = {"operation": operation, "side": on.side, "thickness_mm": box.wall_mm, "steel_id": box.steel_id}
    between = max(on.here.closed_width - box.wall_mm * (2 if box.profile == "box" else 1), 1.0)
    face = rectangle(on.span.start_mm, 0.0, on.span.start_mm + max(run_mm, 1.0), between)
    side = Part(
        **common,
        id=part_id(operation, role, on.side),
        role=role,
        name=f"{name}, side",
        face="outer",
        outline=outline,
        count=2 if box.profile == "box" else 1,
        rides_mm=on.span.start_mm,
    )
    faces = Part(
        **common,
        id=part_id(operation, f"{role}-faces", on.side),
        role=f"{role}-faces",
        name=f"{name}, faces",
        face="top",
        outline=face,
        count=2,
        rides_mm=on.span.start_mm,
    )
    return [side, faces]


def round_mm(on: OnRail) -> float:
    """Length of a butt round the rail's section, mm: all round a closed one, web and flanges of an open one."""
    high, wide = on.here.height, on.here.closed_width
    if on.here.round:
        return math.pi * high
    return 2 * (high + wide) if on.rail.closed or on.here.boxed else high + 2 * on.here.width


def butt(on: OnRail, to: str, x_mm: float, low_mm: float, *, ground: bool) -> Seam:
    """A butt of the rail round ``to`` at a station, seen from the side as an upright line."""
    return Seam(
        part_a=f"rail/{on.side}",
        part_b=to,
        kind="butt",
        leg_mm=on.here.wall,
        path=line(x_mm, low_mm, x_mm, low_mm + on.here.height),
        ground=ground,
        long_mm=round_mm(on),
    )


def piece_seams(
    pieces: Sequence[Part], box: Box, on: OnRail, ends: tuple[tuple[float, float], ...], *, ground: bool
) -> list[Seam]:
    """An inserted piece: its own long corners, and a butt at each of its ``ends`` (station and underside of the rail there)."""
    side, faces = pieces[0], pieces[1]
    x0, _, x1, _ = faces.outline.bounds()
    corners = 4 if box.profile == "box" else 2
    own = Seam(
        part_a=side.id,
        part_b=faces.id,
        kind="fillet",
        leg_mm=box.wall_mm,
        path=side.outline,
        long_mm=corners * (x1 - x0),
    )
    return [own, *(butt(on, side.id, x, low, ground=ground) for x, low in ends)]
