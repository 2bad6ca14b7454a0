"""Searches of a suspension: holes, windows, coilovers, bump steer, ways down, bought arms. A 422 tells why there is nothing."""

from django.http import HttpRequest, HttpResponse, StreamingHttpResponse
from ninja import Router

from nodulant.axles.points import HardPoint
from nodulant.axles.suspension import Suspension
from nodulant.evaluate import evaluate
from nodulant.evaluate.brackets.mount_follows import brought_up_to_date
from nodulant.evaluate.suspensions.bought_arm import ArmLaidOver, bought_arm
from nodulant.evaluate.suspensions.fitted import fitted, steer_cured
from nodulant.evaluate.suspensions.hung import hung
from nodulant.evaluate.suspensions.travel import suspension_studies
from nodulant.evaluate.suspensions.ways_down import WaysDown, ways_down
from nodulant.frame.ops.union import Operation
from nodulant.job.document import Inputs
from nodulant.job.riding import in_place, re_hung
from nodulant.job.taped_points import taped_point
from nodulant.search.bump_steer import FoundSteer
from nodulant.search.fit_coilover import FoundCoil
from nodulant_server.api.access import acting
from nodulant_server.api.bodies import DraftBody
from nodulant_server.api.compute import BARE, drafted
from nodulant_server.api.search_bodies import (
    ArmBody,
    CureSteerBody,
    FindHolesBody,
    FindLine,
    FindWindowBody,
    FitCoilBody,
    RidesBody,
    SuspensionBody,
    TapedBody,
    WaysBody,
)
from nodulant_server.heavy.port import answered

router = Router()


def searched(request: HttpRequest, body: SuspensionBody) -> Inputs:
    """A draft that is whole and has the suspension that is asked about; raises InvalidInputs and UnknownReference."""
    inputs = drafted(request, body.job_id, body.design, body.survey)
    hung(inputs, body.suspension)
    evaluate(inputs, BARE)
    return inputs


def _own(body: SuspensionBody) -> dict[str, object]:
    """What is asked beside the draft, which goes along as inputs."""
    return {**body.model_dump(mode="json", exclude={"survey"}), "survey": None}


@router.post("/find/holes", response=FindLine)
def holes(request: HttpRequest, body: FindHolesBody) -> StreamingHttpResponse:
    """Search for bracket holes; answered as the search for plates is."""
    return answered("holes", acting(request), body.job_id, searched(request, body), body=_own(body))


@router.post("/find/window", response=FindLine)
def window(request: HttpRequest, body: FindWindowBody) -> StreamingHttpResponse:
    """Search where one end of a link goes; answered as the search for plates is."""
    return answered("window", acting(request), body.job_id, searched(request, body), body=_own(body))


@router.post("/find/nest", response=FindLine)
def nested(request: HttpRequest, body: DraftBody) -> StreamingHttpResponse:
    """Lay the draft's plates out on the shop's offcuts and sheets; answered as the search for plates is."""
    inputs = drafted(request, body.job_id, body.design, body.survey)
    evaluate(inputs, BARE)
    return answered("nest", acting(request), body.job_id, inputs)


@router.post("/find/coilover", response=FoundCoil)
def coilover(request: HttpRequest, body: FitCoilBody) -> FoundCoil:
    """Rate, coil and upper mount for a wish."""
    return fitted(searched(request, body), body.suspension, body.wish)


@router.post("/find/bump-steer", response=FoundSteer)
def bump_steer(request: HttpRequest, body: CureSteerBody) -> FoundSteer:
    """What cures bump steer."""
    return steer_cured(searched(request, body), body.suspension, body.wish)


@router.post("/ways-down", response=WaysDown)
def lowered(request: HttpRequest, body: WaysBody) -> WaysDown:
    """A front lowered in several ways, side by side, where it is one of wishbones or struts."""
    return ways_down(searched(request, body), body.suspension, body.drop_mm)


@router.post("/bought-arm", response=ArmLaidOver)
def arm_over(request: HttpRequest, body: ArmBody) -> ArmLaidOver:
    """Which single change lets a bought arm hold the ball joint where it was."""
    return bought_arm(searched(request, body), body.suspension, body.arm, body.bought)


@router.post("/rides", response=Suspension)
def rides(request: HttpRequest, body: RidesBody) -> Suspension:
    """The suspension riding with something else, standing where it stood."""
    return re_hung(searched(request, body), body.suspension, body.rides, body.path)


@router.post("/points/taped", response=HardPoint)
def taped(request: HttpRequest, body: TapedBody) -> HardPoint:
    """A hard point from what was measured of it."""
    inputs = drafted(request, body.job_id, body.design, body.survey)
    return taped_point(inputs, body.suspension, body.path, body.on, body.taped, body.before)


@router.post("/mounts", response=list[Operation])
def mounts_up_to_date(request: HttpRequest, body: DraftBody) -> HttpResponse:
    """The draft's operations with every mount that its suspensions ask for, each where its joint is."""
    inputs = in_place(drafted(request, body.job_id, body.design, body.survey))
    evaluate(inputs, BARE)
    operations = brought_up_to_date(inputs, suspension_studies(inputs))
    rows = ",".join(op.model_dump_json() for op in operations)
    return HttpResponse(f"[{rows}]", content_type="application/json")
