"""Points of the frame that are taped and levelled: features on both rails, and hubs; where each is planned."""

from dataclasses import dataclass
from functools import cached_property

import numpy as np

from nodulant.asbuilt.log import HUBS, When
from nodulant.base.model import Frozen
from nodulant.frame.columns import rail_at
from nodulant.frame.route import Route, route_of
from nodulant.job.document import Inputs
from nodulant.parts.sides import LEFT_RIGHT, Side

Hub = tuple[float, float, float]
"""Station of an axle's hub line, half the track, height, mm."""


class Spot(Frozen):
    """A place, mm: station behind the front axle line, to the right of the centre plane, and up."""

    x_mm: float
    y_mm: float
    z_mm: float


class Mark(Frozen):
    """What a tape is hooked to on one side, '<feature>/<side>', where it was surveyed and where it is planned."""

    id: str
    before: Spot
    planned: Spot


@dataclass(frozen=True)
class FramePoints:
    """All points by '<feature>/<side>', where they are planned and where they were surveyed."""

    inputs: Inputs
    routes: dict[Side, Route]
    axles: dict[str, Hub]
    """By 'hub-front' and 'hub-rear'; those whose place is known."""

    @cached_property
    def names(self) -> dict[str, str]:
        """What they are called."""
        rows = {f.id: f.name for f in self.inputs.survey.features}
        rows |= {hub: f"{hub.removeprefix('hub-')} hub" for hub in self.axles}
        return {f"{id_}/{side}": f"{name}, {side}" for id_, name in rows.items() for side in LEFT_RIGHT}

    @cached_property
    def hubs(self) -> frozenset[str]:
        """Those that stand beside the frame."""
        return frozenset(f"{hub}/{side}" for hub in HUBS for side in LEFT_RIGHT)

    @property
    def marks(self) -> tuple[Mark, ...]:
        """All of them."""
        before, planned = self.places("before"), self.places("done")
        return tuple(Mark(id=i, before=_spot(before[i]), planned=_spot(planned[i])) for i in self.names)

    def plan(self, when: When) -> dict[str, tuple[float, float]]:
        """In plan, mm: before the cut as surveyed, else as planned."""
        return {id_: (x, y) for id_, (x, y, _) in self.places(when).items()}

    def places(self, when: When) -> dict[str, tuple[float, float, float]]:
        """Station, distance to the right of the centre plane, and height of the rail's underside there, mm."""
        survey, out = self.inputs.survey, dict[str, tuple[float, float, float]]()
        for side in LEFT_RIGHT:
            route = route_of((), 0.0) if when == "before" else self.routes[side]
            sign = -1.0 if side == "left" else 1.0
            for f in survey.features:
                shift = route.shift(np.array([f.x_mm]))
                web = survey.rails.of(side).web_y_mm - float(shift.inward[0])
                under = rail_at(survey.rails.of(side), f.x_mm)[0] + float(shift.dz[0])
                out[f"{f.id}/{side}"] = (f.x_mm + float(shift.dx[0]), sign * web, under)
            for hub, (x, half, z) in self.axles.items():
                out[f"{hub}/{side}"] = (x, sign * half, z)
        return out


def _spot(at: tuple[float, float, float]) -> Spot:
    x, y, z = (round(float(v), 3) for v in at)
    return Spot(x_mm=x, y_mm=y, z_mm=z)
