"""A figure as a curve, as the screen gets it."""

from collections.abc import Mapping, Sequence

import numpy as np

from nodulant.base.arrays import Columns, Mask, rounded
from nodulant.base.model import Frozen

NOTHING = 1e-9
"""Round-off in every unit shown."""
FARTHEST_MM = 12_000.0
"""An instant centre beyond this is as good as at infinity, and is not drawn."""


class Band(Frozen):
    """What the parts allow a figure to be, in the figure's own unit; None where nothing ends it there."""

    least: float | None = None
    most: float | None = None


class Curve(Frozen):
    """A figure through travel; None where the linkage or the figure does not exist there."""

    id: str
    name: str
    unit: str
    values: list[float | None]
    at_ride: float | None
    words: str
    allowed: Band | None = None
    """None where no part sets an end to the figure."""


Figure = tuple[str, str, str, Columns, str]
"""Id, name, unit, a value for every place, words."""


def curves_of(
    figures: Sequence[Figure], there: Mask, ride: int, bands: Mapping[str, Band] | None = None
) -> tuple[Curve, ...]:
    """Figures as curves, None where not ``there`` or the figure does not exist; ``ride`` is the place at rest.

    ``bands`` holds what the parts allow, by the figure's id.
    """
    allowed = bands or {}
    if not figures:
        return ()
    values = np.array([figure[3] for figure in figures])
    far = np.array([[FARTHEST_MM if figure[2] == "mm" else np.inf] for figure in figures])
    size = np.abs(values)
    good = there & (size < far)
    shown = rounded(np.where(good & (size > NOTHING), values, 0.0)).astype(object)
    shown[~good] = None
    return tuple(
        Curve(id=id_, name=name, unit=unit, values=row, at_ride=row[ride], words=words, allowed=allowed.get(id_))
        for (id_, name, unit, _, words), row in zip(figures, shown.tolist(), strict=True)
    )
