"""A kerb strike of one wheel: what links and springs put on the frame, met by the masses' own inertia.

The strike is short: no other wheel answers it, so the frame and what hangs on it fly free for its
length (D'Alembert: every mass pushes back by its mass times the rigid body's acceleration there,
half of it on each rail).
"""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from nodulant.base.arrays import Columns, cross
from nodulant.loads.beam import G
from nodulant.loads.carried import Carried
from nodulant.loads.case_loads import pushes
from nodulant.loads.cases import KERB_BACK, KERB_UP
from nodulant.loads.frame3d import Frame
from nodulant.loads.plan import Pull
from nodulant.loads.pulls import on_line, put_on
from nodulant.loads.reach import levers
from nodulant.parts.sides import AxleName
from nodulant.survey.vehicle import Mass

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
    comes in through the axle's links or its suspension's points; where there are none at the seats, its moment from the
    hub's height as a couple between the fore and aft ones.
    """
    each = (load.axle_load(wheel.axle) + wheel.unsprung_kg * G) / 2
    rise, back = (KERB_UP - 1.0) * each, KERB_BACK * each
    seats = sorted((s for s in load.seats if s.axle == wheel.axle), key=lambda s: load.stock_x[s.id])
    links = next((own for own in load.links if own.axle == wheel.axle), None)
    left, right = (on_line(frame, k, load.stock_x[seats[0].id])[1] for k in (0, 1))
    near = (wheel.half_track_mm - left) / (right - left)
    out: list[Pull] = []
    for k, share in ((1, near), (0, 1.0 - near)):
        at = [on_line(frame, k, load.stock_x[s.id]) for s in seats]
        lifted, couple, push = 0.0, 0.0, share * back
        if links is not None:
            for x, height, own, lift in pushes(load, links, push, wheel.hub_z_mm):
                out.append(Pull((on_line(frame, k, x)[0], at[0][1], height), (own, 0.0, lift), on_rail=True))
                lifted += lift
            push = 0.0
        elif wheel.axle in load.pushes:
            out += _of_side(load.pushes[wheel.axle].pulls(2 * push, wheel.hub_z_mm), k)
            push = 0.0
        else:
            turning = sum(s.share * push * (wheel.hub_z_mm - p[2]) for s, p in zip(seats, at, strict=True))
            couple = turning / max(at[-1][0] - at[0][0], 1.0)
        for i, (seat, place) in enumerate(zip(seats, at, strict=True)):
            up = seat.share * (share * rise - lifted) + couple * ((i == 0) - (i == len(seats) - 1))
            out.append(Pull(place, (seat.share * push, 0.0, up), on_rail=True))
    return tuple(out)


def _of_side(pulls: Sequence[Pull], k: int) -> list[Pull]:
    """Those on the left (0) or the right (1), and half of what stands in the middle."""
    way = 1.0 if k else -1.0
    return [pull if pull.at[1] else pull.times(0.5) for pull in pulls if way * pull.at[1] >= 0]


def struck(frame: Frame, load: Carried, *strikes: Sequence[Pull]) -> Columns:
    """Nodal loads of every strike with the masses' answer, each in equilibrium, shape (strikes, nodes, 6)."""
    loads = put_on(frame, *strikes)
    _answer(frame, _body(frame, load), loads)
    return loads


@dataclass(frozen=True, eq=False)
class _Body:
    """Masses as points, half of each on either rail: kg in all, their centre, their inertia about it.

    ``rows`` are their kg over the stations as they are and times their arms from the centre along, across and up, then
    all four times their heights, (rails, 8, stations).
    """

    kg: float
    centre: Columns
    inertia: Columns
    rows: Columns


@lru_cache(maxsize=4)
def _body(frame: Frame, load: Carried) -> _Body:
    where, kg, z = load.spread
    rails = [np.stack([*(np.interp(where, frame.x, frame.nodes[k::2, i]) for i in (0, 1)), z]) for k in (0, 1)]
    points, mass = np.stack(rails), kg / 2
    centre = (points @ mass).sum(axis=0) / (2 * mass.sum())
    arm = points - centre[:, None]
    second = ((mass * arm) @ arm.transpose(0, 2, 1)).sum(axis=0)
    each = np.concatenate([np.broadcast_to(mass, (2, 1, len(mass))), mass * arm], axis=1)
    rows = levers(frame, where).spread(np.concatenate([each, each * z], axis=1))
    return _Body(float(2 * mass.sum()), centre, np.trace(second) * np.eye(3) - second, rows)


def _push_back(moved: Columns, turning: Columns) -> Columns:
    """What a mass pushes back with along, across and up, by its kg and its arm's three parts, (strikes, 3, 4).

    - m (a + w x r), a the whole's acceleration and w its turning, (strikes, 3) each.
    """
    (a_x, a_y, a_z), (w_x, w_y, w_z), none = moved.T, turning.T, np.zeros(len(moved))
    rows = [[a_x, none, -w_z, w_y], [a_y, w_z, none, -w_x], [a_z, -w_y, w_x, none]]
    return np.asarray(-np.array(rows).transpose(2, 0, 1))


def _answer(frame: Frame, body: _Body, loads: Columns) -> None:
    """Add every mass's push back to ``loads``, (strikes, nodes, 6), so that each whole is in equilibrium."""
    forces = loads[:, :, :3].sum(axis=1)
    moments = loads[:, :, 3:].sum(axis=1) + cross(frame.nodes - body.centre, loads[:, :, :3]).sum(axis=1)
    turning = np.linalg.lstsq(body.inertia, moments.T, rcond=None)[0].T
    push = _push_back(forces / body.kg, turning)
    for k in (0, 1):
        along, across, up = (push @ body.rows[k, :4]).transpose(1, 0, 2)
        lifted_along, lifted_across = (push[:, :2] @ body.rows[k, 4:]).transpose(1, 0, 2)
        height, nodes = frame.nodes[k::2, 2], loads[:, k::2]
        nodes[..., 0] += along
        nodes[..., 1] += across
        nodes[..., 2] += up
        nodes[..., 3] -= lifted_across - across * height
        nodes[..., 4] += lifted_along - along * height
