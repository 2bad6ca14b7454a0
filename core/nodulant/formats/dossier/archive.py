"""The dossier with what it stands on: both papers, the open job file, every photo, and a list with hashes."""

import hashlib

from nodulant.formats.dossier.contents import Contents
from nodulant.formats.dossier.paper import dossier_pdf
from nodulant.formats.dxf import zipped
from nodulant.formats.tables_csv import table_csv


def dossier_zip(of: Contents, job_file: bytes) -> bytes:
    """One ZIP; raises InvalidInputs where the design cannot be evaluated."""
    files = {
        "dossier.pdf": dossier_pdf(of),
        "inspection.pdf": dossier_pdf(of, short=True),
        "job.nodulant.json": job_file,
        **{f"photos/{sha256}.jpg": content for sha256, content in of.photos.items()},
    }
    rows = [(name, str(len(data)), hashlib.sha256(data).hexdigest()) for name, data in files.items()]
    return zipped({"contents.csv": table_csv(("file", "bytes", "sha256"), rows), **files})
