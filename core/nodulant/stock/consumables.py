"""What is used up in making a design: discs by what is cut and ground, drills and hole saws by its holes.

How far a disc goes is common practice of a fabrication shop, thin wheels on an angle grinder.
"""

import math
from collections.abc import Iterable

from nodulant.base.model import Frozen
from nodulant.frame.ops.hole import WebHole
from nodulant.frame.parts import Work
from nodulant.parts.bought import BoltsNeeded, Needed
from nodulant.units.inline import as_length, as_thickness

CUT_MM2_PER_DISC, GROUND_MM_PER_FLAP = 8_000.0, 3_000.0
"""Metal section that a thin disc parts, and length of weld or edge that a flap disc dresses."""
THIN, FLAP = "thin cutting discs", "flap discs"
PILOT_MM, STEP_FROM_MM, SAW_FROM_MM = 3.175, 8.0, 14.0
"""Every hole begins with a pilot; from here it has a step between, and from here a hole saw makes it."""


class ToolRow(Frozen):
    """A disc, drill or saw: what it is called, how many, and why."""

    what: str
    count: int
    words: str
    key: str
    """By what name it lies on the shop's shelf."""


def tool_rows(works: Iterable[Work], bought: Iterable[Needed]) -> tuple[ToolRow, ...]:
    """Of all operations on both rails, and of what is ``bought`` for them."""
    own = tuple(works)
    return (*_discs(own), *_drills(own, [b for b in bought if isinstance(b, BoltsNeeded)]))


def _discs(works: tuple[Work, ...]) -> list[ToolRow]:
    parted = [_parted(work) for work in works]
    cut, long = sum(area for area, _ in parted), sum(length for _, length in parted)
    ground = sum(seam.welded_mm for work in works for seam in work.seams if seam.ground)
    edges = sum(edge.length_mm() for work in works if (edge := work.op.cut_edge()) is not None)
    rows = []
    if cut > 0:
        words = f"{as_length(long)} of cut through the rails' walls"
        rows.append(ToolRow(what=THIN, count=math.ceil(cut / CUT_MM2_PER_DISC), words=words, key=THIN))
    if ground + edges > 0:
        words = f"{as_length(ground + edges)} of butts ground flush and edges dressed"
        rows.append(ToolRow(what=FLAP, count=math.ceil((ground + edges) / GROUND_MM_PER_FLAP), words=words, key=FLAP))
    return rows


def _parted(work: Work) -> tuple[float, float]:
    """Section of rail that its cuts part, mm2, and how long they are, mm: saw lines through it, edges through its walls."""
    here = work.on.here
    walls = 2 if work.on.rail.closed or here.boxed else 1
    edge = work.op.cut_edge()
    if edge is not None:
        long = walls * edge.length_mm()
    else:
        long = sum(walls * cut.length_mm() + 2 * here.width for cut in work.op.cut_lines(work.on))
    return long * here.wall, long


def _drills(works: tuple[Work, ...], bolts: list[BoltsNeeded]) -> list[ToolRow]:
    """The chain for every size: pilot, a step between, the final drill or hole saw; sockets' holes too."""
    sizes: dict[float, int] = {}
    for row in bolts:
        if row.socket_mm is not None:
            sizes[row.socket_mm] = sizes.get(row.socket_mm, 0) + row.count
    for work in works:
        for part in work.parts:
            for hole in part.holes:
                sizes[round(hole.diameter_mm, 2)] = sizes.get(round(hole.diameter_mm, 2), 0) + part.count
        if isinstance(work.op, WebHole) and work.op.drills:
            size = round(work.op.diameter_mm, 2)
            sizes[size] = sizes.get(size, 0) + 1
    if not sizes:
        return []
    every = sum(sizes.values())
    rows = [_tool(PILOT_MM, "pilot drill", every)]
    stepped = sum(n for size, n in sizes.items() if size >= STEP_FROM_MM)
    if stepped:
        rows.append(_tool(STEP_FROM_MM * 0.75, "step between drill", stepped))
    rows += [_tool(size, "hole saw" if size >= SAW_FROM_MM else "drill", n) for size, n in sorted(sizes.items())]
    return rows


def _tool(size: float, name: str, holes: int) -> ToolRow:
    words = f"{holes} {'hole' if holes == 1 else 'holes'}"
    return ToolRow(what=f"{name}, {as_thickness(size)}", count=1, words=words, key=f"{name} {size:g}")
