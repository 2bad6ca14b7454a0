"""The frame: surveyed rails and the operations on them; ``sections`` is the only way to a section."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import cached_property, lru_cache

import numpy as np

from nodulant.base.arrays import Columns
from nodulant.base.errors import InputError
from nodulant.base.memo import remembered
from nodulant.frame.additions import Hole, named
from nodulant.frame.assembly import SectionColumns, section_columns, section_pieces
from nodulant.frame.columns import rail_columns
from nodulant.frame.here import Span
from nodulant.frame.layout import Layout, lay_out
from nodulant.frame.ops.notches.tube_parts import refuse_flat_plates
from nodulant.frame.ops.union import Operation
from nodulant.frame.route import Route, route_of
from nodulant.frame.softened import softened
from nodulant.frame.state import FrameState, PartState
from nodulant.materials import find_steel
from nodulant.parts.part import part_id
from nodulant.parts.sides import Side, on_sides
from nodulant.sections.properties import Properties, combine
from nodulant.survey.rail import Rail
from nodulant.survey.vehicle import Feature, Survey
from nodulant.units.inline import as_length


@dataclass(frozen=True)
class Placed:
    """An operation on one rail with its stations resolved and measured values put in, mm."""

    op: Operation
    index: int
    start_mm: float
    end_mm: float
    kinks: tuple[float, ...] = ()
    """Stations where its plates begin, end or are fully brought in."""

    @cached_property
    def span(self) -> Span:
        """Where it works."""
        return Span(self.start_mm, self.end_mm)

    @property
    def centre_mm(self) -> float:
        """Middle of the operation."""
        return (self.start_mm + self.end_mm) / 2

    @cached_property
    def cuts(self) -> tuple[Span, ...]:
        """Where it takes stock metal out."""
        return self.op.cut_spans(self.span)


@lru_cache(maxsize=256)
def _kinks(op: Operation, span: Span, rail: Rail) -> tuple[float, ...]:
    """Where the plates of an operation begin, end or are fully brought in, stations of the stock rail."""
    if not op.roles():
        return ()
    x = np.unique(np.array([rail.start_mm, span.start_mm, span.centre_mm, span.end_mm, rail.end_mm]))
    made = op.additions(span, rail_columns(rail, x), frozenset(op.roles()), True)
    return tuple(x for plate in made.plates for x in plate.kinks)


@remembered(8)
def planned_state(operations: tuple[Operation, ...]) -> FrameState:
    """The state with every cut made and every part welded on."""
    parts: dict[str, PartState] = {
        part_id(op.id, role, side): "welded" for op in operations for side in on_sides(op.side) for role in op.roles()
    }
    return FrameState(name="planned", cuts=frozenset(op.id for op in operations), parts=parts)


STOCK = FrameState(name="stock")


@remembered(24)
def placed_on(survey: Survey, operations: tuple[Operation, ...], side: Side, state: FrameState) -> tuple[Placed, ...]:
    """Operations on one rail with measured values in; raises InputError where one cannot be."""
    out = [
        placed
        for index, planned in enumerate(operations)
        if (placed := place_one(survey, planned, index, side, state)) is not None
    ]
    _no_clash(out)
    return tuple(out)


def place_one(survey: Survey, planned: Operation, index: int, side: Side, state: FrameState) -> Placed | None:
    """One operation by itself on one rail; None where it is not on that side. Raises InputError where it cannot be."""
    if side not in on_sides(planned.side):
        return None
    op = planned.as_measured(state.measured_for(planned.id, side))
    return _placed(op, index, survey.rails.of(side), survey.features)


@lru_cache(maxsize=256)
def _placed(op: Operation, index: int, rail: Rail, features: tuple[Feature, ...]) -> Placed:
    field = f"/design/operations/{index}"
    span = op.span(rail, features, field)
    op.refuse(_height_at(rail, span.centre_mm), field)
    if rail.kind == "round-tube":
        refuse_flat_plates(op, field)
    placed = Placed(op, index, span.start_mm, span.end_mm)
    _on_the_rail(placed, rail.start_mm, rail.end_mm, field)
    measured = all(s.wall_mm is not None for s in rail.stations)
    return replace(placed, kinks=_kinks(op, span, rail)) if measured else placed


def _height_at(rail: Rail, x_mm: float) -> float:
    return float(np.interp(x_mm, [s.x_mm for s in rail.stations], [s.height_mm for s in rail.stations]))


def _on_the_rail(placed: Placed, start: float, end: float, field: str) -> None:
    front, rear = placed.op.place_fields()
    if placed.end_mm <= placed.start_mm:
        raise InputError(
            "this ends before it starts",
            field=f"{field}/{rear}",
            found=as_length(placed.end_mm),
            acceptable=f"more than {as_length(placed.start_mm)}",
        )
    if placed.start_mm < start or placed.end_mm > end:
        raise InputError(
            "this lies beyond the end of the rail",
            field=f"{field}/{front if placed.start_mm < start else rear}",
            found=f"station {as_length(placed.start_mm)} to {as_length(placed.end_mm)}",
            acceptable=f"station {as_length(start)} to {as_length(end)}",
        )


def _no_clash(placed: Sequence[Placed]) -> None:
    """Refuse two cuts in one place, and an operation that begins or ends inside another's cut."""
    for i, one in enumerate(placed):
        for cut in one.cuts:
            for two in (*placed[:i], *placed[i + 1 :]):
                met = next((other for other in two.cuts if _touch(cut, other)), None)
                if two.index < one.index and met is not None:
                    raise InputError(
                        f"'{one.op.name}' and '{two.op.name}' overlap",
                        field=f"/design/operations/{one.index}/{one.op.place_fields()[0]}",
                        found=f"cuts at station {cut.start_mm:.0f} to {cut.end_mm:.0f} and {as_length(met.start_mm)} to {as_length(met.end_mm)}",
                        acceptable=f"cuts that do not touch: {as_length(met.end_mm - cut.start_mm)} further back, or {as_length(cut.end_mm - met.start_mm)} ahead",
                    )
                _no_end_inside(two, one, cut)


