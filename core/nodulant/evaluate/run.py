"""Put the layers together for one set of inputs: the plan, what is found of it, what is judged, what is told."""

from collections.abc import Sequence
from dataclasses import dataclass, replace

from nodulant.asbuilt.compare import AskedReading, Known, as_built_state, asked_readings, reading_checks
from nodulant.asbuilt.log import overridden
from nodulant.build.general import ALONG_STEP, MOCK_UP_STEP, PARTS_STEP, TAKE_ALONG, TEARDOWN
from nodulant.build.hung_steps import hung_steps
from nodulant.build.lift_steps import rigging_step
from nodulant.build.plan import Shut, Step, build_plan
from nodulant.build.steering_steps import SENSE_STEP, steering_steps
from nodulant.checks.apart import told_apart
from nodulant.checks.check import Check, order
from nodulant.checks.groups import grouped
from nodulant.checks.rule import by_rule
from nodulant.checks.stand_rules import stand_checks
from nodulant.checks.survey_rules import survey_checks
from nodulant.evaluate.brackets.mount_follows import follow_checks
from nodulant.evaluate.brackets.own_forces import own_force_figures, under_own_forces
from nodulant.evaluate.clearances.along import Along, Judged, along_checks, along_rows, cut_locked
from nodulant.evaluate.evaluation import Evaluation, Figure, InterimFrame, SectionAt, SectionDrawing, Want
from nodulant.evaluate.gates.mock_up import height_missing, height_readings
from nodulant.evaluate.gates.parts_here import parts_needed
from nodulant.evaluate.gates.told_by_design import told_by_design
from nodulant.evaluate.heights import Standing, height_checks, heights, standing
from nodulant.evaluate.left_out import left_out, left_out_states
from nodulant.evaluate.rails.axle import AxleSide, axle_checks, axle_sides
from nodulant.evaluate.rails.both_sides import RailSide, both_sides, parts_in_place, strips
from nodulant.evaluate.rails.draw import axle_drawing, rail_drawing, section_drawing
from nodulant.evaluate.rails.figures import figures
from nodulant.evaluate.rails.interim import deflections, interim_checks, interim_frames
from nodulant.evaluate.rails.mirrored import alike
from nodulant.evaluate.rails.space import Space, frame_in_space, space_figures
from nodulant.evaluate.rails.taken_along import taken_along
from nodulant.evaluate.readings.frame_at import FrameRead, frame_checks, frame_read
from nodulant.evaluate.readings.joint_readings import joint_readings
from nodulant.evaluate.readings.kit_readings import kit_readings, misfits
from nodulant.evaluate.readings.link_readings import equal_checks, link_readings
from nodulant.evaluate.readings.points import FramePoints, Hub
from nodulant.evaluate.readings.stop_readings import stop_readings
from nodulant.evaluate.readings.straight_readings import straight_readings
from nodulant.evaluate.readings.thrust import thrust_checks
from nodulant.evaluate.readings.wheel_readings import wheel_readings
from nodulant.evaluate.readings.width_readings import width_readings
from nodulant.evaluate.refused import refuse_broken
from nodulant.evaluate.suspensions.travel import (
    axle_travels,
    stock_travels,
    suspension_checks,
    suspension_studies,
    with_shifts,
)
from nodulant.frame.added_ties import tie_changes, tie_works
from nodulant.frame.model import Placed, planned_state, route_on
from nodulant.frame.route import Route
from nodulant.job.document import Inputs
from nodulant.job.riding import in_place
from nodulant.job.touched import completed, deep_axles, touched_axles
from nodulant.parts.sides import LEFT_RIGHT, AxleName, Side
from nodulant.parts.specs import Act
from nodulant.supports.lift import lifted
from nodulant.supports.look import look
from nodulant.survey.before_teardown import Reading, readings_before_teardown
from nodulant.survey.checklist import checklist
from nodulant.survey.states import in_state
from nodulant.survey.vehicle import Survey
from nodulant.suspension.study import Study
from nodulant.targets.drop import DropResult, add_up, stack_of


@dataclass(frozen=True)
class Planned:
    """What every layer looks at: the inputs as stored, with everything where the plan puts it, and in the load state."""

    stored: Inputs
    touched: frozenset[AxleName]
    as_loaded: Inputs
    """In place, all masses aboard."""
    as_typed: Inputs
    """In the load state that is asked for."""
    inputs: Inputs
    """And under the suspensions' own forces."""
    studies: list[Study]
    """What holds the axles, through its travel."""

    @property
    def routes(self) -> dict[Side, Route]:
        """Where each rail runs in the plan."""
        own = self.inputs
        state = planned_state(own.design.operations)
        return {side: route_on(own.survey, own.design.operations, side, state) for side in LEFT_RIGHT}


