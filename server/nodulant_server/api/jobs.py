"""Jobs, options, revisions, drafts, import and export."""

import hashlib
from tempfile import SpooledTemporaryFile

from django.core.exceptions import RequestDataTooBig
from django.http import FileResponse, HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from django.utils.http import content_disposition_header
from ninja import Router

from nodulant.formats.bundle import Attached, read_bundle
from nodulant.formats.jobfile import dump_job, load_job
from nodulant.job.document import Shop
from nodulant.job.merged import merged
from nodulant.library.typed_before import TypedBefore
from nodulant_server.actions import save
from nodulant_server.actions.attachments import attach, attached
from nodulant_server.actions.begin import begin_job, change_shop
from nodulant_server.actions.job_list import Changed, begin_like, change_job, duplicate_job, library
from nodulant_server.actions.log import entries_of
from nodulant_server.actions.transfer import export_job, import_bundle, import_job, write_export
from nodulant_server.api.access import acting, job_of
from nodulant_server.api.bodies import (
    BeginLike,
    JobChange,
    JobHead,
    JobRow,
    MergedSurvey,
    NewJob,
    OptionHead,
    Saved,
    SaveShop,
    SaveSurvey,
)
from nodulant_server.audit import note
from nodulant_server.models import Attachment, DesignRevision, Job, Option
from nodulant_server.roles import require

router = Router()
ZIPS = ("application/zip", "application/x-zip-compressed")
IN_MEMORY, BUNDLE_BYTES = 4 * 1024 * 1024, 300 * 1024 * 1024
"""A bundle up to the first is held in memory, beyond it in a file; beyond the second it is refused."""


