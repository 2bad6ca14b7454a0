"""One run of heavy work in a worker: takes it, says again and again that it is alive, writes its lines, heeds a cancel."""

import logging
import os
import threading
import time
from collections.abc import Iterator
from datetime import timedelta

import orjson
from django.db import connections
from django.utils import timezone
from django_tasks import task

from nodulant_server.models import HeavyLines, HeavyWork

log = logging.getLogger(__name__)
LEASE_S = 8.0
BEAT_S = 2.0
WRITE_S = 0.25
STUCK_S = 60.0
"""So long after its limit a run that takes no step any more is ended with its process."""


@task()
def run_work(pk: int) -> None:
    """Do a piece of work unless somebody else has it, or it was called off."""
    # what it is made of is loaded when first needed: a web process only asks
    from nodulant_server.heavy.kinds import KINDS, LIMIT_S  # noqa: PLC0415

    lease = timezone.now() + timedelta(seconds=LEASE_S)
    work = HeavyWork.objects.filter(pk=pk).first()
    if work is None or work.cancel:
        HeavyWork.objects.filter(pk=pk).update(state="over")
        return
    mine = HeavyWork.objects.filter(pk=pk, state="waiting")
    if not mine.update(state="running", leased_until=lease, tries=work.tries + 1):
        return
    alive = threading.Event()
    threading.Thread(target=_beat, args=(pk, alive, LIMIT_S + STUCK_S), daemon=True).start()
    try:
        _write(pk, KINDS[work.kind](work.asked), time.monotonic() + LIMIT_S)
    except Exception:
        log.exception("heavy work %s (%s) broke", pk, work.kind)
        _append(pk, [orjson.dumps({"problem": f"something went wrong here (work {pk})"}) + b"\n"])
    finally:
        alive.set()
        HeavyWork.objects.filter(pk=pk).update(state="over")


def _write(pk: int, lines: Iterator[bytes], until: float) -> None:
    """Write lines in portions; end at the limit, or when the work is called off."""
    held: list[bytes] = []
    wrote = time.monotonic()
    for content in lines:
        held.append(content)
        now = time.monotonic()
        if now - wrote < WRITE_S:
            continue
        _append(pk, held)
        held, wrote = [], now
        if HeavyWork.objects.filter(pk=pk, cancel=True).exists():
            return
        if now > until:
            words = "stopped at the limit of time: what was found until here stands"
            held.append(orjson.dumps({"problem": words}) + b"\n")
            break
    _append(pk, held)


def _append(pk: int, lines: list[bytes]) -> None:
    if lines:
        HeavyLines.objects.create(work_id=pk, content=b"".join(lines))


def _beat(pk: int, done: threading.Event, most_s: float) -> None:
    """Renew the lease while the work goes on; a run that is stuck beyond its limit ends with its process."""
    began = time.monotonic()
    try:
        while not done.wait(BEAT_S):
            if time.monotonic() - began > most_s:
                log.error("heavy work %s is stuck: its worker ends", pk)
                os._exit(1)
            HeavyWork.objects.filter(pk=pk).update(leased_until=timezone.now() + timedelta(seconds=LEASE_S))
    finally:
        connections.close_all()
