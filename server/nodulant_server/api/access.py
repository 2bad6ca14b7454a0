"""Who asks, and what of the shop they may see: anything of another shop is as if it were not there."""

from typing import Any

from django.contrib.auth.models import User
from django.http import HttpRequest
from django.shortcuts import get_object_or_404
from ninja.security.session import SessionAuth

from nodulant_server.models import Job, Option, ReaderLink
from nodulant_server.roles import Acting, acting_as, acting_by

SHOP, LINK = "shop", "link"
"""Where the session keeps the shop that was chosen, and the reader's link that was opened."""


def who(request: HttpRequest) -> Acting | None:
    """Who asks: the holder of a reader's link that was opened in this browser, or the signed-in member."""
    if (pk := request.session.get(LINK)) is not None:
        link = ReaderLink.objects.select_related("job__workshop").filter(pk=pk, job__deleted_at=None).first()
        if link is not None and link.holds():
            return acting_by(link)
        del request.session[LINK]
    return acting_as(request.user, request.session.get(SHOP)) if isinstance(request.user, User) else None


class Signed(SessionAuth):
    """Let in whoever acts in a shop; the session's CSRF token is asked for as Django does."""

    def authenticate(self, request: HttpRequest, key: str | None) -> Acting | None:
        """Who asks; None where nobody does."""
        return who(request)


def acting(request: HttpRequest) -> Acting:
    """Who asks, on a route that nobody else reaches."""
    found = getattr(request, "auth", None)
    if not isinstance(found, Acting):
        raise PermissionError("sign in first")
    return found


def job_of(request: HttpRequest, job_id: int, **more: Any) -> Job:  # noqa: ANN401
    """A job of the asker's shop; 404 for any other."""
    own = acting(request)
    only = {} if own.job_id is None else {"pk": own.job_id}
    return get_object_or_404(Job.objects.filter(workshop=own.workshop, **only), pk=job_id, **more)


def option_of(request: HttpRequest, option_id: int, **more: Any) -> Option:  # noqa: ANN401
    """An option of a job of the asker's shop; 404 for any other."""
    own = acting(request)
    only = {} if own.job_id is None else {"job": own.job_id}
    options = Option.objects.filter(job__workshop=own.workshop, **only)
    return get_object_or_404(options, pk=option_id, **more)
