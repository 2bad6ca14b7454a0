"""Photos of steps: made anew from their pixels, so that no camera's place, time or owner stays in them."""

import io

from django.db import transaction
from PIL import Image, ImageOps, UnidentifiedImageError

from nodulant.asbuilt.log import Entry
from nodulant.base.errors import InputError
from nodulant_server.actions.attachments import attach
from nodulant_server.actions.floor import taken, when_done
from nodulant_server.actions.log import append
from nodulant_server.models import Job
from nodulant_server.roles import Acting, require

LONGEST_PX, QUALITY = 1600, 84
MOST_PX = 60_000_000
"""More than any phone's picture has: beyond it a file is a trap."""
JPEG = "image/jpeg"
FORMATS = ("JPEG", "PNG", "WEBP", "GIF", "BMP", "TIFF")


def made_anew(content: bytes) -> bytes:
    """The picture as a JPEG of at most 1600 px, upright, with nothing else in it; raises InputError for what is none."""
    Image.init()  # every format is known before one of them is asked for
    try:
        with Image.open(io.BytesIO(content), formats=FORMATS) as given:
            if given.width * given.height > MOST_PX:
                raise InputError(
                    "this picture is too large",
                    field="/content",
                    found=f"{given.width} x {given.height}",
                    acceptable="at most 60 megapixels",
                )
            upright = ImageOps.exif_transpose(given).convert("RGB")
    except (UnidentifiedImageError, Image.DecompressionBombError, OSError, ValueError, SyntaxError) as refused:
        if isinstance(refused, InputError):
            raise
        raise InputError(
            "this file is no picture that can be read",
            field="/content",
            found=f"{len(content)} bytes",
            acceptable="JPEG, PNG or WebP",
        ) from None
    upright.thumbnail((LONGEST_PX, LONGEST_PX))
    out = io.BytesIO()
    upright.save(out, "JPEG", quality=QUALITY, optimize=True)
    return out.getvalue()


def keep_photo(
    acting: Acting, job: Job, step: str, content: bytes, text: str, mark: str | None, done_at: str
) -> list[Entry]:
    """Keep a photo of a step and log it, once however often it is sent. Raises Forbidden, InputError."""
    require(acting, "log")
    if mark and (before := taken(job, mark)):
        return before
    when, picture = when_done(job, done_at), made_anew(content)
    with transaction.atomic():
        row = attach(acting, job, f"{step.replace('/', '-')[:80]}.jpg", JPEG, picture)
        fields = {"kind": "photo", "step": step, "sha256": row.sha256, "text": text, **when}
        return [append(acting, job, fields, mark)]
