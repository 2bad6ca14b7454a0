"""Log entries: sign a step, take a reading, override, decide, withdraw."""

from django.http import HttpRequest
from ninja import Router

from nodulant.asbuilt.log import Entry
from nodulant_server.actions.log import entries_of, give_reason, take_length, take_level, take_reading, withdraw
from nodulant_server.actions.sign import Signing, sign_step
from nodulant_server.api.access import acting, job_of
from nodulant_server.api.bodies import LengthBody, LevelBody, ReadingBody, ReasonBody, SignBody, WithdrawBody
from nodulant_server.api.files import current

router = Router()


@router.get("/jobs/{job_id}/log", response=list[Entry])
def entries(request: HttpRequest, job_id: int) -> list[Entry]:
    """The whole log."""
    return list(entries_of(job_of(request, job_id)))


@router.post("/options/{option_id}/sign", response=list[Entry])
def sign(request: HttpRequest, option_id: int, body: SignBody) -> list[Entry]:
    """Sign a step; a reading hold point takes its reading along."""
    option, inputs = current(request, option_id)
    reading = body.reading.model_dump() if body.reading else None
    return sign_step(acting(request), option.job, inputs.design, Signing(body.step, reading, body.note))


@router.post("/options/{option_id}/readings", response=Entry)
def reading(request: HttpRequest, option_id: int, body: ReadingBody) -> Entry:
    """Take an as-built reading that the option's design asks for."""
    option, inputs = current(request, option_id)
    return take_reading(acting(request), option.job, inputs, body.model_dump())


@router.post("/jobs/{job_id}/lengths", response=Entry)
def length(request: HttpRequest, job_id: int, body: LengthBody) -> Entry:
    """Log a length taped between two points of the frame."""
    job = job_of(request, job_id)
    return take_length(acting(request), job, body.model_dump())


@router.post("/jobs/{job_id}/levels", response=Entry)
def level(request: HttpRequest, job_id: int, body: LevelBody) -> Entry:
    """Log how high a point of the frame stands over one level line."""
    return take_level(acting(request), job_of(request, job_id), body.model_dump())


@router.post("/jobs/{job_id}/reasons", response=Entry)
def reason(request: HttpRequest, job_id: int, body: ReasonBody) -> Entry:
    """Override a lock or step, or decide on a deviation, with a reason."""
    return give_reason(acting(request), job_of(request, job_id), body.subject, body.reason, body.choice)


@router.post("/jobs/{job_id}/withdraw", response=Entry)
def take_back(request: HttpRequest, job_id: int, body: WithdrawBody) -> Entry:
    """Take back an entry by a counter-entry."""
    return withdraw(acting(request), job_of(request, job_id), body.entry, body.reason)
