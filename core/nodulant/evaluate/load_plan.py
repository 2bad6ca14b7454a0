"""The load plan in force: what the user gave, with the links of the design's own suspensions."""

import numpy as np

from nodulant.axles.layouts.live import ParallelFourLink, ThreeLink, TriangulatedFourLink
from nodulant.axles.points import Link, on_axle
from nodulant.axles.suspension import Suspension
from nodulant.job.document import Inputs
from nodulant.loads.carried import takes_push
from nodulant.loads.plan import AxleLinks, PlanInForce, RollStiffness, Strike
from nodulant.parts.sides import AxleName
from nodulant.survey.vehicle import Survey
from nodulant.suspension.on_frame import beyond_standing
from nodulant.suspension.roll import roll_stiffness
from nodulant.suspension.study import Study, hub_height, study
from nodulant.targets.drop import towards_rail

APART_MM, STEEPEST = 20.0, 3.0


def plan_of(inputs: Inputs) -> PlanInForce:
    """``design.loads`` with an axle's links where the user gave none and a suspension says them, and what a strike puts on the frame.

    An axle that the design leaves alone, on seats that take no push, pushes through its links as they were surveyed.
    """
    design = inputs.design
    given = {links.axle for links in design.loads.links}
    lowered = {own.axle: towards_rail(design.targets, own.axle) for own in design.suspensions}
    found = [_links(inputs.survey, own, lowered[own.axle]) for own in design.suspensions if own.axle not in given]
    as_surveyed = [_links(inputs.survey, own, 0.0) for own in inputs.survey.suspensions]
    links = [*design.loads.links, *(own for own in found if own is not None)]
    stock_links = [own for own in as_surveyed if own is not None]
    kept = [own for own in stock_links if own.axle not in lowered]
    links += [own for own in kept if not takes_push(own.axle, design.seats or inputs.survey.seats, links)]
    said = {**dict(design.loads), "links": tuple(links), "stock_links": tuple(stock_links)}
    studies = [
        study(inputs.survey, own, design.seats, lowered[own.axle], design.loads.grip) for own in design.suspensions
    ]
    stock = [study(inputs.survey, own, (), 0.0, design.loads.grip) for own in inputs.survey.suspensions]
    strikes = {
        s.suspension.axle: Strike(pulls=beyond_standing(s, "kerb"), unsprung_kg=s.suspension.unsprung_kg or 0.0)
        for s in studies
    }
    return PlanInForce(**said, struck=strikes, rolls=_rolls(studies), stock_rolls=_rolls(stock))


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


def _links(survey: Survey, own: Suspension, lowered_mm: float) -> AxleLinks | None:
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
        upper_slope=_slope(survey, own, layout.upper, lowered_mm),
        lower_slope=_slope(survey, own, layout.lower, lowered_mm),
    )


def _slope(survey: Survey, own: Suspension, link: Link, lowered_mm: float) -> float:
    """Rise per length rearward of a link at ride height; 0 where the hubs are not known or it stands upright."""
    high = hub_height(survey, own, lowered_mm)
    x = 0.0 if own.axle == "front" else survey.wheelbase_mm
    if high is None or x is None:
        return 0.0
    end, start = on_axle(link.axle, (x, 0.0, high)), link.frame.xyz()
    along = end[0] - start[0]
    slope = (end[2] - start[2]) / along if abs(along) > 1.0 else 0.0
    return max(-STEEPEST, min(STEEPEST, slope))
