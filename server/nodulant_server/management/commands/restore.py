"""``manage.py restore FILE``: a copy put back, with the server stopped."""

from pathlib import Path

from django.core.management import call_command
from django.core.management.base import BaseCommand, CommandError, CommandParser

from nodulant_server.backup import BackupRefused, restore


class Command(BaseCommand):
    """Verify, keep what is there aside, put back, migrate."""

    help = "Put a copy back in the database's place; stop the server first."

    def add_arguments(self, parser: CommandParser) -> None:
        """The copy."""
        parser.add_argument("file", type=Path)

    def handle(self, *args: str, file: Path, **options: str) -> None:
        """Say what was put back and where the old one is."""
        try:
            before, revisions = restore(file)
        except (BackupRefused, OSError) as error:
            raise CommandError(str(error)) from error
        call_command("migrate", verbosity=0, interactive=False)
        aside = f"; what was there is {before}" if before else ""
        self.stdout.write(f"{revisions} revisions are back{aside}")
