"""Which plate lies where: offcuts first, then sheets one by one, for each thickness and steel."""

import math
from collections.abc import Generator, Iterable, Sequence
from itertools import groupby
from typing import NamedTuple

from shapely import Polygon, box
from shapely.affinity import translate

from nodulant.base.model import Frozen
from nodulant.job.document import Inputs
from nodulant.job.rack import Corner, MetalRack, Offcut, Sheet, corners_of
from nodulant.materials import find_steel
from nodulant.search.steps import Clock, Progress
from nodulant.stock.needs import blank_of
from nodulant.stock.nesting.no_fit import bottom_left, polygons_of
from nodulant.stock.nesting.piece import Laid, NestPiece, laid, nest_pieces, placed_shape
from nodulant.stock.nesting.strip import in_strip, turns_across
from nodulant.units.inline import as_length, as_thickness

SECONDS = 15.0
"""What a whole design's plates are given (common practice: nobody waits longer at the table)."""
EACH_S = 0.25
"""More than this for each plate finds nothing better."""
MOST_ON_OFFCUT, MOST_BETWEEN = 20, 10
"""Plates put by no-fit polygons on an offcut, and between those that lie on a sheet."""
SAME_MM = 0.05
"""Plate this near in thickness is the same plate."""
FULL = 0.8
"""A sheet that little pieces would fill to this holds them, to begin with."""
WORTH_MM = 100.0
"""What is left narrower than this is scrap."""
TOUCH_MM = 1e-6


class NestedSheet(Frozen):
    """One sheet or offcut with the plates on it, mm; its lower left corner is (0, 0)."""

    name: str
    offcut_id: str | None = None
    thickness_mm: float
    steel_id: str
    steel: str
    long_mm: float
    wide_mm: float
    corners: tuple[Corner, ...]
    pieces: tuple[Laid, ...]
    filled: float
    """Share of its area that the pieces take."""
    used_long_mm: float
    """How far along it the pieces reach, with the margin."""
    left: Offcut | None = None
    """What stays whole past the pieces, worth keeping."""
    price: float | None = None


def outline_of(sheet: NestedSheet) -> Polygon:
    """Its edge, mm."""
    return Polygon([(c.along_mm, c.across_mm) for c in sheet.corners])


class LeftOut(Frozen):
    """A plate that no sheet holds, and why."""

    name: str
    side: str
    words: str


class NestPlan(Frozen):
    """Sheets in the order they are cut; shares over what is bought and what is used of it."""

    sheets: tuple[NestedSheet, ...]
    left_out: tuple[LeftOut, ...]
    kerf_mm: float
    margin_mm: float
    pieces: int
    area_mm2: float
    """Of all plates."""
    used_mm2: float
    """Of sheets up to where the pieces reach, and of whole offcuts."""
    price: float | None = None
    """Of the sheets that are bought, where each has one."""
    apart: tuple[str, ...] = ()
    """Work whose plates were to stay together and lie on several sheets of one thickness: one does not hold them."""


class Group(NamedTuple):
    """Plates of one thickness and steel."""

    thickness_mm: float
    steel_id: str
    pieces: tuple[NestPiece, ...]


def nest(inputs: Inputs, seconds: float = SECONDS) -> Generator[Progress, None, NestPlan]:
    """Lay every plate of the design out; yields progress. Raises InputError for operations that cannot be."""
    return (yield from nest_all(nest_pieces(inputs), inputs.shop.rack, seconds))


def nest_all(
    pieces: Sequence[NestPiece], rack: MetalRack, seconds: float = SECONDS
) -> Generator[Progress, None, NestPlan]:
    """Lay plates out on a rack's offcuts and sheets; yields progress."""
    groups = [Group(t, steel, tuple(own)) for (t, steel), own in groupby(sorted(pieces, key=_kind), key=_kind)]
    count, clock = sum(p.count for p in pieces), Clock(math.ceil(seconds))
    sheets: list[NestedSheet] = []
    left_out: list[LeftOut] = []
    for group in groups:
        own = sum(p.count for p in group.pieces)
        share = max(int(min(seconds * own / max(count, 1), own * EACH_S)), 1)
        found, out = yield from _lay(group, rack, share, clock)
        clock = clock.later(share)
        sheets += found
        left_out += out
    return _told(sheets, left_out, pieces, rack)


def _kind(piece: NestPiece) -> tuple[float, str]:
    return (round(piece.thickness_mm, 2), piece.steel_id)


