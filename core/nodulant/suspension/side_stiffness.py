"""How stiffly links, tubes and bushes hold an axle sideways at ride height.

Stiffness matrix J^T k J of all rods and guides, the drives (height and lean) held fast; the side
stiffness is 1/(e^T K^-1 e) for a unit force across at the hubs (textbook, displacement method).
"""

import numpy as np

from nodulant.axles.layouts.live import TriangulatedFourLink
from nodulant.linkage.compiled import Compiled, reference
from nodulant.linkage.solve import solve
from nodulant.suspension.motion import Motion, Setting, compiled

FAST = 1e9
"""Stiffness with which the drives are held, N/mm and N mm/rad."""
USUAL_DEG = 20.0
ACROSS = 1


def side_stiffness(m: Motion) -> float | None:
    """N/mm at the hubs; None where nothing holds the axle sideways."""
    return _stiffness(m.sweep.compiled)


def _stiffness(c: Compiled) -> float | None:
    jacobian = solve(c, np.zeros((1, len(c.drives))), reference(c)).jacobian[0]
    k = np.concatenate([c.stiffness, np.full(len(c.drives), FAST)])
    matrix = jacobian.T @ (k[:, None] * jacobian)
    push = np.zeros(len(matrix))
    push[ACROSS] = 1.0
    try:
        give = float(np.linalg.solve(matrix, push)[ACROSS])
    except np.linalg.LinAlgError:
        return None
    return 1.0 / give if give > 0 and np.isfinite(give) else None


def usual_stiffness(layout: TriangulatedFourLink, setting: Setting) -> float | None:
    """The same with the upper links' frame ends moved apart until they converge by 20 degrees each; N/mm."""
    upper = layout.upper
    along = abs(setting.hub[0] + upper.axle.x_mm - upper.frame.x_mm)
    side = -1.0 if upper.frame.y_mm < upper.axle.y_mm else 1.0
    y = upper.axle.y_mm + side * along * float(np.tan(np.radians(USUAL_DEG)))
    frame = upper.frame.model_copy(update={"y_mm": y})
    moved = layout.model_copy(update={"upper": upper.model_copy(update={"frame": frame})})
    return _stiffness(compiled(moved, setting))
