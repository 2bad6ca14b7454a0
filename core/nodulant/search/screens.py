"""What a set is refused by before it is judged whole: its sections under the bump, or the forces of the frame as it is."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass, replace

from nodulant.base.arrays import Columns
from nodulant.base.errors import InputError
from nodulant.checks.case_rules import Factors, judge_factors
from nodulant.checks.joint_rules import joint_checks
from nodulant.frame.assembly import SectionColumns
from nodulant.frame.here import OnRail
from nodulant.frame.model import STOCK, placed_on, planned_state, sections
from nodulant.frame.stations import stations
from nodulant.loads.beam import internal_forces
from nodulant.loads.plan import PlanInForce
from nodulant.parts.limit import LimitChange, StrengthRule
from nodulant.parts.limits import find_limit
from nodulant.parts.sides import Side
from nodulant.search.finder import Judged, Trial
from nodulant.strength.compare import ratios, use
from nodulant.strength.rail import RailComparison
from nodulant.strength.rail_case import factor_of
from nodulant.strength.space import FrameComparison
from nodulant.survey.vehicle import Seat, Survey

PASSES = Judged(0, 0.0, "")


@dataclass(frozen=True)
class Cut:
    """What a screen of a cut needs of the job."""

    survey: Survey
    seats: tuple[Seat, ...]
    limits: dict[str, LimitChange]
    rule: StrengthRule
    bump: float
    side: Side


def cut_screen(cut: Cut, operation_id: str) -> Callable[[Trial], Judged]:
    """Refuse sets that leave the rail gutted at the cut, or that fail the bump there."""

    def screen(trial: Trial) -> Judged:
        try:
            return _at_the_cut(cut, operation_id, trial)
        except InputError as error:
            return Judged(1, 99.0, error.message)

    return screen


def _at_the_cut(cut: Cut, operation_id: str, trial: Trial) -> Judged:
    state = planned_state(trial.operations)
    placed = placed_on(cut.survey, trial.operations, cut.side, state)
    own = next(p for p in placed if p.op.id == operation_id)
    rail = cut.survey.rails.of(cut.side)
    x = stations(rail.start_mm, rail.end_mm, [own], [])
    x = x[(x >= own.start_mm - 1) & (x <= own.end_mm + 1)]
    stock = sections(cut.survey, (), cut.side, x, STOCK)
    built = sections(cut.survey, trial.operations, cut.side, x, state)
    found = ratios(stock, built)
    least, names = (
        [found.modulus_top, found.modulus_bottom, found.shear_area],
        ["top fibre", "bottom fibre", "web shear"],
    )
    if stock.torsion.closed.all():
        least += [found.torsion_constant, found.torsion_capacity]
        names += ["torsion constant J", "torsion"]
    wanted = [find_limit("capacity-least", cut.limits)[0].value] * len(names)
    if cut.rule.kind != "carries it":
        rules = ("modulus-top", "modulus-bottom", "shear-area", "torsion-constant", "torsion-capacity")
        wanted = [find_limit(rule, cut.limits)[0].value for rule in rules[: len(names)]]
    rows = [
        (w / max(float(r.min()), 0.01), f"strength left at the cut, {n}")
        for r, n, w in zip(least, names, wanted, strict=True)
    ]
    if cut.survey.weighs and cut.survey.seats:
        rows.append(_bump(cut, x, built, stock))
    worst = max(rows)
    return Judged(1, worst[0], worst[1]) if worst[0] > 1 + 1e-9 else PASSES


def _bump(cut: Cut, x: Columns, built: SectionColumns, stock: SectionColumns) -> tuple[float, str]:
    limit = find_limit("use-limit", cut.limits)[0].value
    before = use(stock.properties, internal_forces(x, cut.survey.masses, cut.survey.seats).moment).working
    after = use(built.properties, internal_forces(x, cut.survey.masses, cut.seats or cut.survey.seats).moment).working
    own = factor_of(cut.bump * after)
    judged = judge_factors(Factors(x, own, factor_of(cut.bump * before)), limit)
    beyond = limit / float(own[judged.row])
    return (max(beyond, 1.001) if judged.verdict == "fails" else min(beyond, 1.0), "both wheels in a bump, 3 g")


def piece_screen(
    rails: Mapping[Side, RailComparison],
    frames: FrameComparison,
    plan: PlanInForce,
    limits: dict[str, LimitChange],
    on: OnRail,
    survey: Survey,
) -> Callable[[Trial], Judged]:
    """Refuse pieces that fail under the forces of the frame as it is."""
    by_name: dict[str, RailComparison] = dict(rails.items())

    def screen(trial: Trial) -> Judged:
        op = trial.changed[0]
        try:
            op.refuse(on.here.height, "")
        except InputError as error:
            return Judged(1, 99.0, error.message)
        here = replace(on, span=op.span(on.rail, survey.features, ""))
        rows = [c for c in joint_checks(op.joints(here), by_name, frames, plan, limits) if c.verdict == "fails"]
        worst = max(rows, key=lambda c: c.beyond or 0.0, default=None)
        return PASSES if worst is None else Judged(len(rows), worst.beyond or 1.0, worst.title)

    return screen
