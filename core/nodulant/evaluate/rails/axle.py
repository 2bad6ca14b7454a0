"""The rear axle of both sides: path, notch needed and clearance, where the survey allows."""

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np

from nodulant.asbuilt.compare import as_built_state
from nodulant.base.arrays import Columns
from nodulant.base.errors import InputError
from nodulant.checks.check import Check, Subject, not_computed
from nodulant.checks.target_rules import clearance_checks, notch_size_checks
from nodulant.clearance.tube_to_rail import REACH_MM, Clearances, Underneath, tube_to_rail
from nodulant.evaluate.rails.beside_axle import beside_axle
from nodulant.frame.in_place import lying
from nodulant.frame.model import Placed, placed_on, planned_state
from nodulant.frame.ops.notches.notch import Notch
from nodulant.frame.parts import work_on
from nodulant.job.document import Inputs
from nodulant.parts.limits import find_limit
from nodulant.parts.sides import Side
from nodulant.survey.vehicle import Axle
from nodulant.targets.axle_path import TubePath, tube_path
from nodulant.targets.drop import Targets
from nodulant.targets.notch_needed import NotchNeeded, notch_needed

STEP_MM = 2.0
BEYOND_MM = 60.0
"""How far past the wanted bump the sweep goes, to say how much travel there is."""


@dataclass(frozen=True)
class AxleSide:
    """One side of the rear axle; what could not be computed is None."""

    side: Side
    missing: tuple[str, ...]
    underside_z: float | None = None
    path: TubePath | None = None
    needed: NotchNeeded | None = None
    sweep: Clearances | None = None
    built_sweep: Clearances | None = None
    placed: tuple[Placed, ...] = ()


def clearance_needed(inputs: Inputs) -> float:
    """The limit in force for moving metal to fixed metal, mm."""
    return find_limit("metal-clearance", inputs.design.limits)[0].value


def axle_sides(inputs: Inputs, towards_rail_mm: float, *, alike: bool) -> dict[Side, AxleSide]:
    """Both sides at the planned ride height; where rails are ``alike`` and the tube hangs level, the right one is the left one's."""
    left, rear = _axle_side(inputs, "left", towards_rail_mm), inputs.survey.rear
    if not alike or left.needed is None or rear.tube_gap_mm("left") != rear.tube_gap_mm("right"):
        return {"left": left, "right": _axle_side(inputs, "right", towards_rail_mm)}
    needed = left.needed.model_copy(update={"side": "right"})
    built = None if left.path is None else _built_sweep(inputs, "right", left.path)
    return {"left": left, "right": replace(left, side="right", needed=needed, built_sweep=built)}


def _axle_side(inputs: Inputs, side: Side, towards_rail_mm: float) -> AxleSide:
    survey, rear = inputs.survey, inputs.survey.rear
    missing = _missing(inputs, side)
    underside = _underside(inputs, side, survey.wheelbase_mm)
    gap = rear.tube_gap_mm(side)
    if survey.wheelbase_mm is None or gap is None or rear.tube_diameter_mm is None:
        return AxleSide(side, missing, underside)
    targets, planned = inputs.design.targets, planned_state(inputs.design.operations)
    travel = _travel(targets)
    path = tube_path(targets.path, survey.wheelbase_mm, gap - towards_rail_mm, rear.tube_diameter_mm, travel)
    wanted = tube_path(
        targets.path,
        survey.wheelbase_mm,
        gap - towards_rail_mm,
        rear.tube_diameter_mm,
        travel[travel <= targets.bump_mm],
    )
    placed = placed_on(survey, inputs.design.operations, side, planned)
    liner, weld = liner_and_weld(placed, survey.wheelbase_mm)
    needed = notch_needed(side, wanted, clearance_needed(inputs), liner, weld, _one_wheel(inputs, side, rear))
    sweep = _sweep(inputs, side, path, placed)
    built = _built_sweep(inputs, side, path)
    return AxleSide(side, (), underside, path, needed, sweep, built, placed)


def _travel(targets: Targets) -> Columns:
    """Poses from full droop to beyond full bump; ride height and full bump are among them to the bit."""
    steps = np.arange(-targets.droop_mm, targets.bump_mm + BEYOND_MM + STEP_MM / 2, STEP_MM)
    return np.unique(np.concatenate([steps, [0.0, targets.bump_mm]]))


