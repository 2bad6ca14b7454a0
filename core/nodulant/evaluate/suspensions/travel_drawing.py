"""What a suspension gives to the screen: bodies once with a table of poses, members, curves, forces.

The browser interpolates poses for drawing only; figures come from the curves' rows.
"""

from typing import Literal

from nodulant.base.model import Frozen
from nodulant.evaluate.curve import Curve
from nodulant.evaluate.steering.steer_drawing import LockFigures, SteerDrawing
from nodulant.frame.ops.union import Operation
from nodulant.parts.sides import AxleName, LoadState
from nodulant.parts.solid import Solid
from nodulant.search.bracket_holes import Holes


class BodyPoint(Frozen):
    """A point of a body at ride height, frame axes, mm; body -1 is the frame, 0 the axle or upright, 1.. a crank."""

    body: int
    x_mm: float
    y_mm: float
    z_mm: float


class Member(Frozen):
    """A rod or spring as drawn: its two ends and its thickness, and the document's path to it where it has one."""

    name: str
    kind: str
    path: str
    a: BodyPoint
    b: BodyPoint
    diameter_mm: float


class Grip(Frozen):
    """A point that a hand may drag: its document path, and where it stands at ride height."""

    path: str
    name: str
    at: BodyPoint
    shift: list[float] = [0.0, 0.0, 0.0]
    """How far the plan has moved it from where the document gives it: rearward, right, up, mm."""


class Turning(Frozen):
    """A crank: its parent body, hinge and axis at ride height, and its angle in every pose, radians."""

    parent: int
    point: list[float]
    axis: list[float]
    angle: list[float]


class LinkForce(Frozen):
    """A link's length, its force in every case, N (tension positive), and what it holds pressed, N."""

    name: str
    length_mm: float
    cases: dict[str, float]
    buckles_n: float
    worst: str


class StandsAt(Frozen):
    """Where the axle stands in a load state: sprung load, N, and wheel travel, mm; None on its stops."""

    state: LoadState
    load_n: float
    travel_mm: float | None
    frequency_hz: float | None
    on_tyre_hz: float | None
    bump_left_mm: float | None


class Touch(Frozen):
    """What comes to its end at a wheel travel, mm; meant where it is there to come first."""

    name: str
    way: Literal["bump", "droop"]
    travel_mm: float
    meant: bool


class Fact(Frozen):
    """A figure that does not change through travel."""

    name: str
    value: float
    unit: str
    words: str


class LinkSize(Frozen):
    """A link as it is measured at ride height: from joint to joint, mm; its angles to the datum plane and in plan, degrees."""

    path: str
    """The document's path of the link below the suspension's layout."""
    name: str
    length_mm: float
    side_deg: float
    """Seen from the side: how much it falls from the frame to the axle."""
    end_deg: float
    """Seen from behind: the same."""
    plan_deg: float
    """Seen from above: between it and the fore-and-aft line, 0 to 90."""
    lateral: bool
    """It lies across: seen from behind it is judged."""


class AxleTravel(Frozen):
    """One suspension through travel; poses are (x, y, z of the origin, rotation vector), travel by travel, roll by roll."""

    axle: AxleName
    index: int
    """Its number in the design."""
    name: str
    layout: str
    trouble: str
    """Why it does not move; empty where it does."""
    trouble_at: str
    hub: list[float] | None
    half_track_mm: float | None
    radius_mm: float | None
    independent: bool
    travel_mm: list[float]
    there: list[bool]
    rolls_deg: list[float]
    ends: tuple[str, ...]
    poses: list[list[float]]
    cranks: tuple[Turning, ...]
    members: tuple[Member, ...]
    grips: tuple[Grip, ...]
    curves: tuple[Curve, ...]
    forces: tuple[LinkForce, ...]
    stands: tuple[StandsAt, ...] = ()
    contacts: tuple[Touch, ...] = ()
    """In the order in which they come, bump first."""
    facts: tuple[Fact, ...] = ()
    links: tuple[LinkSize, ...] = ()
    mounts: tuple[Operation, ...] = ()
    """Brackets, mounts and plates that it asks for on rails and axle, ready to be put into the design."""
    holes: Holes | None = None
    """Of the brackets that hold its links, where the layout has four of them."""
    tyre_width_mm: float | None = None
    """Section of the tyre on its wheel; None where its size is not known."""
    steer: SteerDrawing | None = None
    """Of an axle whose wheels are steered."""
    steer_facts: tuple[Fact, ...] = ()
    locks: tuple[LockFigures, ...] = ()
    """Full lock to the left and to the right."""
    solids: tuple[Solid, ...] = ()
    """What those of the design fill in space, right side."""
