"""Targets, loads and parts: what is wanted, what is assumed, what is made."""

from reportlab.platypus import Flowable

from nodulant.formats.dossier.contents import Contents
from nodulant.formats.dossier.parts import chapter, figure, length, part, small, table, text, thickness
from nodulant.loads.cases import BESIDE, CASES, SPACE_CASES, in_force
from nodulant.targets.drop import DropResult
from nodulant.units.said import tell


def targets(of: Contents) -> list[Flowable]:
    """Wanted height and what makes it up; heights before and after."""
    result, style = of.result, of.style
    out: list[Flowable] = [chapter("Targets and drop stack")]
    for name, drop in (("front", result.drop_front), ("rear", result.drop)):
        if drop.entries:
            out += [part(f"{name.capitalize()} axle"), _stack(drop, of)]
    heights = [["", "front", "rear", "rake"]]
    for name, row in (("stock", result.heights.stock), ("planned", result.heights.planned)):
        rake = "" if row.rake_deg is None else f"{row.rake_deg:.2f} deg"
        heights.append([name, length(row.front_mm, style), length(row.rear_mm, style), rake])
    for state in result.heights.states:
        rake = "" if state.rake_deg is None else f"{state.rake_deg:.2f} deg"
        heights.append([state.state, length(state.front_mm, style), length(state.rear_mm, style), rake])
    out += [part("Rails over the ground"), table(heights, (45, 45, 45, 45))]
    return out


def _stack(drop: DropResult, of: Contents) -> Flowable:
    rows = [["contribution", "comes from", "lower by"]]
    for e in drop.entries:
        by = "the cut makes it" if e.caused else "solved for" if e.solved else "typed"
        rows.append([e.name, by, length(e.amount_mm, of.style)])
    rows.append(["in all", "", length(drop.total_mm, of.style)])
    return table(rows, (90, 50, 40))


def loads(of: Contents) -> list[Flowable]:
    """Cases with their factors, what is assumed, figures shown without a verdict."""
    style, plan = of.style, of.inputs.design.loads
    rows = [["case", "factor", "what it is"]]
    beside = any(c.governs.case == BESIDE for c in of.result.checks)
    every = [case for case in in_force((*CASES, *SPACE_CASES), plan) if beside or case.id != BESIDE]
    rows += [[case.name, f"{case.factor:g}", case.basis] for case in every]
    out: list[Flowable] = [chapter("Loads and assumptions"), table(rows, (52, 16, 112))]
    if of.hand is not None:
        said = [["about", "value", "from"]]
        said += [[a.about, tell(a.says, style), a.source] for a in of.hand.assumptions]
        out += [part("Assumed"), table(said, (55, 90, 35))]
    figures = [["figure", "value", "basis"]]
    figures += _figures(of)
    out += [part("Figures"), table(figures, (75, 30, 75))]
    return out


def _figures(of: Contents) -> list[list[str]]:
    """Figures of one name and basis in one row, from the least to the most."""
    by: dict[tuple[str, str, str], list[float]] = {}
    for f in of.result.figures:
        by.setdefault((f.name, f.unit, f.basis), []).append(f.value)
    rows = []
    for (name, unit, basis), values in by.items():
        ends = dict.fromkeys(figure(v, unit, of.style) for v in (min(values), max(values)))
        count = f" ({len(values)})" if len(values) > 1 else ""
        rows.append([name + count, " to ".join(ends), basis])
    return rows


def parts(of: Contents) -> list[Flowable]:
    """Every plate by its work: thickness, steel, count, mass; patterns carry the same names."""
    rows = [["work", "part", "thickness", "steel", "count", "mass"]]
    for sheet in of.sheets:
        for p in sheet.parts:
            row = [sheet.name, f"{p.number} {p.name}", thickness(p.thickness_mm, of.style), p.steel, str(p.count)]
            rows.append([*row, figure(p.mass_kg, "kg", of.style)])
    mass = sum(s.mass_kg for s in of.sheets)
    told = f"{len(rows) - 1} kinds of plate, {figure(mass, 'kg', of.style)} in all; each has a pattern at 1:1 under the same name."
    return [chapter("Patterns and parts"), small(told), table(rows, (52, 52, 20, 22, 14, 20)), *_welds(of)]


def _welds(of: Contents) -> list[Flowable]:
    bead = sum(s.bead_mm for s in of.sheets)
    return [text(f"Weld in all: {length(bead, of.style)}, in {sum(len(s.welds) for s in of.sheets)} kinds of joint.")]
