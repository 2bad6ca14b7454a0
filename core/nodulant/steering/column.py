"""The shaft from column to gear: angles in space, unevenness over a turn, and what clocking would even it out.

One joint between shafts at an angle b turns by tan(out) = cos b tan(in), angles counted from where
the driving yoke's pin stands square to both shafts; so w_out/w_in = cos b/(1 - sin^2 b sin^2 a)
(cardan equation, textbook). The driven pin stands a quarter turn on; the next driving pin is
clocked against it, and the next joint's plane is turned about the shaft between them. Composed
joint by joint this is exact for any clocking and any angles in space.
"""

import math
from dataclasses import dataclass
from itertools import pairwise

import numpy as np

from nodulant.axles.steering import ColumnClamp, SteeringShaft
from nodulant.base.arrays import Columns, cross
from nodulant.base.errors import InputError
from nodulant.units.inline import as_length

TURN = 721
"""Places over half a turn of the steering wheel: the pattern repeats after it."""
LEAST_MM, STRAIGHT = 1.0, 1e-9


@dataclass(frozen=True)
class ShaftFigures:
    """Angle of every joint, degrees; speed of the gear's input over the steering wheel's through half a turn; the best clocking."""

    angles_deg: tuple[float, ...]
    input_deg: Columns
    ratio: Columns
    uneven_percent: float
    best_clocking_deg: tuple[float, ...]
    best_uneven_percent: float


def lines_of(shaft: SteeringShaft) -> list[Columns]:
    """Unit vectors down the column, every shaft and the gear's input; raises InputError where two points are one."""
    points = [np.array(p.xyz()) for p in (shaft.column, *shaft.joints, shaft.gear)]
    out = []
    for k, (a, b) in enumerate(pairwise(points)):
        long = float(np.linalg.norm(b - a))
        if long < LEAST_MM:
            raise InputError(
                "two points of the steering shaft lie on one place",
                field=f"steering/shaft/joints/{min(k, len(shaft.joints) - 1)}",
                found=f"{as_length(long)} apart",
                acceptable=f"{as_length(1)} or more",
            )
        out.append((b - a) / long)
    return out


def shaft_figures(shaft: SteeringShaft) -> ShaftFigures:
    """Everything of the shaft's turning; raises InputError where it has no length somewhere."""
    lines = lines_of(shaft)
    angles = tuple(
        math.degrees(math.atan2(float(np.linalg.norm(cross(a, b))), float(a @ b))) for a, b in pairwise(lines)
    )
    clocked = _clocking(shaft)
    turn = np.linspace(0.0, math.pi, TURN)
    ratio = _ratio(lines, clocked, turn)
    best = _best(lines, clocked)
    return ShaftFigures(
        angles,
        np.degrees(turn),
        ratio,
        _spread(ratio),
        tuple(math.degrees(v) for v in best),
        _spread(_ratio(lines, best, turn)),
    )


def _clocking(shaft: SteeringShaft) -> tuple[float, ...]:
    """Clocking of every shaft between two joints, radians."""
    given = (math.radians(shaft.clocked_deg), math.radians(shaft.second_clocked_deg))
    return given[: max(len(shaft.joints) - 1, 0)]


def _spread(ratio: Columns) -> float:
    return 100.0 * float(ratio.max() - ratio.min())


def _ratio(lines: list[Columns], clocked: tuple[float, ...], turn: Columns) -> Columns:
    """Speed of the last line over the first, over a turn of the first."""
    total, angle = np.ones_like(turn), turn
    normal: Columns | None = None
    for k, (a, b) in enumerate(pairwise(lines)):
        own = cross(a, b)
        size = float(np.linalg.norm(own))
        if size < STRAIGHT:
            own = _any_square(a) if normal is None else normal
            size = float(np.linalg.norm(own))
        own = own / size
        if k > 0 and normal is not None:
            # the driven pin stands a quarter turn on; from there clocked, and seen from this joint's own plane
            angle = angle + math.pi / 2 + clocked[k - 1] - _about(a, normal, own)
        bend = math.atan2(float(np.linalg.norm(cross(a, b))), float(a @ b))
        total = total * math.cos(bend) / (1.0 - math.sin(bend) ** 2 * np.sin(angle) ** 2)
        # the whole turns are kept, so that the angle stays continuous
        angle = np.arctan2(np.sin(angle) * math.cos(bend), np.cos(angle))
        normal = own
    return total


def _any_square(a: Columns) -> Columns:
    seed = np.array([0.0, 0.0, 1.0]) if abs(a[2]) < 0.9 else np.array([1.0, 0.0, 0.0])
    return cross(a, seed)


def _about(axis: Columns, one: Columns, two: Columns) -> float:
    """Angle from one direction to another about an axis, radians."""
    return math.atan2(float(cross(one, two) @ axis), float(one @ two))


def _best(lines: list[Columns], clocked: tuple[float, ...]) -> tuple[float, ...]:
    """Clocking that evens the turn out most, one shaft after the other, closing in."""
    best, turn = list(clocked), np.linspace(0.0, math.pi, 181)
    for _ in range(2 if len(best) > 1 else 1):
        for k in range(len(best)):
            middle, reach = best[k], math.pi / 2
            for _ in range(5):
                tried = np.linspace(middle - reach, middle + reach, 25)
                spreads = [_spread(_ratio(lines, (*best[:k], float(v), *best[k + 1 :]), turn)) for v in tried]
                middle, reach = float(tried[int(np.argmin(spreads))]), reach / 6
            best[k] = (middle + math.pi / 2) % math.pi - math.pi / 2
    return tuple(best)


def slot_needed_mm(clamp: ColumnClamp) -> float:
    """Slot that has closed when the tube holds the column: its girth shrinks by pi times the play."""
    return math.pi * (clamp.bore_mm - clamp.column_mm)
