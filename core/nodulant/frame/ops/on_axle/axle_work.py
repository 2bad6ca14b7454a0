"""What is welded on an axle: never on a cast housing, only on its tubes.

Places are given from the hub line, the right side's: ``x_mm`` behind it, ``y_mm`` from the centre
plane, ``z_mm`` above the hubs; the left one mirrors it. The rails are not touched.
Forces at the joint under limit load, N: along (rearward), outward from the centre, up.
"""

from collections.abc import Iterable
from typing import Annotated, Literal

from pydantic import Field

from nodulant.base.model import Coordinate, Size, Thickness
from nodulant.base.shown import Shown
from nodulant.frame.here import OnRail, Span
from nodulant.frame.ops.at_place import AtPlace
from nodulant.frame.ops.fresh import Setting
from nodulant.frame.ops.plates.weld_legs import leg_checks
from nodulant.frame.place import Place, resolve
from nodulant.geometry.hull import XY
from nodulant.materials import find_steel, line_capacity
from nodulant.materials.weld import Line, group_load_n_per_mm, weld_group
from nodulant.parts.specs import CheckSpec
from nodulant.survey.rail import Rail
from nodulant.survey.vehicle import Feature

Force = Annotated[float, Field(ge=-500_000, le=500_000)]
TUBE_WALL_MM = 6.0
"""Wall of an axle tube where nobody has measured it, for the weld's own capacity."""
CAST = "Cast housings crack beside a weld: bolt to their bosses, or bridge them with a truss that is welded to the tubes only."


class AxleWork(AtPlace):
    """Base of everything on the axle."""

    place: Annotated[Place, Shown("Axle line")]
    """The axle line."""
    x_mm: Annotated[Coordinate, Shown("Behind the hubs")] = 0.0
    """Behind the hubs."""
    y_mm: Annotated[Coordinate, Shown("From the centre plane")]
    z_mm: Annotated[Coordinate, Shown("Above the hubs")] = 0.0
    tube_mm: Annotated[Size, Shown("Axle tube, diameter", order=1)] = 76.0
    """Outside diameter of the axle's tube."""
    tube_wall_mm: Annotated[Thickness | None, Shown("Axle tube, wall", order=1)] = None
    housing: Annotated[
        Literal["steel", "cast", "not known"],
        Shown("Middle of the axle", order=1, note="Nothing is welded to a cast middle, nor beside it."),
    ] = "not known"
    """What the middle of the axle is made of."""
    housing_half_mm: Annotated[Size | None, Shown("Its tube begins at", order=1)] = None
    """From the centre plane to where its tube begins, right side."""
    thickness_mm: Annotated[Thickness, Shown("Plate, thick", order=1)] = 6.0
    steel_id: Annotated[str, Shown("Steel", order=1)] = "mild"
    weld_leg_mm: Annotated[Thickness, Shown("Weld leg", order=1)] = 5.0
    along_n: Annotated[Force, Shown("Force along, rearward", order=2)] = 0.0
    out_n: Annotated[Force, Shown("Force outward", order=2)] = 0.0
    up_n: Annotated[Force, Shown("Force up", order=2)] = 0.0

    @classmethod
    def fresh_values(cls, on: Setting) -> dict[str, object]:
        """On the line of the axle that the job touches."""
        return {"place": on.inward(0), "tube_mm": on.tube_mm}

    @property
    def on_rail(self) -> bool:
        """On the axle."""
        return False

    @property
    def welded(self) -> bool:
        """It heats no rail."""
        return False

    def span(self, rail: Rail, features: Iterable[Feature], field: str) -> Span:
        """A point beside the rail, or the rail's end where the axle lies beyond it."""
        x = resolve(self.place, features, f"{field}/place")
        x = min(max(x, rail.start_mm + 1.0), rail.end_mm - 1.0)
        return Span(x - 0.5, x + 0.5)

    @property
    def force_n(self) -> float:
        """Size of the force at the joint, N."""
        return float((self.along_n**2 + self.out_n**2 + self.up_n**2) ** 0.5)

    def inner_mm(self) -> float:
        """How near to the centre plane its welds come, mm."""
        return abs(self.y_mm)

    def cast_check(self, on: OnRail) -> CheckSpec:
        """Welds clear of a cast middle; 'not computed' while nobody has said what it is and where it ends."""
        at = on.span.centre_mm
        if self.housing == "not known" or (self.housing == "cast" and self.housing_half_mm is None):
            missing = "housing" if self.housing == "not known" else "housing_half_mm"
            return CheckSpec(limit_id="cast-clear", value=None, station_mm=at, missing=(missing,), remedy=CAST)
        half = 0.0 if self.housing == "steel" else (self.housing_half_mm or 0.0)
        return CheckSpec(
            limit_id="cast-clear",
            value=self.inner_mm() - half,
            formula="weld - housing",
            values={"weld": self.inner_mm(), "housing": half},
            words="nearest weld and end of the cast middle, from the centre plane; mm"
            if half
            else "a steel housing may be welded",
            station_mm=at,
            remedy=CAST,
        )

    def tube_weld(
        self, on: OnRail, lines: list[XY], long_mm: float, lever_mm: float, force: tuple[float, float, float]
    ) -> CheckSpec:
        """Fillets on the tube: lines ``long_mm`` long at (across, along) places, under force (out, across, along) at ``lever_mm``."""
        at = on.span.centre_mm
        if self.force_n <= 0:
            return CheckSpec(
                limit_id="axle-weld",
                value=None,
                station_mm=at,
                missing=("along_n",),
                remedy="The force at limit load is not given.",
            )
        group = weld_group([Line(y, z - long_mm / 2, y, z + long_mm / 2) for y, z in lines])
        worst, _ = group_load_n_per_mm(group, force, (lever_mm, 0.0, 0.0))
        steel = find_steel(self.steel_id)
        q = line_capacity(
            self.weld_leg_mm, min(self.thickness_mm, self.tube_wall_mm or TUBE_WALL_MM), steel.beside_weld_mpa
        )
        return CheckSpec(
            limit_id="axle-weld",
            value=worst / q,
            formula="load / capacity",
            values={"load": worst, "capacity": q},
            words="N/mm at the worst end of the fillets on the tube, elastic vector method, fillets taken as straight",
            station_mm=at,
            remedy="A wider foot, a bigger leg, a brace between the tabs, or less height.",
        )

    def legs(self, on: OnRail) -> tuple[CheckSpec, ...]:
        """Leg sizes against plate and tube."""
        return leg_checks(self.weld_leg_mm, self.thickness_mm, self.tube_wall_mm or TUBE_WALL_MM, on.span.centre_mm)
