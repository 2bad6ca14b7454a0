"""Calls of the core: evaluate, parse, find, patterns, report."""

import hashlib
import logging
from typing import Any

import orjson
from django.core.cache import cache
from django.http import HttpRequest, HttpResponse, StreamingHttpResponse
from ninja import Router
from pydantic.main import IncEx

from nodulant.begin.first_answer import FirstAnswer, first_answer
from nodulant.checks.groups import counts
from nodulant.evaluate import Evaluation, InvalidInputs, Want, evaluate
from nodulant.evaluate.side_by_side import SideBySide, side_by_side
from nodulant.evaluate.suspensions.travel import Moved, moved
from nodulant.formats.paper import pages_of
from nodulant.formats.rail_drawn import DrawnSection, section_from_drawing, stations_from_outline
from nodulant.formats.stations_csv import read_stations
from nodulant.gauges.collect import gauges_of
from nodulant.gauges.gauge import Gauge
from nodulant.handcheck import HandCheck, hand_check
from nodulant.job.document import Design, Inputs
from nodulant.parts.cope import Cope
from nodulant.parts.wheel import Wheel
from nodulant.patterns.collect import patterns_of
from nodulant.patterns.cope import cope_wrap
from nodulant.patterns.pattern import Pattern
from nodulant.stock.order import OrderList, order_list
from nodulant.supports.bodies import situations
from nodulant.supports.lift import Lift, fresh_lift
from nodulant.supports.look import SupportsFound, look
from nodulant.supports.places import fresh_stand, places
from nodulant.supports.support import Support
from nodulant.survey.rail import Station
from nodulant.survey.vehicle import Survey
from nodulant.units.inline import told_in
from nodulant_server.actions.log import inputs_of
from nodulant_server.api.access import acting, job_of, option_of
from nodulant_server.api.bodies import (
    CompareBody,
    DraftBody,
    EvaluateBody,
    OptionCounts,
    OutlineBody,
    Pages,
    PagesBody,
    SectionBody,
    StationsBody,
    TravelBody,
    WheelFace,
)
from nodulant_server.api.search_bodies import FindBody, FindLine, OrderBody, RemedyBody
from nodulant_server.heavy.port import answered
from nodulant_server.models import Job, Option

router = Router()
BARE = Want(
    strips=False, parts=False, steps=False, readings=False, frame=False, interim=False, along=False, travel=False
)
COUNTED_ONLY = Want(strips=False, parts=False, readings=False)
log = logging.getLogger(__name__)
WHYS: IncEx = {"why": True, "basis": True, "remedy": True, "scale": True, "changed_limit": True}
SLIM: dict[str, IncEx | bool] = {
    "checks": {"__all__": WHYS},
    "rails": {"__all__": {"measured": True, "built_cuts": True}},
    "groups": True,
    "before_teardown": True,
    "checklist": True,
    "figures": True,
    "steps": True,
    "readings": True,
    "taped": True,
    "frame_times": True,
    "marks": True,
    "teardown_locked": True,
    "cut_locked": True,
}


def _json(data: dict[str, Any]) -> HttpResponse:
    """A dumped model as it is, unchecked; a number is a number, whether Python's or an array's."""
    content = orjson.dumps(data, option=orjson.OPT_SERIALIZE_NUMPY)
    return HttpResponse(content, content_type="application/json")


def drafted(request: HttpRequest, job_id: int, design: Design, survey: Survey | None, *, logged: bool = True) -> Inputs:
    """A draft on its job, with the job's shop and, unless not ``logged``, its log."""
    return inputs_of(job_of(request, job_id), design, survey, logged=logged)


@router.post("/evaluate", response=Evaluation)
def run(request: HttpRequest, body: EvaluateBody) -> HttpResponse:
    """Evaluate a draft; with ``slim`` the whys and what a drag does not change are left out."""
    want = body.want
    result = evaluate(drafted(request, body.job_id, body.design, body.survey, logged=want.as_built), want)
    data = result.model_dump(exclude=SLIM if body.slim else None)
    response = _json(data)
    response["X-Sequence"] = str(body.sequence)
    return response


