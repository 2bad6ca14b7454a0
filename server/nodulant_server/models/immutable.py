"""Rows that are written once."""

from typing import Any, TypeVar

from django.db import models


class ImmutableError(RuntimeError):
    """A stored revision or log entry was about to be changed or deleted."""


class Immutable(models.Model):
    """A row that is written once."""

    class Meta:
        """Abstract base."""

        abstract = True

    def save(self, *args: Any, **kwargs: Any) -> None:  # noqa: ANN401
        """Insert only."""
        if self.pk is not None:
            raise ImmutableError(f"{type(self).__name__} is immutable")
        super().save(*args, **kwargs)

    def delete(self, *args: Any, **kwargs: Any) -> tuple[int, dict[str, int]]:  # noqa: ANN401
        """Refuse."""
        raise ImmutableError(f"{type(self).__name__} is immutable")


M = TypeVar("M", bound=models.Model)


class AppendOnly(models.QuerySet[M]):
    """Rows that no query changes or deletes either."""

    def update(self, **kwargs: Any) -> int:  # noqa: ANN401
        """Refuse."""
        raise ImmutableError(f"{self.model.__name__} is append-only")

    def delete(self) -> tuple[int, dict[str, int]]:
        """Refuse."""
        raise ImmutableError(f"{self.model.__name__} is append-only")
