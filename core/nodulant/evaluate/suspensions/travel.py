"""Suspensions of the design: their checks, and what the screen draws of them."""

import numpy as np

from nodulant.axles.suspension import Suspension
from nodulant.base.arrays import Columns, Rows, significant
from nodulant.base.errors import NodulantError
from nodulant.base.memo import remembered
from nodulant.base.model import Frozen
from nodulant.checks.check import Changes, Check, order
from nodulant.checks.column_rules import column_checks
from nodulant.checks.driveline_rules import driveline_checks
from nodulant.checks.end_rules import end_checks, leaf_checks
from nodulant.checks.hose_rules import hose_checks
from nodulant.checks.link_rules import length_of, link_checks, worst_of
from nodulant.checks.room_rules import half_shaft_checks, room_checks
from nodulant.checks.spring_rules import spring_checks
from nodulant.checks.steer_rules import steer_checks, unsteered_checks
from nodulant.checks.travel_rules import travel_checks
from nodulant.clearance.link_to_rail import RailBox
from nodulant.driveline.driveline import Driveline
from nodulant.evaluate.brackets.mounts import mounts
from nodulant.evaluate.steering.steer import steer_drawing
from nodulant.evaluate.steering.steer_facts import locks, steer_facts
from nodulant.evaluate.steering.steer_members import steer_members
from nodulant.evaluate.suspensions.arm_drawing import arms_turning
from nodulant.evaluate.suspensions.bar_drawing import bar_arms
from nodulant.evaluate.suspensions.clocking import clock_facts
from nodulant.evaluate.suspensions.holes_there import holes_of
from nodulant.evaluate.suspensions.key import key_checks
from nodulant.evaluate.suspensions.link_sizes import link_sizes
from nodulant.evaluate.suspensions.shaft import shaft_curves, shaft_members, shaft_of
from nodulant.evaluate.suspensions.travel_curves import curves
from nodulant.evaluate.suspensions.travel_drawing import AxleTravel, Fact, LinkForce, StandsAt, Touch, Turning
from nodulant.evaluate.suspensions.travel_facts import facts
from nodulant.evaluate.suspensions.travel_members import grips, members, members_at_rest
from nodulant.evaluate.suspensions.wheel_facts import arch_checks, wheel_facts
from nodulant.frame.in_place import solid_in_place
from nodulant.frame.model import placed_on, planned_state, route_on
from nodulant.frame.parts import work_on
from nodulant.frame.pose import STILL
from nodulant.frame.pose import Vector as Shift
from nodulant.frame.seen import rail_seen
from nodulant.job.document import Inputs
from nodulant.job.riding import in_place, shifts
from nodulant.linkage.mechanism import FRAME
from nodulant.linkage.rotation import rotation_vector
from nodulant.parts.sides import LEFT_RIGHT, Side
from nodulant.parts.solid import Solid
from nodulant.steering.study import steer_study
from nodulant.survey.checklist import reading_missing
from nodulant.survey.vehicle import Survey
from nodulant.suspension.contacts import contacts
from nodulant.suspension.forces import NAMES
from nodulant.suspension.motion import Motion
from nodulant.suspension.study import CLOSELY, GLANCE, LEVEL, Look, Stand, Study, study, tyre_on_wheel
from nodulant.suspension.tube import critical_n
from nodulant.targets.drop import towards_rail


class Moved(Frozen):
    """What a moved link changes: checks of the stage and the suspensions themselves."""

    checks: tuple[Check, ...]
    travel: tuple[AxleTravel, ...]


def moved(inputs: Inputs, *, glance: bool, only: int | None = None) -> Moved:
    """Only the suspensions, for a hand that drags a point; the rails stay as they were.

    At a ``glance`` nothing is judged or loaded: where everything stands, level, and its curves; of the
    ``only`` suspension that a hand moves, where one is named.
    """
    stored, inputs = inputs, in_place(inputs)
    if glance:
        d = inputs.design
        seen = [k for k in range(len(d.suspensions)) if only in (None, k)]
        drawn = tuple(_drawn(inputs, k, _study(inputs, d.suspensions[k], GLANCE)) for k in seen)
        return Moved(checks=(), travel=with_shifts(drawn, stored))
    studies = suspension_studies(inputs)
    travels = with_shifts(axle_travels(inputs, studies), stored)
    return Moved(checks=tuple(order(suspension_checks(inputs, studies))), travel=travels)


