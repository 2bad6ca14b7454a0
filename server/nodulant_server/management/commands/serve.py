"""``manage.py serve``: waitress on the loopback address."""

import gc

from django.core.management.base import BaseCommand, CommandParser
from django.urls import get_resolver
from waitress import serve

from nodulant_server.wsgi import application


class Command(BaseCommand):
    """Serve until stopped."""

    help = "Serve Nodulant on 127.0.0.1."

    def add_arguments(self, parser: CommandParser) -> None:
        """Port and address."""
        parser.add_argument("--port", type=int, default=8321)
        parser.add_argument("--host", default="127.0.0.1")

    def handle(self, *args: str, port: int = 8321, host: str = "127.0.0.1", **options: str) -> None:
        """Print the address and serve."""
        self.stdout.write(f"Nodulant is at http://{host}:{port}/  (stop with Ctrl-C)")
        self.stdout.flush()
        _settle()
        serve(application, host=host, port=port, threads=4, _quiet=True)


def _settle() -> None:
    """Load all that answers, and leave it out of the garbage collector's rounds: one would halt an answer for 100 ms."""
    _ = get_resolver().url_patterns
    gc.collect()
    gc.freeze()
