"""One sheet per operation: every part once, every seam with its leg and length, in the order they are made.

Left and right share a row where they are alike. The sheets' welds are the weld map, their parts the parts list.
"""

from collections.abc import Iterable
from typing import Literal

from nodulant.assembly.view import View, view_of
from nodulant.base.model import Frozen
from nodulant.frame.added_ties import tie_works
from nodulant.frame.model import placed_on, planned_state
from nodulant.frame.parts import Work, work_on
from nodulant.job.document import Inputs
from nodulant.job.riding import in_place
from nodulant.materials import find_steel
from nodulant.parts.bought import BoltsNeeded
from nodulant.parts.part import Part, Seam
from nodulant.parts.sides import LEFT_RIGHT, Side, Sides

BENCH, ORDER = 0, {"butt": 1, "fillet": 2, "plug": 3}
"""Butts first: side plates lie over them once they are ground (common practice)."""
STITCH_MM = 40.0
"""Length of one bead where a seam is not welded all along (common practice: 25 to 50 mm)."""
ALIKE_MM = 0.5


class PartRow(Frozen):
    """A part by its number on the sheet, kg and mm; ``count`` over all its sides."""

    number: int
    name: str
    side: Sides
    count: int
    thickness_mm: float
    steel: str
    mass_kg: float
    """Of all of them."""


class WeldRow(Frozen):
    """A seam by its number on the sheet; lengths mm, of one side."""

    number: int
    joins: tuple[str, str]
    side: Sides
    kind: Literal["fillet", "butt", "plug"]
    leg_mm: float
    seam_mm: float
    """From end to end."""
    bead_mm: float
    """What of it is welded."""
    stitch_mm: float | None = None
    pitch_mm: float | None = None
    """From the middle of one bead to that of the next; None where it runs through."""
    all_round: bool = False
    ground: bool = False

    @property
    def total_mm(self) -> float:
        """Bead of all its sides."""
        return self.bead_mm * (2 if self.side == "both" else 1)


class AssemblySheet(Frozen):
    """What one operation is made of."""

    operation: str
    name: str
    parts: tuple[PartRow, ...]
    welds: tuple[WeldRow, ...]
    bolts: tuple[BoltsNeeded, ...]
    view: View

    @property
    def mass_kg(self) -> float:
        """Of all its parts."""
        return sum(p.mass_kg for p in self.parts)

    @property
    def bead_mm(self) -> float:
        """Of all its welds."""
        return sum(w.total_mm for w in self.welds)


Numbered = list[tuple[WeldRow, list[tuple[Side, Seam]]]]
"""Rows of welds, each with the seams that it stands for."""


def assembly_sheets(inputs: Inputs) -> tuple[AssemblySheet, ...]:
    """One for each operation that adds metal; raises InputError and UnknownReference."""
    inputs = in_place(inputs)
    works = works_of(inputs)
    ordered = [works.pop(op.id) for op in inputs.design.operations if op.id in works]
    made = (_sheet(inputs, own) for own in (*ordered, *works.values()))
    return tuple(sheet for sheet in made if sheet.parts or sheet.welds or sheet.bolts)


def works_of(inputs: Inputs) -> dict[str, dict[Side, Work]]:
    """What each operation gives on each rail, of inputs that stand in place; added crossmembers last.

    Raises InputError and UnknownReference.
    """
    survey, ops = inputs.survey, inputs.design.operations
    state = planned_state(ops)
    works: dict[str, dict[Side, Work]] = {}
    for side in LEFT_RIGHT:
        for work in work_on(survey, side, placed_on(survey, ops, side, state)):
            works.setdefault(work.op.id, {})[side] = work
    for work in tie_works(survey, ops, inputs.design.crossmembers):
        works[work.op.id] = {work.on.side: work}
    return works


def numbered_welds(works: dict[Side, Work]) -> Numbered:
    """The welds of one operation as its sheet numbers them."""
    parts = _numbered(p for work in works.values() for p in work.parts)
    return _welds(((side, seam) for side, work in works.items() for seam in work.seams), _names(parts))


