"""The beads of an operation in the order in which they are laid, and how long each waits for the metal.

Short beads, never one beside a hot one: the next is where it is coolest, on the other rail where there is a choice,
and it waits until that place is hand-warm (skip, back-step, side to side, rail to rail: common practice). Pieces are
built on the bench first, then butts, then what lies over them.
"""

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass

import numpy as np

from nodulant.base.model import Frozen
from nodulant.geometry import Outline
from nodulant.geometry.outline import Vertex
from nodulant.heat.cooling import AIR_C, WARM_C, Hot, Laid, Line
from nodulant.materials.process import Welding
from nodulant.materials.weld import bead_mm2
from nodulant.parts.part import Seam
from nodulant.parts.sides import Side

LONGEST_MM = 50.0
BETWEEN_S = 20.0
"""Wire brush, look, move on (common practice)."""
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
    laid: dict[Side, list[Laid]] = {}
    now, last = 0.0, None
    limit = WARM_C - AIR_C
    for turn in sorted({p.of.turn for p in pieces}):
        left = [p for p in pieces if p.of.turn == turn]
        while left:
            piece = _coolest(left, laid, now, last)
            left.remove(piece)
            side, own = piece.of.side, piece.of.seam
            ready = Hot(laid.get(side, [])).ready_s(piece.line, now, limit)
            area = bead_mm2(own.kind, own.leg_mm)
            arc = 60 * piece.line.length_mm / welding.speed_mm_per_min(area)
            heat = welding.heat_kj_per_mm(area) * piece.line.length_mm
            now_done = ready + arc
            laid.setdefault(side, []).append(
                Laid(piece.line, now_done, heat, piece.of.thickness_mm, piece.of.low_mm, piece.of.high_mm)
            )
            out.append(_bead(len(out) + 1, piece, wait_s=ready - now, arc_s=arc))
            now, last = now_done + BETWEEN_S, piece
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


def _coolest(left: Sequence[_Piece], laid: dict[Side, list[Laid]], now: float, last: _Piece | None) -> _Piece:
    """Where it is coolest now; of those alike the other rail's, then the farthest from the last."""
    rises = np.zeros(len(left))
    for side, own in laid.items():
        which = [k for k, p in enumerate(left) if p.of.side == side]
        middles = np.array([left[k].line.middle for k in which]).reshape(-1, 2)
        rises[which] = Hot(own).rise_k(middles[:, 0], middles[:, 1], now)

    def rank(k: int) -> tuple[float, int, float]:
        piece = left[k]
        if last is None:
            return (0.0, 0, 0.0)
        far = math.dist(piece.line.middle, last.line.middle)
        return (round(rises[k] / 5.0), int(piece.of.side == last.of.side), -far)

    return left[min(range(len(left)), key=rank)]


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
