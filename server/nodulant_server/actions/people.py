"""Who belongs to a shop: invited, joined, given a role, shut out; passwords and sessions."""

from django.contrib.auth import login
from django.contrib.auth.models import User
from django.contrib.auth.password_validation import validate_password
from django.contrib.sessions.models import Session
from django.core.exceptions import ValidationError
from django.db import transaction
from django.http import HttpRequest
from django.utils import timezone

from nodulant.base.errors import InputError
from nodulant_server.audit import note, note_of
from nodulant_server.logs import client_address
from nodulant_server.models import Invitation, Job, Member, NewPassword, ReaderLink, SignedIn, Workshop
from nodulant_server.roles import Acting, Role, require

INVITED_DAYS, PASSWORD_DAYS, MOST_READER_DAYS = 7, 2, 180
BACKEND = "django.contrib.auth.backends.ModelBackend"


def checked_password(password: str, user: User | None = None) -> str:
    """The password; raises InputError with what Django's validators say of it."""
    try:
        validate_password(password, user)
    except ValidationError as error:
        raise InputError(" ".join(error.messages), field="/password", found="", acceptable="another one") from error
    return password


def set_password(user: User, password: str) -> None:
    """Set a person's password; raises InputError."""
    user.set_password(checked_password(password, user))
    user.save(update_fields=["password"])


def add_member(workshop: Workshop, name: str, password: str | None, role: Role) -> User:
    """A new person in a shop, with no password where none is given; raises InputError for a name that is taken."""
    clean = name.strip()
    if not clean or len(clean) > 150 or User.objects.filter(username__iexact=clean).exists():
        found = "somebody has that name" if clean else "nothing"
        raise InputError("choose another name", field="/name", found=found, acceptable="a name nobody has here")
    user = User(username=clean)
    if password is None:
        user.set_unusable_password()
    else:
        user.set_password(checked_password(password, user))
    user.save()
    Member.objects.create(workshop=workshop, user=user, role=role)
    return user


def invite(acting: Acting, role: Role, days: float = INVITED_DAYS) -> tuple[Invitation, str]:
    """A link by which one person joins; its token is told once. Raises Forbidden."""
    require(acting, "people")
    row, token = Invitation.made(days, workshop=acting.workshop, role=role, made_by=acting.name)
    note(acting, "invited", role)
    return row, token


def first_invitation(workshop: Workshop) -> str:
    """The token by which a new shop's first owner joins."""
    return Invitation.made(INVITED_DAYS, workshop=workshop, role="owner", made_by="the server")[1]


@transaction.atomic
def join(token: str, name: str, password: str) -> User:
    """Join a shop by an invitation; raises InputError where it does not hold any more."""
    invitation = Invitation.live(token)
    if invitation is None:
        raise _over("/token")
    used = Invitation.objects.filter(pk=invitation.pk, used_at=None).update(used_at=timezone.now())
    if not used:
        raise _over("/token")
    user = add_member(invitation.workshop, name, password, invitation.role)  # type: ignore[arg-type]
    note_of(invitation.workshop, user.username, "joined", invitation.role)
    return user


def _over(field: str) -> InputError:
    return InputError(
        "this link does not hold any more",
        field=field,
        found="used, taken back or too old",
        acceptable="a new one from the shop's owner",
    )


def change_member(acting: Acting, member: Member, role: Role | None, disabled: bool | None) -> Member:
    """Another role, shut out or let in again; raises Forbidden, and InputError for the last owner."""
    require(acting, "people")
    owners = acting.workshop.members.filter(role="owner", disabled_at=None)
    if (disabled or role not in {None, "owner"}) and not owners.exclude(pk=member.pk).exists():
        raise InputError(
            "a shop keeps at least one owner", field="/role", found="the last one", acceptable="make another one first"
        )
    if role is not None:
        member.role = role
        note(acting, "role", f"{member.user.username}: {role}")
    if disabled is not None:
        member.disabled_at = timezone.now() if disabled else None
        note(acting, "shut out" if disabled else "let in again", member.user.username)
    member.save(update_fields=["role", "disabled_at"])
    if disabled and not member.user.memberships.filter(disabled_at=None).exists():
        end_sessions(member.user)
    return member


def new_password_link(acting: Acting, member: Member) -> str:
    """The token of a link by which a member sets a new password; raises Forbidden."""
    require(acting, "people")
    if member.user.memberships.exclude(workshop=acting.workshop).exists():
        raise InputError(
            "they belong to another shop too",
            field="/member",
            found=member.user.username,
            acceptable="they change it themselves, or whoever runs the server does",
        )
    _, token = NewPassword.made(PASSWORD_DAYS, user=member.user, made_by=acting.name)
    note(acting, "password link", member.user.username)
    return token


@transaction.atomic
def reset_password(token: str, password: str) -> User:
    """Set a new password by a link, and end the person's sessions; raises InputError."""
    link = NewPassword.live(token)
    if link is None:
        raise _over("/token")
    set_password(link.user, password)
    NewPassword.objects.filter(user=link.user).update(revoked_at=timezone.now())
    end_sessions(link.user)
    for member in link.user.memberships.all():
        note_of(member.workshop, link.user.username, "password reset by link")
    return link.user


def reader_link(acting: Acting, job: Job, label: str, days: float) -> tuple[ReaderLink, str]:
    """A link by which anybody looks at one job until it expires; raises Forbidden and InputError."""
    require(acting, "people")
    if not 0 < days <= MOST_READER_DAYS:
        raise InputError(
            "say for how many days", field="/days", found=f"{days:g}", acceptable=f"1 to {MOST_READER_DAYS}"
        )
    row, token = ReaderLink.made(days, job=job, label=label.strip()[:80], made_by=acting.name)
    note(acting, "reader's link", f"{job.name}, {row.label or 'no name'}")
    return row, token


def sign_in(request: HttpRequest, user: User) -> None:
    """Sign a person in and keep where."""
    login(request, user, backend=BACKEND)
    keep_session(request, user)
    for member in user.memberships.filter(disabled_at=None):
        note_of(member.workshop, user.username, "signed in")


def refused(name: str) -> None:
    """Note a sign-in that failed where the shops of whoever has that name read it."""
    shops: list[Workshop | None] = [
        m.workshop for m in Member.objects.filter(user__username=name).select_related("workshop")
    ]
    for workshop in shops or [None]:
        note_of(workshop, name, "sign-in refused")


def keep_session(request: HttpRequest, user: User) -> None:
    """Remember in which browser a session is."""
    if request.session.session_key is None:
        request.session.save()
    agent = request.headers.get("User-Agent", "")[:200]
    SignedIn.objects.update_or_create(
        session_key=request.session.session_key,
        defaults={"user": user, "address": client_address(), "agent": agent},
    )


def end_sessions(user: User, only: int | None = None, but: str | None = None) -> None:
    """Sign a person out everywhere, or in one place, or everywhere but here."""
    rows = SignedIn.objects.filter(user=user)
    rows = rows.filter(pk=only) if only is not None else rows.exclude(session_key=but)
    keys = list(rows.values_list("session_key", flat=True))
    Session.objects.filter(session_key__in=keys).delete()
    rows.delete()
