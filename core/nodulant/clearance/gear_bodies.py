"""What the rods of a steering hang on, as bodies that stand: the box round its shaft, a rack's tube between its joints."""

import numpy as np

from nodulant.axles.points import Link
from nodulant.axles.steering import Rack, Sector
from nodulant.axles.suspension import Suspension
from nodulant.base.arrays import Columns
from nodulant.clearance.shapes import Bars, Standing
from nodulant.steering.gear import shaft_axis

BOX_MM, BOX_UP_MM, RACK_MM = 100.0, 160.0, 50.0
"""A box's width round its shaft and its height over the arm, and a rack's tube (common practice, until they are measured)."""
OVER_ARM_MM = 25.0
"""From the pitman arm's middle to the box's underside (common practice)."""


def gear_bodies(own: Suspension, *, placed: bool) -> tuple[Standing, ...]:
    """The gear of a steered axle; a box that was ``placed`` as a thing is not there twice. Raises InputError as its shaft does."""
    if own.steering is None:
        return ()
    gear = own.steering.gear
    if isinstance(gear, Rack):
        toe: Link | None = getattr(own.layout, "toe", None)
        return () if toe is None else (_rack(own.axle, gear, np.array(toe.frame.xyz())),)
    return () if placed else (_box(own.axle, gear.box),)


def _box(axle: str, box: Sector) -> Standing:
    wide, tall = box.housing_mm or BOX_MM, box.housing_up_mm or BOX_UP_MM
    up, foot = np.array(shaft_axis(box)), np.array(box.shaft.xyz())
    low = OVER_ARM_MM + wide / 2
    a, b = foot + low * up, foot + max(tall - wide / 2, low + 1.0) * up
    return Standing(f"{axle} steering box", "steering-box", Bars(a[None], b[None], np.array([wide / 2])))


def _rack(axle: str, rack: Rack, joint: Columns) -> Standing:
    """From inner joint to inner joint, less what it moves by."""
    wide = rack.housing_mm or RACK_MM
    reach = max(joint[1] - rack.stroke_mm - wide / 2, 1.0)
    a, b = (np.array([joint[0], sign * reach, joint[2]]) for sign in (-1.0, 1.0))
    return Standing(f"{axle} rack", "rack", Bars(a[None], b[None], np.array([wide / 2])))
