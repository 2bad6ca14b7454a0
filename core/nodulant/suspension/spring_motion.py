"""Springs through travel: lengths, motion ratio, wheel rate, frequency, and how they sit at ride height.

Wheel rate = k MR^2 + F dMR/dz with MR = -d(length)/d(wheel travel), F the spring's force
(textbook virtual work); ride frequency f = sqrt(1000 k_w/m)/2 pi, k_w N/mm and m kg.
"""

from dataclasses import dataclass

import numpy as np

from nodulant.axles.points import HardPoint, on_axle
from nodulant.axles.springs import AirSpring, Coilover, LeafPack, Springs, TorsionBar
from nodulant.axles.wishbone import Wishbone, wishbone_of
from nodulant.base.arrays import Columns
from nodulant.base.errors import InputError
from nodulant.linkage.mechanism import Point
from nodulant.suspension.feet import Foot, Springing, Strung, Twisted, foot_of, heights, stands_in
from nodulant.suspension.motion import Motion, roll_ratio

ATMOSPHERE_MPA = 0.101325
LEAST_RATIO = 0.02
"""A spring that hardly moves with the wheel carries nothing that could be reckoned."""
POLYTROPIC = 1.38
"""Of air worked quickly (between slow 1.0 and adiabatic 1.4; common practice)."""


@dataclass(frozen=True)
class SpringMotion:
    """One spring through travel; lengths mm, forces N, rates N/mm at the wheel, frequency Hz."""

    length: Columns
    ratio: Columns
    roll_ratio: Columns | None
    force: Columns | None
    """None where the corner's weight is not known."""
    wheel_rate: Columns | None
    frequency_hz: Columns | None
    own_rate: Columns | None
    roll_rate: Columns | None = None
    """What a spring's force adds to the wheel rate in roll, F d2c/dz2, as its line turns; N/mm."""


def strung(springs: Springs, m: Motion) -> Springing:
    """The right spring between its foot and the frame; raises InputError where the arm that it stands on is not there."""
    if isinstance(springs, LeafPack):
        low = on_axle(springs.seat, m.setting.hub)
        return Strung(Foot(low), (low[0], low[1], low[2] + 1e5))
    if isinstance(springs, TorsionBar):
        return _twisted(springs, m)
    return Strung(foot_of(springs.lower, springs.on, m), springs.upper.xyz())


def _twisted(bar: TorsionBar, m: Motion) -> Twisted:
    """Between the arm that twists it and its key; raises InputError where the arm is not there."""
    arm = wishbone_of(m.layout, bar.on, m.setting.hub)
    if arm is None:
        raise InputError("a torsion bar is twisted by an arm", field="on", found=bar.on, acceptable="an arm")
    return Twisted(Foot(arm.ball, arm), arm, _key(bar, arm)[1])


def key_ends(bar: TorsionBar, m: Motion) -> tuple[Point, Point]:
    """A right-hand torsion bar's end in its arm, and the one in its key; raises InputError where the arm is not there."""
    arm = _twisted(bar, m).arm
    return _key(bar, arm)


def _key(bar: TorsionBar, arm: Wishbone) -> tuple[Point, Point]:
    """From the pivot that is nearer to the key, along the hinge."""
    along = arm.hinge * np.sign(arm.hinge[0] or 1.0)
    behind = bar.anchor == "behind"
    start = (max if behind else min)((arm.front, arm.rear), key=lambda p: p[0])
    x, y, z = (float(v) for v in np.array(start) + along * (bar.length_mm if behind else -bar.length_mm))
    return start, (x, y, z)


def both_strung(springs: Springs, m: Motion) -> list[Springing]:
    """Springs of both sides, or of the one wheel."""
    right = strung(springs, m)
    if m.layout.independent or isinstance(right, Twisted):
        return [right]
    x, y, z = right.upper
    return [right, Strung(right.foot.mirrored(), (x, -y, z))]


def spring_motion(springs: Springs, m: Motion, corner_n: float | None, ride: int) -> SpringMotion:
    """Follow one spring; ``corner_n`` is the sprung weight on it, at the wheel; ``ride`` the row of ride height."""
    right = strung(springs, m)
    length, ratio = heights(right, m)
    length = np.where(m.there, length, np.nan)
    roll = roll_ratio(right.foot.at, right.upper, m)  # independent wheels have none
    if corner_n is None or corner_n <= 0 or abs(ratio[ride]) < LEAST_RATIO:
        return SpringMotion(length, ratio, roll, None, None, None, None)
    at_ride = corner_n / ratio[ride]
    shorter = length[ride] - length
    if isinstance(springs, AirSpring):
        force, own = _air(springs, at_ride, shorter)
    else:
        rate = _rate(springs, right)
        force = np.maximum(at_ride + rate * shorter, 0.0)
        own = np.where(force > 0, rate, 0.0)  # a coil that hangs loose holds nothing up
    wheel = own * ratio**2 + force * _slope(ratio, m)
    mass = corner_n / 9.80665
    hertz = np.sqrt(np.maximum(1000 * wheel / mass, 0.0)) / (2 * np.pi)
    return SpringMotion(length, ratio, roll, force, wheel, hertz, own, force * _bend(right, m, ratio))