def _missing(inputs: Inputs, side: Side) -> tuple[str, ...]:
    survey, rear = inputs.survey, inputs.survey.rear
    need = {
        "/survey/wheelbase_mm": survey.wheelbase_mm,
        f"/survey/rear/tube_gap_{side}_mm": rear.tube_gap_mm(side),
        "/survey/rear/tube_diameter_mm": rear.tube_diameter_mm,
    }
    return tuple(pointer for pointer, value in need.items() if value is None)


def _underside(inputs: Inputs, side: Side, x_mm: float | None) -> float | None:
    if x_mm is None:
        return None
    stations = inputs.survey.rails.of(side).stations
    return float(np.interp(x_mm, [s.x_mm for s in stations], [s.underside_z_mm for s in stations]))


def _one_wheel(inputs: Inputs, side: Side, rear: Axle) -> float:
    """How much of one wheel's bump the tube rises at the rail, by proportion along the tube."""
    if rear.track_mm is None:
        return 1.0
    return min(1.0, 0.5 + inputs.survey.rails.of(side).web_y_mm / rear.track_mm)


def _over_axle(placed: Sequence[Placed], axle_x: float) -> list[tuple[Notch, float]]:
    return [
        (p.op, p.centre_mm)
        for p in placed
        if isinstance(p.op, Notch) and not p.op.from_above and abs(p.centre_mm - axle_x) < 500
    ]


def liner_and_weld(placed: Sequence[Placed], axle_x: float) -> tuple[float, float]:
    """Thickness of the liner and room for its weld in a cut over the axle, mm; usual ones while there is no cut."""
    cuts = _over_axle(placed, axle_x)
    if not cuts:
        return 6.0, 2.0
    notch = cuts[0][0]
    return (notch.liner.thickness_mm if notch.liner else 0.0), notch.weld_allowance_mm


def _sweep(inputs: Inputs, side: Side, path: TubePath, placed: Sequence[Placed]) -> Clearances:
    axle_x = inputs.survey.wheelbase_mm or 0.0
    beside = beside_axle(inputs, side, placed, axle_x, 2 * path.radius + REACH_MM)
    return tube_to_rail(path, _over_axle(placed, axle_x), axle_x, _underneath(inputs, side, placed), beside)


def _underneath(inputs: Inputs, side: Side, placed: Sequence[Placed]) -> list[Underneath]:
    """Plates under the lower flange, which a cut beside them does not open."""
    parts = lying(part for work in work_on(inputs.survey, side, placed) for part in work.parts)
    out = []
    for part in parts:
        x = [v.x for v in part.outline.vertices]
        if part.lower_face_mm is not None and part.lower_face_mm < 0:
            out.append(Underneath(min(x), max(x), part.thickness_mm))
    return out


def _built_sweep(inputs: Inputs, side: Side, path: TubePath) -> Clearances | None:
    from_log = as_built_state(inputs.design.operations, inputs.as_built.entries)
    if from_log is None or inputs.survey.wheelbase_mm is None:
        return None
    try:
        placed = placed_on(inputs.survey, inputs.design.operations, side, from_log)
    except InputError:
        return None  # the rail's own checks say which readings do not go together
    return _sweep(inputs, side, path, placed)


def axle_checks(inputs: Inputs, axle: dict[Side, AxleSide]) -> list[Check]:
    """Clearance, travel and notch size of both sides; 'not computed' where a reading is missing."""
    checks: list[Check] = []
    targets, changes, needed_mm = inputs.design.targets, inputs.design.limits, clearance_needed(inputs)
    for side, a in axle.items():
        if a.sweep is None or a.needed is None:
            subject = Subject(subject="axle-tube", side=side, stage="target")
            checks += [not_computed(rule, subject, a.missing, changes) for rule in ("metal-clearance", "bump-travel")]
            continue
        checks += clearance_checks(side, a.sweep, targets, changes, needed_mm)
        checks += notch_size_checks(a.needed, list(a.placed), changes)
        if a.built_sweep is not None:
            checks += clearance_checks(side, a.built_sweep, targets, changes, needed_mm, "as-built")
    return checks
