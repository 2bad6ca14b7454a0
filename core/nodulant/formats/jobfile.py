"""Read and write the open job file ``*.nodulant.json``.

Refusals name the JSON pointer, what was found and what was expected; nothing is written.
"""

import json
from typing import Any

from pydantic import ValidationError

from nodulant.base.errors import InputError, NodulantError
from nodulant.formats.described import describe
from nodulant.formats.problems import Problem, problems_of
from nodulant.formats.typed_text import without_false_texts
from nodulant.job.document import VERSION, JobFile
from nodulant.job.upgrade import upgrade

LIMIT_BYTES = 10 * 1024 * 1024


class JobFileRefused(NodulantError, ValueError):
    """A file that is not taken, with every problem found."""

    code = "job-file-refused"

    def __init__(self, problems: list[Problem]) -> None:
        """Keep all problems; the message is the first one's."""
        first = problems[0]
        super().__init__(first.message, field=first.pointer, found=first.found, acceptable=first.expected)
        self.problems = problems


def load_job(data: bytes) -> JobFile:
    """Parse, upgrade and validate a job file; raises JobFileRefused."""
    if len(data) > LIMIT_BYTES:
        raise _refused("", "the file is too large", f"{len(data)} bytes", f"at most {LIMIT_BYTES} bytes")
    document = _parse(data)
    try:
        document = without_false_texts(upgrade(document))
    except InputError as error:
        raise _refused(error.field, error.message, error.found, error.acceptable) from error
    except (AttributeError, TypeError, KeyError) as error:
        raise _refused(
            "", "the file's structure is not that of a job", type(document).__name__, "a job file"
        ) from error
    try:
        return JobFile.model_validate_json(json.dumps(document))
    except ValidationError as error:
        raise JobFileRefused(problems_of(error)) from error


def _parse(data: bytes) -> dict[str, Any]:
    try:
        document = json.loads(data.decode("utf-8"), parse_constant=_no_constant)
    except UnicodeDecodeError as error:
        raise _refused("", "this is no UTF-8 text", f"byte {error.start}", "UTF-8") from error
    except json.JSONDecodeError as error:
        raise _refused(
            "",
            f"the JSON breaks off or is wrong: {error.msg}",
            f"line {error.lineno}, column {error.colno}",
            "complete JSON",
        ) from error
    except (ValueError, RecursionError) as error:
        raise _refused("", str(error) or "nested too deeply", "a value JSON does not have", "finite numbers") from error
    try:
        keepable = "\\u0000" not in json.dumps(document, ensure_ascii=False).encode().decode()
    except UnicodeEncodeError:
        keepable = False
    if not keepable:
        raise _refused("", "a text holds a character that cannot be kept", "a NUL or half a character", "plain text")
    if not isinstance(document, dict):
        raise _refused("", "a job file is one object", type(document).__name__, "an object")
    return document


def _no_constant(name: str) -> float:
    raise ValueError(f"{name} is no number")


def _refused(pointer: str, message: str, found: str, expected: str) -> JobFileRefused:
    return JobFileRefused([Problem(pointer=pointer, message=message, found=found, expected=expected)])


def dump_job(job: JobFile) -> bytes:
    """The job as UTF-8 JSON that ``load_job`` reads back equal; without blanks, so that what came in fits out again."""
    return (job.model_dump_json() + "\n").encode()


def job_schema() -> dict[str, Any]:
    """The JSON Schema of the newest version, from the models, every field described with its unit."""
    schema = JobFile.model_json_schema()
    describe(schema, JobFile)
    schema["$schema"] = "https://json-schema.org/draft/2020-12/schema"
    schema["title"] = f"Nodulant job file, version {VERSION}"
    return schema
