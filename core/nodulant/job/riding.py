"""Where everything stands in the plan: what rides with rails, body or a raised subframe goes where they go.

The document gives such points as they stood on the surveyed frame. ``in_place`` gives the same
inputs with everything where the plan puts it, in the frame's axes that hold the datum; searches
work there, and ``given_back`` takes what they found to the surveyed frame again.
"""

from dataclasses import dataclass
from typing import TypeVar

from pydantic import BaseModel

from nodulant.axles.points import HardPoint
from nodulant.axles.riding import BODY, PLACED, RAIL, frame_points, moved_on_frame
from nodulant.axles.suspension import Suspension
from nodulant.base.errors import UnknownReference
from nodulant.base.memo import remembered
from nodulant.clearance.obstacle import BoxShape, Obstacle
from nodulant.driveline.driveline import Driveline
from nodulant.frame.model import planned_state, route_on
from nodulant.frame.ops.union import Operation
from nodulant.frame.pose import STILL, Pose
from nodulant.frame.pose import Vector as Shift
from nodulant.frame.route import Route
from nodulant.job.caused import with_caused, with_stops
from nodulant.job.document import Design, Inputs
from nodulant.parts.sides import LEFT_RIGHT, Side
from nodulant.survey.vehicle import Survey
from nodulant.targets.drop import towards_rail

M = TypeVar("M", bound=BaseModel)


@dataclass(frozen=True)
class Plan:
    """How far the plan moves what rides with it."""

    routes: dict[Side, Route]
    carriers: dict[str, Pose]
    """What hangs on the rails and carries other things: pockets' subframes and subframes, by their operation's id."""
    middle_mm: float

    def shift(self, rides: str, at: Shift, field: str) -> Shift:
        """Of a point of the surveyed frame or of a carrier's bench; raises UnknownReference where its carrier is not there."""
        carrier = self.carriers.get(rides)
        if carrier is None:
            return self._with_rails(rides, at[0], at[1], field)
        there, rails = carrier.of(at), self._under(carrier, at[1])
        return (there[0] - at[0] + rails[0], there[1] - at[1] + rails[1], there[2] - at[2] + rails[2])

    def hub_shift(self, rides: str, at: Shift, field: str) -> Shift:
        """Of an axle that rides with something; one that comes with a donor's subframe stands where it is said to."""
        carrier = self.carriers.get(rides)
        if carrier is None:
            return self._with_rails(rides, at[0], at[1], field)
        moved, rails = carrier.shift(at), self._under(carrier, at[1])
        return (moved[0] + rails[0], moved[1] + rails[1], moved[2] + rails[2])

    def before(self, rides: str, point: HardPoint) -> HardPoint:
        """Where a point of the plan stood on the surveyed frame, or on its carrier's bench."""
        carrier = self.carriers.get(rides)
        if carrier is not None:
            x, y, z = self._under(carrier, point.y_mm)
            return _at(point, carrier.before((point.x_mm - x, point.y_mm - y, point.z_mm - z)))
        was = point
        # its own stretch of rail is found by going back and forth
        for _ in range(LOOKS):
            x, y, z = self._with_rails(rides, was.x_mm, point.y_mm, "/rides")
            was = _by(point, (-x, -y, -z))
        return was

    def _under(self, carrier: Pose, y_mm: float) -> Shift:
        """How far the rail that a carrier hangs on has moved: its sides go inward with it."""
        return self._of_rail(carrier.x_mm, y_mm)

    def _of_rail(self, x_mm: float, y_mm: float) -> Shift:
        route = self.routes["left" if y_mm < 0 else "right"]
        inward = 0.0 if y_mm == 0 else route.inward_at(x_mm) * (1 if y_mm < 0 else -1)
        dx, dz = route.shift_at(x_mm)
        return (dx, inward, dz)

    def _with_rails(self, rides: str, x_mm: float, y_mm: float, field: str) -> Shift:
        if rides == PLACED:
            return STILL
        if rides not in {RAIL, BODY}:
            raise UnknownReference(
                "it rides with something that is not in the plan",
                field=field,
                found=rides,
                acceptable=", ".join((RAIL, BODY, PLACED, *self.carriers)),
            )
        dx, inward, dz = self._of_rail(self.middle_mm if rides == BODY else x_mm, y_mm)
        return (dx, 0.0 if rides == BODY else inward, dz)


