"""A kerb strike of one wheel: what links and springs put on the frame, met by the masses' own inertia.

The strike is short: no other wheel answers it, so the frame and what hangs on it fly free for its
length (D'Alembert: every mass pushes back by its mass times the rigid body's acceleration there,
half of it on each rail). What comes in near a rail is that rail's with the torque of its distance;
what comes in between the rails hangs on both by lever, as on a crossmember.
"""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from nodulant.base.arrays import Columns, cross
from nodulant.loads.beam import G
from nodulant.loads.case_loads import Carried, Levers, levers, mass_levers, pushes
from nodulant.loads.cases import KERB_BACK, KERB_UP
from nodulant.loads.frame3d import Frame
from nodulant.loads.plan import Pull, Vector
from nodulant.parts.sides import LEFT_RIGHT, AxleName, Side
from nodulant.survey.vehicle import Mass

NEAR_RAIL_MM = 100.0
"""What comes in further than this inside the rails hangs on both."""
SPREAD_MM = 200.0
"""Masses nearer to each other than this along the frame do not say how it turns."""


def spread_enough(masses: Sequence[Mass]) -> bool:
    """Whether the masses lie far enough apart along the frame to say how it turns when it is struck."""
    ends = [x for m in masses if m.mass_kg > 0 for x in (m.x_mm, m.to_x_mm) if x is not None]
    return bool(ends) and max(ends) - min(ends) >= SPREAD_MM


@dataclass(frozen=True)
class StruckWheel:
    """Its axle, half of the track, height of the hub above the datum plane, mm, and what the axle weighs besides, kg."""

    axle: AxleName
    half_track_mm: float
    hub_z_mm: float
    unsprung_kg: float = 0.0


def by_seats(frame: Frame, load: Carried, wheel: StruckWheel) -> tuple[Pull, ...]:
    """The strike of the right wheel on an axle that hangs on its seats under the rails, beyond standing.

    A live axle on two springs a distance apart is a beam: the wheel stands outside them, so the near
    spring takes more than the strike and the far one is pulled the other way (statics). The push
    comes in through the axle's links; where there are none at the seats, its moment from the hub's
    height as a couple between the fore and aft ones.
    """
    each = (load.axle_load(wheel.axle) + wheel.unsprung_kg * G) / 2
    rise, back = (KERB_UP - 1.0) * each, KERB_BACK * each
    seats = sorted((s for s in load.seats if s.axle == wheel.axle), key=lambda s: load.stock_x[s.id])
    links = next((own for own in load.links if own.axle == wheel.axle), None)
    left, right = (_on_line(frame, k, load.stock_x[seats[0].id])[1] for k in (0, 1))
    near = (wheel.half_track_mm - left) / (right - left)
    out: list[Pull] = []
    for k, share in ((1, near), (0, 1.0 - near)):
        at = [_on_line(frame, k, load.stock_x[s.id]) for s in seats]
        lifted, couple, push = 0.0, 0.0, share * back
        if links is not None:
            for x, height, own, lift in pushes(load, links, push, wheel.hub_z_mm):
                out.append(Pull((_on_line(frame, k, x)[0], at[0][1], height), (own, 0.0, lift)))
                lifted += lift
            push = 0.0
        else:
            turning = sum(s.share * push * (wheel.hub_z_mm - p[2]) for s, p in zip(seats, at, strict=True))
            couple = turning / max(at[-1][0] - at[0][0], 1.0)
        for i, (seat, place) in enumerate(zip(seats, at, strict=True)):
            up = seat.share * (share * rise - lifted) + couple * ((i == 0) - (i == len(seats) - 1))
            out.append(Pull(place, (seat.share * push, 0.0, up)))
    return tuple(out)


def _on_line(frame: Frame, k: int, stock_x: float) -> Vector:
    """A place on the line of rail ``k`` at a stock station."""
    x, y, z = (float(np.interp(stock_x, frame.x, frame.nodes[k::2, i])) for i in range(3))
    return x, y, z


def struck(frame: Frame, load: Carried, *strikes: Sequence[Pull]) -> list[Columns]:
    """Nodal loads of every strike with the masses' answer, each in equilibrium, shape (nodes, 6)."""
    body, out = _body(frame, load), []
    for pulls in strikes:
        loads = np.zeros((len(frame.nodes), 6))
        taken = [row for pull in pulls for row in _taken(frame, pull)]
        for side in LEFT_RIGHT:
            own = [(stock_x, pull) for on, stock_x, pull in taken if on == side]
            if own:
                _on_rail(frame, loads, side, np.array([x for x, _ in own]), [pull for _, pull in own])
        _answer(frame, body, loads)
        out.append(loads)
    return out


