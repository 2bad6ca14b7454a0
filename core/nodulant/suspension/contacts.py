"""What comes to its end first as the wheel rises, and as it falls.

Each end is the wheel travel at which a length is used up: read off the travel that was solved, and
beyond it carried on with the last motion ratio, so that an end outside the wanted travel shows by
how much it lies outside.
"""

from dataclasses import dataclass
from typing import Literal

import numpy as np

from nodulant.axles.springs import AirSpring, Coilover
from nodulant.base.arrays import Columns
from nodulant.suspension.anti_roll import arm_through_travel
from nodulant.suspension.motion import dead_points
from nodulant.suspension.spring_motion import coil_seat
from nodulant.suspension.study import Study

Way = Literal["bump", "droop"]
LEAST_RATIO = 1e-3


@dataclass(frozen=True)
class Contact:
    """One end: what it is, the wheel travel where it comes, mm, and whether it is meant to come first."""

    key: str
    name: str
    way: Way
    travel_mm: float
    meant: bool = False


def contacts(s: Study) -> tuple[Contact, ...]:
    """Every end in the order in which it comes: bump from ride height up, then droop from ride height down."""
    if s.motion is None:
        return ()
    rows = [*_bump(s), *_droop(s), *_locks(s), *_bar_straight(s)]
    return tuple(sorted(rows, key=lambda c: (c.way == "droop", abs(c.travel_mm))))


def _bump(s: Study) -> list[Contact]:
    out = []
    if stop := s.suspension.stop:
        out.append(Contact("stop", "bump stop touches", "bump", stop.gap_mm, meant=True))
        out.append(Contact("stop-full", "bump stop holds 3 g", "bump", stop.gap_mm + stop.gives_mm, meant=True))
    out += [Contact(f"{key}-closed", f"{name} closed", "bump", at) for key, name, at in _dampers(s, closed=True)]
    springs, sm = s.suspension.springs, s.springs
    if isinstance(springs, AirSpring) and sm is not None:
        at = _reached(s, sm.length, sm.ratio, springs.least_mm, rising=True)
        out.append(Contact("air-least", "bellows at its least height", "bump", at))
    if isinstance(springs, Coilover) and sm is not None:
        seat = coil_seat(springs, sm, s.ride)
        if seat is not None:
            at = _reached(s, seat.left_to_block, sm.ratio, 0.0, rising=True)
            out.append(Contact("coil-block", "coil closed", "bump", at))
    return out


def _droop(s: Study) -> list[Contact]:
    out = [Contact(f"{key}-open", f"{name} full open", "droop", at) for key, name, at in _dampers(s, closed=False)]
    if s.suspension.strap is not None and s.strap is not None:
        at = _reached(s, s.strap.length, s.strap.ratio, s.suspension.strap.length_mm, rising=False)
        out.append(Contact("strap", "limit strap taut", "droop", at, meant=True))
    springs, sm = s.suspension.springs, s.springs
    if isinstance(springs, AirSpring) and sm is not None:
        at = _reached(s, sm.length, sm.ratio, springs.most_mm, rising=False)
        out.append(Contact("air-most", "bellows at its most height", "droop", at))
    if isinstance(springs, Coilover) and sm is not None:
        seat = coil_seat(springs, sm, s.ride)
        if seat is not None:
            loose = float(sm.length[s.ride]) + seat.compressed
            at = _reached(s, sm.length, sm.ratio, loose, rising=False)
            out.append(Contact("coil-loose", "coil loose on its seats", "droop", at))
    return out


def _dampers(s: Study, *, closed: bool) -> list[tuple[str, str, float]]:
    """Key, name and travel where each damper is closed, or full open."""
    out = []
    springs = s.suspension.springs
    rows = [("coilover", springs, s.springs)] if isinstance(springs, Coilover) else []
    own = [(key, spring, sm.length, sm.ratio) for key, spring, sm in rows if sm is not None]
    if s.suspension.damper is not None and s.damper is not None:
        damper = s.suspension.damper
        target = damper.closed_mm if closed else damper.open_mm
        out.append(("damper", "damper", _reached(s, s.damper.length, s.damper.ratio, target, rising=closed)))
    for key, spring, length, ratio in own:
        target = spring.closed_mm if closed else spring.open_mm
        out.append((key, "coilover's damper", _reached(s, length, ratio, target, rising=closed)))
    return out


def _locks(s: Study) -> list[Contact]:
    """Where the linkage itself ends within the wanted travel."""
    if s.motion is None:
        return []
    low, high = dead_points(s.motion)
    rows: tuple[tuple[Way, float, bool], ...] = (
        ("bump", high, high < s.suspension.bump_mm - 1e-6),
        ("droop", low, low > -s.suspension.droop_mm + 1e-6),
    )
    return [Contact(f"locks-{way}", "linkage locks", way, at) for way, at, ends in rows if ends]


def _bar_straight(s: Study) -> list[Contact]:
    """Where an anti-roll bar's drop link comes in line with its arm within the wanted travel."""
    bar = s.suspension.anti_roll
    if s.motion is None or bar is None or bar.runs is None:
        return []
    m, name = s.motion, "anti-roll bar's drop link in line with its arm"
    lost = m.there & ~arm_through_travel(bar, bar.runs, m).reaches
    out = []
    for way, ends in (("bump", lost & (m.travel >= 0)), ("droop", lost & (m.travel <= 0))):
        if ends.any():
            at = m.travel[ends][np.argmin(np.abs(m.travel[ends]))]
            out.append(Contact(f"bar-{way}", name, "bump" if way == "bump" else "droop", float(at)))
    return out


def _reached(s: Study, values: Columns, ratio: Columns, target: float, *, rising: bool) -> float:
    """Travel at which ``values``, that shrink by ``ratio`` per mm of travel, come to ``target``; mm."""
    if s.motion is None:
        raise ValueError("only a linkage that moves has ends")
    rows = np.flatnonzero(s.motion.there)
    order = np.argsort(values[rows], kind="stable")
    have, travel = values[rows][order], s.motion.travel[rows][order]
    if have[0] <= target <= have[-1]:
        return float(np.interp(target, have, travel))
    end = rows[-1] if rising else rows[0]
    rate = max(abs(float(ratio[end])), LEAST_RATIO)
    return float(s.motion.travel[end]) + (float(values[end]) - target) / rate


def first_unmeant(found: tuple[Contact, ...], way: Way) -> Contact | None:
    """The first end of one way that is not meant to come."""
    return next((c for c in found if c.way == way and not c.meant), None)
