"""Serve the built page with a CSRF cookie; its files are served by WhiteNoise."""

from django.conf import settings
from django.http import HttpRequest, HttpResponse
from django.views.decorators.csrf import ensure_csrf_cookie


@ensure_csrf_cookie
def page(request: HttpRequest) -> HttpResponse:
    """The one page of the application."""
    index = settings.WEB_DIST / "index.html"
    if not index.exists():
        return HttpResponse("The front end is not built yet: run 'make build'.", status=503, content_type="text/plain")
    body = b"" if request.method == "HEAD" else index.read_bytes()
    return HttpResponse(body, content_type="text/html; charset=utf-8", headers={"Cache-Control": "no-cache"})
