"""Both rails with everything that is judged of each by itself."""

from dataclasses import dataclass, field

from nodulant.base.errors import NodulantError
from nodulant.checks.capacity_rules import capacity_checks, missing_capacity_checks
from nodulant.checks.case_rules import bump_check, missing_case_checks
from nodulant.checks.check import Check
from nodulant.checks.clash_rules import clash_checks
from nodulant.checks.detail_rules import fatigue_checks, preheat_check, slender_check
from nodulant.checks.notch_rules import notch_checks, weldable_check
from nodulant.checks.place_rules import in_the_cut_checks
from nodulant.checks.spec_rules import work_checks
from nodulant.evaluate.evaluation import InvalidInputs, Strip, Want
from nodulant.evaluate.rails.draw import strip
from nodulant.evaluate.rails.mirrored import alike, mirrored, right_of
from nodulant.frame.in_place import part_in_place
from nodulant.frame.ops.notches.notch import Notch
from nodulant.frame.parts import rail_here
from nodulant.frame.route import Route
from nodulant.frame.state import FrameState
from nodulant.frame.ties import planned_crossmembers
from nodulant.job.document import Inputs
from nodulant.loads.cases import CASES, Case, in_force
from nodulant.materials import find_steel
from nodulant.parts.part import Part
from nodulant.parts.sides import LEFT_RIGHT, Side
from nodulant.strength.fatigue import life_along
from nodulant.strength.rail import BESIDE_MM, RailComparison, compare_rail, missing_for_loads, missing_for_sections
from nodulant.strength.space import FrameComparison


@dataclass
class RailSide:
    """What was computed of one rail, planned and as built, and the checks of each by itself."""

    planned: RailComparison | None = None
    built: RailComparison | None = None
    checks: list[Check] = field(default_factory=list)
    parts: list[Part] = field(default_factory=list)
    weld_mm: float = 0.0
    mass_kg: float = 0.0


def _also(inputs: Inputs, want: Want) -> tuple[float, ...]:
    """Stations that both rails have besides their own: added crossmembers, and the section that is asked for."""
    known = planned_crossmembers(inputs.survey, inputs.design.operations, inputs.design.crossmembers)
    ties = tuple(c.x_mm for c in known if c not in inputs.survey.crossmembers)
    loads = inputs.design.loads
    ties += tuple(p.x_mm for p in loads.jacks) + tuple(p.x_mm for p in loads.stops)
    ties += tuple(p.x_mm for p in inputs.survey.stops)
    beside = tuple(x + step for x in ties for step in (-BESIDE_MM, 0.0, BESIDE_MM))
    return (*beside, want.section.x_mm) if want.section else beside


def both_sides(
    inputs: Inputs, states: list[FrameState], want: Want, looked_at: tuple[float, ...] = ()
) -> dict[Side, RailSide]:
    """What was computed of both rails, as planned and then in what other ``states`` there are.

    Of rails that are planned alike the right one is the left one's mirror image.
    ``looked_at`` are stations that are asked for besides.
    """
    left = _planned(inputs, "left", states[0], want, looked_at)
    sides: dict[Side, RailSide] = {
        "left": left,
        "right": _mirrored(inputs, left, left.planned)
        if left.planned is not None and alike(inputs)
        else _planned(inputs, "right", states[0], want, looked_at),
    }
    for side, own in sides.items():
        for state in states[1:] if own.planned is not None else ():
            _built(inputs, side, state, own, (*_also(inputs, want), *looked_at))
    return sides


def _mirrored(inputs: Inputs, left: RailSide, planned: RailComparison) -> RailSide:
    right = right_of(inputs, planned)
    return RailSide(
        planned=right,
        checks=[mirrored(check) for check in left.checks],
        parts=[part for work in right.work for part in work.parts],
        weld_mm=sum(work.weld_mm for work in right.work),
        mass_kg=sum(work.mass_kg for work in right.work),
    )


