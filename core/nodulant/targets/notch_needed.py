"""The notch that the axle's path asks for.

Clear depth = tube top at full bump + clearance - rail underside; the cut is deeper by liner
and weld. Width = what the tube and its clearance sweep above the underside, plus liner and
weld on both sides. An arc must also hold the tube where it drifts off the arc's centre line: with radius
reach + drift its centre must lie no lower than z - sqrt(drift^2 - dx^2) of every pose (own,
plane geometry). With one wheel in bump the tube at the rail rises less than with both, so
both wheels together govern.
"""

from typing import Literal

import numpy as np

from nodulant.base.model import Frozen
from nodulant.targets.axle_path import TubePath


class NotchNeeded(Frozen):
    """Needed notch on one side, mm; depth 0 when the tube stays clear of the rail."""

    side: Literal["left", "right"]
    clear_depth_mm: float
    depth_mm: float
    width_mm: float
    radius_mm: float
    """Radius of the arc that holds the path as its tube drifts fore and aft."""
    arc_depth_mm: float
    """Depth of that arc: deeper than ``depth_mm`` where the tube tops out off the centre line."""
    clear_radius_mm: float
    """Radius that must stay free inside the liner."""
    centre_x_mm: float
    tube_top_mm: float
    """Tube top above the rail's underside at full bump; negative is below."""
    one_wheel_top_mm: float


def notch_needed(
    side: Literal["left", "right"],
    path: TubePath,
    clearance_mm: float,
    liner_mm: float,
    weld_mm: float,
    one_wheel_share: float,
) -> NotchNeeded:
    """Depth, width, least arc radius and centre of the cut that clears ``path``."""
    reach = path.radius + clearance_mm
    top = float((path.z + path.radius).max())
    lost = float(path.travel.max()) * (1 - one_wheel_share)
    clear = max(top + clearance_mm, 0.0)
    half = np.where(path.z >= 0, reach, np.sqrt(np.maximum(reach**2 - path.z**2, 0.0)))
    above = (path.z + reach) > 0
    if not above.any():
        return NotchNeeded(
            side=side,
            clear_depth_mm=0,
            depth_mm=0,
            width_mm=0,
            radius_mm=0,
            arc_depth_mm=0,
            clear_radius_mm=0,
            centre_x_mm=float(path.x[-1]),
            tube_top_mm=top,
            one_wheel_top_mm=top - lost,
        )
    front, rear = float((path.x - half)[above].min()), float((path.x + half)[above].max())
    extra, centre = liner_mm + weld_mm, (front + rear) / 2
    drift = float(np.abs(path.x[above] - centre).max())
    slack = np.sqrt(np.maximum(drift**2 - (path.x[above] - centre) ** 2, 0.0))
    crown = float((path.z[above] - slack).max()) + reach + drift
    return NotchNeeded(
        side=side,
        clear_depth_mm=clear,
        depth_mm=clear + extra,
        width_mm=rear - front + 2 * extra,
        radius_mm=reach + drift + extra,
        arc_depth_mm=max(crown, clear) + extra,
        clear_radius_mm=reach + drift,
        centre_x_mm=centre,
        tube_top_mm=top,
        one_wheel_top_mm=top - lost,
    )
