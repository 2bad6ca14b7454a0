"""A space frame of straight members in one banded solve.

Terms: a *node* has seven freedoms, displacements u, v, w along the frame's x, y, z (mm), rotations
about them (radians), and its *warping* psi, the twist per length (radians/mm) of the rail through it;
a frame in which nothing warps is solved in six.
A *member* is an Euler-Bernoulli beam between two nodes; its local x runs from i to j, its local z is
as upright as can be, so ``i_y`` is its inertia for vertical bending. ``fixity`` scales its ends: 1 is
welded solid, 0 a pin (semi-rigid beam after Monforton and Wu 1963, from memory: with
d = 4 - g g, near end 12 g EI/(L d), far end 6 g g EI/(L d)). Torsion is Saint-Venant's, or Vlasov's
where a member warps (``loads.vlasov``). Forces N, moments N mm, bimoments N mm2. Nodes are numbered so
that members join near numbers: the matrix is then a narrow band; each member runs from its lower
number to its higher.
"""

from dataclasses import dataclass
from functools import lru_cache

import numpy as np
import numpy.typing as npt
from scipy.linalg.lapack import dpbsv

from nodulant.base.arrays import Columns
from nodulant.base.errors import NotSolvable
from nodulant.loads.vlasov import vlasov_stiffness
from nodulant.materials.steel import ELASTIC_MODULUS_MPA, SHEAR_MODULUS_MPA

Indices = npt.NDArray[np.int64]
FREEDOMS, PLAIN, WARP = 7, 6, 6
SIZE = 2 * FREEDOMS
RIGID = 1e12
LOOSE_MM = 1e7
"""A displacement beyond this is a mechanism, not a deflection."""


@dataclass(frozen=True)
class Members:
    """Columns over members: node numbers, area mm2, inertias and J mm4, end fixity 0..1."""

    i: Indices
    j: Indices
    area: Columns
    i_y: Columns
    i_z: Columns
    j_t: Columns
    fixity: Columns
    i_w: Columns | None = None
    """Warping constant mm6; 0 where a member does not warp, None where none does."""
    offset: Columns | None = None
    """Its axis from the line between its nodes, mm, frame axes, (members, 3): nodes and axis are tied rigidly."""


@dataclass(frozen=True)
class Held:
    """Freedoms that are held: node and freedom number of each."""

    node: tuple[int, ...]
    freedom: tuple[int, ...]
    warping: Columns | None = None
    """Bimoment spring at every node, N mm3/rad; infinite where it is held. None where no member warps."""


@dataclass(frozen=True)
class Solved:
    """Displacements (loads, nodes, 6) and end forces in local axes (loads, members, 12); what warps besides."""

    displacements: Columns
    ends: Columns
    warping: Columns
    """Twist per length at every node, (loads, nodes)."""
    bimoments: Columns
    """At both ends of every member, (loads, members, 2)."""

    @property
    def _all(self) -> tuple[Columns, ...]:
        return self.displacements, self.ends, self.warping, self.bimoments

    def only(self, row: int) -> "Solved":
        """One load case of several."""
        return Solved(*(own[row : row + 1] for own in self._all))

    def with_more(self, more: "Solved") -> "Solved":
        """The load cases of ``more`` behind its own."""
        return Solved(*(np.concatenate(both) for both in zip(self._all, more._all, strict=True)))


def solve(nodes: Columns, members: Members, held: Held, loads: Columns) -> Solved:
    """Solve for every column of ``loads``, shape (loads, nodes, 6); raises NotSolvable for a mechanism."""
    return assembled(nodes, members).solve(held, loads)


