"""Nodal loads of every space case, each in equilibrium by itself.

Forces N, moments N mm about the frame's axes (x rearward, y right, z up). A force that acts at
a station is shared by lever between its two neighbours and between both rails. Inertia acts at
each mass, tyre forces at the ground: horizontal ones come into the frame at the axle's seats
with the moment of their height, as a couple between fore and aft seats, or through the axle's links,
and between left and right for roll. Roll couples are shared by the axles as they share the weight
(Nodulant default: the springs' own shares are not known here).
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property, lru_cache

import numpy as np

from nodulant.base.arrays import Columns
from nodulant.frame.route import Route
from nodulant.loads.beam import G, Reactions, reactions
from nodulant.loads.frame3d import Frame
from nodulant.loads.plan import AxleLinks, JackPoint, StopPads
from nodulant.loads.space_frame import Indices
from nodulant.parts.sides import LEFT_RIGHT, AxleName, Side
from nodulant.survey.vehicle import Mass, Seat

RUN_STEPS = 200
"""Point loads that a spread mass is made of."""
FX, FY, FZ, MX, MY, MZ = range(6)


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


def carried_by(masses: Sequence[Mass], seats: Sequence[Seat], ground_z: float | None = None) -> Carried:
    """What a straight frame carries: planned and stock stations are one. Raises NotSolvable."""
    held = reactions(masses, seats)
    return Carried(tuple(masses), tuple(seats), held, {s.id: s.x_mm for s in seats}, ground_z)


def carried_along(
    masses: Sequence[Mass],
    seats: Sequence[Seat],
    routes: Mapping[Side, Route],
    ground_z: float | None,
    links: tuple[AxleLinks, ...] = (),
) -> Carried:
    """What a frame carries whose segments have moved, each mass and seat riding with its own. Raises NotSolvable."""
    held = reactions(moved_masses(masses, routes), moved_seats(seats, routes))
    lifted = tuple(m if m.z_mm is None else m.model_copy(update={"z_mm": m.z_mm + _lift(m, routes)}) for m in masses)
    return Carried(lifted, tuple(seats), held, {s.id: s.x_mm for s in seats}, ground_z, links)


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


def standing(frame: Frame, load: Carried) -> Columns:
    """Half of every mass and seat force on each rail's nodes, shape (nodes, 6)."""
    loads = np.zeros((len(frame.nodes), 6))
    _vertical(frame, loads, load.seat_x, load.seat_shares * load.seat_loads)
    _weigh(frame, loads, load)
    return loads


def unit_twist(frame: Frame, load: Carried) -> Columns:
    """Unit couple about x at the front seats, its opposite at the rear ones."""
    loads = np.zeros((len(frame.nodes), 6))
    sense = np.array([-1.0 if seat.axle == "front" else 1.0 for seat in load.seats])
    _roll(frame, loads, load.seat_x, sense * load.seat_shares)
    return loads


def braking(frame: Frame, load: Carried, decel: float) -> Columns:
    """Inertia forward at every mass, tyre forces rearward in proportion to the loads after the transfer."""
    force, lift = load.weight_n * decel, _ground(load)
    moved = force * (load.centre_z() - lift) / load.wheelbase
    loads = _inertia(frame, load, -decel, along=True)
    after = {"front": load.held.front + moved, "rear": load.held.rear - moved}
    for axle in ("front", "rear"):
        name: AxleName = "front" if axle == "front" else "rear"
        _axle_vertical(frame, loads, load, name, after[axle] - load.axle_load(name))
        _axle_along(frame, loads, load, name, force * after[axle] / load.weight_n, lift)
    return loads


def launching(frame: Frame, load: Carried, grip: float) -> Columns:
    """Rear tyres at their limit push forward; the load moves to them as they do."""
    lever = (load.centre_z() - _ground(load)) / load.wheelbase
    rear = load.held.rear / max(1.0 - grip * lever, 0.2)
    force = grip * rear
    moved = force * lever
    loads = _inertia(frame, load, force / load.weight_n, along=True)
    _axle_vertical(frame, loads, load, "front", -moved)
    _axle_vertical(frame, loads, load, "rear", moved)
    _axle_along(frame, loads, load, "rear", -force, _ground(load))
    return loads


def cornering(frame: Frame, load: Carried, lateral: float) -> Columns:
    """Inertia to the right at every mass, tyre forces to the left; roll carried by both axles as they share the weight."""
    loads, lift = _inertia(frame, load, lateral, along=False), _ground(load)
    push = load.seat_shares * load.seat_loads * lateral
    _horizontal(frame, loads, levers(frame, load.seat_x), -push, lift, along=False)
    _roll(frame, loads, load.seat_x, push * (load.centre_z() - lift))
    return loads


