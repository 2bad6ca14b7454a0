"""Nodal loads of every space case, each in equilibrium by itself.

Forces N, moments N mm about the frame's axes (x rearward, y right, z up). A force that acts at
a station is shared by lever between its two neighbours and between both rails. Inertia acts at
each mass, tyre forces at the ground: horizontal ones come into the frame at the axle's seats
with the moment of their height, as a couple between fore and aft seats, or through the axle's links or its suspension's
own points, and between left and right for roll. Roll couples are shared by the axles as they share the weight
(Nodulant default: the springs' own shares are not known here).
"""

from collections.abc import Sequence

import numpy as np

from nodulant.base.arrays import Columns, cross
from nodulant.loads.beam import G
from nodulant.loads.carried import Carried
from nodulant.loads.frame3d import Frame
from nodulant.loads.plan import AxleLinks, JackPoint, Pull, StopPads
from nodulant.loads.pulls import put_on, twisted
from nodulant.loads.reach import FX, FY, FZ, MX, MY, MZ, levers, on_masses, on_seats
from nodulant.loads.roll import rolled
from nodulant.parts.sides import LEFT_RIGHT, AxleName, Side


def standing(frame: Frame, load: Carried) -> Columns:
    """Half of every mass and seat force on each rail's nodes, and the torque of springs beside the rails, shape (nodes, 6)."""
    held = on_seats(frame, load).up(load.seat_shares * load.seat_loads)
    loads = np.asarray(held + _weight(frame, load))
    pulls = load.spring_pulls
    return loads + twisted(frame, pulls) if pulls else loads


def unit_twist(frame: Frame, load: Carried) -> Columns:
    """Unit couple about x at the front seats, its opposite at the rear ones."""
    sense = np.array([-1.0 if seat.axle == "front" else 1.0 for seat in load.seats])
    return rolled(frame, load, sense * load.seat_shares)


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
    _axle_along(frame, loads, load, "rear", -force, _ground(load), driven=True)
    return loads


def cornering(frame: Frame, load: Carried, lateral: float) -> Columns:
    """Inertia to the right at every mass, tyre forces to the left; roll carried by both axles as they share the weight.

    Tyre forces come in through an axle's links and track bar where they are known, else at its seats.
    """
    loads, lift = _inertia(frame, load, lateral, along=False), _ground(load)
    push, seats = load.seat_shares * load.seat_loads * lateral, on_seats(frame, load)
    on_links = {axle: own.sideways for axle, own in load.axles.items() if own.sideways}
    across = -np.where([seat.axle in on_links for seat in load.seats], 0.0, push) @ seats.rows
    _horizontal(frame, loads, across, across * lift, along=False)
    for axle, pulls in on_links.items():
        loads += _sideways(frame, load, axle, [pull.times(-lateral * load.axle_load(axle)) for pull in pulls])
    return np.asarray(loads + rolled(frame, load, push * (load.centre_z() - lift)))


def _sideways(frame: Frame, load: Carried, axle: AxleName, pulls: Sequence[Pull]) -> Columns:
    """Forces across through an axle's links, in all what they are at the ground under its seats.

    What is between (the axle's own weight and place, shear centres beside centroids) comes in at the seats: roll as a couple up
    and down, yaw as one along.
    """
    loads, seats = put_on(frame, pulls, braced=True)[0], on_seats(frame, load)
    shares = np.where([seat.axle == axle for seat in load.seats], load.seat_shares, 0.0)
    arm = cross(frame.nodes, loads[:, :3])
    force = float(loads[:, FY].sum())
    where = shares @ seats.rows
    roll = -force * _ground(load) - float((loads[:, MX] + arm[:, 0]).sum())
    yaw = force * float(where @ frame.nodes[::2, 0]) - float((loads[:, MZ] + arm[:, 2]).sum())
    turn = yaw * where / frame.widths
    loads[::2, FX] += turn
    loads[1::2, FX] -= turn
    return np.asarray(loads + rolled(frame, load, shares * roll))


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
    loads = _weight(frame, load)
    lift = jack_lift_n(frame, load, jack)
    _on_side(frame, loads, jack.x_mm, jack.side, lift)
    other: Side = "right" if jack.side == "left" else "left"
    for seat in load.seats:
        if seat.axle == jack.axle:
            _on_side(frame, loads, load.stock_x[seat.id], other, seat.share * lift)
        else:
            _vertical(frame, loads, load.stock_x[seat.id], seat.share * (load.weight_n - 2 * lift))
    return loads


