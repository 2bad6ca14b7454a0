"""What the core offers: choices, words, forms, and new work as it begins."""

from django.http import HttpRequest, HttpResponse
from ninja import Router

from nodulant.asbuilt.instruments import INSTRUMENTS
from nodulant.axles.suspension import Suspension
from nodulant.frame.ops.form import form_of
from nodulant.frame.ops.union import Operation, operation_kinds
from nodulant.glossary.term import Term
from nodulant.glossary.terms import TERMS
from nodulant.job.fresh.seats import even_seats, seats_at_both_ends
from nodulant.job.fresh.suspension import fresh_driveline_part, fresh_suspension, fresh_suspension_part
from nodulant.job.fresh.work import fresh_operation, fresh_part
from nodulant.loads.cases import CASES, SPACE_CASES
from nodulant.materials import STEELS
from nodulant.materials.bolts import GRADES, SIZES
from nodulant.materials.hole_saws import HOLE_SAWS_MM
from nodulant.materials.pipe import PIPES
from nodulant.parts.reads import MET, READS
from nodulant.survey.vehicle import Seat
from nodulant.targets.mechanisms import MECHANISMS
from nodulant_server.api.bodies import Catalogue, FreshBody, FreshPartBody, SeatsBody
from nodulant_server.api.compute import drafted
from nodulant_server.api.search_bodies import FreshSuspensionBody, FreshSuspensionPartBody

router = Router()


@router.get("/catalogue", response=Catalogue)
def catalogue(request: HttpRequest) -> Catalogue:
    """What there is to choose from, how values read, and what each kind of work asks."""
    return Catalogue(
        mechanisms=MECHANISMS,
        steels=STEELS,
        bolt_sizes=tuple(s.id for s in SIZES),
        bolt_grades=tuple(g.id for g in GRADES),
        cases=(*CASES, *SPACE_CASES),
        reads=READS,
        met=MET,
        saws_mm=HOLE_SAWS_MM,
        pipes=PIPES,
        forms=tuple(form_of(kind) for kind in operation_kinds()),
        instruments=INSTRUMENTS,
    )


@router.get("/glossary", response=list[Term])
def glossary(request: HttpRequest) -> list[Term]:
    """Words of the trade with their small drawings, and the fields that ask for them."""
    return list(TERMS)


@router.post("/operations/fresh", response=Operation)
def fresh(request: HttpRequest, body: FreshBody) -> HttpResponse:
    """A new operation near the axle that the job touches; it is not kept until the draft is."""
    op = fresh_operation(drafted(request, body.job_id, body.design, body.survey), body.kind)
    return HttpResponse(op.model_dump_json(), content_type="application/json")


@router.post("/operations/part", response=dict[str, object])
def part(request: HttpRequest, body: FreshPartBody) -> HttpResponse:
    """An optional part of an operation as it begins."""
    piece = fresh_part(drafted(request, body.job_id, body.design, body.survey), body.operation_id, body.at, body.choice)
    return HttpResponse(piece.model_dump_json(), content_type="application/json")


@router.post("/seats/shared", response=list[Seat])
def shared(request: HttpRequest, body: SeatsBody) -> list[Seat]:
    """Seats with the usual shares of an axle."""
    ends = body.both_ends
    found = seats_at_both_ends(body.seats, body.axle, body.line_mm) if ends else even_seats(body.seats, body.axle)
    return list(found)


@router.post("/suspensions/fresh", response=Suspension)
def suspension(request: HttpRequest, body: FreshSuspensionBody) -> HttpResponse:
    """A new suspension on the hubs as they stand; it is not kept until the draft is."""
    own = fresh_suspension(drafted(request, body.job_id, body.design, body.survey), body.axle, body.kind, body.before)
    return HttpResponse(own.model_dump_json(), content_type="application/json")


@router.post("/suspensions/part", response=dict[str, object])
def suspension_part(request: HttpRequest, body: FreshSuspensionPartBody) -> HttpResponse:
    """A part of a suspension as it begins, or of the shaft to the rear axle."""
    inputs = drafted(request, body.job_id, body.design, body.survey)
    if body.part in {"driveline", "bearing"}:
        piece = fresh_driveline_part(inputs, body.part)
    else:
        piece = fresh_suspension_part(inputs, body.suspension, body.part, body.kind, body.before)
    return HttpResponse(piece.model_dump_json(), content_type="application/json")
