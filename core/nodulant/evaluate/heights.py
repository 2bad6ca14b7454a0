"""How high the vehicle stands on both axles: stock, planned, in every load state; its rake; its rails over the ground.

Heights are of the rails' straight part (the datum plane where it runs between the axles) above the
ground under each axle. In the frame's axes the segment of the datum stays, so the straight part
may have moved against it by a step: what counts is its own height.
"""

import math
from dataclasses import dataclass

import numpy as np

from nodulant.base.model import Frozen
from nodulant.checks.check import Check
from nodulant.checks.height_rules import cut_check, ground_checks, stands_check, wheelbase_check
from nodulant.checks.target_rules import drop_checks
from nodulant.evaluate.rails.taken_along import by_pocket
from nodulant.frame.in_place import lying_in_place
from nodulant.frame.model import Placed, planned_state
from nodulant.frame.route import Route
from nodulant.frame.seen import rail_seen
from nodulant.job.document import Inputs
from nodulant.job.touched import touched_axles
from nodulant.parts.sides import FRONT_REAR, LEFT_RIGHT, AxleName, LoadState, Side
from nodulant.survey.states import LOAD_STATES
from nodulant.suspension.study import Study
from nodulant.targets.drop import CausedEntry, DropResult, add_up, stack_of


class StateHeights(Frozen):
    """Straight part of the rails above the ground at both axles in a load state, mm, and rake, degrees nose down; None where not known."""

    state: LoadState
    front_mm: float | None
    rear_mm: float | None
    rake_deg: float | None


class Heights(Frozen):
    """Stock, as planned, and in each load state; the lowest place of the rails over the ground, mm."""

    stock: StateHeights
    planned: StateHeights
    front_by: str
    """What the planned front height comes from."""
    rear_by: str
    states: tuple[StateHeights, ...]
    rail_mm: float | None
    rail_bump_mm: float | None


@dataclass(frozen=True)
class _Stood:
    """One axle as planned: station, ground in the frame's axes, straight part above it, bump; and what says so."""

    x: float
    ground: float | None
    height: float | None
    bump: float | None
    by: str
    study: Study | None


@dataclass(frozen=True)
class Standing:
    """Both axles as planned, and the lowest place of the rails over the ground (mm, station), standing and at full bump."""

    axles: dict[AxleName, _Stood]
    static: tuple[float, float] | None
    bump: tuple[float, float] | None


def standing(inputs: Inputs, studies: list[Study], routes: dict[Side, Route]) -> Standing:
    """Worked out once, for the heights and for their checks."""
    own = _stood(inputs, studies, routes)
    static, bump = (_over_ground(inputs, own, routes, at_bump=at) for at in (False, True))
    return Standing(own, static, bump)


def heights(inputs: Inputs, studies: list[Study], found: Standing) -> Heights:
    """Everything that is known of it."""
    stood, stock = found.axles, {a: _stock(inputs, a) for a in FRONT_REAR}
    base = inputs.survey.wheelbase_mm
    planned = {a: stood[a].height for a in FRONT_REAR}
    states = []
    for state in LOAD_STATES:
        rows = {a: _in_state(stood[a], state) for a in FRONT_REAR}
        if any(v is not None for v in rows.values()):
            states.append(_row(state, rows, base))
    rides: LoadState = next((s.suspension.rides_in for s in studies), "laden")
    return Heights(
        stock=_row(rides, stock, base),
        planned=_row(rides, planned, base),
        front_by=stood["front"].by,
        rear_by=stood["rear"].by,
        states=tuple(states),
        rail_mm=found.static[0] if found.static else None,
        rail_bump_mm=found.bump[0] if found.bump else None,
    )


def _named_apart(checks: list[Check], axle: AxleName, *, apart: bool) -> list[Check]:
    """With the axle in their names where both axles' stacks are told."""
    return [c.model_copy(update={"title": f"{c.title}, {axle}"}) for c in checks] if apart else checks


def height_checks(
    inputs: Inputs,
    found: Standing,
    routes: dict[Side, Route],
    placed: tuple[Placed, ...],
    drops: dict[AxleName, DropResult],
) -> list[Check]:
    """Stacks of both axles, each against what hubs, tyres and cuts say; rails against the ground."""
    limits, targets, out = inputs.design.limits, inputs.design.targets, []
    stood, touched = found.axles, touched_axles(inputs.survey, inputs.design)
    for axle in FRONT_REAR:
        stack, drop = stack_of(targets, axle), drops[axle]
        if axle in touched or stack.entries or stack.drop_mm:
            out += _named_apart(drop_checks(stack, drop, limits, axle), axle, apart=len(touched) > 1)
        before, own = _stock(inputs, axle), stood[axle]
        if own.study is not None and before is not None and own.height is not None:
            out.append(stands_check(axle, drop.total_mm, before - own.height, limits))
        amounts = {e.id: e.amount_mm for e in drop.entries}
        for mechanism, words, cut in (
            ("z-step", "step", _step(routes, own.x, _middle(inputs))),
            ("raise", "pocket", by_pocket(own.x, placed)),
        ):
            typed = [e for e in stack.entries if e.mechanism == mechanism and not isinstance(e, CausedEntry)]
            said = sum(amounts[e.id] for e in typed)
            if said:
                out.append(cut_check(axle, words, said, cut, limits))
    if (base := inputs.survey.wheelbase_mm) is not None:
        planned = _hub_line(stood["rear"], routes) - _hub_line(stood["front"], routes)
        if abs(planned - base) > SHIFTED_MM:
            out.append(wheelbase_check(base, planned, limits))
    missing = _missing(stood)
    if missing and "rear" not in touched and all(pointer.startswith("/survey/rear/") for pointer in missing):
        return out  # what is not asked of an axle that nobody touches is not missed
    return out + ground_checks(found.static, found.bump, missing, limits)