def job_head(job: Job) -> JobHead:
    """A job with its newest survey, options and log."""
    survey = job.survey_head()
    options = [option_head(option) for option in job.live_options()]
    return JobHead(
        id=job.pk,
        name=job.name,
        shop=job.shop_model(),
        shop_number=job.shop_number,
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
    own = acting(request)
    only = {} if own.job_id is None else {"pk": own.job_id}
    rows = Job.objects.filter(workshop=own.workshop, deleted_at=None, **only)
    return [_listed(job) for job in rows.order_by("-id")]


@router.post("/jobs", response=JobHead)
def begin(request: HttpRequest, body: NewJob) -> JobHead:
    """Begin a job with what was measured, the rest assumed, and the first answer in its design."""
    return job_head(begin_job(acting(request), body.name, body.start, Shop.reading(body.style)))


@router.put("/jobs/{job_id}/shop", response=Saved)
def shop(request: HttpRequest, job_id: int, body: SaveShop) -> Saved:
    """Change the shop's stock and tape on a job; 409 where somebody else changed them since."""
    return Saved(number=change_shop(acting(request), job_of(request, job_id), body.base, body.shop))


@router.post("/jobs/import", response=JobHead)
def take(request: HttpRequest) -> JobHead:
    """Import a job file, or a bundle with attachments, sent as the body."""
    require(acting(request), "import")
    if request.content_type in ZIPS:
        return job_head(_bundled(request))
    file, mark = load_job(request.body), hashlib.sha256(request.body).hexdigest()[:12]
    return job_head(import_job(acting(request), file, f"'{file.name}', {mark}"))


def _bundled(request: HttpRequest) -> Job:
    """A bundle, taken in piece by piece into a file; raises JobFileRefused and RequestDataTooBig."""
    mark, size = hashlib.sha256(), 0
    with SpooledTemporaryFile(IN_MEMORY) as kept:
        while piece := request.read(1 << 16):
            size += len(piece)
            if size > BUNDLE_BYTES:
                raise RequestDataTooBig
            mark.update(piece)
            kept.write(piece)
        kept.seek(0)
        file, attachments = read_bundle(kept)
    return import_bundle(acting(request), file, attachments, f"'{file.name}', {mark.hexdigest()[:12]}")


@router.patch("/jobs/{job_id}", response=JobRow)
def change(request: HttpRequest, job_id: int, body: JobChange) -> JobRow:
    """Rename a job, note something on it, make it a template, archive it or put it in the trash; and back."""
    change = Changed(**body.model_dump())
    return _listed(change_job(acting(request), job_of(request, job_id), change))


@router.post("/jobs/{job_id}/like", response=JobHead)
def begin_another(request: HttpRequest, job_id: int, body: BeginLike) -> JobHead:
    """Begin a job like this one: its sizes stand there as assumed until each was measured."""
    job = job_of(request, job_id, deleted_at=None)
    return job_head(begin_like(acting(request), job, body.name, body.vehicle))


@router.get("/library", response=list[TypedBefore])
def typed(request: HttpRequest) -> list[TypedBefore]:
    """Rails, axles, tyres, springs and racks typed in the shop's own jobs."""
    return list(library(acting(request)))


@router.post("/jobs/{job_id}/duplicate", response=JobRow)
def duplicate(request: HttpRequest, job_id: int) -> JobRow:
    """A new job with the newest survey and every option's newest design of this one; no log."""
    return _listed(duplicate_job(acting(request), job_of(request, job_id)))


@router.get("/jobs/{job_id}", response=JobHead)
def one(request: HttpRequest, job_id: int) -> JobHead:
    """One job."""
    return job_head(job_of(request, job_id))


@router.get("/jobs/{job_id}/export")
def give(request: HttpRequest, job_id: int) -> HttpResponse | FileResponse:
    """The open job file; a ZIP with it and its attachments where the job has some."""
    job = job_of(request, job_id)
    if job.attachments.exists():
        return _bundle(request, job)
    response = HttpResponse(dump_job(export_job(job)), content_type="application/json")
    note(acting(request), "job exported", job.name)
    response["Content-Disposition"] = f'attachment; filename="job-{job.pk}.nodulant.json"'
    return response


def _bundle(request: HttpRequest, job: Job) -> FileResponse:
    kept = SpooledTemporaryFile(IN_MEMORY)  # noqa: SIM115 - the answer closes it
    write_export(kept, job)
    kept.seek(0)
    note(acting(request), "job exported", job.name)
    return FileResponse(kept, as_attachment=True, filename=f"job-{job.pk}.nodulant.zip", content_type=ZIPS[0])


@router.get("/jobs/{job_id}/attachments", response=list[Attached])
def attachments(request: HttpRequest, job_id: int) -> list[Attached]:
    """Files kept with a job, oldest first."""
    return [attached(row) for row in job_of(request, job_id).attachments.order_by("pk").defer("content")]


@router.post("/jobs/{job_id}/attachments", response=Attached)
def keep_file(request: HttpRequest, job_id: int, name: str) -> Attached:
    """Keep a file, sent as the body, with a job."""
    kind = request.content_type or "application/octet-stream"
    return attached(attach(acting(request), job_of(request, job_id), name, kind, request.body))


@router.get("/jobs/{job_id}/attachments/{sha256}")
def kept_file(request: HttpRequest, job_id: int, sha256: str) -> HttpResponse:
    """A kept file, always as a download: a browser opens nothing of it in this page's name."""
    row = get_object_or_404(Attachment, job=job_of(request, job_id), sha256=sha256)
    response = HttpResponse(bytes(row.content), content_type="application/octet-stream")
    response["Content-Disposition"] = content_disposition_header(as_attachment=True, filename=row.name)
    return response


@router.post("/jobs/{job_id}/survey/merge", response=MergedSurvey)
def merge(request: HttpRequest, job_id: int, body: SaveSurvey) -> MergedSurvey:
    """What was changed since ``base`` here and by others, together; nothing is stored."""
    job = job_of(request, job_id)
    base, head = get_object_or_404(job.surveys, number=body.base).survey(), job.survey_head()
    both = merged(base, body.survey, head.survey())
    return MergedSurvey(head=head.number, survey=both.survey, both=both.both)


@router.post("/jobs/{job_id}/survey", response=Saved)
def survey(request: HttpRequest, job_id: int, body: SaveSurvey) -> Saved:
    """Save the survey as a new revision."""
    return Saved(number=save.save_survey(acting(request), job_of(request, job_id), body.base, body.survey).number)
