"""``manage.py instruments``: the simulated instruments by themselves, for a shop without real ones."""

import sys
import threading
from pathlib import Path

from django.conf import settings
from django.core.management.base import BaseCommand, CommandParser

from nodulant_server.instruments.serve import started
from nodulant_server.instruments.stand_in import scenario

SCENARIO = Path(settings.ROOT) / "demo" / "instruments.json"


class Command(BaseCommand):
    """Serve the stand-ins until stopped."""

    help = "Serve simulated instruments on the loopback address; prints what NODULANT_INSTRUMENTS is to be."

    def add_arguments(self, parser: CommandParser) -> None:
        """Scenario and the first of the ports."""
        parser.add_argument("--scenario", type=Path, default=SCENARIO)
        parser.add_argument("--first-port", type=int, default=8441)
        parser.add_argument("--while-parent", action="store_true", help="stop when standard input is shut")

    def handle(self, *args: str, **options: Path | int) -> None:
        """Serve."""
        first = options["first_port"]
        services = started(scenario(Path(str(options["scenario"]))), first if isinstance(first, int) else 0)
        self.stdout.write("NODULANT_INSTRUMENTS=" + " ".join(f"{k}={s.url}" for k, s in services.items()))
        self.stdout.flush()
        if options["while_parent"]:
            sys.stdin.read()
        else:
            threading.Event().wait()
