"""What was read, how sure it is, and whether that is enough to say yes or no.

Standard uncertainty by JCGM 100:2008 (GUM, 4.3.7 and 4.4.5): the instrument's largest error and the step it
is read to are rectangular, so a/sqrt(3) and r/sqrt(12); the hand counts by its spread, or by that of
three and more readings, over the root of how many. Expanded: twice that. By the rule of ISO 14253-1 a
reading proves that it holds where deviation and uncertainty together are inside the tolerance, that it
does not where the deviation is outside it by more than the uncertainty, and else it cannot tell.
"""

import math
from itertools import pairwise
from statistics import fmean, median, stdev
from typing import Literal

from nodulant.asbuilt.instruments import Instrument, named, suiting
from nodulant.asbuilt.log import Entry, ReadingEntry, standing
from nodulant.base.memo import remembered
from nodulant.base.model import Frozen
from nodulant.parts.measure import Measure
from nodulant.units.show import Style

COVERS = 2.0
"""Expanded over standard uncertainty: about 95 %."""
MANY = 3
Answer = Literal["holds", "fails", "cannot tell"]


class Taken(Frozen):
    """A reading with its repeats, in its own unit: the middle of them, and plus or minus how much."""

    id: str
    value: float
    text: str
    count: int
    expanded: float
    by_hand: float
    """Of that, what does not cancel between two readings with one instrument."""
    instrument: str
    resolution: float
    unit: Measure
    again: bool
    """Two of them differ by more than the instrument explains: a third is wanted."""


@remembered(4)
def taken_readings(entries: tuple[Entry, ...]) -> dict[str, Taken]:
    """By '<operation>/<key>/<side>': the newest standing reading with those that it was repeated after."""
    groups: dict[str, list[ReadingEntry]] = {}
    for e in standing(entries):
        if isinstance(e, ReadingEntry):
            own = groups.setdefault(f"{e.operation}/{e.key}/{e.side}", [])
            if not (e.again and own and own[-1].instrument == e.instrument):
                own.clear()
            own.append(e)
    return {id_: _taken(id_, own) for id_, own in groups.items()}


def _taken(id_: str, own: list[ReadingEntry]) -> Taken:
    values, newest = [e.value for e in own], own[-1]
    resolution = max(e.resolution for e in own)
    value = median(values) if len(values) >= MANY else fmean(values)
    known = named(newest.instrument)
    hand = _hand(known, resolution)
    return Taken(
        id=id_,
        value=value,
        text=newest.text if len(own) == 1 else "",
        count=len(own),
        expanded=expanded(known, resolution, value, values),
        by_hand=COVERS * _scatter(known, resolution, values),
        instrument=newest.instrument,
        resolution=resolution,
        unit=newest.unit,
        again=len(values) == 2 and any(abs(a - b) > COVERS * math.sqrt(2) * hand for a, b in pairwise(values)),
    )


def _hand(instrument: Instrument | None, resolution: float) -> float:
    """Spread of one reading by hand: how it is set, and the step it is read to."""
    return math.hypot(instrument.by_hand if instrument else resolution / 2, resolution / math.sqrt(12))


def expanded(instrument: Instrument | None, resolution: float, value: float, values: list[float]) -> float:
    """Expanded uncertainty; an instrument that is not known may be out by what it is read to."""
    largest = instrument.at_most + instrument.share * abs(value) if instrument else resolution
    return COVERS * math.hypot(largest / math.sqrt(3), _scatter(instrument, resolution, values))


def _scatter(instrument: Instrument | None, resolution: float, values: list[float]) -> float:
    own = stdev(values) if len(values) >= MANY else 0.0
    return max(own, _hand(instrument, resolution)) / math.sqrt(len(values))


def answer(off: float, unsure: float, allowed: float) -> Answer:
    """Whether a deviation of ``off`` with its expanded uncertainty is inside ``allowed``."""
    size = abs(off)
    if size + unsure <= allowed + 1e-9:
        return "holds"
    return "fails" if size - unsure > allowed else "cannot tell"


def wanted(off: float, allowed: float) -> float:
    """The uncertainty with which a reading here would say yes or no."""
    return abs(allowed - abs(off))


def finer(value: float, off: float, allowed: float, unit: Measure, style: Style, limit: str) -> Instrument | None:
    """The coarsest instrument that would tell, read once, of those that suit the limit; None where none of them would."""
    need = wanted(off, allowed)
    enough = [
        (u, i) for i in suiting(unit, limit, value) if (u := expanded(i, i.resolution(style), value, [value])) <= need
    ]
    return max(enough, key=lambda pair: pair[0])[1] if enough else None
