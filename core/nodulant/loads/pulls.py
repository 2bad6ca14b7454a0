"""Forces at places in space, put on the rails.

What comes in near a rail is that rail's, with the torque of its distance from the shear centre; what comes in
between the rails hangs on both as on a crossmember that rests on them: by lever, what it tips by as a couple up and down.
"""

from collections.abc import Sequence

import numpy as np

from nodulant.base.arrays import Columns
from nodulant.loads.frame3d import Frame
from nodulant.loads.plan import Pull, Vector
from nodulant.loads.reach import FX, FZ, MY, MZ, levers
from nodulant.parts.sides import LEFT_RIGHT, Side

NEAR_RAIL_MM = 100.0
"""What comes in further than this inside the rails hangs on both."""

REACH_MM = 120.0
"""A crossmember, bracket or pad this near along the rail carries what acts there."""

OnRail = tuple[int, float, Pull]
"""A force on one rail: the row of its set, its stock station, itself."""


def put_on(frame: Frame, *sets: Sequence[Pull], braced: bool = False) -> Columns:
    """Nodal loads of every set of forces, shape (sets, nodes, 6); what is ``braced`` comes in at a crossmember near by."""
    loads = np.zeros((len(sets), len(frame.nodes), 6))
    taken = [(row, *own) for row, pulls in enumerate(sets) for own in _taken(frame, pulls)]
    for side in LEFT_RIGHT:
        own = [(row, _carried_at(frame, x) if braced else x, pull) for row, on, x, pull in taken if on == side]
        if own:
            _on_rail(frame, loads, side, own)
    return loads


def twisted(frame: Frame, pulls: Sequence[Pull]) -> Columns:
    """What forces beside the rails do besides resting on them: torque and force across, nodal loads (nodes, 6)."""
    loads = np.zeros((1, len(frame.nodes), 6))
    for side, own in beside(frame, pulls).items():
        _on_rail(frame, loads, side, own)
    loads[..., [FX, FZ, MY, MZ]] = 0.0
    return np.asarray(loads[0])


def beside(frame: Frame, pulls: Sequence[Pull]) -> dict[Side, list[OnRail]]:
    """Those that come in beside a rail, by rail; what hangs on both is left out, and a crossmember near by carries its own."""
    taken = [(on, _carried_at(frame, x), pull) for on, x, pull in _taken(frame, pulls) if not pull.on_rail]
    own = {side: [(0, x, pull) for on, x, pull in taken if on == side] for side in LEFT_RIGHT}
    return {side: rows for side, rows in own.items() if rows}


def _carried_at(frame: Frame, stock_x: float) -> float:
    """The station of the crossmember that carries what acts at another, or that one itself."""
    ties = frame.x[frame.tied]
    near = float(ties[np.argmin(np.abs(ties - stock_x))])
    return near if abs(near - stock_x) <= REACH_MM else stock_x


def on_line(frame: Frame, k: int, stock_x: float) -> Vector:
    """A place on the line of rail ``k`` at a stock station."""
    x, y, z = _between(frame, frame.nodes[k::2], np.array([stock_x]))[0].tolist()
    return x, y, z


def _between(frame: Frame, rows: Columns, stock_x: Columns) -> Columns:
    """Of rows at the frame's stations those at others, (places, ...)."""
    at = levers(frame, stock_x)
    share = at.share[:, None]
    return np.asarray(rows[at.behind - 1] * (1 - share) + rows[at.behind] * share)


def _taken(frame: Frame, pulls: Sequence[Pull]) -> list[tuple[Side, float, Pull]]:
    """Each force on the rail beside it, or on both where it comes in well inside them, with stock stations."""
    at = {side: [frame.routes[side].stock_x(pull.at[0]) for pull in pulls] for side in LEFT_RIGHT}
    lines = [_between(frame, frame.nodes[k::2], np.array(at[side]))[:, 1:] for k, side in enumerate(LEFT_RIGHT)]
    out: list[tuple[Side, float, Pull]] = []
    for i, pull in enumerate(pulls):
        (left, left_z), (right, right_z) = (line[i].tolist() for line in lines)
        x, y, z = pull.at
        if left + NEAR_RAIL_MM < y < right - NEAR_RAIL_MM:
            fx, fy, fz = pull.force
            share = (y - left) / (right - left)
            tips = (z - left_z - share * (right_z - left_z)) * fy / (right - left)
            for k, side in enumerate(LEFT_RIGHT):
                own = share if k else 1.0 - share
                force = own * fx, own * fy, own * fz + (-tips if k else tips)
                out.append((side, at[side][i], Pull((x, right if k else left, z), force, on_rail=True)))
        else:
            near: Side = "left" if abs(y - left) < abs(y - right) else "right"
            out.append((near, at[near][i], pull))
    return out


def _on_rail(frame: Frame, loads: Columns, side: Side, pulls: Sequence[OnRail]) -> None:
    """Forces of every strike, by its row in ``loads``, with their moments about one rail's line, torque about its shear centre."""
    k = LEFT_RIGHT.index(side)
    nodes = frame.nodes[k::2]
    rows, stock_x = np.array([row for row, _, _ in pulls]), np.array([x for _, x, _ in pulls])
    fx, fy, fz = np.array([p.force for _, _, p in pulls]).T
    x, y, z = np.array([p.at for _, _, p in pulls]).T
    off = x - _between(frame, nodes, stock_x)[:, 0]  # along: only where the metal at its place is gone
    own_fy, own_fz = np.where([p.on_rail for _, _, p in pulls], 0.0, np.stack([fy, fz]))
    each = np.stack([fx, fy, fz, own_fy, own_fz, y * own_fz - z * own_fy, z * fx - off * fz, off * fy - y * fx])
    of_strike = rows == np.arange(len(loads))[:, None]
    spread = levers(frame, stock_x).spread(of_strike[:, None] * each)
    along, across, up, beside_y, beside_z, roll, pitch, yaw = spread.transpose(1, 0, 2)
    centre_y, centre_z = frame.shear_centres[k::2].T
    about = [roll - centre_y * beside_z + centre_z * beside_y, pitch - nodes[:, 2] * along, yaw + nodes[:, 1] * along]
    loads[:, k::2] += np.stack([along, across, up, *about], axis=2)
