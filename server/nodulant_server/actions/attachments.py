"""Files kept with a job under the hash of what they hold: photos, drawings, certificates."""

import hashlib

from django.db import transaction
from django.db.models import Sum
from django.db.models.functions import Length
from django.utils import timezone

from nodulant.base.errors import InputError
from nodulant.formats.bundle import MOST_BYTES, MOST_FILES, MOST_IN_ALL, Attached
from nodulant_server.actions.limits import one_at_a_time, refuse_beyond
from nodulant_server.audit import note
from nodulant_server.models import Attachment, Job
from nodulant_server.roles import Acting, require


def attach(acting: Acting, job: Job, name: str, content_type: str, content: bytes) -> Attachment:
    """Keep a file with a job, once however often it is sent; raises Forbidden and InputError."""
    require(acting, "log")
    if not content or len(content) > MOST_BYTES:
        raise InputError(
            "this file cannot be kept",
            field="/content",
            found=f"{len(content)} bytes",
            acceptable=f"1 to {MOST_BYTES} bytes",
        )
    sha256 = hashlib.sha256(content).hexdigest()
    with transaction.atomic():
        one_at_a_time(job)
        if (kept := job.attachments.filter(sha256=sha256).first()) is not None:
            return kept
        refuse_beyond(job.attachments.count() + 1, MOST_FILES, "attachments", "a copy of the job")
        together = job.attachments.aggregate(bytes=Sum(Length("content")))["bytes"] or 0
        if together + len(content) > MOST_IN_ALL:  # what is stored can leave and come back
            raise InputError(
                "this job's attachments are full",
                field="/content",
                found=f"{together} bytes",
                acceptable=f"at most {MOST_IN_ALL} bytes in all",
            )
        row = Attachment(
            job=job,
            sha256=sha256,
            name=name.strip()[:200] or "file",
            content_type=content_type[:100],
            content=content,
            at=timezone.now(),
            by=acting.name,
        )
        row.save()
        note(acting, "file attached", f"{job.name}: {row.name}")
    return row


def attached(row: Attachment) -> Attached:
    """What a kept file is, without what it holds."""
    return Attached(sha256=row.sha256, name=row.name, content_type=row.content_type, at=row.at.isoformat(), by=row.by)