@remembered(4)
def plan_of(survey: Survey, operations: tuple[Operation, ...]) -> Plan:
    """What moves, and how far; raises InputError where an operation cannot be placed."""
    state = planned_state(operations)
    routes: dict[Side, Route] = {side: route_on(survey, operations, side, state) for side in LEFT_RIGHT}
    posed = {op.id: op.pose(survey.rails, survey.features) for op in operations}
    carriers = {own: pose for own, pose in posed.items() if pose is not None}
    return Plan(routes, carriers, (survey.wheelbase_mm or 0.0) / 2)


def in_place(inputs: Inputs) -> Inputs:
    """The same inputs with everything where it stands in the plan; raises UnknownReference and InputError."""
    survey, design = inputs.survey, _in_place(inputs.survey, inputs.design)
    arched = _arched(survey, inputs.design.operations)
    return (
        inputs
        if design is inputs.design and arched is survey
        else inputs.model_copy(update={"design": design, "survey": arched})
    )


@remembered(4)
def _arched(survey: Survey, operations: tuple[Operation, ...]) -> Survey:
    """The survey with its wheel arches where body or bed carries them in the plan."""
    if not operations:
        return survey
    plan, update = plan_of(survey, operations), dict[str, object]()
    for name, axle in (("front", survey.front), ("rear", survey.rear)):
        if axle.arch is None:
            continue
        dx, _, dz = plan.shift(axle.arch.rides, (axle.arch.middle_x_mm, 0.0, 0.0), f"/survey/{name}/arch/rides")
        if dx or dz:
            ends = {end: getattr(axle.arch, end) + dx for end in ("front_x_mm", "rear_x_mm")}
            low = axle.arch_hub_z_mm()
            heights = {"top_z_mm": axle.arch.top_z_mm + dz, "hub_z_mm": None if low is None else low + dz}
            moved = axle.arch.model_copy(update={**ends, **heights, "rides": PLACED})
            update[name] = axle.model_copy(update={"arch": moved})
    return survey.model_copy(update=update) if update else survey


@remembered(4)
def _in_place(survey: Survey, design: Design) -> Design:
    plan = plan_of(survey, design.operations)
    carriers = {own.axle: frozenset({own.rides, *own.rides_but.values()}) for own in design.suspensions}
    targets = with_caused(survey, design.operations, design.targets, carriers)
    update: dict[str, object] = {}
    if targets is not design.targets:
        update["targets"] = targets
        design = design.model_copy(update=update)
    if (loads := with_stops(survey, design.operations, design.loads)) is not design.loads:
        update["loads"] = loads
    if any(own.rides != PLACED for own in design.suspensions):
        update["suspensions"] = tuple(
            _hung(survey, design, plan, own, f"/design/suspensions/{k}") for k, own in enumerate(design.suspensions)
        )
    if any(thing.rides != PLACED for thing in design.obstacles):
        update["obstacles"] = tuple(
            _standing(thing, plan, f"/design/obstacles/{k}") for k, thing in enumerate(design.obstacles)
        )
    if design.driveline is not None and design.driveline.rides != PLACED:
        update["driveline"] = _shaft(design.driveline, plan)
    return design.model_copy(update=update) if update else design


def _hung(survey: Survey, design: Design, plan: Plan, own: Suspension, field: str) -> Suspension:
    """A suspension in the plan: each frame point goes with what it rides with, the hubs with the suspension's own."""
    if own.rides == PLACED:
        return own

    def move(path: str, point: HardPoint) -> HardPoint:
        return _by(point, plan.shift(own.rides_but.get(path, own.rides), point.xyz(), f"{field}/rides"))

    planned = moved_on_frame(own, move)
    axle = survey.front if own.axle == "front" else survey.rear
    x = 0.0 if own.axle == "front" else survey.wheelbase_mm
    high = axle.hubs_z_mm()
    dx, _, dz = plan.hub_shift(own.rides, (x or 0.0, 1.0, high or 0.0), f"{field}/rides")
    update: dict[str, object] = {"rides": PLACED, "rides_but": {}}
    if own.hub_z_mm is not None:
        update["hub_z_mm"] = own.hub_z_mm + dz
    elif high is not None and dz:
        update["hub_z_mm"] = high + towards_rail(design.targets, own.axle) + dz
    if x is not None and dx:
        update["hub_x_mm"] = (own.hub_x_mm if own.hub_x_mm is not None else x) + dx
    longer = _longer(survey, design, plan)
    if survey.wheelbase_mm is not None and own.wheelbase_mm is None and longer:
        update["wheelbase_mm"] = survey.wheelbase_mm + longer
    return planned.model_copy(update=update)