def _taken(frame: Frame, pull: Pull) -> list[tuple[Side, float, Pull]]:
    """One force on the rail beside it, or on both by lever where it comes in well inside them, with stock stations."""
    x, y, z = pull.at
    at = {side: frame.routes[side].stock_x(x) for side in LEFT_RIGHT}
    left, right = (float(np.interp(at[s], frame.x, frame.nodes[k::2, 1])) for k, s in enumerate(LEFT_RIGHT))
    if left + NEAR_RAIL_MM < y < right - NEAR_RAIL_MM:
        share = (y - left) / (right - left)
        return [
            ("left", at["left"], Pull((x, left, z), pull.times(1.0 - share).force)),
            ("right", at["right"], Pull((x, right, z), pull.times(share).force)),
        ]
    near: Side = "left" if abs(y - left) < abs(y - right) else "right"
    return [(near, at[near], pull)]


def _on_rail(frame: Frame, loads: Columns, side: Side, stock_x: Columns, pulls: Sequence[Pull]) -> None:
    """Forces with their moments about one rail's line, r x F."""
    nodes = frame.nodes[LEFT_RIGHT.index(side) :: 2]
    fx, fy, fz = np.array([p.force for p in pulls]).T
    x, y, z = np.array([p.at for p in pulls]).T
    off = x - np.interp(stock_x, frame.x, nodes[:, 0])  # along: only where the metal at its place is gone
    at = levers(frame, stock_x)
    along, across, up = (at.spread(f) for f in (fx, fy, fz))
    roll, pitch, yaw = (at.spread(m) for m in (y * fz - z * fy, z * fx - off * fz, off * fy - y * fx))
    own = loads[LEFT_RIGHT.index(side) :: 2]
    own[:, 0] += along
    own[:, 1] += across
    own[:, 2] += up
    own[:, 3] += roll - nodes[:, 1] * up + nodes[:, 2] * across
    own[:, 4] += pitch - nodes[:, 2] * along
    own[:, 5] += yaw + nodes[:, 1] * along


@dataclass(frozen=True)
class _Body:
    """Masses as points, half of each on either rail: along the frame (n,), places (2 n, 3) about their centre, kg (2 n,)."""

    levers: Levers
    arm: Columns
    mass: Columns
    centre: Columns
    inertia: Columns


def _body(frame: Frame, load: Carried) -> _Body:
    where, kg, z = load.spread
    rows = [np.stack([*(np.interp(where, frame.x, frame.nodes[k::2, i]) for i in (0, 1)), z], axis=1) for k in (0, 1)]
    points, mass = np.concatenate(rows), np.concatenate([kg, kg]) / 2
    centre = mass @ points / mass.sum()
    arm = points - centre
    second = (mass[:, None] * arm).T @ arm
    return _Body(mass_levers(frame, load), arm, mass, centre, np.trace(second) * np.eye(3) - second)


def _answer(frame: Frame, body: _Body, loads: Columns) -> None:
    """Add every mass's push back to ``loads``, so that the whole is in equilibrium."""
    force = loads[:, :3].sum(axis=0)
    moment = loads[:, 3:].sum(axis=0) + cross(frame.nodes - body.centre, loads[:, :3]).sum(axis=0)
    turning = np.linalg.lstsq(body.inertia, moment, rcond=None)[0]
    push = -body.mass[:, None] * (force / body.mass.sum() + cross(np.broadcast_to(turning, body.arm.shape), body.arm))
    count = len(body.mass) // 2
    for k in (0, 1):
        own, z = push[k * count : (k + 1) * count], body.arm[k * count : (k + 1) * count, 2] + body.centre[2]
        along, across, up, lifted_along, lifted_across = (
            body.levers.spread(f) for f in (*own.T, own[:, 0] * z, own[:, 1] * z)
        )
        nodes = loads[k::2]
        nodes[:, 0] += along
        nodes[:, 1] += across
        nodes[:, 2] += up
        nodes[:, 3] -= lifted_across - across * frame.nodes[k::2, 2]
        nodes[:, 4] += lifted_along - along * frame.nodes[k::2, 2]
