"""What a limit is, and a user's change of it."""

from typing import Literal

from nodulant.base.model import Frozen, Name

Direction = Literal["at-least", "at-most"]


class Limit(Frozen):
    """Default value of a limit, its direction and where it comes from."""

    id: str
    name: Name
    value: float
    unit: str
    direction: Direction
    basis: str
    tolerance: float | None = None
    """Scale of the margin where the limit is 0."""


class LimitChange(Frozen):
    """A user's own value for a limit, with the reason that is shown beside it."""

    value: float
    reason: Name


def at_least(id_: str, name: str, value: float, unit: str, basis: str, tolerance: float | None = None) -> Limit:
    """A value that is not to be undercut."""
    return Limit(id=id_, name=name, value=value, unit=unit, direction="at-least", basis=basis, tolerance=tolerance)


def at_most(id_: str, name: str, value: float, unit: str, basis: str, tolerance: float | None = None) -> Limit:
    """A value that is not to be exceeded."""
    return Limit(id=id_, name=name, value=value, unit=unit, direction="at-most", basis=basis, tolerance=tolerance)
