"""What a beam axle at the front asks of the rails over it: its tube goes straight up, since nothing says yet what guides it."""

import numpy as np

from nodulant.evaluate.rails.axle import clearance_needed, liner_and_weld
from nodulant.job.document import Inputs
from nodulant.parts.sides import LEFT_RIGHT
from nodulant.targets.axle_path import tube_path
from nodulant.targets.drop import StraightPath
from nodulant.targets.notch_needed import NotchNeeded, notch_needed

READINGS = ("tube_diameter_mm", "tube_gap_left_mm")


def front_waits(inputs: Inputs) -> tuple[str, ...]:
    """Pointers of the readings that a notch at the front waits for."""
    return tuple(f"/survey/front/{name}" for name in READINGS if getattr(inputs.survey.front, name) is None)


def front_needed(inputs: Inputs, bump_mm: float) -> NotchNeeded | None:
    """The deeper one of both sides at a bump travel; None while a reading is missing."""
    own, target = inputs.survey.front, inputs.design.targets.front
    liner, weld = liner_and_weld((), 0.0)
    found = []
    for side in LEFT_RIGHT:
        gap = own.tube_gap_mm(side)
        if gap is None or own.tube_diameter_mm is None:
            continue
        up = np.array([0.0, bump_mm])
        path = tube_path(StraightPath(), 0.0, gap - target.drop_mm, own.tube_diameter_mm, up)
        found.append(notch_needed(side, path, clearance_needed(inputs), liner, weld, 1.0))
    return max(found, key=lambda n: n.arc_depth_mm, default=None)
