"""Put the layers together for one set of inputs."""

from dataclasses import dataclass, field, replace

from nodulant.asbuilt.compare import AskedReading, as_built_state, asked_readings, reading_checks
from nodulant.asbuilt.log import overridden
from nodulant.base.errors import NodulantError
from nodulant.build.plan import ALONG_STEP, TAKE_ALONG, TEARDOWN, Step, build_plan
from nodulant.build.steering_steps import SENSE_STEP, steering_steps
from nodulant.checks.apart import told_apart
from nodulant.checks.capacity_rules import capacity_checks, missing_capacity_checks
from nodulant.checks.case_rules import bump_check, missing_case_checks
from nodulant.checks.check import Check, order
from nodulant.checks.clash_rules import clash_checks
from nodulant.checks.detail_rules import fatigue_checks, preheat_check, slender_check
from nodulant.checks.groups import grouped
from nodulant.checks.notch_rules import notch_checks, weldable_check
from nodulant.checks.place_rules import in_the_cut_checks
from nodulant.checks.rule import by_rule
from nodulant.checks.spec_rules import work_checks
from nodulant.checks.survey_rules import survey_checks
from nodulant.evaluate.brackets.mount_follows import follow_checks
from nodulant.evaluate.brackets.own_forces import own_force_figures, under_own_forces
from nodulant.evaluate.clearances.along import Along, along_checks, along_rows, cut_locked
from nodulant.evaluate.evaluation import Evaluation, Figure, InvalidInputs, Strip, Want
from nodulant.evaluate.heights import height_checks, heights, standing
from nodulant.evaluate.left_out import left_out
from nodulant.evaluate.rails.axle import AxleSide, axle_checks, axle_sides
from nodulant.evaluate.rails.draw import axle_drawing, rail_drawing, section_drawing, strip
from nodulant.evaluate.rails.figures import figures
from nodulant.evaluate.rails.interim import deflections, interim_checks, interim_frames
from nodulant.evaluate.rails.mirrored import alike, mirrored, right_of
from nodulant.evaluate.rails.space import Space, frame_in_space, space_figures
from nodulant.evaluate.rails.taken_along import taken_along
from nodulant.evaluate.suspensions.link_readings import equal_checks, link_readings
from nodulant.evaluate.suspensions.travel import (
    axle_travels,
    stock_travels,
    suspension_checks,
    suspension_studies,
    with_shifts,
)
from nodulant.evaluate.taped import taped_checks, taped_frame
from nodulant.frame.in_place import part_in_place
from nodulant.frame.model import STOCK, place_one, placed_on, planned_state, route_on
from nodulant.frame.ops.notches.notch import Notch
from nodulant.frame.parts import rail_here
from nodulant.frame.route import Route
from nodulant.frame.state import FrameState
from nodulant.frame.ties import planned_crossmembers
from nodulant.job.document import Inputs
from nodulant.job.riding import in_place
from nodulant.job.touched import completed, touched_axles
from nodulant.loads.cases import CASES, Case, in_force
from nodulant.materials import find_steel
from nodulant.parts.part import Part
from nodulant.parts.sides import LEFT_RIGHT, AxleName, Side
from nodulant.strength.fatigue import life_along
from nodulant.strength.rail import BESIDE_MM, RailComparison, compare_rail, missing_for_loads, missing_for_sections
from nodulant.strength.space import FrameComparison
from nodulant.survey.before_teardown import Reading, readings_before_teardown
from nodulant.survey.checklist import checklist
from nodulant.survey.states import in_state
from nodulant.survey.vehicle import Survey
from nodulant.suspension.study import Study
from nodulant.targets.drop import DropResult, add_up, stack_of


@dataclass
class _Side:
    """What was computed of one side."""

    planned: RailComparison | None = None
    built: RailComparison | None = None
    checks: list[Check] = field(default_factory=list)
    parts: list[Part] = field(default_factory=list)
    weld_mm: float = 0.0
    mass_kg: float = 0.0


