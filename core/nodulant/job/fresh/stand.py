"""Where a new suspension begins: the hubs at planned ride height, and how much frame there is ahead of them and behind."""

from dataclasses import dataclass
from typing import Literal

from nodulant.axles.points import HardPoint
from nodulant.job.document import Inputs
from nodulant.job.riding import in_place
from nodulant.parts.sides import LEFT_RIGHT, AxleName
from nodulant.targets.drop import towards_rail

NO_BASE_MM, NO_TRACK_MM, NO_HUB_MM = 2600.0, 1600.0, -150.0
"""Where the survey has no such reading yet (Nodulant defaults)."""
INSIDE_MM, END_MM, SHORT_MM = 45.0, 30.0, 250.0
"""Inside the rails' lips, clear of a rail's end, and the shortest arm that is worth beginning with, mm."""
Way = Literal["ahead", "behind"]


@dataclass(frozen=True)
class Stand:
    """One axle: its hub line, half of its track, and the rails from their later front end to their earlier rear end, mm."""

    axle: AxleName
    x: float
    z: float
    half: float
    inner: float
    """Half way across to where links and springs begin, inside the rails."""
    web: float
    from_mm: float
    to_mm: float

    @property
    def lead(self) -> float:
        """Which way links run from the axle to the frame: ahead of a rear axle, behind a front one, -1 or +1."""
        return -1.0 if self.axle == "rear" else 1.0

    def along(self, length_mm: float, way: Way | None = None) -> float:
        """Station of a frame end so far from the hubs, the way links run unless said, where there is frame.

        Where the frame is too short that way, it is taken back to its end; where hardly anything is left, the other way.
        """
        sign = self.lead if way is None else (-1.0 if way == "ahead" else 1.0)
        for lead in (sign, -sign):
            room = (self.x - self.from_mm if lead < 0 else self.to_mm - self.x) - END_MM
            if room >= min(length_mm, SHORT_MM):
                return round(self.x + lead * min(length_mm, room), 1)
        return round(min(max(self.x, self.from_mm + END_MM), self.to_mm - END_MM), 1)


def stand_of(inputs: Inputs, axle: AxleName, before: bool) -> Stand:
    """Where an axle stands: as surveyed ``before`` the work, else as the drop stack puts it."""
    survey = inputs.survey
    own = survey.front if axle == "front" else survey.rear
    lowered = 0.0 if before else towards_rail(in_place(inputs).design.targets, axle)
    high = own.hubs_z_mm()
    rails = [survey.rails.of(side) for side in LEFT_RIGHT]
    right = survey.rails.right
    return Stand(
        axle=axle,
        x=0.0 if axle == "front" else (survey.wheelbase_mm or NO_BASE_MM),
        z=(NO_HUB_MM if high is None else high) + lowered,
        half=(own.track_mm or NO_TRACK_MM) / 2,
        inner=float(round(right.web_y_mm - max(s.width_mm for s in right.stations) - INSIDE_MM)),
        web=right.web_y_mm,
        from_mm=max(r.start_mm for r in rails),
        to_mm=min(r.end_mm for r in rails),
    )


def at(x: float, y: float, z: float) -> HardPoint:
    """A point without the digits of round-off; heights stay those of the hubs."""
    return HardPoint(x_mm=round(x, 4), y_mm=round(y, 4), z_mm=round(z, 4))
