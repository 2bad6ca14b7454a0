"""Diagonals that keep both rails square to each other on each side of a cut, sawn to fit between their inner faces."""

import math
from collections.abc import Iterator

from nodulant.gauges.frame_here import RailsHere
from nodulant.gauges.gauge import Gauge
from nodulant.gauges.on_rails import beside_cuts, held
from nodulant.units.inline import as_place

LEAST_RUN_MM = 150.0
"""A diagonal that runs less along the rails holds nothing square (common practice)."""


def braces(here: RailsHere) -> Iterator[Gauge]:
    """One on each side of what is cut through in both rails, as the frame stands before the cut, away from it."""
    rail = here.survey.rails.left
    for left, right in here.pairs():
        if right is None:
            continue
        for x, where in beside_cuts(here, left):
            ahead = where.startswith("ahead")
            wide = here.between_stock(x)
            run = min(wide, x - rail.start_mm if ahead else rail.end_mm - x)
            if run < LEAST_RUN_MM:
                continue
            far = x - run if ahead else x + run
            angle = math.degrees(math.atan2(run, wide))
            yield Gauge(
                id=f"{left.op.id}/brace/{where.partition(' ')[0]}",
                kind="brace",
                name=f"{left.op.name}: diagonal brace {where}",
                says=f"From the left rail's inner face {as_place(x)} the front axle line to the right one's {as_place(far)} it, both ends sawn {angle:.1f} degrees off square and parallel; {held(left)}.",
                operation=left.op.id,
                phase="brace",
                made_of="square tube",
                long_mm=math.hypot(run, wide),
                angle_deg=round(angle, 1),
            )
