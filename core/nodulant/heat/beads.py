"""The beads of an operation in the order in which they are laid, and how long each waits for the metal.

Short beads, never one beside a hot one: the next is where it is coolest, on the other rail where there is a choice,
and it waits until that place is hand-warm (skip, back-step, side to side, rail to rail: common practice). Pieces are
built on the bench first, then butts, then what lies over them.
"""

import math
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass

import numpy as np

from nodulant.base.arrays import Rows
from nodulant.base.model import Frozen
from nodulant.geometry import Outline
from nodulant.geometry.outline import Vertex
from nodulant.heat.cooling import AIR_C, WARM_C, Hot, Laid, Line
from nodulant.materials.process import Welding
from nodulant.materials.weld import bead_mm2
from nodulant.parts.part import Seam
from nodulant.parts.sides import LEFT_RIGHT, Side

LONGEST_MM = 50.0
BETWEEN_S = 20.0
"""Wire brush, look, move on (common practice)."""
ALIKE_K = 5.0
"""Places that differ by less are as cool as each other."""
MOST = 600
"""More beads than this are not told one by one."""


@dataclass(frozen=True)
class ToWeld:
    """A seam with its number, its turn, and the plate that its heat goes into."""

    number: int
    side: Side
    seam: Seam
    turn: int
    thickness_mm: float
    low_mm: float
    high_mm: float


class Bead(Frozen):
    """One bead: which seam, where, which way, and how long the metal is waited for before it. mm, s."""

    number: int
    seam: int
    side: Side
    path: Outline
    x_mm: float
    length_mm: float
    towards: str
    wait_s: float
    arc_s: float


@dataclass(frozen=True)
class _Piece:
    of: ToWeld
    line: Line


def beads_of(seams: Sequence[ToWeld], welding: Welding) -> tuple[Bead, ...]:
    """Every bead in its order; none where there are more than are told one by one."""
    pieces = [_Piece(s, line) for s in seams for line in pieces_of(s.seam)]
    if len(pieces) > MOST:
        return ()
    out: list[Bead] = []
    laid = {side: Hot() for side in LEFT_RIGHT}
    now, last = 0.0, -1
    limit = WARM_C - AIR_C
    places = _Places(pieces)
    for turn in sorted({p.of.turn for p in pieces}):
        left = np.array([k for k, p in enumerate(pieces) if p.of.turn == turn])
        while len(left):
            row = places.coolest(left, laid, now, last)
            piece, left = pieces[row], left[left != row]
            side, own = piece.of.side, piece.of.seam
            ready = laid[side].ready_s(piece.line, now, limit)
            area = bead_mm2(own.kind, own.leg_mm)
            arc = 60 * piece.line.length_mm / welding.speed_mm_per_min(area)
            heat = welding.heat_kj_per_mm(area) * piece.line.length_mm
            now_done = ready + arc
            strip = piece.of
            laid[side].add(Laid(piece.line, now_done, heat, strip.thickness_mm, strip.low_mm, strip.high_mm))
            out.append(_bead(len(out) + 1, piece, wait_s=ready - now, arc_s=arc))
            now, last = now_done + BETWEEN_S, row
    return tuple(out)


def pieces_of(seam: Seam) -> list[Line]:
    """A seam in beads of at most 50 mm: all of it, or stitches spread evenly over it."""
    points = np.array(seam.path.points(0.5))
    if seam.path.closed:
        points = np.vstack([points, points[:1]])
    steps = np.hypot(*np.diff(points, axis=0).T)
    seen = float(steps.sum())
    if seen < 1e-6 or seam.welded_mm < 1e-6:
        return []
    count = max(math.ceil(seam.welded_mm / LONGEST_MM - 1e-9), 1)
    at = np.concatenate([[0.0], np.cumsum(steps)])
    pitch, long = seen / count, min(seam.welded_mm / count, seen / count)
    starts = np.arange(count) * pitch + (pitch - long) / 2

    def point(s: float) -> tuple[float, float]:
        return float(np.interp(s, at, points[:, 0])), float(np.interp(s, at, points[:, 1]))

    return [Line(*point(s), *point(s + long)) for s in starts]


class _Places:
    """Where the pieces lie, as columns."""

    def __init__(self, pieces: Sequence[_Piece]) -> None:
        self.x, self.y = np.array([p.line.middle for p in pieces]).reshape(-1, 2).T
        self.right = np.array([p.of.side == "right" for p in pieces])

    def coolest(self, left: Rows, laid: Mapping[Side, Hot], now: float, last: int) -> int:
        """Of the pieces that are left the one where it is coolest now; of those alike the other rail's, then the farthest from the last."""
        if last < 0:
            return int(left[0])
        x, y, right, rises = self.x[left], self.y[left], self.right[left], np.zeros(len(left))
        for side, own in laid.items():
            here = right == (side == "right")
            rises[here] = own.rise_k(x[here], y[here], now)
        far = np.hypot(x - self.x[last], y - self.y[last])
        return int(left[np.lexsort((-far, right == self.right[last], np.round(rises / ALIKE_K)))[0]])


def _bead(number: int, piece: _Piece, *, wait_s: float, arc_s: float) -> Bead:
    line = piece.line
    turned, towards = _way(line)
    a, b = ((line.x1, line.y1), (line.x0, line.y0)) if turned else ((line.x0, line.y0), (line.x1, line.y1))
    return Bead(
        number=number,
        seam=piece.of.number,
        side=piece.of.side,
        path=Outline(vertices=(Vertex(*a), Vertex(*b)), closed=False),
        x_mm=line.middle[0],
        length_mm=line.length_mm,
        towards=towards,
        wait_s=wait_s,
        arc_s=arc_s,
    )


def _way(line: Line) -> tuple[bool, str]:
    """Whether a bead is laid against its line, and which way that is: upward where it stands, else back to front."""
    dx, dy = line.x1 - line.x0, line.y1 - line.y0
    if abs(dy) > abs(dx):
        return dy < 0, "upward"
    return dx > 0, "forward"


def minutes_of(beads: Iterable[Bead]) -> tuple[float, float]:
    """Minutes of arc, and of everything: arc, moving on, waiting."""
    own = list(beads)
    arc = sum(b.arc_s for b in own)
    return arc / 60, (arc + sum(b.wait_s for b in own) + BETWEEN_S * len(own)) / 60
