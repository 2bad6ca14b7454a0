"""Newton's method on every pose of a batch at once, and why a pose has none.

With as many rows as freedoms each pose is solved to round-off. With more rods than freedoms the
drives are kept exactly and the rods give way by their stiffness (least squares weighted by E A/L).
Each pose stops by itself, so that a batch's size never changes a bit of an answer.
"""

from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from nodulant.base.arrays import Columns, Mask
from nodulant.base.errors import NotSolvable
from nodulant.linkage.compiled import Compiled, Pose, system
from nodulant.linkage.rotation import composed, exponential

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
    origin, rotation, turned = start.origin.copy(), start.rotation.copy(), start.turned.copy()
    error, jacobian = np.zeros((count, rows)), np.zeros((count, rows, c.mechanism.freedoms))
    iterations, found = np.zeros(count, dtype=np.int64), np.zeros(count, dtype=bool)
    active = np.arange(count)
    for step in range(ENOUGH + 1):
        pose = Pose(origin[active], rotation[active], turned[active])
        e, j = system(c.of(active), pose, targets[active], None if moved is None else moved[active])
        error[active], jacobian[active], iterations[active] = e, j, step
        if not over:
            done = np.abs(e).max(axis=1) < TOLERANCE_MM
            found[active[done]] = True
            active, e, j = active[~done], e[~done], j[~done]
            if len(active) == 0:
                break
        delta = _step(c, e, j, over)
        largest = np.abs(delta[:, :3]).max(axis=1) + np.abs(delta[:, 3:]).max(axis=1) * LONGEST_MM
        stuck = ~np.isfinite(largest)
        done = stuck | (largest < TOLERANCE_MM) if over else stuck
        found[active[done & ~stuck]] = True
        active, delta = active[~done], delta[~done]
        if len(active) == 0 or step == ENOUGH:
            break
        scale = np.maximum(np.abs(delta[:, :3]).max(axis=1) / LONGEST_MM, np.abs(delta[:, 3:]).max(axis=1) / WIDEST)
        delta = delta / np.maximum(scale, 1.0)[:, None]
        origin[active] += delta[:, :3]
        rotation[active] = composed(exponential(delta[:, 3:6]), rotation[active])
        turned[active] += delta[:, 6:]
    turn = np.zeros(count) if over else np.sign(np.linalg.det(jacobian))
    return Solved(Pose(origin, rotation, turned), error, jacobian, iterations, found, turn)


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