@dataclass(frozen=True)
class Worked:
    """What the layers found, before anything is judged."""

    sides: dict[Side, RailSide]
    routes: dict[Side, Route]
    axle: dict[Side, AxleSide]
    drops: dict[AxleName, DropResult]
    space: Space
    stands: Standing
    before: tuple[Reading, ...]
    asked: list[AskedReading]
    links: list[AskedReading]
    hubs: list[AskedReading]
    interim: tuple[InterimFrame, ...]
    goes: Judged
    along: tuple[Along, ...]
    points: FramePoints
    frame_read: FrameRead

    @property
    def placed(self) -> tuple[Placed, ...]:
        """Operations where they stand on the left rail; none where it has no sections."""
        left = self.sides["left"].planned
        return tuple(left.placed) if left else ()


def evaluate(inputs: Inputs, want: Want | None = None) -> Evaluation:
    """Evaluate ``inputs``; raises InvalidInputs with every problem and its JSON pointer."""
    want = want or Want()
    inputs = (inputs if want.as_built else inputs.as_planned()).of_shared_parts()
    refuse_broken(inputs)
    plan = _planned(inputs, want)
    found = _worked(plan, want)
    return _told(plan, found, _judged(plan, found, want), want)


def sections_at(inputs: Inputs, places: Sequence[SectionAt]) -> list[SectionDrawing | None]:
    """Sections before and after at several places of the planned rails, worked out once; None where there is no section.

    Raises InvalidInputs.
    """
    refuse_broken(inputs)
    want = Want(strips=False, frame=False)
    own = _planned(inputs, want).inputs
    sides = both_sides(own, [planned_state(own.design.operations)], want, tuple(at.x_mm for at in places))
    return [section_drawing(own, at, sides[at.side].planned) for at in places]


def _planned(stored: Inputs, want: Want) -> Planned:
    touched = touched_axles(stored.survey, stored.design)
    inputs = in_place(stored)
    as_loaded = inputs.model_copy(update={"survey": completed(inputs.survey, touched)})
    as_typed = as_loaded.model_copy(update={"survey": in_state(as_loaded.survey, want.load_state)})
    studies = suspension_studies(as_loaded)
    return Planned(stored, touched, as_loaded, as_typed, under_own_forces(as_typed, studies), studies)


def _worked(plan: Planned, want: Want) -> Worked:
    inputs, design, routes = plan.inputs, plan.inputs.design, plan.routes
    drops: dict[AxleName, DropResult] = {a: add_up(stack_of(design.targets, a), a) for a in ("front", "rear")}
    built = as_built_state(design.operations, inputs.as_built.entries)
    states = [planned_state(design.operations), *([built] if built else [])]
    sides = both_sides(inputs, states, want)
    rails = {s: c.planned for s, c in sides.items() if c.planned}
    known = Known(inputs.as_built.entries, design.limits, inputs.shop.style)
    links, hubs = link_readings(plan.as_loaded, known), height_readings(plan.as_loaded, routes, known)
    goes = along_checks(inputs, plan.studies) if want.along else {}
    points = FramePoints(inputs, routes, _hubs(plan.as_loaded, plan.studies))
    return Worked(
        sides=sides,
        routes=routes,
        axle=axle_sides(inputs, drops["rear"].towards_rail_mm, alike=alike(inputs)),
        drops=drops,
        space=frame_in_space(inputs, rails, design.targets.drop_mm) if want.frame else Space(None, []),
        stands=standing(plan.as_loaded, plan.studies, routes),
        before=readings_before_teardown(plan.as_loaded.survey, plan.touched, deep_axles(design)),
        asked=[]
        if not (want.readings or want.steps or known.taken)
        else [
            *asked_readings(design.operations, inputs.survey, known),
            *straight_readings(design.operations, known),
            *kit_readings(design.operations, [p for s in LEFT_RIGHT for p in sides[s].parts], known),
            *hubs,
            *links,
            *joint_readings(plan.as_loaded, plan.studies, routes, known),
            *width_readings(inputs, tuple(rails["left"].placed) if "left" in rails else (), routes, known),
            *wheel_readings(plan.as_loaded, plan.studies, known),
            *stop_readings(plan.studies, known),
        ],
        links=links,
        hubs=hubs,
        interim=interim_frames(inputs) if want.interim else (),
        goes=goes,
        along=along_rows(inputs, goes) if want.along else (),
        points=points,
        frame_read=frame_read(inputs, points),
    )