def _touch(a: Span, b: Span) -> bool:
    return a.start_mm < b.end_mm and b.start_mm < a.end_mm


def _no_end_inside(plate: Placed, cutting: Placed, cut: Span) -> None:
    for name, x in zip(plate.op.place_fields(), (plate.start_mm, plate.end_mm), strict=True):
        if plate.op.on_rail and not plate.cuts and cut.start_mm <= x <= cut.end_mm:
            raise InputError(
                f"'{plate.op.name}' ends inside the cut '{cutting.op.name}'",
                field=f"/design/operations/{plate.index}/{name}",
                found=f"station {as_length(x)}",
                acceptable=f"outside {as_length(cut.start_mm)} to {as_length(cut.end_mm)}",
            )


def route_on(survey: Survey, operations: tuple[Operation, ...], side: Side, state: FrameState) -> Route:
    """Where the rail of ``side`` runs once the cuts of ``state`` are made."""
    placed = [p for p in placed_on(survey, operations, side, state) if p.op.id in state.cuts]
    return route_through(survey, placed, side)


def route_through(survey: Survey, placed: Sequence[Placed], side: Side) -> Route:
    """The route of one rail through operations that are already placed."""
    datum = next(f.x_mm for f in survey.features if f.id == survey.datum.feature_id)
    return route_of([move for p in placed for move in p.op.moves(p.span, side)], datum)


@dataclass(frozen=True)
class _Carried:
    """An operation made on one rail with the roles that are welded on; compares by content."""

    op: Operation
    start_mm: float
    end_mm: float
    roles: frozenset[str]
    boxed: bool


