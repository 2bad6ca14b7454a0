"""The frame in space: both rails on their planned routes, crossmembers, and what was put in between.

Node numbers: 2 k + side at station k (left 0, right 1), at the stock section's centroid on the route; a
member's own axis lies at the mean centroid of its sections, tied rigidly to its nodes, so that a notch
bends the rail and does not make it slope.
Stations are stock stations; where a rail was cut through, the span from the cut to what is
behind it is the inserted piece. Axes: x rearward, y to the right, z up.

Nodes stand LEAST_MM apart or more where nothing is held or loaded: shorter spans are so stiff that the solution loses digits.
The sections between two nodes are not lost: a span has the mean flexibility of all of them.
"""

from bisect import bisect_left
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from functools import cached_property
from typing import Literal

import numpy as np

from nodulant.base.arrays import Columns
from nodulant.base.errors import NotSolvable
from nodulant.frame.assembly import SectionColumns
from nodulant.frame.route import Route, route_of
from nodulant.loads.space_frame import Assembled, Held, Indices, Members, Solved, assembled
from nodulant.materials.steel import ELASTIC_MODULUS_MPA, SHEAR_MODULUS_MPA
from nodulant.parts.joint import Joint
from nodulant.parts.sides import LEFT_RIGHT, Side
from nodulant.sections.profile import profile
from nodulant.survey.crossmember import END_FIXITY, Crossmember, warping_fixity
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
    warping: Columns
    """Bimoment spring of every node, N mm3/rad: infinite beside what is closed, at a crossmember by its joint."""
    tied: Indices
    """Stations at which crossmembers stand."""
    shear_centres: Columns
    """Of every node's own section: across and up, (2 n, 2); a rail twists about them."""

    @cached_property
    def assembled(self) -> Assembled:
        """Its stiffness; raises NotSolvable where two nodes of a member coincide."""
        return assembled(self.nodes, self.members)

    @property
    def open(self) -> bool:
        """Whether any stretch warps."""
        return bool(np.isfinite(self.warping).any())

    @property
    def widths(self) -> Columns:
        """Distance between the rails' centroids at each station, mm, shape (n,)."""
        wide: Columns = self.nodes[1::2, 1] - self.nodes[::2, 1]
        return wide


@dataclass(frozen=True)
class RailForces:
    """Internal forces of one rail at stock stations ``x``: N and N mm, the greater side of a node where they jump.

    ``columns`` hold them in the order of the properties below, (.., 8, stations).
    """

    x: Columns
    columns: Columns

    def case(self, row: int) -> "RailForces":
        """One case of several."""
        return RailForces(self.x, self.columns[row])

    def _own(self, k: int) -> Columns:
        own: Columns = self.columns[..., k, :]
        return own

    @property
    def moment(self) -> Columns:
        """Sagging positive."""
        return self._own(0)

    @property
    def torque(self) -> Columns:
        """About the rail's own line."""
        return self._own(1)

    @property
    def axial(self) -> Columns:
        """Tension positive."""
        return self._own(2)

    @property
    def shear(self) -> Columns:
        """Upright."""
        return self._own(3)

    @property
    def side_moment(self) -> Columns:
        """Bends the rail across."""
        return self._own(4)

    @property
    def side_shear(self) -> Columns:
        """Across."""
        return self._own(5)

    @property
    def bimoment(self) -> Columns:
        """Of open stretches, N mm2; 0 where a cell is closed."""
        return self._own(6)

    @property
    def strip_torque(self) -> Columns:
        """What of the torque open stretches carry by Saint-Venant; 0 where a cell is closed."""
        return self._own(7)


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
    nodes: tuple[Columns, Indices],
    sections: Mapping[Side, SectionColumns],
    crossmembers: Sequence[Crossmember],
    routes: Mapping[Side, Route] | None = None,
    joints: Sequence[Joint] = (),
    stock: Mapping[Side, SectionColumns] | None = None,
) -> Frame:
    """Nodes and members from sections at stations, of which some are ``nodes``; raises NotSolvable where nothing ties the rails.

    ``stock`` are the sections whose centroids the nodes stand at, the frame's own where left out.
    """
    if not crossmembers:
        raise NotSolvable(
            "nothing ties the left rail to the right one",
            field="/survey/crossmembers",
            found="no crossmember",
            acceptable="at least one",
        )
    along = routes or straight_routes()
    x, rows = nodes
    reference = stock or sections
    members, inserted = _members(x, rows, sections, crossmembers, joints)
    members = replace(members, offset=_offsets(rails, sections, reference, x, rows, len(members.i), inserted))
    warping, tied = _restraint(x[rows], members, crossmembers)
    stand = _nodes(rails, x, rows, reference, along)
    shear_centres = stand[:, 1:] + _shear_offsets(rails, rows, sections, reference)
    return Frame(x[rows], x, stand, members, along, inserted, warping, tied, shear_centres)


