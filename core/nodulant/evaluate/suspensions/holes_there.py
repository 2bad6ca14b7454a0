"""Which holes the design's own link brackets have: where a search for holes begins."""

from collections.abc import Sequence

from nodulant.axles.suspension import Suspension
from nodulant.frame.ops.mounts.bracket import Bracket
from nodulant.frame.ops.on_axle.axle_bracket import AxleBracket
from nodulant.frame.ops.union import Operation
from nodulant.parts.sides import AxleName
from nodulant.search.bracket_holes import HoleRow, Holes, Layouts


def holes_of(operations: Sequence[Operation], own: Suspension) -> Holes | None:
    """The holes of one suspension's brackets; None for a layout without upper and lower links."""
    return holes_there(operations, own.axle) if isinstance(own.layout, Layouts) else None


def holes_there(operations: Sequence[Operation], axle: AxleName) -> Holes:
    """The holes that the design's own brackets of one axle have; a usual row where a bracket is not there yet."""
    there = {op.id: op.tabs for op in operations if isinstance(op, Bracket | AxleBracket)}
    rows = {}
    for field, own in HOLDS.items():
        if (tabs := there.get(f"{axle}-{own}")) is not None:
            rows[field] = HoleRow(above=tabs.holes_above, below=tabs.holes_below, pitch_mm=tabs.pitch_mm)
    return Holes(**rows)


HOLDS = {
    "frame_upper": "upper-link-bracket",
    "frame_lower": "lower-link-bracket",
    "axle_upper": "upper-link-on-axle",
    "axle_lower": "lower-link-on-axle",
}
"""Which of the mounts that a suspension asks for holds each row of holes."""
