"""The frame in space: both rails on their planned routes, crossmembers, and what was put in between.

Node numbers: 2 k + side at station k (left 0, right 1), at the section's centroid on the route.
Stations are stock stations; where a rail was cut through, the span from the cut to what is
behind it is the inserted piece. Axes: x rearward, y to the right, z up.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

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


@dataclass(frozen=True)
class Frame:
    """A frame ready to be solved at stock stations ``x``, shape (n,); nodes (2 n, 3)."""

    x: Columns
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
    """Internal forces of one rail at stock stations ``x``: N and N mm, the greater side where they jump.

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
) -> Frame:
    """Nodes and members; raises NotSolvable where nothing ties the rails."""
    if not crossmembers:
        raise NotSolvable(
            "nothing ties the left rail to the right one",
            field="/survey/crossmembers",
            found="no crossmember",
            acceptable="at least one",
        )
    along = routes or straight_routes()
    members, inserted = _members(x, sections, crossmembers, joints)
    return Frame(x, _nodes(rails, x, sections, along), members, along, inserted)


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
    signs = (1.0, -1.0, -1.0, 1.0, 1.0, 1.0)
    columns = [
        _at_stations(sign * ends[:, i], far * ends[:, i + 6]) for (i, far), sign in zip(pairs, signs, strict=True)
    ]
    return RailForces(frame.x, *columns)


def piece_forces(frame: Frame, solved: Solved, case: int, piece: tuple[str, Side, float]) -> PieceForces:
    """Forces of one inserted piece in one case."""
    k = LEFT_RIGHT.index(piece[1])
    ends = np.abs(solved.ends[case, 2 * frame.inserted[piece] + k]).reshape(2, 6).max(axis=0)
    shear = float(np.hypot(ends[1], ends[2]))
    return PieceForces(float(ends[0]), shear, float(ends[4]), float(ends[5]), float(ends[3]))


def _nodes(rails: Rails, x: Columns, sections: Mapping[Side, SectionColumns], routes: Mapping[Side, Route]) -> Columns:
    nodes = np.zeros((2 * len(x), 3))
    for k, side in enumerate(LEFT_RIGHT):
        rail, p, shift = rails.of(side), sections[side].properties, routes[side].shift(x)
        inward = -1.0 if rail.opens == "inward" else 1.0
        under = np.interp(x, [s.x_mm for s in rail.stations], [s.underside_z_mm for s in rail.stations])
        nodes[k::2, 0] = x + shift.dx
        nodes[k::2, 1] = SIGN[side] * (rail.web_y_mm - shift.inward + inward * p.centroid_y)
        nodes[k::2, 2] = under + shift.dz + p.centroid_z
    return nodes


def _members(
    x: Columns, sections: Mapping[Side, SectionColumns], crossmembers: Sequence[Crossmember], joints: Sequence[Joint]
) -> tuple[Members, dict[tuple[str, Side, float], int]]:
    n = len(x) - 1
    i = np.array([2 * k + s for k in range(n) for s in (0, 1)], dtype=np.int64)
    rail = np.stack([_spans(sections[side]) for side in LEFT_RIGHT], axis=2).transpose(1, 2, 0)
    inserted = {}
    for joint in joints:
        span = min(max(int(np.searchsorted(x, joint.at_mm + 1e-4)) - 1, 0), n - 1)
        rail[span, LEFT_RIGHT.index(joint.side)] = (joint.area, joint.i_y, joint.i_z, joint.j)
        inserted[joint.operation, joint.side, joint.at_mm] = span
    tied: Indices = np.array([int(np.argmin(np.abs(x - c.x_mm))) for c in crossmembers], dtype=np.int64)
    across = np.array([profile(c.profile, c.height_mm, c.width_mm, c.wall_mm) for c in crossmembers])
    sizes = np.concatenate([rail.reshape(2 * n, 4), across])
    fixity = np.concatenate([np.ones(2 * n), np.array([END_FIXITY[c.end] for c in crossmembers])])
    first, second = np.concatenate([i, 2 * tied]), np.concatenate([i + 2, 2 * tied + 1])
    return Members(first, second, sizes[:, 0], sizes[:, 1], sizes[:, 2], sizes[:, 3], fixity), inserted


def _spans(section: SectionColumns) -> Columns:
    """Area, i_y, i_z and J of the spans between stations, mean of the flexibilities at both ends; shape (4, n)."""
    p = section.properties
    columns = np.maximum(np.stack([p.area, p.i_y, p.i_z, section.torsion.j]), 1e-3)
    spans: Columns = 2.0 / (1.0 / columns[:, :-1] + 1.0 / columns[:, 1:])
    return spans


def _at_stations(start: Columns, end: Columns) -> Columns:
    inner = np.where(np.abs(start[1:]) > np.abs(end[:-1]), start[1:], end[:-1])
    out: Columns = np.concatenate([start[:1], inner, end[-1:]])
    return out
