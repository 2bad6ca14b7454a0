"""How poses move as one drive moves, and where that leads."""

import numpy as np

from nodulant.base.arrays import Columns
from nodulant.linkage.compiled import ARM_MM, Compiled, Pose
from nodulant.linkage.mechanism import Lean
from nodulant.linkage.rotation import screw
from nodulant.linkage.solve import Solved


def twist(c: Compiled, solved: Solved, drive: int) -> Columns:
    """Velocities (poses, freedoms) as one drive moves at unit rate (mm or radian) and the others stand still."""
    count, n = len(solved.error), c.mechanism.freedoms
    lean = isinstance(c.drives[drive], Lean)
    rate = np.full(count, 1.0)
    if lean:
        rate = ARM_MM * np.sqrt(np.maximum(1.0 - solved.pose.rotation[:, 2, 1] ** 2, 0.0))
    rows = c.held + len(c.drives)
    if rows == n:
        right = np.zeros((count, rows, 1))
        right[:, c.held + drive, 0] = rate
        return np.asarray(np.linalg.solve(solved.jacobian, right)[..., 0])
    soft = solved.jacobian[:, : c.held] * np.sqrt(c.stiffness / c.stiffness.max())[:, None]
    hard = solved.jacobian[:, c.held :]
    drives = len(c.drives)
    matrix, right = np.zeros((count, n + drives, n + drives)), np.zeros((count, n + drives, 1))
    matrix[:, :n, :n] = np.swapaxes(soft, 1, 2) @ soft
    matrix[:, :n, n:], matrix[:, n:, :n] = np.swapaxes(hard, 1, 2), hard
    right[:, n + drive, 0] = rate
    return np.asarray(np.linalg.solve(matrix, right)[:, :n, 0])


def carried(pose: Pose, rates: Columns) -> Pose:
    """Poses moved along their rates (poses, freedoms), each along its screw."""
    shift, turn = screw(rates[:, :3], rates[:, 3:6])
    return Pose(pose.origin + shift, turn @ pose.rotation, pose.turned + rates[:, 6:])
