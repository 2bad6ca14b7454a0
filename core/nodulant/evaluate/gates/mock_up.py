"""The height that brackets are made at: each wheel's centre under the rail's top edge, against the plan."""

from nodulant.asbuilt.compare import AskedReading, Known
from nodulant.frame.columns import rail_at
from nodulant.frame.route import Route
from nodulant.job.document import Inputs
from nodulant.parts.sides import LEFT_RIGHT, Side
from nodulant.parts.specs import reading
from nodulant.suspension.study import hub_height
from nodulant.targets.drop import towards_rail

LIMIT = "as-built-ride"


def height_readings(inputs: Inputs, routes: dict[Side, Route], known: Known) -> list[AskedReading]:
    """Of every suspension that is planned, left and right; none where hubs or wheelbase are not known."""
    out = []
    for own in inputs.design.suspensions:
        high = hub_height(inputs.survey, own, towards_rail(inputs.design.targets, own.axle))
        stock = 0.0 if own.axle == "front" else inputs.survey.wheelbase_mm
        if high is None or stock is None:
            continue
        for side in LEFT_RIGHT:
            at = stock if own.hub_x_mm is None else _surveyed(routes[side], own.hub_x_mm)
            underside, height, _, _ = rail_at(inputs.survey.rails.of(side), at)
            top = underside + height + routes[side].shift_at(at)[1]
            where = "below" if top >= high else "above"
            spec = reading(
                "hub-height" if top >= high else "hub-above",
                f"{own.axle.capitalize()} wheel's centre {where} the rail's top edge",
                abs(top - high),
                "the rail's top edge over the hub line, as it runs without a cut, plumb",
                LIMIT,
            )
            out.append(known.asked(f"{own.axle}-height", side, spec, f"{own.axle.capitalize()} ride height"))
    return out


STEPS = 4


def _surveyed(route: Route, x_mm: float) -> float:
    """The surveyed station that stands at a station of the planned frame."""
    at = x_mm
    for _ in range(STEPS):
        at -= route.x_at(at) - x_mm
    return at


def height_missing(asked: list[AskedReading]) -> str:
    """Why brackets wait: a height that was not read, or that its own check does not pass and nobody accepted."""
    for a in asked:
        if a.value is None:
            return f"{a.spec.name.lower()}, {a.side}, was not read"
        if a.answer != "holds" and a.decision != "accept":
            return f"{a.spec.name.lower()}, {a.side}: {a.words}"
    return ""
