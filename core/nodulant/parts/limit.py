"""What a limit is, and a user's change of it."""

from typing import Literal, Self

from pydantic import model_validator

from nodulant.base.errors import InputError
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
    note: str = ""
    """Why it is a rule of comfort or taste: told with its figure, never counted. Empty for every other limit."""

    @property
    def row_basis(self) -> str:
        """The basis as a row tells it; what is from memory is said in the list of limits."""
        told = self.basis.replace(", from memory", "")
        return f"{told}; a note: {self.note}" if self.note else told


class LimitChange(Frozen):
    """A user's own value for a limit, with the reason that is shown beside it."""

    value: float
    reason: Name


class StrengthRule(Frozen):
    """What a cut rail is asked: that it carries its loads, or that it is as strong as stock everywhere."""

    kind: Literal["carries it", "as strong as stock"] = "carries it"
    reason: Name | None = None

    @model_validator(mode="after")
    def _says_why(self) -> Self:
        if self.kind != "carries it" and self.reason is None:
            raise InputError(
                "a rule of one's own needs a reason",
                field="reason",
                found="nothing",
                acceptable="who asks for it, or why",
            )
        return self


def noted(limit: Limit, why: str) -> Limit:
    """The limit as a note, with the reason."""
    return limit.model_copy(update={"note": why})


def at_least(id_: str, name: str, value: float, unit: str, basis: str, tolerance: float | None = None) -> Limit:
    """A value that is not to be undercut."""
    return Limit(id=id_, name=name, value=value, unit=unit, direction="at-least", basis=basis, tolerance=tolerance)


def at_most(id_: str, name: str, value: float, unit: str, basis: str, tolerance: float | None = None) -> Limit:
    """A value that is not to be exceeded."""
    return Limit(id=id_, name=name, value=value, unit=unit, direction="at-most", basis=basis, tolerance=tolerance)
