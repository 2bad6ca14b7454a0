"""A mechanism as arrays, its residuals and Jacobian for many poses at once.

Unknowns of a pose: (v, omega) of the carrier in the frame's axes at its origin, and the rate of
each piece. Row of a rod: d . (velocity of a - velocity of b), d the unit vector from b to a;
velocity of a carrier point is v + omega x r, so its row is [d, r x d] (textbook rigid-body
kinematics).
"""

import math
from dataclasses import dataclass, replace

import numpy as np
import numpy.typing as npt

from nodulant.base.arrays import Columns, Rows, cross
from nodulant.base.errors import NotSolvable
from nodulant.linkage.mechanism import CARRIER, FRAME, Drive, End, Height, Mechanism
from nodulant.linkage.rotation import exponential, rotated
from nodulant.units.inline import as_length

Bodies = npt.NDArray[np.int64]
NOTHING_MM = 1e-6


@dataclass(frozen=True)
class Pose:
    """Carriers' origins (poses, 3), rotations (poses, 3, 3) and pieces' angles (poses, pieces), radians."""

    origin: Columns
    rotation: Columns
    turned: Columns

    def rows(self, at: npt.NDArray[np.int64] | npt.NDArray[np.bool_]) -> "Pose":
        """Some of the poses."""
        return Pose(self.origin[at], self.rotation[at], self.turned[at])


@dataclass(frozen=True)
class _Ends:
    body: Bodies
    point: Columns
    """In the reference position, frame axes, shape (ends, 3); or (poses, ends, 3) where every pose has its own."""
    all_on_frame: bool
    all_on_carrier: bool


@dataclass(frozen=True)
class Compiled:
    """Arrays of a mechanism and what drives it; rows are rods, guides, slides, then drives."""

    mechanism: Mechanism
    origin: Columns
    a: _Ends
    b: _Ends
    length: Columns
    guided: _Ends
    across: Columns
    guides_off: Columns
    """How far the guides' planes stand from the reference position, each along its own direction, (guides,)."""
    sliding: Columns
    """Points of the frame that stay on planes of the carrier, (slides, 3)."""
    slides_off: Columns
    """How far those points stand from the reference position, (slides, 3)."""
    square: Columns
    """Directions of those planes in the reference position, (slides, 3)."""
    drives: tuple[Drive, ...]
    driven: Columns
    """Points of the driven heights, shape (drives, 3); not used where a drive leans."""
    stiffness: Columns
    reach_mm: float
    """Of the rod ends on the carrier the furthest from its origin."""

    @property
    def held(self) -> int:
        """How many rods, guides and slides there are."""
        return int(self.length.shape[-1]) + len(self.across) + len(self.sliding)

    def of(self, at: Rows) -> "Compiled":
        """The same for some of the poses, where every pose has rods of its own."""
        if self.a.point.ndim == 2:
            return self
        a, b = replace(self.a, point=self.a.point[at]), replace(self.b, point=self.b.point[at])
        return replace(self, a=a, b=b, length=self.length[at])


def with_own_rods(c: Compiled, a: Columns, b: Columns) -> Compiled:
    """``c`` with rod ends of every pose's own, (poses, rods, 3) in the reference position; lengths follow them.

    Stiffnesses stay those of ``c``: they only share the give where there are more rods than freedoms.
    """
    length = np.sqrt(((a - b) ** 2).sum(axis=-1))
    return replace(c, a=replace(c.a, point=a), b=replace(c.b, point=b), length=length)


