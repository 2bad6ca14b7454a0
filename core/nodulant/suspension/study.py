"""Everything that can be said of one suspension with what the survey knows: setting, motion, springs, forces."""

import math
from dataclasses import dataclass, field, replace

import numpy as np

from nodulant.axles.springs import Coilover, Damper, Strap
from nodulant.axles.suspension import Suspension
from nodulant.base.arrays import Columns
from nodulant.base.errors import NodulantError
from nodulant.base.memo import remembered
from nodulant.loads.beam import G, Reactions, reactions
from nodulant.parts.sides import LoadState
from nodulant.parts.tyre import Tyre, loaded_radius, parse_tyre
from nodulant.parts.wheel import Wheel, on_wheel
from nodulant.survey.states import LOAD_STATES, in_state
from nodulant.survey.vehicle import Axle, Seat, Survey
from nodulant.suspension.feet import Strung, foot_of, heights
from nodulant.suspension.forces import AxleLoads, Forces, LoadCase, balance, tyre_forces
from nodulant.suspension.motion import ROLLS_DEG, Motion, Setting, moved_through
from nodulant.suspension.spring_motion import SpringMotion, both_strung, spring_motion
from nodulant.suspension.stops import Shaft, Strike, strike_of

STEPS = 60
"""Steps of travel between full droop and full bump."""
NEARLY_N = 1e-6
CASES: tuple[LoadCase, ...] = ("launch", "brake", "bump", "kerb")


@dataclass(frozen=True)
class Vehicle:
    """What an axle's figures need of the whole vehicle; None where it is not known."""

    wheelbase_mm: float | None
    centre_z_mm: float | None
    """Centre of the sprung mass above the datum plane."""
    weight_n: float | None
    axle_n: float | None
    """Sprung load on this axle."""
    grip: float
    tube_mm: float | None = None
    """Diameter of the axle's tube."""
    weight_missing: tuple[str, ...] = ()
    """Pointers of what its load lacks."""
    tyre_mm: float | None = None
    """Free diameter of the tyre by its size."""


@dataclass(frozen=True)
class Stand:
    """Where an axle stands in one load state: its sprung load, N, and wheel travel, mm; None beyond droop or bump."""

    state: LoadState
    load_n: float
    travel_mm: float | None
    frequency_hz: float | None = None
    """Of its ride there, as loaded; None on its stops."""
    on_tyre_hz: float | None = None
    """The same with the tyre's spring under the wheel's, the unsprung mass left out; None where the tyre's rate is not known."""


@dataclass(frozen=True)
class Reach:
    """Length of a damper or strap through travel, mm, and its motion ratio."""

    length: Columns
    ratio: Columns


@dataclass(frozen=True)
class Look:
    """How closely an axle is looked at: steps of travel, rolls, degrees, and whether its links are loaded."""

    steps: int = STEPS
    rolls_deg: tuple[float, ...] = ROLLS_DEG
    loaded: bool = True
    inputs: int = 21
    """Steering inputs from lock to lock."""
    turned_every: int = 2
    """Every so many travels are looked at with the wheels turned."""


CLOSELY = Look()
A_LITTLE = tuple(r for r in ROLLS_DEG if abs(r) <= 1.0)
"""Rolls enough for what stiffens in roll."""
LEVEL = Look(rolls_deg=A_LITTLE, loaded=False, inputs=3)
"""For what was there before: drawn and compared, not judged."""
GLANCE = Look(20, A_LITTLE, loaded=False, inputs=7, turned_every=4)
"""While a hand drags a point: where everything stands, and its curves."""


