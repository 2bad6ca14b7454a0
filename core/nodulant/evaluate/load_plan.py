"""The load plan in force: what the user gave, with the links of the design's own suspensions."""

import numpy as np

from nodulant.axles.layouts.live import ParallelFourLink, ThreeLink, TriangulatedFourLink
from nodulant.axles.points import Link, on_axle
from nodulant.axles.suspension import Suspension
from nodulant.job.document import Inputs
from nodulant.loads.carried import seats_take_push
from nodulant.loads.plan import AxleLinks, AxleOnFrame, PlanInForce, RollStiffness
from nodulant.parts.sides import FRONT_REAR, AxleName
from nodulant.suspension.on_frame import beyond_standing, push_along, pushed_sideways, springs_up
from nodulant.suspension.roll import roll_stiffness
from nodulant.suspension.study import Study, hub_height, study
from nodulant.targets.drop import towards_rail

APART_MM, STEEPEST = 20.0, 3.0


def plan_of(inputs: Inputs) -> PlanInForce:
    """``design.loads`` with an axle's links where the user gave none and a suspension says them, and what suspensions put on the frame."""
    design = inputs.design
    given = {links.axle for links in design.loads.links}
    found = [_links(inputs, own) for own in design.suspensions if own.axle not in given]
    said = {**dict(design.loads), "links": (*design.loads.links, *(links for links in found if links is not None))}
    studies = [
        study(inputs.survey, own, design.seats, towards_rail(design.targets, own.axle), design.loads.grip)
        for own in design.suspensions
    ]
    stock = [study(inputs.survey, own, (), 0.0, design.loads.grip) for own in inputs.survey.suspensions]
    before, after = ({s.suspension.axle: _on_frame(s) for s in own} for own in (stock, studies))
    stay = [axle for axle in FRONT_REAR if axle not in after and _left_alone(inputs, axle)]
    pushed = [axle for axle in stay if not seats_take_push(axle, design.seats or inputs.survey.seats)]
    stays = {axle: own if axle in pushed else own.resting() for axle, own in before.items() if axle in stay}
    return PlanInForce(
        **said,
        axles=stays | after,
        stock_axles=before,
        stock_links=tuple(own for own in design.loads.links if own.axle in pushed),
        rolls=_rolls(studies),
        stock_rolls=_rolls(stock),
    )


def _left_alone(inputs: Inputs, axle: AxleName) -> bool:
    """Whether an axle stays on its surveyed seats."""
    own, planned = inputs.survey.seats, inputs.design.seats or inputs.survey.seats
    on, stays = (sorted(s.x_mm for s in seats if s.axle == axle) for seats in (own, planned))
    return on == stays


def _on_frame(s: Study) -> AxleOnFrame:
    return AxleOnFrame(
        struck=beyond_standing(s, "kerb"),
        push=push_along(s),
        springs=springs_up(s),
        sideways=pushed_sideways(s),
        unsprung_kg=s.suspension.unsprung_kg or 0.0,
    )


def _rolls(studies: list[Study]) -> dict[AxleName, RollStiffness]:
    """Roll stiffness at ride height of every axle whose springs are known."""
    out: dict[AxleName, RollStiffness] = {}
    for s in studies:
        stiff = None if s.motion is None else roll_stiffness(s.motion, s.springs, s.suspension.anti_roll)
        if stiff is None or not np.isfinite(stiff[s.ride]) or stiff[s.ride] <= 0:
            continue
        per_rad = float(stiff[s.ride]) * 1000.0 * 180.0 / np.pi
        out[s.suspension.axle] = RollStiffness(nmm_per_rad=per_rad, guessed=False)
    return out


def _links(inputs: Inputs, own: Suspension) -> AxleLinks | None:
    layout = own.layout
    if not isinstance(layout, TriangulatedFourLink | ParallelFourLink | ThreeLink):
        return None
    upper, lower = layout.upper.frame, layout.lower.frame
    if upper.z_mm - lower.z_mm < APART_MM:
        return None
    return AxleLinks(
        axle=own.axle,
        upper_x_mm=upper.x_mm,
        upper_z_mm=upper.z_mm,
        lower_x_mm=lower.x_mm,
        lower_z_mm=lower.z_mm,
        upper_slope=_slope(inputs, own, layout.upper),
        lower_slope=_slope(inputs, own, layout.lower),
    )


def _slope(inputs: Inputs, own: Suspension, link: Link) -> float:
    """Rise per length rearward of a link at ride height; 0 where the hubs are not known or it stands upright."""
    high = hub_height(inputs.survey, own, towards_rail(inputs.design.targets, own.axle))
    x = 0.0 if own.axle == "front" else inputs.survey.wheelbase_mm
    if high is None or x is None:
        return 0.0
    end, start = on_axle(link.axle, (x, 0.0, high)), link.frame.xyz()
    along = end[0] - start[0]
    slope = (end[2] - start[2]) / along if abs(along) > 1.0 else 0.0
    return max(-STEEPEST, min(STEEPEST, slope))
