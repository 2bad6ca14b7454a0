"""How the value of a limit reads: a sentence for every unit, and for what is met or not.

The screen, the report and the command line say a check's value and its limit with these words, the
quantity put in by the edge in the job's unit. A check that has a sentence of its own says that.
"""

from typing import NamedTuple

from nodulant.parts.limit import Limit
from nodulant.units.said import Kind, Said, said


class Reading(NamedTuple):
    """Words around ``{value}``, and the kind of quantity that stands there."""

    text: str
    kind: Kind


READS: dict[str, Reading] = {
    "mm": Reading("{value}", "length"),
    "deg": Reading("{value}", "angle"),
    "deg/in": Reading("{value} deg an inch of travel", "ratio"),
    "Hz": Reading("{value} Hz", "ratio"),
    "%": Reading("{value} %", "ratio"),
    "% of most": Reading("{value} % of the most it may hold", "number"),
    "cycles": Reading("{value}", "cycles"),
    "entries": Reading("{value} entries", "count"),
    "parts": Reading("{value} parts", "count"),
    "times": Reading("{value} times", "count"),
    "of safety": Reading("factor {value}", "ratio"),
    "of allowed": Reading("{value} of what is allowed", "share"),
    "of yield/1.5": Reading("{value} of the allowed stress", "share"),
    "of 0.4 yield": Reading("{value} of 0.4 of yield", "share"),
    "of 0.6 yield": Reading("{value} of 0.6 of yield", "share"),
    "of rated": Reading("{value} of what it is rated for", "share"),
    "of its rating": Reading("{value} of its rating", "share"),
    "of its limit": Reading("{value} of what it allows", "share"),
    "of their limit": Reading("{value} of what they allow", "share"),
    "of its stroke": Reading("{value} of its stroke", "share"),
    "of critical": Reading("{value} of its critical speed", "share"),
    "of all": Reading("{value} of them", "share"),
    "of wanted": Reading("{value} of what is wanted", "share"),
    "of the width": Reading("{value} of the width", "share"),
    "of tyre diameter": Reading("{value} of the tyre's diameter", "share"),
    "x": Reading("{value} times its thickness", "ratio"),
    "x at the axle": Reading("{value} of that at the axle", "share"),
    "x bump": Reading("{value} of the bump travel", "share"),
    "x diameter": Reading("{value} diameters", "ratio"),
    "x its length": Reading("{value} of its length", "share"),
    "x least": Reading("{value} of the least", "share"),
    "x most": Reading("{value} of the most", "share"),
    "x limit": Reading("{value} of the limit", "share"),
    "x needed": Reading("{value} of what it needs", "share"),
    "x wanted": Reading("{value} of what is wanted", "share"),
    "x slip": Reading("{value} of the bolt's friction", "share"),
    "x the force": Reading("{value} of the force", "share"),
    "x stock": Reading("{value} of stock's", "share"),
    "x stock's peak": Reading("{value} of stock's worst place", "share"),
    "x wall": Reading("{value} of the wall's thickness", "share"),
    "x weaker rail": Reading("{value} of the weaker rail beside it", "share"),
}
"""By the unit of a limit; a limit that is met or not has a sentence in ``MET`` instead."""

MET: dict[str, tuple[str, str]] = {
    "place-wanted": ("Given.", "Not given."),
    "seat-carried": ("Something carries it.", "Nothing carries it."),
    "weldable": ("This steel may be welded.", "This steel may not be welded: heat takes its temper."),
    "identity": ("Settled.", "Not settled: ask before the cut."),
    "end-shape": ("Tapered.", "Straight across a flange in tension."),
    "stop-there": ("There is a stop before it.", "Nothing stops it first."),
    "steer-sense": ("Every wheel turns the way it is steered.", "A wheel turns against the others, or back."),
    "column-bearing": ("There is one.", "There is none."),
}
"""What is said where a limit is met, and where it is not."""


def reads(limit: Limit, value: float) -> Said:
    """A value of a limit in words."""
    if limit.id in MET:
        met = value >= limit.value if limit.direction == "at-least" else value <= limit.value
        return said(MET[limit.id][0 if met else 1])
    own = READS[limit.unit]
    return said(own.text, value=(value, own.kind))
