"""What hangs under the vehicle: the scrub line with a tyre flat, and the angles of approach, departure and breakover.

Scrub line (common practice, law in many places): with one tyre flat nothing that steers, brakes or
carries lies below the line from that rim's lowest edge to the other tyre's foot; with both flat
nothing below the plane through both rims' lowest edges. Angles: the line from a point under the body that touches the tyre's loaded
circle from below, tan-line geometry of a point and a circle (textbook).
"""

import math
from collections.abc import Callable
from dataclasses import dataclass

import numpy as np

from nodulant.base.arrays import Columns
from nodulant.clearance.moving import Mover, RoundBar
from nodulant.suspension.motion import Setting

LEVEL_WALL_DEG = 90.0
FLANGE_MM = 17.0
"""Height of a rim's flange over its bead seat (common, from memory)."""


@dataclass(frozen=True)
class Scrub:
    """Least height over a scrub line or plane, mm, negative below; the part, and where it is lowest, (3,)."""

    over_mm: float
    part: str
    at: Columns


@dataclass(frozen=True)
class Under:
    """An axle's parts against the lines with one tyre flat, and against the plane with both flat."""

    one_flat: Scrub
    both_flat: Scrub


def under_axle(movers: tuple[Mover, ...], setting: Setting, rim_mm: float) -> Under | None:
    """What of one axle comes lowest, at ride height straight and at both locks; None without parts."""
    half = setting.half_track_mm
    ground = setting.hub[2] - setting.radius_mm
    rim = ground + sinks_mm(setting, rim_mm)
    ends = _hanging(movers)
    if not ends:
        return None

    def line(y: Columns) -> Columns:
        # from either rim's bottom down to the other tyre's foot: the higher of both counts
        share = (y + half) / (2 * half)
        return np.maximum(rim + (ground - rim) * share, ground + (rim - ground) * share)

    return Under(_lowest(ends, line), _lowest(ends, lambda y: np.full(len(y), rim)))


def lowest_over(movers: tuple[Mover, ...], setting: Setting) -> Scrub | None:
    """What of one axle hangs lowest over the ground, at ride height through its lock; None without parts."""
    ends = _hanging(movers)
    ground = setting.hub[2] - setting.radius_mm
    return _lowest(ends, lambda y: np.full(len(y), ground)) if ends else None


def sinks_mm(setting: Setting, rim_mm: float) -> float:
    """How far an axle sinks when its tyres go flat, onto the rims' flanges."""
    return setting.radius_mm - rim_mm / 2 - FLANGE_MM


def _hanging(movers: tuple[Mover, ...]) -> list[tuple[str, Columns, float]]:
    """Name, ends and radius of every bar of an axle but its shafts."""
    return [
        (m.name, end, m.body.radius)
        for m in movers
        if isinstance(m.body, RoundBar) and m.kind != "shaft"
        for end in _ends(m, m.body)
    ]


def _ends(mover: Mover, body: RoundBar) -> list[Columns]:
    """Both ends of a bar at ride height through its lock."""
    t, r, _ = mover.positions.ride()
    there = mover.there[t, r]
    return [end for end in (body.a[t, r][there], body.b[t, r][there]) if len(end)]


def _lowest(ends: list[tuple[str, Columns, float]], line: Callable[[Columns], Columns]) -> Scrub:
    found = []
    for name, end, radius in ends:
        over = end[:, 2] - radius - line(end[:, 1])
        k = int(np.argmin(over))
        found.append(Scrub(float(over[k]), name, end[k]))
    return min(found, key=lambda scrub: scrub.over_mm)


def angle_deg(ahead_mm: float, height_mm: float, radius_mm: float) -> float:
    """Slope that a tyre climbs before a point ``ahead_mm`` past its hub and ``height_mm`` over the ground touches, degrees.

    A point within the tyre's own circle, or above its reach, is met by no slope: 90.
    """
    up, away = height_mm - radius_mm, math.hypot(ahead_mm, height_mm - radius_mm)
    if away <= radius_mm:
        return LEVEL_WALL_DEG
    return min(math.degrees(math.atan2(up, ahead_mm) + math.asin(radius_mm / away)), LEVEL_WALL_DEG)