def _joint_span(x: Columns, joint: Joint) -> int:
    """Number of the span that an inserted piece takes."""
    return min(max(int(np.searchsorted(x, joint.at_mm + 1e-4)) - 1, 0), len(x) - 2)


def node_rows(x: Columns, marks: Sequence[float], joints: Sequence[Joint]) -> Indices:
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


def solve_frame(frame: Frame, loads: Columns, held_joints: bool = False) -> Solved:
    """Solve for load cases of shape (cases, nodes, 6); loads balance by themselves.

    ``held_joints`` holds every crossmember's joint against warping: the stiffest that the frame can be.
    """
    last = 2 * (len(frame.x) - 1)
    warping = frame.warping
    if held_joints:
        warping = warping.copy()
        warping[np.concatenate([2 * frame.tied, 2 * frame.tied + 1])] = np.inf
    held = Held((0, 0, 0, last, last, 1), (0, 1, 2, 1, 2, 2), warping)
    return frame.assembled.solve(held, loads)


_START = ((4, 1.0), (3, -1.0), (0, -1.0), (2, 1.0), (5, 1.0), (1, 1.0))
_END = ((10, -1.0), (9, 1.0), (6, 1.0), (8, -1.0), (11, -1.0), (7, -1.0))
"""Moment, torque, axial, shear, bending and shear across: which end force, and its sign."""


def rail_forces(frame: Frame, solved: Solved) -> dict[Side, RailForces]:
    """Forces along both rails in every case, (cases, 8, stations); inserted pieces are left to ``piece_forces``, their axes are their own."""
    n = len(frame.x) - 1
    ends, bimoment = (own[:, : 2 * n].reshape(len(own), n, 2, -1) for own in (solved.ends, solved.bimoments))
    if frame.inserted:
        ends = ends.copy()
        for (_, side, _), span in frame.inserted.items():
            ends[:, span, LEFT_RIGHT.index(side)] = 0.0
    i_w, psi = frame.members.i_w, solved.warping.reshape(len(ends), n + 1, 2)
    shear = SHEAR_MODULUS_MPA * frame.members.j_t[: 2 * n].reshape(n, 2)
    shear = np.zeros_like(shear) if i_w is None else np.where(i_w[: 2 * n].reshape(n, 2) > 0, shear, 0.0)

    def at_end(pairs: tuple[tuple[int, float], ...], own: Columns, warped: Columns) -> Columns:
        columns = ends[..., [i for i, _ in pairs]] * np.array([sign for _, sign in pairs])
        return np.concatenate([columns, own[..., None], (shear * warped)[..., None]], axis=-1)

    start, end = at_end(_START, -bimoment[..., 0], psi[:, :-1]), at_end(_END, bimoment[..., 1], psi[:, 1:])
    ahead, behind = (_within(frame, start, end, beside) for beside in ("left", "right"))
    found = np.where(np.abs(behind) > np.abs(ahead), behind, ahead).transpose(2, 0, 3, 1)
    return {side: RailForces(frame.at, found[k]) for k, side in enumerate(LEFT_RIGHT)}


def _within(frame: Frame, start: Columns, end: Columns, beside: Literal["left", "right"]) -> Columns:
    """Forces at ``frame.at`` in the span that ends (left) or begins (right) there, from those at its ends; (cases, stations, rails, 8)."""
    x = frame.x
    span = np.minimum(np.maximum(np.searchsorted(x, frame.at, side=beside) - 1, 0), len(x) - 2)
    along = ((frame.at - x[span]) / (x[span + 1] - x[span]))[:, None, None]
    first = start[:, span]
    return np.asarray(first + along * (end[:, span] - first))


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


def _shear_offsets(
    rails: Rails, rows: Indices, sections: Mapping[Side, SectionColumns], stock: Mapping[Side, SectionColumns]
) -> Columns:
    """From the nodes, at the centroids of ``stock``, to the shear centres of ``sections``: across and up, (2 nodes, 2)."""
    out = np.zeros((2 * len(rows), 2))
    for k, side in enumerate(LEFT_RIGHT):
        inward = -1.0 if rails.of(side).opens == "inward" else 1.0
        base, own = stock[side].properties, sections[side].warping
        out[k::2, 0] = SIGN[side] * inward * (own.y[rows] - base.centroid_y[rows])
        out[k::2, 1] = own.z[rows] - base.centroid_z[rows]
    return out