class _Still(NamedTuple):
    """One plate that waits for its place."""

    piece: NestPiece
    shape: Polygon


def _lay(
    group: Group, rack: MetalRack, seconds: int, clock: Clock
) -> Generator[Progress, None, tuple[list[NestedSheet], list[LeftOut]]]:
    still = [_Still(p, p.shape()) for p in group.pieces for _ in range(p.count)]
    still.sort(key=lambda s: -s.shape.area)
    sheets: list[NestedSheet] = []
    for offcut in _offcuts(rack, group):
        if still:
            sheet, rest = _on_offcut(offcut, still, rack)
            if sheet is not None and not (rack.together and _broken(sheet, rest)):
                sheets.append(sheet)
                still = rest
    sold = [s for s in rack.sheets if s.thickness_mm is None or abs(s.thickness_mm - group.thickness_mm) < SAME_MM]
    still, left_out = _that_fit(still, sold, rack, group)
    spent = 0.0
    while still and sold:
        own = _sheet_for(still, sold, rack)
        still, later = _bundles_for(own, still) if rack.together else (still, [])
        # half of what is left for each sheet: the last ones hold little and are found at once
        turn = max(int(seconds - spent), 2) if _may_hold_all(own, still) else max(int((seconds - spent) / 2), 1)
        number = sum(s.offcut_id is None for s in sheets) + 1
        sheet, still = yield from _on_sheet(own, still, rack, group, turn, number, clock.later(spent))
        spent += turn
        if rack.together:
            sheet, back = _whole_work(sheet, own, still, group, number, rack)
            still = [*still, *back]
        still = sorted([*still, *later], key=lambda s: -s.shape.area)
        sheets.append(sheet)
    return sheets, left_out


def _bundles_for(own: Sheet, still: Sequence[_Still]) -> tuple[list[_Still], list[_Still]]:
    """Whole works that one sheet may hold, the largest first and one at least, and what waits for the next."""
    works: dict[str, list[_Still]] = {}
    for one in still:
        works.setdefault(one.piece.operation, []).append(one)
    now, later, room = list[_Still](), list[_Still](), FULL * own.long_mm * own.wide_mm
    for plates in sorted(works.values(), key=lambda plates: -sum(p.shape.area for p in plates)):
        area = sum(p.shape.area for p in plates)
        if now and area > room:
            later += plates
        else:
            now += plates
            room -= area
    return now, later


def _broken(sheet: NestedSheet, rest: Iterable[_Still]) -> set[str]:
    """Work of which plates lie on a sheet and others do not."""
    return {p.operation for p in sheet.pieces} & {s.piece.operation for s in rest}


def _whole_work(
    sheet: NestedSheet, own: Sheet, rest: Sequence[_Still], group: Group, number: int, rack: MetalRack
) -> tuple[NestedSheet, list[_Still]]:
    """The sheet without plates of works that it does not hold whole, and those plates; the largest work stays as far as it goes."""
    area: dict[str, float] = {}
    for p in sheet.pieces:
        area[p.operation] = area.get(p.operation, 0.0) + p.shape().area
    off = _broken(sheet, rest) - {max(area, key=lambda name: area[name])}
    if not off:
        return sheet, []
    by_id = {p.id: p for p in group.pieces}
    back = [by_id[p.piece_id] for p in sheet.pieces if p.operation in off]
    kept = [p for p in sheet.pieces if p.operation not in off]
    return _laid_sheet(own, kept, group, number, rack), [_Still(p, p.shape()) for p in back]


def _offcuts(rack: MetalRack, group: Group) -> list[Offcut]:
    """Those of this plate, the smallest first, so that large ones stay whole."""
    own = [
        o for o in rack.offcuts if abs(o.thickness_mm - group.thickness_mm) < SAME_MM and o.steel_id == group.steel_id
    ]
    return sorted(own, key=lambda o: o.shape().area)


def _that_fit(
    still: list[_Still], sold: Sequence[Sheet], rack: MetalRack, group: Group
) -> tuple[list[_Still], list[LeftOut]]:
    """Plates that some sheet holds, and the others with why."""
    if not sold:
        why = f"no sheet {as_thickness(group.thickness_mm)} thick is in the rack's list"
        return [], [LeftOut(name=s.piece.name, side=s.piece.side, words=why) for s in still]
    fits, out = [], []
    for one in still:
        if any(_fits(one.shape, sheet, rack) for sheet in sold):
            fits.append(one)
            continue
        long, wide = blank_of(one.piece.outline)
        words = (
            f"{as_length(long)} x {as_length(wide)} is larger than any sheet: set 'Made of lengths' "
            "of its work to two, or list a longer sheet"
        )
        out.append(LeftOut(name=one.piece.name, side=one.piece.side, words=words))
    return fits, out


