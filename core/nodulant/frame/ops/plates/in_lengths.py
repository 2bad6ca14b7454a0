"""A plate longer than what is sold, made of two or more: its butts clear of the cuts and staggered from plate to plate."""

from itertools import pairwise

from nodulant.frame.here import OnRail
from nodulant.geometry.halved import halved
from nodulant.geometry.outline import line
from nodulant.parts.part import Part, Seam

STAGGER_MM = 100.0
"""Between the butts of plates that lie on the same stretch: outer and inner, left and right (common practice)."""
CLEAR_MM = 100.0
"""From a cut's mouth to a butt (common practice)."""


def in_lengths(part: Part, count: int, on: OnRail) -> list[Part]:
    """``part`` as ``count`` pieces from front to rear; fewer where a butt would have to lie in a cut or a slanted end."""
    x0, _, x1, _ = part.outline.bounds()
    rank = (on.side == "right") + 2 * (part.face == "inner")
    pieces, rest = list[Part](), part
    for k in range(1, count):
        at = _butt(x0 + (x1 - x0) * k / count, rank, on)
        found = halved(rest.outline, at)
        if found is None:
            continue
        pieces.append(rest.model_copy(update={"outline": found[0]}))
        rest = rest.model_copy(update={"outline": found[1]})
    own = [*pieces, rest]
    if len(own) == 1:
        return [part]
    head, _, tail = part.id.rpartition("/")
    return [
        p.model_copy(
            update={"id": part.id if k == 1 else f"{head}-{k}/{tail}", "name": f"{part.name}, {k} of {len(own)}"}
        )
        for k, p in enumerate(own, 1)
    ]


def _butt(middle: float, rank: int, on: OnRail) -> float:
    """Where the plate of this rank is butted: clear of every cut, and of where plates of lower rank are.

    The other rail's cuts are taken to lie where this one's do.
    """
    shut = [(c.centre_mm, max((abs(v.x) for v in c.edge.edge_above(0.0)), default=0.0) + CLEAR_MM) for c in on.cuts]
    taken: list[float] = []
    for own in range(rank + 1):
        wished = middle + (own - 1.5) * STAGGER_MM
        tried = (wished + sign * step * STEP_MM for step in range(TRIES) for sign in (1, -1))
        taken.append(
            next(
                (
                    x
                    for x in tried
                    if all(abs(x - c) >= half for c, half in shut) and all(abs(x - t) >= STAGGER_MM for t in taken)
                ),
                wished,
            )
        )
    return taken[-1]


STEP_MM, TRIES = 10.0, 200
"""How finely and how far a place for a butt is looked for."""


def butts_between(pieces: list[Part]) -> list[Seam]:
    """A butt through the plate where two pieces meet, ground flush; the pieces as ``in_lengths`` made them."""
    out = []
    for one, two in pairwise(pieces):
        at = one.outline.bounds()[2]
        ys = [v.y for v in one.outline.vertices if abs(v.x - at) < 1e-6]
        out.append(
            Seam(
                part_a=one.id,
                part_b=two.id,
                kind="butt",
                leg_mm=one.thickness_mm,
                path=line(at, min(ys), at, max(ys)),
                ground=True,
            )
        )
    return out


def seam_mm(piece: Part, pieces: list[Part]) -> float:
    """How long the seam round one piece to the rail is: its butts are none of it, mm."""
    gone = sum(s.path.length_mm() for s in butts_between(pieces) if piece.id in {s.part_a, s.part_b})
    return piece.outline.length_mm() - gone
