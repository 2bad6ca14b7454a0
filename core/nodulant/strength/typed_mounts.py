"""Mounts beside the rails of which Travel says nothing: what the forces typed for them put on the frame.

A typed force is the mount's limit load. It acts at a bracket's bolt, or in the middle of a plate that stands out past the
rail; a plate under the rail is carried by the web over it. Upright it is a spring's and goes with the bump, across it is
a track bar's and goes with cornering; what pushes along twists nothing.
"""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass

from nodulant.frame.ops.mounts.bracket import Bracket
from nodulant.frame.ops.mounts.pad import Pad
from nodulant.frame.ops.union import Operation
from nodulant.frame.parts import Work
from nodulant.frame.route import Route
from nodulant.loads.plan import PlanInForce, Pull, Vector
from nodulant.parts.sides import LEFT_RIGHT, AxleName, Side
from nodulant.strength.rail import RailComparison
from nodulant.survey.vehicle import Survey


@dataclass(frozen=True)
class TypedMount:
    """Its name, and its force in the planned frame's place."""

    name: str
    pull: Pull


@dataclass(frozen=True)
class TypedMounts:
    """Those that springs press on, and those that track bars pull at."""

    springs: tuple[TypedMount, ...] = ()
    bars: tuple[TypedMount, ...] = ()


NO_MOUNTS = TypedMounts()


def typed_mounts(survey: Survey, rails: Mapping[Side, RailComparison], plan: PlanInForce) -> TypedMounts:
    """Those of springs and track bars that the suspensions do not describe."""
    sprung = {axle for axle, own in plan.axles.items() if own.springs or own.struck}
    linked = {axle for axle, own in plan.axles.items() if own.sideways or own.struck}
    springs, bars = list[TypedMount](), list[TypedMount]()
    for side in LEFT_RIGHT:
        for work in rails[side].work:
            at = work.on.span.centre_mm
            axle = _axle_of(survey, at)
            pulls = [_on_frame(side, rails[side].route, at, *found) for found in _borne(work)]
            own = [TypedMount(work.op.name, pull) for pull in pulls]
            springs += own if bears_spring(work.op) and axle not in sprung else []
            bars += own if bears_across(work.op) and axle not in linked else []
    return TypedMounts(tuple(springs), tuple(bars))


def bears_spring(op: Operation) -> bool:
    """Whether a spring presses on a mount beside the rail: a bracket whose force is upright more than anything, a plate further out or in."""
    if isinstance(op, Bracket):
        return abs(op.up_n) > max(abs(op.out_n), abs(op.along_n))
    return isinstance(op, Pad) and op.force_n > 0 and op.out_mm != 0


def bears_across(op: Operation) -> bool:
    """Whether a mount is one that a track bar pulls at: a bracket whose force is across more than anything."""
    return isinstance(op, Bracket) and abs(op.out_n) > max(abs(op.up_n), abs(op.along_n))


def _axle_of(survey: Survey, stock_x: float) -> AxleName:
    """The axle nearer to a place."""
    return "front" if stock_x < (survey.wheelbase_mm or 0.0) / 2 else "rear"


def _borne(work: Work) -> Iterator[tuple[float, float, Vector]]:
    """How far out from the vehicle's middle and how high a mount's force acts, mm, and the force: rearward, outward, up, N."""
    op, on = work.op, work.on
    away = 1.0 if on.rail.opens == "inward" else -1.0
    if isinstance(op, Bracket):
        outside = away if op.face == "outer" else -away
        face = on.rail.web_y_mm - (0.0 if op.face == "outer" else away * on.here.width)
        z = on.here.underside + op.height_mm + op.tabs.lift_mm
        yield face + outside * op.tabs.standoff_mm, z, (op.along_n, outside * op.out_n, op.up_n)
    if isinstance(op, Pad) and op.force_n > 0 and abs(op.out_mm) > on.here.width / 2:
        middle = on.rail.web_y_mm - away * on.here.width / 2
        yield middle + op.out_mm, on.here.underside - op.drop_mm, (0.0, 0.0, op.force_n)


def _on_frame(side: Side, route: Route, stock_x: float, y: float, z: float, force: Vector) -> Pull:
    (_, raised), sign = route.shift_at(stock_x), 1.0 if side == "right" else -1.0
    along, outward, up = force
    at = (route.x_at(stock_x), sign * (y - route.inward_at(stock_x)), z + raised)
    return Pull(at, (along, sign * outward, up))
