"""What is done with a job as a whole: another name, the archive, the trash and back, a copy."""

from dataclasses import dataclass

from django.db import transaction
from django.utils import timezone

from nodulant.begin.like import like, like_design
from nodulant.library.typed_before import TypedBefore, typed_before
from nodulant_server.audit import note
from nodulant_server.models import DesignRevision, Job, Option, SurveyRevision
from nodulant_server.roles import Acting, require

LONGEST, COPY = 120, " (copy)"


@dataclass(frozen=True)
class Changed:
    """What is changed of a job as a whole; None stays as it is."""

    name: str | None = None
    note: str | None = None
    template: bool | None = None
    archived: bool | None = None
    deleted: bool | None = None


def change_job(acting: Acting, job: Job, change: Changed) -> Job:
    """Another name or note, a template or not, archived or not, in the trash or not; raises Forbidden."""
    require(acting, "import")
    for field in ("name", "note", "template"):
        if getattr(change, field) is not None:
            setattr(job, field, getattr(change, field))
    if change.archived is not None:
        job.archived_at = timezone.now() if change.archived else None
    if change.deleted is not None:
        job.deleted_at = timezone.now() if change.deleted else None
    job.save(update_fields=["name", "note", "template", "archived_at", "deleted_at"])
    note(acting, _told(change), job.name)
    return job


def _told(change: Changed) -> str:
    if change.deleted is not None:
        return "job to the trash" if change.deleted else "job out of the trash"
    if change.archived is not None:
        return "job archived" if change.archived else "job out of the archive"
    return "job renamed" if change.name is not None else "job noted on"


@transaction.atomic
def duplicate_job(acting: Acting, job: Job) -> Job:
    """A new job that begins where this one stands; raises Forbidden."""
    require(acting, "import")
    at, by = timezone.now(), acting.name
    copy = Job.objects.create(
        name=f"{job.name[: LONGEST - len(COPY)]}{COPY}", shop=job.shop, owner=acting.member, workshop=acting.workshop
    )
    SurveyRevision(job=copy, number=1, document=job.survey_head().document, at=at, by=by).save()
    for option in job.live_options():
        own = Option.objects.create(job=copy, key=option.key, name=option.name, note=option.note)
        DesignRevision(option=own, number=1, document=option.head().document, at=at, by=by).save()
    note(acting, "job copied", job.name)
    return copy


@transaction.atomic
def begin_like(acting: Acting, job: Job, name: str, vehicle: str) -> Job:
    """A new job with this one's sizes and plans, every reading still to be taken; raises Forbidden."""
    require(acting, "import")
    at, by = timezone.now(), acting.name
    new = Job.objects.create(name=name, shop=job.shop, owner=acting.member, workshop=acting.workshop)
    survey = like(job.survey_head().survey(), vehicle)
    SurveyRevision(job=new, number=1, document=survey.model_dump(mode="json"), at=at, by=by).save()
    for option in job.live_options():
        own = Option.objects.create(job=new, key=option.key, name=option.name, note=option.note)
        design = like_design(option.head().design()).model_dump(mode="json")
        DesignRevision(option=own, number=1, document=design, at=at, by=by).save()
    note(acting, "job begun like", f"{name}, like {job.name}")
    return new


JOBS_LOOKED_AT = 100


def library(acting: Acting) -> tuple[TypedBefore, ...]:
    """What was typed in the shop's own jobs, the newest first; examples are none of them."""
    if acting.job_id is not None:  # a reader's link opens one job, and not what is known of others
        return ()
    jobs = Job.objects.filter(workshop=acting.workshop, deleted_at=None, example=False).order_by("-id")[:JOBS_LOOKED_AT]
    rows = ((job.survey_head().survey(), [o.head().design() for o in job.live_options()]) for job in jobs)
    return typed_before(rows)
