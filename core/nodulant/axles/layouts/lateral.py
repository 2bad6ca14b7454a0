"""What keeps an axle in the middle: a track bar, or a Watt's link on the housing."""

from typing import Annotated, Literal

from pydantic import Field

from nodulant.axles.layouts.layout import NamedLink, Where
from nodulant.axles.points import FramePoint, HardPoint, Joints, Link, Tube, on_axle
from nodulant.base.model import Frozen, Size
from nodulant.linkage.mechanism import CARRIER, FRAME, End, Piece, Point, Rod
from nodulant.materials.steel import ELASTIC_MODULUS_MPA


class TrackBar(Frozen):
    """One bar across, from the frame on one side to the axle on the other."""

    kind: Literal["track-bar"] = "track-bar"
    bar: Link

    def links(self) -> tuple[NamedLink, ...]:
        """The bar."""
        return (NamedLink("track bar", "lateral.bar", self.bar, lateral=True),)

    def rods(self, hub: Point) -> tuple[Rod, ...]:
        """None besides."""
        return ()

    def pieces(self, hub: Point) -> tuple[Piece, ...]:
        """None."""
        return ()

    def points(self) -> dict[str, tuple[Where, HardPoint]]:
        """None besides the bar's ends."""
        return {}


class WattsLink(Frozen):
    """A crank that turns about a fore-and-aft pin in the middle of the housing, between two rods to the frame."""

    kind: Literal["watts"] = "watts"
    pin: HardPoint
    """On the axle, from the hub line."""
    crank_mm: Size = 160.0
    """From the upper hole of the crank to its lower one; upright at ride height."""
    upper: FramePoint
    """Frame end of the rod to the crank's upper hole."""
    lower: FramePoint
    """Frame end of the rod to the crank's lower hole, on the other side."""
    tube: Tube = Tube(od_mm=31.8, wall_mm=4.78)
    joints: Joints = Joints()

    def links(self) -> tuple[NamedLink, ...]:
        """None that end on the housing."""
        return ()

    def rods(self, hub: Point) -> tuple[Rod, ...]:
        """Both rods, from crank to frame."""
        pin, half = on_axle(self.pin, hub), self.crank_mm / 2
        rows = (("Watt's rod, upper", half, self.upper), ("Watt's rod, lower", -half, self.lower))
        out = []
        for name, up, frame in rows:
            hole = (pin[0], pin[1], pin[2] + up)
            length = sum((a - b) ** 2 for a, b in zip(hole, frame.xyz(), strict=True)) ** 0.5
            stiffness = ELASTIC_MODULUS_MPA * self.tube.area_mm2 / max(length, 1.0)
            out.append(Rod(name, End(CARRIER + 1, hole), End(FRAME, frame.xyz()), stiffness=stiffness))
        return tuple(out)

    def pieces(self, hub: Point) -> tuple[Piece, ...]:
        """The crank."""
        return (Piece("the Watt's crank", CARRIER, on_axle(self.pin, hub), (1.0, 0.0, 0.0)),)

    def points(self) -> dict[str, tuple[Where, HardPoint]]:
        """The crank's pin and the rods' frame ends."""
        return {
            "lateral.pin": ("axle", self.pin),
            "lateral.upper": ("frame", self.upper),
            "lateral.lower": ("frame", self.lower),
        }


Lateral = Annotated[TrackBar | WattsLink, Field(discriminator="kind")]
