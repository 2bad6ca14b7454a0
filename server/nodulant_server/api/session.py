"""Signing in and out, the demo's people, one's own password, and the browsers one is signed in with."""

from django.conf import settings
from django.contrib.auth import authenticate, logout, update_session_auth_hash
from django.contrib.auth.models import User
from django.core.signing import BadSignature, Signer
from django.http import HttpRequest, HttpResponse
from ninja import Router
from ninja.utils import check_csrf

from nodulant_server.actions import people
from nodulant_server.api.access import LINK, SHOP, acting, who
from nodulant_server.api.bodies import Person, Session, ShopName, SignIn, Switch
from nodulant_server.api.people_bodies import ChangePassword, SignedInAt
from nodulant_server.api.problems import problem
from nodulant_server.audit import note
from nodulant_server.demo import LEFT, PEOPLE, is_demo, sign_in
from nodulant_server.models import SignedIn
from nodulant_server.roles import acting_as

router = Router()
DEVICE, DEVICE_DAYS = "known_device", 365


def describe(request: HttpRequest) -> Session:
    """Who is signed in, as the screen shows it."""
    demo, own = is_demo(request), who(request)
    known = {u.username: acting_as(u) for u in User.objects.filter(username__in=[n for n, _ in PEOPLE])} if demo else {}
    there = [Person(name=name, role=found.role) for name, _ in PEOPLE if (found := known.get(name))]
    if own is None:
        return Session(user=None, role=None, demo=demo, people=there)
    shops = [] if own.user is None else [m.workshop for m in own.user.memberships.filter(disabled_at=None)]
    return Session(
        user=own.name,
        role=own.role,
        demo=demo,
        people=there,
        shop=own.workshop.name,
        shops=[ShopName(id=shop.pk, name=shop.name) for shop in shops],
        link=own.job_id,
    )


@router.get("", response=Session, auth=None)
def describe_session(request: HttpRequest) -> Session:
    """Who am I."""
    return describe(request)


@router.post("/sign-in", response=Session, auth=None)
def enter(request: HttpRequest, response: HttpResponse, body: SignIn) -> Session | HttpResponse:
    """Sign in with name and password; after eight wrong tries a browser that was never signed in here waits."""
    if check_csrf(request) is not None:
        return problem(403, "forged", "reload the page, then sign in")
    user = authenticate(request, username=body.name, password=body.password)
    if getattr(request, "axes_locked_out", False):
        return problem(429, "too-many-tries", "too many tries: wait five minutes")
    if not isinstance(user, User):
        people.refused(body.name)
        return problem(401, "sign-in", "name and password do not fit")
    if acting_as(user) is None:
        return problem(401, "sign-in", "you are in no shop here: ask its owner for an invitation")
    people.sign_in(request, user)
    _remember(response, user.username)
    return describe(request)


def tried_as(request: HttpRequest, credentials: dict[str, object] | None = None) -> str:
    """Under which name wrong tries are counted: those of a browser that the person was signed in with by themselves.

    So a stranger's tries lock out strangers, and not the owner at their own machine.
    """
    name = str((credentials or {}).get("username", ""))
    try:
        known = Signer(salt=DEVICE).unsign(request.COOKIES.get(DEVICE, "")) == name
    except BadSignature:
        known = False
    return f"{name} (known browser)" if known else name


def _remember(response: HttpResponse, name: str) -> None:
    """Know this browser from now on as one of the person's."""
    response.set_cookie(
        DEVICE,
        Signer(salt=DEVICE).sign(name),
        max_age=DEVICE_DAYS * 24 * 3600,
        httponly=True,
        samesite="Lax",
        secure=bool(settings.SESSION_COOKIE_SECURE),
    )


@router.post("/sign-out", response=Session)
def leave(request: HttpRequest) -> Session:
    """Sign out, or put a reader's link away; the demo does not sign in again by itself in this session."""
    if request.session.pop(LINK, None) is None:
        note(acting(request), "signed out")
        SignedIn.objects.filter(session_key=request.session.session_key).delete()
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


@router.post("/shop/{shop_id}", response=Session)
def change_shop(request: HttpRequest, shop_id: int) -> Session | HttpResponse:
    """Go on in another shop that one belongs to."""
    found = acting_as(acting(request).member, shop_id)
    if found is None or found.workshop.pk != shop_id:
        return problem(404, "not-found", "you are in no such shop")
    request.session[SHOP] = shop_id
    return describe(request)


@router.post("/password", response=Session)
def change_password(request: HttpRequest, body: ChangePassword) -> Session | HttpResponse:
    """Change one's own password; every other browser is signed out."""
    own = acting(request)
    user = own.member
    if not user.check_password(body.old):
        return problem(401, "sign-in", "the old password does not fit")
    people.set_password(user, body.new)
    update_session_auth_hash(request, user)
    people.end_sessions(user, but=request.session.session_key)
    people.keep_session(request, user)
    note(own, "password changed")
    return describe(request)


@router.get("/places", response=list[SignedInAt])
def places(request: HttpRequest) -> list[SignedInAt]:
    """The browsers in which one is signed in."""
    rows = SignedIn.objects.filter(user=acting(request).member).order_by("-pk")
    here = request.session.session_key
    return [SignedInAt(id=r.pk, at=r.at, address=r.address, agent=r.agent, here=r.session_key == here) for r in rows]


@router.delete("/places/{place_id}", response={204: None})
def end_place(request: HttpRequest, place_id: int) -> tuple[int, None]:
    """Sign oneself out of another browser."""
    own = acting(request)
    people.end_sessions(own.member, only=place_id)
    note(own, "session ended")
    return 204, None
