"""What a carrier is and what holds it.

A *carrier* is a rigid body: an axle or an upright. A *piece* turns about a hinge on the carrier
or on the frame: a bell crank, a steering knuckle. A *rod* keeps two ends apart by its length; a
*guide* keeps one end on a plane; a *slide* keeps a point of the frame on a plane of the carrier, as the
top of a strut stays on the strut's own line. An end lies on the frame, on the carrier or on a piece, and is
given where it stands in the reference position, in the frame's axes, mm.
"""

from dataclasses import dataclass, field
from typing import NamedTuple

FRAME, CARRIER = -1, 0
Point = tuple[float, float, float]


class End(NamedTuple):
    """A point in the reference position and the body it rides on: the frame, the carrier, or a piece by 1, 2, .."""

    body: int
    point: Point


@dataclass(frozen=True)
class Rod:
    """Keeps ``a`` and ``b`` ``length_mm`` apart (their distance in the reference position where None)."""

    name: str
    a: End
    b: End
    length_mm: float | None = None
    stiffness: float = 1.0e5
    """E A / L, N/mm; counts only where there are more rods than freedoms."""


NOWHERE: Point = (0.0, 0.0, 0.0)


@dataclass(frozen=True)
class Guide:
    """Keeps ``end`` on the plane across ``direction`` in which it stands in the reference position."""

    name: str
    end: End
    direction: Point
    stiffness: float = 1.0e5
    moved: Point = NOWHERE
    """How far that plane stands from there, as built."""


@dataclass(frozen=True)
class Slide:
    """Keeps ``point`` of the frame on the carrier's own plane across ``direction``, both as in the reference position."""

    name: str
    point: Point
    direction: Point
    stiffness: float = 1.0e5
    moved: Point = NOWHERE
    """How far that point of the frame stands from there, as built."""


@dataclass(frozen=True)
class Piece:
    """Turns about ``axis`` through ``point`` of the frame or of the carrier."""

    name: str
    parent: int
    point: Point
    axis: Point


@dataclass(frozen=True)
class Mechanism:
    """One carrier with everything that holds it; ``origin`` is its own reference point."""

    origin: Point
    rods: tuple[Rod, ...]
    guides: tuple[Guide, ...] = ()
    pieces: tuple[Piece, ...] = field(default=())
    slides: tuple[Slide, ...] = ()

    @property
    def freedoms(self) -> int:
        """Unknowns of a pose: six of the carrier and one of each piece."""
        return 6 + len(self.pieces)

    @property
    def held(self) -> "tuple[Rod | Guide | Slide, ...]":
        """Rods, guides, then slides: the order of rows in every result."""
        return (*self.rods, *self.guides, *self.slides)

    @property
    def names(self) -> tuple[str, ...]:
        """Names of all that holds it, in that order."""
        return tuple(each.name for each in self.held)


@dataclass(frozen=True)
class Height:
    """Drives the height of a point of the carrier, mm above where it stands in the reference position."""

    point: Point


@dataclass(frozen=True)
class Lean:
    """Drives the roll of the carrier: its y axis rises by the sine of the angle given, radians."""


Drive = Height | Lean
