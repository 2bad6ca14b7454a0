"""The shop's people: members, invitations, links for readers, and what was done by whom."""

from collections.abc import Callable
from datetime import timedelta

from django.contrib.auth.models import User
from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from django.utils import timezone
from ninja import Router
from ninja.utils import check_csrf

from nodulant_server.actions import people
from nodulant_server.api.access import acting, job_of
from nodulant_server.api.bodies import Session
from nodulant_server.api.people_bodies import (
    AuditRow,
    Invite,
    Invited,
    Join,
    MemberChange,
    MemberRow,
    MintedLink,
    NewReaderLink,
    OpenLink,
    ResetPassword,
    ShopPeople,
    WaitingLink,
)
from nodulant_server.api.problems import problem
from nodulant_server.api.session import describe
from nodulant_server.audit import note
from nodulant_server.models import AuditEntry, Invitation, Member, ReaderLink
from nodulant_server.roles import require

router = Router()
PAGE = 100


def _row(member: Member) -> MemberRow:
    seen = member.user.last_login
    return MemberRow.model_validate(
        {
            "id": member.pk,
            "name": member.user.username,
            "role": member.role,
            "disabled": member.disabled_at is not None,
            "last_seen": seen,
        }
    )


@router.get("/people", response=ShopPeople)
def shop_people(request: HttpRequest) -> ShopPeople:
    """Everybody in the shop; for its owners also what links are out."""
    own = acting(request)
    _ = own.member  # a reader's link tells nobody's name
    members = own.workshop.members.select_related("user").order_by("pk")
    told = ShopPeople(shop=own.workshop.name, members=[_row(m) for m in members], invitations=[], links=[])
    if own.role != "owner":
        return told
    now = timezone.now()
    waiting = own.workshop.invitations.filter(revoked_at=None, used_at=None, expires_at__gt=now).order_by("-pk")
    links = ReaderLink.objects.filter(job__workshop=own.workshop, revoked_at=None, expires_at__gt=now).order_by("-pk")
    return told.model_copy(
        update={
            "invitations": [
                WaitingLink(id=i.pk, label=i.role, job="", by=i.made_by, expires=i.expires_at) for i in waiting
            ],
            "links": [
                WaitingLink(id=r.pk, label=r.label, job=r.job.name, by=r.made_by, expires=r.expires_at) for r in links
            ],
        }
    )


@router.post("/people/invite", response=MintedLink)
def invite(request: HttpRequest, body: Invite) -> MintedLink:
    """A link by which one person joins the shop; it is told this once."""
    row, token = people.invite(acting(request), body.role)
    return MintedLink(path=f"/join/{token}", expires=row.expires_at)


@router.delete("/people/invitations/{invitation_id}", response={204: None})
def take_back_invitation(request: HttpRequest, invitation_id: int) -> tuple[int, None]:
    """Take an invitation back."""
    own = acting(request)
    require(own, "people")
    row = get_object_or_404(Invitation, pk=invitation_id, workshop=own.workshop)
    row.revoked_at = timezone.now()
    row.save(update_fields=["revoked_at"])
    note(own, "invitation taken back", row.role)
    return 204, None


@router.patch("/people/{member_id}", response=MemberRow)
def change(request: HttpRequest, member_id: int, body: MemberChange) -> MemberRow:
    """Give a member another role, shut them out or let them in again."""
    own = acting(request)
    member = get_object_or_404(Member, pk=member_id, workshop=own.workshop)
    return _row(people.change_member(own, member, body.role, body.disabled))


@router.post("/people/{member_id}/password", response=MintedLink)
def password_link(request: HttpRequest, member_id: int) -> MintedLink:
    """A link by which a member sets a new password; it is told this once."""
    own = acting(request)
    member = get_object_or_404(Member, pk=member_id, workshop=own.workshop)
    token = people.new_password_link(own, member)
    return MintedLink(path=f"/password/{token}", expires=timezone.now() + timedelta(days=people.PASSWORD_DAYS))


@router.get("/join/{token}", response=Invited, auth=None)
def invited(request: HttpRequest, token: str) -> Invited | HttpResponse:
    """What an invitation is for."""
    row = Invitation.live(token)
    if row is None:
        return problem(404, "not-found", "this invitation does not hold any more: ask the shop's owner for another")
    return Invited.model_validate({"shop": row.workshop.name, "role": row.role})


@router.post("/join/{token}", response=Session, auth=None)
def join(request: HttpRequest, token: str, body: Join) -> Session | HttpResponse:
    """Join a shop with a name and password of one's own."""
    return _signed_in(request, lambda: people.join(token, body.name, body.password))


@router.post("/password/{token}", response=Session, auth=None)
def reset(request: HttpRequest, token: str, body: ResetPassword) -> Session | HttpResponse:
    """Set a new password by a link."""
    return _signed_in(request, lambda: people.reset_password(token, body.password))


def _signed_in(request: HttpRequest, made: Callable[[], User]) -> Session | HttpResponse:
    if check_csrf(request) is not None:
        return problem(403, "forged", "reload the page, then try again")
    people.sign_in(request, made())
    return describe(request)


@router.post("/jobs/{job_id}/links", response=MintedLink)
def new_link(request: HttpRequest, job_id: int, body: NewReaderLink) -> MintedLink:
    """A link by which anybody looks at this job; it is told this once."""
    row, token = people.reader_link(acting(request), job_of(request, job_id), body.label, body.days)
    return MintedLink(path=f"/look/{token}", expires=row.expires_at)


@router.get("/jobs/{job_id}/links", response=list[OpenLink])
def links_of(request: HttpRequest, job_id: int) -> list[OpenLink]:
    """The links to this job that still hold."""
    own, job = acting(request), job_of(request, job_id)
    require(own, "people")
    rows = job.reader_links.filter(revoked_at=None, expires_at__gt=timezone.now()).order_by("-pk")
    return [OpenLink(id=r.pk, label=r.label, by=r.made_by, expires=r.expires_at) for r in rows]


@router.delete("/links/{link_id}", response={204: None})
def take_back_link(request: HttpRequest, link_id: int) -> tuple[int, None]:
    """Take a reader's link back: whoever looks by it stops seeing the job at once."""
    own = acting(request)
    require(own, "people")
    row = get_object_or_404(ReaderLink, pk=link_id, job__workshop=own.workshop)
    row.revoked_at = timezone.now()
    row.save(update_fields=["revoked_at"])
    note(own, "reader's link taken back", row.job.name)
    return 204, None


@router.get("/audit", response=list[AuditRow])
def what_happened(request: HttpRequest, before: int | None = None) -> list[AuditRow]:
    """What was done in the shop, newest first, a page at a time."""
    own = acting(request)
    require(own, "people")
    rows = AuditEntry.objects.filter(workshop=own.workshop)
    if before is not None:
        rows = rows.filter(pk__lt=before)
    return [AuditRow(id=r.pk, at=r.at, by=r.by, what=r.what, subject=r.subject, address=r.address) for r in rows[:PAGE]]
