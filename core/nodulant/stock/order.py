"""The order list: plate by thickness with a strip that it all comes out of, tube with its cut plan, bolts, wire and gas."""

import math
from collections.abc import Iterable, Sequence
from itertools import groupby
from typing import Literal

from nodulant.base.model import Frozen
from nodulant.gauges.collect import gauges_of
from nodulant.job.document import Inputs, Rates
from nodulant.job.rack import Prices, RackTube
from nodulant.materials import find_steel
from nodulant.materials.bolts import find_bolt
from nodulant.materials.steel import DENSITY_KG_PER_MM3
from nodulant.parts.bought import BoltsNeeded, TubeNeeded
from nodulant.stock.consumables import FLAP, THIN, ToolRow
from nodulant.stock.cutting import CutPlan, cut_plan
from nodulant.stock.needs import Needs, PlatePiece, WeldMetal, bolt_length_mm, needs_of, sold_as
from nodulant.stock.nesting.plan import WORTH_MM, NestedSheet, NestPlan, outline_of
from nodulant.units.inline import as_amount, as_length, as_thickness
from nodulant.units.show import show_length

KERF_MM, MARGIN_MM = 3.0, 5.0
"""Between two pieces: a thin wheel's or a plasma's cut, and what a blank is larger by on every side (common practice)."""
BAR_MM, STRIP_MM = 6000.0, 3000.0
"""Lengths that tube and strip are sold in where nothing else is said (common practice; 20 ft is 6096 mm)."""
IN_RACK_MM = 0.15
"""Plate whose thickness is this near to one in the rack is in it."""
DEPOSITED, KG_PER_HOUR, LITRES_PER_MINUTE = 0.9, 1.6, 15.0
"""Of solid wire that ends in the bead; what a hand-held short arc lays down in an hour of arc; shielding gas (common practice)."""
BOTH_SIDES = 2.0
Section = Literal["plate", "tube", "bolts", "welding", "paint", "tools"]


class OrderRow(Frozen):
    """One line: what, how much of it, and why so much; texts carry their quantities as marks."""

    section: Section
    what: str
    quantity: float
    """What is bought: what is needed less what is on the shelf."""
    unit: Literal["strips", "sheets", "bars", "bolts", "kg", "m3", "m2", "pieces", "mm"]
    amount: str
    """The quantity with its unit, as it is told."""
    words: str
    mass_kg: float | None = None
    price: float | None = None
    """Of all of it in the shop's currency, where its price was entered."""
    size_mm: tuple[float, ...] = ()
    """A plate's thickness, or a tube's outside and wall."""
    in_rack: bool | None = None
    """Whether the shop's rack has it; None where the rack says nothing about it."""
    key: str = ""
    """By what name it lies on the shop's shelf, where it may lie there."""
    on_shelf: float = 0.0


class TubeCuts(Frozen):
    """How the pieces of one tube come out of bars."""

    called: str
    """As it is asked for over the counter."""
    od_mm: float
    wall_mm: float
    steel: str
    plan: CutPlan
    pieces: tuple[TubeNeeded, ...]


class OrderList(Frozen):
    """What to buy, what to cut it to, and what is laid down in welding."""

    rows: tuple[OrderRow, ...]
    plates: tuple[PlatePiece, ...]
    tubes: tuple[TubeCuts, ...]
    welds: tuple[WeldMetal, ...]
    added_kg: float
    """Of all plates, tubes and beads; bolts are not weighed."""
    price: float = 0.0
    """Of every row whose price was entered."""
    unpriced: int = 0
    """Rows that no price was entered for."""
    rack_after: tuple[RackTube, ...] = ()
    """Tubes that stand in the rack once all are cut."""


