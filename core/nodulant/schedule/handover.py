"""Work that is handed out: what goes along, what stays bare, and what is looked at when it comes back."""

from collections.abc import Iterable

from nodulant.base.model import Frozen
from nodulant.frame.parts import Work
from nodulant.job.timing import Handout
from nodulant.parts.bought import BoltsNeeded
from nodulant.parts.outside import ACCEPTS, ASKS, MASKS


class HandoverSheet(Frozen):
    """What leaves with the work and what it is taken back by."""

    to: str
    days: int
    title: str
    detail: str
    note: str
    asks: tuple[str, ...]
    bare: tuple[str, ...]
    accepts: tuple[str, ...]


def handover(handout: Handout, title: str, detail: str, works: Iterable[Work]) -> HandoverSheet:
    """Of one step; ``works`` are the design's, whose bolts say which holes and faces stay bare."""
    own = list(works)
    return HandoverSheet(
        to=handout.to,
        days=handout.days,
        title=title,
        detail=detail,
        note=handout.note,
        asks=ASKS[handout.to],
        bare=_bare(own) if MASKS[handout.to] else (),
        accepts=ACCEPTS[handout.to],
    )


def _bare(works: Iterable[Work]) -> tuple[str, ...]:
    rows: dict[str, None] = {}
    for work in works:
        for bolts in work.op.bought(work.on):
            if isinstance(bolts, BoltsNeeded):
                captive = "; threads of its captive nuts plugged" if bolts.captive else ""
                rows[f"{bolts.name}: holes, and the faces under washers and plates{captive}"] = None
    rows["Earth places, marked with tape before it leaves"] = None
    rows["Every seam that is welded later, and a hand's breadth around it"] = None
    rows["Scribed lines and datum marks"] = None
    return tuple(rows)
