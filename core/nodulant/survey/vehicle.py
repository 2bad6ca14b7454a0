"""Everything a job knows about the vehicle before teardown.

A field that was not measured is ``None``; what depends on it is then 'not computed'.
"""

from typing import Annotated, Literal, Self

from pydantic import Field, field_validator, model_validator

from nodulant.axles.suspension import Suspension
from nodulant.base.errors import InputError
from nodulant.base.model import Assumed, Coordinate, Extra, Frozen, Id, Name, Size, Text, Typed
from nodulant.parts.sides import AxleName, LoadState, Side, Sides
from nodulant.parts.tyre import loaded_radius, parse_tyre
from nodulant.parts.wheel import Wheel
from nodulant.survey.arch import Arch
from nodulant.survey.crossmember import Crossmember
from nodulant.survey.in_the_way import InTheWay
from nodulant.survey.rail import Rail


class Feature(Frozen):
    """A named place on the frame that others are measured from."""

    id: Id
    name: Name
    kind: Literal[
        "axle-line", "hanger", "hole", "crossmember", "rail-end", "body-mount", "engine-mount", "steering", "other"
    ]
    side: Sides = "both"
    x_mm: Coordinate
    height_mm: Extra | None = None
    """Height of its centre above the rail's underside."""
    diameter_mm: Size | None = None


class Mass(Frozen):
    """A sprung mass carried by the frame: at one station or spread evenly over a run."""

    id: Id
    name: Name
    mass_kg: Annotated[float, Field(ge=0, le=20_000)]
    x_mm: Coordinate
    to_x_mm: Coordinate | None = None
    """Rear end of the run, when the mass is spread from ``x_mm`` to here."""
    z_mm: Coordinate | None = None
    """Height of its centre above the datum plane; braking and cornering need it."""
    aboard: LoadState = "bare"
    """The lightest load state that it is aboard in: bare frame (mock-up), empty, driver, laden."""

    @model_validator(mode="after")
    def _runs_rearward(self) -> Self:
        if self.to_x_mm is not None and self.to_x_mm <= self.x_mm:
            raise InputError(
                "the run must end behind its start",
                field="to_x_mm",
                found=f"{self.to_x_mm:g}",
                acceptable=f"more than {self.x_mm:g}",
            )
        return self


class Seat(Frozen):
    """Where an axle's load enters the frame: its station and its fixed share of the axle's load."""

    id: Id
    name: Name
    axle: AxleName
    x_mm: Coordinate
    share: Annotated[float, Field(gt=0, le=1)]


class Axle(Frozen):
    """One axle as measured at stock ride height, mm; heights are above the frame datum plane."""

    tyre: Annotated[str, Field(max_length=40)] | None = None
    loaded_radius_mm: Size | None = None
    track_mm: Size | None = None
    hub_z_left_mm: Coordinate | None = None
    hub_z_right_mm: Coordinate | None = None
    tube_diameter_mm: Annotated[float, Field(ge=20, le=400)] | None = None
    tube_gap_left_mm: Extra | None = None
    tube_gap_right_mm: Extra | None = None
    """From the top of the axle tube to the rail's underside."""
    pinion_angle_deg: Annotated[float, Field(ge=-30, le=30)] | None = None
    wheel: Wheel | None = None
    arch: Arch | None = None

    @field_validator("tyre")
    @classmethod
    def _known_tyre(cls, text: str | None) -> str | None:
        if text is not None:
            parse_tyre(text)
        return text

    def hub_z_mm(self, side: Side) -> float | None:
        """Hub centre above the datum plane on one side."""
        return self.hub_z_left_mm if side == "left" else self.hub_z_right_mm

    def arch_hub_z_mm(self) -> float | None:
        """Height at which the edges of its arches were measured; None where neither it nor a hub is known."""
        if self.arch is not None and self.arch.hub_z_mm is not None:
            return self.arch.hub_z_mm
        return self.hubs_z_mm()

    def hubs_z_mm(self) -> float | None:
        """Hubs above the datum plane as surveyed, mean of those that are known; None where neither is."""
        hubs = [z for z in (self.hub_z_left_mm, self.hub_z_right_mm) if z is not None]
        return sum(hubs) / len(hubs) if hubs else None

    def ground_z_mm(self) -> float | None:
        """Height of the ground against the datum plane: mean hub less the loaded radius, measured or estimated."""
        hubs = (self.hub_z_left_mm, self.hub_z_right_mm)
        if self.tyre is None and self.loaded_radius_mm is None:
            return None
        radius = (
            loaded_radius(parse_tyre(self.tyre), self.loaded_radius_mm).radius_mm
            if self.tyre
            else self.loaded_radius_mm
        )
        known = [hub for hub in hubs if hub is not None]
        return None if len(known) < 2 or radius is None else sum(known) / 2 - radius

    def tube_gap_mm(self, side: Side) -> float | None:
        """Gap from tube to rail on one side."""
        return self.tube_gap_left_mm if side == "left" else self.tube_gap_right_mm


