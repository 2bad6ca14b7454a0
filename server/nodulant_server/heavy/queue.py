"""The queue between web processes and workers: rows for what was asked, its lease, its answer and whether it is called off.

Workers may stand on other machines; all that both sides share is the database.
"""

import time
from collections.abc import Iterator
from datetime import timedelta

import orjson
from django.conf import settings
from django.utils import timezone
from django_tasks_db.models import DBTaskResult
from ninja.errors import HttpError

from nodulant_server.heavy.kinds import Asked
from nodulant_server.heavy.worker import run_work
from nodulant_server.models import HeavyLines, HeavyWork, WorkerSeen
from nodulant_server.roles import Acting

MOST_A_PERSON = 2
MOST_TRIES = 2
LOOK_S = 0.1
TELL_S = 1.0
"""So often something is written to whoever waits, so that it is noticed when they are gone."""
KEPT = timedelta(hours=1)
NOBODY_S = 30.0
"""Waiting this long while no worker takes anything means that there is none."""


def queue_name(number: int) -> str:
    """The queue of a worker."""
    return f"warm-{number}"


def ask(kind: str, acting: Acting, job_id: int, asked: Asked) -> HeavyWork:
    """Put work in line; raises HttpError 429 where the person has as much under way as one may."""
    HeavyWork.objects.filter(asked_at__lt=timezone.now() - KEPT).delete()
    DBTaskResult.objects.finished().filter(finished_at__lt=timezone.now() - KEPT).delete()
    own = HeavyWork.objects.filter(of=acting.counted_as, cancel=False).exclude(state="over")
    if own.count() >= MOST_A_PERSON:
        raise HttpError(429, f"{MOST_A_PERSON} of your searches are under way: wait for one, or cancel it")
    work = HeavyWork.objects.create(
        kind=kind, of=acting.counted_as, job_id=job_id, asked=asked, queue=_queue_for(job_id)
    )
    run_work.using(queue_name=work.queue).enqueue(work.pk)
    return work


def _queue_for(job_id: int) -> str:
    """Where the job was last, unless others wait there and another worker is idle."""
    names = [queue_name(n) for n in range(settings.WORKERS)]
    under_way = list(HeavyWork.objects.filter(cancel=False).exclude(state="over").values_list("queue", flat=True))
    least = min(names, key=under_way.count)
    last = HeavyWork.objects.filter(job_id=job_id, queue__in=names).order_by("-pk").first()
    warm = last.queue if last is not None else names[job_id % len(names)]
    return warm if under_way.count(warm) <= under_way.count(least) else least


def follow(work: HeavyWork) -> Iterator[bytes]:
    """The answer's lines as they come, and a word every second on why it takes so long; closing it calls the work off."""
    seen, spoke, began = 0, time.monotonic(), time.monotonic()
    try:
        while True:
            over = HeavyWork.objects.filter(pk=work.pk, state="over").exists()  # before the lines: none is missed
            for row in HeavyLines.objects.filter(work=work.pk, pk__gt=seen):
                seen, spoke = row.pk, time.monotonic()
                yield bytes(row.content)
            if over:
                return
            if time.monotonic() - spoke > TELL_S:
                spoke = time.monotonic()
                yield _told(_standing(work.pk, spoke - began))
            time.sleep(LOOK_S)
    finally:
        HeavyWork.objects.filter(pk=work.pk).exclude(state="over").update(cancel=True)


def in_whole(work: HeavyWork) -> bytes:
    """What a paper's worker wrote, in one piece; raises HttpError 503 with why there is none."""
    parts = [part for part in follow(work) if not part.startswith(b'{"told"')]
    wrong = next((part for part in parts if part.startswith(b'{"problem"')), None)
    if wrong is not None or not parts:
        words = orjson.loads(wrong)["problem"] if wrong else "no worker made the paper"
        raise HttpError(503, f"{words}: try again in a minute")
    return b"".join(parts)


def _told(words: str) -> bytes:
    return orjson.dumps({"told": words}) + b"\n"


def _standing(pk: int, waited_s: float) -> str:
    """Why there is nothing new; work whose worker is gone is put in line again, and given up the second time."""
    work = HeavyWork.objects.get(pk=pk)
    if work.state == "waiting":
        ahead = HeavyWork.objects.filter(queue=work.queue, pk__lt=pk, cancel=False).exclude(state="over").count()
        if ahead:
            return f"{ahead} before this one"
        if waited_s > NOBODY_S and not _any_worker():
            return "no worker answers: whoever runs the server has to start one"
        return "waits for a worker"
    if work.leased_until is None or work.leased_until > timezone.now():
        return "at work"
    lost = HeavyWork.objects.filter(pk=pk, state="running", leased_until=work.leased_until)
    if work.tries >= MOST_TRIES:
        if lost.update(state="over"):
            words = "the worker stopped twice at this: it was given up; tell whoever runs the server"
            HeavyLines.objects.create(work=work, content=orjson.dumps({"problem": words}) + b"\n")
        return "given up"
    if lost.update(state="waiting", leased_until=None):
        others = [queue_name(n) for n in range(settings.WORKERS)]
        run_work.using(queue_name=others[(others.index(work.queue) + 1) % len(others)]).enqueue(pk)
    return "the worker stopped: begun again"


def _any_worker() -> bool:
    return WorkerSeen.objects.filter(at__gt=timezone.now() - timedelta(seconds=NOBODY_S)).exists()
