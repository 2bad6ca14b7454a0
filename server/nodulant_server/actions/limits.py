"""What a job may hold, enforced where it is written, so that every stored job can be exported."""

from django.db.models import Model

from nodulant.base.errors import InputError


def one_at_a_time(row: Model) -> None:
    """Until the transaction ends nobody else goes on past here with the same row: what is numbered has no gaps.

    SQLite has one writer anyway; PostgreSQL locks the row.
    """
    type(row)._default_manager.select_for_update().get(pk=row.pk)


def refuse_beyond(count: int, most: int, of: str, instead: str) -> None:
    """Raises InputError where one more would be too many."""
    if count > most:
        raise InputError(f"this job is full: no more than {most} {of}", found=str(count), acceptable=instead)