def _hubs(inputs: Inputs, studies: list[Study]) -> dict[str, Hub]:
    """Where the hubs of every axle that is designed are to stand; of one that is not, where they were surveyed."""
    own, out = inputs.survey, dict[str, Hub]()
    for name, axle, x in (("front", own.front, 0.0), ("rear", own.rear, own.wheelbase_mm)):
        z = axle.hubs_z_mm()
        if x is not None and z is not None and axle.track_mm is not None:
            out[f"hub-{name}"] = (x, axle.track_mm / 2, z)
    for s in studies:
        if s.setting is not None:
            out[f"hub-{s.suspension.axle}"] = (s.setting.hub[0], s.setting.half_track_mm, s.setting.hub[2])
    return out


def _judged(plan: Planned, found: Worked, want: Want) -> tuple[Check, ...]:
    """Every check by the job's rule, in order of urgency, where it stands on the planned frame."""
    inputs, studies = plan.inputs, plan.studies if want.travel else []
    checks = [
        *_surveyed_and_read(inputs, found, rear_touched="rear" in plan.touched),
        *equal_checks(found.links, inputs),
        *thrust_checks(found.asked, plan.studies, inputs.design.limits),
        *(check for side in LEFT_RIGHT for check in found.sides[side].checks),
        *found.space.checks,
        *suspension_checks(plan.as_loaded, studies),
        *follow_checks(plan.as_loaded, studies),
        *height_checks(plan.as_loaded, found.stands, found.routes, found.placed, found.drops),
        *interim_checks(inputs, found.interim),
        *(check for check, _ in found.goes.values()),
        *frame_checks(inputs, found.frame_read),
        *_standing_by(inputs),
    ]
    unasked = left_out_states(want)
    asked = [check for check in checks if check.state not in unasked]
    ruled = by_rule(told_apart(asked, inputs.design.operations), inputs.design.rule)
    return order([_where_it_stands(check, found.routes) for check in ruled])


def _standing_by(inputs: Inputs) -> list[Check]:
    """The vehicle on the stands that are placed; nothing where none are."""
    own = inputs.design
    if not own.supports:
        return []
    return stand_checks(look(inputs.survey, own.operations, own.supports, own.lifts), own.limits)


def _told(plan: Planned, found: Worked, checks: tuple[Check, ...], want: Want) -> Evaluation:
    """The answer: what was asked for of it."""
    inputs, sides, routes, axle = plan.inputs, found.sides, found.routes, found.axle
    locked = not all(r.taken for r in found.before) and overridden(inputs.as_built.entries, TEARDOWN) is None
    frames, at = found.space.frames, want.section
    ties = tie_works(inputs.survey, inputs.design.operations, inputs.design.crossmembers)
    return Evaluation(
        content_hash=plan.stored.content_hash(),
        touched=tuple(sorted(plan.touched)),
        checks=checks,
        groups=grouped(checks),
        left_out=left_out(want),
        left_out_states=left_out_states(want),
        before_teardown=found.before,
        checklist=checklist(plan.as_loaded.survey, plan.touched, deep_axles(inputs.design)) if want.readings else (),
        teardown_locked=locked,
        drop=found.drops["rear"],
        notch_needed=tuple(a.needed for a in axle.values() if a.needed),
        figures=figures(inputs, [s.planned for s in sides.values() if s.planned], axle)
        + _assumed(plan.stored.survey, inputs.survey)
        + own_force_figures(plan.as_typed, inputs)
        + space_figures(frames),
        rails=tuple(rail_drawing(inputs, side, routes, read=want.readings) for side in LEFT_RIGHT),
        axle=tuple(axle_drawing(inputs, a, routes[a.side]) for a in axle.values() if a.sweep is not None),
        strips=strips(sides, want, frames),
        parts=tuple(p for s in LEFT_RIGHT for p in parts_in_place(sides[s], routes[s])) if want.parts else (),
        mass_added_kg=sum(sides[side].mass_kg for side in LEFT_RIGHT) + sum(tie.mass_kg for tie in ties),
        section=section_drawing(inputs, at, sides[at.side].planned) if at else None,
        drop_front=found.drops["front"],
        heights=heights(plan.as_loaded, plan.studies, found.stands),
        taken_along=taken_along(inputs, routes["left"], found.placed),
        interim=found.interim,
        deflection=deflections(frames, want.case) if want.strips else (),
        travel=with_shifts(axle_travels(plan.as_loaded, plan.studies if want.travel else []), plan.stored),
        stock_travel=stock_travels(plan.as_loaded) if want.travel else (),
        weld_mm=sum(sides[side].weld_mm for side in LEFT_RIGHT) + sum(tie.weld_mm for tie in ties),
        steps=_steps(inputs, found, locked, list(checks)) if want.steps else (),
        parts_needed=parts_needed(inputs) if want.steps else (),
        along=found.along,
        cut_locked=cut_locked(inputs, found.along),
        readings=tuple(found.asked) if want.readings else (),
        taped=found.frame_read.taped if want.readings else None,
        frame_times=found.frame_read.times if want.readings else (),
        marks=found.points.marks if want.readings else (),
    )


