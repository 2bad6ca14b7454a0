"""Shear flow in the walls of thin-walled sections, open or closed, under shear through the shear centre.

Along a wall dq/ds = -t dsigma/dx with dsigma/dx = (V_z (I_y z - I_yz y) + V_y (I_z y - I_yz z)) / (I_y I_z -
I_yz^2), I_y of y^2 and I_z of z^2; round every cell the flow is compatible with no twist (Megson, Aircraft
Structures, from memory). The flow at the ends of a plate is what its long welds carry.
"""

import numpy as np

from nodulant.base.arrays import Columns
from nodulant.sections.walls import LEAST_MM, Network, Stacked, stacked

Flows = dict[str, tuple[Columns, Columns]]
"""By plate: flow at the worse of its long edges per N of shear upright and across, 1/mm; (stations,) each."""


def edge_flows(network: Network) -> Flows:
    """Flows at the long edges of every plate that is a wall of the section."""
    s = stacked(network)
    conducts = s.closure > 0
    mass = np.where(conducts, s.thickness * s.closure, 0.0)
    start, end = s.ends
    weight = mass * s.length
    area = np.maximum(weight.sum(axis=1), LEAST_MM)

    def ends_of(values: Columns) -> tuple[Columns, Columns]:
        a, b = values[:, start], values[:, end]
        middle = ((weight * (a + b)).sum(axis=1) / 2 / area)[:, None]
        return a - middle, b - middle

    (ya, yb), (za, zb) = ends_of(s.points[..., 0]), ends_of(s.points[..., 1])

    def second(a: Columns, b: Columns, c: Columns, d: Columns) -> Columns:
        return np.asarray((weight * (2 * a * c + 2 * b * d + a * d + b * c)).sum(axis=1) / 6)[:, None]

    i_y, i_z, i_yz = second(ya, yb, ya, yb), second(za, zb, za, zb), second(ya, yb, za, zb)
    whole = np.maximum(i_y * i_z - i_yz**2, LEAST_MM)
    up = (i_y * za - i_yz * ya) / whole, (i_y * zb - i_yz * yb) / whole
    across = (i_z * ya - i_yz * za) / whole, (i_z * yb - i_yz * zb) / whole
    conductance = s.conductance(np.arange(len(area), dtype=np.int64), conducts)
    return _at_plates(s, [_edge(s, conductance, mass * a, mass * b) for a, b in (up, across)])


def _edge(s: Stacked, conductance: Columns, a: Columns, b: Columns) -> tuple[Columns, Columns]:
    """Flow at both ends of every wall for a longitudinal pull that goes from a to b along it, N/mm2 of wall each."""
    start, end = s.ends
    sources = np.zeros(s.points.shape[:2])
    for node, pull in ((start, 2 * a + b), (end, a + 2 * b)):
        for wall, k in enumerate(node):
            sources[:, k] += s.length[:, wall] * pull[:, wall] / 6
    potential = s.potential(conductance, sources)
    first = conductance * (potential @ s.signs.T) + s.length * (2 * a + b) / 6
    return first, first - s.length * (a + b) / 2


def _at_plates(s: Stacked, flows: list[tuple[Columns, Columns]]) -> Flows:
    """The flow at the edges where a plate meets what is no part of it."""
    out: Flows = {}
    names = list(s.network.nodes)
    for plate in {w.plate for w in s.network.walls if w.plate}:
        own = [i for i, w in enumerate(s.network.walls) if w.plate == plate]
        others = {n for i, w in enumerate(s.network.walls) if i not in own for n in (w.a, w.b)}
        worst = []
        for first, last in flows:
            rows = [0.0 * first[:, 0]]
            for i in own:
                wall = s.network.walls[i]
                rows += [np.abs(q[:, i]) for q, n in ((first, wall.a), (last, wall.b)) if n in others and n in names]
            worst.append(np.asarray(np.max(rows, axis=0)))
        out[plate] = (worst[0], worst[1])
    return out