def _sheet(inputs: Inputs, works: dict[Side, Work]) -> AssemblySheet:
    first = next(iter(works.values()))
    parts = _numbered(p for work in works.values() for p in work.parts)
    welds = _welds(((side, seam) for side, work in works.items() for seam in work.seams), _names(parts))
    numbers = {p.id: row.number for row, own in parts for p in own}
    view = view_of(inputs, first, numbers, [(row.number, own[0][1]) for row, own in welds])
    return AssemblySheet(
        operation=first.op.id,
        name=first.op.name,
        parts=tuple(row for row, _ in parts),
        welds=tuple(row for row, _ in welds),
        bolts=tuple(b for work in works.values() for b in work.op.bought(work.on) if isinstance(b, BoltsNeeded)),
        view=view,
    )


def _names(parts: Iterable[tuple[PartRow, list[Part]]]) -> dict[str, str]:
    return {p.id: f"{row.number} {row.name}" for row, own in parts for p in own}


def _alike(part: Part) -> tuple[object, ...]:
    x0, y0, x1, y1 = part.outline.bounds()
    size = (round((x1 - x0) / ALIKE_MM), round((y1 - y0) / ALIKE_MM), round(abs(part.outline.area_mm2())))
    return (part.role, part.name, part.thickness_mm, part.steel_id, len(part.holes), *size)


def _sides(found: Iterable[Side]) -> Sides:
    sides = list(dict.fromkeys(found))
    return "both" if len(sides) == 2 else sides[0]


def _numbered(parts: Iterable[Part]) -> list[tuple[PartRow, list[Part]]]:
    """Alike parts of both sides in one row, in the order they are fitted."""
    found: dict[tuple[object, ...], list[Part]] = {}
    for part in parts:
        found.setdefault(_alike(part), []).append(part)
    return [
        (
            PartRow(
                number=k,
                name=own[0].name,
                side=_sides(p.side for p in own),
                count=sum(p.count for p in own),
                thickness_mm=own[0].thickness_mm,
                steel=find_steel(own[0].steel_id).name,
                mass_kg=sum(p.mass_kg() for p in own),
            ),
            own,
        )
        for k, own in enumerate(found.values(), 1)
    ]


def _welds(seams: Iterable[tuple[Side, Seam]], names: dict[str, str]) -> Numbered:
    """Seams alike on both sides in one row: pieces are built on the bench, then butts, then what lies over them."""

    def turn(row: tuple[Side, Seam]) -> int:
        seam = row[1]
        return BENCH if seam.part_a in names and seam.part_b in names else ORDER[seam.kind]

    found: dict[tuple[object, ...], list[tuple[Side, Seam]]] = {}
    for side, seam in sorted(seams, key=turn):
        alike = (_joins(seam, names), seam.kind, seam.leg_mm, round(seam.welded_mm), seam.ground)
        nth = 0
        while any(other == side for other, _ in found.get((*alike, nth), ())):
            nth += 1
        found.setdefault((*alike, nth), []).append((side, seam))
    return [(_row(k, own, names), own) for k, own in enumerate(found.values(), 1)]


def _joins(seam: Seam, names: dict[str, str]) -> tuple[str, str]:
    return (_called(seam.part_a, names), _called(seam.part_b, names))


def _row(number: int, own: list[tuple[Side, Seam]], names: dict[str, str]) -> WeldRow:
    seam, share = own[0][1], own[0][1].welded_share
    stitched = share < 1.0 - 1e-9
    return WeldRow(
        number=number,
        joins=_joins(seam, names),
        side=_sides(side for side, _ in own),
        kind=seam.kind,
        leg_mm=seam.leg_mm,
        seam_mm=seam.welded_mm / share if share > 0 else 0.0,
        bead_mm=seam.welded_mm,
        stitch_mm=STITCH_MM if stitched else None,
        pitch_mm=STITCH_MM / share if stitched and share > 0 else None,
        all_round=seam.path.closed and not stitched and seam.long_mm is None,
        ground=seam.ground,
    )


def _called(id_: str, names: dict[str, str]) -> str:
    """A part by number and name; the frame's own metal by what it is."""
    if id_ in names:
        return names[id_]
    what, _, rest = id_.partition("/")
    return (
        "the rail behind"
        if rest.endswith("behind")
        else {"rail": "the rail", "axle": "the axle's tube"}.get(what, "the metal cut out")
    )