@dataclass(frozen=True, eq=False)
class Study:
    """One suspension studied, told from others by identity; ``trouble`` says why it could not be moved at all."""

    suspension: Suspension
    missing: tuple[str, ...]
    vehicle: Vehicle
    look: Look = CLOSELY
    setting: Setting | None = None
    motion: Motion | None = None
    trouble: NodulantError | None = None
    ride: int = 0
    springs: SpringMotion | None = None
    damper: Reach | None = None
    strap: Reach | None = None
    strike: Strike | None = None
    """How a bump stop that is placed is struck; its suspension's stop then has the gap that follows."""
    loads: AxleLoads | None = None
    forces: dict[LoadCase, Forces] = field(default_factory=dict)
    stands: tuple[Stand, ...] = ()

    @property
    def centre_above_ground_mm(self) -> float | None:
        """Height of the sprung mass above the ground."""
        if self.vehicle.centre_z_mm is None or self.setting is None:
            return None
        return self.vehicle.centre_z_mm - (self.setting.hub[2] - self.setting.radius_mm)


@remembered(8)
def study(
    survey: Survey,
    suspension: Suspension,
    seats: tuple[Seat, ...],
    towards_rail_mm: float,
    grip: float,
    look: Look = CLOSELY,
) -> Study:
    """Study ``suspension`` on ``survey``; never raises for a linkage that cannot move, but tells why."""
    vehicle = _vehicle(in_state(survey, suspension.rides_in), suspension, seats, grip)
    setting, missing = _setting(survey, suspension, towards_rail_mm)
    if setting is None:
        return Study(suspension, missing, vehicle, look)
    travel = travel_of(suspension, look.steps)
    try:
        motion = moved_through(suspension.layout, setting, travel, look.rolls_deg)
        made = _sprung(Study(suspension, (), vehicle, look, setting, motion, ride=int(np.argmin(np.abs(travel)))))
    except NodulantError as error:
        return Study(suspension, (), vehicle, look, setting, None, error)
    if not look.loaded:
        return made
    loads = _loads(made)
    forces = {} if loads is None else _forces(made, loads)
    stands = tuple(_stand(made, survey, seats, state) for state in LOAD_STATES)
    known = tuple(stand for stand in stands if stand is not None)
    return replace(made, loads=loads, forces=forces, stands=known)


def _sprung(s: Study) -> Study:
    """With its springs, damper and strap; raises InputError where one of them stands on an arm that is not there."""
    own, m = s.suspension, s.motion
    if m is None:
        return s
    corner = None if s.vehicle.axle_n is None else s.vehicle.axle_n / 2
    springs = spring_motion(own.springs, m, corner, s.ride) if own.springs else None
    return _stopped(replace(s, springs=springs, damper=_reach(own.damper, m), strap=_reach(own.strap, m)))


def _stopped(s: Study) -> Study:
    """With the gap of a stop that is placed; raises InputError where its arm is not there."""
    stop, m = s.suspension.stop, s.motion
    if stop is None or stop.place is None or m is None:
        return s
    strike = strike_of(stop.place, m, _shaft(s))
    if strike is None:
        return s
    # one that is struck at ride height already has no gap
    own = stop.model_copy(update={"gap_mm": max(strike.gap_mm, 0.0), "gives_mm": strike.gives_mm})
    return replace(s, strike=strike, suspension=s.suspension.model_copy(update={"stop": own}))


def _shaft(s: Study) -> Shaft | None:
    """The damper's shaft that a stop can stand on."""
    own = s.suspension
    if own.damper is not None and s.damper is not None:
        return Shaft(s.damper.length, s.damper.ratio, own.damper.closed_mm)
    if isinstance(own.springs, Coilover) and s.springs is not None:
        return Shaft(s.springs.length, s.springs.ratio, own.springs.closed_mm)
    return None


def _reach(between: Damper | Strap | None, m: Motion) -> Reach | None:
    """A damper or strap through travel."""
    if between is None:
        return None
    on = between.on if isinstance(between, Damper) else "upright"
    length, ratio = heights(Strung(foot_of(between.lower, on, m), between.upper.xyz()), m)
    return Reach(np.where(m.there, length, np.nan), ratio)


