"""Mounts that the steering asks for on the rails: plates of a rack on both, the plate of a box on its own.

Their force is that of the rods in a kerb strike: of a rack's toe links by the linkage's own
statics; of a drag link by moments about the king pin, the strike's force times its arm about the
pin over the link's (statics).
"""

import numpy as np

from nodulant.axles.layouts.independent import TOE_LINK, Steered
from nodulant.axles.points import HardPoint, on_axle
from nodulant.axles.steering import DragLink, KingPins, Rack
from nodulant.base.arrays import cross
from nodulant.base.errors import InputError
from nodulant.evaluate.brackets.frame_brackets import worst_on_frame
from nodulant.frame.columns import rail_at
from nodulant.frame.ops.mounts.steering_mount import SteeringMount
from nodulant.frame.place import Place
from nodulant.job.document import Inputs
from nodulant.job.riding import on_rails
from nodulant.loads.cases import KERB_BACK, KERB_UP
from nodulant.parts.sides import Side, Sides
from nodulant.suspension.study import Study

TALL_MM, ROOM_MM, FARTHEST_MM, MOST_N = 120.0, 6.0, 300.0, 200_000.0
LEAST_SHARE = 0.05
"""Below this share of the drag link's own direction its lever about the king pin says nothing."""


def steering_mounts(inputs: Inputs, s: Study) -> list[SteeringMount]:
    """One mount for each rail that carries the gear; none without the axle's load or where the gear hangs elsewhere."""
    steering = s.suspension.steering
    if steering is None or s.setting is None or s.loads is None:
        return []
    gear = steering.gear
    if isinstance(gear, Rack):
        if not isinstance(s.suspension.layout, Steered) or not s.forces:
            return []
        toe = next(n for n in s.suspension.layout.links() if n.name == TOE_LINK)
        along, across, up = worst_on_frame(s, toe)
        return _made(inputs, s, "both", toe.link.frame, (along, across, up), "rack")
    side: Side = "right" if gear.box.shaft.y_mm >= 0 else "left"
    force = (0.0, 0.0, 0.0)
    if isinstance(gear, DragLink) and steering.king_pins is not None:
        force = drag_link_force(s, gear, steering.king_pins)
    return _made(inputs, s, side, gear.box.arm_end, force, "box")


def drag_link_force(s: Study, gear: DragLink, pins: KingPins) -> tuple[float, float, float]:
    """What a kerb strike at the wheel of the drag link's own knuckle puts on the pitman arm's end, N: rearward, outward, up.

    The other wheel hangs on the tie rod and adds nothing here.
    """
    if s.setting is None or s.loads is None:
        return (0.0, 0.0, 0.0)
    hub, right = s.setting.hub, gear.knuckle.y_mm >= 0
    sign = 1.0 if right else -1.0
    lower, upper = (np.array(on_axle(p if right else p.mirrored(), hub)) for p in (pins.lower, pins.upper))
    pin = (upper - lower) / np.linalg.norm(upper - lower)
    wheel = np.array([hub[0], sign * s.setting.half_track_mm, hub[2]])
    strike = np.array([KERB_BACK, 0.0, KERB_UP]) * s.loads.standing_n / 2
    moment = float(pin @ cross(wheel - lower, strike))
    joint, arm = np.array(on_axle(gear.knuckle, hub)), np.array(gear.box.arm_end.xyz())
    u = (arm - joint) / np.linalg.norm(arm - joint)
    lever = float(pin @ cross(joint - lower, u))
    if abs(lever) < LEAST_SHARE * float(np.linalg.norm(joint - lower)):
        return (0.0, 0.0, 0.0)
    # the link holds the knuckle against the strike; what it pulls at the knuckle it pulls at the arm, the other way
    pull = moment / lever * u
    return (float(pull[0]), float(pull[1] * np.sign(gear.box.shaft.y_mm or 1.0)), float(pull[2]))


def _made(
    inputs: Inputs, s: Study, side: Sides, point: HardPoint, force: tuple[float, float, float], holds: str
) -> list[SteeringMount]:
    rail, point = inputs.survey.rails.of("right" if side == "both" else side), on_rails(inputs, point)
    if not rail.start_mm + TALL_MM < point.x_mm < rail.end_mm - TALL_MM:
        return []
    underside, height, width, _ = rail_at(rail, point.x_mm)
    tall = min(TALL_MM, height - ROOM_MM)
    middle = float(np.clip(point.z_mm - underside, tall / 2, height - tall / 2))
    lift = point.z_mm - underside - middle
    outer = abs(point.y_mm) > rail.web_y_mm
    off = abs(point.y_mm) - rail.web_y_mm if outer else rail.web_y_mm - width - abs(point.y_mm)
    if abs(lift) > FARTHEST_MM or off > FARTHEST_MM or max(map(abs, force)) > MOST_N:
        return []
    anchor = min(inputs.survey.features, key=lambda f: abs(f.x_mm - point.x_mm))
    along, across, up = force
    fields = {
        "id": f"{s.suspension.axle}-steering-{holds}-mount",
        "name": f"Mount of the steering {holds}",
        "side": side,
        "place": Place(anchor_id=anchor.id, offset_mm=round(point.x_mm - anchor.x_mm, 3)),
        "holds": holds,
        "face": "outer" if outer else "inner",
        "height_mm": round(middle, 2),
        "tall_mm": tall,
        "pad": {"tall_mm": max(min(70.0, tall - 50.0), 30.0)},
        "standoff_mm": max(round(off, 1), 0.0),
        "lift_mm": round(lift, 1),
        "along_n": round(along, 1),
        "up_n": round(up, 1),
        "out_n": round(across if outer else -across, 1),
    }
    try:
        return [SteeringMount.model_validate(fields)]
    except (ValueError, InputError):
        return []
