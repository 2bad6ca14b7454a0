"""Newton's method on every pose of a batch at once, and why a pose has none.

With as many rows as freedoms each pose is solved to round-off. With more rods than freedoms the
drives are kept exactly and the rods give way by their stiffness (least squares weighted by E A/L).
Each pose stops by itself, so that a batch's size never changes a bit of an answer.
"""

from dataclasses import dataclass

import numpy as np

from nodulant.base.arrays import Columns, Mask, Rows
from nodulant.base.errors import NotSolvable
from nodulant.linkage.compiled import Compiled, Pose, system
from nodulant.linkage.rotation import screw

TOLERANCE_MM = 1e-9
ENOUGH = 25
"""Iterations; a start in the right branch needs at most five."""
LONGEST_MM, WIDEST = 150.0, 0.35
"""A step is cut to these, mm and radians, so that it does not leap to another branch; turning about its far end is no leap."""


@dataclass(frozen=True)
class Solved:
    """Poses with the residual left, mm, and the rows' Jacobian there."""

    pose: Pose
    error: Columns
    jacobian: Columns
    found: Mask
    turn: Columns
    """Sign of the Jacobian's determinant: it changes where the linkage flips over; NaN where no motion leads."""


def part(s: Solved, rows: Rows) -> Solved:
    """Some of the poses."""
    return Solved(s.pose.rows(rows), s.error[rows], s.jacobian[rows], s.found[rows], s.turn[rows])


def solve(c: Compiled, targets: Columns, start: Pose, moved: Columns | None = None) -> Solved:
    """Solve every pose for ``targets`` (poses, drives), from ``start``; poses that have none are marked, not raised."""
    free = c.mechanism.freedoms - c.held - len(c.drives)
    over = free < 0
    if free > 0:
        raise NotSolvable(
            f"{free} movements of the axle are held by nothing",
            field="layout",
            found=f"{c.held} rods and guides",
            acceptable=f"{c.mechanism.freedoms - len(c.drives)}",
        )
    batch = _Batch(c, targets, start, moved)
    for step in range(ENOUGH + 1):
        batch.look()
        if not over:
            batch.rest(np.abs(batch.error).max(axis=1) < TOLERANCE_MM, found=True)
            if not batch.live.any():
                break
        delta = _step(c, batch.error, batch.jacobian, over)
        far, wide = np.abs(delta[:, :3]).max(axis=1), np.abs(delta[:, 3:]).max(axis=1)
        if over:
            batch.rest(far + wide * LONGEST_MM < TOLERANCE_MM, found=True)
        stuck = ~np.isfinite(far + wide)
        if stuck.any():
            batch.rest(stuck, found=False)
            delta[stuck], far[stuck], wide[stuck] = 0.0, 0.0, 0.0
        if step == ENOUGH or not batch.live.any():
            break
        batch.move(delta / np.maximum(1.0, np.maximum(far / (LONGEST_MM + c.reach_mm * wide), wide / WIDEST))[:, None])
        if stuck.any() or 2 * np.count_nonzero(batch.live) < len(batch.live):
            batch.thin()
    return batch.solved(over)


class _Batch:
    """Poses being solved: those at rest keep their bits, and are left out once they are more than the others."""

    def __init__(self, c: Compiled, targets: Columns, start: Pose, moved: Columns | None) -> None:
        """Begin with every pose live at its start."""
        self._c, self._targets, self._moved, self._pose = c, targets, moved, start
        self._at: Rows = np.arange(len(targets))
        self.live, self._found = np.ones(len(targets), dtype=bool), np.zeros(len(targets), dtype=bool)
        self._left: list[tuple[Rows, Mask, Columns, Columns, Columns, Columns, Columns]] = []

    def look(self) -> None:
        """Residuals and Jacobian where the poses stand."""
        self.error, self.jacobian = system(self._c, self._pose, self._targets, self._moved)

    def rest(self, which: Mask, *, found: bool) -> None:
        """Let poses stand where they are."""
        if found:
            self._found |= which & self.live
        self.live = self.live & ~which

    def move(self, delta: Columns) -> None:
        """Move the live poses."""
        go, old = self.live[:, None], self._pose
        delta = np.where(go, delta, 0.0)
        shift, turn = screw(delta[:, :3], delta[:, 3:6])
        turn = np.where(go[..., None], turn @ old.rotation, old.rotation)
        self._pose = Pose(old.origin + shift, turn, old.turned + delta[:, 6:])

    def thin(self) -> None:
        """Go on without the poses at rest."""
        self._put(~self.live)
        on = np.flatnonzero(self.live)
        self._c, self._pose, self._targets = self._c.of(on), self._pose.rows(on), self._targets[on]
        self._moved = None if self._moved is None else self._moved[on]
        self._at, self._found, self.live = self._at[on], self._found[on], self.live[on]

    def _put(self, which: Mask) -> None:
        pose, error, jacobian = self._pose.rows(which), self.error[which], self.jacobian[which]
        own = self._at[which], self._found[which], pose.origin, pose.rotation, pose.turned, error, jacobian
        self._left.append(own)

    def solved(self, over: bool) -> Solved:
        """All poses in their order."""
        pose, error, jacobian, found = self._pose, self.error, self.jacobian, self._found
        if self._left:
            self._put(np.ones(len(self._at), dtype=bool))
            at, found, *rest = (np.concatenate(part) for part in zip(*self._left, strict=True))
            back = np.argsort(at)
            found = found[back]
            origin, rotation, turned, error, jacobian = (part[back] for part in rest)
            pose = Pose(origin, rotation, turned)
        turn = np.zeros(len(found)) if over else np.sign(np.linalg.det(jacobian))
        return Solved(pose, error, jacobian, found, turn)


def _step(c: Compiled, error: Columns, jacobian: Columns, over: bool) -> Columns:
    if not over:
        return _solved(jacobian, -error)
    soft, n, drives = c.held, c.mechanism.freedoms, len(c.drives)
    weight = c.stiffness / c.stiffness.max()
    matrix = np.zeros((len(error), n + drives, n + drives))
    right = np.zeros((len(error), n + drives))
    js, jh = jacobian[:, :soft], jacobian[:, soft:]
    weighted = js * weight[:, None]
    matrix[:, :n, :n] = np.swapaxes(weighted, 1, 2) @ js
    matrix[:, :n, n:] = np.swapaxes(jh, 1, 2)
    matrix[:, n:, :n] = jh
    right[:, :n] = -(weighted * error[:, :soft, None]).sum(axis=1)
    right[:, n:] = -error[:, soft:]
    return _solved(matrix, right)[:, :n]


def _solved(matrix: Columns, right: Columns) -> Columns:
    """X of each matrix x = right; NaN where it is singular."""
    try:
        return np.asarray(np.linalg.solve(matrix, right[..., None])[..., 0])
    except np.linalg.LinAlgError:
        out = np.full_like(right, np.nan)
        for i, (m, r) in enumerate(zip(matrix, right, strict=True)):
            try:
                out[i] = np.linalg.solve(m, r)
            except np.linalg.LinAlgError:
                continue
        return out