def jack_lift_n(frame: Frame, load: Carried, jack: JackPoint) -> float:
    """What a jack under one rail carries while that side's wheel of its axle is off the ground, N."""
    planned = float(frame.routes[jack.side].x(np.array([jack.x_mm]))[0])
    near, far = load.held.front_x, load.held.rear_x
    if jack.axle == "rear":
        near, far = far, near
    return load.axle_load(jack.axle) * (near - far) / (near + planned - 2 * far)


def stop_surplus_n(load: Carried, axle: AxleName, factor: float) -> float:
    """What both stop pads of an axle take of ``factor`` times its static load, N: the seats carry it once."""
    return (factor - 1.0) * load.axle_load(axle)


def jacked(frame: Frame, load: Carried, jack: JackPoint) -> Columns:
    """A jack under one rail; that side's seats of its axle carry nothing, the other axle rolls freely."""
    loads = np.zeros((len(frame.nodes), 6))
    _weigh(frame, loads, load)
    lift = jack_lift_n(frame, load, jack)
    _on_side(frame, loads, jack.x_mm, jack.side, lift)
    other: Side = "right" if jack.side == "left" else "left"
    for seat in load.seats:
        if seat.axle == jack.axle:
            _on_side(frame, loads, load.stock_x[seat.id], other, seat.share * lift)
        else:
            _vertical(frame, loads, np.array([load.stock_x[seat.id]]), seat.share * (load.weight_n - 2 * lift))
    return loads


def stopped(frame: Frame, load: Carried, stops: StopPads, factor: float) -> Columns:
    """On top of standing: the axle's surplus load at its stop pads, met by the masses' own heave and pitch."""
    extra = stop_surplus_n(load, stops.axle, factor)
    loads = np.zeros((len(frame.nodes), 6))
    _vertical(frame, loads, np.array([stops.x_mm]), extra)
    planned = float(frame.routes["left"].x(np.array([stops.x_mm]))[0])
    where, kg, _ = load.spread
    at = frame.routes["left"].x(where)
    centre = float((kg * at).sum() / kg.sum())
    spread = float((kg * (at - centre) ** 2).sum())
    lifted = kg * (extra / kg.sum() + extra * (planned - centre) * (at - centre) / max(spread, 1e-9))
    _vertical(frame, loads, where, -lifted)
    return loads


def _ground(load: Carried) -> float:
    if load.ground_z is None:
        raise ValueError("this case needs the ground's height")
    return load.ground_z


def _spots(mass: Mass) -> Columns:
    """Stock stations at which equal parts of a mass act."""
    return _run(mass.x_mm, mass.to_x_mm)


@lru_cache(maxsize=64)
def _run(start_mm: float, end_mm: float | None) -> Columns:
    if end_mm is None:
        return np.array([start_mm])
    steps = np.linspace(start_mm, end_mm, RUN_STEPS + 1)
    return np.asarray((steps[:-1] + steps[1:]) / 2)


@dataclass(frozen=True)
class Levers:
    """Places along a frame as stations beside them: row of the one behind, and its share."""

    behind: Indices
    share: Columns
    stations: int

    def spread(self, force: float | Columns) -> Columns:
        """A ``force`` at every place, (..., places), shared by lever between the stations beside it, (..., stations)."""
        back = force * self.share
        own = np.concatenate([force - back, back], axis=-1)
        count = int(np.prod(own.shape[:-1]))
        at = self._beside + self.stations * np.arange(count)[:, None]
        found = np.bincount(at.ravel(), own.ravel(), count * self.stations)
        return np.asarray(found.reshape(*own.shape[:-1], self.stations))

    @cached_property
    def _beside(self) -> Indices:
        """Rows of the stations ahead of every place, then of those behind, (2 places,)."""
        return np.concatenate([self.behind - 1, self.behind])


def levers(frame: Frame, at: Columns) -> Levers:
    """Places at stock stations ``at``; what overhangs an end is on it."""
    x = frame.x
    on_frame = np.minimum(np.maximum(at, x[0]), x[-1])
    behind = np.minimum(np.maximum(np.searchsorted(x, on_frame), 1), len(x) - 1)
    return Levers(behind, (on_frame - x[behind - 1]) / (x[behind] - x[behind - 1]), len(x))


@lru_cache(maxsize=4)
def mass_levers(frame: Frame, load: Carried) -> Levers:
    """Every point mass along its frame."""
    return levers(frame, load.spread[0])


def _vertical(frame: Frame, loads: Columns, at: Columns, force: float | Columns) -> None:
    """An upward ``force`` at every place, half on each rail; what overhangs an end comes with its moment."""
    up = levers(frame, at).spread(force / 2)
    for side in LEFT_RIGHT:
        _up(frame, loads, at, side, force / 2, up)


def _weigh(frame: Frame, loads: Columns, load: Carried) -> None:
    where, kg, _ = load.spread
    half = -G * kg / 2
    up = mass_levers(frame, load).spread(half)
    for side in LEFT_RIGHT:
        _up(frame, loads, where, side, half, up)


def _on_side(frame: Frame, loads: Columns, at: float, side: Side, force: float) -> None:
    place = np.array([at])
    _up(frame, loads, place, side, force, levers(frame, place).spread(force))


