"""What is done with an option as a whole: another name, a note, the trash and back; and what its revisions changed."""

from itertools import pairwise

from django.utils import timezone

from nodulant.base.errors import InputError
from nodulant.job.changes import Change, design_changes
from nodulant_server import audit
from nodulant_server.models import DesignRevision, Option
from nodulant_server.roles import Acting, require

NEWEST = 40
"""So many revisions are listed; older ones are there all the same."""


def change_option(acting: Acting, option: Option, name: str | None, note: str | None, deleted: bool | None) -> Option:
    """Another name or note, in the trash or not; raises Forbidden, and InputError for the last option of a job."""
    require(acting, "design")
    if deleted and option.job.live_options().exclude(pk=option.pk).count() == 0:
        raise InputError(
            "a job keeps at least one option",
            field="/deleted",
            found="the last one",
            acceptable="another one beside it",
        )
    if name is not None:
        option.name = name
    if note is not None:
        option.note = note
    if deleted is not None:
        option.deleted_at = timezone.now() if deleted else None
    option.save(update_fields=["name", "note", "deleted_at"])
    told = "option changed" if deleted is None else "option to the trash" if deleted else "option out of the trash"
    audit.note(acting, told, f"{option.job.name}: {option.name}")
    return option


def listed_revisions(option: Option) -> list[tuple[DesignRevision, tuple[Change, ...]]]:
    """The newest revisions, newest first, each with what it changed against the one before."""
    rows = list(option.revisions.order_by("-number")[: NEWEST + 1])
    told = [(row, design_changes(before.design(), row.design())) for row, before in pairwise(rows)]
    return told if len(rows) > NEWEST or not rows else [*told, (rows[-1], ())]
