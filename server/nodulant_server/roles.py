"""Who may do what in which shop: closed by default.

owner: everything; helper: readings, log and steps, no design change; reader: looks.
"""

from dataclasses import dataclass
from typing import Literal, cast

from django.contrib.auth.models import User

from nodulant_server.models import Member, ReaderLink, Workshop

Role = Literal["owner", "helper", "reader"]
Act = Literal["read", "design", "log", "decide", "import", "people"]
ALLOWED: dict[Role, frozenset[Act]] = {
    "owner": frozenset({"read", "design", "log", "decide", "import", "people"}),
    "helper": frozenset({"read", "log"}),
    "reader": frozenset({"read"}),
}


class Forbidden(PermissionError):
    """The role does not allow the act."""

    def __init__(self, role: Role, act: Act) -> None:
        """Keep both for the message."""
        super().__init__(f"a {role} cannot do this: it needs '{act}'")


@dataclass(frozen=True)
class Acting:
    """A member of a shop, or whoever holds a reader's link to one of its jobs."""

    name: str
    role: Role
    workshop: Workshop
    user: User | None = None
    """None for a reader's link."""
    job_id: int | None = None
    """The one job that a link opens; None for a member, who sees all of the shop's."""

    @property
    def member(self) -> User:
        """The person; raises Forbidden for the holder of a link."""
        if self.user is None:
            raise Forbidden(self.role, "import")
        return self.user

    @property
    def counted_as(self) -> str:
        """Whose limits it counts against."""
        return f"person {self.user.pk}" if self.user else f"link {self.job_id}"


def acting_as(user: User, workshop_id: int | None = None) -> Acting | None:
    """A person in the shop asked for, or in the first they belong to; None where they belong to none."""
    live: list[Member] = list(user.memberships.filter(disabled_at=None).select_related("workshop").order_by("pk"))
    if not live:
        return None
    member = next((m for m in live if m.workshop_id == workshop_id), live[0])
    return Acting(user.username, cast(Role, member.role), member.workshop, user)


def acting_by(link: ReaderLink) -> Acting:
    """Whoever holds a reader's link."""
    return Acting(f"{link.label or 'reader'} (link)", "reader", link.job.workshop, job_id=link.job_id)


def require(acting: Acting, act: Act) -> None:
    """Raise Forbidden unless the role allows ``act``."""
    if act not in ALLOWED[acting.role]:
        raise Forbidden(acting.role, act)
