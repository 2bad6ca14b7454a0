"""``manage.py write_schemas``: OpenAPI document, job file schema and the page of limits, from the models."""

import json
from pathlib import Path

from django.conf import settings
from django.core.management.base import BaseCommand, CommandParser

from nodulant.formats.jobfile import job_schema
from nodulant.parts.limits import LIMITS
from nodulant_server.api.root import api


def _json(document: object) -> str:
    return json.dumps(document, indent=1, sort_keys=True) + "\n"


def limits_page() -> str:
    """Every limit with its default and its basis: the same words that a check's why shows."""
    rows = [
        f"| {limit.name} | {'at least' if limit.direction == 'at-least' else 'at most'} {limit.value:g} {limit.unit} "
        f"| {limit.basis} |"
        for limit in LIMITS
    ]
    head = (
        "# Limits\n\nWritten by `make schemas`. Each can be changed in a job, with a reason that is shown beside it.\n"
    )
    return "\n".join([head, "| check | default | basis |", "|---|---|---|", *rows, ""])


class Command(BaseCommand):
    """Write both, or check that they are up to date."""

    help = "Write web/openapi.json, docs/job-file.schema.json and docs/limits.md; with --check, fail when they differ."

    def add_arguments(self, parser: CommandParser) -> None:
        """Only check."""
        parser.add_argument("--check", action="store_true")

    def handle(self, *args: str, check: bool = False, **options: str) -> None:
        """Write or compare."""
        root = Path(settings.ROOT)
        for path, text in (
            (root / "web/openapi.json", _json(api.get_openapi_schema())),
            (root / "docs/job-file.schema.json", _json(job_schema())),
            (root / "docs/limits.md", limits_page()),
        ):
            if check and (not path.exists() or path.read_text() != text):
                raise SystemExit(f"{path.relative_to(root)} is out of date: run 'make schemas'")
            if not check:
                path.parent.mkdir(exist_ok=True)
                path.write_text(text)
