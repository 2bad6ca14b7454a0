"""What the steering gives to the screen: bodies that it moves, with tables over travel and input; curves over the input."""

from nodulant.base.model import Frozen
from nodulant.evaluate.curve import Curve
from nodulant.parts.sides import Side

JOINT, ARM, KNUCKLE = 10, 12, 14
"""Bodies: the gear's joint of this side, the pitman arm, the knuckles (14 right, 15 left)."""


class SteerBody(Frozen):
    """A body that the gear moves: a number that member ends refer to, and its tables.

    ``shift`` (mm) has one row an input; ``angle`` (radians, about ``axis`` through ``point``) one value an
    input on the frame (parent -1), or travel by travel one an input on the axle (parent 0).
    """

    body: int
    parent: int
    point: list[float] = []
    axis: list[float] = []
    angle: list[float] = []
    shift: list[list[float]] = []


class SteerSide(Frozen):
    """One side: poses of a single wheel's upright, travel by travel, input by input.

    The left one is given as its mirror image; without poses of its own it does what the right one
    does at the opposite input.
    """

    poses: list[list[float]]
    bodies: tuple[SteerBody, ...]


class LockFigures(Frozen):
    """Full lock to one side at ride height; None where a wheel does not turn that far, or a reading is missing."""

    to: Side
    inner_deg: float
    outer_deg: float
    reached: float
    """Share of the gear's stroke."""
    circle_m: float | None
    """Between kerbs."""
    ackermann: dict[str, float | None]
    """Share of Ackermann's difference, %, by the inner wheel's angle in degrees."""


class SteerDrawing(Frozen):
    """The steering of one axle over its travel and from full left (-1) to full right (+1)."""

    trouble: str
    trouble_at: str
    wheel_deg: float
    """What the steering wheel turns from the middle to a stop."""
    travel_mm: list[float] = []
    inputs: list[float] = []
    reached: list[float] = []
    """Inputs that it reaches at ride height, left and right."""
    sense: float | None = None
    """+1 where the wheels turn the way the steering wheel does, -1 against it; None where they do not turn."""
    right: SteerSide | None = None
    left: SteerSide | None = None
    curves: tuple[Curve, ...] = ()
    """Figures over the input at ride height."""
