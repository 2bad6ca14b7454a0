"""Where jacks lift, stops strike and wheels are struck, of the stock frame and of the planned one."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace

from nodulant.loads.carried import takes_push
from nodulant.loads.cases import Case
from nodulant.loads.kerb import StruckWheel
from nodulant.loads.plan import AxleLinks, JackPoint, PlanInForce, Pull, StopPads
from nodulant.parts.sides import AxleName
from nodulant.survey.vehicle import Seat, Survey

AXLES: tuple[AxleName, AxleName] = ("front", "rear")
PUSHED: Mapping[str, tuple[AxleName, ...]] = {
    "brake": AXLES,
    "brake-corner": AXLES,
    "bump-brake": AXLES,
    "launch": ("rear",),
    "kerb": ("rear",),
    "kerb-front": ("front",),
}
"""The axles that push along in a case."""


def pushless(seats: Sequence[Seat], links: Sequence[AxleLinks]) -> frozenset[AxleName]:
    """Axles of which it is not known how their push comes into the frame."""
    return frozenset(axle for axle in AXLES if not takes_push(axle, seats, links))


@dataclass(frozen=True)
class Places:
    """By axle; ``pulls`` are what links and springs put on the frame in a strike, where they are known."""

    jacks: Mapping[AxleName, JackPoint]
    stops: Mapping[AxleName, StopPads]
    wheels: Mapping[AxleName, StruckWheel]
    grip: float
    pulls: Mapping[AxleName, tuple[Pull, ...]] = field(default_factory=dict)
    pushless: frozenset[AxleName] = frozenset()
    """Axles of which it is not known how their push comes into the frame."""

    def knows(self, case: Case) -> bool:
        """Whether it knows where a case acts."""
        return case.axle in self.stops if case.id.startswith("stop") else self.knows_push(case)

    def knows_push(self, case: Case) -> bool:
        """Whether it knows how the axles' push comes into the frame, where a case has them push."""
        return bool(case.axle and self.pulls.get(case.axle)) or self.pushless.isdisjoint(PUSHED.get(case.id, ()))

    def planned(self, survey: Survey, plan: PlanInForce, seats: Sequence[Seat], lower_mm: float) -> "Places":
        """Those of the planned frame, which stands ``lower_mm`` lower over its axles."""
        return replace(
            self,
            stops={own.axle: own for own in plan.stops},
            pushless=pushless(seats, plan.links),
            wheels=_wheels(survey, plan, lower_mm),
            pulls={axle: strike.pulls for axle, strike in plan.struck.items()},
        )


def stock_places(survey: Survey, plan: PlanInForce) -> Places:
    """The stock frame is jacked where the planned one is, strikes its own surveyed stops and pushes through its own links."""
    stops: dict[AxleName, StopPads] = {own.axle: StopPads(x_mm=own.x_mm, axle=own.axle) for own in survey.stops}
    held = pushless(survey.seats, plan.stock_links)
    return Places({own.axle: own for own in plan.jacks}, stops, _wheels(survey, None, 0.0), plan.grip, pushless=held)


def _wheels(survey: Survey, plan: PlanInForce | None, lower_mm: float) -> dict[AxleName, StruckWheel]:
    out: dict[AxleName, StruckWheel] = {}
    for name in AXLES:
        axle = survey.front if name == "front" else survey.rear
        hubs = [z for z in (axle.hub_z_left_mm, axle.hub_z_right_mm) if z is not None]
        if axle.track_mm is not None and hubs:
            unsprung = plan.struck[name].unsprung_kg if plan and name in plan.struck else 0.0
            out[name] = StruckWheel(name, axle.track_mm / 2, sum(hubs) / len(hubs) + lower_mm, unsprung)
    return out
