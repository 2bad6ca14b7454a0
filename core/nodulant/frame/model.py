"""The frame: surveyed rails and the operations on them; ``sections`` is the only way to a section."""

from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from nodulant.base.arrays import Columns
from nodulant.base.errors import InputError
from nodulant.frame.additions import Additions
from nodulant.frame.assembly import Hole, Layout, SectionColumns, lay_out, section_columns
from nodulant.frame.columns import rail_at, rail_columns
from nodulant.frame.ops.boxing import Boxing, boxing_additions
from nodulant.frame.ops.notch import Notch, check_depth
from nodulant.frame.ops.notch_sections import notch_additions
from nodulant.frame.ops.union import Operation
from nodulant.frame.place import resolve
from nodulant.frame.state import FrameState, PartState
from nodulant.parts.part import part_id
from nodulant.parts.sides import Side, on_sides
from nodulant.survey.rail import Rail
from nodulant.survey.vehicle import Survey

NOTCH_ROLES = ("liner", "outer", "inner", "cap")


@dataclass(frozen=True)
class Placed:
    """An operation on one rail with its stations resolved and measured values put in, mm."""

    op: Operation
    index: int
    start_mm: float
    end_mm: float

    @property
    def centre_mm(self) -> float:
        """Middle of the operation."""
        return (self.start_mm + self.end_mm) / 2


def part_roles(op: Operation) -> tuple[str, ...]:
    """Roles of the parts that ``op`` adds, in the order they are fitted."""
    if isinstance(op, Boxing):
        return ("boxing",)
    have = {"liner": op.liner, "outer": op.outer_plate, "inner": op.inner_plate, "cap": op.cap}
    return tuple(role for role in NOTCH_ROLES if have[role] is not None)


def planned_state(operations: tuple[Operation, ...]) -> FrameState:
    """The state with every cut made and every part welded on."""
    parts: dict[str, PartState] = {
        part_id(op.id, role, side): "welded"
        for op in operations
        for side in on_sides(op.side)
        for role in part_roles(op)
    }
    return FrameState(name="planned", cuts=frozenset(op.id for op in operations), parts=parts)


STOCK = FrameState(name="stock")


def placed_on(survey: Survey, operations: tuple[Operation, ...], side: Side, state: FrameState) -> list[Placed]:
    """Operations on one rail with measured values in; raises InputError where one cannot be."""
    rail, out = survey.rails.of(side), []
    for index, planned in enumerate(operations):
        if side not in on_sides(planned.side):
            continue
        op, field = planned.as_measured(state.measured_for(planned.id, side)), f"/design/operations/{index}"
        if isinstance(op, Notch):
            centre = resolve(op.place, survey.features, f"{field}/place")
            check_depth(
                op, rail_at(rail, centre)[1] if _walls(survey, side) else _height_at(survey, side, centre), field
            )
            placed = Placed(op, index, centre - op.half_mouth_mm, centre + op.half_mouth_mm)
        else:
            placed = Placed(
                op,
                index,
                resolve(op.start, survey.features, f"{field}/start"),
                resolve(op.end, survey.features, f"{field}/end"),
            )
        _on_the_rail(placed, rail.start_mm, rail.end_mm, field)
        out.append(placed)
    _no_clash(out)
    return out


def _walls(survey: Survey, side: Side) -> bool:
    return all(s.wall_mm is not None for s in survey.rails.of(side).stations)


def _height_at(survey: Survey, side: Side, x_mm: float) -> float:
    stations = survey.rails.of(side).stations
    return float(np.interp(x_mm, [s.x_mm for s in stations], [s.height_mm for s in stations]))


def _on_the_rail(placed: Placed, start: float, end: float, field: str) -> None:
    if placed.end_mm <= placed.start_mm:
        raise InputError(
            "the plate ends before it starts",
            field=f"{field}/end/offset_mm",
            found=f"{placed.end_mm:.1f} mm",
            acceptable=f"more than {placed.start_mm:.1f} mm",
        )
    if placed.start_mm < start or placed.end_mm > end:
        where = (
            "place/offset_mm"
            if isinstance(placed.op, Notch)
            else ("start/offset_mm" if placed.start_mm < start else "end/offset_mm")
        )
        raise InputError(
            "this lies beyond the end of the rail",
            field=f"{field}/{where}",
            found=f"station {placed.start_mm:.1f} to {placed.end_mm:.1f} mm",
            acceptable=f"station {start:.1f} to {end:.1f} mm",
        )


