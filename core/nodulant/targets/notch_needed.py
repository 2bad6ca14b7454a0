"""The notch that the axle's path asks for.

Clear depth = tube top at full bump + clearance - rail underside; the cut is deeper by liner
and weld. Width = what the tube and its clearance sweep above the underside, plus liner and
weld on both sides. With one wheel in bump the tube at the rail rises less than with both, so
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
            clear_radius_mm=0,
            centre_x_mm=float(path.x[-1]),
            tube_top_mm=top,
            one_wheel_top_mm=top - lost,
        )
    front, rear = float((path.x - half)[above].min()), float((path.x + half)[above].max())
    extra = liner_mm + weld_mm
    drift = float(np.ptp(path.x[above]))
    return NotchNeeded(
        side=side,
        clear_depth_mm=clear,
        depth_mm=clear + extra,
        width_mm=rear - front + 2 * extra,
        radius_mm=reach + extra + drift / 2,
        clear_radius_mm=reach + drift / 2,
        centre_x_mm=(front + rear) / 2,
        tube_top_mm=top,
        one_wheel_top_mm=top - lost,
    )
