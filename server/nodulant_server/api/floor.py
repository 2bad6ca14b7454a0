"""The floor: one answer with all steps, and what is written there."""

from typing import Literal
from urllib.parse import quote

from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from ninja import Router

from nodulant.asbuilt.log import Entry
from nodulant.assembly.sheet import assembly_sheets
from nodulant.floor.sheet import FloorSheet, floor_sheet
from nodulant.formats.labels_pdf import Label, labels_pdf
from nodulant.heat.plan import HeatPlan, heat_plan
from nodulant.job.document import Inputs
from nodulant.proof.found import Built, built
from nodulant.units.inline import as_thickness
from nodulant_server.actions.floor import on_the_floor, timed_elsewhere
from nodulant_server.actions.photos import JPEG, keep_photo
from nodulant_server.api.access import acting, job_of, option_of
from nodulant_server.api.files import current
from nodulant_server.api.floor_bodies import DoneAt, FloorBody, Mark
from nodulant_server.models import Attachment

router = Router()


@router.get("/options/{option_id}/floor", response=FloorSheet)
def floor(request: HttpRequest, option_id: int) -> FloorSheet:
    """The stored plan for the floor: steps with their drawings and numbers, what is open, what was noted."""
    option, inputs = current(request, option_id)
    return floor_sheet(inputs, option.job.name, option.name, timed_elsewhere(option.job))


@router.get("/options/{option_id}/built", response=Built)
def as_built(request: HttpRequest, option_id: int) -> Built:
    """Axles, wheels and rails of the stored plan as they were read, and corrections that were tried."""
    _, inputs = current(request, option_id)
    return built(inputs)


@router.get("/options/{option_id}/heat/{operation}", response=HeatPlan)
def heat(request: HttpRequest, option_id: int, operation: str) -> HeatPlan:
    """How one operation of the stored plan is welded: setting, preheat, beads in order with waits, what it bends."""
    _, inputs = current(request, option_id)
    found = heat_plan(inputs, operation)
    if found is None:
        raise Http404
    return found


@router.post("/options/{option_id}/floor", response=list[Entry])
def write(request: HttpRequest, option_id: int, body: FloorBody) -> list[Entry]:
    """Sign, pass, note, log rework, leave off, stop or go on; what was sent before under the same mark is told again."""
    option, inputs = current(request, option_id)
    act = body.act.model_dump()
    return on_the_floor(acting(request), option.job, inputs, act, body.mark, body.done_at)


@router.post("/options/{option_id}/photos", response=list[Entry])
def photo(
    request: HttpRequest, option_id: int, step: str, text: str = "", mark: Mark | None = None, done_at: DoneAt = ""
) -> list[Entry]:
    """Keep a photo of a step, sent as the body; it is made anew, without where and when it was taken."""
    option = option_of(request, option_id)
    return keep_photo(acting(request), option.job, step, request.body, text, mark, done_at)


@router.get("/jobs/{job_id}/photos/{sha256}")
def picture(request: HttpRequest, job_id: int, sha256: str) -> HttpResponse:
    """A photo, as nothing but a picture."""
    row = get_object_or_404(Attachment, job=job_of(request, job_id), sha256=sha256, content_type=JPEG)
    response = HttpResponse(bytes(row.content), content_type=JPEG)
    response["Cache-Control"] = "private, max-age=31536000, immutable"
    return response


@router.get("/options/{option_id}/labels.pdf")
def labels(request: HttpRequest, option_id: int, of: Literal["steps", "parts"] = "steps") -> HttpResponse:
    """Labels of what is left to do, or of every part: each has a code that opens its step on the floor."""
    option, inputs = current(request, option_id)
    sheet = floor_sheet(inputs, option.job.name, option.name)
    at = request.build_absolute_uri(f"/jobs/{option.job_id}/floor?option={option.pk}&step=")
    rows = _of_steps(sheet, at) if of == "steps" else _of_parts(sheet, inputs, at)
    response = HttpResponse(labels_pdf(option.job.name, rows, inputs.shop.style), content_type="application/pdf")
    response["Content-Disposition"] = f'attachment; filename="labels-{of}-{option.key}.pdf"'
    return response


def _of_steps(sheet: FloorSheet, at: str) -> list[Label]:
    left = [s for s in sheet.steps if s.status in {"open", "waiting"}]
    return [
        Label(f"{s.title}{f', {s.side}' if s.side else ''}", tuple(filter(None, (s.work, s.place))), at + quote(s.id))
        for s in left
    ]


def _of_parts(sheet: FloorSheet, inputs: Inputs, at: str) -> list[Label]:
    fits = {s.operation: s for s in reversed(sheet.steps) if s.phase in {"fit", "tack", "weld", "plate"}}
    out = []
    for own in assembly_sheets(inputs):
        step = fits.get(own.operation)
        for part in own.parts:
            lines = (own.name, f"{part.number}, {part.side}, {as_thickness(part.thickness_mm)} {part.steel}")
            label = Label(part.name, lines, at + quote(step.id if step else ""))
            out += [label] * part.count
    return out
