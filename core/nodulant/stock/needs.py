"""Everything that a design adds, as it is cut and bought: plates with their blanks, tube to length, bolts, weld metal."""

import math
from collections.abc import Iterable

import numpy as np
from shapely import Polygon, minimum_rotated_rectangle

from nodulant.axles.points import on_axle
from nodulant.base.model import Frozen
from nodulant.frame.added_ties import tie_works
from nodulant.frame.model import placed_on, planned_state
from nodulant.frame.parts import Work, work_on
from nodulant.geometry import Outline
from nodulant.job.document import Inputs
from nodulant.job.riding import in_place
from nodulant.materials.bolts import find_bolt
from nodulant.materials.weld import bead_mm2
from nodulant.parts.bought import BoltsNeeded, Needed, TubeNeeded
from nodulant.parts.part import Part, Seam
from nodulant.parts.sides import LEFT_RIGHT, Side
from nodulant.stock.consumables import ToolRow, tool_rows
from nodulant.suspension.study import hub_height
from nodulant.targets.drop import towards_rail

CHORD_MM = 0.2
"""How near a blank follows an arc."""


class PlatePiece(Frozen):
    """Equal plates of a design: the rectangle that each is cut from, mm, its own area, mm2, and how many."""

    name: str
    operation: str
    sides: str
    thickness_mm: float
    steel_id: str
    long_mm: float
    wide_mm: float
    area_mm2: float
    mass_kg: float
    """Of one."""
    count: int


class WeldMetal(Frozen):
    """Welds of one kind and leg: length, mm, and metal laid down, mm3."""

    kind: str
    leg_mm: float
    length_mm: float
    volume_mm3: float


class Needs(Frozen):
    """What the whole design takes."""

    plates: tuple[PlatePiece, ...]
    tubes: tuple[TubeNeeded, ...]
    bolts: tuple[BoltsNeeded, ...]
    welds: tuple[WeldMetal, ...]
    tools: tuple[ToolRow, ...] = ()


def needs_of(inputs: Inputs) -> Needs:
    """Of both rails, axles and suspensions as planned; raises InputError and UnknownReference."""
    inputs = in_place(inputs)
    own = inputs.design
    works = [w for side in LEFT_RIGHT for w in _works(inputs, side)]
    works += tie_works(inputs.survey, own.operations, own.crossmembers)
    names = {op.id: op.name for op in own.operations}
    bought: list[Needed] = [item for w in works for item in w.op.bought(w.on)]
    bought += _links(inputs)
    return Needs(
        plates=_plates([p for w in works for p in w.parts if p.from_plate], names),
        tubes=_tubes(b for b in bought if isinstance(b, TubeNeeded)),
        bolts=_bolts(b for b in bought if isinstance(b, BoltsNeeded)),
        welds=_welds(s for w in works for s in w.seams),
        tools=tool_rows(works, bought),
    )


def plates_of(inputs: Inputs) -> list[Part]:
    """Every part of both sides that is cut flat from plate; raises InputError."""
    return [p for side in LEFT_RIGHT for w in _works(inputs, side) for p in w.parts if p.from_plate]


def _works(inputs: Inputs, side: Side) -> tuple[Work, ...]:
    operations = inputs.design.operations
    placed = placed_on(inputs.survey, operations, side, planned_state(operations))
    return work_on(inputs.survey, side, placed)


def _plates(parts: Iterable[Part], names: dict[str, str]) -> tuple[PlatePiece, ...]:
    """Pieces that are cut alike from alike plate, counted together; the largest first."""
    found: dict[tuple[object, ...], list[Part]] = {}
    for part in parts:
        long, wide = blank_of(part.outline)
        key = (part.operation, part.name, part.thickness_mm, part.steel_id, round(long, 1), round(wide, 1))
        found.setdefault(key, []).append(part)
    rows = []
    for own in found.values():
        first, (long, wide) = own[0], blank_of(own[0].outline)
        holes = sum(math.pi / 4 * h.diameter_mm**2 for h in first.holes)
        rows.append(
            PlatePiece(
                name=first.name,
                operation=names.get(first.operation, first.operation),
                sides=" and ".join(dict.fromkeys(p.side for p in own)),
                thickness_mm=first.thickness_mm,
                steel_id=first.steel_id,
                long_mm=long,
                wide_mm=wide,
                area_mm2=max(abs(first.outline.area_mm2()) - holes, 0.0),
                mass_kg=first.mass_kg() / first.count,
                count=sum(p.count for p in own),
            )
        )
    return tuple(sorted(rows, key=lambda r: (r.thickness_mm, r.steel_id, -r.long_mm * r.wide_mm)))