def _longer(survey: Survey, design: Design, plan: Plan) -> float:
    """How much longer the plan makes the wheelbase, mm: each axle goes with its suspension, a stock one with its rails."""
    moved = []
    for axle, x in (("front", 0.0), ("rear", survey.wheelbase_mm or 0.0)):
        rides = next((own.rides for own in design.suspensions if own.axle == axle), RAIL)
        moved.append(plan.hub_shift(rides, (x, 1.0, 0.0), "/design/suspensions/0/rides")[0])
    return moved[1] - moved[0]


def _standing(thing: Obstacle, plan: Plan, field: str) -> Obstacle:
    """A thing where it stands in the plan: it moves as one, by its middle."""
    body = thing.body
    middle = body.middle if isinstance(body, BoxShape) else _between(body.a, body.b)
    shift = plan.shift(thing.rides, middle.xyz(), f"{field}/rides")
    if isinstance(body, BoxShape):
        moved: object = body.model_copy(update={"middle": _by(body.middle, shift)})
    else:
        moved = body.model_copy(update={"a": _by(body.a, shift), "b": _by(body.b, shift)})
    return thing.model_copy(update={"body": moved, "rides": PLACED})


def _shaft(shaft: Driveline, plan: Plan) -> Driveline:
    def move(_: str, point: HardPoint) -> HardPoint:
        return _by(point, plan.shift(shaft.rides, point.xyz(), "/design/driveline/rides"))

    near = []
    for each in shaft.near:
        dx, _, dz = plan.shift(shaft.rides, (each.x_mm, 0.0, each.z_mm), "/design/driveline/rides")
        near.append(each.model_copy(update={"x_mm": each.x_mm + dx, "z_mm": each.z_mm + dz}))
    return moved_on_frame(shaft, move).model_copy(update={"near": tuple(near), "rides": PLACED})


def _by(point: HardPoint, shift: Shift) -> HardPoint:
    if shift == STILL:
        return point
    x, y, z = shift
    # a plan may carry a point past what may be typed: it is not judged again
    return point.model_copy(update={"x_mm": point.x_mm + x, "y_mm": point.y_mm + y, "z_mm": point.z_mm + z})


def _at(point: HardPoint, there: Shift) -> HardPoint:
    return point.model_copy(update=dict(zip(("x_mm", "y_mm", "z_mm"), there, strict=True)))


def _between(a: HardPoint, b: HardPoint) -> HardPoint:
    return HardPoint(x_mm=(a.x_mm + b.x_mm) / 2, y_mm=(a.y_mm + b.y_mm) / 2, z_mm=(a.z_mm + b.z_mm) / 2)


def shifts(stored: BaseModel, planned: BaseModel) -> dict[str, Shift]:
    """How far the plan has moved each frame point of a model, by its path; what stays is left out."""
    there = frame_points(planned)
    out = {}
    for path, point in frame_points(stored).items():
        now = there.get(path)
        if now is not None and now != point:
            out[path] = (now.x_mm - point.x_mm, now.y_mm - point.y_mm, now.z_mm - point.z_mm)
    return out


def given_back(found: M, stored: Inputs, index: int) -> M:
    """What a search found for suspension ``index`` in the plan, as the document gives it: on the surveyed frame."""
    own = stored.design.suspensions[index]
    planned = in_place(stored).design.suspensions[index]
    plan = plan_of(stored.survey, stored.design.operations)
    return found if planned is own else _back(found, own, planned, plan)


