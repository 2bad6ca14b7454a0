"""Options of one job in one table: what each costs and what each leaves.

Heat: 1.0 kJ per mm of a 5 mm fillet, with the square of the leg (common practice of short-arc
welding). Hours from the build steps, minutes x people. Cost with the shop's own rates; none is
given where a rate is not.
"""

from nodulant.base.model import Frozen
from nodulant.checks.check import Check
from nodulant.checks.groups import counts
from nodulant.evaluate.evaluation import Evaluation, RailDrawing, Want
from nodulant.evaluate.run import evaluate
from nodulant.frame.added_ties import tie_works
from nodulant.frame.model import placed_on, planned_state
from nodulant.frame.parts import added_parts
from nodulant.job.document import Inputs, Shop
from nodulant.materials.weld import bead_mm2
from nodulant.parts.limits import find_limit
from nodulant.parts.part import Part, Seam
from nodulant.parts.sides import LEFT_RIGHT
from nodulant.units.said import Said

RATIOS = ("modulus-top", "modulus-bottom", "shear-area", "torsion-constant", "capacity-least")
FACTORS = ("use-limit", "case-limit", "twist-limit", "accident-use", "joint-use", "fatigue-life")


class Row(Frozen):
    """One line of the table: the value per option, None where it was not computed; which way is better."""

    key: str
    name: str
    unit: str
    values: tuple[float | None, ...]
    better: str
    """'more', 'less' or '' where neither is."""
    failing: tuple[bool, ...] = ()
    """Which of the values fail: none of those is ever marked as the best."""


class OptionSheet(Frozen):
    """One option's drawing, left rail, and its count of verdicts with the worst check."""

    id: str
    name: str
    rail: RailDrawing
    parts: tuple[Part, ...]
    fails: int
    not_computed: int
    weaker: int
    close: int
    holds: int
    """Groups, as everywhere."""
    worst: str
    worst_said: Said | None
    stock_spares: str


class SideBySide(Frozen):
    """All options that were asked for, in one table and on one scale."""

    options: tuple[OptionSheet, ...]
    rows: tuple[Row, ...]


def side_by_side(named: list[tuple[str, str, Inputs]]) -> SideBySide:
    """(id, name, inputs) of each option; raises InvalidInputs of the first that cannot be evaluated."""
    results = [evaluate(inputs, Want(interim=False)) for _, _, inputs in named]
    sheets = tuple(
        _sheet(id_, name, r, inputs.design.stock_spares) for (id_, name, inputs), r in zip(named, results, strict=True)
    )
    seams = [_seams(inputs) for _, _, inputs in named]
    shops = [inputs.shop for _, _, inputs in named]
    rows = [_least(rule, results) for rule in RATIOS] + [_least(rule, results) for rule in FACTORS]
    rows += [_figure("twist-planned", "Torsional stiffness", results), *_work(results, seams, shops)]
    return SideBySide(options=sheets, rows=tuple(row for row in rows if any(v is not None for v in row.values)))


def _sheet(id_: str, name: str, result: Evaluation, spares: str) -> OptionSheet:
    found, first = counts(result.groups), result.checks[0]
    return OptionSheet(
        id=id_,
        name=name,
        rail=next(r for r in result.rails if r.side == "left"),
        parts=tuple(p for p in result.parts if p.side == "left" and p.face in {"inner", "outer"}),
        fails=found["fails"],
        not_computed=found["not computed"],
        weaker=found["weaker"],
        close=found["close"],
        holds=found["holds"],
        stock_spares=spares,
        worst=f"{first.title}: {first.verdict}",
        worst_said=first.said,
    )


def _of(rule: str, result: Evaluation) -> list[Check]:
    return [c for c in result.checks if c.limit_id == rule and c.state == "planned" and c.value is not None]


def _least(rule: str, results: list[Evaluation]) -> Row:
    own = [_of(rule, r) for r in results]
    limit = find_limit(rule, {})[0]
    values = tuple(min((c.value for c in checks if c.value is not None), default=None) for checks in own)
    failing = tuple(any(c.verdict == "fails" for c in checks) for checks in own)
    return Row(key=rule, name=f"{limit.name}, least", unit=limit.unit, values=values, better="more", failing=failing)


def _figure(id_: str, name: str, results: list[Evaluation]) -> Row:
    found = [next((f for f in r.figures if f.id == id_), None) for r in results]
    unit = next((f.unit for f in found if f), "")
    return Row(key=id_, name=name, unit=unit, values=tuple(f.value if f else None for f in found), better="more")


def _seams(inputs: Inputs) -> list[Seam]:
    own = inputs.design
    state = planned_state(own.operations)
    out = [s for tie in tie_works(inputs.survey, own.operations, own.crossmembers) for s in tie.seams]
    for side in LEFT_RIGHT:
        placed = placed_on(inputs.survey, own.operations, side, state)
        out += added_parts(inputs.survey, side, placed).seams
    return out


def _work(results: list[Evaluation], seams: list[list[Seam]], shops: list[Shop]) -> list[Row]:
    mass = [r.mass_added_kg for r in results]
    weld = [sum(s.welded_mm for s in own) / 1000.0 for own in seams]
    heat = [_heat_mj(own, shop) for own, shop in zip(seams, shops, strict=True)]
    hours = [sum(s.spec.minutes * s.spec.people for s in r.steps) / 60.0 for r in results]
    rows = [
        Row(key="mass", name="Metal added", unit="kg", values=tuple(mass), better="less"),
        Row(key="weld", name="Weld", unit="m", values=tuple(weld), better="less"),
        Row(key="heat", name="Heat put in", unit="MJ", values=tuple(heat), better="less"),
        Row(key="hours", name="Hours, people counted", unit="h", values=tuple(hours), better="less"),
    ]
    cost = tuple(_cost(m, w, h, shop) for m, w, h, shop in zip(mass, weld, hours, shops, strict=True))
    rows.append(
        Row(key="cost", name="Cost at the shop's rates", unit=shops[0].rates.currency, values=cost, better="less")
    )
    return rows


def _heat_mj(seams: list[Seam], shop: Shop) -> float:
    """Heat that the seams put in at the shop's setting, MJ."""
    return sum(s.welded_mm * shop.welding.heat_kj_per_mm(bead_mm2(s.kind, s.leg_mm)) for s in seams) / 1000.0


def _cost(mass: float, weld: float, hours: float, shop: Shop) -> float | None:
    rates = shop.rates
    known = (rates.hour, rates.plate_kg, rates.weld_m)
    if any(rate is None for rate in known):
        return None
    return hours * (rates.hour or 0.0) + mass * (rates.plate_kg or 0.0) + weld * (rates.weld_m or 0.0)
