"""``manage.py worker --queue N``: does the heavy work of one queue until stopped."""

import contextlib
import os
import threading
import time

from django.core.management.base import BaseCommand, CommandParser
from django.db import DatabaseError, connections
from django.utils import timezone
from django_tasks_db.management.commands.db_worker import Worker

from nodulant_server.heavy import kinds  # all that a run needs is loaded before the first one
from nodulant_server.heavy.queue import queue_name
from nodulant_server.models import WorkerSeen

SEEN_S = 10.0
NICE = 10
"""Answers come before searches."""


class Command(BaseCommand):
    """Take work, one piece at a time."""

    help = "Do heavy work (searches, sweeps, papers) of a queue; on this machine or another one on the same database."

    def add_arguments(self, parser: CommandParser) -> None:
        """Which queue, and whose child it is."""
        parser.add_argument("--queue", type=int, default=0)
        parser.add_argument("--parent", type=int, default=0, help="end when this process does")

    def handle(self, *args: str, queue: int = 0, parent: int = 0, **options: str) -> None:
        """Work until told to stop."""
        os.nice(NICE)
        take(queue, parent)


def take(queue: int, parent: int = 0) -> None:
    """Take the work of a queue until told to stop, or until ``parent``, if any, is gone."""
    if parent:
        threading.Thread(target=_with, args=(parent,), daemon=True).start()
    worker = Worker(
        queue_names=[queue_name(queue)],
        interval=0.15,
        batch=False,
        backend_name="default",
        startup_delay=False,
        max_tasks=None,
        worker_id=f"{queue}-{os.getpid()}",
        excluded_queue_names=[],
    )
    threading.Thread(target=_seen, args=(queue_name(queue),), daemon=True).start()
    worker.configure_signals()
    worker.run()


def _seen(queue: str) -> None:
    """Say again and again that there is somebody at this queue."""
    while True:
        with contextlib.suppress(DatabaseError):
            WorkerSeen.objects.update_or_create(queue=queue, defaults={"at": timezone.now()})
        connections.close_all()
        time.sleep(SEEN_S)


def _with(parent: int) -> None:
    """End when the process that started this one is gone, however it went."""
    while os.getppid() == parent:
        time.sleep(1.0)
    os._exit(0)


__all__ = ["Command", "kinds"]
