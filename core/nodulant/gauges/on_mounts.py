"""Gauges of mounts: guides for their bolts' holes, what stands in for a joint between its tabs, the slope they follow."""

import math
from collections.abc import Iterator

from nodulant.frame.model import Placed
from nodulant.frame.ops.mounts.bracket import Bracket
from nodulant.frame.ops.mounts.tabs import Tabs
from nodulant.frame.parts import rail_here, work_on
from nodulant.gauges.draw import guide, wedge
from nodulant.gauges.frame_here import RailsHere
from nodulant.gauges.gauge import Gauge
from nodulant.parts.part import Part
from nodulant.parts.sides import LEFT_RIGHT, Side
from nodulant.units.inline import as_thickness

PILOT_MM = 3.175
"""What every hole begins with (common practice); the guide is a bushed block where many are drilled."""
EDGE_MM = 20.0
SLOPE_DEG = 0.5
"""A rail that slopes by less looks level to a tape and a square."""
DUMMY_PER_BORE = 2.0
"""Outside of a pivot dummy over its bolt."""
GUIDED = frozenset({"outer", "inner"})
"""Faces of the rail that are drilled from outside."""


def guides(here: RailsHere) -> Iterator[Gauge]:
    """One for each plate on the rail's side with two or more equal holes; left and right share it where they mirror."""
    seen: dict[tuple[object, ...], Gauge] = {}
    for side in LEFT_RIGHT:
        for work in work_on(here.survey, side, here.placed[side]):
            for part in work.parts:
                spots = _spots(part)
                if len(spots) < 2 or part.face not in GUIDED:
                    continue
                first = spots[0]
                key = (part.operation, part.role, *((round(x - first[0], 1), round(y - first[1], 1)) for x, y in spots))
                if key in seen:
                    seen[key] = seen[key].model_copy(update={"side": "both", "says": BOTH})
                else:
                    seen[key] = _guide(part, side, spots)
    yield from seen.values()


ONE = "Clamped in the plate's place: the pilots of all holes through it, in the rail and in the plate alike."
BOTH = f"{ONE} Turned over it serves the other side."


def _spots(part: Part) -> tuple[tuple[float, float], ...]:
    """Centres of the plate's bolt holes, front to rear: of the size that it has most of."""
    sizes = [round(h.diameter_mm, 2) for h in part.holes]
    if not sizes:
        return ()
    most = max(sorted(set(sizes)), key=sizes.count)
    return tuple(sorted((h.x_mm, h.y_mm) for h in part.holes if round(h.diameter_mm, 2) == most))


def _guide(part: Part, side: Side, spots: tuple[tuple[float, float], ...]) -> Gauge:
    name = f"{part.name}: drill guide"
    return Gauge(
        id=f"{part.operation}/guide/{part.role}/{side}",
        kind="drill-guide",
        name=name,
        says=ONE,
        operation=part.operation,
        phase="mark",
        side=side,
        made_of=f"flat bar, {as_thickness(12.0)}",
        bore_mm=PILOT_MM,
        pattern=guide(f"{part.operation}/guide/{part.role}/{side}", name, side, spots, PILOT_MM, EDGE_MM),
    )


def dummies(here: RailsHere) -> Iterator[Gauge]:
    """A tube as wide as the joint, bored for its bolt, in every pair of tabs."""
    for placed, other in here.pairs():
        tabs = getattr(placed.op, "tabs", None)
        if not isinstance(tabs, Tabs):
            continue
        yield Gauge(
            id=f"{placed.op.id}/dummy",
            kind="pivot-dummy",
            name=f"{placed.op.name}: pivot dummy",
            says=f"Between the tabs while they are tacked, with {as_thickness(tabs.shim_mm)} of shim on each side and the joint's own bolt: no rubber or bearing sees the heat.",
            operation=placed.op.id,
            phase="tack",
            count=2 if other is not None else 1,
            made_of="tube or bored bar",
            long_mm=tabs.joint_mm,
            across_mm=DUMMY_PER_BORE * tabs.bolt().size.diameter_mm,
            bore_mm=tabs.bolt().size.hole_mm,
        )


def slopes(here: RailsHere) -> Iterator[Gauge]:
    """The rail's slope under a bracket, so that its foot is set off it and not off a level."""
    for placed, _ in here.pairs():
        if not isinstance(placed.op, Bracket):
            continue
        angle = _slope(here, placed)
        if abs(angle) >= SLOPE_DEG:
            way = "rises" if angle > 0 else "falls"
            yield wedge(
                f"{placed.op.id}/angle/rail",
                f"{placed.op.name}: slope of the rail",
                angle,
                placed.op.id,
                "tack",
                f"Between the rail and a level: the rail {way} rearward here.",
            )


def _slope(here: RailsHere, placed: Placed) -> float:
    side: Side = "left" if placed in here.placed["left"] else "right"
    return math.degrees(rail_here(here.survey, side, placed.centre_mm, here.placed[side]).slope_rad)
