"""Headers that keep the page to this machine: no request leaves it."""

import re
from collections.abc import Callable, Iterator, MutableMapping
from typing import get_args

from django.http import HttpRequest, HttpResponse, StreamingHttpResponse
from django.http.response import HttpResponseBase

from nodulant.units.inline import MARK, told_json
from nodulant.units.show import Style

POLICY = "default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data: blob:; frame-ancestors 'none'; base-uri 'self'; form-action 'self'"
GetResponse = Callable[[HttpRequest], HttpResponseBase]


def content_policy(get_response: GetResponse) -> GetResponse:
    """Add a Content-Security-Policy to every answer."""

    def middleware(request: HttpRequest) -> HttpResponseBase:
        response = get_response(request)
        response.headers.setdefault("Content-Security-Policy", POLICY)
        return response

    return middleware


def on_files(headers: MutableMapping[str, str], path: str, url: str) -> None:
    """The same on the built files, which are answered before the rest is asked."""
    headers["Content-Security-Policy"] = POLICY
    headers["X-Frame-Options"] = "DENY"
    headers["Referrer-Policy"] = "same-origin"


TELLS = ("application/json", "application/problem+json", "application/x-ndjson")
STYLES: tuple[Style, ...] = get_args(Style)
MARKED = re.compile(MARK.pattern.encode())


def in_its_tape(get_response: GetResponse) -> GetResponse:
    """Tell the quantities in every text of an answer as the asker's tape reads them (header ``X-Tape``), in mm unasked."""

    def middleware(request: HttpRequest) -> HttpResponseBase:
        response = get_response(request)
        asked = request.headers.get("X-Tape", "mm")
        style: Style = next((s for s in STYLES if s == asked), "mm")
        whole = style != "mm"
        if not response.headers.get("Content-Type", "").startswith(TELLS):
            return response
        if isinstance(response, StreamingHttpResponse):
            lines = response.streaming_content
            if isinstance(lines, Iterator):
                response.streaming_content = (told_json(line.decode(), style, whole=whole).encode() for line in lines)
        elif isinstance(response, HttpResponse) and MARKED.search(response.content):
            response.content = told_json(response.content.decode(), style, whole=whole).encode()
        return response

    return middleware