def order_list(
    inputs: Inputs, kerf_mm: float = KERF_MM, bar_mm: float = BAR_MM, plan: NestPlan | None = None
) -> OrderList:
    """Of the design as planned, its plates as they were laid out on sheets where a ``plan`` holds all of them; raises InputError and UnknownReference, and InputError for a tube longer than a bar."""
    needs, shop = needs_of(inputs), inputs.shop
    tubes = tuple(_cut(own, kerf_mm, bar_mm, shop.rack.tubes) for own in _by_tube(needs.tubes))
    rows = [
        *(_sheet_rows(plan) if plan and not plan.left_out else _plate_rows(needs.plates, shop.plate_stock_mm, kerf_mm)),
        *(_tube_row(t) for t in tubes),
        *(row for b in needs.bolts for row in _bolt_rows(b)),
        *_weld_rows(needs.welds),
        *_paint_rows(needs),
        *(_tool_row(t) for t in needs.tools),
        *_jig_rows(inputs),
    ]
    shelf = {item.key: item.quantity for item in shop.rack.shelf}
    rows = [priced(shelved(row, shelf.get(row.key, 0.0)), shop.rates, shop.rack.prices) for row in rows]
    mass = sum(p.mass_kg * p.count for p in needs.plates)
    mass += sum(_tube_kg(t) * t.count for t in needs.tubes)
    mass += sum(w.volume_mm3 for w in needs.welds) * DENSITY_KG_PER_MM3
    known = [row.price for row in rows if row.price is not None]
    return OrderList(
        rows=tuple(rows),
        plates=needs.plates,
        tubes=tubes,
        welds=needs.welds,
        added_kg=mass,
        price=round(sum(known), 2),
        unpriced=len(rows) - len(known),
        rack_after=tubes_left(shop.rack.tubes, tubes),
    )


def tubes_left(rack: Sequence[RackTube], cut: Iterable[TubeCuts]) -> tuple[RackTube, ...]:
    """The rack's tubes once all of an order's are cut: what was used is gone, what is left of a bar and worth keeping stands there."""
    left = list(rack)
    for own in cut:
        first = own.pieces[0]
        if first.profile != "tube":
            continue
        for bar in own.plan.bars:
            used = next((t for t in left if _is_of(t, first) and abs(t.long_mm - bar.stock_mm) < IN_RACK_MM), None)
            if bar.in_rack and used is not None:
                left.remove(used)
            if bar.left_mm >= WORTH_MM:
                long = float(math.floor(bar.left_mm))
                left.append(RackTube(od_mm=own.od_mm, wall_mm=own.wall_mm, long_mm=long, steel_id=first.steel_id))
    return tuple(left)


def _is_of(tube: RackTube, needed: TubeNeeded) -> bool:
    """Whether a length of the rack is of the tube that is asked for."""
    same = abs(tube.od_mm - needed.od_mm) < IN_RACK_MM and abs(tube.wall_mm - needed.wall_mm) < IN_RACK_MM
    return same and tube.steel_id == needed.steel_id and needed.profile == "tube"


def shelved(row: OrderRow, there: float) -> OrderRow:
    """A row less what is ``there`` on the shelf; what is bought by the piece stays whole."""
    if there <= 0:
        return row
    left = max(row.quantity - there, 0.0)
    if row.unit in {"bolts", "pieces"}:
        left = float(math.ceil(left - NEAR))
    mass = None if row.mass_kg is None or row.quantity <= 0 else row.mass_kg * left / row.quantity
    words = f"{row.words}; {row.amount} needed, what is on the shelf taken off"
    update = {
        "quantity": left,
        "amount": told_as(left, row.unit),
        "mass_kg": mass,
        "words": words,
        "in_rack": left == 0,
    }
    return row.model_copy(update={**update, "on_shelf": there})


def told_as(quantity: float, unit: str) -> str:
    """A quantity with its unit."""
    if unit == "mm":
        return as_length(quantity)
    if unit in AMOUNTS:
        return as_amount(AMOUNTS[unit], quantity)
    return _counted(round(quantity), unit.removesuffix("s"))


AMOUNTS: dict[str, Literal["mass", "gas", "area"]] = {"kg": "mass", "m3": "gas", "m2": "area"}


