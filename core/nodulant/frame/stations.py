"""Which stations are evaluated: an even grid plus every place where something begins or ends."""

from collections.abc import Sequence

import numpy as np

from nodulant.base.arrays import Columns
from nodulant.frame.model import Placed

GRID = 121
STEP_MM = 0.5
"""Stations on either side of a jump."""


def stations(start_mm: float, end_mm: float, placed: Sequence[Placed], loads: list[float]) -> Columns:
    """At least 121 stations from start to end, with both sides of each cut's mouth, shape (n,)."""
    marks = [np.linspace(start_mm, end_mm, GRID), np.array(loads, dtype=float)]
    for p in placed:
        marks.append(np.array([x + side * STEP_MM for x in (p.start_mm, p.end_mm) for side in (-1, 1)]))
        for cut in p.cuts:
            marks.append(np.array([cut.start_mm + side * STEP_MM for side in (-1, 0, 1)]))
            marks.append(np.array([cut.end_mm + side * STEP_MM for side in (-1, 0, 1)]))
        if p.op.opens:
            marks.append(np.linspace(p.start_mm, p.end_mm, 15)[1:-1])
    every = np.round(np.concatenate(marks), 3)
    return np.unique(every[(every >= start_mm) & (every <= end_mm)])