def with_shifts(travels: tuple[AxleTravel, ...], stored: Inputs) -> tuple[AxleTravel, ...]:
    """With how far the plan has moved each point from where the document gives it."""
    planned = in_place(stored).design
    if planned is stored.design:
        return travels
    by: dict[str, Shift] = {}
    for k, (was, now) in enumerate(zip(stored.design.suspensions, planned.suspensions, strict=True)):
        by |= {f"suspensions.{k}.{path}": shift for path, shift in shifts(was, now).items()}
    if stored.design.driveline is not None and planned.driveline is not None:
        by |= {f"driveline.{path}": s for path, s in shifts(stored.design.driveline, planned.driveline).items()}
    return tuple(
        t.model_copy(
            update={"grips": tuple(g.model_copy(update={"shift": list(by.get(g.path, STILL))}) for g in t.grips)}
        )
        for t in travels
    )


def suspension_studies(inputs: Inputs, look: Look = CLOSELY) -> list[Study]:
    """Every suspension of the design, studied; raises InputError where a drop stack cannot be solved."""
    return [_study(inputs, own, look) for own in inputs.design.suspensions]


def _study(inputs: Inputs, own: Suspension, look: Look) -> Study:
    d = inputs.design
    return study(inputs.survey, own, d.seats, towards_rail(d.targets, own.axle), d.loads.grip, look)


def stock_travels(inputs: Inputs) -> tuple[AxleTravel, ...]:
    """What held the axles before, at the surveyed ride height, with its own seats."""
    return _stock_travels(inputs.survey, inputs.design.loads.grip)


@remembered(4)
def _stock_travels(survey: Survey, grip: float) -> tuple[AxleTravel, ...]:
    studies = [study(survey, own, survey.seats, 0.0, grip, LEVEL) for own in survey.suspensions]
    return tuple(_axle_travel(index, s, None) for index, s in enumerate(studies))


def suspension_checks(inputs: Inputs, studies: list[Study]) -> list[Check]:
    """Checks of all of them and of the shaft, with pointers to their place in the design."""
    limits, out = inputs.design.limits, []
    boxes: dict[Side, RailBox] = {side: _box(inputs, side) for side in LEFT_RIGHT} if studies else {}
    for index, s in enumerate(studies):
        own = [*_by_itself(s, limits), *room_checks(s, boxes, limits)]
        at, to = f"/design/suspensions/{s.suspension.axle}", f"/design/suspensions/{index}"
        named = own if len(studies) == 1 else [_of_axle(c, s.suspension.axle) for c in own]
        out += [
            c.model_copy(update={"missing": tuple(p.replace(at, to, 1) for p in c.missing)}) if c.missing else c
            for c in named
        ]
    out += [*arch_checks(inputs, studies), *key_checks(inputs, studies)]
    if inputs.design.driveline is not None:
        rear = _rear(studies)
        out += driveline_checks(inputs.design.driveline, rear, shaft_of(inputs.design.driveline, rear), limits)
    return out


def _of_axle(check: Check, axle: str) -> Check:
    """With two axles a title says whose it is."""
    told = axle in check.title.lower()
    return check if told else check.model_copy(update={"title": f"{check.title}, {axle}"})


@remembered(8)
def _by_itself(s: Study, limits: Changes) -> tuple[Check, ...]:
    """Checks that need nothing but the study."""
    own = travel_checks(s, limits) + spring_checks(s, limits) + link_checks(s, limits)
    own += [*end_checks(s, limits), *leaf_checks(s, limits), *half_shaft_checks(s, limits)]
    q = steer_study(s)
    own += hose_checks(s, q, limits)
    if s.suspension.axle == "front" or s.suspension.steering is not None:
        own += unsteered_checks(s, limits) if q is None else [*steer_checks(q, limits), *column_checks(q, limits)]
    return tuple(own)


