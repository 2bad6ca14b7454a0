"""Descriptions of a model's fields for its JSON Schema: what stands beside each in the code, its label, its unit."""

import ast
import inspect
import textwrap
from collections.abc import Iterator
from itertools import pairwise
from typing import Any, get_args

from pydantic import BaseModel
from pydantic.fields import FieldInfo

from nodulant.base.shown import Shown

UNITS = {
    "n_per_mm": "N/mm", "per_mm": "per mm", "mm2": "mm2", "mm3": "mm3", "mm": "mm", "deg": "degrees", "kg": "kg", "n": "N",
    "nm": "N m", "mpa": "MPa", "bar": "bar", "hz": "Hz", "g": "g", "s": "s", "hours": "hours", "days": "days",
}  # fmt: skip
"""By the end of a field's name, the longest first."""
SHORT = 2
COMMON = {
    "id": "its own id, by which others refer to it",
    "kind": "which kind of it this is",
    "name": "what it is called",
    "side": "which rail, or both",
    "words": "what was said of it",
    "pair_id": "of two halves of one pair: what both are known by",
}


def describe(schema: dict[str, Any], root: type[BaseModel]) -> None:
    """Give every property of ``schema`` a description, and those of a quantity their unit; in place."""
    models = {model.__name__: model for model in _models(root)}
    own = {root.__name__: schema, **schema.get("$defs", {})}
    for name, part in own.items():
        model = models.get(name.rsplit("__", 1)[-1])
        beside = _beside(model) if model else {}
        for field, told in part.get("properties", {}).items():
            info = model.model_fields.get(field) if model else None
            whole = (inspect.getdoc(model) or name) if model else name
            told["description"] = _description(field, beside.get(field, ""), info, whole)


def _description(field: str, beside: str, info: FieldInfo | None, whole: str) -> str:
    """What stands beside a field, else its label; a letter or two mean something only with what they are of."""
    named = _named(field)
    if len(named) <= SHORT:
        named = f"{whole.partition('.')[0]}: {named}"
    text = beside or _label(info) or COMMON.get(field, "") or named
    text = text[:1].upper() + text[1:].rstrip(".")
    unit = unit_of(field)
    return f"{text}, {unit}" if unit and unit not in text.replace(",", " ").split() and unit not in text else text


def unit_of(field: str) -> str:
    """The unit that a field's name ends in; empty where it has none."""
    return next((unit for end, unit in UNITS.items() if field.endswith(f"_{end}")), "")


def _label(info: FieldInfo | None) -> str:
    return next((m.label for m in info.metadata if isinstance(m, Shown)), "") if info else ""


def _named(field: str) -> str:
    end = next((f"_{e}" for e in UNITS if field.endswith(f"_{e}")), "")
    return field.removesuffix(end).strip("_").replace("_", " ")


def _beside(model: type[BaseModel]) -> dict[str, str]:
    """Strings that stand under the fields of a model and of what it is made of; its own last."""
    found: dict[str, str] = {}
    for part in reversed(model.__mro__):
        if issubclass(part, BaseModel) and part is not BaseModel:
            found |= _in_source(part)
    return found


def _in_source(model: type[BaseModel]) -> dict[str, str]:
    try:
        tree = ast.parse(textwrap.dedent(inspect.getsource(model)))
    except (OSError, TypeError):
        return {}
    body = tree.body[0].body if isinstance(tree.body[0], ast.ClassDef) else []
    out = {}
    for one, two in pairwise(body):
        if isinstance(one, ast.AnnAssign) and isinstance(one.target, ast.Name) and isinstance(two, ast.Expr):
            value = two.value
            if isinstance(value, ast.Constant) and isinstance(value.value, str):
                out[one.target.id] = inspect.cleandoc(value.value).replace("\n", " ").replace("``", "")
    return out


def _models(root: type[BaseModel]) -> Iterator[type[BaseModel]]:
    """A model and all that its fields hold."""
    seen: set[type[BaseModel]] = set()
    waiting: list[object] = [root]
    while waiting:
        one = waiting.pop()
        if isinstance(one, type) and issubclass(one, BaseModel):
            if one in seen:
                continue
            seen.add(one)
            yield one
            waiting += [info.annotation for info in one.model_fields.values()]
        else:
            waiting += get_args(one)
            waiting += [getattr(one, "__value__", None)] if hasattr(one, "__value__") else []
