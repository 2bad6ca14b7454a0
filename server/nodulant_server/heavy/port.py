"""Ask for heavy work and follow it: here in this process, or by workers behind a queue (``NODULANT_WORKERS``)."""

from collections.abc import Iterator

from django.conf import settings
from django.http import StreamingHttpResponse

from nodulant.job.document import Inputs
from nodulant_server.heavy.kinds import KINDS, Asked
from nodulant_server.heavy.queue import ask, follow, in_whole
from nodulant_server.roles import Acting


def answered(kind: str, acting: Acting, job_id: int, inputs: Inputs, **asked: object) -> StreamingHttpResponse:
    """Lines of JSON as they come; closing the connection cancels."""
    return StreamingHttpResponse(
        _lines(kind, acting, job_id, _asked(inputs, asked)), content_type="application/x-ndjson"
    )


def paper(kind: str, acting: Acting, job_id: int, inputs: Inputs, **asked: object) -> bytes:
    """A file in one piece; raises HttpError where no worker made it."""
    whole = _asked(inputs, asked)
    if not settings.WORKERS:
        return b"".join(KINDS[kind](whole))
    return in_whole(ask(kind, acting, job_id, whole))


def _asked(inputs: Inputs, asked: dict[str, object]) -> Asked:
    return {"inputs": inputs.model_dump(mode="json"), **asked}


def _lines(kind: str, acting: Acting, job_id: int, asked: Asked) -> Iterator[bytes]:
    return follow(ask(kind, acting, job_id, asked)) if settings.WORKERS else KINDS[kind](asked)
