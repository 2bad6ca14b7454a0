"""Where jacks lift, stops strike and wheels are struck, of the stock frame and of the planned one."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace

from nodulant.loads.carried import seats_take_push
from nodulant.loads.cases import Case
from nodulant.loads.kerb import StruckWheel
from nodulant.loads.plan import AxleLinks, AxleOnFrame, JackPoint, PlanInForce, Pull, Push, StopPads
from nodulant.parts.sides import FRONT_REAR, AxleName
from nodulant.survey.vehicle import Seat, Survey

PUSHED: Mapping[str, tuple[AxleName, ...]] = {
    "brake": FRONT_REAR,
    "brake-corner": FRONT_REAR,
    "bump-brake": FRONT_REAR,
    "launch": ("rear",),
    "kerb": ("rear",),
    "kerb-front": ("front",),
}
"""The axles that push along in a case."""


def pushless(seats: Sequence[Seat], links: Sequence[AxleLinks]) -> frozenset[AxleName]:
    """Axles whose push neither links nor seats take: only their suspension can say how it comes into the frame."""
    linked = {own.axle for own in links}
    return frozenset(axle for axle in FRONT_REAR if axle not in linked and not seats_take_push(axle, seats))


def _pushes(on_frame: Mapping[AxleName, AxleOnFrame], axles: frozenset[AxleName]) -> dict[AxleName, Push]:
    return {axle: own.push for axle, own in on_frame.items() if own.push is not None and axle in axles}


@dataclass(frozen=True)
class Places:
    """By axle; ``pulls`` are what links and springs put on the frame in a strike, where they are known."""

    jacks: Mapping[AxleName, JackPoint]
    stops: Mapping[AxleName, StopPads]
    wheels: Mapping[AxleName, StruckWheel]
    grip: float
    pulls: Mapping[AxleName, tuple[Pull, ...]] = field(default_factory=dict)
    pushless: frozenset[AxleName] = frozenset()
    pushes: Mapping[AxleName, Push] = field(default_factory=dict)
    """What the suspensions say of the pushless axles."""

    def knows(self, case: Case) -> bool:
        """Whether it knows where a case acts."""
        return case.axle in self.stops if case.id.startswith("stop") else not self.push_wanted(case)

    def push_wanted(self, case: Case) -> tuple[AxleName, ...]:
        """The axles that push in a case and of which nothing says how that comes into the frame."""
        return tuple(a for a in PUSHED.get(case.id, ()) if a in self.pushless and not self._pushed(a, case))

    def _pushed(self, axle: AxleName, case: Case) -> bool:
        return axle in self.pushes or (case.axle is not None and bool(self.pulls.get(axle)))

    def planned(self, survey: Survey, plan: PlanInForce, seats: Sequence[Seat], lower_mm: float) -> "Places":
        """Those of the planned frame, which stands ``lower_mm`` lower over its axles."""
        held = pushless(seats, plan.links)
        return replace(
            self,
            stops={own.axle: own for own in plan.stops},
            wheels=_wheels(survey, plan, lower_mm),
            pulls={axle: own.struck for axle, own in plan.axles.items()},
            pushless=held,
            pushes=_pushes(plan.axles, held),
        )


def stock_places(survey: Survey, plan: PlanInForce) -> Places:
    """The stock frame is jacked where the planned one is, strikes its own surveyed stops and is pushed as its own axles push."""
    stops: dict[AxleName, StopPads] = {own.axle: StopPads(x_mm=own.x_mm, axle=own.axle) for own in survey.stops}
    jacks, held = {own.axle: own for own in plan.jacks}, pushless(survey.seats, plan.stock_links)
    pulls = {axle: own.struck for axle, own in plan.stock_axles.items() if axle in held}
    pushes = _pushes(plan.stock_axles, held)
    return Places(jacks, stops, _wheels(survey, None, 0.0), plan.grip, pulls, held, pushes)


def _wheels(survey: Survey, plan: PlanInForce | None, lower_mm: float) -> dict[AxleName, StruckWheel]:
    out: dict[AxleName, StruckWheel] = {}
    for name in FRONT_REAR:
        axle = survey.front if name == "front" else survey.rear
        hubs = [z for z in (axle.hub_z_left_mm, axle.hub_z_right_mm) if z is not None]
        if axle.track_mm is not None and hubs:
            unsprung = plan.axles[name].unsprung_kg if plan and name in plan.axles else 0.0
            out[name] = StruckWheel(name, axle.track_mm / 2, sum(hubs) / len(hubs) + lower_mm, unsprung)
    return out
