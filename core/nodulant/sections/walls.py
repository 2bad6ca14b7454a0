"""Thin-walled sections of every station at once: straight walls between named nodes.

Terms: *y* across the rail and *z* up, mm. A wall's *closure* says how far it closes a cell for
torsion: 1 where both its long edges are welded all along, falling to 0 at a free end. What lies on
a wall over part of its length is its *doubler*. Flows and warping all come from one potential per
node: along a wall of length L and thickness t the flow of unit twist is q = t/L (w_b - w_a + a), a
being twice the area the wall spans from the pole, and flows balance at every node. On a tree of
walls q is 0 and w is the sectorial coordinate; round cells q is Bredt's (Kollbrunner and Basler,
Torsion in Structures, from memory).

In a square corner the flow takes the short way round: the corner block counts 0.56 squares instead
of 1 (two-dimensional conduction shape factor of a corner, Incropera and DeWitt table 4.1, from
memory); a rounded corner follows its arc.
"""

from collections.abc import Mapping
from dataclasses import dataclass, field
from functools import cached_property
from itertools import combinations

import numpy as np

from nodulant.base.arrays import Columns, Mask, Rows

CORNER_SAVING = 0.44
"""Squares that a right-angled corner saves against its midline length."""
ARC_SAVING = 1 - np.pi / 4
"""What each of two walls saves of a rounded corner's radius; twice the area lost there over its square."""
LEAST_MM = 1e-9
LOOSE = 1e-13
"""Conductance to nowhere that keeps nodes without walls in their place."""


@dataclass(frozen=True)
class Doubler:
    """A plate lying on a wall over part of its length, mm; ``closure`` is how far flow passes along its edges."""

    length: Columns
    thickness: Columns
    closure: Columns
    plate: str = ""


@dataclass(frozen=True)
class Wall:
    """A straight wall between two nodes; columns per station. ``plate`` names what it is, the rail's own where empty."""

    a: str
    b: str
    thickness: Columns
    closure: Columns
    yield_reference_mpa: float
    doubler: Doubler | None = None
    plate: str = ""


@dataclass(frozen=True)
class Network:
    """Node positions (stations, 2), the walls, and the midline radius of rounded corners, mm.

    A rounded corner lies between the first two walls that meet there. ``smooth`` nodes are no corners at all.
    """

    nodes: Mapping[str, Columns]
    walls: tuple[Wall, ...]
    rounding: Mapping[str, Columns] = field(default_factory=dict)
    smooth: frozenset[str] = frozenset()

    def rows(self, at: Rows) -> "Network":
        """The same at some of the stations."""

        def part(d: Doubler | None) -> Doubler | None:
            return None if d is None else Doubler(d.length[at], d.thickness[at], d.closure[at], d.plate)

        walls = tuple(
            Wall(w.a, w.b, w.thickness[at], w.closure[at], w.yield_reference_mpa, part(w.doubler), w.plate)
            for w in self.walls
        )
        nodes, rounding = ({k: v[at] for k, v in d.items()} for d in (self.nodes, self.rounding))
        return Network(nodes, walls, rounding, self.smooth)