def _planned(inputs: Inputs, side: Side, state: FrameState, want: Want, looked_at: tuple[float, ...]) -> RailSide:
    """One rail as it is planned; raises InvalidInputs where it cannot be."""
    out, changes, also = RailSide(), inputs.design.limits, (*_also(inputs, want), *looked_at)
    rail = inputs.survey.rails.of(side)
    steel = find_steel(rail.steel_id)
    out.checks.append(weldable_check(steel.name, steel.weldable, side, changes))
    analysis = rail.analysis.carbon_equivalent() if rail.analysis else None
    out.checks.append(preheat_check(steel, analysis, side, changes))
    if missing := missing_for_sections(inputs.survey, side):
        out.checks += missing_capacity_checks(side, missing, changes)
        out.checks += missing_case_checks((bump_of(inputs),), missing, changes, side=side)
        return out
    try:
        comparison = _compared(inputs, side, state, also)
    except NodulantError as error:
        raise InvalidInputs([error]) from error
    out.checks += _own_by_itself(inputs, side, comparison)
    out.planned, out.parts = comparison, [part for work in comparison.work for part in work.parts]
    out.mass_kg = sum(work.mass_kg for work in comparison.work)
    out.weld_mm = sum(work.weld_mm for work in comparison.work)
    out.checks += _detail_checks(inputs, side, comparison) if want.frame else []
    return out


def _built(inputs: Inputs, side: Side, state: FrameState, out: RailSide, also: tuple[float, ...]) -> None:
    """Add one rail as it was measured."""
    try:
        comparison = _compared(inputs, side, state, also)
    except NodulantError as error:
        fields = ("/as_built/entries",)
        out.checks += missing_capacity_checks(side, fields, inputs.design.limits, "as-built", error.message)
        return
    out.checks += _own_by_itself(inputs, side, comparison)
    out.built = comparison


def _compared(inputs: Inputs, side: Side, state: FrameState, also: tuple[float, ...]) -> RailComparison:
    design = inputs.design
    return compare_rail(inputs.survey, design.operations, design.seats, side, state, also)


def _own_by_itself(inputs: Inputs, side: Side, comparison: RailComparison) -> list[Check]:
    """Strength, notches and clashes of one rail in one state."""
    changes = inputs.design.limits
    return [
        *capacity_checks(comparison, inputs.survey, changes),
        bump_check(comparison, inputs.survey, bump_of(inputs), missing_for_loads(inputs.survey), changes),
        *_notch_checks(inputs, side, comparison),
        *_own_checks(inputs, comparison),
        *clash_checks(comparison, changes),
    ]


def bump_of(inputs: Inputs) -> Case:
    """The symmetric bump in force."""
    return in_force(CASES, inputs.design.loads)[-1]


def _notch_checks(inputs: Inputs, side: Side, comparison: RailComparison) -> list[Check]:
    checks, placed = [], comparison.placed
    for p in placed:
        if isinstance(p.op, Notch):
            rail = rail_here(inputs.survey, side, p.centre_mm, placed)
            checks += notch_checks(p.op, rail, side, p, inputs.survey, comparison, inputs.design.limits)
    return checks


def _detail_checks(inputs: Inputs, side: Side, comparison: RailComparison) -> list[Check]:
    """Fatigue of edges and welds, and the most slender wall, of the planned rail."""
    survey, design = inputs.survey, inputs.design
    out = fatigue_checks(comparison, missing_for_loads(survey), design.limits)
    if comparison.built.layout is not None:
        out.append(slender_check(comparison.built.whole, comparison.stock.whole, side, design.limits))
    ties = planned_crossmembers(survey, design.operations, design.crossmembers)
    return out + in_the_cut_checks(survey, design.seats, ties, comparison, design.limits)


def _own_checks(inputs: Inputs, comparison: RailComparison) -> list[Check]:
    """Checks that the operations work out by themselves."""
    return [
        check
        for p, work in zip(comparison.placed, comparison.work, strict=True)
        for check in work_checks(work, p.index, comparison.state.name, inputs.design.limits)
    ]


def parts_in_place(side: RailSide, route: Route) -> list[Part]:
    """Parts of one side where their rail is in the planned frame."""
    if side.planned is None:
        return side.parts
    middle = {p.op.id: p.centre_mm for p in side.planned.placed}
    return [part_in_place(part, route, middle[part.operation]) for part in side.parts]


def strips(sides: dict[Side, RailSide], want: Want, frames: FrameComparison | None) -> tuple[Strip, ...]:
    """Curves along the rails that are asked for, planned and as built."""
    if not want.strips:
        return ()
    shown = (want.strip_side,) if want.strip_side else LEFT_RIGHT
    found = [c for side in shown for c in (sides[side].planned, sides[side].built) if c is not None]
    return tuple(
        strip(c, want.case, frames, life_along(c, [d for w in c.work for d in w.details]) if want.frame else None)
        for c in found
    )
