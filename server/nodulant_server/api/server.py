"""How the server is: for a monitor that signs in nowhere, and for the shop's owner."""

import shutil
from datetime import timedelta

from django.conf import settings
from django.db import DatabaseError, connection
from django.db.migrations.executor import MigrationExecutor
from django.http import HttpRequest, HttpResponse
from django.utils import timezone
from ninja import Router

from nodulant_server.api.access import acting
from nodulant_server.api.people_bodies import CopyMade, Health, ServerState, WorkerState
from nodulant_server.audit import note
from nodulant_server.backup import listed
from nodulant_server.floor.upkeep import backed_up, kept, missing, revisions
from nodulant_server.heavy.queue import NOBODY_S, queue_name
from nodulant_server.models import WorkerSeen
from nodulant_server.roles import require

router = Router()
LEAST_FREE_MB = 500


def _free_mb() -> int:
    return shutil.disk_usage(settings.DATA).free // 1_000_000


def _workers() -> list[WorkerState]:
    seen = dict(WorkerSeen.objects.values_list("queue", "at"))
    fresh = timezone.now() - timedelta(seconds=NOBODY_S)
    names = [queue_name(n) for n in range(settings.WORKERS)]
    return [WorkerState(queue=name, there=name in seen and seen[name] > fresh) for name in names]


@router.get("/health", response={200: Health, 503: Health}, auth=None)
def health(request: HttpRequest) -> tuple[int, Health]:
    """Whether it works: 200, or 503 with what does not; for a monitor, without names or numbers of anybody's."""
    wrong = []
    try:
        executor = MigrationExecutor(connection)
        if executor.migration_plan(executor.loader.graph.leaf_nodes()):
            wrong.append("the database waits for 'manage.py migrate'")
        if not all(worker.there for worker in _workers()):
            wrong.append("a worker is missing: searches and papers wait")
        if missing():
            wrong.append("stored revisions are missing")
    except DatabaseError:
        wrong.append("the database does not answer")
    if _free_mb() < LEAST_FREE_MB:
        wrong.append("the disk is nearly full")
    if kept().trouble:
        wrong.append("the last copy failed")
    return (503 if wrong else 200), Health(ok=not wrong, wrong=wrong)


def _copies() -> list[CopyMade]:
    files = listed(settings.DATA / "backups")
    return [CopyMade(name=file.name, mb=round(file.stat().st_size / 1e6, 1)) for file in files]


@router.get("/server", response=ServerState)
def state(request: HttpRequest) -> ServerState:
    """Copies, disk and workers, for the shop's owner."""
    require(acting(request), "people")
    last = kept()
    return ServerState(
        database=connection.vendor,
        revisions=revisions(),
        missing=missing(),
        backup_at=last.backup_at or None,
        backup_trouble=last.trouble,
        copies=_copies(),
        free_mb=_free_mb(),
        workers=_workers(),
        folder=str(settings.DATA / "backups"),
    )


@router.post("/server/backup", response=ServerState)
def make_copy(request: HttpRequest) -> ServerState | HttpResponse:
    """Make a copy now."""
    own = acting(request)
    require(own, "people")
    backed_up()
    note(own, "copy made", kept().backup_file)
    return state(request)
