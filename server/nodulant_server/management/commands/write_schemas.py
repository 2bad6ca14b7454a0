"""``manage.py write_schemas``: the OpenAPI document and the job file's JSON Schema, from the models."""

import json
from pathlib import Path

from django.conf import settings
from django.core.management.base import BaseCommand, CommandParser

from nodulant.formats.jobfile import job_schema
from nodulant_server.api.root import api


class Command(BaseCommand):
    """Write both, or check that they are up to date."""

    help = "Write web/openapi.json and docs/job-file.schema.json; with --check, fail when they differ."

    def add_arguments(self, parser: CommandParser) -> None:
        """Only check."""
        parser.add_argument("--check", action="store_true")

    def handle(self, *args: str, check: bool = False, **options: str) -> None:
        """Write or compare."""
        root = Path(settings.ROOT)
        for path, document in (
            (root / "web/openapi.json", api.get_openapi_schema()),
            (root / "docs/job-file.schema.json", job_schema()),
        ):
            text = json.dumps(document, indent=1, sort_keys=True) + "\n"
            if check and (not path.exists() or path.read_text() != text):
                raise SystemExit(f"{path.relative_to(root)} is out of date: run 'make schemas'")
            if not check:
                path.parent.mkdir(exist_ok=True)
                path.write_text(text)
