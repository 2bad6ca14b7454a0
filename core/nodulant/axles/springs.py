"""Coilovers, air springs, torsion bars and leaf springs as the document holds them; lengths mm, rates N/mm."""

import math
from typing import Annotated, Literal, Self

from pydantic import Field, model_validator

from nodulant.axles.points import FramePoint, HardPoint
from nodulant.base.errors import InputError
from nodulant.base.model import Extra, Frozen, Size
from nodulant.units.inline import as_length

Rate = Annotated[float, Field(gt=0, le=2000)]
Pair = Literal[1, 2]
Foothold = Literal["upright", "lower-arm", "upper-arm"]
"""What a lower end stands on: the upright (of a beam the axle itself), or a wishbone."""


class Coilover(Frozen):
    """A coil on a damper, one each side; lengths of the damper are from eye to eye."""

    kind: Literal["coilover"] = "coilover"
    lower: HardPoint
    """From the hub line at ride height, right side."""
    on: Foothold = "upright"
    upper: FramePoint
    """On the frame, right side."""
    rate_n_per_mm: Rate
    free_mm: Size
    """Length of the coil by itself."""
    block_mm: Size
    """Length with its coils closed."""
    open_mm: Size
    closed_mm: Size
    body_mm: Size = 60.0
    """Outside diameter of coil or body, the larger."""
    count: Pair = 1
    """Two stand one behind the other on each side and share the force."""
    apart_mm: Extra = 140.0
    """Between the middles of the two, fore and aft."""


class AirSpring(Frozen):
    """A bellows, one each side; area and volume at ride height from its maker."""

    kind: Literal["air"] = "air"
    lower: HardPoint
    on: Foothold = "upright"
    upper: FramePoint
    ride_mm: Size
    """Height that its maker gives for riding."""
    least_mm: Size
    most_mm: Size
    area_mm2: Annotated[float, Field(gt=100, le=200_000)]
    """Effective area at ride height."""
    area_per_mm: Annotated[float, Field(ge=-2000, le=2000)] = 0.0
    """How the area grows as the bellows gets longer, mm2/mm; mostly a little negative."""
    volume_mm3: Annotated[float, Field(gt=1e4, le=1e8)]
    most_bar: Annotated[float, Field(gt=0.5, le=20)] = 7.0
    diameter_mm: Size = 150.0
    plate_deg: Annotated[float, Field(ge=-30, le=30)] = 0.0
    """How the lower plate is turned against the upper one at ride height, nose up."""


class LeafPack(Frozen):
    """A leaf spring, one each side."""

    kind: Literal["leaf"] = "leaf"
    seat: HardPoint
    """On the axle, right side."""
    rate_n_per_mm: Rate
    """Of the pack with all its leaves."""
    leaves: Annotated[int, Field(ge=1, le=20)] = 4
    removed: Annotated[int, Field(ge=0, le=19)] = 0
    """Leaves that are taken out; the others are taken as equal."""
    pack_mm: Size = 40.0
    """Thickness of the pack at the axle."""
    axle_was: Literal["under", "over"] = "under"
    """Whether the axle hung under the spring or stood on it before the work."""
    flipped: bool = False
    pads_mm: Annotated[float, Field(ge=-200, le=200)] = 0.0
    """What pads and perches of the other side add to a flip."""
    block_mm: Extra = 0.0
    """Between axle and spring."""
    rated_n: Annotated[float, Field(gt=0, le=1e6)] | None = None
    """Load that one spring with all its leaves is rated for."""

    @model_validator(mode="after")
    def _a_leaf_stays(self) -> Self:
        if self.removed >= self.leaves:
            raise InputError(
                "one leaf has to stay",
                field="removed",
                found=f"{self.removed} of {self.leaves} taken out",
                acceptable=f"at most {self.leaves - 1}",
            )
        return self

    @property
    def leaves_left(self) -> int:
        """How many leaves stay in."""
        return self.leaves - self.removed

    @property
    def worked_rate_n_per_mm(self) -> float:
        """Rate with the leaves that stay, N/mm."""
        return self.rate_n_per_mm * self.leaves_left / self.leaves


SHEAR_MODULUS_MPA = 79_300.0
"""Of spring steel (handbook value)."""


class TorsionBar(Frozen):
    """A round bar along an arm's hinge, one each side: the arm twists it, a key on the frame holds its other end."""

    kind: Literal["torsion"] = "torsion"
    on: Literal["lower-arm", "upper-arm"] = "lower-arm"
    """The arm that twists it."""
    diameter_mm: Annotated[float, Field(ge=8, le=80)]
    length_mm: Annotated[float, Field(ge=100, le=3000)]
    """Of what twists, between its splines or hexagons."""
    anchor: Literal["behind", "ahead"] = "behind"
    """Where its key is, from the arm."""

    @property
    def twist_rate(self) -> float:
        """G J / l with J = pi d^4 / 32, N mm per radian (textbook)."""
        return SHEAR_MODULUS_MPA * math.pi * self.diameter_mm**4 / 32 / self.length_mm

    def shear_mpa(self, torque_n_mm: float) -> float:
        """Largest shear stress, 16 T / (pi d^3), MPa (textbook)."""
        return 16 * abs(torque_n_mm) / (math.pi * self.diameter_mm**3)