def _offsets(
    rails: Rails,
    sections: Mapping[Side, SectionColumns],
    stock: Mapping[Side, SectionColumns],
    x: Columns,
    rows: Indices,
    members: int,
    inserted: Mapping[tuple[str, Side, float], int],
) -> Columns | None:
    """Where each span's mean centroid lies beside its nodes, (members, 3); None where all lie on them."""
    if all(sections[side] is stock[side] for side in LEFT_RIGHT):
        return None
    out = np.zeros((members, 3))
    n, long = len(rows) - 1, np.diff(x[rows])
    for k, side in enumerate(LEFT_RIGHT):
        inward = -1.0 if rails.of(side).opens == "inward" else 1.0
        own, base = sections[side].properties, stock[side].properties
        for axis, apart in (
            (1, SIGN[side] * inward * (own.centroid_y - base.centroid_y)),
            (2, own.centroid_z - base.centroid_z),
        ):
            between = (apart[:-1] + apart[1:]) / 2 * np.diff(x)
            out[k : 2 * n : 2, axis] = np.add.reduceat(between, rows[:-1]) / long
    for (_, side, _), span in inserted.items():
        out[2 * span + LEFT_RIGHT.index(side)] = 0.0
    return out


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
        rail[span, LEFT_RIGHT.index(joint.side)] = (joint.area, joint.i_y, joint.i_z, joint.j, 0.0)
        inserted[joint.operation, joint.side, joint.at_mm] = span
    tied: Indices = np.array([int(np.argmin(np.abs(at - c.x_mm))) for c in crossmembers], dtype=np.int64)
    across = np.array([profile(c.profile, c.height_mm, c.width_mm, c.wall_mm)[:4] for c in crossmembers])
    across = np.concatenate([across, np.zeros((len(across), 1))], axis=1)
    sizes = np.concatenate([rail.reshape(2 * n, 5), across])
    fixity = np.concatenate([np.ones(2 * n), np.array([END_FIXITY[c.end] for c in crossmembers])])
    first, second = np.concatenate([i, 2 * tied]), np.concatenate([i + 2, 2 * tied + 1])
    area, i_y, i_z, j_t, i_w = sizes.T
    return Members(first, second, area, i_y, i_z, j_t, fixity, i_w), inserted


def _restraint(x: Columns, members: Members, crossmembers: Sequence[Crossmember]) -> tuple[Columns, Indices]:
    """Bimoment spring of every node, and the stations of the crossmembers.

    A node beside a span that does not warp is held. A crossmember's joint of fixity r restrains by 3 E I_w / L
    x r / (1 - r), L the shorter open bay beside it and I_w the mean of the spans beside it (Nodulant default).
    """
    n = len(x) - 1
    i_w = np.zeros((n, 2)) if members.i_w is None else members.i_w[: 2 * n].reshape(n, 2)
    warps = i_w > 0
    ahead, behind = np.vstack([warps, warps[-1:]]), np.vstack([warps[:1], warps])
    spring = np.where(ahead & behind, 0.0, np.inf)
    tied: Indices = np.array([int(np.argmin(np.abs(x - c.x_mm))) for c in crossmembers], dtype=np.int64)
    order = np.unique(tied)
    for at, crossmember in zip(tied, crossmembers, strict=True):
        spot = int(np.searchsorted(order, at))
        bays = [abs(x[at] - x[other]) for other in (*order[max(spot - 1, 0) : spot], *order[spot + 1 : spot + 2])]
        bay = max(min(bays, default=float(x[-1] - x[0])), 1.0)
        beside = i_w[max(at - 1, 0) : at + 1].mean(axis=0)
        r = warping_fixity(crossmember)
        spring[at] += 3 * ELASTIC_MODULUS_MPA * beside / bay * r / (1 - r)
    return spring.reshape(-1), tied


OPEN = 0.5
"""A span whose cell is closed to less than this warps."""


def _spans(section: SectionColumns, x: Columns, rows: Indices) -> Columns:
    """Area, i_y, i_z, J and I_w of the spans between nodes, by the mean flexibility of the sections in them; shape (5, n)."""
    p, t = section.properties, section.torsion
    flexible = 1.0 / np.maximum(np.stack([p.area, p.i_y, p.i_z, t.j, section.warping.i_w]), 1e-3)
    between = (flexible[:, :-1] + flexible[:, 1:]) / 2 * np.diff(x)
    out = np.diff(x[rows]) / np.add.reduceat(between, rows[:-1], axis=1)
    closed = np.add.reduceat((t.closure[:-1] + t.closure[1:]) / 2 * np.diff(x), rows[:-1]) / np.diff(x[rows])
    out[4] = np.where(closed < OPEN, out[4], 0.0)
    return np.asarray(out)
