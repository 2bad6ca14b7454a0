"""Jobs, options, revisions, drafts, import and export."""

import hashlib

from django.contrib.auth.models import User
from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from ninja import Router

from nodulant.formats.jobfile import dump_job, load_job
from nodulant.job.document import Shop
from nodulant.job.merged import merged
from nodulant.library.typed_before import TypedBefore
from nodulant_server.actions import save
from nodulant_server.actions.begin import begin_job, change_shop
from nodulant_server.actions.job_list import Changed, begin_like, change_job, duplicate_job, library
from nodulant_server.actions.log import entries_of
from nodulant_server.actions.transfer import export_job, import_job
from nodulant_server.api.bodies import (
    BeginLike,
    JobChange,
    JobHead,
    JobRow,
    MergedSurvey,
    NewJob,
    OptionHead,
    Saved,
    SaveSurvey,
)
from nodulant_server.models import DesignRevision, Job, Option
from nodulant_server.roles import require

router = Router()


def person(request: HttpRequest) -> User:
    """The signed-in person; routes are closed without one."""
    if not isinstance(request.user, User):
        raise PermissionError("sign in first")
    return request.user


def job_head(job: Job) -> JobHead:
    """A job with its newest survey, options and log."""
    survey = job.survey_head()
    options = [option_head(option) for option in job.live_options()]
    return JobHead(
        id=job.pk,
        name=job.name,
        shop=job.shop_model(),
        survey_number=survey.number,
        survey=survey.survey(),
        options=options,
        log=list(entries_of(job)),
    )


def _listed(job: Job) -> JobRow:
    """A job as the list tells it."""
    survey = job.survey_head()
    newest = DesignRevision.objects.filter(option__job=job).order_by("-at").first()
    last = newest if newest is not None and newest.at > survey.at else survey
    return JobRow(
        id=job.pk,
        name=job.name,
        vehicle=survey.survey().vehicle,
        at=last.at,
        by=last.by,
        example=job.example,
        archived=job.archived_at is not None,
        template=job.template,
        note=job.note,
    )


def option_head(option: Option) -> OptionHead:
    """An option with its newest revision's number."""
    return OptionHead(id=option.pk, key=option.key, name=option.name, note=option.note, head=option.head().number)


@router.get("/jobs", response=list[JobRow])
def jobs(request: HttpRequest) -> list[JobRow]:
    """Every job that is not in the trash, newest first."""
    return [_listed(job) for job in Job.objects.filter(deleted_at=None).order_by("-id")]


@router.post("/jobs", response=JobHead)
def begin(request: HttpRequest, body: NewJob) -> JobHead:
    """Begin a job with what was measured, the rest assumed, and the first answer in its design."""
    return job_head(begin_job(person(request), body.name, body.start, Shop.reading(body.style)))


@router.put("/jobs/{job_id}/shop", response=Shop)
def shop(request: HttpRequest, job_id: int, body: Shop) -> Shop:
    """Change the shop's stock and tape."""
    change_shop(person(request), get_object_or_404(Job, pk=job_id), body)
    return body


@router.post("/jobs/import", response=JobHead)
def take(request: HttpRequest) -> JobHead:
    """Import a job file sent as the body."""
    require(request.user, "import")
    file, mark = load_job(request.body), hashlib.sha256(request.body).hexdigest()[:12]
    return job_head(import_job(person(request), file, f"'{file.name}', {mark}"))


@router.patch("/jobs/{job_id}", response=JobRow)
def change(request: HttpRequest, job_id: int, body: JobChange) -> JobRow:
    """Rename a job, note something on it, make it a template, archive it or put it in the trash; and back."""
    change = Changed(**body.model_dump())
    return _listed(change_job(person(request), get_object_or_404(Job, pk=job_id), change))


@router.post("/jobs/{job_id}/like", response=JobHead)
def begin_another(request: HttpRequest, job_id: int, body: BeginLike) -> JobHead:
    """Begin a job like this one: its sizes stand there as assumed until each was measured."""
    job = get_object_or_404(Job, pk=job_id, deleted_at=None)
    return job_head(begin_like(person(request), job, body.name, body.vehicle))


@router.get("/library", response=list[TypedBefore])
def typed(request: HttpRequest) -> list[TypedBefore]:
    """Rails, axles, tyres, springs and racks typed in the shop's own jobs."""
    return list(library())


@router.post("/jobs/{job_id}/duplicate", response=JobRow)
def duplicate(request: HttpRequest, job_id: int) -> JobRow:
    """A new job with the newest survey and every option's newest design of this one; no log."""
    return _listed(duplicate_job(person(request), get_object_or_404(Job, pk=job_id)))


@router.get("/jobs/{job_id}", response=JobHead)
def one(request: HttpRequest, job_id: int) -> JobHead:
    """One job."""
    return job_head(get_object_or_404(Job, pk=job_id))


@router.get("/jobs/{job_id}/export")
def give(request: HttpRequest, job_id: int) -> HttpResponse:
    """The open job file."""
    job = get_object_or_404(Job, pk=job_id)
    response = HttpResponse(dump_job(export_job(job)), content_type="application/json")
    response["Content-Disposition"] = f'attachment; filename="job-{job.pk}.nodulant.json"'
    return response


@router.post("/jobs/{job_id}/survey/merge", response=MergedSurvey)
def merge(request: HttpRequest, job_id: int, body: SaveSurvey) -> MergedSurvey:
    """What was changed since ``base`` here and by others, together; nothing is stored."""
    job = get_object_or_404(Job, pk=job_id)
    base, head = get_object_or_404(job.surveys, number=body.base).survey(), job.survey_head()
    both = merged(base, body.survey, head.survey())
    return MergedSurvey(head=head.number, survey=both.survey, both=both.both)


@router.post("/jobs/{job_id}/survey", response=Saved)
def survey(request: HttpRequest, job_id: int, body: SaveSurvey) -> Saved:
    """Save the survey as a new revision."""
    return Saved(
        number=save.save_survey(person(request), get_object_or_404(Job, pk=job_id), body.base, body.survey).number
    )
