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
        at = _clear(x0 + (x1 - x0) * k / count + (rank - 1.5) * STAGGER_MM, on)
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


def _clear(x: float, on: OnRail) -> float:
    """The station nearest to ``x`` that is clear of every cut."""
    for cut in sorted(on.cuts, key=lambda cut: cut.centre_mm):
        edge = [v.x for v in cut.edge.edge_above(0.0)]
        half = max((abs(v) for v in edge), default=0.0) + CLEAR_MM
        if abs(x - cut.centre_mm) < half:
            x = cut.centre_mm + half * (1 if x >= cut.centre_mm else -1)
    return x


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
