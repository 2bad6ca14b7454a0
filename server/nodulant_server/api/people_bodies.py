"""Bodies and answers about people, links, what happened and the server itself."""

from datetime import datetime
from typing import Annotated

from pydantic import Field

from nodulant.base.model import Frozen
from nodulant_server.roles import Role

Secret = Annotated[str, Field(max_length=200)]


class ChangePassword(Frozen):
    """The old password and the new one."""

    old: Secret
    new: Secret


class ResetPassword(Frozen):
    """The new password."""

    password: Secret


class Join(Frozen):
    """Name and password that somebody chooses on joining."""

    name: Annotated[str, Field(max_length=150)]
    password: Secret


class SignedInAt(Frozen):
    """A browser in which one is signed in."""

    id: int
    at: datetime
    address: str
    agent: str
    here: bool


class Invite(Frozen):
    """What the invited person may do."""

    role: Role


class Invited(Frozen):
    """What an invitation is for."""

    shop: str
    role: Role


class MintedLink(Frozen):
    """A link's path, told once, and until when it holds."""

    path: str
    expires: datetime


class NewReaderLink(Frozen):
    """Whom a reader's link is for, and for how many days."""

    label: Annotated[str, Field(max_length=80)] = ""
    days: Annotated[float, Field(gt=0, le=180)] = 14


class OpenLink(Frozen):
    """A reader's link that still holds."""

    id: int
    label: str
    by: str
    expires: datetime


class WaitingLink(OpenLink):
    """An invitation that nobody used yet, or a reader's link and its job."""

    job: str


class MemberRow(Frozen):
    """Somebody in the shop."""

    id: int
    name: str
    role: Role
    disabled: bool
    last_seen: datetime | None


class MemberChange(Frozen):
    """What is changed of a member; what is left out stays."""

    role: Role | None = None
    disabled: bool | None = None


class ShopPeople(Frozen):
    """The shop, its people and, for its owners, the links that are out."""

    shop: str
    members: list[MemberRow]
    invitations: list[WaitingLink]
    links: list[WaitingLink]


class Health(Frozen):
    """Whether the server works, and what does not."""

    ok: bool
    wrong: list[str]


class WorkerState(Frozen):
    """A queue of heavy work, and whether somebody is at it."""

    queue: str
    there: bool


class CopyMade(Frozen):
    """A copy of everything."""

    name: str
    mb: float


class ServerState(Frozen):
    """How the server is, for the shop's owner."""

    database: str
    revisions: int
    missing: str
    """What to say where stored revisions are gone; empty where none are."""
    backup_at: datetime | None
    backup_trouble: str
    copies: list[CopyMade]
    free_mb: int
    workers: list[WorkerState]
    folder: str


class AuditRow(Frozen):
    """One thing done."""

    id: int
    at: datetime
    by: str
    what: str
    subject: str
    address: str