def compile_mechanism(mechanism: Mechanism, drives: tuple[Drive, ...]) -> Compiled:
    """Arrays of ``mechanism``; raises NotSolvable for a rod without length."""
    a, b = (_ends([getattr(rod, name) for rod in mechanism.rods]) for name in ("a", "b"))
    apart = np.sqrt(((a.point - b.point) ** 2).sum(axis=1))
    for rod, distance in zip(mechanism.rods, apart, strict=True):
        if distance < NOTHING_MM:
            raise NotSolvable(
                f"both ends of {rod.name} lie on one point",
                field=rod.name,
                found=as_length(0),
                acceptable="a length",
            )
    length = np.array(
        [d if rod.length_mm is None else rod.length_mm for rod, d in zip(mechanism.rods, apart, strict=True)]
    )
    return Compiled(
        mechanism,
        np.array(mechanism.origin),
        a,
        b,
        length,
        _ends([guide.end for guide in mechanism.guides]),
        np.array([guide.direction for guide in mechanism.guides]).reshape(-1, 3),
        np.array([sum(d * m for d, m in zip(guide.direction, guide.moved, strict=True)) for guide in mechanism.guides]),
        np.array([slide.point for slide in mechanism.slides]).reshape(-1, 3),
        np.array([slide.moved for slide in mechanism.slides]).reshape(-1, 3),
        np.array([slide.direction for slide in mechanism.slides]).reshape(-1, 3),
        drives,
        np.array([d.point if isinstance(d, Height) else mechanism.origin for d in drives]).reshape(-1, 3),
        np.array([held.stiffness for held in mechanism.held]),
        max(
            [math.dist(e.point, mechanism.origin) for r in mechanism.rods for e in (r.a, r.b) if e.body == CARRIER],
            default=0.0,
        ),
    )


def _ends(ends: list[End]) -> _Ends:
    body = np.array([e.body for e in ends], dtype=np.int64)
    point = np.array([e.point for e in ends], dtype=float).reshape(-1, 3)
    return _Ends(body, point, bool((body == FRAME).all()), bool((body == CARRIER).all()))


def reference(c: Compiled, poses: int = 1) -> Pose:
    """The reference position, ``poses`` times over."""
    return Pose(
        np.tile(c.origin, (poses, 1)),
        np.tile(np.eye(3), (poses, 1, 1)),
        np.zeros((poses, len(c.mechanism.pieces))),
    )


@dataclass(frozen=True)
class _Hinge:
    """A piece in its poses: where its hinge is and points, both (poses, 3), and its own rotation."""

    at: Columns
    axis: Columns
    rotation: Columns


def _hinges(c: Compiled, pose: Pose) -> list[_Hinge]:
    out = []
    for k, piece in enumerate(c.mechanism.pieces):
        axis = np.array(piece.axis) / np.linalg.norm(piece.axis)
        own = exponential(pose.turned[:, k : k + 1] * axis)
        at, along = np.array([piece.point]), np.array([axis])
        if piece.parent == FRAME:
            count = len(pose.turned)
            out.append(_Hinge(np.tile(at[0], (count, 1)), np.tile(along[0], (count, 1)), own))
            continue
        out.append(
            _Hinge(pose.origin + rotated(pose.rotation, at - c.origin)[:, 0], rotated(pose.rotation, along)[:, 0], own)
        )
    return out


def places(c: Compiled, pose: Pose, ends: _Ends, moved: Columns | None = None) -> Columns:
    """Where ``ends`` stand, shape (poses, ends, 3); ``moved`` shifts the frame's own ends, (poses, ends, 3)."""
    count = len(pose.origin)
    if ends.all_on_frame:
        return np.broadcast_to(ends.point, (count, *ends.point.shape[-2:])) if moved is None else ends.point + moved
    if ends.all_on_carrier:
        return np.asarray(pose.origin[:, None] + rotated(pose.rotation, ends.point - c.origin))
    out = np.tile(ends.point, (count, 1, 1)) if ends.point.ndim == 2 else ends.point.copy()
    if moved is not None:
        out = out + moved
    on = ends.body == CARRIER
    if on.any():
        out[:, on] = pose.origin[:, None] + rotated(pose.rotation, ends.point[..., on, :] - c.origin)
    for k, piece in enumerate(c.mechanism.pieces):
        on = ends.body == k + 1
        if not on.any():
            continue
        axis = np.array(piece.axis) / np.linalg.norm(piece.axis)
        own = np.array(piece.point) + rotated(
            exponential(pose.turned[:, k : k + 1] * axis), ends.point[..., on, :] - np.array(piece.point)
        )
        if piece.parent == CARRIER:
            own = pose.origin[:, None] + rotated(pose.rotation, own - c.origin)
        out[:, on] = own
    return out


