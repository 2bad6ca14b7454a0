"""The dossier: what an inspector or a licensed engineer reads of a job, as one paper."""

from nodulant.formats.dossier.contents import Contents
from nodulant.formats.dossier.paper import dossier_pdf

__all__ = ["Contents", "dossier_pdf"]
