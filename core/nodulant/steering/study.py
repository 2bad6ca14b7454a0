"""Everything that can be said of one axle's steering: both wheels over travel and lock, toe through travel, circles."""

from dataclasses import dataclass

import numpy as np
from scipy.interpolate import CubicSpline

from nodulant.axles.layouts.independent import Steered
from nodulant.axles.steering import DragLink, Rack
from nodulant.base.arrays import Columns, Rows
from nodulant.base.errors import NodulantError
from nodulant.base.memo import remembered
from nodulant.steering.gear import centre_link_ends, shaft_axis
from nodulant.steering.knuckles import on_beam
from nodulant.steering.measures import Measures, ackermann_outer_deg, measures, turning_circle_mm
from nodulant.steering.rods import between_along
from nodulant.steering.wheels import Wheels, drag_link_of, steered_wheels, upright
from nodulant.suspension.motion import Motion, spin_at_rest
from nodulant.suspension.study import Study

PER_MM = 25.4
"""Bump steer is told per inch of travel."""


@dataclass(frozen=True)
class Lock:
    """One full lock to the right (+1) or left (-1): angle of both wheels, to the right positive, degrees; share of the input reached."""

    right_deg: float
    left_deg: float
    reached: float
    way: int
    column: int
    """Of the input."""

    @property
    def inner_deg(self) -> float:
        """Of the wheel on the inside of the turn, positive where it turns in."""
        return self.way * (self.right_deg if self.way > 0 else self.left_deg)

    @property
    def outer_deg(self) -> float:
        """Of the wheel on the outside."""
        return self.way * (self.left_deg if self.way > 0 else self.right_deg)


@dataclass(frozen=True, eq=False)
class SteerStudy:
    """An axle's steering; ``trouble`` says why it does not move."""

    study: Study
    trouble: NodulantError | None = None
    wheels: Wheels | None = None
    right: Measures | None = None
    left: Measures | None = None
    ride: int = 0
    ahead: int = 0
    straight: Measures | None = None
    """The right wheel straight ahead through the suspension's own travel, (travels, 1)."""
    steer: Columns | None = None
    """Of a beam axle: mean of both wheels straight ahead through travel, to the right positive, degrees."""
    in_roll: Columns | None = None
    """The same through roll at ride height, of a beam axle."""

    @property
    def beam(self) -> bool:
        """Whether both wheels hang on one axle."""
        return not self.study.suspension.layout.independent


@remembered(8)
def steer_study(s: Study) -> SteerStudy | None:
    """Study the steering of ``s``; None where the axle is not steered or does not move at all."""
    m, setting = s.motion, s.setting
    if s.suspension.steering is None or m is None or setting is None:
        return None
    travel = m.travel[_thinned(m, s.ride, s.look.turned_every)]
    inputs = np.linspace(-1.0, 1.0, s.look.inputs)
    try:
        wheels = steered_wheels(s.suspension, setting, m, travel, inputs)
    except NodulantError as trouble:
        return SteerStudy(s, trouble)
    ride, ahead = int(np.argmin(np.abs(travel))), s.look.inputs // 2
    right, left = (measures(w, sign, setting.radius_mm) for w, sign in ((wheels.right, 1.0), (wheels.left, -1.0)))
    straight, steer, in_roll = _straight_ahead(s, m)
    return SteerStudy(s, None, wheels, right, left, ride, ahead, straight, steer, in_roll)


def _thinned(m: Motion, ride: int, every: int) -> Rows:
    """Every so many travels with both ends and ride height."""
    last = len(m.travel) - 1
    return np.unique([*range(ride, -1, -every), *range(ride, last + 1, every), 0, last])


def _straight_ahead(s: Study, m: Motion) -> tuple[Measures, Columns | None, Columns | None]:
    """The right wheel through travel, mean steer of both, and that through roll, the steering wheel held straight."""
    own, rows = s.suspension, len(m.travel)
    if isinstance(own.layout, Steered):
        spin = spin_at_rest(own.camber_deg, own.toe_deg)
        wheel = upright(np.array(m.setting.hub), own.layout, m.setting, m.level.pose, spin, m.there[:, None])
        return measures(wheel, 1.0, m.setting.radius_mm), None, None
    if own.steering is None:
        raise ValueError("an axle that is studied here is steered")
    found = on_beam(own, *drag_link_of(own.steering), m.setting, m.sweep.solved.pose, np.zeros(1))
    one, two = (measures(w, sign, m.setting.radius_mm) for w, sign in ((found.right, 1.0), (found.left, -1.0)))
    mean = np.where(found.reaches, (one.steer_deg + two.steer_deg) / 2, np.nan).reshape(rows, -1)
    level = np.arange(rows) * len(m.sweep.roll) + m.middle
    return one.rows(level), mean[:, m.middle], mean[s.ride]


