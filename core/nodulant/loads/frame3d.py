"""The frame in space: both rails on their planned routes, crossmembers, and what was put in between.

Node numbers: 2 k + side at station k (left 0, right 1), at the section's centroid on the route.
Stations are stock stations; where a rail was cut through, the span from the cut to what is
behind it is the inserted piece. Axes: x rearward, y to the right, z up.

Nodes stand LEAST_MM apart or more where nothing is held or loaded: shorter spans are so stiff that the solution loses digits.
The sections between two nodes are not lost: a span has the mean flexibility of all of them.
"""

from bisect import bisect_left
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Literal

import numpy as np

from nodulant.base.arrays import Columns
from nodulant.base.errors import NotSolvable
from nodulant.frame.assembly import SectionColumns
from nodulant.frame.route import Route, route_of
from nodulant.loads.space_frame import Held, Indices, Members, Solved, solve
from nodulant.parts.joint import Joint
from nodulant.parts.sides import LEFT_RIGHT, Side
from nodulant.sections.profile import profile
from nodulant.survey.crossmember import END_FIXITY, Crossmember
from nodulant.survey.vehicle import Rails

SIGN: dict[Side, float] = {"left": -1.0, "right": 1.0}


LEAST_MM, MARKS_APART_MM = 8.0, 1.0


@dataclass(frozen=True, eq=False)
class Frame:
    """A frame ready to be solved: stock stations ``x`` of its nodes, shape (n,), and ``at`` of its sections; nodes (2 n, 3)."""

    x: Columns
    at: Columns
    nodes: Columns
    members: Members
    routes: Mapping[Side, Route]
    inserted: Mapping[tuple[str, Side, float], int]
    """Span number of each inserted piece by operation, side and stock station of its cut."""

    @property
    def widths(self) -> Columns:
        """Distance between the rails' centroids at each station, mm, shape (n,)."""
        wide: Columns = self.nodes[1::2, 1] - self.nodes[::2, 1]
        return wide


@dataclass(frozen=True)
class RailForces:
    """Internal forces of one rail at stock stations ``x``: N and N mm, the greater side of a node where they jump.

    Moment sagging positive, axial tension positive; ``side_moment`` bends the rail across.
    """

    x: Columns
    moment: Columns
    torque: Columns
    axial: Columns
    shear: Columns
    side_moment: Columns
    side_shear: Columns


@dataclass(frozen=True)
class PieceForces:
    """Largest magnitudes at either end of an inserted piece, N and N mm, in its own axes."""

    axial: float
    shear: float
    moment: float
    side_moment: float
    torque: float


def straight_routes() -> dict[Side, Route]:
    """Routes of a frame that nothing moves."""
    return {side: route_of((), 0.0) for side in LEFT_RIGHT}


def build_frame(
    rails: Rails,
    x: Columns,
    sections: Mapping[Side, SectionColumns],
    crossmembers: Sequence[Crossmember],
    routes: Mapping[Side, Route] | None = None,
    joints: Sequence[Joint] = (),
    marks: Sequence[float] = (),
) -> Frame:
    """Nodes and members from sections at stations ``x``, with nodes at the loads' places ``marks``; raises NotSolvable where nothing ties the rails."""
    if not crossmembers:
        raise NotSolvable(
            "nothing ties the left rail to the right one",
            field="/survey/crossmembers",
            found="no crossmember",
            acceptable="at least one",
        )
    along = routes or straight_routes()
    rows = _apart(x, [*(c.x_mm for c in crossmembers), *marks], joints)
    members, inserted = _members(x, rows, sections, crossmembers, joints)
    return Frame(x[rows], x, _nodes(rails, x, rows, sections, along), members, along, inserted)


def _joint_span(x: Columns, joint: Joint) -> int:
    """Number of the span that an inserted piece takes."""
    return min(max(int(np.searchsorted(x, joint.at_mm + 1e-4)) - 1, 0), len(x) - 2)


def _apart(x: Columns, marks: Sequence[float], joints: Sequence[Joint]) -> Indices:
    """Rows of ``x`` for nodes: ends and both sides of inserted pieces always, then marks, then what is clear of those."""
    spans = [_joint_span(x, joint) for joint in joints]
    kept = sorted({0, len(x) - 1, *spans, *(span + 1 for span in spans)})
    wanted = [(int(np.argmin(np.abs(x - mark))), MARKS_APART_MM) for mark in marks]
    for row, least in (*wanted, *((row, LEAST_MM) for row in range(len(x)))):
        spot = bisect_left(kept, row)
        beside = kept[max(spot - 1, 0) : spot + 1]
        if all(abs(x[row] - x[other]) >= least for other in beside):
            kept.insert(spot, row)
    return np.array(kept, dtype=np.int64)


def solve_frame(frame: Frame, loads: Columns) -> Solved:
    """Solve for load cases of shape (cases, nodes, 6); loads balance by themselves."""
    last = 2 * (len(frame.x) - 1)
    held = Held((0, 0, 0, last, last, 1), (0, 1, 2, 1, 2, 2))
    return solve(frame.nodes, frame.members, held, loads)


