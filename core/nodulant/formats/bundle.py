"""A job with its attachments in one ZIP: the open job file, what each attachment is, and every content under its hash."""

import hashlib
import zipfile
import zlib
from collections.abc import Callable, Iterable, Iterator
from typing import IO, Annotated

from pydantic import Field, TypeAdapter, ValidationError

from nodulant.base.model import Frozen
from nodulant.formats.jobfile import LIMIT_BYTES, JobFileRefused, dump_job, load_job
from nodulant.formats.problems import Problem, problems_of
from nodulant.job.document import JobFile

JOB, LIST, FOLDER = "job.nodulant.json", "attachments.json", "attachments/"
MOST_BYTES, MOST_FILES, MOST_IN_ALL = 10 * 1024 * 1024, 200, 250 * 1024 * 1024
"""Of one attachment, how many a job has, and what all of them hold together."""
UNREADABLE = (zipfile.BadZipFile, zlib.error, NotImplementedError, RuntimeError, EOFError, OSError)
"""What a file that is no whole ZIP makes of its reader; not implemented are ways of packing that we never write."""


class Attached(Frozen):
    """A file kept with a job, by the hash of what it holds."""

    sha256: Annotated[str, Field(pattern=r"^[0-9a-f]{64}$")]
    name: Annotated[str, Field(min_length=1, max_length=200)]
    content_type: Annotated[str, Field(max_length=100)]
    at: Annotated[str, Field(max_length=40)]
    by: Annotated[str, Field(max_length=150)]


_ROWS: TypeAdapter[tuple[Attached, ...]] = TypeAdapter(tuple[Attached, ...])


def write_bundle(to: IO[bytes], job: JobFile, attached: Iterable[Attached], content: Callable[[str], bytes]) -> None:
    """Write the bundle; ``content`` gives what a hash stands for, one at a time."""
    rows = tuple(attached)
    with zipfile.ZipFile(to, "w", zipfile.ZIP_DEFLATED) as bundle:
        bundle.writestr(JOB, dump_job(job))
        bundle.writestr(LIST, _ROWS.dump_json(rows))
        for sha256 in sorted({row.sha256 for row in rows}):
            bundle.writestr(FOLDER + sha256, content(sha256), zipfile.ZIP_STORED)


def read_bundle(file: IO[bytes]) -> tuple[JobFile, tuple[tuple[Attached, bytes], ...]]:
    """The job and its attachments, each compared with its hash; raises JobFileRefused."""
    try:
        with zipfile.ZipFile(file) as bundle:
            job = load_job(_part(bundle, JOB, LIMIT_BYTES + 1))
            rows = _ROWS.validate_json(_part(bundle, LIST, LIMIT_BYTES))
            if len(rows) > MOST_FILES:
                raise _refused("/attachments", "too many attachments", str(len(rows)), f"at most {MOST_FILES}")
            return job, tuple(_attachments(bundle, rows))
    except ValidationError as error:
        raise JobFileRefused(problems_of(error)) from error
    except UNREADABLE as error:
        raise _refused("", "this is no whole ZIP of a job", str(error)[:80], "a bundle as it was exported") from error


def _attachments(bundle: zipfile.ZipFile, rows: tuple[Attached, ...]) -> Iterator[tuple[Attached, bytes]]:
    """Each with what it holds; what all of them unpack to is counted, whatever little they are packed in."""
    size = 0
    for row in rows:
        content = _checked(bundle, row.sha256)
        size += len(content)
        if size > MOST_IN_ALL:
            raise _refused("/attachments", "the attachments are too large together", "more", f"{MOST_IN_ALL} bytes")
        yield row, content


def _checked(bundle: zipfile.ZipFile, sha256: str) -> bytes:
    content = _part(bundle, FOLDER + sha256, MOST_BYTES)
    found = hashlib.sha256(content).hexdigest()
    if found != sha256:
        raise _refused(f"/{FOLDER}{sha256[:12]}", "an attachment is not what it was", found[:12], sha256[:12])
    return content


def _part(bundle: zipfile.ZipFile, name: str, most: int) -> bytes:
    """A part's content; never more than ``most`` is unpacked, whatever it claims to be."""
    try:
        with bundle.open(name) as part:
            content = part.read(most + 1)
    except KeyError as error:
        raise _refused(f"/{name}", "a part of the bundle is missing", "nothing", name) from error
    if len(content) > most:
        raise _refused(f"/{name}", "a part of the bundle is too large", "more", f"at most {most} bytes")
    return content


def _refused(pointer: str, message: str, found: str, expected: str) -> JobFileRefused:
    return JobFileRefused([Problem(pointer=pointer, message=message, found=found, expected=expected)])
