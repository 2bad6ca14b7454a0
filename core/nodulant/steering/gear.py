"""What the steering gear does to the joints that hang on it, from full left (-1) to full right (+1).

Angles of arms are positive anticlockwise seen from above, as z points up. A rack moves its ends
alike; a pitman arm turns about its box's shaft; a centre link is carried by pitman and idler and
keeps square to the shaft as well as its two ends let it.
"""

import math
from dataclasses import dataclass

import numpy as np

from nodulant.axles.points import HardPoint
from nodulant.axles.steering import CentreLink, DragLink, Rack, Sector
from nodulant.base.arrays import Columns, Mask, cross
from nodulant.base.errors import InputError
from nodulant.linkage.crank import Crank, crank_angle
from nodulant.linkage.mechanism import Point
from nodulant.units.inline import as_length

LEVEL = 1e-9


@dataclass(frozen=True)
class Moved:
    """How far the right and the left inner joint have moved, mm, both (inputs, 3), and where the gear reaches at all."""

    right: Columns
    left: Columns
    reaches: Mask


def shaft_axis(box: Sector) -> Point:
    """Unit vector up the sector shaft; raises InputError where it is laid level both ways."""
    lean, tilt = math.radians(box.lean_deg), math.radians(box.tilt_deg)
    # (tan lean, tan tilt, 1), written so that a level shaft is one too
    axis = (math.sin(lean) * math.cos(tilt), math.cos(lean) * math.sin(tilt), math.cos(lean) * math.cos(tilt))
    size = math.hypot(*axis)
    if size < LEVEL:
        raise InputError(
            "a shaft lies level one way only",
            field="steering/gear/box/tilt_deg",
            found=f"lean {box.lean_deg:g} and tilt {box.tilt_deg:g} degrees",
            acceptable="one of both below 90 degrees",
        )
    return (axis[0] / size, axis[1] / size, axis[2] / size)


def pitman(box: Sector) -> Crank:
    """The pitman arm as a crank; raises InputError where it has no length."""
    crank = Crank(box.shaft.xyz(), shaft_axis(box), box.arm_end.xyz())
    if float(np.linalg.norm(crank.circle()[1])) < 1.0:
        raise InputError(
            "the pitman arm's end lies on its shaft",
            field="steering/gear/box/arm_end",
            found=as_length(0),
            acceptable=f"{as_length(1)} or more",
        )
    return crank


def arm_angle(box: Sector, inputs: Columns) -> Columns:
    """Angle of the pitman arm at every input, radians."""
    sign = -1.0 if box.input_right_turns == "clockwise" else 1.0
    return np.asarray(sign * math.radians(box.swing_deg) * inputs)


def rack_moves(rack: Rack, inputs: Columns) -> Moved:
    """Both ends of a rack."""
    sign = 1.0 if rack.input_right_moves == "right" else -1.0
    shift = np.zeros((len(inputs), 3))
    shift[:, 1] = sign * rack.stroke_mm * inputs
    return Moved(shift, shift, np.ones(len(inputs), dtype=bool))


def pitman_moves(gear: DragLink, inputs: Columns) -> Columns:
    """How far the drag link's inner joint has moved, (inputs, 3)."""
    arm = pitman(gear.box)
    return np.asarray(arm.at(arm_angle(gear.box, inputs)) - np.array(arm.end))


def _carriers(gear: CentreLink) -> tuple[Crank, Crank]:
    """Pitman and idler; raises InputError where they hold the link at one point."""
    arm = pitman(gear.box)
    pivot = gear.idler or gear.box.shaft.mirrored()
    end = gear.idler_end or gear.box.arm_end.mirrored()
    idler = Crank(pivot.xyz(), arm.axis, end.xyz())
    if float(np.linalg.norm(np.array(arm.end) - np.array(idler.end))) < 1.0:
        raise InputError(
            "pitman and idler hold the centre link at one point",
            field="steering/gear/idler_end",
            found=f"{as_length(0)} apart",
            acceptable=f"{as_length(1)} or more",
        )
    return arm, idler


def centre_link_ends(gear: CentreLink, inputs: Columns) -> tuple[Columns, Columns, Mask]:
    """Ends of pitman and idler at every input, (inputs, 3), and where they reach."""
    arm, idler = _carriers(gear)
    length = float(np.linalg.norm(np.array(arm.end) - np.array(idler.end)))
    one = arm.at(arm_angle(gear.box, inputs))
    turned = crank_angle(idler, one, length, arm.end)
    return one, idler.at(turned.angle), turned.reaches


def centre_link_moves(gear: CentreLink, inner: HardPoint, inputs: Columns) -> Moved:
    """Both inner joints on a centre link; ``inner`` is the right one straight ahead."""
    arm, idler = _carriers(gear)
    rest = np.array([arm.end]), np.array([idler.end])
    one, two, reaches = centre_link_ends(gear, inputs)
    before, now = _frame(*rest, arm.axis), _frame(one, two, arm.axis)
    moves = []
    for joint in (inner.xyz(), inner.mirrored().xyz()):
        local = before[0].T @ (np.array(joint) - rest[0][0])
        moves.append(one + now @ local - np.array(joint))
    return Moved(moves[0], moves[1], reaches)


def _frame(one: Columns, two: Columns, axis: Point) -> Columns:
    """Axes of a link between two points as columns, (n, 3, 3): along it, square to it, and as near to ``axis`` as can be."""
    along = two - one
    along = along / np.linalg.norm(along, axis=1, keepdims=True)
    across = cross(np.array(axis), along)
    across = across / np.linalg.norm(across, axis=1, keepdims=True)
    return np.stack([along, across, cross(along, across)], axis=-1)