def evaluate(inputs: Inputs, want: Want | None = None) -> Evaluation:
    """Evaluate ``inputs``; raises InvalidInputs with every problem and its JSON pointer."""
    want = want or Want()
    content = inputs.content_hash()
    _refuse_broken(inputs)
    stored, touched = inputs, touched_axles(inputs.survey, inputs.design)
    inputs = in_place(inputs)
    inputs = inputs.model_copy(update={"survey": completed(inputs.survey, touched)})
    as_loaded, inputs = inputs, inputs.model_copy(update={"survey": in_state(inputs.survey, want.load_state)})
    survey, entries = inputs.survey, inputs.as_built.entries
    every = suspension_studies(as_loaded)
    typed, inputs = inputs, under_own_forces(inputs, every)
    design = inputs.design
    drops: dict[AxleName, DropResult] = {a: add_up(stack_of(design.targets, a), a) for a in ("front", "rear")}
    drop = drops["rear"]
    states = [planned_state(design.operations)]
    if built := as_built_state(design.operations, entries):
        states.append(built)
    sides = _both_sides(inputs, states, want)
    axle = axle_sides(inputs, drop.towards_rail_mm)
    before = readings_before_teardown(as_loaded.survey, touched)
    asked = asked_readings(design.operations, survey, entries)
    links = link_readings(as_loaded)
    asked += links
    checks = _surveyed_and_read(inputs, before, axle, asked, rear_touched="rear" in touched)
    checks += [*equal_checks(links, entries, inputs), *(check for side in LEFT_RIGHT for check in sides[side].checks)]
    planned = {s: c.planned for s, c in sides.items() if c.planned}
    space = frame_in_space(inputs, planned, design.targets.drop_mm) if want.frame else Space(None, [])
    studies = every if want.travel else []
    checks += [*space.checks, *suspension_checks(as_loaded, studies), *follow_checks(as_loaded, studies)]
    routes = {side: _route(inputs, side) for side in LEFT_RIGHT}
    placed = tuple(planned["left"].placed) if "left" in planned else ()
    stands = standing(as_loaded, every, routes)
    checks += height_checks(as_loaded, stands, routes, placed, drops)
    interim = interim_frames(inputs) if want.interim else ()
    checks += interim_checks(inputs, interim)
    goes, along = _goes_along(inputs, every) if want.along else ([], ())
    checks += goes
    locked = not all(r.taken for r in before) and overridden(entries, TEARDOWN) is None
    taped = taped_frame(inputs, routes)
    checks += taped_checks(inputs, taped)
    parts = tuple(part for side in LEFT_RIGHT for part in _in_place(sides[side], routes[side]))
    judged = order(
        [_where_it_stands(check, routes) for check in by_rule(told_apart(checks, design.operations), design.rule)]
    )
    return Evaluation(
        content_hash=content,
        touched=tuple(sorted(touched)),
        checks=judged,
        groups=grouped(judged),
        left_out=left_out(want),
        before_teardown=tuple(before),
        checklist=checklist(as_loaded.survey, touched) if want.readings else (),
        teardown_locked=locked,
        drop=drop,
        notch_needed=tuple(a.needed for a in axle.values() if a.needed),
        figures=_figures(inputs, sides, axle)
        + _assumed(stored.survey, survey)
        + own_force_figures(typed, inputs)
        + space_figures(space.frames),
        rails=tuple(rail_drawing(inputs, side, routes) for side in LEFT_RIGHT),
        axle=tuple(axle_drawing(inputs, a, routes[a.side]) for a in axle.values() if a.sweep is not None),
        strips=_strips(inputs, sides, want, space.frames),
        parts=parts if want.parts else (),
        mass_added_kg=sum(sides[side].mass_kg for side in LEFT_RIGHT),
        section=section_drawing(inputs, want.section, sides[want.section.side].planned) if want.section else None,
        drop_front=drops["front"],
        heights=heights(as_loaded, every, stands),
        taken_along=taken_along(inputs, routes["left"], placed),
        interim=interim,
        deflection=deflections(space.frames, want.case) if want.strips else (),
        travel=with_shifts(axle_travels(as_loaded, studies), stored),
        stock_travel=stock_travels(as_loaded) if want.travel else (),
        weld_mm=sum(sides[side].weld_mm for side in LEFT_RIGHT),
        steps=_steps(inputs, locked, along, list(judged)) if want.steps else (),
        along=along,
        cut_locked=cut_locked(inputs, along),
        readings=tuple(asked) if want.readings else (),
        taped=taped if want.readings else None,
    )


def _surveyed_and_read(
    inputs: Inputs, before: list[Reading], axle: dict[Side, AxleSide], asked: list[AskedReading], *, rear_touched: bool
) -> list[Check]:
    """Checks of the survey, of the axle under the rails, and of what was read as built."""
    limits = inputs.design.limits
    underside = {side: a.underside_z for side, a in axle.items()}
    assumed = (*inputs.survey.assumed.values(), *inputs.design.assumed.values())
    checks = survey_checks(inputs.survey, before, underside, limits, rear_touched=rear_touched, assumed=assumed)
    under = {side: a for side, a in axle.items() if rear_touched or not a.missing}
    return checks + axle_checks(inputs, under) + reading_checks(asked, inputs.as_built.entries, limits)


