"""What shrinking welds do to a rail: it bows along, and shortens across a butt.

Bow of a weld along a member, any one unit of length: delta = 0.005 A_w d L^2 / I, with A_w the weld's cross-section,
d its distance from the neutral axis, L the length that is welded; a butt draws its two edges together by about
0.10 A_w / t (Blodgett, *Design of Welded Structures*, section 7.7, from memory). A weld askew counts by the square
of its cosine. Welds on both sides of the neutral axis work against each other, but only where they are laid by turns:
a side that is welded out first bows the rail before the other can hold it.
"""

from collections.abc import Iterable
from dataclasses import dataclass
from itertools import pairwise
from typing import Literal

import numpy as np

from nodulant.base.model import Frozen
from nodulant.frame.model import bending_properties, planned_state
from nodulant.frame.ops.union import Operation
from nodulant.frame.parts import Work
from nodulant.materials.weld import bead_mm2
from nodulant.parts.part import Seam
from nodulant.parts.sides import Side
from nodulant.survey.vehicle import Survey

BOW, ACROSS = 0.005, 0.10
LEAST_RUN_MM = 100.0
"""Shorter than this nothing runs along a rail."""


class Bend(Frozen):
    """How far the middle of the welded stretch moves against its ends, mm: by turns, and where one edge is welded out first."""

    side: Side
    way: Literal["up and down", "in and out"]
    run_mm: float
    by_turns_mm: float
    one_go_mm: float
    towards: str


class Shrink(Frozen):
    """How much a rail gets shorter across its butts, mm."""

    side: Side
    butts: int
    shorter_mm: float


@dataclass(frozen=True)
class Pull:
    """A stretch of weld: A_w dl cos^2 (mm3) at y and z of the section (mm)."""

    volume_mm3: float
    y_mm: float
    z_mm: float


def bow_mm(area_mm2: float, lever_mm: float, run_mm: float, inertia_mm4: float) -> float:
    """Blodgett's bow of one weld along a member."""
    return BOW * area_mm2 * lever_mm * run_mm**2 / inertia_mm4


def bends_of(survey: Survey, operations: tuple[Operation, ...], work: Work) -> tuple[Bend, ...]:
    """How the welds of one operation bow its rail; none where nothing runs along it."""
    pulls, low, high = _pulls(work)
    run = high - low
    if not pulls or run < LEAST_RUN_MM:
        return ()
    at = np.array([low + run / 4, (low + high) / 2, high - run / 4])
    section = bending_properties(survey, operations, work.on.side, at, planned_state(operations))
    weak = int(np.argmin(section.i_y))
    y, z = float(section.centroid_y[weak]), float(section.centroid_z[weak]) + work.on.here.underside
    rows = (
        ("up and down", [p.volume_mm3 * (p.z_mm - z) for p in pulls], float(section.i_y[weak]), ("up", "down")),
        ("in and out", [p.volume_mm3 * (p.y_mm - y) for p in pulls], float(section.i_z[weak]), ("inward", "outward")),
    )
    return tuple(_bend(work.on.side, way, couples, inertia, run, ends) for way, couples, inertia, ends in rows)  # type: ignore[arg-type]


def _bend(
    side: Side,
    way: Literal["up and down", "in and out"],
    couples: list[float],
    inertia: float,
    run: float,
    ends: tuple[str, str],
) -> Bend:
    """Metal shortens on the welded side: the middle bows away from it."""
    over, under = sum(c for c in couples if c > 0), sum(c for c in couples if c < 0)
    each = [bow_mm(1.0, c / run, run, inertia) for c in (over + under, over, under)]
    return Bend(
        side=side,
        way=way,
        run_mm=run,
        by_turns_mm=abs(each[0]),
        one_go_mm=max(abs(each[1]), abs(each[2])),
        towards=ends[1] if each[0] > 0 else ends[0],
    )


def _pulls(work: Work) -> tuple[list[Pull], float, float]:
    """Every stretch that runs along the rail, and from where to where."""
    faces = {p.id: p.face for p in work.parts}
    here, out, ends = work.on.here, list[Pull](), list[float]()
    for seam in work.seams:
        face = faces.get(seam.part_b) or faces.get(seam.part_a)
        if seam.kind == "butt" or face is None or face in {"axle", "across"}:
            continue
        points = np.array(seam.path.points(0.5))
        if seam.path.closed:
            points = np.vstack([points, points[:1]])
        for (x0, y0), (x1, y1) in pairwise(points):
            long = float(np.hypot(x1 - x0, y1 - y0))
            along = abs(x1 - x0) / long if long > 0 else 0.0
            if along < 0.5:
                continue
            volume = bead_mm2(seam.kind, seam.leg_mm) * long * along**2 * seam.welded_share
            middle = (y0 + y1) / 2
            side = {"outer": 0.0, "inner": here.closed_width}.get(face)
            flat = here.underside + (here.height if face == "top" else 0.0)
            out.append(Pull(volume, *((middle, flat) if side is None else (side, middle))))
            ends += [x0, x1]
    return out, min(ends, default=0.0), max(ends, default=0.0)


def shrink_of(work: Work, seams: Iterable[Seam]) -> Shrink | None:
    """How much shorter the rail gets across the butts of an operation."""
    butts = [s for s in seams if s.kind == "butt" and s.part_a.startswith("rail/")]
    if not butts:
        return None
    shorter = sum(ACROSS * bead_mm2("butt", s.leg_mm) / work.on.here.wall for s in butts)
    return Shrink(side=work.on.side, butts=len(butts), shorter_mm=shorter)
