"""Begin practice jobs, help with them, take accusations, and say how far somebody has come."""

import random
from collections import Counter

from django.conf import settings
from django.contrib.auth.models import User
from django.db import transaction
from django.shortcuts import get_object_or_404

from nodulant.base.errors import InputError
from nodulant.formats.jobfile import load_job
from nodulant.job.document import DesignRevision, Inputs, JobFile, OptionFile, SurveyRevision
from nodulant.practice.job import FAULTS, fault_of, practice_job, score
from nodulant_server.actions.transfer import store_job
from nodulant_server.models import Job, PracticeRun
from nodulant_server.roles import Acting, require

BASE, OPTION = "wherry.nodulant.json", "step"
SEEDS = 10_000
AT = "2026-11-01T18:00:00+00:00"


def base() -> Inputs:
    """The clean job that all practice jobs are made from."""
    return load_job((settings.ROOT / "demo" / BASE).read_bytes()).inputs(OPTION)


def begin(acting: Acting, user: User, fault: str | None = None, seed: int | None = None) -> PracticeRun:
    """A new job with one mistake, one that this person has met least; raises Forbidden, InputError."""
    require(acting, "log")
    met = Counter(PracticeRun.objects.filter(user=user).values_list("fault", flat=True))
    fewest = min(met[id_] for id_ in FAULTS)
    chance = random.SystemRandom()
    chosen = fault or chance.choice([id_ for id_ in FAULTS if met[id_] == fewest])
    number = chance.randrange(SEEDS) if seed is None else seed
    planted = practice_job(base(), chosen, number)
    count = PracticeRun.objects.filter(user=user).count() + 1
    inputs = planted.inputs
    revision = DesignRevision(number=1, at=AT, by="crew", note="", design=inputs.design)
    file = JobFile(
        name=f"Practice {count}",
        note=fault_of(chosen).story,
        shop=inputs.shop,
        surveys=(SurveyRevision(number=1, at=AT, by="crew", survey=inputs.survey),),
        options=(OptionFile(id="plan", name="As planned", revisions=(revision,)),),
        log=inputs.as_built.entries,
    )
    with transaction.atomic():
        job = store_job(acting, file)
        job.example = True
        job.save()
        return PracticeRun.objects.create(job=job, user=user, fault=chosen, seed=number, spot=planted.spot)


def run_of(acting: Acting, user: User, job: Job) -> PracticeRun:
    """Find a person's own run on a job; 404 for any other."""
    require(acting, "log")
    return get_object_or_404(PracticeRun, job=job, user=user)


def hint(run: PracticeRun) -> None:
    """One more; raises InputError where there is none left."""
    _refuse_over(run)
    if run.hints >= len(fault_of(run.fault).hints):
        raise InputError(
            "there is no further hint", field="/hint", found=str(run.hints), acceptable="accuse, or give up"
        )
    run.hints += 1
    run.save()


def accuse(run: PracticeRun, fault: str) -> None:
    """Say what is wrong; raises InputError for what nobody can accuse."""
    _refuse_over(run)
    fault_of(fault)
    if fault not in run.accused:
        run.accused = [*run.accused, fault]
        run.save()


def give_up(run: PracticeRun) -> None:
    """Be told what it was; it counts as not found."""
    _refuse_over(run)
    run.given_up = True
    run.save()


def is_over(run: PracticeRun) -> bool:
    """Found, or given up."""
    return run.given_up or run.fault in run.accused


def points_of(run: PracticeRun) -> int:
    """What it brought; nothing where it was given up."""
    return 0 if run.given_up else score(fault_of(run.fault), run.accused, run.hints).points


def _refuse_over(run: PracticeRun) -> None:
    if is_over(run):
        raise InputError(
            "this practice job is over", field="/job", found="found or given up", acceptable="begin another one"
        )
