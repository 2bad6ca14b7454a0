"""Work that is handed out: what goes along, what stays bare, and what is looked at when it comes back (common practice)."""

from collections.abc import Iterable

from nodulant.base.model import Frozen
from nodulant.frame.parts import Work
from nodulant.job.timing import Handout
from nodulant.parts.bought import BoltsNeeded

MASKS = {
    "painter": True,
    "powder coat": True,
    "machinist": False,
    "welder": False,
    "other": False,
}
ASKS: dict[str, tuple[str, ...]] = {
    "painter": (
        "Blast or grind to bare metal, white near; grit and dust out of every closed cell, holes open again",
        "Two coats of epoxy primer within the day, then the top coat; each dry as its data sheet says",
        "Welds struck by brush before the first coat: edges and toes first",
    ),
    "powder coat": (
        "Nothing with rubber, grease, filler or a bushing in it: it is baked near 200 °C",
        "Closed cells vented, or they push the coat off; zinc primer under the coat where it stands outside",
        "Threads plugged, machined faces and earth places under tape that stands the oven",
    ),
    "machinist": (
        "Sizes and tolerances as on the drawing that goes along; nothing is taken from the drawing by a rule",
        "Edges broken, no notch in a fillet; heat only where it is said",
    ),
    "welder": (
        "Process, wire, preheat and the order of beads as on the welding sheet that goes along",
        "Qualified for the process and the position; the certificate is copied",
    ),
    "other": ("As described above",),
}
ACCEPTS: dict[str, tuple[str, ...]] = {
    "painter": ("Coat even, no runs and no bare edge", "Threads, faces and earth places bare", "Drain holes open"),
    "powder coat": (
        "Coat even, edges covered",
        "Threads run by hand, faces bare and flat",
        "Holes still take their bolts and sleeves",
    ),
    "machinist": ("Every size measured and written down", "Threads run by hand", "No burr, no dent"),
    "welder": ("Every seam looked at on both sides: undercut, roots, ends", "Straightness and runout read again"),
    "other": ("As asked",),
}


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