def slope_per_inch(s: SteerStudy, values: Columns | None) -> float | None:
    """Change of ``values`` (per travel) per inch of travel at ride height; None where they do not reach past it."""
    m = s.study.motion
    if m is None or values is None:
        return None
    good = m.there & np.isfinite(values)
    if good.sum() < LEAST_ROWS or not good[s.study.ride]:
        return None
    return float(CubicSpline(m.travel[good], values[good])(0.0, 1)) * PER_MM


LEAST_ROWS = 4


def bump_steer_per_inch(s: SteerStudy) -> float | None:
    """Bump steer as it is told everywhere: steer of a beam axle, toe of both single wheels together, degrees per inch at ride height."""
    slope = slope_per_inch(s, bump_steer(s))
    return slope if slope is None or s.beam else 2 * slope


def bump_steer(s: SteerStudy) -> Columns | None:
    """What a held steering wheel does as the wheels rise: toe of a single wheel, steer of a beam axle's; degrees."""
    if s.steer is not None:
        return s.steer
    return None if s.straight is None else s.straight.toe_deg[:, 0]


def lock(s: SteerStudy, way: int) -> Lock | None:
    """Full lock to the right (+1) or to the left (-1) at ride height, as far as both wheels get and go on turning."""
    if s.wheels is None or s.right is None or s.left is None:
        return None
    there = s.wheels.right.there[s.ride] & s.wheels.left.there[s.ride]
    columns = range(s.ahead + 1, len(there)) if way > 0 else range(s.ahead - 1, -1, -1)
    back = turns_back(s)
    last = s.ahead
    for k in columns:
        if not there[k] or (back is not None and abs(s.wheels.inputs[k]) > abs(back) and back * way > 0):
            break
        last = k
    right, left = (float(v.steer_deg[s.ride, last]) for v in (s.right, s.left))
    return Lock(right, left, abs(float(s.wheels.inputs[last])), way, last)


def turns_back(s: SteerStudy) -> float | None:
    """The input nearest to the middle beyond which a wheel turns back, its arm having passed over its rod; None where none does."""
    if s.wheels is None or s.right is None or s.left is None:
        return None
    there = s.wheels.right.there[s.ride] & s.wheels.left.there[s.ride]
    found: list[float] = []
    for wheel in (s.right, s.left):
        steps = np.diff(wheel.steer_deg[s.ride])
        known = there[1:] & there[:-1]
        at_rest = steps[s.ahead] + steps[s.ahead - 1] if known[s.ahead - 1 : s.ahead + 1].all() else 0.0
        whole = float(steps[known].sum())
        way = np.sign(at_rest) if abs(at_rest) > STILL_DEG and known.any() else np.sign(whole)
        wrong = np.flatnonzero(known & (steps * way < -STILL_DEG / 10))
        found += [float(s.wheels.inputs[k if k >= s.ahead else k + 1]) for k in wrong]
    return min(found, key=abs, default=None)


def sense(s: SteerStudy) -> float | None:
    """+1 where the wheels turn the way the steering wheel does, -1 where they turn against it; None where they do not move."""
    if s.wheels is None or s.right is None or s.left is None:
        return None
    there = s.wheels.right.there[s.ride] & s.wheels.left.there[s.ride]
    k = s.ahead + 1
    if k >= len(there) or not there[k]:
        return None
    turned = sum(float(v.steer_deg[s.ride, k] - v.steer_deg[s.ride, s.ahead]) for v in (s.right, s.left)) / 2
    return None if abs(turned) < STILL_DEG else float(np.sign(turned))


STILL_DEG = 1e-3


