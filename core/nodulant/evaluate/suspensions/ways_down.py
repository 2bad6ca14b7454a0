"""Ways to lower a front by one amount, side by side, as the screen gets them."""

import numpy as np

from nodulant.base.arrays import significant
from nodulant.base.errors import NotSolvable
from nodulant.base.model import Frozen
from nodulant.evaluate.curve import Curve, curves_of
from nodulant.evaluate.suspensions.hung import hung
from nodulant.evaluate.suspensions.travel import suspension_studies
from nodulant.job.document import Inputs
from nodulant.steering.ways_down import Keeps, Lowered, keeps, lowered
from nodulant.suspension.study import LEVEL


class WayDown(Frozen):
    """One way: its curves over travel about its own ride height, and what it keeps; None where that is not known."""

    way: str
    name: str
    trouble: str
    curves: tuple[Curve, ...]
    keeps_camber: bool | None
    keeps_toe: bool | None
    keeps_anti_dive: bool | None


class WaysDown(Frozen):
    """All ways over one travel, 0 at each one's own ride height."""

    drop_mm: float
    travel_mm: list[float]
    ways: tuple[WayDown, ...]


def ways_down(inputs: Inputs, suspension: int, drop_mm: float) -> WaysDown:
    """Compare; raises NotSolvable where there is nothing to lower, UnknownReference where there is no such suspension."""
    s = suspension_studies(hung(inputs, suspension).planned, LEVEL)[suspension]
    if s.setting is None:
        raise NotSolvable(
            "the hubs are not known", field="/survey/front/hub_z_left_mm", found="nothing", acceptable="both hubs"
        )
    found = lowered(s.suspension, s.setting, drop_mm)
    return WaysDown(
        drop_mm=drop_mm,
        travel_mm=significant(found[0].travel),
        ways=tuple(_way(way, keeps(found[0], way)) for way in found),
    )


def _way(way: Lowered, kept: Keeps | None) -> WayDown:
    return WayDown(
        way=way.way,
        name=way.name,
        trouble=way.trouble,
        curves=() if way.measured is None else _curves(way),
        keeps_camber=kept.camber if kept else None,
        keeps_toe=kept.toe if kept else None,
        keeps_anti_dive=kept.anti_dive if kept else None,
    )


def _curves(way: Lowered) -> tuple[Curve, ...]:
    m, roll, dive = way.measured, way.roll_centre, way.dive_slope
    if m is None or roll is None or dive is None:
        return ()
    ride = int(np.argmin(np.abs(way.travel)))
    rows = [
        ("camber", "Camber", "deg", m.camber_deg[:, 0]),
        ("toe", "Toe", "deg", m.toe_deg[:, 0]),
        ("caster", "Caster", "deg", m.caster_deg[:, 0]),
        ("roll-centre", "Roll centre above ground", "mm", roll),
        ("half-track", "Tyre moves outward", "mm", m.patch[:, 0, 1] - m.patch[ride, 0, 1]),
        ("anti-dive", "Path of the braked foot, rearward", "mm/mm", dive),
    ]
    return curves_of([(*row, way.name) for row in rows], way.there, ride)
