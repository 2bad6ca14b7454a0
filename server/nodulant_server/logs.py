"""A line in the log for everything that went wrong, under a number that the person sees too."""

import contextvars
import logging
import secrets
from collections.abc import Callable
from pathlib import Path
from typing import Any

from django.http import HttpRequest
from django.http.response import HttpResponseBase

HEADER = "X-Request-Id"
_current = contextvars.ContextVar("request", default="-")
_address = contextvars.ContextVar("address", default="")
GetResponse = Callable[[HttpRequest], HttpResponseBase]


def request_id() -> str:
    """The number of the request that is being answered; '-' outside one."""
    return _current.get()


def client_address() -> str:
    """Where the request that is being answered came from; empty outside one."""
    return _address.get()


def numbered(get_response: GetResponse) -> GetResponse:
    """Give every request a number of its own; it goes out with the answer and stands in every log line."""

    def middleware(request: HttpRequest) -> HttpResponseBase:
        token = _current.set(secrets.token_hex(5))
        came = _address.set(str(request.META.get("REMOTE_ADDR", ""))[:45])
        try:
            response = get_response(request)
            response.headers[HEADER] = request_id()
            return response
        finally:
            _current.reset(token)
            _address.reset(came)

    return middleware


class OfRequest(logging.Filter):
    """Put the request's number on a record."""

    def filter(self, record: logging.LogRecord) -> bool:
        """Never drops one."""
        record.request = request_id()
        return True


def logging_to(folder: Path | None) -> dict[str, Any]:
    """Django's LOGGING: warnings and worse to stderr, and to a rotating file where there is a folder for it."""
    handlers: dict[str, Any] = {
        "stderr": {"class": "logging.StreamHandler", "formatter": "line", "filters": ["request"]}
    }
    if folder is not None:
        handlers["file"] = {
            "class": "concurrent_log_handler.ConcurrentRotatingFileHandler",
            "filename": str(folder / "nodulant.log"),
            "maxBytes": 1_000_000,
            "backupCount": 5,
            "formatter": "line",
            "filters": ["request"],
        }
    return {
        "version": 1,
        "disable_existing_loggers": False,
        "filters": {"request": {"()": f"{__name__}.OfRequest"}},
        "formatters": {"line": {"format": "{asctime} {levelname} {request} {name}: {message}", "style": "{"}},
        "handlers": handlers,
        "root": {"handlers": list(handlers), "level": "WARNING"},
    }
