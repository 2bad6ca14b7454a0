"""Points and curves as the screen gets them."""

import numpy as np

from nodulant.base.arrays import Columns, significant
from nodulant.evaluate.curve import Curve
from nodulant.evaluate.travel_drawing import BodyPoint
from nodulant.linkage.mechanism import End
from nodulant.suspension.motion import Motion

NOTHING = 1e-9
"""Round-off in every unit shown."""
FARTHEST_MM = 12_000.0
"""An instant centre beyond this is as good as at infinity, and is not drawn."""


def point(end: End) -> BodyPoint:
    """An end in the reference position."""
    x, y, z = end.point
    return BodyPoint(body=end.body, x_mm=x, y_mm=y, z_mm=z)


def curve(m: Motion, ride: int, id_: str, name: str, unit: str, values: Columns, words: str) -> Curve:
    """A figure through travel, nothing where the linkage or the figure does not exist."""
    far = FARTHEST_MM if unit == "mm" else np.inf
    good = np.isfinite(values) & m.there & (np.abs(values) < far)
    shown = significant(np.where(good & (np.abs(values) > NOTHING), values, 0.0))
    rows = [v if ok else None for v, ok in zip(shown, good.tolist(), strict=True)]
    return Curve(id=id_, name=name, unit=unit, values=rows, at_ride=rows[ride], words=words)