@router.post("/first-answer", response=FirstAnswer)
def first(request: HttpRequest, body: DraftBody) -> HttpResponse:
    """What a draft's readings are good for: a notch with its plates, and what other bump travels would ask."""
    return _json(first_answer(drafted(request, body.job_id, body.design, body.survey)).model_dump())


@router.post("/travel", response=Moved)
def travel(request: HttpRequest, body: TravelBody) -> HttpResponse:
    """The suspensions alone, while a hand drags a point; whys are left out, at a glance the checks too."""
    # the log has no part in it: with the survey given nothing need be looked up
    whole = (
        Inputs(survey=body.survey, design=body.design)
        if body.survey
        else drafted(request, body.job_id, body.design, None)
    )
    found = moved(whole, glance=body.glance, only=body.only)
    data = found.model_dump(exclude={"checks": {"__all__": WHYS}})
    return _json(data)


@router.post("/compare", response=SideBySide)
def compare(request: HttpRequest, body: CompareBody) -> SideBySide:
    """Two to four options of a job in one table: each one's newest revision."""
    job = job_of(request, body.job_id)
    options = [option_of(request, id_, job=job) for id_ in body.option_ids]
    return side_by_side([(str(o.pk), o.name, inputs_of(job, o.head().design())) for o in options])


@router.get("/jobs/{job_id}/counts", response=list[OptionCounts])
def how_it_stands(request: HttpRequest, job_id: int) -> list[OptionCounts]:
    """Every option's newest revision in groups of checks by verdict; empty where it cannot be evaluated."""
    job = job_of(request, job_id)
    return [_counted(job, option) for option in job.live_options()]


def _counted(job: Job, option: Option) -> OptionCounts:
    """By what is in it: the list is opened again and again, and most of its jobs are as they were."""
    inputs = inputs_of(job, option.head().design())
    key = f"counts:{hashlib.sha256(inputs.model_dump_json().encode()).hexdigest()}"
    own: dict[str, Any] | None = cache.get(key)
    if own is None:
        cache.set(key, own := _worked_out(inputs), None)
    return OptionCounts(id=option.pk, name=option.name, **own)


def _worked_out(inputs: Inputs) -> dict[str, Any]:
    try:
        found = evaluate(inputs, COUNTED_ONLY)
    except InvalidInputs:
        return {"counts": {}}
    worst = next((g.title for g in found.groups if g.verdict == "fails"), "")
    following = next((s for s in found.steps if s.status == "open"), None)
    side = f", {following.side}" if following is not None and following.side else ""
    return {
        "counts": counts(found.groups),
        "rail": next((r for r in found.rails if r.side == "left"), None),
        "worst": worst,
        "next_step": "" if following is None else f"{following.spec.title}{side}",
    }


@router.post("/stations", response=list[Station])
def stations(request: HttpRequest, body: StationsBody) -> list[Station]:
    """Read stations from CSV; errors name the line."""
    return list(read_stations(body.text, body.unit))


@router.post("/rail/outline", response=list[Station])
def rail_outline(request: HttpRequest, body: OutlineBody) -> list[Station]:
    """Stations from the side outline of a rail in DXF or SVG."""
    return list(stations_from_outline(body.text, body.unit, body.front_x_mm, body.like))


@router.post("/rail/section", response=DrawnSection)
def rail_section(request: HttpRequest, body: SectionBody) -> DrawnSection:
    """Kind and sizes from a rail's cross-section in DXF or SVG."""
    return section_from_drawing(body.text, body.unit)


@router.post("/find/sets", response=FindLine)
def sets(request: HttpRequest, body: FindBody) -> StreamingHttpResponse:
    """Search; the answer is lines of JSON: progress, then what was found or a problem. Closing the connection cancels."""
    inputs = drafted(request, body.job_id, body.design, body.survey)
    evaluate(inputs)
    return answered("sets", acting(request), body.job_id, inputs, operation_id=body.operation_id)


