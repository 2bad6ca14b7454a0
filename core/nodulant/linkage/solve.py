"""Newton's method on every pose of a batch at once, and why a pose has none.

With as many rows as freedoms each pose is solved to round-off. With more rods than freedoms the
drives are kept exactly and the rods give way by their stiffness (least squares weighted by E A/L).
Each pose stops by itself, so that a batch's size never changes a bit of an answer.
"""

from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from nodulant.base.arrays import Columns, Mask, Rows
from nodulant.base.errors import NotSolvable
from nodulant.linkage.compiled import Compiled, Pose, system
from nodulant.linkage.rotation import exponential

TOLERANCE_MM = 1e-9
ENOUGH = 25
"""Iterations; a start in the right branch needs at most five."""
LONGEST_MM, WIDEST = 150.0, 0.35
"""A step is cut to these, mm and radians, so that it does not leap to another branch."""


@dataclass(frozen=True)
class Solved:
    """Poses with the residual left, mm, the iterations that each took, and the rows' Jacobian there."""

    pose: Pose
    error: Columns
    jacobian: Columns
    iterations: npt.NDArray[np.int64]
    found: Mask
    turn: Columns
    """Sign of the Jacobian's determinant: it changes where the linkage flips over."""


def solve(c: Compiled, targets: Columns, start: Pose, moved: Columns | None = None) -> Solved:
    """Solve every pose for ``targets`` (poses, drives), from ``start``; poses that have none are marked, not raised."""
    count, rows = len(targets), c.held + len(c.drives)
    over = rows > c.mechanism.freedoms
    if rows < c.mechanism.freedoms:
        raise NotSolvable(
            f"{c.mechanism.freedoms - rows} movements of the axle are held by nothing",
            field="layout",
            found=f"{c.held} rods and guides",
            acceptable=f"{c.mechanism.freedoms - len(c.drives)}",
        )
    state = _State(start, rows, c.mechanism.freedoms)
    for step in range(ENOUGH + 1):
        at = state.active
        e, j = system(c.of(at), state.pose(), targets[at], None if moved is None else moved[at])
        state.keep(e, j, step)
        done = np.zeros(len(at), dtype=bool) if over else np.abs(e).max(axis=1) < TOLERANCE_MM
        if not state.leave(done, found=True):
            break
        delta = _step(c, e[~done], j[~done], over)
        largest = np.abs(delta[:, :3]).max(axis=1) + np.abs(delta[:, 3:]).max(axis=1) * LONGEST_MM
        stuck = ~np.isfinite(largest)
        still = ~stuck & (largest < TOLERANCE_MM) if over else np.zeros(len(stuck), dtype=bool)
        delta = delta[~(stuck | still)]
        if not state.leave(still, found=True) or not state.leave(stuck[~still], found=False) or step == ENOUGH:
            break
        state.move(delta)
    turn = np.zeros(count) if over else np.sign(np.linalg.det(state.jacobian))
    pose = Pose(state.origin, state.rotation, state.turned)
    return Solved(pose, state.error, state.jacobian, state.iterations, state.found, turn)


class _State:
    """The batch while it is being solved; poses leave one by one, the others go on."""

    def __init__(self, start: Pose, rows: int, freedoms: int) -> None:
        """Begin with every pose active at its start."""
        count = len(start.origin)
        self.origin, self.rotation, self.turned = start.origin.copy(), start.rotation.copy(), start.turned.copy()
        self.error, self.jacobian = np.zeros((count, rows)), np.zeros((count, rows, freedoms))
        self.iterations, self.found = np.zeros(count, dtype=np.int64), np.zeros(count, dtype=bool)
        self.active: Rows = np.arange(count)

    @property
    def _all(self) -> bool:
        return len(self.active) == len(self.origin)

    def pose(self) -> Pose:
        """The poses that are still active."""
        if self._all:
            return Pose(self.origin, self.rotation, self.turned)
        return Pose(self.origin[self.active], self.rotation[self.active], self.turned[self.active])

    def keep(self, error: Columns, jacobian: Columns, step: int) -> None:
        """Remember where the active poses stand."""
        if self._all:
            self.error, self.jacobian = error, jacobian
            self.iterations[:] = step
        else:
            self.error[self.active], self.jacobian[self.active] = error, jacobian
            self.iterations[self.active] = step

    def leave(self, done: Mask, *, found: bool) -> bool:
        """Let some poses go; whether any are left."""
        if done.any():
            self.found[self.active[done]] = found
            self.active = self.active[~done]
        return len(self.active) > 0

    def move(self, delta: Columns) -> None:
        """Move the active poses, no further at once than keeps them in their branch."""
        scale = np.maximum(np.abs(delta[:, :3]).max(axis=1) / LONGEST_MM, np.abs(delta[:, 3:]).max(axis=1) / WIDEST)
        if (scale > 1.0).any():
            delta = delta / np.maximum(scale, 1.0)[:, None]
        at = self.active
        turn = exponential(delta[:, 3:6]) @ (self.rotation if self._all else self.rotation[at])
        if self._all:
            self.origin, self.rotation = self.origin + delta[:, :3], turn
            self.turned = self.turned + delta[:, 6:]
        else:
            self.origin[at] += delta[:, :3]
            self.rotation[at] = turn
            self.turned[at] += delta[:, 6:]


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
