"""Turn validation errors into pointer, found and expected."""

import json

from pydantic import ValidationError
from pydantic_core import ErrorDetails

from nodulant.base.errors import InputError
from nodulant.base.model import Frozen


class Problem(Frozen):
    """One thing wrong: where (JSON pointer), the sentence, what was found and what is accepted."""

    pointer: str
    message: str
    found: str
    expected: str


_EXPECTED = {
    "greater_than": "more than {gt:g}",
    "greater_than_equal": "{ge:g} or more",
    "less_than": "less than {lt:g}",
    "less_than_equal": "{le:g} or less",
    "missing": "this field",
    "extra_forbidden": "no such field",
    "finite_number": "a finite number",
    "float_type": "a number",
    "float_parsing": "a number",
    "literal_error": "{expected}",
    "string_pattern_mismatch": "small letters, digits, - and _",
    "too_short": "at least {min_length} entries",
    "too_long": "at most {max_length} entries",
}


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
    context = {k: v for k, v in (row.get("ctx") or {}).items() if not isinstance(v, Exception)}
    # what the library says may hold braces of what was sent: only our own words are templates
    expected = _EXPECTED[row["type"]].format(**context) if row["type"] in _EXPECTED else row["msg"]
    return Problem(pointer=pointer, message=row["msg"], found=_found(row.get("input")), expected=expected)


_TAGS = {"notch", "boxing", "arc", "trapezoid", "straight", "reading", "sign-off", "override", "decision", "withdrawal"}


def _escape(part: str) -> str:
    return part.replace("~", "~0").replace("/", "~1")


def _found(value: object) -> str:
    try:
        text = json.dumps(value, ensure_ascii=False, default=str)
    except (TypeError, ValueError):
        text = str(value)
    return text if len(text) <= 80 else text[:77] + "..."
