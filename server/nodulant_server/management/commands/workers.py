"""``manage.py workers --count N``: loads what heavy work needs once, then parts into a worker for each queue."""

import contextlib
import gc
import os
import time

from django.core.management.base import BaseCommand, CommandParser
from django.db import connections

from nodulant_server.heavy import kinds  # loaded once, for all of them
from nodulant_server.management.commands.worker import NICE, take

LOOK_S = 0.5


class Command(BaseCommand):
    """Keep a worker at every queue of this machine."""

    help = "Do heavy work of several queues, each in a process of its own that is started again when it ends."

    def add_arguments(self, parser: CommandParser) -> None:
        """How many queues, and whose child it is."""
        parser.add_argument("--count", type=int, default=1)
        parser.add_argument("--parent", type=int, default=0, help="end when this process does")

    def handle(self, *args: str, count: int = 1, parent: int = 0, **options: str) -> None:
        """Keep them until stopped; they end with this process."""
        os.nice(NICE)
        connections.close_all()
        gc.collect()
        gc.freeze()  # what is loaded stays shared memory
        with contextlib.suppress(KeyboardInterrupt):
            keep(count, parent)


def keep(count: int, parent: int) -> None:
    """Part into a worker for each queue, again for one that ended, for as long as ``parent``, if any, is there."""
    me, at = os.getpid(), dict[int, int]()
    while not parent or os.getppid() == parent:
        for queue in set(range(count)) - set(at.values()):
            if pid := os.fork():
                at[pid] = queue
            else:
                take(queue, me)
                os._exit(0)
        time.sleep(LOOK_S)
        while at and (ended := os.waitpid(-1, os.WNOHANG)[0]):
            del at[ended]


__all__ = ["Command", "kinds"]
