"""The edge of a wheel arch as a row of thin bars: half an ellipse from edge to edge over its top, on both sides."""

import numpy as np

from nodulant.clearance.shapes import Bars, Standing
from nodulant.survey.vehicle import Axle

PIECES, EDGE_MM = 12, 3.0
"""Straight pieces of each side's edge, and the radius of its fold."""


def arch_name(axle: str) -> str:
    """What the arches of an axle are called."""
    return f"{axle} wheel arch"


def arch_of(name: str, axle: Axle) -> Standing | None:
    """The arches over an axle's wheels; None where they or the hubs were not surveyed."""
    arch, low = axle.arch, axle.arch_hub_z_mm()
    if arch is None or low is None:
        return None
    turn = np.linspace(0.0, np.pi, PIECES + 1)
    x = arch.middle_x_mm - (arch.rear_x_mm - arch.front_x_mm) / 2 * np.cos(turn)
    z = low + (arch.top_z_mm - low) * np.sin(turn)
    sides = [np.stack([x, np.full_like(x, sign * arch.edge_y_mm), z], axis=1) for sign in (1.0, -1.0)]
    starts, ends = (np.concatenate([s[part] for s in sides]) for part in (slice(None, -1), slice(1, None)))
    return Standing(arch_name(name), "wing", Bars(starts, ends, np.full(len(starts), EDGE_MM)), "")
