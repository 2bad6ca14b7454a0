"""What the user says of the loads: factors of the cases, a jack's place, stop pads, the tyres' grip."""

from dataclasses import dataclass
from typing import Annotated, Literal, Self

from pydantic import Field, model_validator

from nodulant.base.errors import InputError
from nodulant.base.model import Coordinate, Frozen, Name
from nodulant.parts.sides import AxleName, Side
from nodulant.units.inline import as_length

CaseId = Literal[
    "static",
    "bump",
    "twist",
    "brake",
    "corner",
    "launch",
    "jack",
    "jack-front",
    "stop",
    "stop-front",
    "kerb",
    "kerb-front",
    "bump-beside",
    "bump-brake",
    "brake-corner",
]


class CaseChange(Frozen):
    """A factor of one's own, with the reason that is shown beside it."""

    factor: Annotated[float, Field(gt=0, le=10)]
    reason: Name


class JackPoint(Frozen):
    """A jack under one rail, lifting that side's wheel of one axle off the ground."""

    x_mm: Coordinate
    side: Side = "left"
    axle: AxleName = "rear"


class StopPads(Frozen):
    """Where the bump stops of an axle strike the rails."""

    x_mm: Coordinate
    axle: AxleName = "rear"


Slope = Annotated[float, Field(ge=-3, le=3)]


class AxleLinks(Frozen):
    """Where an axle's links push along on the rails; heights above the datum plane.

    A slope is a link's rise per length rearward in side view: a sloping link pushes up or down too.
    """

    axle: Literal["front", "rear"] = "rear"
    upper_x_mm: Coordinate
    upper_z_mm: Coordinate
    lower_x_mm: Coordinate
    lower_z_mm: Coordinate
    upper_slope: Slope = 0.0
    lower_slope: Slope = 0.0

    @model_validator(mode="after")
    def _apart(self) -> Self:
        if self.upper_z_mm - self.lower_z_mm < 20:
            raise InputError(
                "the upper links must stand above the lower ones",
                field="upper_z_mm",
                found=f"{as_length(self.upper_z_mm - self.lower_z_mm)} apart",
                acceptable=f"{as_length(20)} or more",
            )
        return self


class LoadPlan(Frozen):
    """Changed factors and the places that some cases need; a case whose place is not given asks for it."""

    cases: dict[CaseId, CaseChange] = {}
    jacks: Annotated[tuple[JackPoint, ...], Field(max_length=2)] = ()
    stops: Annotated[tuple[StopPads, ...], Field(max_length=2)] = ()
    hole_mm: Annotated[float, Field(gt=0, le=1_000)] = 200.0
    """How deep the hole is that one wheel drops into."""
    links: Annotated[tuple[AxleLinks, ...], Field(max_length=2)] = ()
    """Links of the planned frame; an axle on leaf springs has none, its hangers take the push."""
    grip: Annotated[float, Field(gt=0, le=2)] = 1.0
    """Tyre force over its load, at the limit."""

    @model_validator(mode="after")
    def _one_an_axle(self) -> Self:
        for field, places in (("jacks", self.jacks), ("stops", self.stops)):
            if len({place.axle for place in places}) < len(places):
                raise InputError(
                    "this axle has its place already",
                    field=f"{field}/1/axle",
                    found=places[1].axle,
                    acceptable="one place for the front and one for the rear",
                )
        return self

    def jack(self, axle: AxleName) -> JackPoint | None:
        """Where a jack lifts one wheel of an axle."""
        return next((own for own in self.jacks if own.axle == axle), None)

    def stop(self, axle: AxleName) -> StopPads | None:
        """Where the stops of an axle strike."""
        return next((own for own in self.stops if own.axle == axle), None)


Vector = tuple[float, float, float]


@dataclass(frozen=True)
class Pull:
    """A force on the frame, N, at a place in the planned frame's axes, mm."""

    at: Vector
    force: Vector
    on_rail: bool = False
    """It is the rail's own, or a crossmember's that rests on it: it comes in through the shear centre."""

    def mirrored(self) -> "Pull":
        """The same of the other side."""
        (x, y, z), (fx, fy, fz) = self.at, self.force
        return Pull((x, -y, z), (fx, -fy, fz), self.on_rail)

    def plus(self, other: "Pull") -> "Pull":
        """Both forces at its place."""
        (ax, ay, az), (bx, by, bz) = self.force, other.force
        return Pull(self.at, (ax + bx, ay + by, az + bz), self.on_rail)

    def times(self, factor: float) -> "Pull":
        """The same place, another force."""
        fx, fy, fz = self.force
        return Pull(self.at, (factor * fx, factor * fy, factor * fz), self.on_rail)


class RollStiffness(Frozen):
    """How stiffly an axle rolls, N mm/rad; a guess where nobody knows it."""

    nmm_per_rad: Annotated[float, Field(gt=0)]
    guessed: bool


@dataclass(frozen=True)
class Push:
    """What links and springs put on the frame for a newton rearward on an axle: at its hubs, and for each mm above them."""

    hub_z_mm: float
    at_hubs: tuple[Pull, ...]
    each_mm_up: tuple[Pull, ...]
    drives: bool
    """Whether what carries the wheels takes the torque of drive as it takes that of braking; else a differential on the frame does."""

    def pulls(self, force_n: float, z_mm: float) -> tuple[Pull, ...]:
        """For a force at a height above the datum plane."""
        up = z_mm - self.hub_z_mm
        pairs = zip(self.at_hubs, self.each_mm_up, strict=True)
        return tuple(low.plus(high.times(up)).times(force_n) for low, high in pairs)


class AxleOnFrame(Frozen):
    """What an axle's own suspension puts on the frame, where it is known, and what the axle weighs besides."""

    struck: tuple[Pull, ...] = ()
    """Every link's end and spring in a strike of the right wheel, beyond standing."""
    push: Push | None = None
    springs: tuple[Pull, ...] = ()
    """Of a beam axle's coils or air springs for a newton of the load that they carry."""
    sideways: tuple[Pull, ...] = ()
    """Of a beam axle's links, track bar and springs for a newton to the right on its tyres, at the ground."""
    unsprung_kg: float = 0.0

    def resting(self) -> "AxleOnFrame":
        """Of an axle whose seats take its push and its strikes: what else it does."""
        return AxleOnFrame(springs=self.springs, sideways=self.sideways)


class PlanInForce(LoadPlan):
    """The plan with what the suspensions say."""

    axles: dict[AxleName, AxleOnFrame] = {}
    """As planned; an axle that the design leaves alone as it was surveyed."""
    stock_axles: dict[AxleName, AxleOnFrame] = {}
    stock_links: tuple[AxleLinks, ...] = ()
    """Those that were typed for an axle that the design leaves alone: they are stock's too."""
    rolls: dict[AxleName, RollStiffness] = {}
    """Of the planned axles; an axle that is left out is guessed from what it carries."""
    stock_rolls: dict[AxleName, RollStiffness] = {}
