"""A hose or cable from the frame to a wheel's carrier: a brake hose, a sensor's lead, an axle's breather."""

from nodulant.axles.points import FramePoint, HardPoint
from nodulant.base.model import Frozen, Name, Size


class Hose(Frozen):
    """Right side; the left one mirrors it where wheels move by themselves or are steered."""

    name: Name = "brake hose"
    frame: FramePoint
    """Where it leaves its bracket on the frame."""
    wheel: HardPoint
    """Where it ends on upright, knuckle or axle, from the hub line."""
    length_mm: Size
    """Free length between both ends' fittings."""
