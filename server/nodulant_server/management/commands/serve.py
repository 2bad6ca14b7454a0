"""``manage.py serve``: several web processes, and as many workers for what takes long."""

import contextlib
import gc
import os
import struct
import subprocess
import sys
import threading
import time
from collections.abc import Callable, Iterator
from socket import SO_RCVTIMEO, SO_SNDTIMEO, SOL_SOCKET
from typing import Any

from django.conf import settings
from django.core.management import call_command
from django.core.management.base import BaseCommand, CommandParser
from django.db import connections
from django.urls import get_resolver
from gunicorn.app.base import BaseApplication

from nodulant_server.floor.upkeep import missing

SILENT_S = 15
"""A request that is sent by halves, or an answer that nobody takes, ends after so long a silence."""
THREADS = 32
CORES = os.cpu_count() or 1
"""Two web processes a core: one that reckons holds up the others of its process, and no more than those."""


class Command(BaseCommand):
    """Serve until stopped."""

    help = "Serve Nodulant on 127.0.0.1."

    def add_arguments(self, parser: CommandParser) -> None:
        """Port, address and how many processes."""
        parser.add_argument("--port", type=int, default=8321)
        parser.add_argument("--host", default="127.0.0.1")
        parser.add_argument("--processes", type=int, default=2 * CORES)
        parser.add_argument("--workers-elsewhere", action="store_true", help="workers are started by hand")

    def handle(self, *args: str, **options: Any) -> None:  # noqa: ANN401
        """Print the address and serve."""
        host, port = options.get("host", "127.0.0.1"), options.get("port", 8321)
        self.stdout.write(f"Nodulant is at http://{host}:{port}/  (stop with Ctrl-C)")
        self.stdout.flush()
        if words := missing():
            self.stderr.write(words)
        serve([f"{host}:{port}"], options.get("processes"), own_workers=not options.get("workers_elsewhere"))


def serve(
    addresses: list[str],
    processes: int | None = None,
    own_workers: bool = True,
    upkeep: list[str] | None = None,
    **more: object,
) -> None:
    """Serve on ``addresses`` until stopped; ``more`` goes to gunicorn as it is (certificate and key)."""
    call_command("clearsessions")
    settings.WORKERS = settings.WORKERS or CORES
    workers = ["workers", "--parent", str(os.getpid()), "--count", str(settings.WORKERS)]
    with running([*([workers] if own_workers else []), *([upkeep] if upkeep else [])]):
        _settle()
        Web(
            {
                "bind": addresses,
                "workers": processes or 2 * CORES,
                "worker_class": "gthread",
                "threads": THREADS,
                "preload_app": True,
                "timeout": 120,
                "graceful_timeout": 5,
                "keepalive": 30,
                "forwarded_allow_ips": ",".join(settings.PROXY),
                "post_worker_init": _bounded,
                "loglevel": "warning",
                "control_socket_disable": True,
                **more,
            }
        ).run()


class Web(BaseApplication):  # type: ignore[misc]
    """Our application under gunicorn."""

    def __init__(self, told: dict[str, object]) -> None:
        """Keep what it is told."""
        self.told = told
        super().__init__()

    def load_config(self) -> None:
        """Set it."""
        for name, value in self.told.items():
            if name in self.cfg.settings:
                self.cfg.set(name, value)

    def load(self) -> Callable[..., object]:
        """The application, loaded once before the processes part."""
        from nodulant_server.wsgi import application  # noqa: PLC0415 - Django is set up by now

        return application


def _bounded(worker: Any) -> None:  # noqa: ANN401
    """Every connection takes over from the socket that it came by how long a silence is borne."""
    for listener in worker.sockets:
        for way in (SO_RCVTIMEO, SO_SNDTIMEO):
            listener.sock.setsockopt(SOL_SOCKET, way, struct.pack("ll", SILENT_S, 0))


@contextlib.contextmanager
def running(commands: list[list[str]]) -> Iterator[None]:
    """Commands of manage.py beside this process, each started again when it ends; all end with this process."""
    environment, mine = {**os.environ, "NODULANT_WORKERS": str(settings.WORKERS)}, os.getpid()

    def start(command: list[str]) -> "subprocess.Popen[bytes]":
        whole = [sys.executable, str(settings.ROOT / "manage.py"), *command]
        return subprocess.Popen(whole, env=environment, stdin=subprocess.DEVNULL)

    beside, over = [start(command) for command in commands], threading.Event()

    def watch() -> None:
        while not over.wait(0.5):
            for number, process in enumerate(beside):
                if process.poll() is not None and not over.is_set():
                    time.sleep(0.5)
                    beside[number] = start(commands[number])

    threading.Thread(target=watch, daemon=True).start()
    try:
        yield
    finally:
        if os.getpid() == mine:  # a web process that ends leaves them to its parent
            over.set()
            for process in beside:
                process.kill()


def _settle() -> None:
    """Load all that answers before the processes part, and leave it out of the garbage collector's rounds."""
    _ = get_resolver().url_patterns
    connections.close_all()
    gc.collect()
    gc.freeze()