@router.post("/remedies", response=FindLine)
def remedies(request: HttpRequest, body: RemedyBody) -> StreamingHttpResponse:
    """Try what mends a group; answered as a search is."""
    inputs = drafted(request, body.job_id, body.design, body.survey)
    evaluate(inputs, BARE)
    return answered("remedies", acting(request), body.job_id, inputs, key=body.key)


@router.post("/handcheck", response=HandCheck)
def handcheck(request: HttpRequest, body: DraftBody) -> HandCheck:
    """The engineer's sheet of a draft."""
    return hand_check(drafted(request, body.job_id, body.design, body.survey))


@router.post("/wheel", response=WheelFace)
def wheel_face(request: HttpRequest, body: Wheel) -> WheelFace:
    """Offset and backspacing of a wheel that is told by one of them."""
    return WheelFace(offset_mm=round(body.face_mm, 2), backspacing_mm=round(body.back_mm, 2))


@router.post("/order", response=OrderList)
def order(request: HttpRequest, body: OrderBody) -> OrderList:
    """The order list of a draft."""
    inputs = drafted(request, body.job_id, body.design, body.survey)
    evaluate(inputs, BARE)
    return order_list(inputs, plan=body.plan)


@router.post("/gauges", response=list[Gauge])
def gauges(request: HttpRequest, body: DraftBody) -> list[Gauge]:
    """Gauges and jigs of a draft, in the order they are needed."""
    inputs = drafted(request, body.job_id, body.design, body.survey)
    evaluate(inputs, BARE)
    return list(gauges_of(inputs))


@router.post("/supports", response=SupportsFound)
def supports(request: HttpRequest, body: DraftBody) -> SupportsFound:
    """How a draft's frame stands on its supports, before each cut and after it."""
    inputs = drafted(request, body.job_id, body.design, body.survey)
    return look(inputs.survey, inputs.design.operations, inputs.design.supports, inputs.design.lifts)


@router.post("/supports/places", response=list[Support])
def support_places(request: HttpRequest, body: DraftBody) -> list[Support]:
    """Places for stands that hold every body of a draft through all its cuts; none where no place does."""
    inputs = drafted(request, body.job_id, body.design, body.survey)
    return list(places(inputs.survey, situations(inputs.survey, inputs.design.operations, inputs.design.lifts)))


@router.post("/supports/fresh", response=Support)
def support_fresh(request: HttpRequest, body: DraftBody) -> Support:
    """One more stand for a draft."""
    inputs = drafted(request, body.job_id, body.design, body.survey)
    return fresh_stand(inputs.survey, inputs.design.supports)


@router.post("/lifts/fresh", response=Lift)
def another_lift(request: HttpRequest, body: DraftBody) -> Lift:
    """One more lift: the heaviest thing that is still on the frame."""
    inputs = drafted(request, body.job_id, body.design, body.survey)
    return fresh_lift(inputs.survey, inputs.design.lifts)


@router.post("/cope", response=Pattern)
def cope(request: HttpRequest, body: Cope) -> Pattern:
    """The wrap of a tube that is coped to lie on another."""
    return cope_wrap(body)


@router.post("/patterns", response=list[Pattern])
def patterns(request: HttpRequest, body: EvaluateBody) -> list[Pattern]:
    """Patterns of a draft."""
    inputs = drafted(request, body.job_id, body.design, body.survey)
    evaluate(inputs)
    return list(patterns_of(inputs.survey, inputs.design.operations))


@router.post("/patterns/pages", response=Pages)
def pattern_pages(request: HttpRequest, body: PagesBody) -> Pages:
    """How many pages all patterns of a draft take."""
    inputs = drafted(request, body.job_id, body.design, body.survey)
    evaluate(inputs, BARE)
    found = [told_in(p, inputs.shop.style) for p in patterns_of(inputs.survey, inputs.design.operations)]
    return Pages(pages=len(pages_of(found, body.paper, once=body.once)))
