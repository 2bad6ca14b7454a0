"""One axle's suspension as designed."""

from typing import Annotated, Literal

from pydantic import AfterValidator, Field

from nodulant.axles.hose import Hose
from nodulant.axles.layouts.union import AnyLayout
from nodulant.axles.riding import PLACED, Rides
from nodulant.axles.springs import AntiRollBar, BumpStop, Damper, HalfShaft, Springs, Strap
from nodulant.axles.steering import Steering
from nodulant.base.model import Coordinate, Extra, Frozen, Name, Size, Thickness
from nodulant.parts.sides import AxleName, LoadState
from nodulant.parts.tyre import parse_tyre
from nodulant.parts.wheel import Wheel


def _read(size: str) -> str:
    parse_tyre(size)
    return size


TyreSize = Annotated[str, Field(max_length=40), AfterValidator(_read)]
Share = Annotated[float, Field(ge=0, le=1)]


class Suspension(Frozen):
    """What holds one axle, what it stands on and how far it is to move; wheel travel in mm."""

    axle: AxleName
    name: Name = "suspension"
    layout: AnyLayout
    springs: Springs | None = None
    damper: Damper | None = None
    """Beside an air or leaf spring; a coilover has its own."""
    stop: BumpStop | None = None
    strap: Strap | None = None
    anti_roll: AntiRollBar | None = None
    half_shaft: HalfShaft | None = None
    """Of an independent driven wheel."""
    hoses: Annotated[tuple[Hose, ...], Field(max_length=6)] = ()
    steering: Steering | None = None
    """Of an axle whose wheels are steered."""
    camber_deg: Annotated[float, Field(ge=-15, le=15)] = 0.0
    """At ride height straight ahead, top outward positive."""
    toe_deg: Annotated[float, Field(ge=-10, le=10)] = 0.0
    """Of each wheel at ride height straight ahead, toe-in positive."""
    bump_mm: Size = 90.0
    droop_mm: Size = 80.0
    track_mm: Size | None = None
    """Between the middles of the tyres as planned; where left out the surveyed one, less what a planned wheel's offset takes in."""
    tyre: TyreSize | None = None
    """Size string of the planned tyre; the surveyed one where left out."""
    wheel: Wheel | None = None
    """Planned wheel; the surveyed one where left out."""
    loaded_radius_mm: Size | None = None
    """Of the planned tyre, measured; an estimate from its size where left out."""
    tyre_n_per_mm: Annotated[float, Field(gt=10, le=2000)] | None = None
    """Rate of one tyre at its pressure, upright; None where nobody knows."""
    hub_z_mm: Coordinate | None = None
    """Hubs above the datum plane at the planned ride height; from survey and drop where left out."""
    hub_x_mm: Coordinate | None = None
    """Hub line behind the surveyed front axle's; where the survey has it where left out."""
    wheelbase_mm: Size | None = None
    """Between the hub lines as planned; the surveyed one where left out."""
    rides: Rides = PLACED
    """What its frame ends and its hubs go with; unless they stay as placed they are given on the surveyed frame."""
    rides_but: Annotated[dict[str, Rides], Field(max_length=40)] = {}
    """Frame points that go with something else, by their path in this suspension."""
    driven: bool = True
    rides_in: LoadState = "laden"
    """Load state in which the hubs stand at the planned ride height."""
    brake_share: Share = 0.35
    """Of all brake force, at the tyres of this axle."""
    unsprung_kg: Annotated[float, Field(ge=0, le=2000)] | None = None
    housing: Literal["steel", "cast", "not known"] = "not known"
    """What the middle of a live axle is made of: nothing is welded to a cast one."""
    housing_half_mm: Size | None = None
    """From the centre plane to where the right tube begins."""
    tube_wall_mm: Thickness | None = None
    """Wall of the axle's tubes."""
    pinion_deg: Annotated[float, Field(ge=-30, le=30)] | None = None
    """Pinion's angle to the rail datum at ride height, nose up positive."""
    belly_mm: Extra = 110.0
    """How far below the hubs a lower link may hang: about as far as the housing itself does."""