Springs = Annotated[Coilover | AirSpring | LeafPack | TorsionBar, Field(discriminator="kind")]


class Damper(Frozen):
    """A damper beside the spring, right side; lengths are from eye to eye."""

    lower: HardPoint
    """From the hub line at ride height."""
    on: Foothold = "upright"
    upper: FramePoint
    """On the frame."""
    open_mm: Size = 520.0
    closed_mm: Size = 330.0
    body_mm: Size = 55.0
    count: Pair = 1
    apart_mm: Extra = 120.0
    """Between the middles of a pair, fore and aft: a build dimension."""

    @model_validator(mode="after")
    def _has_stroke(self) -> Self:
        if self.open_mm <= self.closed_mm:
            raise InputError(
                "a damper is longer open than closed",
                field="open_mm",
                found=as_length(self.open_mm),
                acceptable=f"more than {as_length(self.closed_mm)}",
            )
        return self


class Strap(Frozen):
    """A strap from frame to axle on each side that ends the droop, right side."""

    lower: HardPoint
    """On the axle, from the hub line."""
    upper: FramePoint
    """On the frame."""
    length_mm: Size
    """From eye to eye, taut."""


class BarRun(Frozen):
    """Where an anti-roll bar runs on the frame, right side; its arms reach to the drop links' stations."""

    bend: FramePoint
    """On the bar's own axis, where its straight part ends and the arm begins."""
    link_mm: Size
    """Drop link, hole to hole."""
    link_hangs: Literal["down", "up"] = "down"
    """From the bar's arm to the axle."""


class AntiRollBar(Frozen):
    """A bar across with an arm at each end and a drop link to the axle."""

    diameter_mm: Annotated[float, Field(gt=5, le=80)] = 22.0
    length_mm: Size = 900.0
    """Of the straight part that twists, between the arms."""
    arm_mm: Size = 220.0
    """From the bar's axis to the drop link, square to the bar."""
    drop: HardPoint
    """Drop link on the axle, from the hub line, right side."""
    runs: BarRun | None = Field(default=None, exclude_if=lambda own: own is None)
    """Where it is; None where nobody measured it: it is then no body in the sweep."""


class HalfShaft(Frozen):
    """A shaft from a differential on the frame to an independent wheel, right side."""

    inner: FramePoint
    """Inner joint, on the frame."""
    outer: HardPoint
    """Outer joint, on the upright, from the hub line."""
    joint_deg: Annotated[float, Field(gt=1, le=50)] = 22.0
    plunge_mm: Size = 40.0
    """What the joints allow from the one end of their slide to the other."""


Lean = Annotated[float, Field(ge=-60, le=60)]


class StopOnFrame(Frozen):
    """A stop bolted to the frame, right side, and what strikes it."""

    kind: Literal["frame"] = "frame"
    base: FramePoint
    """Middle of the face that it is bolted to, shims under it."""
    pad: HardPoint
    """Middle of what strikes it, from the hub line at ride height."""
    on: Foothold = "upright"
    tall_mm: Size = 60.0
    """Of the stop, free."""
    squash_mm: Extra = 25.0
    """What it is pressed together at 3 g."""
    shims_mm: Extra = 0.0
    lean_deg: Lean = 0.0
    """Its tip leans outward."""
    rake_deg: Lean = 0.0
    """Its tip leans rearward."""

    @property
    def axis(self) -> tuple[float, float, float]:
        """Unit vector from its base to its tip."""
        rake, lean = math.tan(math.radians(self.rake_deg)), math.tan(math.radians(self.lean_deg))
        size = math.sqrt(rake * rake + lean * lean + 1.0)
        return (rake / size, lean / size, -1.0 / size)


class StopOnDamper(Frozen):
    """A stop on a damper's shaft."""

    kind: Literal["damper"] = "damper"
    tall_mm: Size = 50.0
    squash_mm: Extra = 25.0


class BumpStop(Frozen):
    """A stop on each side: how far the wheel rises before it strikes, and how much it gives at 3 g.

    Where it is placed, both follow from its place.
    """

    gap_mm: Extra = 60.0
    gives_mm: Extra = 20.0
    place: Annotated[StopOnFrame | StopOnDamper, Field(discriminator="kind")] | None = None