def priced(row: OrderRow, rates: Rates, prices: Prices) -> OrderRow:
    """A row with what it costs, where the shop entered that."""
    each = {
        "plate": rates.plate_kg,
        "tube": prices.tube_kg,
        "bolts": prices.bolt,
        "kg": prices.wire_kg,
        "m3": prices.gas_m3,
        "m2": prices.primer_m2,
        "disc": prices.disc,
        "tools": prices.drill,
    }
    by_mass = row.section in {"plate", "tube"}
    kind = "disc" if row.what in {THIN, FLAP} else row.section if row.section in each else row.unit
    price, amount = each.get(kind), row.mass_kg if by_mass else row.quantity
    if row.price is not None or price is None or amount is None:
        return row
    return row.model_copy(update={"price": round(price * amount, 2)})


def _plate_rows(plates: Iterable[PlatePiece], rack: tuple[float, ...], kerf_mm: float) -> list[OrderRow]:
    """Strips for each thickness and steel."""
    out = []
    for (thick, steel), group in groupby(plates, key=lambda p: (p.thickness_mm, p.steel_id)):
        own = list(group)
        wide, lengths = strips_of(own, kerf_mm)
        each = max(lengths)
        size = f"{as_length(wide)} x {as_length(each)}"
        out.append(
            OrderRow(
                section="plate",
                what=f"{find_steel(steel).name}, {as_thickness(thick)} thick, {size}",
                quantity=len(lengths),
                unit="strips",
                amount=_counted(len(lengths), "strip"),
                words=f"{_counted(sum(p.count for p in own), 'piece')} by their blanks, {as_length(kerf_mm)} between them; nested closer it takes less",
                mass_kg=wide * each * thick * DENSITY_KG_PER_MM3 * len(lengths),
                size_mm=(thick,),
                in_rack=any(abs(thick - t) < IN_RACK_MM for t in rack),
            )
        )
    return out


def _sheet_rows(plan: NestPlan) -> list[OrderRow]:
    """Sheets that the laid-out plates are bought on, and offcuts that the rack has."""
    alike: dict[tuple[object, ...], list[NestedSheet]] = {}
    for sheet in plan.sheets:
        key = (sheet.thickness_mm, sheet.steel_id, sheet.long_mm, sheet.wide_mm, sheet.offcut_id)
        alike.setdefault(key, []).append(sheet)
    out = []
    for own in alike.values():
        first, last, count = own[0], own[-1], len(own)
        racked = first.offcut_id is not None
        plates = _counted(sum(len(s.pieces) for s in own), "plate")
        size = f"{as_length(first.long_mm)} x {as_length(first.wide_mm)}"
        mass = outline_of(first).area * first.thickness_mm * DENSITY_KG_PER_MM3 * count
        out.append(
            OrderRow(
                section="plate",
                what=f"{first.steel}, {as_thickness(first.thickness_mm)} thick, {size}",
                quantity=0 if racked else count,
                unit="sheets",
                amount="an offcut" if racked else _counted(count, "sheet"),
                words=f"{plates}, as laid out, up to {as_length(last.used_long_mm)} of {'it' if count == 1 else 'the last'}",
                mass_kg=0.0 if racked else mass,
                price=0.0 if racked else None if first.price is None else first.price * count,
                size_mm=(first.thickness_mm,),
                in_rack=racked,
            )
        )
    return out


def _counted(count: int, one: str) -> str:
    return f"{count} {one}" if count == 1 else f"{count} {one}s"


