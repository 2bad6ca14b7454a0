"""A hard point as people measure it: by tape from a feature, a hub, the floor or a face of the rail, or from another joint.

A coordinate that was not measured stays as it is. Where a suspension rides with something the tape was
held on the vehicle as surveyed; where it is placed, on the planned frame. A point on the axle is measured on
the vehicle too and told from the hub line again.
"""

import math
from typing import Annotated, Literal

import numpy as np
from pydantic import BaseModel, Field

from nodulant.axles.points import HardPoint
from nodulant.axles.riding import PLACED, frame_points
from nodulant.axles.suspension import Suspension
from nodulant.base.errors import NotSolvable, UnknownReference
from nodulant.base.model import Coordinate, Frozen, Size
from nodulant.frame.model import planned_state, route_on
from nodulant.frame.route import Route, route_of
from nodulant.frame.seen import RailSeen, rail_seen
from nodulant.job.document import Inputs
from nodulant.parts.sides import Side

Name = Annotated[str, Field(max_length=120)]


class TapedAlong(Frozen):
    """Rearward of a hub line (``hub:front``, ``hub:rear``), a feature (``feature:<id>``) or a joint (``point:<path>``), mm."""

    of: Name
    mm: Coordinate


class TapedUp(Frozen):
    """Above the datum plane, the floor, the rail's underside or top at its station, or a joint, mm."""

    of: Name
    mm: Coordinate


class TapedAcross(Frozen):
    """To the right of the centre plane, or outward of the right rail's outer or inner face, mm; or to the right of a joint."""

    of: Name
    mm: Coordinate


class FromJoint(Frozen):
    """From another joint by a length and two readings of an angle finder, degrees."""

    point: Name
    length_mm: Size
    fall_deg: Annotated[float, Field(ge=-90, le=90)] = 0.0
    """How much it falls from that joint to this one, seen square to itself."""
    plan_deg: Annotated[float, Field(ge=-180, le=180)] = 0.0
    """How far it points outward of straight back, seen from above; 180 is straight ahead."""


class Taped(Frozen):
    """What was measured of a point."""

    along: TapedAlong | None = None
    up: TapedUp | None = None
    across: TapedAcross | None = None
    joint: FromJoint | None = None


On = Literal["frame", "axle"]


