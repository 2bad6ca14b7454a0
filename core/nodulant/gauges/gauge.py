"""One gauge: what it is cut from, to what size, and the step that asks for it. Lengths mm, angles degrees."""

from typing import Literal

from nodulant.base.model import Frozen
from nodulant.parts.sides import Sides
from nodulant.parts.specs import Phase
from nodulant.patterns.pattern import Pattern
from nodulant.units.inline import as_length, as_thickness

GaugeKind = Literal[
    "rod", "strut", "spreader", "drill-guide", "spacer", "pivot-dummy", "pointer", "clip-leg", "angle-block", "brace"
]
GAUGE_NAMES: dict[GaugeKind, str] = {
    "rod": "dummy rod through both rails",
    "strut": "solid strut at ride length",
    "spreader": "spreader between the rails",
    "drill-guide": "drill guide",
    "spacer": "spacer at the rise",
    "pivot-dummy": "pivot dummy",
    "pointer": "hole-centre pointer",
    "clip-leg": "leg for the cut-off end",
    "angle-block": "angle block",
    "brace": "diagonal brace between the rails",
}


class Gauge(Frozen):
    """A gauge or jig; a size that it does not have is None."""

    id: str
    kind: GaugeKind
    name: str
    says: str
    """What it holds or proves, and how; lengths in it are marks."""
    operation: str | None = None
    """The operation whose step of this phase asks for it; None where the whole job does."""
    phase: Phase
    side: Sides = "both"
    count: int = 1
    made_of: str
    long_mm: float | None = None
    """Cut length, or the height that is to be made up."""
    across_mm: float | None = None
    """Outside diameter."""
    bore_mm: float | None = None
    angle_deg: float | None = None
    pattern: Pattern | None = None
    """Where it is cut flat."""
    size: str = ""
    """What it is cut to, in words."""
    missing: str = ""
    """What is not known, where its size cannot be told."""


def size_of(gauge: Gauge) -> str:
    """Its sizes one after the other, each with what it is."""
    rows = []
    if gauge.long_mm is not None:
        rows.append(f"{as_length(gauge.long_mm)} {'high' if gauge.kind == 'spacer' else 'long'}")
    if gauge.across_mm is not None:
        rows.append(f"{as_thickness(gauge.across_mm)} outside")
    if gauge.bore_mm is not None:
        rows.append(f"{as_thickness(gauge.bore_mm)} bore")
    if gauge.angle_deg is not None:
        rows.append(f"{gauge.angle_deg:g} degrees{' off square, both ends' if gauge.kind == 'brace' else ''}")
    return ", ".join(rows)
