"""Where the axle tube is at each wheel travel.

Travel z_w is positive in bump, zero at the planned ride height. Positions are the tube's
centre: x station, z above the rail's underside at the axle, mm.
"""

from dataclasses import dataclass

import numpy as np

from nodulant.base.arrays import Columns
from nodulant.targets.drop import AxlePath, StraightPath


@dataclass(frozen=True)
class TubePath:
    """Tube radius and the centre's positions at ``travel``; shapes (poses,)."""

    radius: float
    travel: Columns
    x: Columns
    z: Columns


def tube_path(path: AxlePath, axle_x_mm: float, gap_mm: float, diameter_mm: float, travel: Columns) -> TubePath:
    """Positions of a tube that hangs ``gap_mm`` below the rail at ride height."""
    z = -gap_mm - diameter_mm / 2 + travel
    return TubePath(diameter_mm / 2, travel, axle_x_mm + _shift(path, travel), z)


def _shift(path: AxlePath, travel: Columns) -> Columns:
    if isinstance(path, StraightPath):
        return np.zeros_like(travel)
    r, up = path.radius_mm, path.pivot_above_mm
    reach: Columns = np.sqrt(np.maximum(r * r - (travel - up) ** 2, 0.0)) - np.sqrt(r * r - up * up)
    return reach if path.pivot == "ahead" else -reach
