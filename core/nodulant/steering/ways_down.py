"""One front lowered by one amount in four ways, from the same start: on its springs, by spindles, raised whole, or its pivots alone.

Lower springs move the wheel along the curves that are there. A drop spindle moves the hub on the
upright and leaves arms and steering where they were. A subframe raised into the frame takes pivots
and steering along. Pivots raised in the frame leave the rack or centre link behind. What a way
keeps is judged round its own ride height against the curves of the start.
"""

from dataclasses import dataclass
from typing import Literal

import numpy as np

from nodulant.axles.layouts.independent import DoubleWishbone, Steered, Strut
from nodulant.axles.points import HardPoint
from nodulant.axles.suspension import Suspension
from nodulant.base.arrays import Columns, Mask, Rows
from nodulant.base.errors import NodulantError, NotSolvable
from nodulant.steering.measures import Measures, measures
from nodulant.steering.wheels import upright
from nodulant.suspension import motion as of
from nodulant.suspension.motion import Motion, Setting, moved_through, spin_at_rest
from nodulant.suspension.study import travel_of

Way = Literal["start", "springs", "spindle", "raised", "pivots"]
WAYS: tuple[tuple[Way, str], ...] = (
    ("start", "As it is"),
    ("springs", "Lower springs"),
    ("spindle", "Drop spindles"),
    ("raised", "Raised into the frame"),
    ("pivots", "Pivots raised alone"),
)
NEAR_MM, KEPT_DEG, KEPT_SLOPE = 25.0, 0.02, 0.002
"""How far round ride height a way is judged; how little counts as kept, degrees, and mm per mm of the patch's path."""


@dataclass(frozen=True)
class Lowered:
    """One way through its travel about its own ride height; ``trouble`` says why it does not move."""

    way: Way
    name: str
    trouble: str
    travel: Columns
    there: Mask
    measured: Measures | None = None
    roll_centre: Columns | None = None
    dive_slope: Columns | None = None
    """Fore-and-aft way of the braked tyre's foot per mm of rise: what anti-dive comes from."""


@dataclass(frozen=True)
class Keeps:
    """Whether a way leaves camber, toe and anti-dive as they were round ride height."""

    camber: bool
    toe: bool
    anti_dive: bool


def lowered(own: Suspension, setting: Setting, drop_mm: float) -> tuple[Lowered, ...]:
    """Every way; raises NotSolvable where the front is not one of wishbones or struts."""
    if not isinstance(own.layout, DoubleWishbone | Strut):
        raise NotSolvable(
            "only wishbones and struts are lowered in these ways",
            field="layout/kind",
            found=own.layout.kind,
            acceptable="double-wishbone or strut",
        )
    return tuple(_one(own, own.layout, setting, drop_mm, way, name) for way, name in WAYS)


def _one(
    own: Suspension, layout: DoubleWishbone | Strut, setting: Setting, drop: float, way: Way, name: str
) -> Lowered:
    travel = travel_of(own)
    offset = drop if way == "springs" else 0.0
    changed = _changed(layout, drop, way)
    x, y, z = setting.hub
    hub = (x, y, z + (drop if way in ("spindle", "raised", "pivots") else 0.0))
    here = Setting(hub, setting.half_track_mm, setting.radius_mm)
    try:
        # ride height of the start stays among the travels: the linkage is assembled there
        m = moved_through(changed, here, np.unique(np.concatenate([travel + offset, [0.0]])))
    except NodulantError as error:
        return Lowered(way, name, error.message, travel, np.zeros(len(travel), dtype=bool))
    rows = np.searchsorted(m.travel, travel + offset)
    return _measured(own, changed, m, rows, travel, way, name)


def compared(own: Suspension, one: Steered, two: Steered, setting: Setting) -> Keeps | None:
    """What ``two`` keeps of ``one`` round one ride height; None where one of them does not move there."""
    travel, found = travel_of(own), []
    for layout in (one, two):
        try:
            m = moved_through(layout, setting, travel)
        except NodulantError:
            return None
        found.append(_measured(own, layout, m, np.arange(len(travel)), travel, "start", ""))
    return keeps(*found)


def _measured(own: Suspension, layout: Steered, m: Motion, rows: Rows, travel: Columns, way: Way, name: str) -> Lowered:
    pose = m.level.pose
    spin = spin_at_rest(own.camber_deg, own.toe_deg)
    wheel = upright(np.array(m.setting.hub), layout, m.setting, pose, spin, m.there[:, None])
    seen = measures(wheel, 1.0, m.setting.radius_mm)
    there = m.there[rows]
    roll, dive = of.roll_centre(m, spin)[rows], of.torque_slope(m, braking=True, spin=spin)[rows]
    return Lowered(way, name, "" if there.all() else _end(m), travel, there, seen.rows(rows), roll, dive)


def _end(m: Motion) -> str:
    return next((end for end in m.sweep.ends if end), "")


def _changed(layout: DoubleWishbone | Strut, drop: float, way: Way) -> DoubleWishbone | Strut:
    """The layout's points as a way moves them."""
    if way in ("start", "springs"):
        return layout
    on = {path: where for path, (where, _) in layout.points().items()}
    names = [path for path, where in on.items() if where == ("axle" if way == "spindle" else "frame")]
    by = -drop if way == "spindle" else drop
    update: dict[str, object] = {name: _up(getattr(layout, name), by) for name in names}
    toe = layout.toe
    if way == "spindle":
        update["toe"] = toe.model_copy(update={"axle": _up(toe.axle, -drop)})
    elif way == "raised":
        update["toe"] = toe.model_copy(update={"frame": _up(toe.frame, drop)})
    return layout.model_copy(update=update)


def _up(p: HardPoint, by: float) -> HardPoint:
    return p.model_copy(update={"z_mm": p.z_mm + by})


def keeps(start: Lowered, way: Lowered) -> Keeps | None:
    """What a way keeps of the start; None where one of them does not move round ride height."""
    if start.measured is None or way.measured is None or start.dive_slope is None or way.dive_slope is None:
        return None
    near = np.abs(start.travel) <= NEAR_MM
    if not (start.there & way.there)[near].all():
        return None

    def alike(name: str) -> bool:
        one, two = (getattr(v.measured, name)[near, 0] for v in (start, way))
        return bool(np.abs(one - two).max() < KEPT_DEG)

    dive = float(np.abs(start.dive_slope[near] - way.dive_slope[near]).max())
    return Keeps(alike("camber_deg"), alike("toe_deg"), dive < KEPT_SLOPE)
