"""Who may do what: closed by default.

owner: everything; helper: readings, log and steps, no design change; reader: looks.
"""

from typing import Literal

from django.contrib.auth.base_user import AbstractBaseUser
from django.contrib.auth.models import AnonymousUser, User

Role = Literal["owner", "helper", "reader"]
Act = Literal["read", "design", "log", "decide", "import"]
ALLOWED: dict[Role, frozenset[Act]] = {
    "owner": frozenset({"read", "design", "log", "decide", "import"}),
    "helper": frozenset({"read", "log"}),
    "reader": frozenset({"read"}),
}


class Forbidden(PermissionError):
    """The person's role does not allow the act."""

    def __init__(self, role: Role, act: Act) -> None:
        """Keep both for the message."""
        super().__init__(f"a {role} cannot do this: it needs '{act}'")


def role_of(user: AbstractBaseUser | AnonymousUser) -> Role:
    """The person's role by group; a person without a group reads only."""
    names = set(user.groups.values_list("name", flat=True)) if isinstance(user, User) else set()
    return "owner" if "owner" in names else "helper" if "helper" in names else "reader"


def require(user: AbstractBaseUser | AnonymousUser, act: Act) -> None:
    """Raise Forbidden unless the person's role allows ``act``."""
    role = role_of(user)
    if act not in ALLOWED[role]:
        raise Forbidden(role, act)