@dataclass(frozen=True, eq=False)
class Stacked:
    """A network as arrays: stations S, walls W, nodes N."""

    network: Network
    points: Columns
    """(S, N, 2)"""
    signs: Columns
    """(W, N): -1 at a wall's start, 1 at its end."""
    thickness: Columns
    """(S, W)"""
    closure: Columns
    """(S, W), 0 where there is no metal."""

    @cached_property
    def ends(self) -> tuple[Rows, Rows]:
        """Numbers of the nodes at which walls start and end."""
        return self.signs.argmin(axis=1), self.signs.argmax(axis=1)

    @cached_property
    def length(self) -> Columns:
        """Midline lengths between nodes, (S, W)."""
        start, end = self.ends
        along = self.points[:, end] - self.points[:, start]
        return np.asarray(np.hypot(along[..., 0], along[..., 1]))

    @cached_property
    def doubled(self) -> tuple[Columns, Columns, Columns]:
        """Covered length, thickness and closure of what lies on each wall, (S, W) each."""
        none = np.zeros(len(self.points))
        rows = [(none, none, none) if d is None else (d.length, d.thickness, d.closure) for d in self._doublers]
        cover, thick, closure = (np.stack([row[i] for row in rows], axis=1) for i in range(3))
        return np.minimum(cover, self.length), thick, np.where(thick > LEAST_MM, closure, 0.0)

    @property
    def _doublers(self) -> list[Doubler | None]:
        return [wall.doubler for wall in self.network.walls]

    @cached_property
    def arcs(self) -> Columns:
        """Radii of rounded corners that each wall runs into, summed over its ends, mm, (S, W)."""
        out = np.zeros_like(self.thickness)
        for _, radius, i, j in self._rounded:
            out[:, i] += radius
            out[:, j] += radius
        return out

    @cached_property
    def _rounded(self) -> list[tuple[int, Columns, int, int]]:
        names = list(self.network.nodes)
        out = []
        for name, radius in self.network.rounding.items():
            node = names.index(name)
            i, j = np.flatnonzero(self.signs[:, node])[:2]
            there = (self.thickness[:, i] > LEAST_MM) & (self.thickness[:, j] > LEAST_MM)
            out.append((node, np.where(there, radius, 0.0), int(i), int(j)))
        return out

    @cached_property
    def twice_area(self) -> Columns:
        """Twice the area that each wall spans from the origin, corner roundings taken off, mm2, (S, W)."""
        start, end = self.ends
        a, b = self.points[:, start], self.points[:, end]
        out = a[..., 0] * b[..., 1] - a[..., 1] * b[..., 0]
        along = b - a
        for node, radius, i, j in self._rounded:
            into, away = (self.signs[k, node] for k in (i, j))
            turn = along[:, i, 0] * along[:, j, 1] - along[:, i, 1] * along[:, j, 0]
            lost = np.sign(-into * away * turn) * ARC_SAVING * radius**2
            out[:, i] -= into * lost
            out[:, j] += away * lost
        return np.asarray(out)

    @cached_property
    def squares(self) -> Columns:
        """Midline length over thickness, with what lies on the wall and rounded corners, (S, W)."""
        t = np.maximum(self.thickness, LEAST_MM)
        cover, thick, closure = self.doubled
        base = self.length / t - cover / t + cover / (t + thick * closure)
        return np.asarray(base - ARC_SAVING * self.arcs / t)

    @cached_property
    def stubs(self) -> Mask:
        """Walls that end free, such as lips: they carry no flow round a cell, (W,)."""
        joins = self.signs != 0
        free: Mask = joins[:, joins.sum(axis=0) == 1].any(axis=1)
        return free

    @cached_property
    def corners(self) -> list[tuple[int, int, int, Columns]]:
        """Node, two walls and the squares that each of them saves where only they meet in a sharp corner."""
        out = []
        rounded = {node: radius for node, radius, _, _ in self._rounded}
        for node, name in enumerate(self.network.nodes):
            if name in self.network.smooth:
                continue
            for i, j in combinations(np.flatnonzero((self.signs[:, node] != 0) & ~self.stubs), 2):
                one, two = (np.maximum(self.thickness[:, k], LEAST_MM) for k in (i, j))
                each = CORNER_SAVING / 4 * (np.minimum(one / two, 2.0) + np.minimum(two / one, 2.0))
                sharp = np.asarray(rounded.get(node, np.zeros(len(one)))) <= 0
                out.append((node, int(i), int(j), np.where(sharp, each, 0.0)))
        return out

    def conductance(self, rows: Rows, open_for_flow: Mask) -> Columns:
        """Thickness over length of the walls that conduct (rows, W), with what sharp corners save."""
        squares = self.squares[rows].copy()
        meeting = (open_for_flow & ~self.stubs) @ (self.signs != 0).astype(float)
        for node, i, j, saved in self.corners:
            only = open_for_flow[:, i] & open_for_flow[:, j] & (meeting[:, node] == 2)
            less = np.where(only, saved[rows], 0.0)
            squares[:, i] -= less
            squares[:, j] -= less
        return np.asarray(np.where(open_for_flow, 1.0 / np.maximum(squares, 1e-3), 0.0))

    def potential(self, conductance: Columns, sources: Columns) -> Columns:
        """Node potentials for sources at the nodes, (rows, N); loose nodes stay near 0."""
        matrix = self.signs.T @ (conductance[:, :, None] * self.signs)
        nodes = matrix.shape[1]
        diagonal = np.arange(nodes)
        matrix[:, diagonal, diagonal] += LOOSE
        matrix[:, 0, 0] += 1.0
        return np.asarray(np.linalg.solve(matrix, sources[:, :, None])[:, :, 0], dtype=np.float64)


def stacked(network: Network) -> Stacked:
    """The network as arrays."""
    names = {name: k for k, name in enumerate(network.nodes)}
    signs = np.zeros((len(network.walls), len(names)))
    for i, wall in enumerate(network.walls):
        signs[i, names[wall.a]], signs[i, names[wall.b]] = -1.0, 1.0
    points = np.stack(list(network.nodes.values()), axis=1)
    thickness = np.stack([w.thickness for w in network.walls], axis=1)
    closure = np.stack([np.where(w.thickness > LEAST_MM, np.clip(w.closure, 0.0, 1.0), 0.0) for w in network.walls], 1)
    return Stacked(network, points, signs, thickness, closure)