def _no_clash(placed: list[Placed]) -> None:
    cuts = [p for p in placed if isinstance(p.op, Notch)]
    for i, one in enumerate(cuts):
        for two in cuts[:i]:
            if one.start_mm < two.end_mm and two.start_mm < one.end_mm:
                raise InputError(
                    f"'{one.op.name}' and '{two.op.name}' overlap",
                    field=f"/design/operations/{one.index}/place/offset_mm",
                    found="two cuts in one place",
                    acceptable="cuts that do not touch",
                )
        for box in (p for p in placed if isinstance(p.op, Boxing)):
            for name, x in (("start", box.start_mm), ("end", box.end_mm)):
                if one.start_mm <= x <= one.end_mm:
                    raise InputError(
                        f"'{box.op.name}' ends inside the cut '{one.op.name}'",
                        field=f"/design/operations/{box.index}/{name}/offset_mm",
                        found=f"station {x:.1f} mm",
                        acceptable=f"outside {one.start_mm:.1f} to {one.end_mm:.1f} mm",
                    )


@dataclass(frozen=True)
class _Carried:
    """An operation made on one rail with the roles that are welded on; compares by content."""

    op: Operation
    start_mm: float
    end_mm: float
    roles: frozenset[str]
    boxed: bool

    @property
    def centre_mm(self) -> float:
        return (self.start_mm + self.end_mm) / 2


def _carried(survey: Survey, operations: tuple[Operation, ...], side: Side, state: FrameState) -> tuple[_Carried, ...]:
    made = [p for p in placed_on(survey, operations, side, state) if p.op.id in state.cuts]
    boxes = [p for p in made if isinstance(p.op, Boxing) and state.carries(part_id(p.op.id, "boxing", side))]
    out = []
    for p in made:
        roles = frozenset(role for role in part_roles(p.op) if state.carries(part_id(p.op.id, role, side)))
        boxed = any(b.start_mm <= p.start_mm and p.end_mm <= b.end_mm for b in boxes)
        out.append(_Carried(p.op.model_copy(update={"side": "both"}), p.start_mm, p.end_mm, roles, boxed))
    return tuple(out)


def layout(survey: Survey, operations: tuple[Operation, ...], side: Side, x: Columns, state: FrameState) -> Layout:
    """The rail of ``side`` in ``state`` at stations ``x``, ready to be sectioned."""
    return _layout(survey.rails.of(side), _carried(survey, operations, side, state), x, _holes(survey, side))


def _layout(rail: Rail, carried: tuple[_Carried, ...], x: Columns, holes: tuple[Hole, ...]) -> Layout:
    columns = rail_columns(rail, x)
    additions: list[Additions] = []
    for c in carried:
        if isinstance(c.op, Notch):
            additions.append(notch_additions(c.op, c.centre_mm, columns, c.roles, c.boxed))
        else:
            additions.append(boxing_additions(c.op, c.start_mm, c.end_mm, columns, c.roles))
    return lay_out(columns, additions, holes)


def _holes(survey: Survey, side: Side) -> tuple[Hole, ...]:
    return tuple(
        Hole(f.x_mm, f.height_mm, f.diameter_mm)
        for f in survey.features
        if f.kind == "hole" and side in on_sides(f.side) and f.height_mm is not None and f.diameter_mm is not None
    )


def sections(
    survey: Survey, operations: tuple[Operation, ...], side: Side, x: Columns, state: FrameState
) -> SectionColumns:
    """Sections of one rail at stations ``x`` in ``state``, remembered by content: equal rails share."""
    return _sections(
        survey.rails.of(side), _carried(survey, operations, side, state), x.tobytes(), _holes(survey, side)
    )


@lru_cache(maxsize=64)
def _sections(rail: Rail, carried: tuple[_Carried, ...], x: bytes, holes: tuple[Hole, ...]) -> SectionColumns:
    return section_columns(_layout(rail, carried, np.frombuffer(x), holes))
