"""Which stations are evaluated: an even grid plus every place where something begins or ends."""

import numpy as np

from nodulant.base.arrays import Columns
from nodulant.frame.model import Placed
from nodulant.frame.ops.notch import Notch

GRID = 121
STEP_MM = 0.5
"""Stations on either side of a jump."""


def stations(start_mm: float, end_mm: float, placed: list[Placed], loads: list[float]) -> Columns:
    """At least 121 stations from start to end, with both sides of each cut's mouth, shape (n,)."""
    marks = list(np.linspace(start_mm, end_mm, GRID)) + [x for load in loads for x in (load,)]
    for p in placed:
        for x in (p.start_mm, p.end_mm):
            marks += [x - STEP_MM, x + STEP_MM]
        if isinstance(p.op, Notch):
            marks += list(np.linspace(p.start_mm, p.end_mm, 15)[1:-1])
    inside = [round(x, 3) for x in marks if start_mm <= x <= end_mm]
    return np.unique(np.array(inside))