def stopped(frame: Frame, load: Carried, stops: StopPads, factor: float) -> Columns:
    """On top of standing: the axle's surplus load at its stop pads, met by the masses' own heave and pitch."""
    extra = stop_surplus_n(load, stops.axle, factor)
    loads = np.zeros((len(frame.nodes), 6))
    _vertical(frame, loads, stops.x_mm, extra)
    planned = float(frame.routes["left"].x(np.array([stops.x_mm]))[0])
    masses = on_masses(frame, load)
    pitch = extra * (planned - masses.centre_x) / max(masses.second, 1e-9)
    heave = extra / masses.kg - pitch * masses.centre_x
    return np.asarray(loads - masses.at.up(np.array([heave, 0.0, pitch])))


def _ground(load: Carried) -> float:
    if load.ground_z is None:
        raise ValueError("this case needs the ground's height")
    return load.ground_z


def _weight(frame: Frame, load: Carried) -> Columns:
    """Every mass's weight, nodal loads (nodes, 6)."""
    return on_masses(frame, load).at.up(np.array([-G, 0.0, 0.0]))


def _vertical(frame: Frame, loads: Columns, at: float, force: float) -> None:
    """An upward ``force`` at a place, half on each rail; what overhangs an end comes with its moment."""
    place = np.array([at])
    up = levers(frame, place).spread(force / 2)
    for side in LEFT_RIGHT:
        _up(frame, loads, place, side, force / 2, up)


def _on_side(frame: Frame, loads: Columns, at: float, side: Side, force: float) -> None:
    place = np.array([at])
    _up(frame, loads, place, side, force, levers(frame, place).spread(force))


def _up(frame: Frame, loads: Columns, at: Columns, side: Side, force: float | Columns, spread: Columns) -> None:
    """``force`` at every place of one rail, ``spread`` over its stations; what overhangs an end comes with its moment."""
    k, x = LEFT_RIGHT.index(side), frame.x
    loads[k::2, FZ] += spread
    loads[k, MY] -= np.sum(force * np.minimum(at - x[0], 0.0))
    loads[k - 2, MY] -= np.sum(force * np.maximum(at - x[-1], 0.0))


def _horizontal(frame: Frame, loads: Columns, force: Columns, lifted: Columns, along: bool) -> None:
    """A horizontal ``force`` at every station and what it is times its height: on both rails, with the moment of the difference."""
    half, lifted = force / 2, lifted / 2
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
    loads, force = np.zeros((len(frame.nodes), 6)), on_masses(frame, load).at.rows * (G * share_of_g)
    _horizontal(frame, loads, force[0], force[1], along)
    return loads


def _axle_vertical(frame: Frame, loads: Columns, load: Carried, axle: AxleName, force: float) -> None:
    loads += on_seats(frame, load).up(np.array([s.share * force if s.axle == axle else 0.0 for s in load.seats]))


def _through_links(frame: Frame, loads: Columns, load: Carried, links: AxleLinks, force: float, z: float) -> None:
    """A force along through links, shared by the heights at which their lines pass the axle.

    What sloping links lift or press down is taken off the axle's seats (equilibrium of the axle).
    """
    for x, height, push, lift in pushes(load, links, force, z):
        pushed = levers(frame, np.array([x])).spread(push)
        _horizontal(frame, loads, pushed, pushed * height, along=True)
        _vertical(frame, loads, x, lift)
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


def _pitched(frame: Frame, loads: Columns, load: Carried, axle: AxleName, moment: float) -> None:
    """A moment about y at an axle's seats: that of a differential on the frame (Nodulant default: where it hangs is not known)."""
    for seat in load.seats:
        if seat.axle == axle:
            k = int(np.argmin(np.abs(frame.x - load.stock_x[seat.id])))
            loads[2 * k : 2 * k + 2, MY] += seat.share * moment / 2


def _axle_along(
    frame: Frame, loads: Columns, load: Carried, axle: AxleName, force: float, z: float, driven: bool = False
) -> None:
    """A force along at the ground, height ``z``: through the axle's links or suspension, else on its seats as a couple fore and aft.

    What ``driven`` wheels with a differential on the frame push comes in at their hubs.
    """
    links = next((own for own in load.links if own.axle == axle), None)
    if links is not None:
        _through_links(frame, loads, load, links, force, z)
        return
    if axle in load.pushes:
        push = load.pushes[axle]
        height = push.hub_z_mm if driven and not push.drives else z
        loads += put_on(frame, push.pulls(force, height))[0]
        _pitched(frame, loads, load, axle, force * (z - height))
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
