"""Practice jobs: begin, hints, accusations, and how far one has come; what is planted is never sent before it is over."""

from typing import Annotated

from django.contrib.auth.models import User
from django.http import HttpRequest
from django.shortcuts import get_object_or_404
from ninja import Router
from pydantic import Field

from nodulant.base.model import Frozen
from nodulant.practice.fault import FaultChoice
from nodulant.practice.job import CHOICES, FAULTS, Score, fault_of, score
from nodulant_server.actions import practise
from nodulant_server.api.access import acting, job_of
from nodulant_server.models import PracticeRun

router = Router()


class PracticeRow(Frozen):
    """One practice job as far as its learner is."""

    job_id: int
    name: str
    story: str
    hints: tuple[str, ...]
    """Those that were asked for."""
    more_hints: int
    accused: tuple[str, ...]
    """Names of what was accused."""
    over: bool
    score: Score
    truth: str
    """What it was and where; empty until it is over."""


class PracticePage(Frozen):
    """All of one person's, newest first; what may be accused; how far one has come."""

    rows: tuple[PracticeRow, ...]
    choices: tuple[FaultChoice, ...]
    found: int
    over: int
    points: int
    met: int
    """Kinds of mistake that were met, of so many."""
    kinds: int


class AccuseBody(Frozen):
    """What is wrong."""

    fault: Annotated[str, Field(max_length=40)]


@router.get("/practice", response=PracticePage)
def page(request: HttpRequest) -> PracticePage:
    """Every practice job of whoever asks."""
    own = PracticeRun.objects.filter(user=_user(request), job__deleted_at=None)
    runs = list(own.select_related("job").order_by("-pk"))
    rows = tuple(_row(run) for run in runs)
    return PracticePage(
        rows=rows,
        choices=CHOICES,
        found=sum(r.score.found for r in rows),
        over=sum(r.over for r in rows),
        points=sum(practise.points_of(run) for run in runs),
        met=len({run.fault for run in runs}),
        kinds=len(FAULTS),
    )


@router.post("/practice", response=PracticeRow)
def begin(request: HttpRequest) -> PracticeRow:
    """A new job with one mistake in it."""
    return _row(practise.begin(acting(request), _user(request)))


@router.post("/practice/{job_id}/hint", response=PracticeRow)
def hint(request: HttpRequest, job_id: int) -> PracticeRow:
    """The next hint; each costs points."""
    run = _run(request, job_id)
    practise.hint(run)
    return _row(run)


@router.post("/practice/{job_id}/accuse", response=PracticeRow)
def accuse(request: HttpRequest, job_id: int, body: AccuseBody) -> PracticeRow:
    """Say what is wrong; a wrong accusation costs points."""
    run = _run(request, job_id)
    practise.accuse(run, body.fault)
    return _row(run)


@router.post("/practice/{job_id}/give-up", response=PracticeRow)
def give_up(request: HttpRequest, job_id: int) -> PracticeRow:
    """Be told what it was."""
    run = _run(request, job_id)
    practise.give_up(run)
    return _row(run)


def _user(request: HttpRequest) -> User:
    return get_object_or_404(User, pk=request.user.pk)


def _run(request: HttpRequest, job_id: int) -> PracticeRun:
    return practise.run_of(acting(request), _user(request), job_of(request, job_id))


def _row(run: PracticeRun) -> PracticeRow:
    fault, over = fault_of(run.fault), practise.is_over(run)
    return PracticeRow(
        job_id=run.job_id,
        name=run.job.name,
        story=fault.story,
        hints=fault.hints[: run.hints],
        more_hints=0 if over else len(fault.hints) - run.hints,
        accused=tuple(FAULTS[id_].name for id_ in run.accused if id_ in FAULTS),
        over=over,
        score=score(fault, run.accused, run.hints),
        truth=f"{fault.name}: {run.spot}. {fault.costs} About {fault.hours:g} hours of work again." if over else "",
    )
