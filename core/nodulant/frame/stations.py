"""Which stations are evaluated: an even grid plus every place where something begins or ends."""

from collections.abc import Sequence

import numpy as np

from nodulant.base.arrays import Columns
from nodulant.frame.model import Placed

GRID = 121
STEP_MM = 0.5
"""Stations on either side of a jump."""


def stations(start_mm: float, end_mm: float, placed: Sequence[Placed], loads: Sequence[float]) -> Columns:
    """At least 121 stations from start to end, with what shapes and plates ask for and both sides of each jump, shape (n,)."""
    marks = [np.linspace(start_mm, end_mm, GRID), np.array(loads, dtype=float)]
    for p in placed:
        edges = [p.start_mm, p.end_mm, *(x for cut in p.cuts for x in (cut.start_mm, cut.end_mm))]
        marks.append((np.array(edges)[:, None] + np.array([-STEP_MM, 0.0, STEP_MM])).ravel())
        marks.append(np.array((*p.kinks, *p.op.marks(p.span)), dtype=float))
    every = np.round(np.concatenate(marks), 3)
    return np.unique(every[(every >= start_mm) & (every <= end_mm)])