def _box(inputs: Inputs, side: Side) -> RailBox:
    """The planned rail of one side as a box along its stations, cuts not taken off."""
    route = route_on(inputs.survey, inputs.design.operations, side, planned_state(inputs.design.operations))
    seen = rail_seen(inputs.survey, side, route)
    return RailBox(seen.x, seen.low, seen.high, seen.tip, seen.web)


def _rear(studies: list[Study]) -> Study | None:
    return next((s for s in studies if s.suspension.axle == "rear"), None)


def axle_travels(inputs: Inputs, studies: list[Study]) -> tuple[AxleTravel, ...]:
    """Drawings and curves of all of them, with what they ask for and what the design has for them."""
    out = []
    for index, s in enumerate(studies):
        solids = solids_of(inputs, s)
        told = {
            "facts": facts(s) + clock_facts(inputs, s) + wheel_facts(inputs, s) + _lowest(s, solids),
            "mounts": mounts(inputs, s),
            "solids": solids,
            "holes": holes_of(inputs.design.operations, s.suspension),
            **_steered(inputs, s),
        }
        out.append(_drawn(inputs, index, s).model_copy(update=told))
    return tuple(out)


def _lowest(s: Study, solids: tuple[Solid, ...]) -> tuple[Fact, ...]:
    """The lowest bracket on the rails and on the axle over the ground, standing as planned."""
    if s.setting is None:
        return ()
    ground = s.setting.hub[2] - s.setting.radius_mm
    out = []
    for on, zero, words in (("frame", 0.0, "on the rails"), ("axle", s.setting.hub[2], "on the axle")):
        own = [(min(solid.z) + zero - ground, solid.name) for solid in solids if solid.on == on]
        if own:
            gap, name = min(own)
            told = f"{name}, at ride height; a jack and its head need room under it"
            out.append(Fact(name=f"Lowest bracket {words}, over the ground", value=gap, unit="mm", words=told))
    return tuple(out)


def _steered(inputs: Inputs, s: Study) -> dict[str, object]:
    """Figures of the steering; nothing where the axle is not steered."""
    q = steer_study(s)
    if q is None:
        return {}
    surveyed = inputs.survey.front if s.suspension.axle == "front" else inputs.survey.rear
    return {"steer_facts": steer_facts(q), "locks": locks(q, s.suspension.tyre or surveyed.tyre)}


def _drawn(inputs: Inputs, index: int, s: Study) -> AxleTravel:
    """Drawing and curves alone, the shaft with the rear axle."""
    own = _axle_travel(index, s, inputs.design.driveline if s.suspension.axle == "rear" else None)
    tyre = tyre_on_wheel(s.suspension, inputs.survey)
    return own if tyre is None else own.model_copy(update={"tyre_width_mm": tyre.section_width_mm})


def solids_of(inputs: Inputs, s: Study) -> tuple[Solid, ...]:
    """What the design's own brackets, mounts and plates near this axle fill in space, right side."""
    if s.setting is None:
        return ()
    survey, operations = inputs.survey, inputs.design.operations
    try:
        placed = placed_on(survey, operations, "right", planned_state(operations))
    except NodulantError:
        return ()
    route, out = route_on(survey, operations, "right", planned_state(operations)), []
    for work in work_on(survey, "right", placed):
        at = work.on.span.centre_mm
        if abs(route.x_at(at) - s.setting.hub[0]) < NEAR_MM:
            out += [solid_in_place(solid, route, at) for solid in work.solids]
    return tuple(out)


NEAR_MM = 1600.0
"""Work on the rails further from an axle than this is not its own."""


