"""The axles that a job is about: by what lowers them, what holds them anew, and where the work on the rails is."""

from nodulant.base.errors import NodulantError
from nodulant.frame.ops.union import Operation
from nodulant.frame.place import resolve
from nodulant.job.document import Design
from nodulant.parts.sides import AxleName
from nodulant.survey.vehicle import Survey
from nodulant.targets.drop import Stack


def touched_axles(survey: Survey, design: Design) -> frozenset[AxleName]:
    """Front, rear or both, as was said and as is planned; the rear one where neither is, as most work begins there."""
    found: set[AxleName] = {*survey.about, *(own.axle for own in design.suspensions)}
    if _wanted(design.targets):
        found.add("rear")
    if _wanted(design.targets.front):
        found.add("front")
    found |= {axle for op in design.operations if (axle := nearest_axle(survey, op)) is not None}
    return frozenset(found) or frozenset({"rear"})


DEEP_MM = 150.0
"""An axle that comes up by six inches takes its wheel into the arch (common practice)."""


def deep_axles(design: Design) -> frozenset[AxleName]:
    """Axles whose wheels go up into their arches."""
    drops: dict[AxleName, float] = {"front": design.targets.front.drop_mm, "rear": design.targets.drop_mm}
    return frozenset(axle for axle, drop in drops.items() if drop >= DEEP_MM)


def touched_axle(survey: Survey, design: Design) -> AxleName:
    """The one that new work begins at: the front one where the job is about it alone."""
    return "front" if touched_axles(survey, design) == {"front"} else "rear"


def _wanted(stack: Stack) -> bool:
    return bool(stack.entries or stack.drop_mm)


def nearest_axle(survey: Survey, op: Operation) -> AxleName | None:
    """The axle on whose half of the wheelbase an operation stands; None where that is not known."""
    if survey.wheelbase_mm is None:
        return None
    try:
        x = resolve(op.anchor, survey.features)
    except NodulantError:
        return None
    return "front" if x < survey.wheelbase_mm / 2 else "rear"


def completed(survey: Survey, touched: frozenset[AxleName]) -> Survey:
    """The survey with what was not measured of the rear axle taken as the front's, where nobody touches the rear.

    The frame's cases load both axles; work at the front needs the rear's track, hub height and tyre only roughly.
    """
    if "rear" in touched:
        return survey
    rear, front = survey.rear, survey.front
    taken = {name: getattr(front, name) for name in LIKE_FRONT if getattr(rear, name) is None}
    known = {name: value for name, value in taken.items() if value is not None}
    return survey.model_copy(update={"rear": rear.model_copy(update=known)}) if known else survey


LIKE_FRONT = ("track_mm", "hub_z_left_mm", "hub_z_right_mm", "tyre", "loaded_radius_mm")
