"""How each upper mount of coilovers and dampers stands against the rail beside it: what its bracket is turned by."""

import math

import numpy as np

from nodulant.axles.points import HardPoint
from nodulant.axles.springs import Coilover, Damper
from nodulant.evaluate.suspensions.travel_drawing import Fact
from nodulant.frame.model import planned_state, route_on
from nodulant.frame.seen import RailSeen, rail_seen
from nodulant.job.document import Inputs
from nodulant.suspension.feet import foot_of
from nodulant.suspension.study import Study

BESIDE_MM = 50.0
"""The rail's slope is taken this far to either side of a mount."""


def clock_facts(inputs: Inputs, s: Study) -> tuple[Fact, ...]:
    """One row for each upper mount of a side, a pair's front one and rear one apart; none where nothing moves."""
    if s.motion is None or s.setting is None:
        return ()
    operations = inputs.design.operations
    seen = rail_seen(inputs.survey, "right", route_on(inputs.survey, operations, "right", planned_state(operations)))
    out: list[Fact] = []
    rows = (("coilover", s.suspension.springs), ("damper", s.suspension.damper))
    for name, held in rows:
        if isinstance(held, Coilover | Damper):
            out += _turned(s, name, held, seen)
    return tuple(out)


def each_of(held: Coilover | Damper) -> list[tuple[str, HardPoint, HardPoint]]:
    """The one of a side, or the front and the rear one of a pair: lower and upper eye."""
    if held.count == 1:
        return [("", held.lower, held.upper)]
    out = []
    for which, dx in (("front", -held.apart_mm / 2), ("rear", held.apart_mm / 2)):
        lower, upper = (p.model_copy(update={"x_mm": p.x_mm + dx}) for p in (held.lower, held.upper))
        out.append((which, lower, upper))
    return out


def _turned(s: Study, name: str, held: Coilover | Damper, seen: RailSeen) -> list[Fact]:
    if s.motion is None:
        return []
    out = []
    for which, lower, upper in each_of(held):
        a, b = foot_of(lower, held.on, s.motion).at, upper.xyz()
        lean = math.degrees(math.atan2(b[0] - a[0], b[2] - a[2]))
        inward = math.degrees(math.atan2(abs(a[1]) - abs(b[1]), b[2] - a[2]))
        ends = np.interp([b[0] - BESIDE_MM, b[0] + BESIDE_MM], seen.x, seen.low)
        slope = math.degrees(math.atan2(float(ends[1] - ends[0]), 2 * BESIDE_MM))
        words = (
            f"rearward at its top, from a square on the rail's underside, which rises {slope:+.1f} degrees there; "
            f"it leans {lean:+.1f} rearward and {inward:+.1f} inward"
        )
        out.append(
            Fact(name=f"Bracket of the {f'{which} {name}'.strip()} turned", value=lean + slope, unit="deg", words=words)
        )
    return out
