"""Shear and moment of a statically determinate frame.

The sprung masses rest on two axle reactions; each is shared to its seats by fixed fractions
(a leaf spring midway between its hangers gives 1/2 and 1/2, a coilover seat takes 1), so no
seat is a rigid support. Each rail carries half. Upward forces are positive; the moment is
positive when the bottom fibre is in tension (sagging). g = 9.80665 m/s2 exactly (CGPM 1901).
"""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from nodulant.base.arrays import Columns
from nodulant.base.errors import NotSolvable
from nodulant.parts.sides import AxleName
from nodulant.survey.vehicle import Mass, Seat
from nodulant.units.inline import as_length

G = 9.80665
RAILS = 2


@dataclass(frozen=True)
class Internal:
    """Shear, N, and moment, N mm, in one rail at 1 g; shape (stations,)."""

    shear: Columns
    moment: Columns


@dataclass(frozen=True)
class Reactions:
    """Sprung load on each axle at 1 g, N, and the point where its seats act together, mm."""

    front: float
    rear: float
    front_x: float
    rear_x: float


def reactions(masses: Sequence[Mass], seats: Sequence[Seat]) -> Reactions:
    """Axle reactions of the whole vehicle; raises NotSolvable when the frame cannot rest."""
    front_x, rear_x = (seat_centre(seats, axle) for axle in ("front", "rear"))
    if rear_x - front_x < 1.0:
        raise NotSolvable(
            "the rear seats do not lie behind the front seats",
            field="/design/seats",
            found=f"{as_length(front_x)} and {as_length(rear_x)}",
            acceptable="front seats ahead of rear seats",
        )
    weight = sum(m.mass_kg for m in masses) * G
    moment = sum(m.mass_kg * G * (_centre(m) - front_x) for m in masses)
    rear = moment / (rear_x - front_x)
    if rear < 0 or rear > weight:
        raise NotSolvable(
            "the vehicle tips over an axle as loaded",
            field="/survey/masses",
            found=f"rear axle {rear:.0f} N of {weight:.0f} N",
            acceptable="a load between the axles",
        )
    return Reactions(weight - rear, rear, front_x, rear_x)


def seat_centre(seats: Sequence[Seat], axle: AxleName) -> float:
    """Station where the seats of one axle act together; their shares must add up to 1."""
    own = [seat for seat in seats if seat.axle == axle]
    total = sum(seat.share for seat in own)
    if not own or abs(total - 1.0) > 1e-6:
        raise NotSolvable(
            f"the shares of the {axle} seats do not add up to 1",
            field="/design/seats",
            found=f"{total:g}",
            acceptable="1",
        )
    return sum(seat.share * seat.x_mm for seat in own)


def internal_forces(x: Columns, masses: Sequence[Mass], seats: Sequence[Seat]) -> Internal:
    """Shear and moment at stations ``x`` in one rail at 1 g; both rails carry the same and ask once."""
    return _internal_forces(x.tobytes(), tuple(masses), tuple(seats))


@lru_cache(maxsize=64)
def _internal_forces(columns: bytes, masses: tuple[Mass, ...], seats: tuple[Seat, ...]) -> Internal:
    x: Columns = np.frombuffer(columns)
    held = reactions(masses, seats)
    shear, moment = np.zeros_like(x), np.zeros_like(x)
    for seat in seats:
        force = seat.share * (held.front if seat.axle == "front" else held.rear)
        _point(x, seat.x_mm, force, shear, moment)
    for mass in masses:
        if mass.to_x_mm is None:
            _point(x, mass.x_mm, -mass.mass_kg * G, shear, moment)
        else:
            _run(x, mass.x_mm, mass.to_x_mm, -mass.mass_kg * G, shear, moment)
    return Internal(shear / RAILS, moment / RAILS)


def _centre(mass: Mass) -> float:
    return mass.x_mm if mass.to_x_mm is None else (mass.x_mm + mass.to_x_mm) / 2


def _point(x: Columns, at: float, force: float, shear: Columns, moment: Columns) -> None:
    behind = np.maximum(x - at, 0.0)
    shear += np.where(x > at, force, 0.0)
    moment += force * behind


def _run(x: Columns, start: float, end: float, force: float, shear: Columns, moment: Columns) -> None:
    each = force / (end - start)
    from_start, from_end = np.maximum(x - start, 0.0), np.maximum(x - end, 0.0)
    shear += each * (from_start - from_end)
    moment += each * (from_start**2 - from_end**2) / 2
