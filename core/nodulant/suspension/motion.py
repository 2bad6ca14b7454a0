"""An axle or wheel through travel: what its twist says at every pose.

Gillespie, Fundamentals of Vehicle Dynamics, chapters 6 to 8 (from memory), for the constructions:
anti-squat from the path of the contact patch where the housing takes the torque and from the
wheel centre's where the differential hangs on the frame; roll centre where the roll axis meets
the plane through the wheel centres. Every figure comes from (v, omega) of the carrier per unit of
travel or roll, so that it holds for any layout; tests set it against line constructions.
"""

from dataclasses import dataclass
from functools import cached_property

import numpy as np

from nodulant.axles.layouts.layout import Layout
from nodulant.axles.layouts.live import LeafSprings
from nodulant.base.arrays import Columns, cross
from nodulant.linkage.compiled import Compiled, compile_mechanism
from nodulant.linkage.mechanism import Drive, Height, Lean, Point
from nodulant.linkage.rates import twist
from nodulant.linkage.rotation import angles
from nodulant.linkage.solve import Solved, part
from nodulant.linkage.sweep import Sweep, sweep

FLAT = 1e-9
"""Rates of turning below this, rad/mm, put an instant centre at infinity."""
ROLLS_DEG = (-5.0, -3.0, -1.0, 0.0, 1.0, 3.0, 5.0)


@dataclass(frozen=True)
class Setting:
    """Where an axle stands: hub line on the centre plane, half track, tyre's loaded radius, mm."""

    hub: Point
    half_track_mm: float
    radius_mm: float


@dataclass(frozen=True)
class Motion:
    """A layout through its travel, with the twists of pure heave and, on an axle, of pure roll."""

    layout: Layout
    setting: Setting
    sweep: Sweep
    middle: int
    """Column of zero roll."""
    heave: Columns
    roll: Columns | None
    """Per radian; None where a wheel moves by itself."""

    @property
    def travel(self) -> Columns:
        """Wheel travel, bump positive, mm."""
        return self.sweep.travel

    @property
    def there(self) -> np.ndarray[tuple[int], np.dtype[np.bool_]]:
        """Where the linkage exists at zero roll."""
        return self.sweep.there[:, self.middle]

    @cached_property
    def level(self) -> Solved:
        """Poses at zero roll."""
        return self.sweep.column(self.middle)


def drives_of(layout: Layout, setting: Setting) -> tuple[Drive, ...]:
    """An axle is driven by its middle's height and its lean, a wheel by its own height."""
    if layout.independent:
        x, _, z = setting.hub
        return (Height((x, setting.half_track_mm, z)),)
    return (Height(setting.hub), Lean())


def compiled(layout: Layout, setting: Setting) -> Compiled:
    """The layout's mechanism, ready to be solved; raises InputError and NotSolvable."""
    return compile_mechanism(layout.mechanism(setting.hub), drives_of(layout, setting))


def moved_through(
    layout: Layout, setting: Setting, travel: Columns, rolls_deg: tuple[float, ...] = ROLLS_DEG
) -> Motion:
    """Solve ``layout`` over ``travel`` and roll; raises InputError and NotSolvable."""
    c = compiled(layout, setting)
    rolls = np.radians(np.array((0.0,) if layout.independent else rolls_deg))
    found = sweep(c, travel, rolls)
    middle = int(np.argmin(np.abs(rolls)))
    level, rows = found.column(middle), np.flatnonzero(found.there[:, middle])
    heave = np.full((len(travel), c.mechanism.freedoms), np.nan)
    heave[rows] = twist(c, part(level, rows), 0)
    roll = None
    if not layout.independent:
        roll = np.full_like(heave, np.nan)
        roll[rows] = twist(c, part(level, rows), 1)
    return Motion(layout, setting, found, middle, heave, roll)


def level_at(m: Motion, travel: Columns) -> Sweep:
    """A wheel by itself at any travels: the motion's own poses where it has all of them, solved anew elsewhere."""
    rows = np.minimum(np.searchsorted(m.travel, travel), len(m.travel) - 1)
    return m.sweep.of(rows) if np.array_equal(m.travel[rows], travel) else sweep(m.sweep.compiled, travel)


def dead_points(m: Motion) -> tuple[float, float]:
    """Wheel travel at which the linkage ends in droop and in bump, to a hundredth of a millimetre; the whole travel where it does not."""
    rows = np.flatnonzero(m.there)
    first, last = int(rows[0]), int(rows[-1])
    low, high = float(m.travel[first]), float(m.travel[last])
    if first > 0:
        low = _closed_in(m, low, float(m.travel[first - 1]))
    if last < len(m.travel) - 1:
        high = _closed_in(m, high, float(m.travel[last + 1]))
    return low, high


CLOSER, STEPS = 2, 17


def _closed_in(m: Motion, inside: float, outside: float) -> float:
    """The last travel that is reached between one that is and one that is not."""
    for _ in range(CLOSER):
        near = np.linspace(inside, outside, STEPS + 1)[:-1]
        between = (m.travel > min(inside, 0.0)) & (m.travel < max(inside, 0.0))
        travel = np.unique(np.concatenate([[0.0], m.travel[between], near]))
        reached = travel[sweep(m.sweep.compiled, travel).there[:, 0]]
        step = (outside - inside) / STEPS
        inside = float(reached.max() if outside > inside else reached.min())
        outside = inside + step
    return inside


def hub_place(m: Motion) -> Columns:
    """Where the hub line's middle, or the right wheel's centre, is through travel, (travels, 3)."""
    pose = m.level.pose
    if not m.layout.independent:
        return pose.origin
    arm = np.array([0.0, m.setting.half_track_mm, 0.0])
    return np.asarray(pose.origin + np.einsum("nij,j->ni", pose.rotation, arm))