def _stand(s: Study, survey: Survey, seats: tuple[Seat, ...], state: LoadState) -> Stand | None:
    """Travel at which the springs carry the axle as loaded in ``state``; None without loads or springs."""
    load = _vehicle(in_state(survey, state), s.suspension, seats, s.vehicle.grip).axle_n
    if load is None or s.springs is None or s.springs.force is None or s.motion is None:
        return None
    rows = np.flatnonzero(s.motion.there)
    carried = 2 * s.springs.force[rows] * s.springs.ratio[rows]
    order = np.argsort(carried, kind="stable")
    inside = carried[order[0]] - NEARLY_N <= load <= carried[order[-1]] + NEARLY_N
    if not inside:
        return Stand(state, load, None)
    at = float(np.interp(load, carried[order], s.motion.travel[rows][order]))
    tyre = s.suspension.tyre_n_per_mm
    on_tyre = None if tyre is None else _frequency(s, at, load / 2, tyre)
    return Stand(state, load, at, _frequency(s, at, load / 2), on_tyre)


def _frequency(s: Study, travel_mm: float, corner_n: float, tyre: float | None = None) -> float | None:
    """Ride frequency at a travel with a corner's own load, Hz: f = sqrt(1000 k/m)/2 pi.

    k is the wheel's rate, or that and the tyre's one after the other: k_w k_t/(k_w + k_t), textbook.
    """
    if s.springs is None or s.springs.wheel_rate is None or s.motion is None or corner_n <= 0:
        return None
    rows = np.flatnonzero(s.motion.there & np.isfinite(s.springs.wheel_rate))
    if len(rows) == 0:
        return None
    rate = float(np.interp(travel_mm, s.motion.travel[rows], s.springs.wheel_rate[rows]))
    if tyre is not None and rate > 0:
        rate = rate * tyre / (rate + tyre)
    return math.sqrt(max(1000 * rate * G / corner_n, 0.0)) / (2 * math.pi)


def travel_of(suspension: Suspension, steps: int = STEPS) -> Columns:
    """Travel from full droop to full bump with ride height among it to the bit."""
    down = max(round(steps * suspension.droop_mm / (suspension.droop_mm + suspension.bump_mm)), 1)
    below = np.linspace(-suspension.droop_mm, 0.0, down + 1)
    above = np.linspace(0.0, suspension.bump_mm, max(steps - down, 1) + 1)
    return np.concatenate([below, above[1:]])


def hub_height(survey: Survey, suspension: Suspension, towards_rail_mm: float) -> float | None:
    """Hubs above the datum plane at the planned ride height, mm."""
    if suspension.hub_z_mm is not None:
        return suspension.hub_z_mm
    high = _axle(survey, suspension).hubs_z_mm()
    return None if high is None else high + towards_rail_mm


def _axle(survey: Survey, suspension: Suspension) -> Axle:
    return survey.front if suspension.axle == "front" else survey.rear


def _setting(survey: Survey, suspension: Suspension, towards_rail_mm: float) -> tuple[Setting | None, tuple[str, ...]]:
    axle, name = _axle(survey, suspension), suspension.axle
    height = hub_height(survey, suspension, towards_rail_mm)
    radius = _radius(axle) if suspension.tyre is None else _planned_radius(suspension, suspension.tyre)
    track = track_of(suspension, axle)
    surveyed = 0.0 if name == "front" else survey.wheelbase_mm
    x = surveyed if suspension.hub_x_mm is None else suspension.hub_x_mm
    need = {
        "/survey/wheelbase_mm": x,
        f"/survey/{name}/hub_z_left_mm": height,
        f"/survey/{name}/track_mm": track,
        f"/survey/{name}/tyre": radius,
    }
    missing = tuple(pointer for pointer, value in need.items() if value is None)
    if height is None or radius is None or x is None or track is None:
        return None, missing
    return Setting((x, 0.0, height), track / 2, radius), ()


def track_of(suspension: Suspension, axle: Axle) -> float | None:
    """Between the middles of the tyres: as planned, or as surveyed on the hub faces that were there, with the planned wheels."""
    if suspension.track_mm is not None or axle.track_mm is None:
        return suspension.track_mm
    if suspension.wheel is None or axle.wheel is None:
        return axle.track_mm
    return axle.track_mm + 2 * (axle.wheel.face_mm - suspension.wheel.face_mm)


