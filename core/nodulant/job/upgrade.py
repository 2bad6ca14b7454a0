"""Upgrades of older job files, one function a version.

1 -> 2: a drop entry's single ``keeps_geometry`` became camber, toe and anti-dive, each
judged for itself.
2 -> 3: a jack and stop pads became one of each an axle; limits on use became limits on the factor of
safety, 1.5 over what they were, and those that nothing is judged by any more are gone.
3 -> 4: a thing that went along names what it rides with: the pocket whose subframe carried it, or
its stretch of rail. Suspensions and shafts of older files stay as they were placed.
4 -> 5: a reading is a number in a unit of its own; what was logged were lengths, in fields that said so.
"""

from collections.abc import Callable
from copy import deepcopy
from typing import Any

from nodulant.asbuilt.log import by_new_names
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


_POCKET_MM = 700.0
"""In version 3 a pocket took along what sat this near."""


def _rides(document: Document) -> Document:
    stations = [
        {f.get("id"): f.get("x_mm") for f in revision.get("survey", {}).get("features", [])}
        for revision in document.get("surveys", [])
    ]
    for option in document.get("options", []):
        for revision in option.get("revisions", []):
            design = revision.get("design", {})
            for thing in design.get("obstacles", []):
                if thing.pop("goes_along", False):
                    thing["rides"] = _carrier(thing, design, stations[-1] if stations else {})
    return {**document, "version": 4}


def _carrier(thing: Document, design: Document, stations: Document) -> str:
    """The pocket that took it along, else the rail."""
    body = thing.get("body", {})
    points = [body[k] for k in ("middle", "a", "b") if k in body]
    x = sum(p.get("x_mm", 0.0) for p in points) / max(len(points), 1)
    near = []
    for op in design.get("operations", []):
        place = op.get("place") or {}
        at = stations.get(str(place.get("anchor_id")))
        if op.get("kind") == "raise" and at is not None:
            near.append((abs(at + place.get("offset_mm", 0.0) - x), op.get("id", "")))
    return min(near)[1] if near and min(near)[0] < _POCKET_MM else "rail"


def _units_of_readings(document: Document) -> Document:
    return {**document, "log": [by_new_names(entry) for entry in document.get("log", [])], "version": 5}


_UPGRADES: dict[int, Callable[[Document], Document]] = {
    1: _keeps_each,
    2: _factors_and_places,
    3: _rides,
    4: _units_of_readings,
}


def upgraded_design(design: Document, survey: Document) -> Document:
    """A design as it was once stored, whole, in the newest version; ``survey`` is its job's.

    A stored design names no version. It was written with every field of its time, so that a field which a later
    version took away tells its age; a new version that takes none away needs a mark of its own in ``_age``.
    """
    version = _age(design)
    if version == VERSION:
        return design
    revisions = [{"design": deepcopy(design)}]
    document = {"version": version, "surveys": [{"survey": survey}], "options": [{"revisions": revisions}]}
    for step in range(version, VERSION):
        document = _UPGRADES[step](document)
    newest: Document = revisions[0]["design"]
    return newest


def _age(design: Document) -> int:
    if any("keeps_geometry" in entry for entry in design.get("targets", {}).get("entries", [])):
        return 1
    if "jack" in design.get("loads", {}):
        return 2
    if any("goes_along" in thing for thing in design.get("obstacles", [])):
        return 3
    return VERSION
