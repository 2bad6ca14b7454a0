"""How the value of a limit reads: a sentence for every unit, and for what is met or not.

The screen, the report and the command line say a check's value and its limit with these words, the
quantity put in by the edge in the job's unit. A check that has a sentence of its own says that.
"""

from nodulant.base.model import Frozen
from nodulant.parts.limit import Limit
from nodulant.units.said import Kind, Said, said


class ValueWords(Frozen):
    """Words around ``{value}``, and the kind of quantity that stands there."""

    text: str
    kind: Kind


def _value(text: str, kind: Kind) -> ValueWords:
    return ValueWords(text=text, kind=kind)


READS: dict[str, ValueWords] = {
    "mm": _value("{value}", "length"),
    "deg": _value("{value}", "angle"),
    "kg": _value("{value}", "mass"),
    "turns": _value("{value} turns", "ratio"),
    "deg/in": _value("{value} deg an inch of travel", "ratio"),
    "Hz": _value("{value} Hz", "ratio"),
    "%": _value("{value} %", "number"),
    "% of most": _value("{value} % of the most it may hold", "number"),
    "cycles": _value("{value}", "cycles"),
    "entries": _value("{value} entries", "count"),
    "values": _value("{value} values", "count"),
    "parts": _value("{value} parts", "count"),
    "times": _value("{value} times", "count"),
    "of safety": _value("factor {value}", "ratio"),
    "of allowed": _value("{value} of what is allowed", "share"),
    "of yield/1.5": _value("{value} of the allowed stress", "share"),
    "of 0.4 yield": _value("{value} of 0.4 of yield", "share"),
    "of 0.6 yield": _value("{value} of 0.6 of yield", "share"),
    "of rated": _value("{value} of what it is rated for", "share"),
    "of its rating": _value("{value} of its rating", "share"),
    "of its limit": _value("{value} of what it allows", "share"),
    "of the free radius": _value("{value} of the free radius", "share"),
    "of their limit": _value("{value} of what they allow", "share"),
    "of its stroke": _value("{value} of its stroke", "share"),
    "of critical": _value("{value} of its critical speed", "share"),
    "of all": _value("{value} of them", "share"),
    "of wanted": _value("{value} of what is wanted", "share"),
    "of the width": _value("{value} of the width", "share"),
    "of tyre diameter": _value("{value} of the tyre's diameter", "share"),
    "x": _value("{value} times its thickness", "ratio"),
    "x at the axle": _value("{value} of that at the axle", "share"),
    "spreads": _value("{value} of its spread", "ratio"),
    "x bump": _value("{value} of the bump travel", "share"),
    "x diameter": _value("{value} diameters", "ratio"),
    "x its length": _value("{value} of its length", "share"),
    "x least": _value("{value} of the least", "share"),
    "x most": _value("{value} of the most", "share"),
    "x limit": _value("{value} of the limit", "share"),
    "x needed": _value("{value} of what it needs", "share"),
    "x wanted": _value("{value} of what is wanted", "share"),
    "x slip": _value("{value} of the bolt's friction", "share"),
    "x the force": _value("{value} of the force", "share"),
    "x stock": _value("{value} of stock's", "share"),
    "x stock's peak": _value("{value} of stock's worst place", "share"),
    "x wall": _value("{value} of the wall's thickness", "share"),
    "x weaker rail": _value("{value} of the weaker rail beside it", "share"),
}
"""By the unit of a limit; a limit that is met or not has a sentence in ``MET`` instead."""


class MetWords(Frozen):
    """What is said where a limit is met, and where it is not."""

    met: str
    unmet: str


MET: dict[str, MetWords] = {
    "place-wanted": MetWords(met="Given.", unmet="Not given."),
    "seat-carried": MetWords(met="Something carries it.", unmet="Nothing carries it."),
    "weldable": MetWords(met="This steel may be welded.", unmet="This steel may not be welded: heat takes its temper."),
    "identity": MetWords(met="Settled.", unmet="Not settled: ask before the cut."),
    "end-shape": MetWords(met="Tapered.", unmet="Straight across a flange in tension."),
    "stop-there": MetWords(met="There is a stop before it.", unmet="Nothing stops it first."),
    "steer-sense": MetWords(
        met="Every wheel turns the way it is steered.", unmet="A wheel turns against the others, or back."
    ),
    "column-bearing": MetWords(met="There is one.", unmet="There is none."),
}
"""By the ids of limits that are met or not."""


FINE_MM = 1.6
"""Below a sixteenth of an inch a length is told in decimals: as a tape reads it, it would be nothing or twice as much."""


def reads(limit: Limit, value: float) -> Said:
    """A value of a limit in words."""
    if limit.id in MET:
        met = value >= limit.value if limit.direction == "at-least" else value <= limit.value
        return said(MET[limit.id].met if met else MET[limit.id].unmet)
    own = READS[limit.unit]
    fine = own.kind == "length" and 0.0 < abs(value) < FINE_MM
    return said(own.text, value=(value, "thickness" if fine else own.kind))
