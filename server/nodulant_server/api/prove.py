"""What was built: solved from its readings, and what corrects it."""

from django.http import HttpRequest, HttpResponse
from ninja import Router

from nodulant.formats.after_ics import after_ics
from nodulant.proof.after import After, after
from nodulant.proof.found import Built, built
from nodulant.proof.record import WeldRecord, weld_record
from nodulant_server.api.bodies import DraftBody
from nodulant_server.api.compute import drafted
from nodulant_server.api.files import current, revision_words

router = Router()


@router.post("/built", response=Built)
def as_built(request: HttpRequest, body: DraftBody) -> Built:
    """Axles, wheels and rails of a draft as they were read, whether it matters, and corrections that were tried."""
    return built(drafted(request, body.job_id, body.design, body.survey))


@router.post("/record", response=WeldRecord)
def record(request: HttpRequest, body: DraftBody) -> WeldRecord:
    """Every weld and bolted joint of a draft with what was written of it, coats, and what is open."""
    return weld_record(drafted(request, body.job_id, body.design, body.survey))


@router.post("/after", response=After)
def inspections(request: HttpRequest, body: DraftBody) -> After:
    """What is looked at again after the first 100 and 1000 km, when, and what was found."""
    return after(drafted(request, body.job_id, body.design, body.survey))


@router.get("/options/{option_id}/inspections.ics")
def calendar(request: HttpRequest, option_id: int) -> HttpResponse:
    """Both inspections as a calendar; without events while the first drive is not written down."""
    option, inputs = current(request, option_id)
    made = after_ics(option.job.name, revision_words(option), after(inputs), inputs.shop.style)
    response = HttpResponse(made, content_type="text/calendar; charset=utf-8")
    response["Content-Disposition"] = f'attachment; filename="inspections-{option.key}.ics"'
    return response