def _carried(survey: Survey, operations: tuple[Operation, ...], side: Side, state: FrameState) -> tuple[_Carried, ...]:
    made = [p for p in placed_on(survey, operations, side, state) if p.op.id in state.cuts]
    boxes = [p for p in made if p.op.closes is not None and state.carries(part_id(p.op.id, "boxing", side))]
    out = []
    for p in made:
        roles = frozenset(role for role in p.op.roles() if state.carries(part_id(p.op.id, role, side)))
        boxed = any(b.start_mm <= p.start_mm and p.end_mm <= b.end_mm for b in boxes)
        out.append(_Carried(p.op.model_copy(update={"side": "both"}), p.start_mm, p.end_mm, roles, boxed))
    return tuple(out)


def layout(survey: Survey, operations: tuple[Operation, ...], side: Side, x: Columns, state: FrameState) -> Layout:
    """The rail of ``side`` in ``state`` at stations ``x``, ready to be sectioned."""
    made = _carried(survey, operations, side, state)
    return _layout(survey.rails.of(side), made, x, _holes(survey, side), sound=state.name == "stock")


def _layout(rail: Rail, carried: tuple[_Carried, ...], x: Columns, holes: tuple[Hole, ...], sound: bool) -> Layout:
    columns = rail_columns(rail, x, sound)
    spans = [Span(c.start_mm, c.end_mm) for c in carried]
    for c, span in zip(carried, spans, strict=True):
        columns = c.op.rework(columns, span, c.roles)
    additions = [
        named(c.op.additions(span, columns, c.roles, c.boxed or rail.closed), c.op.id)
        for c, span in zip(carried, spans, strict=True)
    ]
    return lay_out(columns, additions, holes)


def _holes(survey: Survey, side: Side) -> tuple[Hole, ...]:
    return tuple(
        Hole(f.x_mm, f.height_mm, f.diameter_mm)
        for f in survey.features
        if f.kind == "hole" and side in on_sides(f.side) and f.height_mm is not None and f.diameter_mm is not None
    )


def bending_properties(
    survey: Survey, operations: tuple[Operation, ...], side: Side, x: Columns, state: FrameState
) -> Properties:
    """Bending properties alone of one rail at ``x``, what welds take from the metal beside them not counted."""
    carried = _carried(survey, operations, side, state)
    return _bending_properties(survey.rails.of(side), carried, x.tobytes(), _holes(survey, side))


@lru_cache(maxsize=64)
def _bending_properties(rail: Rail, carried: tuple[_Carried, ...], x: bytes, holes: tuple[Hole, ...]) -> Properties:
    return combine(section_pieces(_layout(rail, carried, np.frombuffer(x), holes, sound=False)))


def sections(
    survey: Survey, operations: tuple[Operation, ...], side: Side, x: Columns, state: FrameState
) -> SectionColumns:
    """Sections of one rail at stations ``x`` in ``state``, remembered by content: equal rails share."""
    if state is STOCK:
        return _stock_sections(survey.rails.of(side), x.tobytes(), _holes(survey, side))
    return _sections(
        survey.rails.of(side),
        _carried(survey, operations, side, state),
        x.tobytes(),
        _holes(survey, side),
        state.name == "stock",
    )


@lru_cache(maxsize=16)
def _stock_sections(rail: Rail, x: bytes, holes: tuple[Hole, ...]) -> SectionColumns:
    """Sections of a rail as it came: each different one is worked out once, wherever along the rail it is asked for."""
    whole = _layout(rail, (), np.frombuffer(x), holes, sound=True)
    own = whole.rail
    sizes = np.stack([own.height, own.width, own.wall, *(hole.half(own.x) for hole in holes)])
    _, first, which = np.unique(sizes, axis=1, return_index=True, return_inverse=True)
    each = _sections(rail, (), own.x[first].tobytes(), holes, sound=True)
    return each.at_stations(which, whole)


@lru_cache(maxsize=64)
def _sections(
    rail: Rail, carried: tuple[_Carried, ...], x: bytes, holes: tuple[Hole, ...], sound: bool
) -> SectionColumns:
    at: Columns = np.frombuffer(x)
    welds = [Span(c.start_mm, c.end_mm) for c in carried if c.roles and c.op.welded]
    section = section_columns(_layout(rail, carried, at, holes, sound))
    return softened(section, at, find_steel(rail.steel_id), welds)
