"""Saint-Venant torsion of thin-walled sections with any number of cells, fully or partly closed.

For unit twist J = sum(q a) + sum(s t^3)/3 with the flows q of ``sections.walls``; a wall yields where
T/J (q/t + t) reaches its shear yield, t/2 in a round tube. From a free end of a closing wall inward the twist
flexibility goes linearly from open to closed over the wall's closure s, 1/J = (1 - s)/J_open +
s/J_closed (Saint-Venant's principle, own); with several walls it is the mean over all levels u of
the flexibility with those that close to u or more. A box that stands on a rail is left out of its
capacity where it would lower it: more metal never makes a rail weaker.
"""

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np

from nodulant.base.arrays import Columns, Mask, Rows
from nodulant.sections.walls import LEAST_MM, Network, Stacked, stacked

SHEAR_YIELD = 0.577
"""Shear yield over tensile yield (von Mises)."""
CELL = 1e-3
"""A cell counts as one where its J is more than this share of the open walls'."""


@dataclass(frozen=True)
class Torsion:
    """J, mm4, torque at first shear yield, N mm, and how far a cell is closed, 0 to 1; shapes (stations,)."""

    j: Columns
    capacity: Columns
    closure: Columns
    cell_capacity: Columns
    """Torque at first shear yield of the cell as if it were closed all the way, N mm; 0 where there is none."""
    flows: Mapping[str, Columns]
    """Flow in each plate that is a wall or lies on one, 1/mm2 of torque."""

    @property
    def closed(self) -> Mask:
        """Stations where a cell is closed all the way."""
        shut: Mask = self.closure >= 1 - 1e-9
        return shut

    def rows(self, at: Rows) -> "Torsion":
        """The same at some of the stations."""
        flows = {name: flow[at] for name, flow in self.flows.items()}
        return Torsion(self.j[at], self.capacity[at], self.closure[at], self.cell_capacity[at], flows)


@dataclass(frozen=True)
class _Levels:
    """Sets of walls that conduct: station of each, its weight in the station's mean, and the walls (rows, W)."""

    rows: Rows
    weight: Columns
    conducts: Mask

    def mean(self, values: Columns, stations: int) -> Columns:
        """Weighted mean at every station."""
        return np.asarray(np.bincount(self.rows, self.weight * values, stations))


def torsion(network: Network) -> Torsion:
    """Evaluate all stations; shapes (stations,)."""
    s = stacked(network)
    levels, count = _levels(s.closure), len(s.points)
    flow, j, closed = _twisted(s, levels)
    capacity = _capacity(s, levels, flow, j)
    boxes = np.array([w.plate.startswith("cap") for w in network.walls])
    if boxes.any():
        bare = _Levels(levels.rows, levels.weight, levels.conducts & ~boxes)
        own_flow, own_j, _ = _twisted(s, bare)
        capacity = np.maximum(capacity, _capacity(s, bare, own_flow, own_j))
    cell = np.zeros(count)
    np.maximum.at(cell, levels.rows, np.where(closed, capacity, 0.0))
    return Torsion(
        1.0 / levels.mean(1.0 / np.maximum(j, 1e-9), count),
        1.0 / levels.mean(1.0 / np.maximum(capacity, 1e-9), count),
        np.minimum(levels.mean(closed.astype(float), count), 1.0),
        cell,
        _plate_flows(s, levels, flow / np.maximum(j, 1e-9)[:, None]),
    )


def _levels(closure: Columns) -> _Levels:
    """Levels of closure at each station, from all-round walls to those that only begin to close."""
    ordered = -np.sort(-closure, axis=1)
    edges = np.concatenate([np.ones((len(closure), 1)), ordered, np.zeros((len(closure), 1))], axis=1)
    weight = -np.diff(edges, axis=1)
    rows, level = np.nonzero(weight > 1e-12)
    conducts: Mask = closure[rows] >= edges[rows, level][:, None] - 1e-12
    conducts &= closure[rows] > 0
    return _Levels(rows.astype(np.int64), weight[rows, level], conducts)


def _twisted(s: Stacked, levels: _Levels) -> tuple[Columns, Columns, Mask]:
    """Flows of unit twist (rows, W), J and whether there is a cell, of every level."""
    rows = levels.rows
    conductance, area = s.conductance(rows, levels.conducts), s.twice_area[rows]
    potential = s.potential(conductance, -(conductance * area) @ s.signs)
    flow = conductance * (potential @ s.signs.T + area)
    cells, strips = (flow * area).sum(axis=1), _strips(s)[rows]
    closed: Mask = cells > CELL * strips
    return np.where(closed[:, None], flow, 0.0), np.where(closed, cells, 0.0) + strips, closed


def _strips(s: Stacked) -> Columns:
    """Sum of s t^3 / 3 over all metal, as far as it is welded on."""
    cover, thick, closure = s.doubled
    own = s.closure * np.maximum(s.length - (1 - np.pi / 4) * s.arcs, 0.0) * s.thickness**3
    return np.asarray((own + closure * cover * thick**3).sum(axis=1) / 3)


def _capacity(s: Stacked, levels: _Levels, flow: Columns, j: Columns) -> Columns:
    """Torque at first shear yield of every level; plates that do not conduct are not asked."""
    rows, (_, thick, closure) = levels.rows, s.doubled
    t = np.maximum(s.thickness[rows], LEAST_MM)
    shear_yield = SHEAR_YIELD * np.array([w.yield_reference_mpa for w in s.network.walls])
    smooth = np.array([{w.a, w.b} <= s.network.smooth for w in s.network.walls])
    own = np.where(smooth & (np.abs(flow) > 0), t / 2, t)
    stress = np.abs(flow) / (t + (thick * closure)[rows]) + own
    asked = levels.conducts & (s.thickness[rows] > LEAST_MM)
    least = np.where(asked, shear_yield / stress, np.inf).min(axis=1)
    return np.asarray(np.where(np.isfinite(least), j * least, 0.0))


def _plate_flows(s: Stacked, levels: _Levels, per_torque: Columns) -> dict[str, Columns]:
    """Mean flow in every plate, per torque."""
    out: dict[str, Columns] = {}
    _, thick, closure = s.doubled
    lying = thick * closure / np.maximum(s.thickness + thick * closure, LEAST_MM)
    for i, wall in enumerate(s.network.walls):
        flow = levels.mean(np.abs(per_torque[:, i]), len(s.points))
        for plate, share in ((wall.plate, 1.0), (wall.doubler.plate if wall.doubler else "", lying[:, i])):
            if plate:
                out[plate] = np.maximum(out.get(plate, 0.0 * flow), flow * share)
    return out