def ratio(s: SteerStudy) -> float | None:
    """Turn of the steering wheel over the mean turn of the wheels about the middle."""
    if s.wheels is None or s.right is None or s.left is None or s.study.suspension.steering is None:
        return None
    gear = s.study.suspension.steering.gear
    turns = gear.turns if isinstance(gear, Rack) else gear.box.turns
    k = s.ahead
    there = s.wheels.right.there[s.ride, k - 1 : k + 2] & s.wheels.left.there[s.ride, k - 1 : k + 2]
    mean = (s.right.steer_deg[s.ride] + s.left.steer_deg[s.ride]) / 2
    turned = abs(float(mean[k + 1] - mean[k - 1])) / 2
    return None if not there.all() or turned < STILL_DEG else 180.0 * turns * float(s.wheels.inputs[k + 1]) / turned


def pins_apart_mm(s: SteerStudy) -> float | None:
    """Between the king pins' feet on the road straight ahead, mm."""
    if s.right is None or s.left is None:
        return None
    feet = [abs(float(v.patch[s.ride, s.ahead, 1])) - float(v.scrub_mm[s.ride, s.ahead]) for v in (s.right, s.left)]
    return sum(feet)


def ackermann_percent(s: SteerStudy, inner_deg: float, way: int) -> float | None:
    """Share of Ackermann's difference at an inner wheel's angle, %: 100 rolls freely, 0 is parallel steer."""
    base, apart = s.study.vehicle.wheelbase_mm, pins_apart_mm(s)
    if s.wheels is None or s.right is None or s.left is None or base is None or apart is None:
        return None
    inner, outer = (s.right, s.left) if way > 0 else (s.left, s.right)
    rows = slice(s.ahead, None) if way > 0 else slice(s.ahead, None, -1)
    there = (s.wheels.right.there & s.wheels.left.there)[s.ride, rows]
    one, two = (np.abs(v.steer_deg[s.ride, rows])[there] for v in (inner, outer))
    if len(one) < 2 or one.max() < inner_deg or (np.diff(one) <= 0).any():
        return None
    at = float(np.interp(inner_deg, one, two))
    ideal = ackermann_outer_deg(inner_deg, apart, base)
    return 100.0 * (inner_deg - at) / (inner_deg - ideal)


def circle_mm(s: SteerStudy, way: int, tyre_mm: float) -> float | None:
    """Turning circle between kerbs at full lock, mm."""
    end, base = lock(s, way), s.study.vehicle.wheelbase_mm
    if end is None or base is None or s.right is None or s.left is None or end.outer_deg < LEAST_LOCK_DEG:
        return None
    outer = s.left if way > 0 else s.right
    foot_x = float(outer.patch[s.ride, end.column, 0])
    return turning_circle_mm(end.outer_deg, base - foot_x, tyre_mm)


LEAST_LOCK_DEG = 1.0


def gear_grips_deg(s: SteerStudy) -> dict[str, tuple[float, float]]:
    """Least angle of pitman and idler to the rod or link that they move, at ride height, degrees, and the input where it is."""
    steering = s.study.suspension.steering
    if s.wheels is None or steering is None or isinstance(steering.gear, Rack):
        return {}
    gear, inputs = steering.gear, s.wheels.inputs
    axis, shaft = np.array(shaft_axis(gear.box)), np.array(gear.box.shaft.xyz())
    if isinstance(gear, DragLink):
        rod = next(r for r in s.wheels.rods if r.name == "drag link")
        there = rod.wheel.there[s.ride]
        ends = {"pitman arm": (rod.inner[s.ride] - shaft, rod.outer[s.ride] - rod.inner[s.ride])}
    else:
        one, two, there = centre_link_ends(gear, inputs)
        idler = np.array((gear.idler or gear.box.shaft.mirrored()).xyz())
        ends = {"pitman arm": (one - shaft, two - one), "idler arm": (two - idler, two - one)}
    out = {}
    for name, (arm, link) in ends.items():
        angle = np.where(there, between_along(arm, link, axis), np.inf)
        k = int(np.argmin(angle))
        out[name] = (float(angle[k]), float(inputs[k]))
    return out


def grips_deg(s: SteerStudy) -> dict[str, tuple[float, float]]:
    """Least angle of each rod to its arm at ride height, degrees, and the input where it is."""
    if s.wheels is None:
        return {}
    out = {}
    for rod in s.wheels.rods:
        there = rod.wheel.there[s.ride]
        angle = np.where(there, rod.grip_deg()[s.ride], np.inf)
        k = int(np.argmin(angle))
        out[rod.name] = (float(angle[k]), float(s.wheels.inputs[k]))
    return out
