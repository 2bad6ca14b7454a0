"""Work that somebody outside does: whether faces are masked, what is asked, what it is taken back by (common practice)."""

from typing import Literal

from nodulant.units.inline import as_amount

Outside = Literal["painter", "powder coater", "machinist", "welder", "other"]
MASKS: dict[Outside, bool] = {
    "painter": True,
    "powder coater": True,
    "machinist": False,
    "welder": False,
    "other": False,
}
ASKS: dict[Outside, tuple[str, ...]] = {
    "painter": (
        "Blast or grind to bare metal, white near; grit and dust out of every closed cell, holes open again",
        "Two coats of epoxy primer within the day, then the top coat; each dry as its data sheet says",
        "Welds struck by brush before the first coat: edges and toes first",
    ),
    "powder coater": (
        "Nothing with rubber, grease, filler or a bushing in it: it is baked near " + as_amount("temperature", 200),
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
ACCEPTS: dict[Outside, tuple[str, ...]] = {
    "painter": ("Coat even, no runs and no bare edge", "Threads, faces and earth places bare", "Drain holes open"),
    "powder coater": (
        "Coat even, edges covered",
        "Threads run by hand, faces bare and flat",
        "Holes still take their bolts and sleeves",
    ),
    "machinist": ("Every size measured and written down", "Threads run by hand", "No burr, no dent"),
    "welder": ("Every seam looked at on both sides: undercut, roots, ends", "Straightness and runout read again"),
    "other": ("As asked",),
}