def _goes_along(inputs: Inputs, studies: list[Study]) -> tuple[list[Check], tuple[Along, ...]]:
    """Checks and rows of what a raise, a step or a narrowing takes along."""
    judged = along_checks(inputs, studies)
    return [check for check, _ in judged.values()], along_rows(inputs, judged)


def _steps(inputs: Inputs, teardown_locked: bool, along: tuple[Along, ...], checks: list[Check]) -> tuple[Step, ...]:
    """The build plan, with what its locks wait for."""
    reversed_ = any(c.limit_id == "steer-sense" and c.verdict == "fails" for c in checks)
    locks = {TEARDOWN: teardown_locked, ALONG_STEP: cut_locked(inputs, along), SENSE_STEP: reversed_}
    more = (*((TAKE_ALONG,) if along else ()), *steering_steps(inputs.design.suspensions))
    locked = frozenset(step for step, on in locks.items() if on)
    return build_plan(inputs.design.operations, inputs.survey.features, inputs.as_built.entries, locked, more)


def _refuse_broken(inputs: Inputs) -> None:
    """Collect every problem of operations and the stack, so that all fields can show theirs."""
    operations = inputs.design.operations
    together = _together(inputs)
    problems = (_alone(inputs) or together) if together else []
    try:
        planned_crossmembers(inputs.survey, operations, inputs.design.crossmembers)
    except NodulantError as error:
        problems.append(error)
    try:
        add_up(inputs.design.targets)
    except NodulantError as error:
        problems.append(error)
    try:
        add_up(inputs.design.targets.front, "front")
    except NodulantError as error:
        problems.append(error)
    for root, held in (("design", inputs.design.suspensions), ("survey", inputs.survey.suspensions)):
        axles = [own.axle for own in held]
        if len(set(axles)) != len(axles):
            problems.append(
                NodulantError(
                    "two suspensions hold one axle",
                    field=f"/{root}/suspensions/1/axle",
                    found=" and ".join(axles),
                    acceptable="one of the front, one of the rear",
                )
            )
    ids = [op.id for op in operations]
    if len(set(ids)) != len(ids):
        problems.append(
            NodulantError(
                "two operations share an id",
                field="/design/operations",
                found=", ".join(ids),
                acceptable="different ids",
            )
        )
    if not problems:
        try:
            in_place(inputs)
        except NodulantError as error:
            problems.append(error)
    if problems:
        raise InvalidInputs(problems)


def _alone(inputs: Inputs) -> list[NodulantError]:
    """What keeps operations from being placed even by themselves, one problem each."""
    problems: list[NodulantError] = []
    for number, op in enumerate(inputs.design.operations):
        for side in LEFT_RIGHT:
            try:
                place_one(inputs.survey, op, number, side, STOCK)
            except NodulantError as error:
                problems.append(error)
                break
    return problems


def _together(inputs: Inputs) -> list[NodulantError]:
    for side in LEFT_RIGHT:
        try:
            placed_on(inputs.survey, inputs.design.operations, side, planned_state(inputs.design.operations))
        except NodulantError as error:
            return [error]
    return []


def _also(inputs: Inputs, want: Want) -> tuple[float, ...]:
    """Stations that both rails have besides their own: added crossmembers, and the section that is asked for."""
    known = planned_crossmembers(inputs.survey, inputs.design.operations, inputs.design.crossmembers)
    ties = tuple(c.x_mm for c in known if c not in inputs.survey.crossmembers)
    loads = inputs.design.loads
    ties += tuple(p.x_mm for p in loads.jacks) + tuple(p.x_mm for p in loads.stops)
    ties += tuple(p.x_mm for p in inputs.survey.stops)
    beside = tuple(x + step for x in ties for step in (-BESIDE_MM, 0.0, BESIDE_MM))
    return (*beside, want.section.x_mm) if want.section else beside


def _both_sides(inputs: Inputs, states: list[FrameState], want: Want) -> dict[Side, _Side]:
    """What was computed of both rails; of rails that are alike the right one is the left one's mirror image."""
    left = _one_side(inputs, "left", states, want)
    if left.planned is None or not alike(inputs, states):
        return {"left": left, "right": _one_side(inputs, "right", states, want)}
    right = right_of(inputs, left.planned)
    return {
        "left": left,
        "right": _Side(
            planned=right,
            checks=[mirrored(check) for check in left.checks],
            parts=[part for work in right.work for part in work.parts],
            weld_mm=sum(work.weld_mm for work in right.work),
            mass_kg=sum(work.mass_kg for work in right.work),
        ),
    }