def wheel_of(suspension: Suspension, survey: Survey) -> Wheel | None:
    """The planned wheel, or the surveyed one."""
    return suspension.wheel or _axle(survey, suspension).wheel


def tyre_on_wheel(suspension: Suspension, survey: Survey) -> Tyre | None:
    """The planned or surveyed tyre as wide as it is on its wheel; None where its size is not known."""
    size = suspension.tyre or _axle(survey, suspension).tyre
    return None if size is None else on_wheel(parse_tyre(size), wheel_of(suspension, survey))


def _planned_radius(suspension: Suspension, size: str) -> float:
    return loaded_radius(parse_tyre(size), suspension.loaded_radius_mm).radius_mm


def _radius(axle: Axle) -> float | None:
    if axle.tyre is None:
        return axle.loaded_radius_mm
    return loaded_radius(parse_tyre(axle.tyre), axle.loaded_radius_mm).radius_mm


def _vehicle(survey: Survey, suspension: Suspension, seats: tuple[Seat, ...], grip: float) -> Vehicle:
    held: Reactions | None = None
    own = seats or survey.seats
    if survey.weighs and own:
        try:
            held = reactions(survey.masses, own)
        except NodulantError:
            held = None  # the frame's own checks tell
    total = sum(m.mass_kg for m in survey.masses)
    heights = [m.z_mm for m in survey.masses]
    centre = None
    if total > 0 and all(z is not None for z in heights):
        centre = sum(m.mass_kg * (m.z_mm or 0.0) for m in survey.masses) / total
    axle_n = None if held is None else (held.front if suspension.axle == "front" else held.rear)
    tube = _axle(survey, suspension).tube_diameter_mm
    have = {"/survey/masses": survey.weighs, "/survey/seats": bool(own)}
    missing = tuple(pointer for pointer, known in have.items() if not known) or ("/survey/masses",)
    weight = None if held is None else total * G
    tyre = tyre_on_wheel(suspension, survey)
    size = None if tyre is None else tyre.free_diameter_mm
    base = survey.wheelbase_mm if suspension.wheelbase_mm is None else suspension.wheelbase_mm
    return Vehicle(base, centre, weight, axle_n, grip, tube, () if held else missing, size)


def _loads(s: Study) -> AxleLoads | None:
    """Tyre loads standing, launching and braking; None without the axle's load."""
    v, own = s.vehicle, s.suspension
    if v.axle_n is None or v.weight_n is None:
        return None
    standing = v.axle_n + (own.unsprung_kg or 0.0) * G
    high = s.centre_above_ground_mm
    if high is None or v.wheelbase_mm is None:
        return AxleLoads(standing, None, 0.0, None, 0.0)
    rear = own.axle == "rear"
    lever = v.grip * high / v.wheelbase_mm
    launch = standing / (1 - lever) if rear and lever < 0.95 else standing / (1 + lever)
    moved = v.weight_n * high / v.wheelbase_mm
    braking = max(standing - moved if rear else standing + moved, 0.0)
    return AxleLoads(standing, launch, v.grip * launch if own.driven else 0.0, braking, own.brake_share * v.weight_n)


def _forces(s: Study, loads: AxleLoads) -> dict[LoadCase, Forces]:
    """Forces in every case that its inputs allow, at ride height and the bump at full bump; none without springs."""
    if s.motion is None or s.suspension.springs is None:
        return {}
    highest = int(np.flatnonzero(s.motion.there)[-1])
    springs = both_strung(s.suspension.springs, s.motion)
    out: dict[LoadCase, Forces] = {}
    for case in CASES:
        if case == "launch" and not s.suspension.driven:
            continue
        tyres = tyre_forces(case, loads, s.motion)
        if tyres is not None:
            row = highest if case == "bump" else s.ride
            out[case] = balance(s.motion, row, springs, tyres)
    return out
