"""Saint-Venant torsion of thin-walled sections with any number of closed cells.

A network has named nodes with a position per station and walls between them. A wall with a
developed share of 1 conducts shear flow; any other leaves its cell open. Closed cells by
Bredt-Batho: for unit twist, K q = 2 A with K_ii = sum(s/t) around the cell and K_ij = minus
the shared s/t; J = sum(2 A q) + sum(s t^3)/3. In a square corner the flow takes the short
way round: the corner block counts 0.56 squares instead of 1 (two-dimensional conduction
shape factor of a corner, Incropera and DeWitt table 4.1, from memory); a rounded corner
follows its arc.
"""

import itertools
from dataclasses import dataclass, field
from functools import lru_cache

import networkx as nx
import numpy as np

from nodulant.base.arrays import Columns, Mask, Rows

CORNER_SAVING = 0.44
"""Squares that a right-angled corner saves against its midline length."""
SHEAR_YIELD = 0.577
"""Shear yield over tensile yield (von Mises)."""


@dataclass(frozen=True)
class Doubler:
    """A plate lying on a wall over part of its length, mm."""

    length: Columns
    thickness: Columns
    share: Columns


@dataclass(frozen=True)
class Wall:
    """A straight wall between two nodes; t and share per station."""

    a: str
    b: str
    thickness: Columns
    share: Columns
    yield_reference_mpa: float
    doubler: Doubler | None = None


@dataclass(frozen=True)
class Network:
    """Node positions (stations, 2), the walls, and the midline radius of rounded nodes, mm."""

    nodes: dict[str, Columns]
    walls: tuple[Wall, ...]
    rounding: dict[str, Columns] = field(default_factory=dict)
    nested: bool = False
    """Whether the shortest ring round one cell may hold another, as a cap's on a tube does."""


@dataclass(frozen=True)
class Torsion:
    """J, mm4, torque at first shear yield, N mm, whether a cell is closed, and the greatest flow of any cell, 1/mm2 of torque."""

    j: Columns
    capacity: Columns
    closed: Mask
    flow: Columns


def torsion(network: Network) -> Torsion:
    """Evaluate all stations, grouped by which walls conduct; shapes (stations,)."""
    walls = network.walls
    count = len(walls[0].thickness)
    conducts = np.stack([(w.share >= 1 - 1e-9) & (w.thickness > 1e-9) for w in walls], axis=1)
    lengths = np.stack([np.hypot(*(network.nodes[w.b] - network.nodes[w.a]).T) for w in walls], axis=1)
    open_j = np.stack([_open_j(w, lengths[:, i]) for i, w in enumerate(walls)], axis=1)
    codes = conducts @ (1 << np.arange(len(walls)))
    j, capacity, most = np.zeros(count), np.zeros(count), np.zeros(count)
    closed = np.zeros(count, dtype=bool)
    for code in np.unique(codes):
        rows = np.flatnonzero(codes == code)
        cells = _cells(tuple((w.a, w.b) for i, w in enumerate(walls) if code >> i & 1))
        if network.nested:
            cells = _faces(network, cells, int(rows[0]))
        j[rows], capacity[rows], most[rows] = _group(network, rows, cells, lengths, open_j)
        closed[rows] = bool(cells)
    return Torsion(j, capacity, closed, most)


def _open_j(wall: Wall, length: Columns) -> Columns:
    own = wall.share * length * wall.thickness**3 / 3
    if wall.doubler is None:
        return own
    return own + wall.doubler.share * wall.doubler.length * wall.doubler.thickness**3 / 3


@lru_cache(maxsize=256)
def _cells(edges: tuple[tuple[str, str], ...]) -> tuple[tuple[str, ...], ...]:
    """Cells as rings of node names, in a fixed order."""
    graph: nx.Graph[str] = nx.Graph()
    graph.add_edges_from(edges)
    return tuple(tuple(ring) for ring in nx.minimum_cycle_basis(graph))


def _faces(network: Network, cells: tuple[tuple[str, ...], ...], row: int) -> tuple[tuple[str, ...], ...]:
    """The same cells, none of which holds another: a ring that does is what is left of it without that one."""
    out = list(cells)

    def area(ring: tuple[str, ...]) -> float:
        y, z = np.array([network.nodes[name][row] for name in ring]).T
        return float(abs(y @ np.roll(z, -1) - np.roll(y, -1) @ z))

    for i, j in itertools.permutations(range(len(out)), 2):
        apart = _apart(out[i], out[j])
        if apart and area(apart) < area(out[i]) - 1e-9 and area(out[j]) < area(out[i]):
            out[i] = apart
    return tuple(out)


def _apart(one: tuple[str, ...], two: tuple[str, ...]) -> tuple[str, ...]:
    """The ring of the walls that belong to one of two rings only; empty where they share none."""
    first, second = ({_edge(*p) for p in _pairs(ring)} for ring in (one, two))
    if not first & second:
        return ()
    graph: nx.Graph[str] = nx.Graph()
    graph.add_edges_from(first ^ second)
    rings = nx.cycle_basis(graph)
    return tuple(rings[0]) if len(rings) == 1 else ()


