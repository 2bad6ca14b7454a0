"""One place renders errors: problem+json (RFC 9457) with JSON pointers."""

import json
import logging
from typing import Any, cast

import orjson
from django.core.exceptions import RequestDataTooBig
from django.db import OperationalError
from django.http import Http404, HttpRequest, HttpResponse
from django.http.request import RawPostDataException
from ninja import NinjaAPI
from ninja.errors import AuthenticationError, HttpError, ValidationError, ValidationErrorContext
from ninja.parser import Parser
from pydantic import ValidationError as ModelError
from pydantic_core import ErrorDetails

from nodulant.base.errors import NodulantError, UnreadableQuantity
from nodulant.evaluate import InvalidInputs
from nodulant.formats.jobfile import JobFileRefused
from nodulant.formats.problems import Problem, problem_of, problems_of
from nodulant.formats.stations_csv import StationsRefused
from nodulant_server.actions.save import Stale
from nodulant_server.logs import request_id
from nodulant_server.roles import Forbidden

log = logging.getLogger(__name__)
Context = ValidationErrorContext[Any]


class Texts(Parser):
    """Bodies as JSON whose texts can be kept: no lone surrogates, no NUL."""

    def parse_body(self, request: HttpRequest) -> Any:  # noqa: ANN401
        """The document; raises HttpError with what is wrong."""
        if NUL in request.body:
            raise HttpError(400, "a text holds a character that cannot be kept (NUL)")
        document = json.loads(request.body)  # NaN goes on: what it stands for is refused at its place
        if SURROGATE in request.body.lower():
            json.dumps(document, ensure_ascii=False).encode()
        return document


NUL, SURROGATE = rb"\u0000", rb"\ud"
"""As JSON escapes them; half of a pair by itself cannot be encoded, which is found by trying."""


class Api(NinjaAPI):
    """An API whose refused bodies keep what was found and the core's own field and advice."""

    def validation_error_from_error_contexts(self, error_contexts: list[Context]) -> ValidationError:
        """Every row of every failed body as pydantic gave it."""
        rows = [dict(row) for c in error_contexts for row in c.pydantic_validation_error.errors(include_url=False)]
        return ValidationError(rows)


def problem(status: int, code: str, title: str, problems: list[Problem] | None = None, **extra: object) -> HttpResponse:
    """An error answer; ``problems`` carry pointer, message, found and expected."""
    body: dict[str, Any] = {"type": f"about:blank#{code}", "title": title, "status": status, "code": code, **extra}
    body["problems"] = [p.model_dump() for p in problems or []]
    return HttpResponse(orjson.dumps(body), status=status, content_type="application/problem+json")


def of_core(error: NodulantError) -> HttpResponse:
    """A typed error of the core as 422."""
    if isinstance(error, JobFileRefused | StationsRefused):
        return problem(422, error.code, error.message, error.problems)
    if isinstance(error, InvalidInputs):
        return problem(422, error.code, error.message, [_problem(e) for e in error.problems])
    extra = {"position": error.position} if isinstance(error, UnreadableQuantity) else {}
    return problem(422, error.code, error.message, [_problem(error)], **extra)


def _problem(error: NodulantError) -> Problem:
    return Problem(pointer=error.field, message=error.message, found=error.found, expected=error.acceptable)


def answer(request: HttpRequest, error: Exception | type[Exception]) -> HttpResponse:
    """The answer to any error that a route lets out."""
    match error:
        case NodulantError():
            return of_core(error)
        case ValidationError():
            return _invalid_body(error)
        case ModelError():
            return problem(422, "input", "some values cannot be used", problems_of(error))
        case Forbidden():
            return problem(403, "forbidden", str(error))
        case AuthenticationError():
            return problem(401, "sign-in", "sign in first")
        case Http404():
            return problem(404, "not-found", "there is no such thing")
        case HttpError():
            return problem(error.status_code, "refused", error.message)
        case RequestDataTooBig():
            return problem(413, "too-large", "that is over the limit of 10 MB")
        case Stale():
            return _stale(error)
        case OperationalError():
            return _storage(error)
        case OverflowError():
            return problem(422, "input", "a number is larger than any that is kept")
        case RawPostDataException():
            return problem(415, "content", "a form came here: send the file itself, as it is")
    log.error("unexpected error at %s", request.path, exc_info=error if isinstance(error, Exception) else None)
    number = request_id()
    title = f"something went wrong here (number {number}); nothing of yours was changed"
    return problem(500, "unexpected", title, request=number)


STORAGE = (
    ("locked", "another save is under way here: your work is kept in this browser, and tried again"),
    ("full", "the server's disk is full: make room there; your work is kept in this browser"),
    ("readonly", "the server's data folder is read-only: your work is kept in this browser"),
)


def _storage(error: OperationalError) -> HttpResponse:
    """The database cannot write: why, and what to do."""
    log.error("the database refused: %s", error)
    told = next((words for part, words in STORAGE if part in str(error).replace("-", "")), None)
    return problem(503, "storage", told or "the server cannot store now; your work is kept in this browser")


HANDLED: tuple[type[Exception], ...] = (
    NodulantError,
    ValidationError,
    ModelError,
    Forbidden,
    AuthenticationError,
    Http404,
    HttpError,
    RequestDataTooBig,
    Stale,
    OverflowError,
    RawPostDataException,
    OperationalError,
    Exception,
)


def install(api: NinjaAPI) -> None:
    """Let ``answer`` handle every error on ``api``."""
    for kind in HANDLED:
        api.add_exception_handler(kind, answer)


def _stale(error: Stale) -> HttpResponse:
    kept = {"id": error.kept.pk, "name": error.kept.name} if error.kept else None
    title = (
        "someone saved before you; your work was kept as an option of its own" if kept else "someone saved before you"
    )
    return problem(409, "stale", title, head=error.head, kept=kept)


def _invalid_body(error: ValidationError) -> HttpResponse:
    rows = [problem_of(_without_body(row)) for row in error.errors]
    return problem(422, "input", "some values cannot be used", rows)


def _without_body(row: dict[str, Any]) -> ErrorDetails:
    return cast(ErrorDetails, {**row, "loc": tuple(row["loc"][1:])})


def broken(request: HttpRequest) -> HttpResponse:
    """The answer to what broke outside the API."""
    return answer(request, RuntimeError)
