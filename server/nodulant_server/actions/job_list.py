"""What is done with a job as a whole: another name, the archive, the trash and back, a copy."""

from django.contrib.auth.models import User
from django.db import transaction
from django.utils import timezone

from nodulant_server.models import DesignRevision, Job, Option, SurveyRevision
from nodulant_server.roles import require

LONGEST, COPY = 120, " (copy)"


def change_job(user: User, job: Job, name: str | None, archived: bool | None, deleted: bool | None) -> Job:
    """Another name, archived or not, in the trash or not; raises Forbidden."""
    require(user, "import")
    if name is not None:
        job.name = name
    if archived is not None:
        job.archived_at = timezone.now() if archived else None
    if deleted is not None:
        job.deleted_at = timezone.now() if deleted else None
    job.save(update_fields=["name", "archived_at", "deleted_at"])
    return job


@transaction.atomic
def duplicate_job(user: User, job: Job) -> Job:
    """A new job that begins where this one stands; raises Forbidden."""
    require(user, "import")
    at, by = timezone.now(), user.username
    copy = Job.objects.create(name=f"{job.name[: LONGEST - len(COPY)]}{COPY}", shop=job.shop, owner=user)
    SurveyRevision(job=copy, number=1, document=job.survey_head().document, at=at, by=by).save()
    for option in job.live_options():
        own = Option.objects.create(job=copy, key=option.key, name=option.name, note=option.note)
        DesignRevision(option=own, number=1, document=option.head().document, at=at, by=by).save()
    return copy
