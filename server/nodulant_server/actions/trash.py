"""What lies in the trash for long enough goes for good."""

from datetime import datetime

from django.db import models, transaction

from nodulant_server.audit import note_of
from nodulant_server.models import (
    Attachment,
    DesignRevision,
    Draft,
    Job,
    LogEntry,
    Option,
    PracticeRun,
    ReaderLink,
    SurveyRevision,
    SweepKept,
)


@transaction.atomic
def empty_trash(before: datetime) -> int:
    """Delete jobs and options that were thrown away before then; how many went."""
    jobs = Job.objects.filter(deleted_at__lt=before)
    options = Option.objects.filter(models.Q(deleted_at__lt=before) | models.Q(job__in=jobs))
    gone = [(job.workshop, f"job '{job.name}'") for job in jobs.select_related("workshop")]
    gone += [
        (option.job.workshop, f"option '{option.name}' of '{option.job.name}'")
        for option in options.exclude(job__in=jobs).select_related("job__workshop")
    ]
    own, of = list(options.values_list("pk", flat=True)), list(jobs.values_list("pk", flat=True))
    of_options: tuple[type[models.Model], ...] = (Draft, SweepKept, DesignRevision)
    of_jobs: tuple[type[models.Model], ...] = (SurveyRevision, LogEntry, Attachment, ReaderLink, PracticeRun)
    for model in of_options:
        _away(model, option__in=own)
    _away(Option, pk__in=own)
    for model in of_jobs:
        _away(model, job__in=of)
    _away(Job, pk__in=of)
    for workshop, subject in gone:
        note_of(workshop, "the server", "trash emptied", subject)
    return len(gone)


def _away(model: type[models.Model], **which: list[int]) -> None:
    """Rows that refuse to be deleted by anybody else go too, with what they belong to."""
    rows = model._default_manager.filter(**which)
    rows._raw_delete(rows.db)