def _hub_line(stood: _Stood, routes: dict[Side, Route]) -> float:
    """Station of an axle's hubs as planned: its suspension's, else where the rails over it have gone, mean of both."""
    if stood.study is not None and stood.study.setting is not None:
        return stood.study.setting.hub[0]
    return stood.x + sum(routes[side].shift_at(stood.x)[0] for side in LEFT_RIGHT) / 2


SHIFTED_MM = 0.5


def _row(state: LoadState, by: dict[AxleName, float | None], base: float | None) -> StateHeights:
    front, rear = by["front"], by["rear"]
    rake = None
    if front is not None and rear is not None and base:
        rake = math.degrees(math.atan2(rear - front, base))
    return StateHeights(state=state, front_mm=front, rear_mm=rear, rake_deg=rake)


def _stock(inputs: Inputs, axle: AxleName) -> float | None:
    ground = (inputs.survey.front if axle == "front" else inputs.survey.rear).ground_z_mm()
    return None if ground is None else -ground


def _middle(inputs: Inputs) -> float:
    return (inputs.survey.wheelbase_mm or 0.0) / 2


def _lift(routes: dict[Side, Route], x: float) -> float:
    """How far the rails have gone up at a stock station in the frame's axes, mean of both."""
    return sum(float(routes[side].shift(np.array([x])).dz[0]) for side in LEFT_RIGHT) / 2


def _step(routes: dict[Side, Route], x: float, middle: float) -> float:
    return _lift(routes, x) - _lift(routes, middle)


def _stood(inputs: Inputs, studies: list[Study], routes: dict[Side, Route]) -> dict[AxleName, _Stood]:
    straight, targets = _lift(routes, _middle(inputs)), inputs.design.targets
    out: dict[AxleName, _Stood] = {}
    for axle in FRONT_REAR:
        x = 0.0 if axle == "front" else inputs.survey.wheelbase_mm or 0.0
        s = next((s for s in studies if s.suspension.axle == axle), None)
        if s is not None and s.setting is not None:
            ground = s.setting.hub[2] - s.setting.radius_mm
            by = "hubs and tyre of the planned suspension"
            out[axle] = _Stood(x, ground, straight - ground, s.suspension.bump_mm, by, s)
            continue
        stock = _stock(inputs, axle)
        height = None if stock is None else stock - add_up(stack_of(targets, axle), axle).total_mm
        bump = targets.bump_mm if axle == "rear" else targets.front.bump_mm
        out[axle] = _Stood(
            x, None if height is None else straight - height, height, bump, "the stock height less the stack", None
        )
    return out


def _in_state(own: _Stood, state: LoadState) -> float | None:
    """Height in a load state; None where the springs do not say, or stand on their stops."""
    if own.study is None or own.height is None:
        return None
    stand = next((w for w in own.study.stands if w.state == state), None)
    return None if stand is None or stand.travel_mm is None else own.height - stand.travel_mm


def _over_ground(
    inputs: Inputs, stood: dict[AxleName, _Stood], routes: dict[Side, Route], *, at_bump: bool
) -> tuple[float, float] | None:
    """Least height of the rails' undersides over the line between both tyres' feet, and its station."""
    front, rear = stood["front"], stood["rear"]
    if front.ground is None or rear.ground is None or inputs.survey.wheelbase_mm is None:
        return None
    lift = [0.0, 0.0]
    if at_bump:
        if front.bump is None or rear.bump is None:
            return None
        lift = [front.bump, rear.bump]
    slope = (rear.ground + lift[1] - front.ground - lift[0]) / (rear.x - front.x)
    best: tuple[float, float] | None = None
    for side in LEFT_RIGHT:
        seen = rail_seen(inputs.survey, side, routes[side])
        operations, planned = inputs.design.operations, planned_state(inputs.design.operations)
        flat = lying_in_place(inputs.survey, operations, side, planned, routes[side])
        corners = [(v.x, v.y) for _, outline in flat for v in outline.vertices]
        x = np.array([*seen.x, *(at for at, _ in corners)])
        gap = np.array([*seen.low, *(z for _, z in corners)]) - (front.ground + lift[0] + slope * (x - front.x))
        k = int(np.argmin(gap))
        if best is None or float(gap[k]) < best[0]:
            best = (float(gap[k]), float(x[k]))
    return best


def _missing(stood: dict[AxleName, _Stood]) -> tuple[str, ...]:
    out = [f"/survey/{a}/hub_z_left_mm" for a in FRONT_REAR if stood[a].ground is None]
    return tuple(out) or tuple("/design/targets/front/bump_mm" for a in FRONT_REAR if stood[a].bump is None)
