"""What a job may hold, enforced where it is written, so that every stored job can be exported."""

from nodulant.base.errors import InputError


def refuse_beyond(count: int, most: int, of: str, instead: str) -> None:
    """Raises InputError where one more would be too many."""
    if count > most:
        raise InputError(f"this job is full: no more than {most} {of}", found=str(count), acceptable=instead)
