"""Serve the built page with a CSRF cookie, and open a reader's link; its files are served by WhiteNoise."""

from django.conf import settings
from django.http import HttpRequest, HttpResponse, HttpResponseRedirect
from django.views.decorators.csrf import ensure_csrf_cookie

from nodulant_server.api.access import LINK
from nodulant_server.audit import note_of
from nodulant_server.models import ReaderLink


@ensure_csrf_cookie
def page(request: HttpRequest) -> HttpResponse:
    """The one page of the application."""
    index = settings.WEB_DIST / "index.html"
    if not index.exists():
        return HttpResponse("The front end is not built yet: run 'make build'.", status=503, content_type="text/plain")
    body = b"" if request.method == "HEAD" else index.read_bytes()
    return HttpResponse(body, content_type="text/html; charset=utf-8", headers={"Cache-Control": "no-cache"})


def look(request: HttpRequest, token: str) -> HttpResponse:
    """Open the job that a reader's link is for; one that does not hold any more says so."""
    link = ReaderLink.live(token)
    if link is None or link.job.deleted_at is not None:
        return HttpResponse(
            "This link does not hold any more: ask the shop for another.", status=404, content_type="text/plain"
        )
    request.session[LINK] = link.pk
    note_of(link.job.workshop, f"{link.label or 'reader'} (link)", "looked by link", link.job.name)
    return HttpResponseRedirect(f"/jobs/{link.job_id}")
