"""Build steps that a steered axle brings: mock-up, sense, travel of arm and rods, hardware used once.

Common practice of the trade; the numbers come from the design.
"""

from nodulant.axles.steering import DragLink, Rack
from nodulant.axles.suspension import Suspension
from nodulant.parts.specs import HoldPoint, StepSpec
from nodulant.units.inline import as_length

SENSE_STEP = "steer-sense"
NEVER = "Never weld on a cast or forged steering part: arms, knuckles, box, joints. Welded splices in shafts or rods only where local rules allow, by a qualified welder."


def steering_steps(suspensions: tuple[Suspension, ...]) -> tuple[StepSpec, ...]:
    """General steps of the steering, in their phases; none where nothing is steered."""
    own = next((s for s in suspensions if s.steering is not None), None)
    if own is None or own.steering is None:
        return ()
    gear = own.steering.gear
    rack = isinstance(gear, Rack)
    what = "rack" if rack else "steering box"
    return (
        StepSpec(
            key="steer-mock",
            phase="tack",
            title=f"Mock up the {what}",
            detail=f"{_centred(own)} Axle at ride height on solid struts, springs out; mounts tacked only. {_place(rack)}",
            minutes=90,
            people=2,
            tools=("square", "level", "angle gauge"),
            cautions=(NEVER,),
            acts=("mocks-up",),
        ),
        StepSpec(
            key=SENSE_STEP,
            phase="look",
            title="Turn it right: the wheels turn right",
            detail=f"Input, {'rack' if rack else 'box, pitman arm'}, rods, arms: follow them with the hand before anything is welded. A {what} ahead of the axle, or mirrored, turns the wheels the other way.",
            minutes=15,
            people=2,
            hold=HoldPoint(kind="look", ask="Steering wheel right, both wheels right"),
            cautions=("A vehicle that steers the wrong way cannot be driven a metre.",),
        ),
        StepSpec(
            key="steer-sweep",
            phase="look",
            title="Lock to lock, bump to droop, by hand",
            detail=f"{_sweep(own)} Rods, boots, nuts and hoses watched all the way, at both locks in bump and in droop; nothing within half an inch of metal.",
            minutes=60,
            people=2,
            tools=("angle gauge", "feeler blocks"),
            hold=HoldPoint(kind="look", ask="Nothing touches, the same to both sides"),
            acts=("moves-by-hand",),
        ),
        StepSpec(
            key="steer-hardware",
            phase="finish",
            title="Steering: new hardware, torque, marks",
            detail=f"{_tapers(own)}New lock nuts, split pins and single-use washers, only now and only once; every nut to its torque, marked with paint, looked at by a second person.",
            minutes=60,
            people=2,
            tools=("torque wrench", "paint marker"),
            cautions=(NEVER,),
            hold=HoldPoint(kind="look", ask="Every steering fastener torqued and marked, pins in"),
        ),
        StepSpec(
            key="steer-align",
            phase="prove",
            title="Alignment",
            detail=f"Toe {own.toe_deg:+.2f} and camber {own.camber_deg:+.2f} degrees each, steering wheel straight; then lock to lock again.",
            minutes=90,
            tools=("alignment gauges",),
        ),
    )


def _centred(own: Suspension) -> str:
    gear = own.steering.gear if own.steering else None
    if isinstance(gear, Rack):
        return f"Rack in the middle of its {as_length(2 * gear.stroke_mm)} with the wheels straight."
    return "Sector in the middle of its turns with the wheels straight: count the turns from both ends."


def _place(rack: bool) -> str:
    if rack:
        return "Rack level, centred between the arms' pivots."
    return "Box's plate parallel to the centre plane, its bolts through the rail in sleeves."


def _sweep(own: Suspension) -> str:
    gear = own.steering.gear if own.steering else None
    if isinstance(gear, Rack):
        return f"Rack goes {as_length(gear.stroke_mm)} to each side."
    if gear is None:
        return ""
    return f"Pitman arm swings {gear.box.swing_deg:.0f} degrees to each side of the middle, equally."


def _tapers(own: Suspension) -> str:
    if own.steering is None or not isinstance(own.steering.gear, DragLink):
        return ""
    return "Tapers reamed to fit their joints and clean, a blue mark all round (tapers are given per foot); "
