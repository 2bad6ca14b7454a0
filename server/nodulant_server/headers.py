"""Headers that keep the page to this machine: no request leaves it."""

from collections.abc import Callable

from django.http import HttpRequest, HttpResponse

POLICY = "default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data: blob:; frame-ancestors 'none'; base-uri 'self'; form-action 'self'"
GetResponse = Callable[[HttpRequest], HttpResponse]


def content_policy(get_response: GetResponse) -> GetResponse:
    """Add a Content-Security-Policy to every answer."""

    def middleware(request: HttpRequest) -> HttpResponse:
        response = get_response(request)
        response.headers.setdefault("Content-Security-Policy", POLICY)
        return response

    return middleware
