"""Sign-in, sign-out and the demo's people."""

import hashlib

from django.conf import settings
from django.contrib.auth import authenticate, login, logout
from django.contrib.auth.models import User
from django.core.cache import cache
from django.http import HttpRequest, HttpResponse
from ninja import Router
from ninja.utils import check_csrf

from nodulant_server.api.bodies import Person, Session, SignIn, Switch
from nodulant_server.api.problems import problem
from nodulant_server.demo import LEFT, PEOPLE, is_demo, sign_in
from nodulant_server.roles import role_of

router = Router()
TRIES, WINDOW_S = 8, 300


def describe(request: HttpRequest) -> Session:
    """Who is signed in, as the screen shows it."""
    demo = is_demo(request)
    people = (
        [
            Person(name=name, role=role_of(User.objects.get(username=name)))
            for name, _ in PEOPLE
            if User.objects.filter(username=name).exists()
        ]
        if demo
        else []
    )
    if not request.user.is_authenticated:
        return Session(user=None, role=None, demo=demo, people=people)
    return Session(user=request.user.get_username(), role=role_of(request.user), demo=demo, people=people)


@router.get("", response=Session, auth=None)
def who(request: HttpRequest) -> Session:
    """Who am I."""
    return describe(request)


@router.post("/sign-in", response=Session, auth=None)
def enter(request: HttpRequest, body: SignIn) -> Session | HttpResponse:
    """Sign in with name and password; slowed after eight wrong tries."""
    if check_csrf(request) is not None:
        return problem(403, "forged", "reload the page, then sign in")
    tried = hashlib.sha256(f"{request.META.get('REMOTE_ADDR')} {body.name}".encode()).hexdigest()
    key = f"tries:{tried}"
    if int(cache.get(key, 0)) >= TRIES:
        return problem(429, "too-many-tries", "too many tries: wait five minutes")
    user = authenticate(request, username=body.name, password=body.password)
    if user is None:
        cache.set(key, int(cache.get(key, 0)) + 1, WINDOW_S)
        return problem(401, "sign-in", "name and password do not fit")
    login(request, user)
    return describe(request)


@router.post("/sign-out", response=Session)
def leave(request: HttpRequest) -> Session:
    """Sign out; the demo does not sign in again by itself in this session."""
    logout(request)
    if settings.DEMO:
        request.session[LEFT] = True
    return describe(request)


@router.post("/switch", response=Session, auth=None)
def switch(request: HttpRequest, body: Switch) -> Session | HttpResponse:
    """Become another person of the demo; on loopback only."""
    if not is_demo(request) or not sign_in(request, body.name):
        return problem(403, "forbidden", "only the demo on this machine can switch people")
    return describe(request)
