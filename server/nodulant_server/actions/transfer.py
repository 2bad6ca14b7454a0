"""Export a job as its open file, and import one; both ways nothing is lost."""

from collections.abc import Iterable
from datetime import datetime
from typing import IO

from django.db import transaction
from django.utils.dateparse import parse_datetime
from django.utils.timezone import is_naive, make_aware, now

from nodulant.formats.bundle import Attached, write_bundle
from nodulant.job.document import DesignRevision as DesignFile
from nodulant.job.document import JobFile, OptionFile
from nodulant.job.document import SurveyRevision as SurveyFile
from nodulant_server.actions.attachments import attached
from nodulant_server.actions.log import entries_of
from nodulant_server.audit import note
from nodulant_server.models import Attachment, DesignRevision, Job, LogEntry, Option, SurveyRevision
from nodulant_server.roles import Acting, require


def export_job(job: Job) -> JobFile:
    """The whole job: all revisions and the log."""
    return JobFile(
        name=job.name,
        note=job.note,
        shop=job.shop_model(),
        surveys=tuple(
            SurveyFile(number=r.number, at=r.at.isoformat(), by=r.by, survey=r.survey())
            for r in job.surveys.order_by("number")
        ),
        options=tuple(_option(option) for option in job.live_options()),
        log=entries_of(job),
    )


def _option(option: Option) -> OptionFile:
    revisions = tuple(
        DesignFile(number=r.number, at=r.at.isoformat(), by=r.by, note=r.note, design=r.design())
        for r in option.revisions.order_by("number")
    )
    return OptionFile(id=option.key, name=option.name, note=option.note, revisions=revisions)


def write_export(to: IO[bytes], job: Job) -> None:
    """The whole job with its attachments, as a bundle."""
    rows = job.attachments.order_by("pk").defer("content")
    write_bundle(to, export_job(job), map(attached, rows), lambda sha256: _content(job, sha256))


def _content(job: Job, sha256: str) -> bytes:
    return bytes(job.attachments.filter(sha256=sha256)[0].content)


@transaction.atomic
def import_bundle(acting: Acting, file: JobFile, kept: Iterable[tuple[Attached, bytes]], source: str) -> Job:
    """Store a job with its attachments, each as whoever attached it left it."""
    job = import_job(acting, file, source)
    for what, content in kept:
        Attachment(
            job=job,
            sha256=what.sha256,
            name=what.name,
            content_type=what.content_type,
            content=content,
            at=_when(what.at),
            by=what.by,
        ).save()
    return job


@transaction.atomic
def import_job(acting: Acting, file: JobFile, source: str = "") -> Job:
    """Store ``file`` as a new job of the shop; entries of its log say that they came from ``source``."""
    require(acting, "import")
    job = store_job(acting, file, source)
    note(acting, "job imported", f"{file.name} {source}".strip())
    return job


def store_job(acting: Acting, file: JobFile, source: str = "") -> Job:
    """The same for a job that the application made by itself: nobody has to be allowed to import."""
    job = Job.objects.create(
        name=file.name,
        note=file.note,
        shop=file.shop.model_dump(mode="json"),
        owner=acting.member,
        workshop=acting.workshop,
    )
    for survey in file.surveys:
        SurveyRevision(
            job=job,
            number=survey.number,
            document=survey.survey.model_dump(mode="json"),
            at=_when(survey.at),
            by=survey.by,
        ).save()
    for option in file.options:
        row = Option.objects.create(job=job, key=option.id, name=option.name, note=option.note)
        for r in option.revisions:
            DesignRevision(
                option=row,
                number=r.number,
                document=r.design.model_dump(mode="json"),
                at=_when(r.at),
                by=r.by,
                note=r.note,
            ).save()
    for entry in file.log:
        told = entry.imported or (source and f"by {acting.name} from {source}")[:200]
        document = entry.model_copy(update={"imported": told}).model_dump(mode="json")
        LogEntry(job=job, number=entry.number, document=document).save()
    return job


def _when(text: str) -> datetime:
    try:
        found = parse_datetime(text)
    except ValueError:
        found = None
    if found is None:
        return now()
    return make_aware(found) if is_naive(found) else found
