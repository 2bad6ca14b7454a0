"""How far the rails stand apart ahead of and behind every cut: what welding pulls together, and what was held."""

import numpy as np

from nodulant.asbuilt.compare import AskedReading, Known
from nodulant.frame.model import Placed
from nodulant.frame.route import Route
from nodulant.frame.seen import RailSeen, rail_seen
from nodulant.job.document import Inputs
from nodulant.parts.sides import LEFT_RIGHT, Side
from nodulant.parts.specs import reading

BESIDE_MM = 100.0
"""From a cut's edge, where no bead draws the face itself (common practice)."""
DATUM = "outer face to outer face, square across, a hand's breadth from the weld"


def width_readings(
    inputs: Inputs, placed: tuple[Placed, ...], routes: dict[Side, Route], known: Known
) -> list[AskedReading]:
    """Of work that cuts both rails, read once, on the right; ``placed`` is where it stands on the left rail."""
    cutting = [p for p in placed if p.op.side == "both" and not p.op.one_piece and p.cuts]
    if not cutting:
        return []
    seen = {side: rail_seen(inputs.survey, side, routes[side]) for side in LEFT_RIGHT}
    out = []
    for p in cutting:
        edges = (min(c.start_mm for c in p.cuts), max(c.end_mm for c in p.cuts))
        for key, way, x in (("ahead", "ahead of", edges[0] - BESIDE_MM), ("behind", "behind", edges[1] + BESIDE_MM)):
            apart = [_outer(seen[side], routes[side].x_at(x)) for side in LEFT_RIGHT]
            if None in apart:
                continue
            name = f"Rails apart {way} the cut"
            spec = reading(f"apart-{key}", name, sum(a for a in apart if a is not None), DATUM, extra=True)
            out.append(known.asked(p.op.id, "right", spec, p.op.name))
    return out


def _outer(rail: RailSeen, x_mm: float) -> float | None:
    """How far out a rail's outer face stands at a planned station; None where the rail is not there."""
    if not rail.x[0] <= x_mm <= rail.x[-1]:
        return None
    web, tip = (float(np.interp(x_mm, rail.x, np.abs(face))) for face in (rail.web, rail.tip))
    return max(web, tip)
