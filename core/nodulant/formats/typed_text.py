"""Typed text beside its number: where both disagree the number stands, and shows as itself.

A text that was kept would show one value while another is computed.
"""

from typing import Any, get_args

from nodulant.base.errors import NodulantError
from nodulant.units import Kind, parse_quantity

NEAR = 1e-6
"""By how much of its size a number may differ from what was typed."""


def without_false_texts(document: dict[str, Any]) -> dict[str, Any]:
    """The job document without typed texts that do not mean the number beside them; as it is where it is none."""
    try:
        return _checked(document)
    except (AttributeError, KeyError, TypeError):
        return document  # its validation says what is wrong with it


def _checked(document: dict[str, Any]) -> dict[str, Any]:
    surveys = [{**held, "survey": _true(held["survey"])} for held in document["surveys"]]
    options = [
        {**option, "revisions": [{**r, "design": _true(r["design"])} for r in option["revisions"]]}
        for option in document["options"]
    ]
    return {**document, "surveys": surveys, "options": options}


def _true(part: dict[str, Any]) -> dict[str, Any]:
    typed = part.get("typed")
    return {**part, "typed": {k: t for k, t in typed.items() if _means(part, k, t)}} if typed else part


def _means(part: dict[str, Any], key: str, typed: dict[str, Any]) -> bool:
    """Whether a text means its number in some kind of quantity; one that stands beside no number is left alone."""
    value = _value(part, key)
    meant = [v for kind in get_args(Kind) if (v := _meant(typed, kind)) is not None]
    return value is None or not meant or any(abs(v - value) <= NEAR * max(1.0, abs(value)) for v in meant)


def _meant(typed: dict[str, Any], kind: Kind) -> float | None:
    try:
        return parse_quantity(typed["text"], kind, typed["unit"]).value
    except NodulantError:
        return None


def _value(part: dict[str, Any], key: str) -> float | None:
    """The number at '<operation id>.<field>' or at a path of names; None where there is none."""
    head, *rest = key.split(".")
    found: Any = next((op for op in part.get("operations", ()) if op.get("id") == head), None)
    names = rest if found is not None else [head, *rest]
    at: Any = part if found is None else found
    for name in names:
        if isinstance(at, list) and name.isdigit() and int(name) < len(at):
            at = at[int(name)]
        elif isinstance(at, dict):
            at = at.get(name)
        else:
            return None
    return float(at) if isinstance(at, int | float) and not isinstance(at, bool) else None