def _one_side(inputs: Inputs, side: Side, states: list[FrameState], want: Want) -> _Side:
    out, changes, also = _Side(), inputs.design.limits, _also(inputs, want)
    rail = inputs.survey.rails.of(side)
    steel = find_steel(rail.steel_id)
    out.checks.append(weldable_check(steel.name, steel.weldable, side, changes))
    analysis = rail.analysis.carbon_equivalent() if rail.analysis else None
    out.checks.append(preheat_check(steel, analysis, side, changes))
    if missing := missing_for_sections(inputs.survey, side):
        out.checks += missing_capacity_checks(side, missing, changes)
        out.checks += missing_case_checks((bump_of(inputs),), missing, changes, side=side)
        return out
    for state in states:
        try:
            comparison = compare_rail(inputs.survey, inputs.design.operations, inputs.design.seats, side, state, also)
        except NodulantError as error:
            if state.name == "planned":
                raise InvalidInputs([error]) from error
            out.checks += missing_capacity_checks(side, ("/as_built/entries",), changes, "as-built", error.message)
            continue
        out.checks += capacity_checks(comparison, inputs.survey, changes)
        out.checks.append(
            bump_check(comparison, inputs.survey, bump_of(inputs), missing_for_loads(inputs.survey), changes)
        )
        out.checks += _notch_checks(inputs, side, comparison) + _own_checks(inputs, comparison)
        out.checks += clash_checks(comparison, changes)
        if state.name == "planned":
            out.planned, out.parts = comparison, [part for work in comparison.work for part in work.parts]
            out.mass_kg = sum(work.mass_kg for work in comparison.work)
            out.weld_mm = sum(work.weld_mm for work in comparison.work)
            out.checks += _detail_checks(inputs, side, comparison) if want.frame else []
        else:
            out.built = comparison
    return out


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


def _in_place(side: _Side, route: Route) -> list[Part]:
    """Parts of one side where their rail is in the planned frame."""
    if side.planned is None:
        return side.parts
    middle = {p.op.id: p.centre_mm for p in side.planned.placed}
    return [part_in_place(part, route, middle[part.operation]) for part in side.parts]


def _route(inputs: Inputs, side: Side) -> Route:
    return route_on(inputs.survey, inputs.design.operations, side, planned_state(inputs.design.operations))


def _where_it_stands(check: Check, routes: dict[Side, Route]) -> Check:
    """The check with its station on the planned frame, as everything is drawn."""
    x, side = check.governs.station_mm, check.id.split("@")[0].rsplit(":", 1)[-1]
    route = routes["right" if side == "right" else "left"]
    if x is None or not route.slides or (there := route.x_at(x)) == x:
        return check
    return check.model_copy(update={"governs": replace(check.governs, station_mm=there)})


def _strips(inputs: Inputs, sides: dict[Side, _Side], want: Want, frames: FrameComparison | None) -> tuple[Strip, ...]:
    if not want.strips:
        return ()
    shown = (want.strip_side,) if want.strip_side else LEFT_RIGHT
    found = [c for side in shown for c in (sides[side].planned, sides[side].built) if c is not None]
    return tuple(
        strip(c, want.case, frames, life_along(c, [d for w in c.work for d in w.details]) if want.frame else None)
        for c in found
    )


def _assumed(surveyed: Survey, used: Survey) -> tuple[Figure, ...]:
    """What was taken as the front's because nobody touches the rear axle."""
    basis = "not measured; nothing is done at the rear axle, and the frame's cases need it"
    rows = (
        ("assumed-rear-track", "Rear track, taken as the front's", surveyed.rear.track_mm, used.rear.track_mm),
        ("assumed-rear-hub", "Rear hub height, taken as the front's", surveyed.rear.hubs_z_mm(), used.rear.hubs_z_mm()),
    )
    return tuple(
        Figure(id=id_, name=name, value=now, unit="mm", basis=basis)
        for id_, name, was, now in rows
        if now is not None and was is None
    )


def _figures(inputs: Inputs, sides: dict[Side, _Side], axle: dict[Side, AxleSide]) -> tuple[Figure, ...]:
    return figures(inputs, [s.planned for s in sides.values() if s.planned], axle)
