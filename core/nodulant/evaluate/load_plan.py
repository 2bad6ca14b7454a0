"""The load plan in force: what the user gave, with the links of the design's own suspensions."""

from nodulant.axles.layouts.live import ParallelFourLink, ThreeLink, TriangulatedFourLink
from nodulant.axles.points import Link, on_axle
from nodulant.axles.suspension import Suspension
from nodulant.job.document import Inputs
from nodulant.loads.plan import AxleLinks, PlanInForce
from nodulant.suspension.on_frame import beyond_standing
from nodulant.suspension.study import hub_height, study
from nodulant.targets.drop import towards_rail

APART_MM, STEEPEST = 20.0, 3.0


def plan_of(inputs: Inputs) -> PlanInForce:
    """``design.loads`` with an axle's links where the user gave none and a suspension says them, and what a strike puts on the frame."""
    design = inputs.design
    given = {links.axle for links in design.loads.links}
    found = [_links(inputs, own) for own in design.suspensions if own.axle not in given]
    said = {**dict(design.loads), "links": (*design.loads.links, *(links for links in found if links is not None))}
    rear = next((own for own in design.suspensions if own.axle == "rear"), None)
    if rear is None:
        return PlanInForce(**said)
    towards = towards_rail(design.targets, "rear")
    struck = beyond_standing(study(inputs.survey, rear, design.seats, towards, design.loads.grip), "kerb")
    return PlanInForce(**said, struck=struck, unsprung_kg=rear.unsprung_kg or 0.0)


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
