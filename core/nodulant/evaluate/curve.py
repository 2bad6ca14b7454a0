"""A figure as a curve."""

from nodulant.base.model import Frozen


class Curve(Frozen):
    """A figure through travel; None where the linkage or the figure does not exist there."""

    id: str
    name: str
    unit: str
    values: list[float | None]
    at_ride: float | None
    words: str
