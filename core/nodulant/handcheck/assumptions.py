"""What a verdict rests on, and where each of it comes from."""

from typing import Literal

from nodulant.base.model import Frozen
from nodulant.evaluate.rails.solved import SolvedInputs
from nodulant.loads.cases import SPACE_CASES
from nodulant.loads.plan import LoadPlan
from nodulant.materials import find_steel
from nodulant.materials.steel import SAFETY_ON_YIELD
from nodulant.parts.limits import limit_called
from nodulant.parts.sides import LEFT_RIGHT
from nodulant.strength.fatigue import AMPLITUDE
from nodulant.strength.space import wanted_place
from nodulant.survey.crossmember import END_FIXITY
from nodulant.units.said import Said, said

Source = Literal["measured", "typed", "catalogue", "default", "guess", "own value", "missing"]


class Assumption(Frozen):
    """One input: what it is, its value in words, where it comes from."""

    about: str
    says: Said
    source: Source


def assumptions(solved: SolvedInputs) -> tuple[Assumption, ...]:
    """The list, in the order of the reckoning: rails, masses, supports, frame, cases, limits."""
    return (*_rails(solved), *_loads(solved), *_frame(solved), *_cases(solved), *_limits(solved))


def _row(about: str, source: Source, text: str, says: Said | None = None) -> Assumption:
    return Assumption(about=about, says=says or said(text), source=source)


def _rails(solved: SolvedInputs) -> list[Assumption]:
    out = []
    for side in LEFT_RIGHT:
        rail = solved.inputs.survey.rails.of(side)
        walls = [s.wall_mm for s in rail.stations if s.wall_mm is not None]
        known = len(walls) == len(rail.stations)
        thick = said(
            f"{{least}} to {{most}} at {len(walls)} of {len(rail.stations)} stations",
            least=(min(walls, default=0.0), "thickness"),
            most=(max(walls, default=0.0), "thickness"),
        )
        out.append(_row(f"Wall of the {side} rail", "measured" if known else "missing", "", thick))
        steel = find_steel(rail.steel_id)
        strength = said(steel.name + ", yield {f}", f=(steel.yield_mpa, "stress"))
        out.append(
            _row(f"Steel of the {side} rail", "guess" if rail.steel_id == "unknown" else "catalogue", "", strength)
        )
    return out


def _loads(solved: SolvedInputs) -> list[Assumption]:
    survey = solved.inputs.survey
    total = sum(m.mass_kg for m in survey.masses)
    out = [_row("Masses", "typed", "", said(f"{len(survey.masses)} masses, {{m}}", m=(total, "mass")))]
    high = sum(m.z_mm is not None for m in survey.masses)
    out.append(
        _row(
            "Heights of masses",
            "typed" if high == len(survey.masses) else "missing",
            f"{high} of {len(survey.masses)} given",
        )
    )
    out.append(_row("Share of the rails", "default", "every mass hangs half on each rail"))
    seats = solved.inputs.design.seats or survey.seats
    out.append(_row("Supports", "typed", f"{len(seats)} seats; each carries its share of its axle, none is rigid"))
    return out


def _frame(solved: SolvedInputs) -> list[Assumption]:
    survey = solved.inputs.survey
    kinds = sorted({c.end for c in (*survey.crossmembers, *solved.inputs.design.crossmembers)})
    words = ", ".join(f"{kind.replace('-', ' ')} {END_FIXITY[kind]:g}" for kind in kinds)
    out = [_row("Stiffness of crossmembers' joints", "default", f"1 is solid: {words}" if words else "no crossmember")]
    if solved.frames is not None:
        for axle in solved.frames.planned.twist.guessed:
            out.append(_row(f"Roll stiffness, {axle} axle", "guess", "springs under the rails that ride at 1.5 Hz"))
    return out


def _cases(solved: SolvedInputs) -> list[Assumption]:
    plan, plain = solved.plan, LoadPlan()
    same = plan.hole_mm == plain.hole_mm
    out = [
        _row("Depth of the hole", "default" if same else "typed", "", said("{d}", d=(plan.hole_mm, "length"))),
        _row("Tyres' grip", "default" if plan.grip == plain.grip else "typed", f"{plan.grip:g} of the load"),
    ]
    for case in SPACE_CASES:
        if (change := plan.cases.get(case.id)) is not None:
            out.append(_row(case.name, "own value", f"factor {change.factor:g}: {change.reason}"))
    left = [case.name for case in SPACE_CASES if wanted_place(case, plan)]
    if left:
        out.append(_row("Cases left out", "missing", "; ".join(left)))
    return out


def _limits(solved: SolvedInputs) -> list[Assumption]:
    design = solved.inputs.design
    rule = design.rule.kind if design.rule.reason is None else f"{design.rule.kind}: {design.rule.reason}"
    out = [
        _row("Rule", "default" if design.rule.reason is None else "own value", rule),
        _row("Factor of safety wanted", "default", f"{SAFETY_ON_YIELD:g} on yield, 1 in an accident"),
        _row("Fatigue", "default", f"{AMPLITUDE:g} of the static load up and down, two million times"),
    ]
    for limit_id, change in design.limits.items():
        limit = limit_called(limit_id)
        name = f"{limit_id}: no check has this limit" if limit is None else limit.name
        out.append(_row(name, "own value", f"{change.value:g}: {change.reason}"))
    return out
