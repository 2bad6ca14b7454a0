"""The demo signs ``ada`` in by itself, on the loopback address only."""

import ipaddress
from collections.abc import Callable

from django.conf import settings
from django.contrib.auth.models import User
from django.http import HttpRequest, HttpResponse

from nodulant_server.actions import people
from nodulant_server.roles import Role

PEOPLE: tuple[tuple[str, Role], ...] = (("ada", "owner"), ("bram", "helper"), ("inspector", "reader"))
LEFT = "demo_signed_out"
LOOPBACK = frozenset({"127.0.0.1", "localhost", "[::1]", "testserver"})
FORWARDED = ("HTTP_X_FORWARDED_FOR", "HTTP_X_FORWARDED_HOST", "HTTP_X_FORWARDED_PROTO", "HTTP_FORWARDED", "HTTP_VIA")
"""Whoever came through a proxy is not at this machine."""


def is_demo(request: HttpRequest) -> bool:
    """Whether this request may use the demo's people without a password."""
    if not settings.DEMO or settings.PROXY or any(name in request.META for name in FORWARDED):
        return False
    try:
        address = ipaddress.ip_address(str(request.META.get("REMOTE_ADDR", "")))
    except ValueError:
        return False
    return address.is_loopback and request.get_host().rsplit(":", 1)[0] in LOOPBACK


def sign_in(request: HttpRequest, name: str) -> bool:
    """Sign a demo person in; False when there is no such person."""
    user = User.objects.filter(username=name).first()
    if user is None or name not in dict(PEOPLE):
        return False
    people.sign_in(request, user)
    return True


def sign_in_ada(get_response: Callable[[HttpRequest], HttpResponse]) -> Callable[[HttpRequest], HttpResponse]:
    """Sign the owner in on the first request of a demo session."""

    def middleware(request: HttpRequest) -> HttpResponse:
        asks = not request.path.startswith("/api/") or request.path == "/api/session"
        if asks and is_demo(request) and not request.user.is_authenticated and not request.session.get(LEFT):
            sign_in(request, "ada")
        return get_response(request)

    return middleware
