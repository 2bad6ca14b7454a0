"""Upgrades of older job files, one function a version.

1 -> 2: a drop entry's single ``keeps_geometry`` became camber, toe and anti-dive, each
judged for itself.
"""

from collections.abc import Callable
from copy import deepcopy
from typing import Any

from nodulant.base.errors import InputError
from nodulant.job.document import FORMAT, VERSION

Document = dict[str, Any]


def upgrade(document: Document) -> Document:
    """The document in the newest version; raises InputError for a newer or unknown one."""
    if document.get("format") != FORMAT:
        raise InputError(
            "this is no Nodulant job file", field="/format", found=str(document.get("format"))[:60], acceptable=FORMAT
        )
    version = document.get("version")
    if not isinstance(version, int) or isinstance(version, bool) or not 1 <= version <= VERSION:
        raise InputError(
            "this program cannot read that version",
            field="/version",
            found=str(version)[:20],
            acceptable=f"1 to {VERSION}",
        )
    newest = deepcopy(document) if version < VERSION else document
    for step in range(version, VERSION):
        newest = _UPGRADES[step](newest)
    return newest


def _keeps_each(document: Document) -> Document:
    for option in document.get("options", []):
        for revision in option.get("revisions", []):
            for entry in revision.get("design", {}).get("targets", {}).get("entries", []):
                kept = bool(entry.pop("keeps_geometry", True))
                entry["keeps"] = {"camber": kept, "toe": kept, "anti_dive": kept}
    return {**document, "version": 2}


_UPGRADES: dict[int, Callable[[Document], Document]] = {1: _keeps_each}