def strips_of(pieces: Iterable[PlatePiece], kerf_mm: float) -> tuple[float, list[float]]:
    """Width and lengths of strips that hold every blank on shelves, the largest first (first fit, Coffman et al. 1980, from memory).

    As wide as the widest blank's short side and its margins; a blank that fits across lies so. No strip is longer
    than what is sold, but for a blank that is.
    """
    blanks = sorted(((p.long_mm + kerf_mm, p.wide_mm + kerf_mm) for p in pieces for _ in range(p.count)), reverse=True)
    wide = max((short for _, short in blanks), default=0.0)
    shelves: list[list[float]] = []
    for long, short in blanks:
        along, across = (long, short) if long > wide else (short, long)
        home = next((s for s in shelves if s[0] >= along - NEAR and s[1] + across <= wide + NEAR), None)
        if home is None:
            shelves.append([along, across])
        else:
            home[1] += across
    strips: list[float] = []
    for along, _ in shelves:
        fits = next((k for k, long in enumerate(strips) if long + along <= STRIP_MM - 2 * MARGIN_MM), None)
        if fits is None:
            strips.append(along)
        else:
            strips[fits] += along
    return wide + 2 * MARGIN_MM, [long + 2 * MARGIN_MM for long in strips]


NEAR = 1e-9


def _by_tube(tubes: Iterable[TubeNeeded]) -> list[tuple[TubeNeeded, ...]]:
    return [tuple(g) for _, g in groupby(tubes, key=sold_as)]


def _cut(own: tuple[TubeNeeded, ...], kerf_mm: float, bar_mm: float, rack: Sequence[RackTube]) -> TubeCuts:
    first = own[0]
    have = [t.long_mm for t in rack if _is_of(t, first)]
    plan = cut_plan([t.long_mm for t in own for _ in range(t.count)], (bar_mm,), kerf_mm, have)
    steel = find_steel(first.steel_id).name
    size = as_thickness(first.od_mm)
    if first.profile != "tube":
        size += f" x {as_thickness(first.wide_mm)}"
    called = f"{steel.removesuffix(' plate')} {first.profile}, {size} x {as_thickness(first.wall_mm)}"
    return TubeCuts(called=called, od_mm=first.od_mm, wall_mm=first.wall_mm, steel=steel, plan=plan, pieces=own)


def _tube_kg(tube: TubeNeeded) -> float:
    """Of one piece; of a solid bar its wall is half its diameter."""
    return tube.girth_mm * min(tube.wall_mm, tube.od_mm / 2) * tube.long_mm * DENSITY_KG_PER_MM3


def _tube_row(own: TubeCuts) -> OrderRow:
    net = sum(t.long_mm * t.count for t in own.pieces)
    count = sum(t.count for t in own.pieces)
    bought = [bar for bar in own.plan.bars if not bar.in_rack]
    from_rack = len(own.plan.bars) - len(bought)
    proven = "no fewer hold them" if own.plan.proven else "fewer may hold them"
    racked = f"; {_counted(from_rack, 'length')} of the rack first" if from_rack else ""
    first = own.pieces[0]
    kg_per_mm = _tube_kg(first) / first.long_mm
    return OrderRow(
        section="tube",
        what=f"{own.called}, bars of {as_length(bought[0].stock_mm)}" if bought else own.called,
        quantity=len(bought),
        unit="bars",
        amount=_counted(len(bought), "bar"),
        words=f"{_counted(count, 'piece')}, {as_length(net)} in all; {proven}{racked}",
        mass_kg=kg_per_mm * own.plan.bought_mm,
        size_mm=(own.od_mm, own.wall_mm),
        in_rack=True if from_rack and not bought else None,
    )


def _jig_rows(inputs: Inputs) -> list[OrderRow]:
    """What spreaders, braces and legs are cut from: any square tube of the shop will do."""
    cut = [(g.long_mm, g.count) for g in gauges_of(inputs) if g.made_of.startswith(JIG_TUBE) and g.long_mm is not None]
    if not cut:
        return []
    long = sum(mm * n for mm, n in cut)
    return [
        OrderRow(
            section="tools",
            what=f"{JIG_TUBE}, {as_length(JIG_MM)} or more",
            quantity=long,
            unit="mm",
            amount=as_length(long),
            words=f"{sum(n for _, n in cut)} spreaders, braces and legs; comes off again and serves the next job",
            key=JIG_TUBE,
        )
    ]


