"""Where an operation sits: the rail around it, and what else cuts that rail."""

import math
from dataclasses import dataclass, field
from typing import Protocol

from nodulant.geometry import Vertex
from nodulant.parts.sides import Side
from nodulant.survey.rail import Rail


@dataclass(frozen=True)
class Span:
    """Stations between which an operation works, mm."""

    start_mm: float
    end_mm: float

    @property
    def centre_mm(self) -> float:
        """Middle of the operation."""
        return (self.start_mm + self.end_mm) / 2


@dataclass(frozen=True)
class RailHere:
    """The rail where an operation sits: underside, height, width, wall and closed width, mm."""

    centre: float
    underside: float
    height: float
    width: float
    wall: float
    closed_width: float
    slope_rad: float = 0.0
    """How the rail rises rearward."""
    round: bool = False
    """A round tube, whose width is its height."""
    boxed: bool = False
    """A boxing plate closes it here, wherever it lies."""
    inward: float = 0.0
    """How far the plan moves it towards the centre plane here, mm."""

    def width_at(self, level_mm: float) -> float:
        """Width outside at a height above the underside, mm: a round tube's chord."""
        if not self.round:
            return self.width
        return 2 * math.sqrt(max(level_mm * (self.height - level_mm), 0.0))

    @property
    def foot(self) -> float:
        """How far below the rail's top a cap stands, mm: at half height of a round tube."""
        return self.height / 2 if self.round else 0.0


class Edge(Protocol):
    """The edge of a cut, of the rail's underside or its top."""

    @property
    def from_above(self) -> bool:
        """Whether the rail's top is cut."""
        ...

    @property
    def lined_mm(self) -> float:
        """Thickness of what lines it."""
        ...

    def edge_above(self, level_mm: float) -> tuple[Vertex, ...]:
        """What of it lies beyond a level, as (dx, distance from the edge that is cut), front to rear."""
        ...


@dataclass(frozen=True)
class Cutting:
    """A cut: station of its centre, mm, and its edge."""

    centre_mm: float
    edge: Edge


@dataclass(frozen=True)
class OnRail:
    """One operation on one rail: its span, the rail at its centre, and every cut on that rail."""

    side: Side
    rail: Rail = field(hash=False)
    span: Span
    here: RailHere = field(hash=False)
    cuts: tuple[Cutting, ...]