def blank_of(outline: Outline) -> tuple[float, float]:
    """Sides of the least rectangle round a plate, however it lies; long and wide, mm."""
    box = minimum_rotated_rectangle(Polygon(outline.points(CHORD_MM)))
    if not isinstance(box, Polygon):
        return 0.0, 0.0
    corners = np.array(box.exterior.coords)
    one, two = (float(np.linalg.norm(corners[k + 1] - corners[k])) for k in (0, 1))
    return max(one, two), min(one, two)


def _links(inputs: Inputs) -> list[Needed]:
    """Tubes of all links, from joint to joint: what their threads and bungs take off is their maker's."""
    out: list[Needed] = []
    for own in inputs.design.suspensions:
        high = hub_height(inputs.survey, own, towards_rail(inputs.design.targets, own.axle))
        x = own.hub_x_mm if own.hub_x_mm is not None else 0.0 if own.axle == "front" else inputs.survey.wheelbase_mm
        if high is None or x is None:
            continue
        for named in own.layout.links():
            tube = named.link.tube
            long = math.dist(on_axle(named.link.axle, (x, 0.0, high)), named.link.frame.xyz())
            out.append(
                TubeNeeded(
                    name=f"{own.axle} {named.name.partition(', ')[0]}, joint to joint",
                    od_mm=tube.od_mm,
                    wall_mm=tube.wall_mm,
                    long_mm=long,
                    steel_id=tube.steel_id,
                )
            )
    return out


def _tubes(rows: Iterable[TubeNeeded]) -> tuple[TubeNeeded, ...]:
    """Alike ones counted together, by size, the longest first."""
    counted: dict[tuple[object, ...], TubeNeeded] = {}
    for row in rows:
        key = (row.name, *sold_as(row), round(row.long_mm, 1))
        known = counted.get(key)
        counted[key] = row if known is None else known.model_copy(update={"count": known.count + row.count})
    return tuple(sorted(counted.values(), key=lambda r: (*sold_as(r), -r.long_mm)))


def sold_as(row: TubeNeeded) -> tuple[str, float, float, float, str]:
    """What is asked for over the counter: profile, outside, width, wall and steel."""
    return (row.profile, row.od_mm, row.wide_mm, row.wall_mm, row.steel_id)


def _bolts(rows: Iterable[BoltsNeeded]) -> tuple[BoltsNeeded, ...]:
    """Alike ones counted together."""
    counted: dict[tuple[object, ...], BoltsNeeded] = {}
    for row in rows:
        key = (
            row.name,
            row.size,
            row.grade,
            round(bolt_length_mm(row), 1),
            row.weld_washers,
            row.captive,
            row.socket_mm,
        )
        known = counted.get(key)
        counted[key] = row if known is None else known.model_copy(update={"count": known.count + row.count})
    return tuple(sorted(counted.values(), key=lambda r: (r.size, r.grade, r.grip_mm)))


NUT_SHARE, WASHER_SHARE, THREADS = 0.9, 0.2, 2.0
"""Heights of a nut and of a washer over the bolt's diameter, and threads that stand out of the nut (common practice)."""
STEP_MM, STEP_INCH_MM = 5.0, 25.4 / 4
"""Lengths that bolts are sold in (common practice)."""


def bolt_length_mm(row: BoltsNeeded) -> float:
    """Length under the head: grip, a washer at both ends, nut and two threads, up to the next that is sold."""
    size = find_bolt(row.size, row.grade).size
    d = size.diameter_mm
    least = row.grip_mm + (2 * WASHER_SHARE + NUT_SHARE) * d + THREADS * size.pitch_mm
    step = STEP_INCH_MM if size.thread == "UN" else STEP_MM
    return math.ceil(least / step - 1e-9) * step


def _welds(seams: Iterable[Seam]) -> tuple[WeldMetal, ...]:
    lengths: dict[tuple[str, float], float] = {}
    for seam in seams:
        key = (seam.kind, seam.leg_mm)
        lengths[key] = lengths.get(key, 0.0) + seam.welded_mm
    return tuple(
        WeldMetal(kind=kind, leg_mm=leg, length_mm=long, volume_mm3=long * bead_mm2(kind, leg))
        for (kind, leg), long in sorted(lengths.items())
        if long > 0
    )
