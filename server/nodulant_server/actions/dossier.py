"""What a dossier of a stored option is made of."""

from typing import Any

from nodulant.asbuilt.floor import PhotoEntry
from nodulant.asbuilt.log import standing
from nodulant.formats.dossier import Contents
from nodulant.job.document import Inputs
from nodulant_server.actions.photos import JPEG
from nodulant_server.actions.sweeps import sweep_on_file
from nodulant_server.models import Job, Option


def contents_of(option: Option, inputs: Inputs, asked: dict[str, Any]) -> Contents:
    """With the kept sweep and the photos that stand in the log; ``asked`` says revision, author, day and address."""
    return Contents(
        job=option.job.name,
        option=option.name,
        revision=asked["revision"],
        author=asked["author"],
        day=asked["day"],
        inputs=inputs,
        swept=sweep_on_file(option),
        address=asked["address"],
        photos=photos_of(option.job, inputs),
    )


def photos_of(job: Job, inputs: Inputs) -> dict[str, bytes]:
    """Every photo that was not taken back, by its hash, oldest first."""
    wanted = dict.fromkeys(e.sha256 for e in standing(inputs.as_built.entries) if isinstance(e, PhotoEntry))
    rows = job.attachments.filter(sha256__in=list(wanted), content_type=JPEG)
    return {row.sha256: bytes(row.content) for row in rows.order_by("pk")}