def _fits(shape: Polygon, sheet: Sheet, rack: MetalRack, *, turned: bool = True) -> bool:
    """Whether a plate lies inside a sheet as it is, or ``turned`` by a quarter where the grain does not matter."""
    x0, y0, x1, y1 = shape.bounds
    along, across = sheet.long_mm - 2 * rack.margin_mm, sheet.wide_mm - 2 * rack.margin_mm
    straight = x1 - x0 <= along and y1 - y0 <= across
    return bool(straight or (turned and not rack.grain and y1 - y0 <= along and x1 - x0 <= across))


def _sheet_for(still: Sequence[_Still], sold: Sequence[Sheet], rack: MetalRack) -> Sheet:
    """The smallest that may hold all that waits, else the largest that holds the largest plate."""
    able = [s for s in sold if _fits(still[0].shape, s, rack)] or list(sold)
    able.sort(key=lambda s: s.long_mm * s.wide_mm)
    return next((s for s in able if all(_fits(o.shape, s, rack) for o in still) and _may_hold_all(s, still)), able[-1])


def _may_hold_all(sheet: Sheet, still: Iterable[_Still]) -> bool:
    area: float = sum(s.shape.area for s in still)
    return area <= FULL * sheet.long_mm * sheet.wide_mm


def _on_offcut(offcut: Offcut, still: list[_Still], rack: MetalRack) -> tuple[NestedSheet | None, list[_Still]]:
    """What of the largest plates fits an offcut, by no-fit polygons."""
    x0, y0, x1, y1 = offcut.shape().bounds
    outline = translate(offcut.shape(), -x0, -y0)
    parts = polygons_of(outline.buffer(-rack.margin_mm, join_style="mitre"))
    if not parts:
        return None, still
    room = max(parts, key=lambda part: part.area)
    put = bottom_left([s.shape for s in still], room, rack.kerf_mm, MOST_ON_OFFCUT, grain=rack.grain)
    if not put:
        return None, still
    pieces = tuple(laid(still[k].piece, *spot) for k, spot in put.items())
    sheet = NestedSheet(
        name=offcut.name,
        offcut_id=offcut.id,
        thickness_mm=offcut.thickness_mm,
        steel_id=offcut.steel_id,
        steel=find_steel(offcut.steel_id).name,
        long_mm=x1 - x0,
        wide_mm=y1 - y0,
        corners=tuple(Corner(along_mm=c.along_mm - x0, across_mm=c.across_mm - y0) for c in offcut.corners),
        pieces=pieces,
        filled=sum(still[k].shape.area for k in put) / outline.area,
        used_long_mm=x1 - x0,
        left=None,
        price=None,
    )
    return sheet, [s for k, s in enumerate(still) if k not in put]


def _on_sheet(
    own: Sheet, still: list[_Still], rack: MetalRack, group: Group, seconds: int, number: int, clock: Clock
) -> Generator[Progress, None, tuple[NestedSheet, list[_Still]]]:
    """One sheet filled from its left end, and what waits for the next."""
    here = [s for s in still if _fits(s.shape, own, rack)]
    elsewhere = [s for s in still if not _fits(s.shape, own, rack)]
    put = yield from _along(own, here, rack, seconds, clock)
    if len(put) < len(here):
        put |= _between(own, here, put, rack)
    pieces = list(put.values())
    rest = [s for k, s in enumerate(here) if k not in put] + elsewhere
    return _laid_sheet(own, pieces, group, number, rack), sorted(rest, key=lambda s: -s.shape.area)


def _laid_sheet(own: Sheet, pieces: Sequence[Laid], group: Group, number: int, rack: MetalRack) -> NestedSheet:
    """A sheet with the plates on it, from its left end."""
    reach = max(p.shape().bounds[2] for p in pieces) + rack.margin_mm
    return NestedSheet(
        name=f"{as_thickness(group.thickness_mm)}, sheet {number}",
        offcut_id=None,
        thickness_mm=group.thickness_mm,
        steel_id=group.steel_id,
        steel=find_steel(group.steel_id).name,
        long_mm=own.long_mm,
        wide_mm=own.wide_mm,
        corners=corners_of(own.long_mm, own.wide_mm),
        pieces=tuple(pieces),
        filled=sum(p.shape().area for p in pieces) / (own.long_mm * own.wide_mm),
        used_long_mm=min(reach, own.long_mm),
        left=_left_of(own, reach, group, number),
        price=own.price,
    )


