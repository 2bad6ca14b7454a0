"""Pipe that can be split into a half-round liner.

Outside diameters and schedule 40 walls of ASME B36.10M, from memory (the inch values are the
standard's; 1 in = 25.4 mm). A nominal pipe size is a name, not a diameter.
"""

from nodulant.base.model import Frozen


class Pipe(Frozen):
    """Outside diameter and wall, mm."""

    name: str
    outside_mm: float
    wall_mm: float

    @property
    def inside_radius_mm(self) -> float:
        """Radius of the bore, mm."""
        return self.outside_mm / 2 - self.wall_mm


_INCHES = (
    ("NPS 2", 2.375, 0.154),
    ("NPS 2-1/2", 2.875, 0.203),
    ("NPS 3", 3.500, 0.216),
    ("NPS 3-1/2", 4.000, 0.226),
    ("NPS 4", 4.500, 0.237),
    ("NPS 5", 5.563, 0.258),
    ("NPS 6", 6.625, 0.280),
    ("NPS 8", 8.625, 0.322),
)
PIPES: tuple[Pipe, ...] = tuple(Pipe(name=n, outside_mm=d * 25.4, wall_mm=t * 25.4) for n, d, t in _INCHES)


def pipe_that_clears(radius_mm: float) -> Pipe | None:
    """The smallest schedule 40 pipe whose bore holds ``radius_mm``; None when none does."""
    return next((pipe for pipe in PIPES if pipe.inside_radius_mm >= radius_mm), None)
