"""Turn validation errors into pointer, found and expected, in words of our own and in the job's unit."""

import json
import re
from collections.abc import Callable

from pydantic import ValidationError
from pydantic_core import ErrorDetails

from nodulant.base.errors import InputError
from nodulant.base.model import Frozen
from nodulant.units.inline import as_amount, as_thickness


class Problem(Frozen):
    """One thing wrong: where (JSON pointer), the sentence, what was found and what is accepted."""

    pointer: str
    message: str
    found: str
    expected: str


_EXPECTED = {
    "greater_than": "more than {gt}",
    "greater_than_equal": "{ge} or more",
    "less_than": "less than {lt}",
    "less_than_equal": "{le} or less",
    "missing": "this field",
    "extra_forbidden": "no such field",
    "finite_number": "a finite number",
    "float_type": "a number",
    "float_parsing": "a number",
    "literal_error": "{expected}",
    "string_pattern_mismatch": "small letters, digits, - and _",
    "string_too_short": "a text of {min_length} or more",
    "string_too_long": "a text of {max_length} at most",
    "too_short": "at least {min_length} entries",
    "too_long": "at most {max_length} entries",
}
_SAID = {
    "greater_than": "this is too small",
    "greater_than_equal": "this is too small",
    "less_than": "this is too large",
    "less_than_equal": "this is too large",
    "string_too_short": "this text is too short",
    "string_too_long": "this text is too long",
    "too_short": "there are too few of these",
    "too_long": "there are too many of these",
    "missing": "this was left out",
    "float_type": "a number was expected here",
    "float_parsing": "a number was expected here",
    "extra_forbidden": "nothing of this name is known here",
}
"""What is said instead of the library's words."""
_UNITS: dict[str, Callable[[float], str]] = {
    "mm": as_thickness,
    "kg": lambda value: as_amount("mass", value),
    "n": lambda value: as_amount("force", value),
    "deg": lambda value: f"{value:g} deg",
}
"""How a bound is told, by the end of its field's name."""


def problems_of(error: ValidationError, prefix: str = "") -> list[Problem]:
    """Every problem of a failed validation, deepest field first come."""
    return [problem_of(row, prefix) for row in error.errors(include_url=False)]


def problem_of(row: ErrorDetails, prefix: str = "") -> Problem:
    """One row of a failed validation as a problem."""
    own = (row.get("ctx") or {}).get("error")
    pointer = prefix + "".join(f"/{_escape(str(part))}" for part in row["loc"] if str(part) not in _TAGS)
    if isinstance(own, InputError):
        inner = f"/{own.field.lstrip('/')}" if own.field else ""
        return Problem(pointer=pointer + inner, message=own.message, found=own.found, expected=own.acceptable)
    tell = _teller(pointer)
    context = {
        k: (tell(v) if v else "0") if k in _BOUNDS else v
        for k, v in (row.get("ctx") or {}).items()
        if not isinstance(v, Exception)
    }
    # what the library says may hold braces of what was sent: only our own words are templates
    expected = _EXPECTED[row["type"]].format(**context) if row["type"] in _EXPECTED else row["msg"]
    sent = row.get("input")
    found = tell(sent) if _BOUNDS & context.keys() and isinstance(sent, float | int) else _found(sent)
    return Problem(pointer=pointer, message=_SAID.get(row["type"], row["msg"]), found=found, expected=expected)


def _teller(pointer: str) -> Callable[[float], str]:
    """How a number at a field is told; a rate 'per' something, and what has no unit, as it is."""
    field = _ROWS.sub("", pointer).rsplit("/", 1)[-1]
    return "{:g}".format if "_per_" in field else _UNITS.get(field.rsplit("_", 1)[-1], "{:g}".format)


_ROWS = re.compile(r"(/\d+)+$")
"""Numbers of rows behind a field's name."""
_BOUNDS = {"gt", "ge", "lt", "le"}
_TAGS = {"notch", "boxing", "arc", "trapezoid", "straight", "reading", "sign-off", "override", "decision", "withdrawal"}


def _escape(part: str) -> str:
    return part.replace("~", "~0").replace("/", "~1")


def _found(value: object) -> str:
    try:
        text = json.dumps(value, ensure_ascii=False, default=str)
    except (TypeError, ValueError):
        text = str(value)
    return text if len(text) <= 80 else text[:77] + "..."
