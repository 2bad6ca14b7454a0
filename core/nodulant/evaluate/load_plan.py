"""The load plan in force: what the user gave, with the links of the design's own suspensions."""

from nodulant.axles.layouts.live import ParallelFourLink, ThreeLink, TriangulatedFourLink
from nodulant.axles.suspension import Suspension
from nodulant.job.document import Design
from nodulant.loads.plan import AxleLinks, LoadPlan

APART_MM = 20.0


def plan_of(design: Design) -> LoadPlan:
    """``design.loads`` with an axle's links where the user gave none and a suspension says them."""
    given = {own.axle for own in design.loads.links}
    found = [_links(own) for own in design.suspensions if own.axle not in given]
    added = tuple(links for links in found if links is not None)
    return design.loads.model_copy(update={"links": (*design.loads.links, *added)}) if added else design.loads


def _links(own: Suspension) -> AxleLinks | None:
    layout = own.layout
    if not isinstance(layout, TriangulatedFourLink | ParallelFourLink | ThreeLink):
        return None
    upper, lower = layout.upper.frame, layout.lower.frame
    if upper.z_mm - lower.z_mm < APART_MM:
        return None
    return AxleLinks(
        axle=own.axle, upper_x_mm=upper.x_mm, upper_z_mm=upper.z_mm, lower_x_mm=lower.x_mm, lower_z_mm=lower.z_mm
    )