def _wheel_rates(m: Motion) -> tuple[Columns, Columns]:
    """Velocity of the wheel's centre and turning, per mm of its own rise, (travels, 3) each."""
    v, w = m.heave[:, :3], m.heave[:, 3:6]
    if m.layout.independent:
        arm = hub_place(m) - m.level.pose.origin
        v = v + cross(w, arm)
    return v / v[:, 2:3], w / v[:, 2:3]


def instant_centre(m: Motion) -> tuple[Columns, Columns]:
    """Side-view instant centre's x and z, mm; infinite where the carrier does not turn."""
    v, w = _wheel_rates(m)
    at = hub_place(m)
    turning = np.where(np.abs(w[:, 1]) < FLAT, np.nan, w[:, 1])
    return at[:, 0] + v[:, 2] / turning, at[:, 2] - v[:, 0] / turning


UPRIGHT_SPIN = np.array([0.0, 1.0, 0.0])


def spin_at_rest(camber_deg: float, toe_deg: float) -> Columns:
    """Outward spin axis of the right wheel as it was set: toe-in turns it forward, camber outward points it down."""
    camber, toe = np.radians(camber_deg), np.radians(toe_deg)
    return np.array([-np.sin(toe) * np.cos(camber), np.cos(toe) * np.cos(camber), -np.sin(camber)])


def _foot(m: Motion, spin: Columns) -> tuple[Columns, Columns]:
    """From a single wheel's centre to its tyre's foot, in the wheel's own plane, and how that changes per mm of rise, (travels, 3)."""
    a = m.level.pose.rotation @ spin
    up = np.array([0.0, 0.0, 1.0]) - a * a[:, 2:3]
    size = np.linalg.norm(up, axis=1, keepdims=True)
    turned = cross(_wheel_rates(m)[1], a)
    rate = -(turned * a[:, 2:3] + a * turned[:, 2:3])
    unit = up / size
    along = (unit * rate).sum(axis=1, keepdims=True)
    return np.asarray(-m.setting.radius_mm * unit), np.asarray(-m.setting.radius_mm * (rate - unit * along) / size)


def torque_slope(m: Motion, *, braking: bool, spin: Columns = UPRIGHT_SPIN) -> Columns:
    """Tangent to the vertical of the path that counts: contact patch, or wheel centre for a driven independent wheel.

    ``spin`` is the wheel's axis as it was set: the braked foot is a point of the upright.
    """
    v, w = _wheel_rates(m)
    if not (braking or m.layout.torque_on_carrier):
        return np.asarray(v[:, 0])
    if m.roll is None:
        return np.asarray((v + cross(w, _foot(m, spin)[0]))[:, 0])
    return np.asarray(v[:, 0] - w[:, 1] * m.setting.radius_mm)


def roll_centre(m: Motion, spin: Columns = UPRIGHT_SPIN) -> Columns:
    """Height of the roll centre above the ground, mm; of leaf springs on the line of their eyes (Hotchkiss, textbook).

    Of single wheels y v_y/v_z of the tyre's foot, which lies in the wheel's plane: ``spin`` is its axis as it was set.
    """
    v, _ = _wheel_rates(m)
    if m.roll is None:
        down, change = _foot(m, spin)
        at, moved = hub_place(m) + down, v + change
        return np.asarray(at[:, 1] * moved[:, 1] / moved[:, 2])
    if isinstance(m.layout, LeafSprings):
        return np.asarray(m.layout.eyes_line_mm(m.setting.hub[0]) + m.setting.radius_mm - hub_place(m)[:, 2])
    return np.asarray(m.setting.radius_mm + m.roll[:, 1] / m.roll[:, 3])


def roll_steer(m: Motion) -> Columns | None:
    """Degrees of axle steer per degree of roll, positive is understeer at the rear; None for single wheels."""
    return None if m.roll is None else np.asarray(m.roll[:, 5] / m.roll[:, 3])


def pitch_deg(m: Motion) -> Columns:
    """How far the carrier has turned about the axle's line since ride height, nose up positive, degrees."""
    return np.degrees(angles(m.level.pose.rotation)[2])


def steer_deg(m: Motion) -> Columns:
    """Steer of axle or right wheel through travel, to the right positive, degrees."""
    return -np.degrees(angles(m.level.pose.rotation)[0])


def lean_deg(m: Motion) -> Columns:
    """Camber change of the right wheel, top outward positive, degrees; what an axle leans in heave."""
    return -np.degrees(angles(m.level.pose.rotation)[1])


def roll_ratio(lower: Point, upper: Point, m: Motion) -> Columns | None:
    """Motion ratio of the right spring in roll: its shortening per mm that the right wheel rises."""
    if m.roll is None:
        return None
    pose = m.level.pose
    arm = np.einsum("nij,j->ni", pose.rotation, np.array(lower) - np.array(m.setting.hub))
    gap = pose.origin + arm - np.array(upper)
    v = m.roll[:, :3] + cross(m.roll[:, 3:6], arm)
    rate = -((gap / np.sqrt((gap**2).sum(axis=1))[:, None]) * v).sum(axis=1)
    return np.asarray(rate / m.setting.half_track_mm)


def own_rise(m: Motion) -> Columns:
    """How fast the wheel rises under the heave drive: 1 by definition of the drive."""
    if not m.layout.independent:
        return np.ones(len(m.travel))
    arm = hub_place(m) - m.level.pose.origin
    return np.asarray((m.heave[:, :3] + cross(m.heave[:, 3:6], arm))[:, 2])
