"""A plate on the rail that carries a steering box or a rack: through-bolted in sleeves, parallel to the centre plane.

It may stand turned with its gear, front end up, about its own middle; the gear's bolts may be turned on it besides.
The box or rack stands on bolts of its own on the plate. Forces are what its rods put on it, at
``standoff_mm`` off the plate: at a box the pitman arm's end, at a rack its axis.
"""

import math
from collections.abc import Sequence
from typing import Annotated, ClassVar, Literal

import numpy as np
from pydantic import Field

from nodulant.base.errors import InputError
from nodulant.base.model import Extra, Frozen, Size, Thickness
from nodulant.base.shown import Shown
from nodulant.frame.additions import Additions
from nodulant.frame.columns import RailColumns
from nodulant.frame.here import OnRail, Span
from nodulant.frame.ops.at_place import AtPlace
from nodulant.frame.ops.fresh import Setting
from nodulant.frame.ops.mounts.bolted import BoltAt, BoltGroup, bolt_checks, bolt_figures, foot_bolt_check
from nodulant.frame.ops.mounts.tabs import unloaded
from nodulant.frame.ops.operation import Adds
from nodulant.frame.ops.welded import welded
from nodulant.frame.place import Place
from nodulant.geometry import Outline
from nodulant.geometry.outline import rectangle
from nodulant.materials import find_steel
from nodulant.materials.bolts import find_bolt, hole_n
from nodulant.parts.bought import Needed
from nodulant.parts.part import Face, Part, RoundHole, part_id
from nodulant.parts.solid import Solid, block
from nodulant.parts.specs import CheckSpec, FigureSpec, HoldPoint, ReadingSpec, StepSpec, reading
from nodulant.units.inline import as_length, as_place

Force = Annotated[float, Field(ge=-200_000, le=200_000)]
Turned = Annotated[float, Field(ge=-90, le=90)]
Spot = tuple[float, float]
"""Rearward and up from the plate's middle, mm."""
NEVER = "Never weld on the box, the rack or any cast or forged steering part: bolts only."


def _front_up(spot: Spot, degrees: float) -> Spot:
    """A place on a plate (rearward, up) turned about its middle until the front end is ``degrees`` higher."""
    c, s = math.cos(math.radians(degrees)), math.sin(math.radians(degrees))
    return (spot[0] * c + spot[1] * s, spot[1] * c - spot[0] * s)


def _standing(size: str, grade: str, spots: Sequence[Spot]) -> BoltGroup:
    """Bolts that stand where they are, for the elastic vector method."""
    positions = tuple(BoltAt(along_mm=x, up_mm=z) for x, z in spots)
    return BoltGroup(size=size, grade=grade, positions=positions)


def _extent(long_mm: float, tall_mm: float, degrees: float) -> tuple[float, float]:
    """Length along the rail and height that a turned rectangle takes, mm."""
    c, s = abs(math.cos(math.radians(degrees))), abs(math.sin(math.radians(degrees)))
    return (long_mm * c + tall_mm * s, long_mm * s + tall_mm * c)


class GearPad(Frozen):
    """The bolts that box or rack stand on: a rectangle about the plate's middle."""

    long_mm: Annotated[Size, Shown("Along")] = 110.0
    tall_mm: Annotated[Size, Shown("High")] = 70.0
    bolt_size: Annotated[str, Field(max_length=20), Shown("Size")] = "M12"
    grade: Annotated[str, Field(max_length=20), Shown("Grade")] = "10.9"
    corners: Annotated[Literal[2, 3, 4], Shown("How many, 2 to 4", kind="number")] = 4
    """How many of its corners have a bolt: the lower front, lower rear, upper rear, upper front, in this order."""
    turn_deg: Annotated[Turned, Shown("Turned on the plate, front end up")] = 0.0


