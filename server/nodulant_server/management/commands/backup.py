"""``manage.py backup``: a copy of everything, made while the server runs."""

from pathlib import Path

from django.conf import settings
from django.core.management.base import BaseCommand, CommandError, CommandParser

from nodulant_server.backup import KEPT, BackupRefused, backup


class Command(BaseCommand):
    """Copy, verify, keep the newest."""

    help = "Write a verified copy of the database, attachments included."

    def add_arguments(self, parser: CommandParser) -> None:
        """Where to, and how many stay."""
        parser.add_argument("--to", type=Path, default=settings.DATA / "backups")
        parser.add_argument("--keep", type=int, default=KEPT)

    def handle(self, *args: str, to: Path, keep: int = KEPT, **options: str) -> None:
        """Say where it is and what is in it."""
        try:
            file, revisions = backup(to, keep)
        except (BackupRefused, OSError) as error:
            raise CommandError(str(error)) from error
        self.stdout.write(f"{file}: {revisions} revisions, opened again and whole")