def _surveyed_and_read(inputs: Inputs, found: Worked, *, rear_touched: bool) -> list[Check]:
    """Checks of the survey, of the axle under the rails, and of what was read as built."""
    limits, axle = inputs.design.limits, found.axle
    underside = {side: a.underside_z for side, a in axle.items()}
    assumed = (*inputs.survey.assumed.values(), *inputs.design.assumed.values())
    checks = survey_checks(inputs.survey, found.before, underside, limits, rear_touched=rear_touched, assumed=assumed)
    under = {side: a for side, a in axle.items() if rear_touched or not a.missing}
    return checks + axle_checks(inputs, under) + reading_checks(found.asked, limits)


def _steps(inputs: Inputs, found: Worked, teardown_locked: bool, checks: list[Check]) -> tuple[Step, ...]:
    """The build plan, with what its locks wait for."""
    reversed_ = any(c.limit_id == "steer-sense" and c.verdict == "fails" for c in checks)
    parts = parts_needed(inputs)
    wanted = [r.name for r in found.before if not r.taken] if teardown_locked else []
    away, short = [p.name for p in parts if not p.here], misfits(found.asked)
    locks = {
        TEARDOWN: _listed("readings that teardown destroys are missing", wanted),
        ALONG_STEP: "something that goes along has no clearance and no way out yet"
        if cut_locked(inputs, found.along)
        else "",
        SENSE_STEP: "the design steers the wheels the other way" if reversed_ else "",
        PARTS_STEP: _listed("not in hand, or not measured", away)
        or _listed("does not fit the rail as it is planned", short),
        MOCK_UP_STEP: height_missing(found.hubs),
    }
    own = inputs.design
    rigged = [(one, rigging_step(one)) for lift in own.lifts for one in (lifted(inputs.survey, lift),)]
    locks |= {step.key: "" if one.holds else f"{one.name}: {one.words}" for one, step in rigged}
    more = (
        *((TAKE_ALONG,) if found.along else ()),
        *steering_steps(own.suspensions),
        *hung_steps(own.suspensions),
        *(step for _, step in rigged),
    )
    plan = build_plan(
        inputs.survey,
        (*own.operations, *tie_changes(inputs.survey, own.operations, own.crossmembers)),
        inputs.as_built.entries,
        locks,
        more,
        hangs=bool(own.suspensions),
        parts=bool(parts or short),
        shut=shut_by_design(inputs, checks),
    )
    return told_by_design(inputs, plan)


def _listed(words: str, names: list[str]) -> str:
    """Why something waits, with what it waits for; empty where that is nothing."""
    if not names:
        return ""
    more = f" and {len(names) - MOST_NAMED} more" if len(names) > MOST_NAMED else ""
    return f"{words}: {', '.join(names[:MOST_NAMED])}{more}"


MOST_NAMED = 6


def shut_by_design(inputs: Inputs, checks: list[Check]) -> Shut:
    """Welds on a cast housing, and cuts after which something tips on the stands that are placed."""
    failed = (c.id.split(":")[1] for c in checks if c.limit_id == "cast-clear" and c.verdict == "fails")
    out: dict[tuple[str | None, Act], str] = {
        (operation, "welds-axle"): "it would be welded to a cast housing" for operation in failed
    }
    own = inputs.design
    if own.supports:
        for m in look(inputs.survey, own.operations, own.supports, own.lifts).moments:
            if m.operation and not m.holds:
                words = "; ".join(s.words for s in m.stands if not s.holds)
                out[m.operation, "cuts"] = f"on the stands that are placed {words} after it"
    return out


def _where_it_stands(check: Check, routes: dict[Side, Route]) -> Check:
    """The check with its station on the planned frame, as everything is drawn."""
    x, side = check.governs.station_mm, check.id.split("@")[0].rsplit(":", 1)[-1]
    route = routes["right" if side == "right" else "left"]
    if x is None or not route.slides or (there := route.x_at(x)) == x:
        return check
    return check.model_copy(update={"governs": replace(check.governs, station_mm=there)})


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