class SteeringMount(AtPlace):
    """A plate ``long_mm`` along the rail and ``tall_mm`` high with its centre ``height_mm`` above the underside."""

    adds: ClassVar[Adds] = Adds(
        "Mount of a steering box or rack",
        "a plate through-bolted in sleeves, parallel to the centre plane; the gear stands on bolts of its own, never welded",
    )
    follows: ClassVar[tuple[str, ...]] = (
        "place",
        "side",
        "face",
        "height_mm",
        "standoff_mm",
        "lift_mm",
        "along_n",
        "up_n",
        "out_n",
    )
    kind: Literal["steering-mount"] = "steering-mount"
    place: Annotated[Place, Shown("Middle")]
    holds: Annotated[Literal["box", "rack"], Shown("Holds", choices={"box": "a steering box", "rack": "a rack"})] = (
        "box"
    )
    face: Annotated[
        Literal["outer", "inner"], Shown("On the rail's", choices={"outer": "outer face", "inner": "inner face"})
    ] = "outer"
    height_mm: Annotated[Size, Shown("Middle above the underside")]
    long_mm: Annotated[Size, Shown("Along")] = 200.0
    tall_mm: Annotated[Size, Shown("High")] = 120.0
    turn_deg: Annotated[Turned, Shown("Turned, front end up")] = 0.0
    """The plate with all its holes, about its middle."""
    thickness_mm: Annotated[Thickness, Shown("Thickness")] = 10.0
    steel_id: Annotated[str, Shown("Steel")] = "mild"
    bolts: Annotated[BoltGroup, Shown("Bolts through the rail")] = BoltGroup(per_end=2, sleeves=True)
    pad: Annotated[GearPad, Shown("Bolts of the gear")] = GearPad()
    standoff_mm: Annotated[Extra, Shown("Force acts off the plate by")] = 60.0
    """From the plate's face to where the force acts: pitman arm's end, or the rack's axis."""
    lift_mm: Annotated[float, Field(ge=-400, le=400), Shown("Above its middle by")] = 0.0
    """The same above the plate's middle."""
    along_n: Annotated[Force, Shown("Force along, rearward")] = 0.0
    up_n: Annotated[Force, Shown("Force up")] = 0.0
    out_n: Annotated[Force, Shown("Force outward")] = 0.0

    @classmethod
    def fresh_values(cls, on: Setting) -> dict[str, object]:
        """At the front axle; a box hangs on the left rail where the wheel is on the left (common practice)."""
        return {"place": on.front(-300), "side": "left", "height_mm": 75.0}

    @property
    def half_mm(self) -> float:
        """Half of what the plate takes along the rail."""
        return _extent(self.long_mm, self.tall_mm, self.turn_deg)[0] / 2

    def refuse(self, rail_height_mm: float, field: str) -> None:
        """Both patterns have to lie on the plate."""
        pad, edge = find_bolt(self.pad.bolt_size, self.pad.grade).size.hole_mm, self.bolts.bolt().size.hole_mm
        long, tall = _extent(self.pad.long_mm, self.pad.tall_mm, self.pad.turn_deg)
        rows = (
            ("bolts/edge_mm", 2 * self.bolts.edge_mm + edge, min(self.long_mm, self.tall_mm), "the rail's bolts"),
            ("pad/long_mm", long + pad, self.long_mm, "the pad's bolts"),
            ("pad/tall_mm", tall + pad, self.tall_mm, "the pad's bolts"),
        )
        for name, needs, has, words in rows:
            if needs >= has:
                raise InputError(
                    f"{words} do not fit on the plate",
                    field=f"{field}/{name}",
                    found=f"{as_length(needs)} with their holes",
                    acceptable=f"less than {as_length(has)}, or a larger plate",
                )

    @property
    def welded(self) -> bool:
        """Bolts heat nothing; the sleeves do, in the rail's middle."""
        return False

    def roles(self) -> tuple[str, ...]:
        """One plate."""
        return ("plate",)

    def _rail_holes(self) -> list[Spot]:
        """Rail bolts from the plate's middle: two rows, one along its upper and one along its lower edge; turned with it."""
        if self.bolts.positions:
            spots = [(b.along_mm, b.up_mm) for b in self.bolts.positions]
        else:
            n, edge = self.bolts.per_end, self.bolts.edge_mm
            half, tall = self.long_mm / 2 - edge, self.tall_mm / 2 - edge
            xs = [0.0] if n == 1 else [-half + 2 * half * k / (n - 1) for k in range(n)]
            spots = [(x, z) for z in (-tall, tall) for x in xs]
        return [_front_up(spot, self.turn_deg) for spot in spots]

    @property
    def drills(self) -> bool:
        """Its bolts go through the rail."""
        return True

    def additions(self, span: Span, rail: RailColumns, carried: frozenset[str], boxed: bool) -> Additions:
        """The holes of its bolts in the rail."""
        spots = [(span.centre_mm + x, self.height_mm + z) for x, z in self._rail_holes()]
        holes = self.bolts.holes_at(spots, boxed or rail.closed)
        return Additions(np.zeros_like(rail.x), (), holes=holes)

    def marks(self, span: Span) -> tuple[float, ...]:
        """Where its bolts go through the rail."""
        return tuple(sorted({span.centre_mm + x for x, _ in self._rail_holes()}))

    def _pad_holes(self) -> list[Spot]:
        a, b = self.pad.long_mm / 2, self.pad.tall_mm / 2
        corners = [(-a, -b), (a, -b), (a, b), (-a, b)][: self.pad.corners]
        return [_front_up(spot, self.pad.turn_deg + self.turn_deg) for spot in corners]

    def _outline(self, x_mm: float, z_mm: float) -> Outline:
        """The plate's edge about its middle."""
        a, b = self.long_mm / 2, self.tall_mm / 2
        return rectangle(x_mm - a, z_mm - b, x_mm + a, z_mm + b).turned(-self.turn_deg, x_mm, z_mm)

    def parts(self, on: OnRail) -> list[Part]:
        """The plate with every hole."""
        x, middle = on.span.centre_mm, on.here.underside + self.height_mm
        rows = [
            *((dx, dz, self.bolts.bolt().size.hole_mm) for dx, dz in self._rail_holes()),
            *((dx, dz, find_bolt(self.pad.bolt_size, self.pad.grade).size.hole_mm) for dx, dz in self._pad_holes()),
        ]
        face: Face = self.face
        return [
            Part(
                id=part_id(self.id, "plate", on.side),
                operation=self.id,
                role="plate",
                side=on.side,
                name=f"Steering {self.holds}'s plate",
                face=face,
                outline=self._outline(x, middle),
                thickness_mm=self.thickness_mm,
                steel_id=self.steel_id,
                holes=tuple(RoundHole(x_mm=x + dx, y_mm=middle + dz, diameter_mm=d) for dx, dz, d in rows),
            )
        ]

    def solids(self, on: OnRail) -> tuple[Solid, ...]:
        """The plate on its face."""
        away = 1.0 if on.rail.opens == "inward" else -1.0
        outside = away if self.face == "outer" else -away
        face = on.rail.web_y_mm - (0.0 if self.face == "outer" else away * on.here.width)
        middle = (on.span.centre_mm, face + outside * self.thickness_mm / 2, on.here.underside + self.height_mm)
        long, tall = _extent(self.long_mm, self.tall_mm, self.turn_deg)
        own = block(self.name, "frame", middle, (long, self.thickness_mm, tall))
        edge = [[x, z] for x, z in self._outline(middle[0], middle[2]).points()]
        return (own.model_copy(update={"side": edge}) if self.turn_deg else own,)

    @property
    def _loaded(self) -> bool:
        return max(abs(self.along_n), abs(self.up_n), abs(self.out_n)) > 0

    def checks(self, on: OnRail) -> tuple[CheckSpec, ...]:
        """Bolts through the rail in their sleeves, the bolts of box or rack, and the room between both."""
        at, force, arm = on.span.centre_mm, (self.out_n, self.along_n, self.up_n), (self.standoff_mm, self.lift_mm)
        rows = list(bolt_checks(self.bolts, self.thickness_mm, self.steel_id, on))
        if self._loaded:
            plate = (self.long_mm, self.tall_mm)
            rail = _standing(self.bolts.size, self.bolts.grade, self._rail_holes())
            gear = _standing(self.pad.bolt_size, self.pad.grade, self._pad_holes())
            rows.append(foot_bolt_check(rail, plate, force, arm, at, "rail-bolts"))
            rows.append(foot_bolt_check(gear, plate, force, arm, at, f"{self.holds}-bolts"))
        else:
            rows.append(unloaded("bolt-group", at))
        bolt = find_bolt(self.pad.bolt_size, self.pad.grade)
        near = min(((a - c) ** 2 + (b - d) ** 2) ** 0.5 for a, b in self._rail_holes() for c, d in self._pad_holes())
        web = near - bolt.size.hole_mm / 2 - self.bolts.bolt().size.hole_mm / 2
        rows.append(
            CheckSpec(
                limit_id="holes-apart",
                about="plate",
                value=web,
                formula="apart - holes",
                values={"apart": near, "holes": near - web},
                words="plate left between a rail bolt's hole and one of the pad, mm",
                station_mm=at,
                remedy="A larger plate, or the pad's bolts elsewhere.",
            )
        )
        long, tall = _extent(self.pad.long_mm, self.pad.tall_mm, self.pad.turn_deg)
        edge = min((self.long_mm - long) / 2, (self.tall_mm - tall) / 2)
        tear = hole_n(bolt, max(edge, 1.0), self.thickness_mm, find_steel(self.steel_id).ultimate_mpa)
        rows.append(
            CheckSpec(
                limit_id="hole-carries",
                about="pad",
                value=tear / bolt.slip_n(),
                formula="hole / slip",
                values={"hole": tear, "slip": bolt.slip_n()},
                words="bearing and tear-out of one of the pad's holes against what its bolt holds by friction, N",
                station_mm=at,
                remedy="A thicker plate, or the pad's bolts further from its edge.",
            )
        )
        return tuple(rows)

    def figures(self, on: OnRail) -> tuple[FigureSpec, ...]:
        """Torques and sleeves."""
        area = self.thickness_mm * self.tall_mm
        rows = [f for f in bolt_figures(self.bolts, area, self.steel_id, on.here.closed_width) if f.key != "friction"]
        bolt = find_bolt(self.pad.bolt_size, self.pad.grade)
        rows.append(
            FigureSpec(
                key="pad-torque",
                name=f"Torque of the {self.holds}'s {bolt.size.id} {bolt.grade.id} bolts, dry",
                value=bolt.torque_nm("dry"),
                unit="N m",
                basis="T = 0.2 F d; its maker's figure goes first",
            )
        )
        return tuple(rows)

    def steps(self, datum: str) -> list[StepSpec]:
        """Drill through, sleeve, bolt, look that it stands parallel, hang the gear."""
        at = f"{as_place(self.place.offset_mm)} {datum}, {as_length(self.height_mm)} above the underside"
        if self.turn_deg:
            at += f", turned {abs(self.turn_deg):g} degrees, front end {'up' if self.turn_deg > 0 else 'down'}"
        n = 2 * self.bolts.per_end
        return [
            StepSpec(
                key="drill",
                phase="cut",
                title=f"Drill the {self.holds}'s mount, {n} holes through",
                detail=f"{at}; the plate is the drill jig, clamped and square; through both walls from one pilot, the far wall opened for the sleeves.",
                minutes=50,
                tools=("drill", "square", "clamps"),
            ),
            welded(
                key="sleeve",
                phase="fit",
                title=f"Weld {n} sleeves for the {self.holds}'s mount",
                detail="Through both walls before the rail is closed; ends square, flush or a hair proud, welded on both sides.",
                minutes=20 * n,
                hides="inside of the rail at the mount",
                acts=("goes-inside",),
            ),
            StepSpec(
                key="hang",
                phase="plate",
                title=f"Bolt the plate and hang the {self.holds}",
                detail=f"Plate parallel to the centre plane within {as_length(1)} over its length, measured to a string; new bolts to torque, then the {self.holds} on its own.",
                minutes=60,
                people=2,
                tools=("torque wrench", "string line"),
                cautions=(NEVER,),
                hold=HoldPoint(kind="reading", ask="Middle of the plate from its datum", reading="position"),
            ),
        ]

    def bought(self, on: OnRail) -> tuple[Needed, ...]:
        """Bolts through the rail; the gear's own through its feet are as long as its maker says."""
        return self.bolts.bought(f"{self.name}, rail", len(self._rail_holes()), self.thickness_mm, on)

    def measured_fields(self) -> dict[str, str]:
        """What is read once it hangs."""
        return {"position": "place", "height": "height_mm"}

    def readings(self, datum: str) -> list[ReadingSpec]:
        """Place, height, and how far it is from parallel."""
        return [
            reading("position", "Middle of the plate", self.place.offset_mm, datum),
            reading("height", "Height of its middle", self.height_mm, "rail underside"),
            reading(
                "parallel",
                "Plate's front end against its rear end, from the centre plane",
                0.0,
                "a string along the centre plane",
                "as-built-parallel",
            ),
        ]
