"""The frame in space where the survey allows it: checks, figures and the forces in what was put in."""

from dataclasses import dataclass

from nodulant.base.errors import NodulantError
from nodulant.checks.cap_rules import cap_checks
from nodulant.checks.case_rules import missing_case_checks, place_checks, space_checks
from nodulant.checks.check import Check
from nodulant.checks.frame_rules import frame_checks, twice_checks
from nodulant.checks.joint_rules import joint_checks
from nodulant.checks.local_rules import carried_checks, patch_checks
from nodulant.checks.opening_rules import opening_checks
from nodulant.checks.seam_rules import seam_checks
from nodulant.checks.slip_rules import slip_checks
from nodulant.evaluate.evaluation import Figure
from nodulant.evaluate.load_plan import plan_of
from nodulant.frame.ties import given_twice, planned_crossmembers
from nodulant.job.document import Inputs
from nodulant.job.touched import touched_axles
from nodulant.loads.cases import CASES, SPACE_CASES, in_force
from nodulant.loads.plan import PlanInForce
from nodulant.parts.joint import Joint
from nodulant.parts.sides import LEFT_RIGHT, Side
from nodulant.strength.rail import RailComparison, joints_of, missing_for_loads, missing_for_sections
from nodulant.strength.space import (
    FrameComparison,
    Planned,
    asked_cases,
    compare_frames,
    missing_for_space,
    wanted_place,
)

BASIS = "two rails and crossmembers in space; open stretches warp (Vlasov), held by their crossmembers' joints"


NO_FRAME = ("/survey/crossmembers",)
"""Where nothing is missing and the frame still has no solution: what ties the rails decides."""


@dataclass(frozen=True)
class Space:
    """What the frame in space gave; ``frames`` is None where it could not be solved."""

    frames: FrameComparison | None
    checks: list[Check]


def frame_in_space(inputs: Inputs, planned: dict[Side, RailComparison], drop_mm: float) -> Space:
    """Both frames in every case, with their checks; 'not computed' where an input is missing or nothing ties the rails."""
    survey, design, plan = inputs.survey, inputs.design, plan_of(inputs)
    walls = tuple(p for side in LEFT_RIGHT for p in missing_for_sections(survey, side))
    if walls:
        return Space(None, missing_case_checks(asked_cases(plan), missing_for_space(survey) + walls, design.limits))
    waits = tuple(case for case in in_force(SPACE_CASES, plan) if wanted_place(case, plan))
    joints = joints_of(planned)
    frames, checks = _solved(inputs, plan, planned, joints, drop_mm)
    if frames is not None:
        checks += patch_checks(survey, planned, frames, plan, design.limits)
    ties = planned_crossmembers(survey, design.operations, design.crossmembers)
    checks += twice_checks(given_twice(survey.crossmembers, design.crossmembers), design.limits)
    checks += carried_checks(design.seats, survey, ties, planned.values(), design.limits)
    rails: dict[str, RailComparison] = dict(planned.items())
    touched = touched_axles(survey, design)
    checks += place_checks(tuple(case for case in waits if (case.axle or "rear") in touched), design.limits)
    checks += joint_checks(joints, rails, frames, plan, design.limits)
    symmetric = in_force(CASES, plan)
    for rail in planned.values():
        checks += slip_checks(rail, missing_for_loads(survey), design.limits)
        lacks = missing_for_space(survey) or NO_FRAME
        checks += seam_checks(rail, frames, plan, lacks, design.limits)
        checks += opening_checks(rail, frames, symmetric, lacks, design.limits)
        checks += cap_checks(rail, frames, symmetric, lacks, design.limits)
    return Space(frames, checks)


def _solved(
    inputs: Inputs, plan: PlanInForce, planned: dict[Side, RailComparison], joints: tuple[Joint, ...], drop_mm: float
) -> tuple[FrameComparison | None, list[Check]]:
    survey, design = inputs.survey, inputs.design
    asked = asked_cases(plan)
    if missing := missing_for_space(survey):
        return None, missing_case_checks(asked, missing, design.limits)
    try:
        ties = planned_crossmembers(survey, design.operations, design.crossmembers)
        frames = compare_frames(survey, Planned(design.seats, ties, joints, plan, drop_mm), planned)
    except NodulantError as error:
        return None, missing_case_checks(asked, (error.field,), design.limits, error.message)
    judged = space_checks(frames, planned, survey, design.limits)
    return frames, [*judged, *frame_checks(frames, design.limits)]


def space_figures(frames: FrameComparison | None) -> tuple[Figure, ...]:
    """Torsional stiffness of both frames and the couple of the twist."""
    if frames is None:
        return ()
    rows = (("stock", frames.stock), ("planned", frames.planned))
    stiff = [
        Figure(
            id=f"twist-{name}",
            name=f"Torsional stiffness, {name}",
            value=frame.ladder.stiffness_nm_per_deg,
            unit="N m/deg",
            basis=BASIS,
        )
        for name, frame in rows
    ]
    ratio = Figure(
        id="twist-ratio",
        name="Torsional stiffness, planned over stock",
        value=frames.planned.ladder.stiffness_nm_per_deg / frames.stock.ladder.stiffness_nm_per_deg,
        unit="x",
        basis=BASIS,
    )
    t = frames.planned.twist
    bound = "the hole's depth and the springs in series with the frame" if t.bound == "hole" else "the wheel lifts off"
    couple = Figure(
        id="twist-couple",
        name="Couple of one wheel in a hole",
        value=t.couple_nmm / 1e6,
        unit="kN m",
        basis=f"bounded by: {bound}",
    )
    angle = Figure(
        id="twist-angle", name="Frame's own twist then", value=t.angle_deg, unit="deg", basis=f"bounded by: {bound}"
    )
    return (*stiff, ratio, couple, angle)
