"""``manage.py demo``: migrate, load the demo shop and serve, in one process so that it starts quickly."""

import subprocess
import sys

from django.conf import settings
from django.core.management import call_command
from django.core.management.base import BaseCommand, CommandParser


class Command(BaseCommand):
    """The demo with one command."""

    help = "Migrate, load the demo shop once, serve on 127.0.0.1."

    def add_arguments(self, parser: CommandParser) -> None:
        """Port."""
        parser.add_argument("--port", type=int, default=8321)

    def handle(self, *args: str, port: int = 8321, **options: str) -> None:
        """Prepare and serve."""
        # the instruments get ready meanwhile
        with subprocess.Popen(
            [sys.executable, sys.argv[0], "instruments", "--first-port", "0", "--while-parent"],
            stdin=subprocess.PIPE,
            stdout=subprocess.PIPE,
            text=True,
        ) as own:
            call_command("migrate", verbosity=0, interactive=False)
            call_command("load_demo")
            told = own.stdout.readline() if own.stdout else ""
            settings.INSTRUMENTS = told.partition("=")[2].strip()
            call_command("serve", port=port)