class _Vehicle:
    """The vehicle that the tape was held on, for one suspension: its hub line, rails and floor."""

    def __init__(self, inputs: Inputs, own: Suspension, *, before: bool) -> None:
        self.survey, self.own = inputs.survey, own
        operations = inputs.design.operations
        planned = own.rides == PLACED and not before
        side: Side = "right"
        route: Route = (
            route_on(self.survey, operations, side, planned_state(operations)) if planned else route_of((), 0.0)
        )
        self.rail: RailSeen = rail_seen(self.survey, side, route)

    def hub(self, axle: Literal["front", "rear"]) -> tuple[float, float]:
        """Station and height of an axle's hubs as surveyed; raises NotSolvable where a reading is missing."""
        surveyed = self.survey.front if axle == "front" else self.survey.rear
        x = 0.0 if axle == "front" else self.survey.wheelbase_mm
        z = surveyed.hubs_z_mm()
        if x is None or z is None:
            missing = "/survey/wheelbase_mm" if x is None else f"/survey/{axle}/hub_z_left_mm"
            raise NotSolvable("the hubs were not surveyed", field=missing, found="nothing", acceptable="a reading")
        return x, z

    def place(self, path: str) -> HardPoint:
        """A joint of the same suspension on the vehicle; raises UnknownReference where there is none."""
        found = frame_points(self.own).get(path)
        if found is not None:
            return found
        value: object = self.own
        for key in path.split("."):
            value = getattr(value, key, None) if isinstance(value, BaseModel) else None
        if not isinstance(value, HardPoint):
            raise UnknownReference(
                "there is no such joint",
                field="/taped",
                found=path,
                acceptable=", ".join(frame_points(self.own)) or "a point of the suspension",
            )
        x, z = self.hub(self.own.axle)
        return HardPoint(x_mm=value.x_mm + x, y_mm=value.y_mm, z_mm=value.z_mm + z)

    def along(self, told: TapedAlong) -> float:
        """A station."""
        kind, _, name = told.of.partition(":")
        if kind == "hub" and name in ("front", "rear"):
            return self.hub("front" if name == "front" else "rear")[0] + told.mm
        if kind == "feature":
            stations = {f.id: f.x_mm for f in self.survey.features}
            if name in stations:
                return float(np.interp(stations[name], self.rail.stock_x, self.rail.x)) + told.mm
        if kind == "point":
            return self.place(name).x_mm + told.mm
        raise _unknown("along", told.of, "hub:front, hub:rear, feature:<id> or point:<path>")

    def up(self, told: TapedUp, x: float) -> float:
        """A height at a station; raises NotSolvable for the floor where a hub or a tyre is not known."""
        column = {"rail-underside": self.rail.low, "rail-top": self.rail.high}.get(told.of)
        if column is not None:
            return float(np.interp(x, self.rail.x, column)) + told.mm
        if told.of == "datum":
            return told.mm
        if told.of == "floor":
            ground = self.survey.ground_z_mm()
            if ground is None:
                raise NotSolvable(
                    "the floor's height is not known",
                    field="/survey/rear/tyre",
                    found="nothing",
                    acceptable="hubs and tyres",
                )
            return ground + told.mm
        if told.of.startswith("point:"):
            return self.place(told.of.removeprefix("point:")).z_mm + told.mm
        raise _unknown("up", told.of, "datum, floor, rail-underside, rail-top or point:<path>")

    def across(self, told: TapedAcross, x: float) -> float:
        """How far to the right of the centre plane, at a station."""
        faces = np.stack([self.rail.web, self.rail.tip])
        column = {"rail-outer": faces.max(axis=0), "rail-inner": faces.min(axis=0)}.get(told.of)
        if column is not None:
            return float(np.interp(x, self.rail.x, column)) + told.mm
        if told.of == "centre":
            return told.mm
        if told.of.startswith("point:"):
            return self.place(told.of.removeprefix("point:")).y_mm + told.mm
        raise _unknown("across", told.of, "centre, rail-outer, rail-inner or point:<path>")


def _unknown(field: str, found: str, acceptable: str) -> UnknownReference:
    return UnknownReference(
        "it is measured from nothing", field=f"/taped/{field}/of", found=found, acceptable=acceptable
    )


def taped_point(inputs: Inputs, index: int, path: str, on: On, taped: Taped, before: bool) -> HardPoint:
    """Point ``path`` of suspension ``index`` with what was measured of it; raises UnknownReference and NotSolvable."""
    held = inputs.survey.suspensions if before else inputs.design.suspensions
    if not 0 <= index < len(held):
        raise UnknownReference(
            "there is no such suspension", field="/suspension", found=str(index), acceptable=f"0 to {len(held) - 1}"
        )
    vehicle = _Vehicle(inputs, held[index], before=before)
    now = vehicle.place(path)
    if (joint := taped.joint) is not None:
        there = _from_joint(vehicle.place(joint.point), joint)
    else:
        x = now.x_mm if taped.along is None else vehicle.along(taped.along)
        z = now.z_mm if taped.up is None else vehicle.up(taped.up, x)
        y = now.y_mm if taped.across is None else vehicle.across(taped.across, x)
        there = HardPoint(x_mm=x, y_mm=y, z_mm=z)
    hub_x, hub_z = vehicle.hub(held[index].axle) if on == "axle" else (0.0, 0.0)
    return HardPoint(x_mm=round(there.x_mm - hub_x, 3), y_mm=round(there.y_mm, 3), z_mm=round(there.z_mm - hub_z, 3))


def _from_joint(start: HardPoint, told: FromJoint) -> HardPoint:
    """Where a length ends that falls and points as read; outward is away from the centre plane."""
    fall, plan = math.radians(told.fall_deg), math.radians(told.plan_deg)
    level = told.length_mm * math.cos(fall)
    outward = -1.0 if start.y_mm < 0 else 1.0
    return HardPoint(
        x_mm=start.x_mm + level * math.cos(plan),
        y_mm=start.y_mm + outward * level * math.sin(plan),
        z_mm=start.z_mm - told.length_mm * math.sin(fall),
    )
