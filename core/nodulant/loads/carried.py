"""What a frame carries: point masses, seats, and what equilibrium makes the seats hold."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from functools import cached_property, lru_cache

import numpy as np

from nodulant.base.arrays import Columns
from nodulant.frame.route import Route
from nodulant.loads.beam import Reactions, reactions
from nodulant.loads.plan import AxleLinks, AxleOnFrame, Pull, Push
from nodulant.parts.sides import LEFT_RIGHT, AxleName, Side
from nodulant.survey.vehicle import Mass, Seat

RUN_STEPS = 200
"""Point loads that a spread mass is made of."""
SEATS_APART_MM = 100.0
"""Seats of an axle nearer to each other than this along the frame hold no push above them: a couple needs an arm."""


def seats_take_push(axle: AxleName, seats: Sequence[Seat]) -> bool:
    """Whether an axle's push comes into the frame as a couple between its seats."""
    at = [s.x_mm for s in seats if s.axle == axle]
    return bool(at) and max(at) - min(at) >= SEATS_APART_MM


@dataclass(frozen=True, eq=False)
class Carried:
    """What a frame carries: masses and seats as planned stations see them, and the ground's height, mm."""

    masses: tuple[Mass, ...]
    seats: tuple[Seat, ...]
    held: Reactions
    stock_x: dict[str, float]
    """Stock station of each seat by id: where on the frame it sits."""
    ground_z: float | None = None
    links: tuple[AxleLinks, ...] = ()
    pushes: Mapping[AxleName, Push] = field(default_factory=dict)
    """Of axles with neither links nor seats that take their push."""
    axles: Mapping[AxleName, AxleOnFrame] = field(default_factory=dict)
    """What the suspensions say where they are described."""

    @cached_property
    def spread(self) -> tuple[Columns, Columns, Columns]:
        """Every mass as point masses: stock station, kg, height above the datum plane (0 where not known); (n,) each."""
        places = [_spots(m) for m in self.masses]
        where = np.concatenate([np.zeros(0), *places])
        sizes = [len(at) for at in places]
        kg = np.repeat([m.mass_kg / n for m, n in zip(self.masses, sizes, strict=True)], sizes)
        return where, kg, np.repeat([m.z_mm or 0.0 for m in self.masses], sizes)

    @cached_property
    def seat_x(self) -> Columns:
        """Stock station of each seat, shape (seats,)."""
        return np.array([self.stock_x[seat.id] for seat in self.seats])

    @cached_property
    def seat_shares(self) -> Columns:
        """Each seat's share of its axle's load, shape (seats,)."""
        return np.array([seat.share for seat in self.seats])

    @cached_property
    def seat_loads(self) -> Columns:
        """Static load of each seat's axle, N, shape (seats,)."""
        return np.array([self.axle_load(seat.axle) for seat in self.seats])

    @property
    def spring_pulls(self) -> tuple[Pull, ...]:
        """What the springs whose places are known put on the frame, standing."""
        return tuple(pull.times(self.axle_load(axle)) for axle, own in self.axles.items() for pull in own.springs)

    @property
    def weight_n(self) -> float:
        """Weight, N."""
        return self.held.front + self.held.rear

    @property
    def wheelbase(self) -> float:
        """Between the points where front and rear seats act, mm."""
        return self.held.rear_x - self.held.front_x

    def centre_z(self) -> float:
        """Height of the centre of mass above the datum plane, mm; every mass has its height."""
        total = sum(m.mass_kg for m in self.masses)
        return sum(m.mass_kg * (m.z_mm or 0.0) for m in self.masses) / total

    def axle_load(self, axle: AxleName) -> float:
        """Static load, N."""
        return self.held.front if axle == "front" else self.held.rear


def carried_by(
    masses: Sequence[Mass],
    seats: Sequence[Seat],
    ground_z: float | None = None,
    links: tuple[AxleLinks, ...] = (),
    pushes: Mapping[AxleName, Push] | None = None,
    axles: Mapping[AxleName, AxleOnFrame] | None = None,
) -> Carried:
    """What a straight frame carries: planned and stock stations are one. Raises NotSolvable."""
    held = reactions(masses, seats)
    at = {s.id: s.x_mm for s in seats}
    return Carried(tuple(masses), tuple(seats), held, at, ground_z, links, pushes or {}, axles or {})


def carried_along(
    masses: Sequence[Mass],
    seats: Sequence[Seat],
    routes: Mapping[Side, Route],
    ground_z: float | None,
    links: tuple[AxleLinks, ...] = (),
    pushes: Mapping[AxleName, Push] | None = None,
    axles: Mapping[AxleName, AxleOnFrame] | None = None,
) -> Carried:
    """What a frame carries whose segments have moved, each mass and seat riding with its own. Raises NotSolvable."""
    held = reactions(moved_masses(masses, routes), moved_seats(seats, routes))
    lifted = tuple(m if m.z_mm is None else m.model_copy(update={"z_mm": m.z_mm + _lift(m, routes)}) for m in masses)
    at = {s.id: s.x_mm for s in seats}
    return Carried(lifted, tuple(seats), held, at, ground_z, links, pushes or {}, axles or {})


def _lift(mass: Mass, routes: Mapping[Side, Route]) -> float:
    at = _spots(mass)
    return float(np.mean([routes[side].shift(at).dz.mean() for side in LEFT_RIGHT]))


def moved_masses(masses: Sequence[Mass], routes: Mapping[Side, Route]) -> tuple[Mass, ...]:
    """Masses at their planned stations, the mean of both rails'."""
    return tuple(
        m.model_copy(
            update={"x_mm": _x(m.x_mm, routes), "to_x_mm": None if m.to_x_mm is None else _x(m.to_x_mm, routes)}
        )
        for m in masses
    )


def moved_seats(seats: Sequence[Seat], routes: Mapping[Side, Route]) -> tuple[Seat, ...]:
    """Seats at their planned stations."""
    return tuple(s.model_copy(update={"x_mm": _x(s.x_mm, routes)}) for s in seats)


def _x(x_mm: float, routes: Mapping[Side, Route]) -> float:
    return sum(routes[side].x_at(x_mm) for side in LEFT_RIGHT) / 2


def _spots(mass: Mass) -> Columns:
    """Stock stations at which equal parts of a mass act."""
    return _run(mass.x_mm, mass.to_x_mm)


@lru_cache(maxsize=64)
def _run(start_mm: float, end_mm: float | None) -> Columns:
    if end_mm is None:
        return np.array([start_mm])
    steps = np.linspace(start_mm, end_mm, RUN_STEPS + 1)
    return np.asarray((steps[:-1] + steps[1:]) / 2)