def _group(
    network: Network, rows: Rows, cells: tuple[tuple[str, ...], ...], lengths: Columns, open_j: Columns
) -> tuple[Columns, Columns, Columns]:
    total_open = open_j[rows].sum(axis=1)
    if not cells:
        return total_open, _open_capacity(network.walls, rows, total_open), np.zeros(len(rows))
    size = len(cells)
    twice, matrix = np.zeros((len(rows), size)), np.zeros((len(rows), size, size))
    squares = {_edge(w.a, w.b): _squares(w, lengths[:, i])[rows] for i, w in enumerate(network.walls)}
    for c, ring in enumerate(cells):
        twice[:, c] = _twice_area(network, ring, rows)
        matrix[:, c, c] = sum(squares[_edge(a, b)] for a, b in _pairs(ring)) - _corner_savings(network, ring, rows)
        for other in range(c):
            shared = {_edge(*p) for p in _pairs(ring)} & {_edge(*p) for p in _pairs(cells[other])}
            matrix[:, c, other] = matrix[:, other, c] = -sum(squares[e] for e in shared) if shared else 0.0
    flow: Columns = np.linalg.solve(matrix, twice[:, :, None])[:, :, 0].astype(np.float64)
    j = (twice * flow).sum(axis=1) + total_open
    return j, _closed_capacity(network, cells, flow, rows, j), np.abs(flow).max(axis=1) / j


def _edge(a: str, b: str) -> tuple[str, str]:
    return (a, b) if a < b else (b, a)


def _pairs(ring: tuple[str, ...]) -> list[tuple[str, str]]:
    return list(zip(ring, ring[1:] + ring[:1], strict=True))


def _squares(wall: Wall, length: Columns) -> Columns:
    """s/t with the plate that lies on the wall counted where it is fully developed."""
    base = length / np.maximum(wall.thickness, 1e-9)
    if wall.doubler is None:
        return base
    full = (wall.doubler.share >= 1 - 1e-9) & (wall.doubler.thickness > 0)
    covered = np.minimum(wall.doubler.length, length)
    thick = wall.thickness + wall.doubler.thickness
    return np.where(full, base - covered / np.maximum(wall.thickness, 1e-9) + covered / np.maximum(thick, 1e-9), base)


def _twice_area(network: Network, ring: tuple[str, ...], rows: Rows) -> Columns:
    points = np.stack([network.nodes[name][rows] for name in ring], axis=1)
    y, z = points[..., 0], points[..., 1]
    cross = (y * np.roll(z, -1, axis=1) - np.roll(y, -1, axis=1) * z).sum(axis=1)
    lost = sum(2 * (1 - np.pi / 4) * network.rounding[n][rows] ** 2 for n in ring if n in network.rounding)
    twice: Columns = np.abs(cross) - lost
    return twice


def _corner_savings(network: Network, ring: tuple[str, ...], rows: Rows) -> Columns:
    thickness = {_edge(w.a, w.b): w.thickness[rows] for w in network.walls}
    pairs, joined = _pairs(ring), _joined(network.walls, rows)
    total = np.zeros(len(rows))
    for (a, b), (_, c) in zip(pairs, pairs[1:] + pairs[:1], strict=True):
        one, two = thickness[_edge(a, b)], thickness[_edge(b, c)]
        if joined[b] > 2:
            continue
        if b in network.rounding:
            total += (2 - np.pi / 2) * network.rounding[b][rows] * 0.5 * (1 / one + 1 / two)
        else:
            total += CORNER_SAVING * 0.5 * (np.minimum(one / two, 2.0) + np.minimum(two / one, 2.0))
    return total


def _joined(walls: tuple[Wall, ...], rows: Rows) -> dict[str, int]:
    """How many walls meet at each node; where three meet no corner is saved."""
    count: dict[str, int] = {}
    for wall in walls:
        if wall.thickness[rows[0]] > 1e-9 and wall.share[rows[0]] >= 1 - 1e-9:
            count[wall.a], count[wall.b] = count.get(wall.a, 0) + 1, count.get(wall.b, 0) + 1
    return count


def _open_capacity(walls: tuple[Wall, ...], rows: Rows, j: Columns) -> Columns:
    best = np.full(len(rows), np.inf)
    for wall in walls:
        t = wall.thickness[rows]
        own = np.divide(
            j * SHEAR_YIELD * wall.yield_reference_mpa,
            t,
            out=np.full(len(rows), np.inf),
            where=(t > 1e-9) & (wall.share[rows] > 0),
        )
        best = np.minimum(best, own)
    return np.where(np.isfinite(best), best, 0.0)


def _closed_capacity(
    network: Network, cells: tuple[tuple[str, ...], ...], flow: Columns, rows: Rows, j: Columns
) -> Columns:
    best = np.full(len(rows), np.inf)
    for wall in network.walls:
        edge = _edge(wall.a, wall.b)
        within = [c for c, ring in enumerate(cells) if edge in {_edge(*p) for p in _pairs(ring)}]
        if not within:
            continue
        q = flow[:, within[0]] - (flow[:, within[1]] if len(within) > 1 else 0.0)
        stress = np.abs(q) / wall.thickness[rows]
        own = np.divide(
            j * SHEAR_YIELD * wall.yield_reference_mpa, stress, out=np.full(len(rows), np.inf), where=stress > 1e-12
        )
        best = np.minimum(best, own)
    return np.where(np.isfinite(best), best, 0.0)
