"""What every layout gives: its members by name, and from them the mechanism that the linkage solves."""

from abc import abstractmethod
from dataclasses import dataclass
from typing import Literal

from nodulant.axles.points import HardPoint, Link, rod_of
from nodulant.base.model import Frozen
from nodulant.linkage.mechanism import Guide, Mechanism, Piece, Point, Rod, Slide

Where = Literal["frame", "axle"]


@dataclass(frozen=True)
class NamedLink:
    """A link as it stands in the vehicle: its name and the document's path to it."""

    name: str
    path: str
    link: Link
    lateral: bool = False
    """A track bar or a Watt's rod: it locates sideways and lies across."""


class Layout(Frozen):
    """Base of all layouts; ``hub`` is where the hub line crosses the centre plane at ride height, frame axes."""

    @property
    def independent(self) -> bool:
        """Whether one wheel moves by itself; else both hang on one axle."""
        return False

    @property
    def torque_on_carrier(self) -> bool:
        """Whether drive torque is taken by what carries the wheels: a live axle's housing."""
        return not self.independent

    @abstractmethod
    def links(self) -> tuple[NamedLink, ...]:
        """Every link, left ones mirrored."""

    def guides(self, hub: Point) -> tuple[Guide, ...]:
        """Hinges and slides."""
        return ()

    def more_rods(self, hub: Point) -> tuple[Rod, ...]:
        """Rods that are no links from frame to axle."""
        return ()

    def slides(self, hub: Point) -> tuple[Slide, ...]:
        """Struts."""
        return ()

    def pieces(self, hub: Point) -> tuple[Piece, ...]:
        """Cranks and knuckles."""
        return ()

    def mechanism(self, hub: Point) -> Mechanism:
        """Everything together."""
        rods = tuple(rod_of(n.name, n.link, hub) for n in self.links())
        return Mechanism(hub, (*rods, *self.more_rods(hub)), self.guides(hub), self.pieces(hub), self.slides(hub))

    def points(self) -> dict[str, tuple[Where, HardPoint]]:
        """Points that are no link's end, by the document's path, and what they lie on."""
        return {}


def pair(name: str, path: str, link: Link) -> tuple[NamedLink, NamedLink]:
    """Right and left of a pair that is given by its right one."""
    return NamedLink(f"{name}, right", path, link), NamedLink(f"{name}, left", path, link.mirrored())
