"""As-built readings of wheels, axles and steering: where they stand, how they point, what they weigh."""

from collections.abc import Iterator

from nodulant.asbuilt.compare import AskedReading, Known
from nodulant.axles.layouts.independent import Steered
from nodulant.axles.steering import Rack
from nodulant.job.document import Inputs
from nodulant.loads.beam import G
from nodulant.parts.sides import LEFT_RIGHT, AxleName
from nodulant.parts.specs import ReadingSpec, reading
from nodulant.steering.study import steer_study
from nodulant.suspension.study import Study

LEVEL = "level ground, at ride height, tyres at their pressure"
SETTLED = "level plates, steering straight ahead, bounced and rolled once"


def wheel_readings(inputs: Inputs, studies: list[Study], known: Known) -> list[AskedReading]:
    """Of every axle whose hubs are known; what a wheel's two sides share is asked for once, on the right."""
    out = []
    for s in studies:
        if s.setting is None:
            continue
        axle = s.suspension.axle
        for side in LEFT_RIGHT:
            specs = [*_in_the_arch(inputs, s), *_pointing(s), *_weighing(s)]
            out += [known.asked(f"{axle}-wheel", side, spec, f"{axle.capitalize()} wheel") for spec in specs]
        out += [
            known.asked(f"{axle}-axle", "right", spec, f"{axle.capitalize()} axle") for spec in (*_pinion(s), *_lock(s))
        ]
    out += [
        known.asked("vehicle", side, spec, "Whole vehicle")
        for spec in _wheelbase(inputs, studies)
        for side in LEFT_RIGHT
    ]
    return out


def hub_station(inputs: Inputs, studies: list[Study], axle: AxleName) -> float | None:
    """Where an axle's hub line is to stand; the surveyed one where nothing is designed there."""
    own = next((s.setting for s in studies if s.suspension.axle == axle and s.setting), None)
    if own is not None:
        return own.hub[0]
    return 0.0 if axle == "front" else inputs.survey.wheelbase_mm


def _wheelbase(inputs: Inputs, studies: list[Study]) -> Iterator[ReadingSpec]:
    front, rear = (hub_station(inputs, studies, axle) for axle in ("front", "rear"))
    if studies and front is not None and rear is not None:
        yield reading(
            "wheelbase", "Wheelbase, hub to hub", rear - front, "the front hub on its own side", "as-built-base"
        )


def _in_the_arch(inputs: Inputs, s: Study) -> Iterator[ReadingSpec]:
    arch = (inputs.survey.front if s.suspension.axle == "front" else inputs.survey.rear).arch
    if arch is None or s.setting is None:
        return
    x, _, z = s.setting.hub
    name = s.suspension.axle.capitalize()
    if arch.top_z_mm > z:
        yield reading("ride-height", f"{name} hub up to the arch's edge", arch.top_z_mm - z, LEVEL, "as-built-ride")
    if x > arch.front_x_mm:
        words = f"{name} hub behind the arch's front edge"
        yield reading("in-arch", words, x - arch.front_x_mm, "the edge at the hub's height", "as-built-arch")


def _pointing(s: Study) -> Iterator[ReadingSpec]:
    """Camber and toe of wheels that can be set, caster of those that are steered."""
    own = s.suspension
    if not own.layout.independent and own.steering is None:
        return
    name = own.axle.capitalize()
    yield reading("camber", f"{name} camber, top outward", own.camber_deg, SETTLED, "as-built-camber", "deg")
    yield reading("toe", f"{name} toe-in of this wheel", own.toe_deg, SETTLED, "as-built-toe", "deg")
    q = steer_study(s) if isinstance(own.layout, Steered) else None
    if q is not None and q.straight is not None:
        caster = float(q.straight.caster_deg[s.ride, 0])
        yield reading("caster", f"{name} caster, top rearward", caster, SETTLED, "as-built-caster", "deg")


def _weighing(s: Study) -> Iterator[ReadingSpec]:
    """On the scales as the plan has it: half the axle's load on each side."""
    own = s.suspension
    if s.vehicle.axle_n is not None and own.unsprung_kg is not None:
        kg = (s.vehicle.axle_n / G + own.unsprung_kg) / 2
        name = f"{own.axle.capitalize()} wheel on its scale"
        yield reading(
            "corner", name, kg, f"four scales in one plane, {own.rides_in}", "as-built-corner", "kg", extra=True
        )


def _pinion(s: Study) -> Iterator[ReadingSpec]:
    own = s.suspension
    if own.pinion_deg is not None and own.driven:
        words = f"{own.axle.capitalize()} pinion, nose up"
        yield reading(
            "pinion",
            words,
            own.pinion_deg,
            "the rail's straight part, where the finder is zeroed",
            "as-built-pinion",
            "deg",
        )


def _lock(s: Study) -> Iterator[ReadingSpec]:
    steering = s.suspension.steering
    if steering is None:
        return
    gear = steering.gear
    turns = gear.turns if isinstance(gear, Rack) else gear.box.turns
    for key, words in (("lock-free", "wheels off the ground"), ("lock-loaded", "on the ground, at ride height")):
        name = f"Lock to lock, {words}"
        yield reading(
            key, name, turns, "one stop to the other by a mark on the wheel", "as-built-lock", "turns", extra=True
        )