def _up(frame: Frame, loads: Columns, at: Columns, side: Side, force: float | Columns, spread: Columns) -> None:
    """``force`` at every place of one rail, ``spread`` over its stations; what overhangs an end comes with its moment."""
    k, x = LEFT_RIGHT.index(side), frame.x
    loads[k::2, FZ] += spread
    loads[k, MY] -= np.sum(force * np.minimum(at - x[0], 0.0))
    loads[k - 2, MY] -= np.sum(force * np.maximum(at - x[-1], 0.0))


def _roll(frame: Frame, loads: Columns, at: Columns, couple: Columns) -> None:
    """A couple about x at every place as a vertical force up on the right rail and down on the left."""
    force = levers(frame, at).spread(couple) / frame.widths
    loads[1::2, FZ] += force
    loads[::2, FZ] -= force


def _horizontal(
    frame: Frame, loads: Columns, at: Levers, force: float | Columns, z: float | Columns, along: bool
) -> None:
    """A horizontal ``force`` at every place, at height ``z``: on both rails, with the moment of the difference."""
    half, lifted = at.spread(force) / 2, at.spread(force * z) / 2
    for k in (0, 1):
        moment = lifted - half * frame.nodes[k::2, 2]
        loads[k::2, FX if along else FY] += half
        if along:
            loads[k::2, MY] += moment
        else:
            loads[1::2, FZ] -= moment / frame.widths
            loads[::2, FZ] += moment / frame.widths


def _inertia(frame: Frame, load: Carried, share_of_g: float, along: bool) -> Columns:
    """A share of its weight at every mass, rearward or to the right (the other way where negative)."""
    loads = np.zeros((len(frame.nodes), 6))
    _, kg, z = load.spread
    _horizontal(frame, loads, mass_levers(frame, load), kg * G * share_of_g, z, along)
    return loads


def _axle_vertical(frame: Frame, loads: Columns, load: Carried, axle: AxleName, force: float) -> None:
    own = np.array([seat.axle == axle for seat in load.seats])
    _vertical(frame, loads, load.seat_x[own], load.seat_shares[own] * force)


def _through_links(frame: Frame, loads: Columns, load: Carried, links: AxleLinks, force: float, z: float) -> None:
    """A force along through links, shared by the heights at which their lines pass the axle.

    What sloping links lift or press down is taken off the axle's seats (equilibrium of the axle).
    """
    for x, height, push, lift in pushes(load, links, force, z):
        _horizontal(frame, loads, levers(frame, np.array([x])), push, height, along=True)
        _vertical(frame, loads, np.array([x]), lift)
        _axle_vertical(frame, loads, load, links.axle, -lift)


def pushes(load: Carried, links: AxleLinks, force: float, z: float) -> list[tuple[float, float, float, float]]:
    """What upper and lower links take of a force along at height ``z``: station, height, push and lift, mm and N."""
    seats = [s for s in load.seats if s.axle == links.axle]
    axle_x = sum(s.share * load.stock_x[s.id] for s in seats) / sum(s.share for s in seats)
    rows = (
        (links.upper_x_mm, links.upper_z_mm, links.upper_slope),
        (links.lower_x_mm, links.lower_z_mm, links.lower_slope),
    )
    high, low = (height - slope * (x - axle_x) for x, height, slope in rows)
    apart = high - low
    apart = apart if abs(apart) >= LINES_APART_MM else float(np.copysign(LINES_APART_MM, apart))
    lower = force * (high - z) / apart
    both = zip(rows, (force - lower, lower), strict=True)
    return [(x, height, push, push * slope) for (x, height, slope), push in both]


LINES_APART_MM = 20.0
"""Lines of upper and lower links that pass the axle nearer to each other than this count as this far apart."""


def _axle_along(frame: Frame, loads: Columns, load: Carried, axle: AxleName, force: float, z: float) -> None:
    """A force along at the ground, height ``z``: through the axle's links, else on its seats as a couple fore and aft."""
    links = next((own for own in load.links if own.axle == axle), None)
    if links is not None:
        _through_links(frame, loads, load, links, force, z)
        return
    own = sorted((s for s in load.seats if s.axle == axle), key=lambda s: s.x_mm)
    ends = [int(np.argmin(np.abs(frame.x - load.stock_x[s.id]))) for s in (own[0], own[-1])]
    for seat in own:
        k = int(np.argmin(np.abs(frame.x - load.stock_x[seat.id])))
        for rail in (0, 1):
            half = seat.share * force / 2
            loads[2 * k + rail, FX] += half
            moment = half * (z - float(frame.nodes[2 * k + rail, 2]))
            apart = float(frame.nodes[2 * ends[1] + rail, 0] - frame.nodes[2 * ends[0] + rail, 0])
            for spot, sign in zip(ends, (1.0, -1.0), strict=True):
                loads[2 * spot + rail, FZ] += sign * moment / apart