def _along(
    own: Sheet, here: Sequence[_Still], rack: MetalRack, seconds: int, clock: Clock
) -> Generator[Progress, None, dict[int, Laid]]:
    """What a strip as wide as the sheet holds up to its end; one plate alone where it fills the sheet to its margins."""
    edge = max(rack.margin_mm - rack.kerf_mm, 0.0)
    across, shapes = own.wide_mm - 2 * edge, [s.shape for s in here]
    tight = next((k for k, s in enumerate(shapes) if not turns_across(s, across, rack.kerf_mm, grain=rack.grain)), None)
    if tight is not None:
        return {tight: _alone(own, here[tight], rack)}
    found = yield from in_strip(shapes, across, rack.kerf_mm, seconds, clock, grain=rack.grain)
    limit = own.long_mm - rack.margin_mm + TOUCH_MM
    every = {s.shape: laid(here[s.shape].piece, s.x_mm + edge, s.y_mm + edge, s.turned_deg) for s in found}
    put = {k: one for k, one in every.items() if one.shape().bounds[2] <= limit}
    return put or {0: _alone(own, here[0], rack)}


def _between(own: Sheet, here: Sequence[_Still], put: dict[int, Laid], rack: MetalRack) -> dict[int, Laid]:
    """What of the plates that wait has room between those that lie."""
    room = box(rack.margin_mm, rack.margin_mm, own.long_mm - rack.margin_mm, own.wide_mm - rack.margin_mm)
    waits = [k for k in range(len(here)) if k not in put]
    lying = [one.shape() for one in put.values()]
    spots = bottom_left([here[k].shape for k in waits], room, rack.kerf_mm, MOST_BETWEEN, lying, grain=rack.grain)
    return {waits[k]: laid(here[waits[k]].piece, *spot) for k, spot in spots.items()}


def _alone(own: Sheet, one: _Still, rack: MetalRack) -> Laid:
    """A plate that fills its sheet to the margins, in the sheet's corner."""
    turns = (turn for turn in (0.0, 90.0) if _fits(placed_shape(one.shape, 0.0, 0.0, turn), own, rack, turned=False))
    turn = next(turns, 0.0)
    x0, y0, _, _ = placed_shape(one.shape, 0.0, 0.0, turn).bounds
    return laid(one.piece, rack.margin_mm - x0, rack.margin_mm - y0, turn)


def _left_of(own: Sheet, reach: float, group: Group, number: int) -> Offcut | None:
    """The rectangle past the pieces."""
    left = float(math.floor(own.long_mm - reach))
    if left < WORTH_MM:
        return None
    return Offcut(
        id=f"left-{group.thickness_mm:g}-{group.steel_id}-{number}".replace(".", "-")[:40],
        name=f"left of sheet {number}",
        thickness_mm=group.thickness_mm,
        steel_id=group.steel_id,
        corners=corners_of(left, own.wide_mm),
    )


def _told(
    sheets: Sequence[NestedSheet], left_out: Iterable[LeftOut], pieces: Sequence[NestPiece], rack: MetalRack
) -> NestPlan:
    prices = [s.price for s in sheets if s.offcut_id is None]
    known = [p for p in prices if p is not None]
    return NestPlan(
        sheets=tuple(sheets),
        left_out=tuple(left_out),
        kerf_mm=rack.kerf_mm,
        margin_mm=rack.margin_mm,
        pieces=sum(p.count for p in pieces),
        area_mm2=sum(abs(p.outline.area_mm2()) * p.count for p in pieces),
        used_mm2=sum(s.used_long_mm * s.wide_mm if s.offcut_id is None else outline_of(s).area for s in sheets),
        price=sum(known) if prices and len(known) == len(prices) else None,
        apart=_apart(sheets) if rack.together else (),
    )


def _apart(sheets: Iterable[NestedSheet]) -> tuple[str, ...]:
    """Work whose plates of one thickness lie on more than one sheet."""
    lies: dict[tuple[float, str, str], int] = {}
    for sheet in sheets:
        for name in {p.operation for p in sheet.pieces}:
            key = (sheet.thickness_mm, sheet.steel_id, name)
            lies[key] = lies.get(key, 0) + 1
    return tuple(sorted({name for (_, _, name), count in lies.items() if count > 1}))
