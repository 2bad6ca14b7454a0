"""Upgrades of older job files, one function a version.

1 -> 2: a drop entry's single ``keeps_geometry`` became camber, toe and anti-dive, each
judged for itself.
2 -> 3: a jack and stop pads became one of each an axle; limits on use became limits on the factor of
safety, 1.5 over what they were, and those that nothing is judged by any more are gone.
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


_FACTORS = {"use-limit": 1.5, "case-limit": 1.5, "joint-use": 1.5, "accident-use": 1.0}
"""Limits that were on use, and the factor of safety that a use of 1 stands for."""
_GONE = {"use-along", "case-use", "twist-bending", "twist-torque", "fatigue"}


def _factors_and_places(document: Document) -> Document:
    for option in document.get("options", []):
        for revision in option.get("revisions", []):
            design = revision.get("design", {})
            _both_axles(design.get("loads", {}))
            limits = {k: v for k, v in design.get("limits", {}).items() if k not in _GONE}
            for key, least in _FACTORS.items():
                value = limits.get(key, {}).get("value")
                if isinstance(value, int | float) and value > 0:
                    limits[key] = {**limits[key], "value": least / value}
            if limits or "limits" in design:
                design["limits"] = limits
    return {**document, "version": 3}


def _both_axles(loads: Document) -> None:
    for old, new in (("jack", "jacks"), ("stops", "stops")):
        if old in loads and not isinstance(loads[old], list):
            one = loads.pop(old)
            loads[new] = [] if one is None else [{**one, "axle": "rear"}]


_UPGRADES: dict[int, Callable[[Document], Document]] = {1: _keeps_each, 2: _factors_and_places}
