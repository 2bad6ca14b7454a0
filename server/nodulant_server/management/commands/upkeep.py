"""``manage.py upkeep``: copies every hour, an emptied trash, and the page that says how to trust the server."""

import os
import threading
import time
from pathlib import Path

from django.core.management import call_command
from django.core.management.base import BaseCommand, CommandParser
from django.db import close_old_connections

from nodulant_server.floor.trust_page import trust_page
from nodulant_server.floor.upkeep import backed_up, due, emptied

LOOK_S = 60.0


class Command(BaseCommand):
    """Look every minute whether something is due."""

    help = "Make copies every hour in which something changed and empty the trash, until stopped."

    def add_arguments(self, parser: CommandParser) -> None:
        """Whose child it is, and what the page tells."""
        parser.add_argument("--parent", type=int, default=0)
        parser.add_argument("--trust", nargs=5, metavar=("HOST", "PORT", "FILE", "URL", "FINGERPRINT"))

    def handle(self, *args: str, parent: int = 0, trust: list[str] | None = None, **options: str) -> None:
        """Go on until told to stop, or until the server is gone."""
        if trust:
            host, port, file, url, fingerprint = trust
            page = trust_page(host, int(port), Path(file), url, fingerprint)
            threading.Thread(target=page.serve_forever, daemon=True).start()
        looked = 0.0
        while not parent or os.getppid() == parent:
            if time.monotonic() - looked >= LOOK_S or not looked:
                looked = time.monotonic()
                close_old_connections()
                if due():
                    backed_up()
                    emptied()
                    call_command("clearsessions")
            time.sleep(0.5)