class Rails(Frozen):
    """Left and right rail; they may differ."""

    left: Rail
    right: Rail

    def of(self, side: Side) -> Rail:
        """The rail of one side."""
        return self.left if side == "left" else self.right


class StockStop(Frozen):
    """Where the bump stops of one axle strike the rails, as surveyed."""

    x_mm: Coordinate
    axle: AxleName = "rear"


class Datum(Frozen):
    """What heights and stations are measured from, in the shop's own words."""

    plane: Name = "underside of the straight part of the rails"
    feature_id: Id


class Survey(Frozen):
    """The survey of one job; it serves all options."""

    vehicle: Name
    notes: Text = ""
    datum: Datum
    wheelbase_mm: Annotated[float, Field(ge=500, le=10_000)] | None = None
    front: Axle = Axle()
    rear: Axle = Axle()
    rails: Rails
    features: Annotated[tuple[Feature, ...], Field(min_length=1, max_length=400)]
    masses: Annotated[tuple[Mass, ...], Field(max_length=100)] = ()
    seats: Annotated[tuple[Seat, ...], Field(max_length=20)] = ()
    crossmembers: Annotated[tuple[Crossmember, ...], Field(max_length=60)] = ()
    stops: Annotated[tuple[StockStop, ...], Field(max_length=2)] = ()
    """Where the bump stops struck the rails before."""
    suspensions: Annotated[tuple[Suspension, ...], Field(max_length=2)] = ()
    """What held the axles before, hubs at their surveyed height: the planned ones are compared with them."""
    about: Annotated[tuple[AxleName, ...], Field(max_length=2)] = ()
    """The axles that the job is about, as was said at its start; what is planned adds to them."""
    in_the_way: InTheWay = ()
    """What was seen to stand near the work; nothing is known of its place until it is placed."""
    typed: dict[str, Typed] = {}
    assumed: Assumed = {}

    @property
    def weighs(self) -> bool:
        """Whether anything aboard weighs something; a mass of 0 kg is one that waits for its figure."""
        return any(mass.mass_kg > 0 for mass in self.masses)

    def ground_z_mm(self) -> float | None:
        """Height of the ground against the datum plane, mean of both axles; None where a hub or tyre is not known."""
        heights = [axle.ground_z_mm() for axle in (self.front, self.rear)]
        known = [z for z in heights if z is not None]
        return sum(known) / 2 if len(known) == 2 else None

    @model_validator(mode="after")
    def _axle_lines_follow_the_wheelbase(self) -> Self:
        """The line of each axle stands where its hubs are: derived, never a second figure beside the wheelbase."""
        base = self.wheelbase_mm
        if base is None:
            return self
        lines = [f for f in self.features if f.kind == "axle-line"]
        place: dict[str, float] = {}
        for x, own in (
            (0.0, [f for f in lines if f.x_mm < base / 2]),
            (base, [f for f in lines if f.x_mm >= base / 2]),
        ):
            if len(own) == 1 and own[0].x_mm != x:
                place[own[0].id] = x
        if place:
            moved = tuple(f.model_copy(update={"x_mm": place.get(f.id, f.x_mm)}) for f in self.features)
            object.__setattr__(self, "features", moved)
        return self

    @model_validator(mode="after")
    def _datum_exists(self) -> Self:
        ids = [feature.id for feature in self.features]
        if self.datum.feature_id not in ids:
            raise InputError(
                "the datum names a feature that is not there",
                field="datum/feature_id",
                found=self.datum.feature_id,
                acceptable="one of " + ", ".join(ids),
            )
        if len(set(ids)) != len(ids):
            raise InputError(
                "two features share an id", field="features", found=", ".join(ids), acceptable="different ids"
            )
        return self