def _back(found: M, own: Suspension, planned: Suspension, plan: Plan) -> M:
    """Every suspension inside a result, taken back."""
    update: dict[str, object] = {}
    for name in type(found).model_fields:
        value: object = getattr(found, name)
        if isinstance(value, Suspension):
            update[name] = _surveyed(value, own, planned, plan)
        elif isinstance(value, tuple) and any(isinstance(v, BaseModel) for v in value):
            update[name] = tuple(_back(v, own, planned, plan) if isinstance(v, BaseModel) else v for v in value)
        elif isinstance(value, BaseModel):
            update[name] = _back(value, own, planned, plan)
    return found.model_copy(update=update) if update else found


def _surveyed(new: Suspension, own: Suspension, planned: Suspension, plan: Plan) -> Suspension:
    by = shifts(own, planned)

    def move(path: str, point: HardPoint) -> HardPoint:
        rides = own.rides_but.get(path, own.rides)
        if rides in plan.carriers:
            return plan.before(rides, point)
        x, y, z = by.get(path, STILL)
        return _by(point, (-x, -y, -z))

    update: dict[str, object] = {"rides": own.rides, "rides_but": own.rides_but}
    for name in ("hub_z_mm", "hub_x_mm"):
        was, at, now = getattr(own, name), getattr(planned, name), getattr(new, name)
        # a height that the search left as it was is the document's own again, also where it left it out
        update[name] = was if now == at or now is None or at is None else now - (at - was) if was is not None else now
    return moved_on_frame(new, move).model_copy(update=update)


def re_hung(inputs: Inputs, index: int, rides: str, path: str = "") -> Suspension:
    """Suspension ``index`` (or its one frame point at ``path``) riding with something else, standing where it stood.

    Raises UnknownReference where the carrier or the point is not there.
    """
    own = inputs.design.suspensions[index]
    now = in_place(inputs).design.suspensions[index]
    points = frame_points(own)
    if path and path not in points:
        raise UnknownReference(
            "there is no such point on the frame", field="/path", found=path, acceptable=", ".join(points)
        )
    if path:
        but = {k: v for k, v in own.rides_but.items() if k != path} | ({path: rides} if rides != own.rides else {})
        asked = own.model_copy(update={"rides_but": but})
    else:
        asked = own.model_copy(update={"rides": rides, "rides_but": {}})
    there = frame_points(now)
    plan = plan_of(inputs.survey, inputs.design.operations)

    def move(at: str, _: HardPoint) -> HardPoint:
        return plan.before(asked.rides_but.get(at, asked.rides), there[at])

    out = moved_on_frame(asked, move)
    axle = inputs.survey.front if own.axle == "front" else inputs.survey.rear
    x = 0.0 if own.axle == "front" else inputs.survey.wheelbase_mm
    dx, _, dz = plan.hub_shift(asked.rides, (x or 0.0, 1.0, axle.hubs_z_mm() or 0.0), "/rides")
    by_itself = (x, axle.hubs_z_mm(), towards_rail(inputs.design.targets, own.axle))
    return out.model_copy(update=_hubs_before(now, by_itself, dx, dz))


def _hubs_before(
    now: Suspension, by_itself: tuple[float | None, float | None, float], dx: float, dz: float
) -> dict[str, object]:
    """Hubs of the surveyed frame that stand in the plan where they stand now; left out where they are so by themselves."""
    line, high, lowered = by_itself
    own_z = None if high is None else high + lowered
    z = own_z if now.hub_z_mm is None else now.hub_z_mm
    x = line if now.hub_x_mm is None else now.hub_x_mm
    stored_z, stored_x = (None if z is None else z - dz), (None if x is None else x - dx)
    return {
        "hub_z_mm": None if _same(stored_z, own_z) else stored_z,
        "hub_x_mm": None if _same(stored_x, line) else stored_x,
    }


def _same(a: float | None, b: float | None) -> bool:
    return a is None or (b is not None and abs(a - b) < SAME_MM)


SAME_MM = 1e-6


def on_rails(inputs: Inputs, point: HardPoint) -> HardPoint:
    """A point of the plan as it lies on the surveyed rail at its station: where work on the rail is measured."""
    design = inputs.design
    return plan_of(inputs.survey, design.operations).before(RAIL, point) if design.operations else point


LOOKS = 4
"""Times that a stretch is looked for: a point behind two stretches needs as many."""
