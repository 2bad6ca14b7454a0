"""What a subframe is made of, as it is measured: points on it, beams across it, its mass."""

from typing import Annotated, Literal, Self

from pydantic import Field, model_validator

from nodulant.base.model import Coordinate, Name, Size, Thickness
from nodulant.base.shown import Shown
from nodulant.frame.ops.fresh import Piece, Setting
from nodulant.frame.place import resolve
from nodulant.frame.pose import Vector
from nodulant.survey.crossmember import wall_fits

PointKind = Literal["face", "bushing", "pivot", "rack", "engine-mount", "ear", "other"]
POINTS: dict[str, str] = {
    "face": "face against the rail",
    "bushing": "bushing",
    "pivot": "pivot",
    "rack": "rack's mount",
    "engine-mount": "engine mount",
    "ear": "ear that is cut off",
    "other": "something else",
}


class SubframePoint(Piece):
    """A point of a subframe; of a pair the right-hand one."""

    name: Annotated[Name, Shown("Point")] = "point"
    what: Annotated[PointKind, Shown("What", choices=POINTS)] = "bushing"
    x_mm: Annotated[Coordinate, Shown("Rearward")] = 0.0
    y_mm: Annotated[Coordinate, Shown("To the right")] = 350.0
    z_mm: Annotated[Coordinate, Shown("Up")] = 0.0
    pair: Annotated[bool, Shown("The same on the left")] = True

    @classmethod
    def fresh(cls, on: Setting) -> Self:
        """A bushing ahead of the axle that the job touches."""
        return cls(x_mm=resolve(on.inward(400.0), on.survey.features), y_mm=round(on.inner_mm - 50.0, 1))

    def on(self, side: Literal["left", "right"]) -> Vector | None:
        """Where it is on one side; None where it is not on that side. What lies in the middle is the right's."""
        own = "left" if self.y_mm < 0 else "right"
        if own == side:
            return (self.x_mm, self.y_mm, self.z_mm)
        return (self.x_mm, -self.y_mm, self.z_mm) if self.pair and self.y_mm != 0 else None


class Beam(Piece):
    """A beam from side to side, its middle in the centre plane."""

    name: Annotated[Name, Shown("Beam")] = "front beam"
    x_mm: Annotated[Coordinate, Shown("Middle, rearward")] = 0.0
    z_mm: Annotated[Coordinate, Shown("Middle, up")] = 0.0
    half_mm: Annotated[Size, Shown("Reaches to each side")] = 400.0
    profile: Annotated[Literal["tube", "box", "channel"], Shown("Profile")] = "box"
    height_mm: Annotated[Size, Shown("Height")] = 70.0
    width_mm: Annotated[Size, Shown("Width")] = 70.0
    wall_mm: Annotated[Thickness, Shown("Wall")] = 3.0

    @model_validator(mode="after")
    def _wall_fits(self) -> Self:
        wall_fits(self.profile, self.height_mm, self.width_mm, self.wall_mm)
        return self


class Weight(Piece):
    """Its mass with everything that stays on it, and where that hangs level."""

    mass_kg: Annotated[float, Field(gt=0, le=2000), Shown("Mass, kg", kind="number")] = 60.0
    x_mm: Annotated[Coordinate, Shown("Centre of mass, rearward")] = 0.0
    y_mm: Annotated[Coordinate, Shown("Centre of mass, to the right")] = 0.0
    z_mm: Annotated[Coordinate, Shown("Centre of mass, up")] = 0.0
