"""The sweep: streamed pair by pair, one pair's map, the cut that it asks for, and the frame's solids for the view in space."""

from django.http import HttpRequest, HttpResponse, StreamingHttpResponse
from ninja import Router

from nodulant.evaluate import evaluate
from nodulant.evaluate.clearances.between import between, things
from nodulant.evaluate.clearances.rod_hole import CutFromSweep, cut_from_sweep
from nodulant.evaluate.clearances.solids import FrameSolids, frame_solids
from nodulant.evaluate.clearances.sweep import ClearanceMap, map_of
from nodulant.evaluate.suspensions.tuck import least_tuck
from nodulant.job.document import Inputs
from nodulant.search.tuck import FoundTuck
from nodulant_server.actions.sweeps import sweep_on_file
from nodulant_server.api.access import acting, option_of
from nodulant_server.api.bodies import DraftBody
from nodulant_server.api.compute import BARE, drafted
from nodulant_server.api.problems import problem
from nodulant_server.api.search_bodies import (
    BetweenBody,
    MapBody,
    RodHoleBody,
    SweepBody,
    SweepKeptOut,
    SweepLine,
    ThingsApart,
    TuckBody,
)
from nodulant_server.heavy.port import answered

router = Router()


def _inputs(request: HttpRequest, body: DraftBody) -> Inputs:
    inputs = drafted(request, body.job_id, body.design, body.survey)
    evaluate(inputs, BARE)
    return inputs


@router.post("/sweep", response=SweepLine)
def run(request: HttpRequest, body: SweepBody) -> StreamingHttpResponse:
    """Every pair as it is worked out, then all of them with their checks. Closing the connection cancels."""
    inputs, own = _inputs(request, body), acting(request)
    option = None if body.option_id is None else option_of(request, body.option_id, job_id=body.job_id)
    person = own.user.pk if own.user else None
    return answered("sweep", own, body.job_id, inputs, option_id=option.pk if option else None, person=person)


@router.get("/options/{option_id}/sweep", response=SweepKeptOut)
def on_file(request: HttpRequest, option_id: int) -> SweepKeptOut:
    """The sweep that is kept of an option, and whether its newest revision is still what was swept."""
    return SweepKeptOut(kept=sweep_on_file(option_of(request, option_id)))


@router.post("/sweep/map", response=ClearanceMap)
def clearance_map(request: HttpRequest, body: MapBody) -> ClearanceMap | HttpResponse:
    """One pair's clearance over travel and steer; a 404 where the design has no such pair."""
    found = map_of(_inputs(request, body), body.pair_id)
    return found if found is not None else problem(404, "not-found", "this design has no such pair")


@router.post("/between", response=ThingsApart)
def apart(request: HttpRequest, body: BetweenBody) -> ThingsApart:
    """How far two things are apart, standing or through all motion; a 422 tells why that cannot be asked."""
    inputs = _inputs(request, body)
    found = between(inputs, body.one, body.two) if body.one and body.two else None
    return ThingsApart(things=things(inputs), found=found)


@router.post("/sweep/cut", response=CutFromSweep)
def cut(request: HttpRequest, body: RodHoleBody) -> CutFromSweep:
    """Hole or notch for what passes a rail; a 422 with the reason where nothing passes it."""
    return cut_from_sweep(_inputs(request, body), body.axle, body.moving, body.side)


@router.post("/find/tuck", response=FoundTuck)
def tuck(request: HttpRequest, body: TuckBody) -> FoundTuck:
    """The least that the wheels go in to clear their wings, each way solved for itself; a 422 with the reason where there is none."""
    return least_tuck(_inputs(request, body), body.suspension, body.most_mm, body.same_mm)


@router.post("/solids", response=FrameSolids)
def solids(request: HttpRequest, body: DraftBody) -> FrameSolids:
    """The planned rails as prisms, their cuts taken out."""
    return frame_solids(_inputs(request, body))