@remembered(8)
def _axle_travel(index: int, s: Study, driveline: Driveline | None) -> AxleTravel:
    own, m, q = s.suspension, s.motion, steer_study(s)
    head = {
        "axle": own.axle,
        "index": index,
        "name": own.name,
        "layout": own.layout.kind,
        "trouble": _trouble(s),
        "trouble_at": s.trouble.field if s.trouble else (s.missing[0] if s.missing else ""),
        "hub": list(s.setting.hub) if s.setting else None,
        "half_track_mm": s.setting.half_track_mm if s.setting else None,
        "radius_mm": s.setting.radius_mm if s.setting else None,
        "independent": own.layout.independent,
        "grips": grips(s, index, driveline),
        "links": link_sizes(s),
    }
    if m is None:
        none: list[float] = []
        rest = {"travel_mm": none, "there": [], "rolls_deg": none, "ends": (), "poses": [], "cranks": ()}
        return AxleTravel(**head, **rest, members=members_at_rest(s), curves=(), forces=())
    return AxleTravel(
        **head,
        travel_mm=significant(m.travel),
        there=m.there.tolist(),
        rolls_deg=significant(np.degrees(m.sweep.roll[_shown(m)])),
        ends=m.sweep.ends,
        poses=_poses(m),
        cranks=_cranks(own, m),
        members=members(s, m) + steer_members(s) + shaft_members(driveline, s),
        curves=curves(s, m, q) + shaft_curves(driveline, s, m, shaft_of(driveline, s)),
        steer=None if q is None else steer_drawing(q),
        forces=_forces(s),
        contacts=tuple(Touch(name=c.name, way=c.way, travel_mm=c.travel_mm, meant=c.meant) for c in contacts(s)),
        stands=tuple(_stands_at(w, own.bump_mm) for w in s.stands),
    )


def _stands_at(w: Stand, bump_mm: float) -> StandsAt:
    left = None if w.travel_mm is None else bump_mm - w.travel_mm
    return StandsAt(
        state=w.state,
        load_n=w.load_n,
        travel_mm=w.travel_mm,
        frequency_hz=w.frequency_hz,
        on_tyre_hz=w.on_tyre_hz,
        bump_left_mm=left,
    )


def _trouble(s: Study) -> str:
    if s.trouble is not None:
        return s.trouble.message
    return reading_missing(s.missing) if s.missing else ""


def _shown(m: Motion) -> Rows:
    """Columns of roll that the drawing gets: all but one degree, since it interpolates; level alone where no more was looked at."""
    every = np.arange(len(m.sweep.roll))
    return every[np.abs(np.abs(np.degrees(m.sweep.roll)) - 1.0) > 1e-6]


def _in_view(m: Motion, values: Columns) -> Columns:
    """Rows (travels x rolls, ..) at the shown rolls, the reference where the linkage does not exist."""
    grid = values.reshape(len(m.travel), len(m.sweep.roll), -1)[:, _shown(m)]
    return grid.reshape(-1, grid.shape[-1])


def _poses(m: Motion) -> list[list[float]]:
    pose, there = m.sweep.solved.pose, m.sweep.there.reshape(-1)
    rows = np.concatenate([pose.origin, rotation_vector(pose.rotation)], axis=1)
    rest = np.array([*m.setting.hub, 0.0, 0.0, 0.0])
    rounded: list[list[float]] = np.round(_in_view(m, np.where(there[:, None], rows, rest)), 5).tolist()
    return rounded


def _cranks(own: Suspension, m: Motion) -> tuple[Turning, ...]:
    there = m.sweep.there.reshape(-1)
    pieces = tuple(
        Turning(
            parent=piece.parent,
            point=list(piece.point),
            axis=list(piece.axis),
            angle=np.round(_in_view(m, np.where(there, m.sweep.solved.pose.turned[:, k], 0.0))[:, 0], 6).tolist(),
        )
        for k, piece in enumerate(m.sweep.compiled.mechanism.pieces)
    )
    bars = tuple(
        Turning(
            parent=FRAME,
            point=list(arm.root),
            axis=[0.0, 1.0, 0.0],
            angle=np.round(_in_view(m, arm.angle)[:, 0], 6).tolist(),
        )
        for arm in bar_arms(own, m)
    )
    return pieces + arms_turning(own, m) + bars


def _forces(s: Study) -> tuple[LinkForce, ...]:
    if not s.forces or s.motion is None:
        return ()
    names, out = s.motion.sweep.compiled.mechanism.names, []
    for named in s.suspension.layout.links():
        row, length = names.index(named.name), length_of(s, named)
        out.append(
            LinkForce(
                name=named.name,
                length_mm=length,
                cases={NAMES[case]: float(f.tension[row]) for case, f in s.forces.items()},
                buckles_n=critical_n(named.link.tube, length),
                worst=NAMES[worst_of(s, named.name)["most"][0]],
            )
        )
    return tuple(out)
