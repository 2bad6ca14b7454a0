"""Shops and their people: members, invitations, links for readers, and where people are signed in."""

import hashlib
import secrets
from datetime import timedelta
from typing import Any, Self

from django.conf import settings
from django.db import models
from django.utils import timezone

ROLES = [("owner", "owner"), ("helper", "helper"), ("reader", "reader")]


class Workshop(models.Model):
    """A shop: its people see its jobs, and nobody else's do."""

    name = models.CharField(max_length=120)
    created_at = models.DateTimeField(auto_now_add=True)


class Member(models.Model):
    """A person in a shop, with what they may do there."""

    workshop = models.ForeignKey(Workshop, related_name="members", on_delete=models.CASCADE)
    user = models.ForeignKey(settings.AUTH_USER_MODEL, related_name="memberships", on_delete=models.CASCADE)
    role = models.CharField(max_length=10, choices=ROLES, default="reader")
    disabled_at = models.DateTimeField(null=True)
    """Shut out since then; what they did stays under their name."""
    joined_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        """One row a person and shop."""

        constraints = (models.UniqueConstraint(fields=["workshop", "user"], name="one_member_a_shop"),)


def hashed(token: str) -> str:
    """What is stored of a link's token: who reads the database cannot use it."""
    return hashlib.sha256(token.encode()).hexdigest()


class Link(models.Model):
    """Something that whoever holds a link may do, until it expires or is taken back."""

    token_hash = models.CharField(max_length=64, unique=True)
    made_by = models.CharField(max_length=150)
    made_at = models.DateTimeField(auto_now_add=True)
    expires_at = models.DateTimeField()
    revoked_at = models.DateTimeField(null=True)

    class Meta:
        """Abstract base."""

        abstract = True

    @classmethod
    def made(cls, days: float, **fields: Any) -> tuple[Self, str]:  # noqa: ANN401
        """A new link and its token, which is told once and not stored."""
        token = secrets.token_urlsafe(24)
        row = cls(token_hash=hashed(token), expires_at=timezone.now() + timedelta(days=days), **fields)
        row.save()
        return row, token

    @classmethod
    def live(cls, token: str) -> Self | None:
        """The link of a token, while it holds."""
        row = cls._default_manager.filter(token_hash=hashed(token), revoked_at=None).first()
        return row if row is not None and row.holds() else None

    def holds(self) -> bool:
        """Neither taken back nor expired."""
        return self.revoked_at is None and self.expires_at > timezone.now()


class Invitation(Link):
    """Whoever opens it joins the shop, once."""

    workshop = models.ForeignKey(Workshop, related_name="invitations", on_delete=models.CASCADE)
    role = models.CharField(max_length=10, choices=ROLES)
    used_at = models.DateTimeField(null=True)

    def holds(self) -> bool:
        """Not used either."""
        return self.used_at is None and super().holds()


class NewPassword(Link):
    """Whoever opens it sets a member's password, once."""

    user = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE)


class SignedIn(models.Model):
    """A browser in which a person is signed in."""

    user = models.ForeignKey(settings.AUTH_USER_MODEL, related_name="signed_in", on_delete=models.CASCADE)
    session_key = models.CharField(max_length=40, unique=True)
    address = models.CharField(max_length=45, blank=True)
    agent = models.CharField(max_length=200, blank=True)
    at = models.DateTimeField(auto_now_add=True)
