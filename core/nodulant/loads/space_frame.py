"""A space frame of straight members in one banded solve.

Terms: a *node* has six freedoms, displacements u, v, w along the frame's x, y, z (mm) and
rotations about them (radians). A *member* is an Euler-Bernoulli beam with Saint-Venant
torsion between two nodes; its local x runs from i to j, its local z is as upright as can be,
so ``i_y`` is its inertia for vertical bending. ``fixity`` scales its ends: 1 is welded
solid, 0 a pin (semi-rigid beam after Monforton and Wu 1963, from memory: with
d = 4 - g g, near end 12 g EI/(L d), far end 6 g g EI/(L d)).
Forces N, moments N mm. Nodes are numbered so that members join near numbers: the matrix is
then a narrow band; each member runs from its lower number to its higher.
"""

from dataclasses import dataclass

import numpy as np
import numpy.typing as npt
from scipy.linalg import LinAlgError, solveh_banded

from nodulant.base.arrays import Columns
from nodulant.base.errors import NotSolvable
from nodulant.materials.steel import ELASTIC_MODULUS_MPA, SHEAR_MODULUS_MPA

Indices = npt.NDArray[np.int64]
FREEDOMS = 6
_UPPER = np.triu_indices(12)
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


@dataclass(frozen=True)
class Held:
    """Freedoms that are held: node and freedom number of each."""

    node: tuple[int, ...]
    freedom: tuple[int, ...]


@dataclass(frozen=True)
class Solved:
    """Displacements (loads, nodes, 6) and end forces in local axes (loads, members, 12)."""

    displacements: Columns
    ends: Columns


def solve(nodes: Columns, members: Members, held: Held, loads: Columns) -> Solved:
    """Solve for every column of ``loads``, shape (loads, nodes, 6); raises NotSolvable for a mechanism."""
    local, axes = _stiffness(nodes, members)
    whole = _turned(_turned(local, axes).transpose(0, 2, 1), axes)
    freedoms = (np.stack([members.i, members.j], axis=1)[:, :, None] * FREEDOMS + np.arange(FREEDOMS)).reshape(-1, 12)
    band = _banded(whole, freedoms, len(nodes) * FREEDOMS)
    for node, freedom in zip(held.node, held.freedom, strict=True):
        band[-1, node * FREEDOMS + freedom] *= 1e12
    try:
        flat = solveh_banded(band, loads.reshape(len(loads), -1).T, overwrite_ab=True, check_finite=False).T
    except LinAlgError as error:
        raise _mechanism() from error
    if not np.isfinite(flat).all() or np.abs(flat).max() > LOOSE_MM:
        raise _mechanism()
    moved = flat[:, freedoms].reshape(len(loads), -1, 4, 3) @ axes.transpose(0, 2, 1)
    ends = np.einsum("mab,lmb->lma", local, moved.reshape(len(loads), -1, 12))
    return Solved(flat.reshape(loads.shape), ends)


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
    _pair(k, 3, SHEAR_MODULUS_MPA * members.j_t * members.fixity / length)
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


def _banded(whole: Columns, freedoms: Indices, size: int) -> Columns:
    """Upper band of the assembled matrix, as ``solveh_banded`` takes it."""
    if (freedoms[:, 0] >= freedoms[:, 6]).any():
        raise ValueError("members run from the lower node number to the higher")
    rows, columns = freedoms[:, _UPPER[0]], freedoms[:, _UPPER[1]]
    width = int((freedoms[:, 11] - freedoms[:, 0]).max())
    spots = (width - columns + rows) * size + columns
    values = whole.reshape(len(whole), 144)[:, _UPPER[0] * 12 + _UPPER[1]]
    flat = np.bincount(spots.ravel(), values.ravel(), (width + 1) * size)
    band: Columns = np.asarray(flat, dtype=np.float64).reshape(width + 1, size)
    return band
