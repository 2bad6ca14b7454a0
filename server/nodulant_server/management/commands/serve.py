"""``manage.py serve``: waitress on the loopback address."""

import gc

from django.conf import settings
from django.core.management import call_command
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
        call_command("clearsessions")
        _settle()
        serve(application, host=host, port=port, threads=4, channel_timeout=60, _quiet=True, **_proxied())


def _proxied() -> dict[str, object]:
    """What waitress takes from a proxy in front; without one, what claims to come through one is left to be seen."""
    if not settings.PROXY:
        return {"clear_untrusted_proxy_headers": False}
    told = {"x-forwarded-for", "x-forwarded-proto"}
    return {"trusted_proxy": settings.PROXY, "trusted_proxy_headers": told, "clear_untrusted_proxy_headers": True}


def _settle() -> None:
    """Load all that answers, and leave it out of the garbage collector's rounds: one would halt an answer for 100 ms."""
    _ = get_resolver().url_patterns
    gc.collect()
    gc.freeze()
