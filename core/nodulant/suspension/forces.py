"""Forces in links and springs from the transposed Jacobian (virtual work).

Equilibrium of axle and wheels together: -J^T T + S^T F + W = 0, T tension of every rod, F push of
every spring, W the forces at the tyres about the hub line. A brake or drive force acts at the
contact patch and nowhere else: a torque besides would count it twice. With a differential on the
frame the drive force acts at the hub. With more rods than needed the forces are those of least
strain energy.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

import numpy as np

from nodulant.base.arrays import Columns, cross
from nodulant.linkage.mechanism import Point
from nodulant.loads.cases import KERB_BACK, KERB_UP
from nodulant.suspension.feet import Springing, bears
from nodulant.suspension.motion import Motion

LoadCase = Literal["standing", "launch", "brake", "bump", "kerb"]
NAMES: dict[LoadCase, str] = {
    "standing": "Standing",
    "launch": "Launch at the tyres' limit",
    "brake": "Braking, 1 g",
    "bump": "Both wheels in a bump, 3 g",
    "kerb": "Kerb strike, right wheel",
}
BUMP = 3.0


@dataclass(frozen=True)
class AxleLoads:
    """What an axle carries, N: standing load of both tyres, and the case's transfer."""

    standing_n: float
    launch_n: float | None
    """At the tyres while launching with ``drive_n``; None where the centre of mass's height is not known."""
    drive_n: float
    braking_n: float | None
    brake_n: float


def tyre_forces(case: LoadCase, loads: AxleLoads, m: Motion) -> list[tuple[Point, Point]] | None:
    """(force, place against the hub line) at the tyres; None where an input is missing. Both wheels of an axle, one of a single."""
    half, r = m.setting.half_track_mm, m.setting.radius_mm
    up, along, high = 0.0, 0.0, -r
    if case == "standing":
        up = loads.standing_n
    elif case == "bump":
        up = BUMP * loads.standing_n
    elif case == "launch":
        if loads.launch_n is None:
            return None
        up, along = loads.launch_n, -loads.drive_n
        high = -r if m.layout.torque_on_carrier else 0.0
    elif case == "brake":
        if loads.braking_n is None:
            return None
        up, along = loads.braking_n, loads.brake_n
    sides = (half,) if m.layout.independent else (half, -half)
    if case == "kerb":
        wheel = loads.standing_n / 2
        rows = [((KERB_BACK * wheel, 0.0, KERB_UP * wheel), (0.0, half, 0.0))]
        return rows if m.layout.independent else [*rows, ((0.0, 0.0, wheel), (0.0, -half, 0.0))]
    return [((along / 2, 0.0, up / 2), (0.0, y, high if along else 0.0)) for y in sides]


@dataclass(frozen=True)
class Forces:
    """Tension of every rod and guide (names as the mechanism's), push of every spring, N; what does not balance, N."""

    tension: Columns
    springs: Columns
    left_n: float


def balance(m: Motion, row: int, springs: Sequence[Springing], tyres: Sequence[tuple[Point, Point]]) -> Forces:
    """Forces at one level travel; a spring on a wishbone bears on the carrier through the ball joint."""
    c, solved = m.sweep.compiled, m.level
    n = c.mechanism.freedoms
    columns = [-solved.jacobian[row, : c.held].T]
    for own in springs:
        force, place = bears(own, m, row)
        column = np.zeros(n)
        column[:3], column[3:6] = force, cross(place - solved.pose.origin[row], force)
        columns.append(column[:, None])
    outside = np.zeros(n)
    for tyre, at in tyres:
        outside[:3] += tyre
        outside[3:6] += cross(np.array(at), np.array(tyre))
    # mm and radians weigh alike once moments count by a metre
    scale = np.array([1.0] * 3 + [1e-3] * (n - 3))
    matrix = np.concatenate(columns, axis=1) * scale[:, None]
    weight = np.sqrt(np.append(c.stiffness, np.full(len(springs), c.stiffness.max())))
    found, *_ = np.linalg.lstsq(matrix * weight, -outside * scale, rcond=1e-9)
    forces = found * weight
    left = matrix @ forces + outside * scale
    return Forces(forces[: c.held], forces[c.held :], float(np.abs(left).max()))