def rail_forces(frame: Frame, solved: Solved, case: int, side: Side) -> RailForces:
    """Forces along one rail; inserted pieces are left to ``piece_forces``, their axes are their own."""
    k, n = LEFT_RIGHT.index(side), len(frame.x) - 1
    ends = solved.ends[case, k : 2 * n : 2].copy()
    ends[[span for (_, own, _), span in frame.inserted.items() if own == side]] = 0.0
    pairs = ((4, -1.0), (3, 1.0), (0, 1.0), (2, -1.0), (5, -1.0), (1, -1.0))
    signs = np.array([1.0, -1.0, -1.0, 1.0, 1.0, 1.0])
    start = signs * ends[:, [i for i, _ in pairs]]
    end = ends[:, [i + 6 for i, _ in pairs]] * np.array([far for _, far in pairs])
    ahead, behind = (_within(frame, start, end, beside) for beside in ("left", "right"))
    return RailForces(frame.at, *np.where(np.abs(behind) > np.abs(ahead), behind, ahead).T)


def _within(frame: Frame, start: Columns, end: Columns, beside: Literal["left", "right"]) -> Columns:
    """Forces at ``frame.at`` in the span that ends (left) or begins (right) there, from those at its ends; (stations, 6)."""
    x = frame.x
    span = np.minimum(np.maximum(np.searchsorted(x, frame.at, side=beside) - 1, 0), len(x) - 2)
    along = ((frame.at - x[span]) / (x[span + 1] - x[span]))[:, None]
    return np.asarray(start[span] + along * (end[span] - start[span]))


def piece_forces(frame: Frame, solved: Solved, case: int, piece: tuple[str, Side, float]) -> PieceForces:
    """Forces of one inserted piece in one case."""
    k = LEFT_RIGHT.index(piece[1])
    ends = np.abs(solved.ends[case, 2 * frame.inserted[piece] + k]).reshape(2, 6).max(axis=0)
    shear = float(np.hypot(ends[1], ends[2]))
    return PieceForces(float(ends[0]), shear, float(ends[4]), float(ends[5]), float(ends[3]))


def _nodes(
    rails: Rails, x: Columns, rows: Indices, sections: Mapping[Side, SectionColumns], routes: Mapping[Side, Route]
) -> Columns:
    at, nodes = x[rows], np.zeros((2 * len(rows), 3))
    for k, side in enumerate(LEFT_RIGHT):
        rail, p, shift = rails.of(side), sections[side].properties, routes[side].shift(at)
        inward = -1.0 if rail.opens == "inward" else 1.0
        under = np.interp(at, [s.x_mm for s in rail.stations], [s.underside_z_mm for s in rail.stations])
        nodes[k::2, 0] = at + shift.dx
        nodes[k::2, 1] = SIGN[side] * (rail.web_y_mm - shift.inward + inward * p.centroid_y[rows])
        nodes[k::2, 2] = under + shift.dz + p.centroid_z[rows]
    return nodes


def _members(
    x: Columns,
    rows: Indices,
    sections: Mapping[Side, SectionColumns],
    crossmembers: Sequence[Crossmember],
    joints: Sequence[Joint],
) -> tuple[Members, dict[tuple[str, Side, float], int]]:
    at, n = x[rows], len(rows) - 1
    i = np.arange(2 * n, dtype=np.int64)
    rail = np.stack([_spans(sections[side], x, rows) for side in LEFT_RIGHT], axis=2).transpose(1, 2, 0)
    inserted = {}
    for joint in joints:
        span = _joint_span(at, joint)
        rail[span, LEFT_RIGHT.index(joint.side)] = (joint.area, joint.i_y, joint.i_z, joint.j)
        inserted[joint.operation, joint.side, joint.at_mm] = span
    tied: Indices = np.array([int(np.argmin(np.abs(at - c.x_mm))) for c in crossmembers], dtype=np.int64)
    across = np.array([profile(c.profile, c.height_mm, c.width_mm, c.wall_mm) for c in crossmembers])
    sizes = np.concatenate([rail.reshape(2 * n, 4), across])
    fixity = np.concatenate([np.ones(2 * n), np.array([END_FIXITY[c.end] for c in crossmembers])])
    first, second = np.concatenate([i, 2 * tied]), np.concatenate([i + 2, 2 * tied + 1])
    return Members(first, second, sizes[:, 0], sizes[:, 1], sizes[:, 2], sizes[:, 3], fixity), inserted


def _spans(section: SectionColumns, x: Columns, rows: Indices) -> Columns:
    """Area, i_y, i_z and J of the spans between nodes, by the mean flexibility of the sections in them; shape (4, n)."""
    p = section.properties
    flexible = 1.0 / np.maximum(np.stack([p.area, p.i_y, p.i_z, section.torsion.j]), 1e-3)
    between = (flexible[:, :-1] + flexible[:, 1:]) / 2 * np.diff(x)
    return np.asarray(np.diff(x[rows]) / np.add.reduceat(between, rows[:-1], axis=1))