def _pull(c: Compiled, pose: Pose, ends: _Ends, at: Columns, d: Columns, hinges: list[_Hinge]) -> Columns:
    """D . (velocity of each end) as rows (poses, ends, freedoms)."""
    if ends.all_on_carrier and not hinges:
        return np.concatenate([d, cross(at - pose.origin[:, None], d)], axis=-1)
    out = np.zeros((*d.shape[:2], c.mechanism.freedoms))
    # body -1 reads the last entry: the frame
    rides = np.array([True, *(p.parent == CARRIER for p in c.mechanism.pieces), False])[ends.body]
    if rides.any():
        out[:, rides, :3] = d[:, rides]
        out[:, rides, 3:6] = cross(at[:, rides] - pose.origin[:, None], d[:, rides])
    for k, hinge in enumerate(hinges):
        on = ends.body == k + 1
        if on.any():
            arm = cross(np.broadcast_to(hinge.axis[:, None], at[:, on].shape), at[:, on] - hinge.at[:, None])
            out[:, on, 6 + k] = (d[:, on] * arm).sum(axis=-1)
    return out


def system(c: Compiled, pose: Pose, targets: Columns, moved: Columns | None = None) -> tuple[Columns, Columns]:
    """Residuals (poses, rows), mm, and their Jacobian (poses, rows, freedoms)."""
    hinges = _hinges(c, pose)
    a, b = places(c, pose, c.a), places(c, pose, c.b, moved)
    gap = a - b
    apart = np.sqrt(gap[..., 0] ** 2 + gap[..., 1] ** 2 + gap[..., 2] ** 2)
    d = gap / np.maximum(apart, NOTHING_MM)[..., None]
    rows = _pull(c, pose, c.a, a, d, hinges)
    if not c.b.all_on_frame:
        rows = rows - _pull(c, pose, c.b, b, d, hinges)
    errors, jacobian = [apart - c.length], [rows]
    if len(c.across):
        at = places(c, pose, c.guided)
        n = np.broadcast_to(c.across, at.shape)
        errors.append(((at - c.guided.point) * n).sum(axis=-1) - c.guides_off)
        jacobian.append(_pull(c, pose, c.guided, at, n, hinges))
    if len(c.sliding):
        slid, own = _slid(c, pose)
        errors.append(slid)
        jacobian.append(own)
    driven, own = _driven(c, pose, targets)
    return np.concatenate([*errors, driven], axis=1), np.concatenate([*jacobian, own], axis=1)


def _slid(c: Compiled, pose: Pose) -> tuple[Columns, Columns]:
    """How far each fixed point has left its plane n of the carrier: (p - o) . n, n turning with omega."""
    n = rotated(pose.rotation, c.square)
    gap = c.sliding + c.slides_off - pose.origin[:, None]
    rows = np.zeros((*gap.shape[:2], c.mechanism.freedoms))
    rows[..., :3], rows[..., 3:6] = -n, cross(n, gap)
    return (gap * n).sum(axis=-1) - ((c.sliding - c.origin) * c.square).sum(axis=-1), rows


def _driven(c: Compiled, pose: Pose, targets: Columns) -> tuple[Columns, Columns]:
    count = len(pose.origin)
    error, rows = np.zeros((count, len(c.drives))), np.zeros((count, len(c.drives), c.mechanism.freedoms))
    arms = c.driven - c.origin
    for i, drive in enumerate(c.drives):
        if isinstance(drive, Height):
            error[:, i] = pose.origin[:, 2] - c.driven[i, 2] - targets[:, i]
            rows[:, i, 2] = 1.0
            if arms[i].any():
                r = rotated(pose.rotation, arms[i : i + 1])[:, 0]
                error[:, i] += r[:, 2]
                rows[:, i, 3], rows[:, i, 4] = r[:, 1], -r[:, 0]
        else:
            # R e_y changes by omega x (R e_y); its z is omega_x y_y - omega_y y_x, brought to mm by the arm
            axis = pose.rotation[:, :, 1]
            error[:, i] = ARM_MM * (axis[:, 2] - np.sin(targets[:, i]))
            rows[:, i, 3], rows[:, i, 4] = ARM_MM * axis[:, 1], -ARM_MM * axis[:, 0]
    return error, rows


ARM_MM = 500.0
"""Turns an angle's error into mm, so that one tolerance serves all rows."""
