"""A subframe's points, beams and how it is set: up, back, across, narrower, out of level or square."""

from collections.abc import Iterable
from typing import Annotated, ClassVar, Literal

from pydantic import Field

from nodulant.base.model import Coordinate, Extra
from nodulant.base.shown import Shown
from nodulant.frame.columns import rail_at
from nodulant.frame.ops.at_place import AtPlace
from nodulant.frame.ops.fresh import Setting
from nodulant.frame.ops.operation import Adds
from nodulant.frame.ops.subframes.subframe_points import Beam, SubframePoint, Weight
from nodulant.frame.place import Place, resolve
from nodulant.frame.pose import Pose
from nodulant.survey.rail import Rail
from nodulant.survey.vehicle import Feature, Rails

Turn = Annotated[float, Field(ge=-30, le=30)]
Shifted = Annotated[float, Field(ge=-1000, le=1000)]


class SubframePlan(AtPlace):
    """A subframe whose datum lies at ``place``, ``height_mm`` above the rails' underside there, in the centre plane."""

    adds: ClassVar[Adds] = Adds(
        "Subframe",
        "a subframe with everything on it as one part: raised, shifted, turned, narrowed, or a donor's fitted",
    )
    one_piece: ClassVar[bool] = True
    carries: ClassVar[str] = "{name}"
    kind: Literal["subframe"] = "subframe"
    measured: Annotated[
        Literal["vehicle", "bench"],
        Shown(
            "Measured",
            choices={"vehicle": "on this vehicle, before the cut", "bench": "on the bench, from its own datum"},
        ),
    ] = "vehicle"
    place: Annotated[Place, Shown("Its datum stands at")]
    height_mm: Annotated[Coordinate, Shown("Datum above the rail's underside")] = 0.0
    up_mm: Annotated[Shifted, Shown("Goes up by")] = 0.0
    back_mm: Annotated[Shifted, Shown("Goes rearward by")] = 0.0
    right_mm: Annotated[Shifted, Shown("Goes to the right by")] = 0.0
    narrower_mm: Annotated[Extra, Shown("Narrower, each side")] = 0.0
    nose_up_deg: Annotated[Turn, Shown("Out of level, nose up")] = 0.0
    nose_right_deg: Annotated[Turn, Shown("Out of square, nose to the right")] = 0.0
    right_up_deg: Annotated[Turn, Shown("Out of level, right side up")] = 0.0
    mounted: Annotated[
        Literal["rubber", "solid"], Shown("Mounted", choices={"rubber": "on rubber", "solid": "welded solid"})
    ] = "rubber"
    points: Annotated[tuple[SubframePoint, ...], Field(max_length=40), Shown("Points on it")] = ()
    beams: Annotated[tuple[Beam, ...], Field(max_length=8), Shown("Beams across it")] = ()
    weight: Annotated[Weight | None, Shown("Mass")] = None

    @classmethod
    def fresh_values(cls, on: Setting) -> dict[str, object]:
        """Ahead of the axle that the job touches, a face under each rail and a beam between them."""
        rail = on.survey.rails.right
        place = on.inward(400.0)
        x = resolve(place, on.survey.features)
        under, _, width, _ = rail_at(rail, x)
        middle = rail.web_y_mm + (-width if rail.opens == "inward" else width) / 2
        face = SubframePoint(name="mount", what="face", x_mm=x, y_mm=round(middle, 1), z_mm=under)
        beam = Beam(name="beam", x_mm=x, z_mm=under - 35.0, half_mm=round(middle, 1))
        return {"place": place, "points": (face,), "beams": (beam,)}

    @property
    def on_rail(self) -> bool:
        """It hangs on the rails wherever they are cut."""
        return False

    @property
    def half_mm(self) -> float:
        """A line at its datum."""
        return 1.0

    def pose(self, rails: Rails, features: Iterable[Feature]) -> Pose:
        """How it is set on the surveyed frame; raises UnknownReference where its place is measured from nothing."""
        return self._posed(resolve(self.place, features), rails.right)

    def _posed(self, x_mm: float, rail: Rail) -> Pose:
        return Pose(
            x_mm=x_mm,
            z_mm=rail_at(rail, x_mm)[0] + self.height_mm,
            back_mm=self.back_mm,
            right_mm=self.right_mm,
            up_mm=self.up_mm,
            nose_up_deg=self.nose_up_deg,
            nose_right_deg=self.nose_right_deg,
            right_up_deg=self.right_up_deg,
            narrower_mm=self.narrower_mm,
            on_bench=self.measured == "bench",
        )
