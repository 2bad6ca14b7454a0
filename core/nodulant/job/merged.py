"""Two people's changes of one survey brought together: each reading by itself, and what both changed is named."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from operator import itemgetter
from typing import Any

from nodulant.base.model import Frozen
from nodulant.survey.vehicle import Survey

GONE: Any = object()
"""Stands for what one of the three does not have."""
UNTOLD = ("/typed", "/assumed")


class Merged(Frozen):
    """The survey with both changes in it, and pointers of what both changed differently: there ``mine`` stands."""

    survey: Survey
    both: tuple[str, ...]


@dataclass(frozen=True)
class _Three:
    """One place of the three documents."""

    base: Any
    mine: Any
    theirs: Any

    def all_are(self, holds: Callable[[Any], bool]) -> bool:
        return holds(self.base) and holds(self.mine) and holds(self.theirs)

    def each(self, take: Callable[[Any], Any]) -> "_Three":
        return _Three(take(self.base), take(self.mine), take(self.theirs))


def merged(base: Survey, mine: Survey, theirs: Survey) -> Merged:
    """Three-way merge; raises pydantic's ValidationError where the two do not make a survey together."""
    both: list[str] = []
    out = _merge(_Three(base, mine, theirs).each(lambda s: s.model_dump(mode="json")), "", both)
    told = tuple(at for at in both if not at.startswith(UNTOLD))
    return Merged(survey=Survey.model_validate(out), both=told)


def _merge(of: _Three, at: str, both: list[str]) -> Any:  # noqa: ANN401
    if of.mine == of.theirs or of.theirs == of.base:
        return of.mine
    if of.mine == of.base:
        return of.theirs
    if of.all_are(lambda v: isinstance(v, Mapping)):
        return _keyed(of, at, both)
    if of.all_are(_has_ids):
        return list(_keyed(of.each(lambda rows: {row["id"]: row for row in rows}), at, both).values())
    if of.all_are(lambda v: isinstance(v, list)) and len(of.base) == len(of.mine) == len(of.theirs):
        return [_merge(of.each(itemgetter(i)), f"{at}/{i}", both) for i in range(len(of.base))]
    both.append(at)
    return of.mine


def _keyed(of: _Three, at: str, both: list[str]) -> dict[str, Any]:
    out: dict[str, Any] = {}
    for key in dict.fromkeys([*of.theirs, *of.mine]):
        value = _merge(_Three(*(d.get(key, GONE) for d in (of.base, of.mine, of.theirs))), f"{at}/{key}", both)
        if value is not GONE:
            out[key] = value
    return out


def _has_ids(value: Any) -> bool:  # noqa: ANN401
    return isinstance(value, list) and all(isinstance(row, Mapping) and "id" in row for row in value)
