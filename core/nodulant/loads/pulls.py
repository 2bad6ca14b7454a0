"""Forces at places in space, put on the rails.

What comes in near a rail is that rail's, with the torque of its distance; what comes in between the rails
hangs on both by lever, as on a crossmember.
"""

from collections.abc import Sequence

import numpy as np

from nodulant.base.arrays import Columns
from nodulant.loads.frame3d import Frame
from nodulant.loads.plan import Pull, Vector
from nodulant.loads.reach import levers
from nodulant.parts.sides import LEFT_RIGHT, Side

NEAR_RAIL_MM = 100.0
"""What comes in further than this inside the rails hangs on both."""


def put_on(frame: Frame, *sets: Sequence[Pull]) -> Columns:
    """Nodal loads of every set of forces, shape (sets, nodes, 6)."""
    loads = np.zeros((len(sets), len(frame.nodes), 6))
    taken = [_taken(frame, pulls) for pulls in sets]
    for side in LEFT_RIGHT:
        own = [(row, stock_x, pull) for row, pulls in enumerate(taken) for on, stock_x, pull in pulls if on == side]
        if own:
            _on_rail(frame, loads, side, own)
    return loads


def on_line(frame: Frame, k: int, stock_x: float) -> Vector:
    """A place on the line of rail ``k`` at a stock station."""
    x, y, z = _line(frame, k, np.array([stock_x]))[0].tolist()
    return x, y, z


def _line(frame: Frame, k: int, stock_x: Columns) -> Columns:
    """Places on the line of rail ``k`` at stock stations, (n, 3)."""
    at = levers(frame, stock_x)
    nodes, share = frame.nodes[k::2], at.share[:, None]
    return np.asarray(nodes[at.behind - 1] * (1 - share) + nodes[at.behind] * share)


def _taken(frame: Frame, pulls: Sequence[Pull]) -> list[tuple[Side, float, Pull]]:
    """Each force on the rail beside it, or on both by lever where it comes in well inside them, with stock stations."""
    at = {side: [frame.routes[side].stock_x(pull.at[0]) for pull in pulls] for side in LEFT_RIGHT}
    rails = [_line(frame, k, np.array(at[side]))[:, 1].tolist() for k, side in enumerate(LEFT_RIGHT)]
    out: list[tuple[Side, float, Pull]] = []
    for i, (pull, left, right) in enumerate(zip(pulls, *rails, strict=True)):
        x, y, z = pull.at
        if left + NEAR_RAIL_MM < y < right - NEAR_RAIL_MM:
            share = (y - left) / (right - left)
            out.append(("left", at["left"][i], Pull((x, left, z), pull.times(1.0 - share).force)))
            out.append(("right", at["right"][i], Pull((x, right, z), pull.times(share).force)))
        else:
            near: Side = "left" if abs(y - left) < abs(y - right) else "right"
            out.append((near, at[near][i], pull))
    return out


def _on_rail(frame: Frame, loads: Columns, side: Side, pulls: Sequence[tuple[int, float, Pull]]) -> None:
    """Forces of every strike, by its row in ``loads``, with their moments about one rail's line, r x F."""
    k = LEFT_RIGHT.index(side)
    nodes = frame.nodes[k::2]
    rows, stock_x = np.array([row for row, _, _ in pulls]), np.array([x for _, x, _ in pulls])
    fx, fy, fz = np.array([p.force for _, _, p in pulls]).T
    x, y, z = np.array([p.at for _, _, p in pulls]).T
    off = x - _line(frame, k, stock_x)[:, 0]  # along: only where the metal at its place is gone
    each = np.stack([fx, fy, fz, y * fz - z * fy, z * fx - off * fz, off * fy - y * fx])
    of_strike = rows == np.arange(len(loads))[:, None]
    spread = levers(frame, stock_x).spread(of_strike[:, None] * each)
    along, across, up, roll, pitch, yaw = spread.transpose(1, 0, 2)
    about = [roll - nodes[:, 1] * up + nodes[:, 2] * across, pitch - nodes[:, 2] * along, yaw + nodes[:, 1] * along]
    loads[:, k::2] += np.stack([along, across, up, *about], axis=2)