JIG_TUBE, JIG_MM = "square tube", 40.0
"""What keeps rails apart while they are cut is no lighter than this (common practice)."""


def _tool_row(tool: ToolRow) -> OrderRow:
    return OrderRow(
        section="tools",
        what=tool.what,
        quantity=tool.count,
        unit="pieces",
        amount=_counted(tool.count, "piece"),
        words=tool.words,
        key=tool.key,
    )


def _bolt_rows(row: BoltsNeeded) -> list[OrderRow]:
    """Bolts with what goes on them; for captive nuts the screws that centre them too."""
    grade = row.grade.removeprefix("grade ")
    washers = 1 if row.captive else 2
    kind = "weld washers" if row.weld_washers else "hardened washers"
    nuts = _counted(row.count, "weld nut" if row.captive else "nut")
    socket = "" if row.socket_mm is None else f"; a socket's hole of {as_thickness(row.socket_mm)} opposite each"
    bolts = OrderRow(
        section="bolts",
        what=f"{_called(row)}, grade {grade}",
        quantity=row.count,
        unit="bolts",
        amount=_counted(row.count, "bolt"),
        words=f"{row.name}: {nuts}, {washers * row.count} {kind}; grip {as_length(row.grip_mm)}{socket}",
        key=f"bolt {row.size} x {bolt_length_mm(row):g} {grade}",
    )
    if not row.captive:
        return [bolts]
    screws = OrderRow(
        section="bolts",
        what=f"{row.size} countersunk screws",
        quantity=min(row.count, CENTRING),
        unit="pieces",
        amount=_counted(min(row.count, CENTRING), "piece"),
        words=f"{row.name}: each holds a weld nut in the middle of its hole while it is welded, and is used again",
        key=f"countersunk {row.size}",
    )
    return [bolts, screws]


CENTRING = 2
"""Screws in use at once: one cools while the next nut is welded (common practice)."""


def _called(row: BoltsNeeded) -> str:
    """A bolt as it is asked for over the counter: inch threads by inches, metric ones by millimetres without a unit."""
    long = bolt_length_mm(row)
    inch = find_bolt(row.size, row.grade).size.thread == "UN"
    return f"{row.size} x {show_length(long, 'in16')}" if inch else f"{row.size} x {long:g}"


def _weld_rows(welds: tuple[WeldMetal, ...]) -> list[OrderRow]:
    """Wire from the metal of all beads, gas from its minutes of arc."""
    if not welds:
        return []
    laid = sum(w.volume_mm3 for w in welds) * DENSITY_KG_PER_MM3
    wire, minutes = laid / DEPOSITED, 60 * laid / KG_PER_HOUR
    gas = minutes * LITRES_PER_MINUTE / 1000
    length = as_length(sum(w.length_mm for w in welds))
    return [
        OrderRow(
            section="welding",
            what="solid wire",
            quantity=wire,
            unit="kg",
            amount=as_amount("mass", wire),
            words=f"{length} of weld, {as_amount('mass', laid)} laid down, {DEPOSITED:.0%} of the wire",
            mass_kg=wire,
            key="wire",
        ),
        OrderRow(
            section="welding",
            what="shielding gas",
            quantity=gas,
            unit="m3",
            amount=as_amount("gas", gas),
            words=_counted(max(round(minutes), 1), "minute") + " of arc",
            key="gas",
        ),
    ]


def _paint_rows(needs: Needs) -> list[OrderRow]:
    """Primer for both faces of every plate and the outside of every tube."""
    area = BOTH_SIDES * sum(p.area_mm2 * p.count for p in needs.plates)
    area += sum(math.pi * t.od_mm * t.long_mm * t.count for t in needs.tubes)
    if area <= 0:
        return []
    words = "both faces of plates, outside of tubes; the rail's own bare places come on top"
    amount = as_amount("area", area / 1e6)
    return [
        OrderRow(
            section="paint", what="primer", quantity=area / 1e6, unit="m2", amount=amount, words=words, key="primer"
        )
    ]
