"""How long a member from rail to rail is, and how its ends meet rails that are round."""

from typing import NamedTuple

from nodulant.frame.here import OnRail
from nodulant.parts.cope import Cope


class Member(NamedTuple):
    """Cut length from longest point to longest point, mm, and what both ends are coped to."""

    long_mm: float
    coped: Cope | None = None


def inner_face_mm(on: OnRail) -> float:
    """From the centre plane to the rail's inner face, mm."""
    return on.rail.web_y_mm - (on.here.width if on.rail.opens == "inward" else 0.0)


def tube_between(on: OnRail, od_mm: float, wall_mm: float, above_mm: float) -> Member:
    """A round tube between both rails, its middle ``above_mm`` over their underside: square to flat rails, coped to round ones.

    A tube that runs past a round rail's side is told square, from inner face to inner face.
    """
    inner, r = inner_face_mm(on), on.here.height / 2
    if not on.here.round or od_mm / 2 + abs(above_mm - r) > r:
        return Member(2 * inner)
    cope = Cope(branch_mm=od_mm, wall_mm=wall_mm, main_mm=2 * r, offset_mm=above_mm - r)
    return Member(2 * (inner + r - cope.shortest()), cope)


def legs_on(on: OnRail, od_mm: float, wall_mm: float, along_mm: float) -> Member:
    """A bent tube ``along_mm`` along its middle that stands on both rails' tops."""
    r = on.here.height / 2
    if not on.here.round or od_mm > 2 * r:
        return Member(along_mm)
    cope = Cope(branch_mm=od_mm, wall_mm=wall_mm, main_mm=2 * r)
    return Member(along_mm + 2 * (r - cope.shortest()), cope)
