"""What changed between two designs, or two surveys, in words: what came, what went, and each figure before and after."""

from collections.abc import Iterator, Mapping, Sequence
from typing import Any

from pydantic import BaseModel

from nodulant.base.model import Frozen
from nodulant.frame.ops.form import FieldKind, form_of
from nodulant.frame.ops.union import Operation
from nodulant.job.document import Design
from nodulant.survey.vehicle import Survey
from nodulant.units.inline import as_amount, as_length, as_thickness

UNTOLD = frozenset({"typed", "assumed", "notes", "id", "pair_id"})
"""How something was typed, or which tag it bears, is no change of the work."""
MOST = 60
TAILS = ("_mm", "_deg", "_n", "_kg", "_id")


class Change(Frozen):
    """One change: what it is about, and in words what it was and is; an empty side came or went."""

    about: str
    field: str
    before: str
    after: str


def design_changes(before: Design, after: Design) -> tuple[Change, ...]:
    """Operations by their identity, then targets, suspensions and the rest of the design."""
    found = [*_operations(before.operations, after.operations), *_models(before, after, skip={"operations"})]
    return tuple(found[:MOST])


def survey_changes(before: Survey, after: Survey) -> tuple[Change, ...]:
    """Readings that changed."""
    return tuple(list(_models(before, after, skip=set()))[:MOST])


def _operations(before: Sequence[Operation], after: Sequence[Operation]) -> Iterator[Change]:
    old, new = {op.id: op for op in before}, {op.id: op for op in after}
    for id_, op in old.items():
        if id_ not in new:
            yield Change(about=op.name, field="", before="in the plan", after="")
    for id_, op in new.items():
        if id_ not in old:
            yield Change(about=op.name, field="", before="", after="in the plan")
        elif old[id_] != op:
            yield from _operation(old[id_], op)


def _operation(before: Operation, after: Operation) -> Iterator[Change]:
    form = form_of(type(after))
    fields = [*form.fields, *(f for part in form.parts for f in part.fields if not part.many)]
    told: dict[str, tuple[str, FieldKind]] = {f.at: (f.label, f.kind) for f in fields}
    for at, one, other in _leaves(before.model_dump(), after.model_dump(), ""):
        label, kind = told.get(at, (_plain(at), None))
        yield Change(about=after.name, field=label, before=_said(one, kind, at), after=_said(other, kind, at))


def _models(before: BaseModel, after: BaseModel, *, skip: set[str]) -> Iterator[Change]:
    one, other = before.model_dump(exclude=skip), after.model_dump(exclude=skip)
    for at, old, new in _leaves(one, other, ""):
        about, _, field = at.partition(".")
        yield Change(about=_plain(about), field=_plain(field), before=_said(old, None, at), after=_said(new, None, at))


def _leaves(before: Any, after: Any, at: str) -> Iterator[tuple[str, Any, Any]]:  # noqa: ANN401
    """Paths at which two documents differ, with both values; a list whose length changed is told as a whole."""
    if before == after:
        return
    if isinstance(before, Mapping) and isinstance(after, Mapping):
        for key in dict.fromkeys([*before, *after]):
            if key not in UNTOLD:
                yield from _leaves(before.get(key), after.get(key), f"{at}.{key}" if at else str(key))
    elif isinstance(before, list | tuple) and isinstance(after, list | tuple) and len(before) == len(after):
        for i, (one, other) in enumerate(zip(before, after, strict=True)):
            yield from _leaves(one, other, f"{at}.{_row(other, i)}")
    else:
        yield at, before, after


def _row(value: Any, index: int) -> str:  # noqa: ANN401
    """A row of a table by its name, where it has one."""
    name = value.get("name") if isinstance(value, Mapping) else None
    return str(name) if name else str(index + 1)


def _plain(at: str) -> str:
    """A path as words: 'rails.left.stations.3.wall_mm' is 'rails, left, stations, 3, wall'."""
    words = []
    for part in at.split("."):
        word = next((part.removesuffix(tail) for tail in TAILS if part.endswith(tail)), part)
        words.append(word.replace("_", " "))
    return ", ".join(words)


def _said(value: Any, kind: FieldKind | None, at: str) -> str:  # noqa: ANN401
    if value is None or value == () or value == []:
        return ""
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, list | tuple):
        return f"{len(value)} rows" if len(value) != 1 else "1 row"
    if isinstance(value, Mapping):
        return str(value.get("name") or value.get("kind") or "given")
    if not isinstance(value, int | float):
        return str(value)
    if kind == "thickness" or (kind is None and at.endswith(("wall_mm", "thickness_mm", "leg_mm"))):
        return as_thickness(value)
    if at.endswith("_mm"):
        return as_length(value)
    if at.endswith("_deg"):
        return f"{value:g} deg"
    if at.endswith("_n"):
        return as_amount("force", value)
    return as_amount("mass", value) if at.endswith("_kg") else f"{value:g}"
