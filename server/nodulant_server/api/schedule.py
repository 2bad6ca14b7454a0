"""When each step is done, and as a calendar."""

from datetime import datetime

from django.http import Http404, HttpRequest, HttpResponse
from ninja import Router

from nodulant.assembly.sheet import works_of
from nodulant.base.model import Frozen
from nodulant.build.plan import Step
from nodulant.evaluate import Want, evaluate
from nodulant.formats.handout_pdf import handout_pdf
from nodulant.formats.plan_ics import plan_ics
from nodulant.job.document import Inputs
from nodulant.job.riding import in_place
from nodulant.schedule.handover import handover
from nodulant.schedule.schedule import Schedule, schedule_of
from nodulant_server.actions.floor import timed_elsewhere
from nodulant_server.api.access import job_of
from nodulant_server.api.bodies import DraftBody
from nodulant_server.api.compute import drafted
from nodulant_server.api.files import current, revision_words
from nodulant_server.models import Job

router = Router()
STEPS = Want(strips=False, parts=False, readings=False, frame=False, interim=False)


class ScheduleBody(DraftBody):
    """A draft, and from when on it is planned, by the shop's clock."""

    at: datetime


class Scheduled(Frozen):
    """The schedule; None where nothing is left to do."""

    schedule: Schedule | None


@router.post("/schedule", response=Scheduled)
def plan(request: HttpRequest, body: ScheduleBody) -> Scheduled:
    """Schedule what is left of a draft from a time on; the shop's sessions, people, rests and arrivals."""
    inputs = drafted(request, body.job_id, body.design, body.survey)
    return Scheduled(schedule=_schedule(job_of(request, body.job_id), inputs, body.at))


@router.get("/options/{option_id}/plan.ics")
def calendar(request: HttpRequest, option_id: int, at: datetime) -> HttpResponse:
    """The stored plan as a calendar from a time on; 404 where nothing is left to do."""
    option, inputs = current(request, option_id)
    found = _schedule(option.job, inputs, at)
    made = plan_ics(option.job.name, revision_words(option), found, inputs.shop.style) if found else b""
    response = HttpResponse(made, content_type="text/calendar; charset=utf-8", status=200 if found else 404)
    response["Content-Disposition"] = f'attachment; filename="plan-{option.key}.ics"'
    return response


def _schedule(job: Job, inputs: Inputs, at: datetime) -> Schedule | None:
    steps: tuple[Step, ...] = evaluate(inputs, STEPS).steps
    return schedule_of(
        steps,
        {op.id: op.name for op in inputs.design.operations},
        inputs.design.timing,
        inputs.shop.week,
        at.replace(tzinfo=None, second=0, microsecond=0),
        inputs.as_built.entries,
        timed_elsewhere(job),
    )


@router.get("/options/{option_id}/handout.pdf")
def handed_out(request: HttpRequest, option_id: int, step: str) -> HttpResponse:
    """The sheet that goes along with a step that is done outside; 404 for one that is not."""
    option, inputs = current(request, option_id)
    handout = next((h for h in inputs.design.timing.handouts if h.step == step), None)
    spec = next((s.spec for s in evaluate(inputs, STEPS).steps if s.id == step), None)
    if handout is None or spec is None:
        raise Http404
    works = [work for own in works_of(in_place(inputs)).values() for work in own.values()]
    sheet = handover(handout, spec.title, spec.detail, works)
    made = handout_pdf(option.job.name, revision_words(option), sheet, inputs.shop.style)
    response = HttpResponse(made, content_type="application/pdf")
    response["Content-Disposition"] = f'attachment; filename="handout-{option.key}.pdf"'
    return response
