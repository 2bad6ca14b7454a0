"""Heat of every operation that is welded: setting, preheat, beads in order, what it bends."""

from nodulant.assembly.sheet import Numbered, numbered_welds, works_of
from nodulant.base.model import Frozen
from nodulant.frame.parts import Work
from nodulant.heat.beads import Bead, ToWeld, beads_of, minutes_of
from nodulant.heat.bend import Bend, Shrink, bends_of, shrink_of
from nodulant.heat.cooling import WARM_C
from nodulant.job.document import Inputs
from nodulant.job.riding import in_place
from nodulant.materials import find_steel
from nodulant.materials.carbon import preheat_c
from nodulant.materials.weld import bead_mm2
from nodulant.parts.part import Seam
from nodulant.parts.sides import Side
from nodulant.units.inline import as_amount, as_deviation, as_length

BENCH, BUTTS, FILLETS, PLATES = range(4)
OVER_THE_REST = ("outer", "inner", "gusset")
"""Plates that lie over welds that are ground first: their step is one of its own."""


class SeamsOfStep(Frozen):
    """Which seams a step welds, by their numbers."""

    key: str
    seams: tuple[int, ...]


class HeatPlan(Frozen):
    """How one operation is welded."""

    operation: str
    name: str
    setting: str
    heat: str
    """Heat input, of its least bead and its most."""
    preheat: str
    warm: str
    """What the metal is read at before the next bead."""
    beads: tuple[Bead, ...]
    """None where there are more than are told one by one."""
    too_many: bool
    arc_min: float
    whole_min: float
    """With waits and with moving on; the arc alone where beads are not told."""
    steps: tuple[SeamsOfStep, ...]
    bends: tuple[Bend, ...]
    shrinks: tuple[Shrink, ...]
    bent: tuple[str, ...]
    """What its welds pull, in words; once where both rails are alike."""


def heat_plans(inputs: Inputs) -> tuple[HeatPlan, ...]:
    """Of every operation that is welded, in the design's order. Raises InputError and UnknownReference."""
    found = (heat_plan(inputs, op.id) for op in inputs.design.operations)
    return tuple(plan for plan in found if plan is not None)


def heat_plan(inputs: Inputs, operation: str) -> HeatPlan | None:
    """Of one operation; None where it is not welded. Raises InputError and UnknownReference."""
    placed = in_place(inputs)
    works = works_of(placed).get(operation, {})
    rows = numbered_welds(works)
    if not rows:
        return None
    welding, first = inputs.shop.welding, next(iter(works.values()))
    seams = [_to_weld(row.number, works[side], side, seam) for row, own in rows for side, seam in own]
    beads = beads_of(seams, welding)
    arc, whole = minutes_of(beads)
    heats = [welding.heat_kj_per_mm(bead_mm2(s.seam.kind, s.seam.leg_mm)) for s in seams]
    if not beads:
        speeds = [welding.speed_mm_per_min(bead_mm2(s.seam.kind, s.seam.leg_mm)) for s in seams]
        arc = whole = sum(s.seam.welded_mm / v for s, v in zip(seams, speeds, strict=True))
    bends = tuple(b for work in works.values() for b in bends_of(placed.survey, placed.design.operations, work))
    shrinks = tuple(s for work in works.values() if (s := shrink_of(work, work.seams)) is not None)
    return HeatPlan(
        operation=operation,
        name=first.op.name,
        setting=f"{welding.process}, {welding.volts:g} V, {welding.amps:g} A",
        heat=_heat(min(heats), max(heats)),
        preheat=_preheat(first),
        warm=as_amount("temperature", WARM_C),
        beads=beads,
        too_many=not beads,
        arc_min=arc,
        whole_min=whole,
        steps=seams_of_steps(first, rows),
        bends=bends,
        shrinks=shrinks,
        bent=_bent(bends, shrinks),
    )


def _heat(least: float, most: float) -> str:
    one, two = as_amount("heat", least), as_amount("heat", most)
    return one if one == two else f"{one} to {two}"


def _bent(bends: tuple[Bend, ...], shrinks: tuple[Shrink, ...]) -> tuple[str, ...]:
    out: dict[str, None] = {}
    for b in bends:
        first = (
            f"; one edge welded out first: {as_deviation(b.one_go_mm)}" if b.one_go_mm > b.by_turns_mm + 0.05 else ""
        )
        words = (
            f"It bows {b.way} by about {as_deviation(b.by_turns_mm)} over {as_length(b.run_mm)}, {b.towards}{first}."
        )
        out[words] = None
    for s in shrinks:
        out[f"Across its {s.butts} butts the rail gets about {as_deviation(s.shorter_mm)} shorter."] = None
    return tuple(out)


def _to_weld(number: int, work: Work, side: Side, seam: Seam) -> ToWeld:
    """A seam with what its heat goes into: the rail's wall to both sides of it, and half of a plate that ends there."""
    own = {p.id: p.thickness_mm for p in work.parts}
    wall, here = work.on.here.wall, work.on.here
    plates = [own[id_] for id_ in (seam.part_a, seam.part_b) if id_ in own]
    bench = len(plates) == 2
    thickness = sum(plates) / 2 if bench else wall if seam.kind == "butt" or not plates else wall + plates[0] / 2
    role = seam.part_b.split("/")[1] if seam.part_b in own else ""
    turn = BENCH if bench else BUTTS if seam.kind == "butt" else PLATES if role.startswith(OVER_THE_REST) else FILLETS
    round_it = here.underside - here.width, here.underside + here.height + here.width
    _, low, _, high = seam.path.bounds()
    return ToWeld(
        number=number,
        side=side,
        seam=seam,
        turn=turn,
        thickness_mm=thickness,
        low_mm=min(round_it[0], low),
        high_mm=max(round_it[1], high),
    )


def seams_of_steps(work: Work, rows: Numbered) -> tuple[SeamsOfStep, ...]:
    """Where plates have a step of their own they are welded there, all else before."""
    steps = [s for s in work.op.steps("") if "welder" in s.tools and s.phase in {"weld", "plate"}]
    over = [row.number for row, own in rows if _lies_over(own[0][1])]
    rest = [row.number for row, _ in rows if row.number not in over]
    if {s.phase for s in steps} != {"weld", "plate"}:
        return tuple(SeamsOfStep(key=s.key, seams=(*rest, *over)) for s in steps)
    return tuple(SeamsOfStep(key=s.key, seams=tuple(over if s.phase == "plate" else rest)) for s in steps)


def _lies_over(seam: Seam) -> bool:
    parts = seam.part_b.split("/")
    return len(parts) > 1 and parts[1].startswith(OVER_THE_REST)


def _preheat(work: Work) -> str:
    rail = work.on.rail
    known = rail.analysis.carbon_equivalent() if rail.analysis else find_steel(rail.steel_id).carbon_equivalent
    if known is None:
        return "not known: the rail's steel has no carbon equivalent"
    warm = preheat_c(known)
    if warm is None:
        return f"only by a qualified procedure: carbon equivalent {known:.2f}"
    return f"to about {as_amount('temperature', warm)}, held" if warm else "none; dry and at the shop's warmth"