@dataclass(frozen=True, eq=False)
class Assembled:
    """A frame's stiffness, to be solved as often as its supports change: members' own in their axes, and its band."""

    local: Columns
    axes: Columns
    tied: Columns | None
    warping: "_Warping | None"
    freedoms: Indices
    """Of every member in the frame, (members, 12), or (members, 14) where some warp."""
    band: Columns

    def solve(self, held: Held, loads: Columns) -> Solved:
        """Displacements and forces under ``loads``, shape (loads, nodes, 6); raises NotSolvable for a mechanism."""
        per = self.freedoms.shape[1] // 2
        band = self.band.copy(order="F")
        _hold(band, held, per)
        padded = np.zeros((len(loads), band.shape[1] // per, per))
        padded[..., :PLAIN] = loads
        _, flat, failed = dpbsv(band, padded.reshape(len(loads), -1).T, overwrite_ab=1)
        if failed or not np.isfinite(flat).all() or np.abs(flat).max() > LOOSE_MM:
            raise _mechanism()
        moves = flat.T.reshape(padded.shape)
        forces, bimoments = self._forces(flat.T[:, self.freedoms])
        warped = moves[..., WARP] if per == FREEDOMS else np.zeros(moves.shape[:-1])
        return Solved(moves[..., :PLAIN], forces, warped, bimoments)

    def _forces(self, own: Columns) -> tuple[Columns, Columns]:
        """End forces (loads, members, 12) and bimoments (.., 2) of members in their axes, from their ends' moves."""
        loads, members, size = own.shape
        ends = own.reshape(loads, members, 2, size // 2)
        at_axis = ends[..., :PLAIN].reshape(loads, members, 12).transpose(1, 2, 0)
        if self.tied is not None:
            at_axis = self.tied @ at_axis
        turned = self.axes[:, None] @ at_axis.reshape(members, 4, 3, loads)
        forces: Columns = (self.local @ turned.reshape(members, 12, loads)).transpose(2, 0, 1)
        bimoments = np.zeros((loads, members, 2))
        if self.warping:
            rows = self.warping.rows
            stiff = self.warping.stiffness @ self.warping.directions
            twist = (stiff @ own[:, rows].transpose(1, 2, 0)).transpose(2, 0, 1)
            forces[:, rows, 3] += twist[..., 0]
            forces[:, rows, 9] += twist[..., 2]
            bimoments[:, rows] = twist[..., 1::2]
        return forces, bimoments


def assembled(nodes: Columns, members: Members) -> Assembled:
    """Assemble a frame; raises NotSolvable where two nodes of a member coincide."""
    local, axes = _stiffness(nodes, members)
    plain = _turned(_turned(local, axes).transpose(0, 2, 1), axes)
    tied = _rigid(members.offset)
    if tied is not None:
        plain = tied.transpose(0, 2, 1) @ plain @ tied
    warping = _warping(members, nodes, axes)
    whole = _with_warping(plain, warping) if warping else plain
    per = whole.shape[1] // 2
    ends = np.stack([members.i, members.j], axis=1)
    freedoms = (ends[:, :, None] * per + np.arange(per)).reshape(-1, 2 * per)
    return Assembled(local, axes, tied, warping, freedoms, _banded(whole, ends, len(nodes)))


@dataclass(frozen=True)
class _Warping:
    """Members that warp: their rows, Vlasov's stiffness (m, 4, 4), and its freedoms in the frame's (m, 4, 14)."""

    rows: Indices
    stiffness: Columns
    directions: Columns


def _warping(members: Members, nodes: Columns, axes: Columns) -> _Warping | None:
    if members.i_w is None or not (members.i_w > 0).any():
        return None
    rows = np.flatnonzero(members.i_w > 0)
    length = np.linalg.norm(nodes[members.j[rows]] - nodes[members.i[rows]], axis=1)
    stiffness = vlasov_stiffness(members.j_t[rows], members.i_w[rows], length)
    directions = np.zeros((len(rows), 4, SIZE))
    directions[:, 0, 3:6] = directions[:, 2, FREEDOMS + 3 : FREEDOMS + 6] = axes[rows, 0]
    directions[:, 1, WARP] = directions[:, 3, FREEDOMS + WARP] = 1.0
    return _Warping(rows, stiffness, directions)


def _with_warping(plain: Columns, warping: _Warping) -> Columns:
    """Members' stiffness over fourteen freedoms from theirs over twelve and what warps."""
    whole = np.zeros((len(plain), SIZE, SIZE))
    by_end = whole.reshape(-1, 2, FREEDOMS, 2, FREEDOMS)
    by_end[:, :, :PLAIN, :, :PLAIN] = plain.reshape(-1, 2, PLAIN, 2, PLAIN)
    whole[warping.rows] += warping.directions.transpose(0, 2, 1) @ warping.stiffness @ warping.directions
    return whole


def _hold(band: Columns, held: Held, per: int) -> None:
    """Stiffen what is held; a node's warping is held unless it says otherwise."""
    if per == FREEDOMS:
        at = np.arange(WARP, band.shape[1], FREEDOMS)
        spring = np.full(len(at), np.inf) if held.warping is None else held.warping
        free = np.isfinite(spring)
        band[-1, at] = np.where(free, band[-1, at] + np.where(free, spring, 0.0), band[-1, at] * RIGID + 1.0)
    for node, freedom in zip(held.node, held.freedom, strict=True):
        band[-1, node * per + freedom] *= RIGID


def _mechanism() -> NotSolvable:
    return NotSolvable(
        "the frame is a mechanism: a part of it can move without bending anything",
        field="/survey/crossmembers",
        found="no unique position",
        acceptable="crossmembers that tie both rails",
    )


def _stiffness(nodes: Columns, members: Members) -> tuple[Columns, Columns]:
    """Local stiffness (m, 12, 12) and the members' axes in the frame (m, 3, 3)."""
    along = nodes[members.j] - nodes[members.i]
    length = np.linalg.norm(along, axis=1)
    if (length < 1e-9).any():
        raise NotSolvable(
            "two nodes of a member coincide", field="/survey/rails", found="length 0", acceptable="a length"
        )
    k = np.zeros((len(length), 12, 12))
    _pair(k, 0, ELASTIC_MODULUS_MPA * members.area / length)
    plain = np.ones_like(length) if members.i_w is None else np.where(members.i_w > 0, 0.0, 1.0)
    _pair(k, 3, SHEAR_MODULUS_MPA * members.j_t * members.fixity / length * plain)
    _bending(k, (1, 5, 7, 11), ELASTIC_MODULUS_MPA * members.i_z, length, members.fixity, 1.0)
    _bending(k, (2, 4, 8, 10), ELASTIC_MODULUS_MPA * members.i_y, length, members.fixity, -1.0)
    return k, _axes(along / length[:, None])


def _pair(k: Columns, at: int, stiffness: Columns) -> None:
    k[:, at, at] = k[:, at + 6, at + 6] = stiffness
    k[:, at, at + 6] = k[:, at + 6, at] = -stiffness


def _bending(
    k: Columns, at: tuple[int, int, int, int], ei: Columns, length: Columns, fixity: Columns, sign: float
) -> None:
    """Bending in one plane: deflection and rotation at both ends; ``sign`` is that of rotation = slope."""
    d = 4.0 - fixity * fixity
    near, far = 12 * fixity * ei / (length * d), 6 * fixity**2 * ei / (length * d)
    shear, both = sign * (near + far) / length, 2 * (near + far) / length**2
    w1, r1, w2, r2 = at
    k[:, w1, w1] = k[:, w2, w2] = both
    k[:, w1, w2] = k[:, w2, w1] = -both
    k[:, r1, r1] = k[:, r2, r2] = near
    k[:, r1, r2] = k[:, r2, r1] = far
    for r in (r1, r2):
        k[:, w1, r] = k[:, r, w1] = shear
        k[:, w2, r] = k[:, r, w2] = -shear


def _rigid(offset: Columns | None) -> Columns | None:
    """Moves of members' axes from those of their nodes, u + theta x e at both ends, (m, 12, 12); None without offsets."""
    if offset is None or not offset.any():
        return None
    x, y, z = offset.T
    tied = np.tile(np.eye(12), (len(offset), 1, 1))
    for k in (0, 6):
        tied[:, k, k + 4], tied[:, k, k + 5] = z, -y
        tied[:, k + 1, k + 3], tied[:, k + 1, k + 5] = -z, x
        tied[:, k + 2, k + 3], tied[:, k + 2, k + 4] = y, -x
    return tied


def _turned(k: Columns, axes: Columns) -> Columns:
    """K T, with T the axes repeated along its diagonal: each block of three columns turned by itself."""
    turned: Columns = (k.reshape(len(k), 48, 3) @ axes).reshape(len(k), 12, 12)
    return turned


def _axes(x: Columns) -> Columns:
    """Rows are the local axes in the frame, from unit vectors along the members; local z as upright as can be."""
    upright = np.abs(x[:, 2]) > 0.99
    across, along, up = x.T
    none, flat = np.zeros_like(up), np.where(upright, 1.0, np.hypot(across, along))
    # local y = up x local x; a member that stands upright takes the frame's x for up
    y = np.stack([-along, across, none], axis=1) / flat[:, None]
    if upright.any():
        beside = np.stack([none, -up, along], axis=1)[upright]
        y[upright] = beside / np.linalg.norm(beside, axis=1)[:, None]
    z = x[:, [1, 2, 0]] * y[:, [2, 0, 1]] - x[:, [2, 0, 1]] * y[:, [1, 2, 0]]
    return np.stack([x, y, z], axis=1)


def _banded(whole: Columns, ends: Indices, nodes: int) -> Columns:
    """Upper band of the assembled matrix, as LAPACK's ``pbsv`` takes it; ``ends`` are members' nodes, (members, 2)."""
    width, spots, upper = _spots(ends.tobytes(), whole.shape[1] // 2, nodes)
    values = whole.reshape(len(whole), -1)[:, upper]
    flat = np.bincount(spots, values.ravel(), (width + 1) * nodes * (whole.shape[1] // 2))
    band: Columns = np.asarray(flat, dtype=np.float64).reshape(width + 1, -1)
    return band


@lru_cache(maxsize=32)
def _spots(ends: bytes, per: int, nodes: int) -> tuple[int, Indices, Indices]:
    """Band's width; where members' upper entries go in it; which they are. The same while no member comes or goes."""
    near, far = np.frombuffer(ends, dtype=np.int64).reshape(-1, 2).T
    if (near >= far).any():
        raise ValueError("members run from the lower node number to the higher")
    row, column = np.triu_indices(2 * per)
    freedoms = np.concatenate([near[:, None] * per + np.arange(per), far[:, None] * per + np.arange(per)], axis=1)
    rows, columns = freedoms[:, row], freedoms[:, column]
    width = int((freedoms[:, -1] - freedoms[:, 0]).max())
    return width, ((width - columns + rows) * (nodes * per) + columns).ravel(), row * 2 * per + column
