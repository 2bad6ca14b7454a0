"""How long a member from rail to rail is, and how its ends meet rails that are round."""

from typing import NamedTuple

from nodulant.frame.here import OnRail
from nodulant.parts.cope import Cope


class Member(NamedTuple):
    """Cut length from longest point to longest point, mm, and what both ends are coped to."""

    long_mm: float
    coped: Cope | None = None


def inner_face_mm(on: OnRail) -> float:
    """From the centre plane to the planned rail's inner face, a plate that boxes it included, mm."""
    return _web_mm(on) - (on.here.closed_width if on.rail.opens == "inward" else 0.0)


def _web_mm(on: OnRail) -> float:
    return on.rail.web_y_mm - on.here.inward


def member_between(on: OnRail, high_mm: float, above_mm: float) -> Member:
    """A straight member between both rails, ``high_mm`` high, its middle ``above_mm`` over their underside, ends square.

    It runs between the flanges of an open rail to the web where it fits there, else to the inner faces; what passes
    wholly over the rails or under them lies on both, to their outer faces.
    """
    low, top, rail, web = above_mm - high_mm / 2, above_mm + high_mm / 2, on.here, _web_mm(on)
    if low >= rail.height or top <= 0:
        return Member(2 * (web if on.rail.opens == "inward" else web + rail.width))
    inside = low >= rail.wall and top <= rail.height - rail.wall
    if inside and on.rail.kind == "channel" and on.rail.opens == "inward" and not rail.boxed:
        return Member(2 * (web - rail.wall))
    return Member(2 * inner_face_mm(on))


def tube_between(on: OnRail, od_mm: float, wall_mm: float, above_mm: float) -> Member:
    """A round tube between both rails, its middle ``above_mm`` over their underside: square to flat rails, coped to round ones.

    A tube that runs past a round rail's side is told square, as any other member.
    """
    inner, r = inner_face_mm(on), on.here.height / 2
    if not on.here.round or od_mm / 2 + abs(above_mm - r) > r:
        return member_between(on, od_mm, above_mm)
    cope = Cope(branch_mm=od_mm, wall_mm=wall_mm, main_mm=2 * r, offset_mm=above_mm - r)
    return Member(2 * (inner + r - cope.shortest()), cope)


def legs_on(on: OnRail, od_mm: float, wall_mm: float, along_mm: float) -> Member:
    """A bent tube ``along_mm`` along its middle that stands on both rails' tops."""
    r = on.here.height / 2
    if not on.here.round or od_mm > 2 * r:
        return Member(along_mm)
    cope = Cope(branch_mm=od_mm, wall_mm=wall_mm, main_mm=2 * r)
    return Member(along_mm + 2 * (r - cope.shortest()), cope)
