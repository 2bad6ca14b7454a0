"""Tyre size strings and what follows from them by definition.

Metric ``265/70R17``: section width mm, aspect %, rim in: free diameter = rim + 2 width x aspect.
Flotation ``31x10.50R15``: overall diameter x width R rim, inches. Numeric ``7.50-16``: section
width and rim, inches, with section height taken as 0.95 of the width (from memory, older
cross-ply bias tyres run 0.92-0.98). Static loaded radius about 0.94 of the free radius (from
memory): an estimate, and said so.
"""

import re
from typing import Literal

from nodulant.base.errors import InputError
from nodulant.base.model import Frozen
from nodulant.units.show import MM_PER_INCH

LOADED_SHARE = 0.94
_METRIC = re.compile(r"^(?:P|LT)?(\d{3})/(\d{2})\s*Z?[RDB-]\s*(\d{2}(?:\.5)?)C?$", re.I)
_FLOTATION = re.compile(r"^(\d{2}(?:\.\d+)?)\s*x\s*(\d{1,2}(?:\.\d+)?)\s*[RDB-]\s*(\d{2}(?:\.5)?)(?:LT)?$", re.I)
_NUMERIC = re.compile(r"^(\d{1,2}\.\d{2})\s*[RDB-]\s*(\d{2}(?:\.5)?)$", re.I)
ACCEPTED = "such as 215/75R16, 31x10.50R15 or 7.50-16"


class Tyre(Frozen):
    """Free diameter, section width and rim of a tyre, mm."""

    text: str
    free_diameter_mm: float
    section_width_mm: float
    rim_mm: float


class LoadedRadius(Frozen):
    """Static loaded radius, mm, and whether it was measured or estimated."""

    radius_mm: float
    origin: Literal["measured", "estimated"]


def parse_tyre(text: str) -> Tyre:
    """Read a size string; raises InputError with what would be accepted."""
    size = text.strip()
    if found := _METRIC.match(size):
        width, aspect, rim = (float(g) for g in found.groups())
        return _tyre(size, rim * MM_PER_INCH + 2 * width * aspect / 100, width, rim * MM_PER_INCH)
    if found := _FLOTATION.match(size):
        overall, width, rim = (float(g) * MM_PER_INCH for g in found.groups())
        return _tyre(size, overall, width, rim)
    if found := _NUMERIC.match(size):
        width, rim = (float(g) * MM_PER_INCH for g in found.groups())
        return _tyre(size, rim + 2 * 0.95 * width, width, rim)
    raise InputError(f"'{size}' is no tyre size", found=size, acceptable=ACCEPTED)


def _tyre(text: str, free: float, width: float, rim: float) -> Tyre:
    if free <= rim:
        raise InputError(
            f"'{text}' is no tyre: its outside is not larger than its rim", found=text, acceptable=ACCEPTED
        )
    return Tyre(text=text, free_diameter_mm=free, section_width_mm=width, rim_mm=rim)


def loaded_radius(tyre: Tyre, measured_mm: float | None) -> LoadedRadius:
    """The measured loaded radius, or 0.94 of the free one marked as estimated."""
    if measured_mm is not None:
        return LoadedRadius(radius_mm=measured_mm, origin="measured")
    return LoadedRadius(radius_mm=LOADED_SHARE * tyre.free_diameter_mm / 2, origin="estimated")