def _bend(right: Springing, m: Motion, ratio: Columns) -> Columns:
    """Second derivative of the spring's shortening by its wheel's rise in roll, 1/mm, through travel; 0 where it was not rolled."""
    if m.roll is None:
        return np.asarray(np.nan_to_num(_slope(ratio, m)))
    angles, k = m.sweep.roll, m.middle
    if not 0 < k < len(angles) - 1:
        return np.zeros(len(m.travel))
    short = -right.lengths(stands_in(right.foot, m.setting.hub, m.sweep.solved.pose)).reshape(
        len(m.travel), len(angles)
    )
    step = (angles[k + 1] - angles[k - 1]) / 2 * m.setting.half_track_mm
    return np.asarray(np.nan_to_num((short[:, k + 1] - 2 * short[:, k] + short[:, k - 1]) / step**2))


def _rate(springs: Coilover | LeafPack | TorsionBar, right: Springing) -> float:
    """Rate of one side, N/mm; of a torsion bar at its arm's ball joint."""
    if isinstance(springs, TorsionBar):
        return springs.twist_rate / right.reach_mm**2 if isinstance(right, Twisted) else 0.0
    return rate_of(springs)


def rate_of(springs: Coilover | LeafPack) -> float:
    """Rate of all that stands on one side, N/mm."""
    if isinstance(springs, Coilover):
        return springs.count * springs.rate_n_per_mm
    return springs.worked_rate_n_per_mm


def _slope(ratio: Columns, m: Motion) -> Columns:
    """dMR/dz where the linkage exists; NaN where it stands in one pose only."""
    rows = np.flatnonzero(m.there)
    out = np.full_like(ratio, np.nan)
    if len(rows) > 1:
        out[rows] = np.gradient(ratio[rows], m.travel[rows])
    return out


def _air(s: AirSpring, at_ride: float, shorter: Columns) -> tuple[Columns, Columns]:
    """Force and rate of a bellows: closed gas, p V^n constant; rate = n p_abs A^2/V + p_gauge dA/dz."""
    gauge = at_ride / s.area_mm2
    area = np.maximum(s.area_mm2 - s.area_per_mm * shorter, 1.0)
    volume = np.maximum(s.volume_mm3 - s.area_mm2 * shorter + s.area_per_mm * shorter**2 / 2, 0.02 * s.volume_mm3)
    absolute = (gauge + ATMOSPHERE_MPA) * (s.volume_mm3 / volume) ** POLYTROPIC
    force = np.maximum((absolute - ATMOSPHERE_MPA) * area, 0.0)
    rate = POLYTROPIC * absolute * area**2 / volume - (absolute - ATMOSPHERE_MPA) * s.area_per_mm
    return force, rate


def ride_pressure_bar(s: AirSpring, at_ride_n: float) -> float:
    """Gauge pressure that carries ``at_ride_n``."""
    return at_ride_n / s.area_mm2 * 10


@dataclass(frozen=True)
class CoilSeat:
    """How a coil must sit: compressed at ride height, wound down at full open, loose in droop; mm."""

    compressed: float
    preload: float
    """Collar's squeeze with the damper full open; negative: it hangs loose there."""
    left_to_block: Columns
    """Of the coil, through travel, mm."""


def coil_seat(s: Coilover, sm: SpringMotion, ride: int) -> CoilSeat | None:
    """Where the collar has to be for the ride height; None without the corner's weight."""
    if sm.force is None:
        return None
    compressed = float(sm.force[ride]) / rate_of(s)
    shorter = sm.length[ride] - sm.length
    preload = compressed - (s.open_mm - float(sm.length[ride]))
    return CoilSeat(compressed, preload, s.free_mm - compressed - shorter - s.block_mm)


def tilt_deg(low: HardPoint, up: HardPoint, hub: Point) -> float:
    """Lean of a spring against upright at ride height, degrees."""
    a, b = on_axle(low, hub), up.xyz()
    side = float(np.hypot(b[0] - a[0], b[1] - a[1]))
    return float(np.degrees(np.arctan2(side, b[2] - a[2])))
