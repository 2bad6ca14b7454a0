"""Bolts and holes of different work in one rail: metal between them, and room for their washers.

A washer is twice as wide as its bolt's hole (common practice). Holes wider than a bolt's have none.
"""

import math
from itertools import combinations

from nodulant.checks.check import Changes, Check, Governs, Stage, Subject, Why, judge
from nodulant.frame.additions import Hole
from nodulant.strength.rail import RailComparison

BOLT_MM, WASHER = 32.0, 2.0
"""Holes up to this wide hold bolts; a washer's diameter over its hole's."""


def clash_checks(rail: RailComparison, changes: Changes) -> list[Check]:
    """The nearest pair of holes of every two operations, and of an operation and the survey, in one rail."""
    layout = rail.built.layout
    if layout is None:
        return []
    names = {p.op.id: p.op.name for p in rail.placed}
    nearest: dict[tuple[str, str], tuple[float, Hole, Hole]] = {}
    for one, two in combinations(layout.holes, 2):
        if one.operation == two.operation or _one_hole(one, two):
            continue
        key = (min(one.operation, two.operation), max(one.operation, two.operation))
        room = between(one, two)
        if key not in nearest or room < nearest[key][0]:
            nearest[key] = (room, one, two)
    stage: Stage = "prove" if rail.state.name == "as-built" else "cut"
    out = []
    for (first, second), (room, one, two) in sorted(nearest.items(), key=lambda row: row[0]):
        if room > NEAR_MM:
            continue
        whose = [names.get(own, "a hole of the survey") for own in (first, second)]
        subject = Subject(subject=f"{first or 'survey'}-{second}", side=rail.side, state=rail.state.name, stage=stage)
        washers = sum(_washer(h) for h in (one, two)) / 2
        values = {"apart": math.hypot(one.x - two.x, one.height - two.height), "needed": washers}
        out.append(
            judge(
                "bolts-clash",
                subject,
                room,
                Why(
                    formula="apart - needed",
                    values=values,
                    words="mm between two holes' middles, less half of both washers, or of a hole that is no bolt's",
                ),
                changes,
                detail=" and ".join(f"'{name}'" if name in names.values() else name for name in whose),
                governs=Governs(station_mm=(one.x + two.x) / 2),
                remedy="Move one of them along the rail or up, or let both share the bolt.",
            )
        )
    return out


NEAR_MM = 60.0
"""What is further apart is no neighbour and has no row."""


def between(one: Hole, two: Hole) -> float:
    """Room between the washers of two holes, mm; negative where one lies on the other."""
    away = math.hypot(one.x - two.x, max(abs(one.height - two.height) - (one.tall + two.tall) / 2, 0.0))
    return away - (_washer(one) + _washer(two)) / 2


def _one_hole(one: Hole, two: Hole) -> bool:
    """Whether two pieces of work name one hole: a sleeve where a bracket's bolt goes through."""
    return math.hypot(one.x - two.x, one.height - two.height) < SAME_MM


SAME_MM = 1.0


def _washer(hole: Hole) -> float:
    return hole.diameter * (WASHER if hole.diameter <= BOLT_MM and not hole.tall else 1.0)
