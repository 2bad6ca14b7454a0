"""Plates that an air spring or a bump stop works against: on the rail's underside, and on the axle.

A plate that stands out past what carries it bends like a cantilever under even pressure:
M = F/(w d) w o^2/2 with o the overhang (textbook). A stop has to be struck square and on centre.
"""

from typing import Annotated, ClassVar, Literal

from pydantic import Field

from nodulant.base.model import Extra, Size, Thickness
from nodulant.base.shown import Shown
from nodulant.frame.here import OnRail
from nodulant.frame.ops.at_place import AtPlace
from nodulant.frame.ops.fresh import Setting
from nodulant.frame.ops.on_axle.axle_plates import axle_plates
from nodulant.frame.ops.on_axle.axle_work import AxleWork
from nodulant.frame.ops.operation import Adds
from nodulant.frame.ops.plates.weld_legs import leg_checks
from nodulant.frame.ops.welded import welded
from nodulant.frame.ops.words import HOLDS
from nodulant.frame.place import Place
from nodulant.geometry.outline import rectangle
from nodulant.materials import find_steel, line_capacity
from nodulant.materials.steel import SAFETY_ON_YIELD
from nodulant.materials.weld import Line, group_load_n_per_mm, weld_group
from nodulant.parts.cautions import HOT
from nodulant.parts.part import Part, Seam, part_id
from nodulant.parts.solid import Solid, block
from nodulant.parts.specs import CheckSpec, FatigueDetail, HoldPoint, ReadingSpec, StepSpec, reading
from nodulant.units.inline import as_above, as_length, as_place

Holds = Literal["air-spring", "bump-stop"]
NAMES: dict[Holds, str] = {"air-spring": "air spring", "bump-stop": "bump stop"}
STRIKE = "Arm or axle moved by hand to full bump, alignment shims in place: mark where they meet, tack, swing again, dress edges that would tear rubber, then weld."


def plate_bending(
    force_n: float, size_mm: tuple[float, float, float], overhang_mm: float, steel_id: str, at: float
) -> CheckSpec:
    """A plate (along, across, thick) that stands out by ``overhang_mm`` of its width across."""
    long, across, thick = size_mm
    out = min(max(overhang_mm, 0.0), across)
    allowed = find_steel(steel_id).beside_weld_mpa / SAFETY_ON_YIELD
    values = {"force": force_n, "across": across, "out": out, "modulus": long * thick**2 / 6, "allowed": allowed}
    return CheckSpec(
        limit_id="pad-bending",
        value=force_n / across * out**2 / 2 / (values["modulus"] * allowed),
        formula="force / across * out ** 2 / 2 / (modulus * allowed)",
        values=values,
        words="even pressure on the part that stands out past what carries it",
        station_mm=at,
        same_as_stock=out == 0,
        remedy="A gusset under the overhang, thicker plate, or the plate further over the rail.",
    )


def waiting(rules: tuple[str, ...], at: float) -> tuple[CheckSpec, ...]:
    """Rules that wait for the force."""
    remedy = "The force at full bump is not given."
    return tuple(
        CheckSpec(limit_id=rule, value=None, station_mm=at, missing=("force_n",), remedy=remedy) for rule in rules
    )


class Pad(AtPlace):
    """A plate ``long_mm`` by ``across_mm`` under the rail, its middle ``out_mm`` from the rail's middle (outward positive)."""

    adds: ClassVar[Adds] = Adds("Plate under the rail", "for an air spring or a bump stop, flush or on a box")
    follows: ClassVar[tuple[str, ...]] = ("place", "out_mm", "drop_mm", "force_n")
    kind: Literal["pad"] = "pad"
    place: Annotated[Place, Shown("Middle")]
    holds: Annotated[Holds, Shown("Holds", choices=HOLDS)] = "bump-stop"
    long_mm: Annotated[Size, Shown("Along")] = 100.0
    across_mm: Annotated[Size, Shown("Across")] = 80.0
    thickness_mm: Annotated[Thickness, Shown("Thickness")] = 8.0
    out_mm: Annotated[float, Field(ge=-400, le=400), Shown("Outward of the rail's middle")] = 0.0
    drop_mm: Annotated[Extra, Shown("Below the rail")] = 0.0
    """Below the rail's underside, on a box of the plate's size."""
    steel_id: Annotated[str, Shown("Steel")] = "mild"
    weld_leg_mm: Annotated[Thickness, Shown("Weld leg")] = 5.0
    force_n: Annotated[float, Field(ge=0, le=500_000), Shown("Force at full bump")] = 0.0

    @classmethod
    def fresh_values(cls, on: Setting) -> dict[str, object]:
        """Where it begins and what no default tells."""
        return {"place": on.inward(250)}

    @property
    def half_mm(self) -> float:
        """Half of its length."""
        return self.long_mm / 2

    def roles(self) -> tuple[str, ...]:
        """The plate, and the box that holds it lower."""
        return ("pad", "pad-box") if self.drop_mm > 0 else ("pad",)

    def parts(self, on: OnRail) -> list[Part]:
        """The plate; the box's four walls as one strip."""
        x = on.span.centre_mm
        rows = [
            (
                "pad",
                f"{NAMES[self.holds].capitalize()} plate",
                rectangle(x - self.long_mm / 2, 0.0, x + self.long_mm / 2, self.across_mm),
            )
        ]
        if self.drop_mm > 0:
            girth = 2 * (self.long_mm + self.across_mm)
            rows.append(
                (
                    "pad-box",
                    "Strip for the box above it, bent round",
                    rectangle(x - girth / 2, 0.0, x + girth / 2, self.drop_mm),
                )
            )
        return [
            Part(
                id=part_id(self.id, role, on.side),
                operation=self.id,
                role=role,
                side=on.side,
                name=name,
                face="bottom",
                outline=outline,
                thickness_mm=self.thickness_mm,
                steel_id=self.steel_id,
            )
            for role, name, outline in rows
        ]

    def seams(self, on: OnRail, parts: list[Part]) -> list[Seam]:
        """Fillet around it."""
        rail = f"rail/{on.side}"
        return [Seam(part_a=rail, part_b=p.id, kind="fillet", leg_mm=self.weld_leg_mm, path=p.outline) for p in parts]

    def checks(self, on: OnRail) -> tuple[CheckSpec, ...]:
        """Overhang, weld, legs."""
        at, width = on.span.centre_mm, on.here.width
        legs = leg_checks(self.weld_leg_mm, self.thickness_mm, on.here.wall, at)
        if self.force_n <= 0:
            return (*waiting(("pad-bending", "weld-group"), at), *legs)
        out = abs(self.out_mm) + self.across_mm / 2 - width / 2
        edges = [(-width / 2, width / 2)[k] for k in (0, 1)]
        half = self.long_mm / 2
        group = weld_group([Line(y, -half, y, half) for y in edges])
        worst, _ = group_load_n_per_mm(group, (self.force_n, 0.0, 0.0), (0.0, self.out_mm, 0.0))
        steel = min(find_steel(self.steel_id).beside_weld_mpa, find_steel(on.rail.steel_id).beside_weld_mpa)
        q = line_capacity(self.weld_leg_mm, min(self.thickness_mm, on.here.wall), steel)
        weld = CheckSpec(
            limit_id="weld-group",
            value=worst / q,
            formula="load / capacity",
            values={"load": worst, "capacity": q},
            words="N/mm along both edges of the flange, bearing not counted",
            station_mm=at,
            remedy="A longer plate, a bigger leg, or the plate further over the rail.",
        )
        size = (self.long_mm, self.across_mm, self.thickness_mm)
        return (plate_bending(self.force_n, size, out, self.steel_id, at), weld, *legs)

    def details(self, on: OnRail) -> tuple[FatigueDetail, ...]:
        """An attachment on the flange."""
        return (
            FatigueDetail(
                about="pad",
                detail="attachment",
                start_mm=on.span.start_mm,
                end_mm=on.span.end_mm,
                words="plate welded under the rail",
            ),
        )

    def solids(self, on: OnRail) -> tuple[Solid, ...]:
        """The plate."""
        inward = 1.0 if on.rail.opens == "inward" else -1.0
        middle = on.rail.web_y_mm - inward * on.here.width / 2 + self.out_mm
        z = on.here.underside - self.drop_mm - self.thickness_mm / 2
        return (
            block(
                self.name, "frame", (on.span.centre_mm, middle, z), (self.long_mm, self.across_mm, self.thickness_mm)
            ),
        )

    def steps(self, datum: str) -> list[StepSpec]:
        """Swing, mark, tack, swing, weld."""
        at = f"{as_place(self.place.offset_mm)} {datum}"
        return [
            StepSpec(
                key="fit",
                phase="tack",
                title=f"Fit the {NAMES[self.holds]}'s plate under the rail",
                detail=f"{at}. {STRIKE}"
                if self.holds == "bump-stop"
                else f"{at}. Square to the bellows at ride height, {as_length(12)} of room all round it at full pressure.",
                minutes=60,
                people=2,
                tools=("square", "welder"),
                cautions=(HOT, "No air in the bellows while its plates are only tacked."),
                hold=HoldPoint(
                    kind="look",
                    ask="Struck square and on centre"
                    if self.holds == "bump-stop"
                    else "Plates square and in line at ride height",
                ),
                acts=("mocks-up",),
            ),
            welded(
                key="weld",
                phase="weld",
                title=f"Weld the {NAMES[self.holds]}'s plate",
                detail="Rubber out first; long edges, no weld straight across the flange.",
                minutes=40,
                acts=("welds", "welds-mount"),
            ),
        ]

    def measured_fields(self) -> dict[str, str]:
        """What is read after welding."""
        return {"position": "place"}

    def readings(self, datum: str) -> list[ReadingSpec]:
        """Place."""
        return [reading("position", "Middle of the plate", self.place.offset_mm, datum)]


class AxlePad(AxleWork):
    """A plate on two uprights on the axle's tube, ``z_mm`` above the hubs, turned nose up by ``tilt_deg`` at ride height."""

    adds: ClassVar[Adds] = Adds(
        "Plate on the axle", "under an air spring or a bump stop, turned so that it stands square at ride height"
    )
    follows: ClassVar[tuple[str, ...]] = (
        "place",
        "x_mm",
        "y_mm",
        "z_mm",
        "tilt_deg",
        "along_n",
        "up_n",
        "out_n",
        "tube_mm",
        "tube_wall_mm",
        "housing",
        "housing_half_mm",
    )
    kind: Literal["axle-pad"] = "axle-pad"
    holds: Annotated[Holds, Shown("Holds", choices=HOLDS)] = "air-spring"
    long_mm: Annotated[Size, Shown("Along")] = 110.0
    across_mm: Annotated[Size, Shown("Across")] = 110.0
    tilt_deg: Annotated[float, Field(ge=-30, le=30), Shown("Turned, nose up")] = 0.0
    """So that it stands square to the upper one at ride height."""

    @classmethod
    def fresh_values(cls, on: Setting) -> dict[str, object]:
        """Where it begins and what no default tells."""
        return {**super().fresh_values(on), "y_mm": float(round(on.inner_mm - 60)), "z_mm": 70.0}

    def roles(self) -> tuple[str, ...]:
        """The plate and its uprights."""
        return ("axle-pad", "axle-uprights")

    def inner_mm(self) -> float:
        """Inner upright."""
        return abs(self.y_mm) - self.across_mm / 2

    @property
    def tall_mm(self) -> float:
        """From the tube's top to the plate."""
        return max(self.z_mm - self.tube_mm / 2, self.thickness_mm)

    def parts(self, on: OnRail) -> list[Part]:
        """The plate, and an upright with its saddle (two of it)."""
        x, r = on.span.centre_mm, self.tube_mm / 2
        wide = min(self.long_mm, 1.6 * r)
        rows = (
            (
                "axle-pad",
                f"Lower {NAMES[self.holds]} plate",
                rectangle(x - self.long_mm / 2, 0.0, x + self.long_mm / 2, self.across_mm),
                1,
            ),
            (
                "axle-uprights",
                "Upright, two of it, saddled to the tube",
                rectangle(x - wide / 2, 0.0, x + wide / 2, self.tall_mm + r / 2),
                2,
            ),
        )
        return axle_plates(self.id, on, self.thickness_mm, self.steel_id, rows)

    def seams(self, on: OnRail, parts: list[Part]) -> list[Seam]:
        """Uprights on tube and plate."""
        axle = f"axle/{on.side}"
        return [
            Seam(part_a=axle, part_b=p.id, kind="fillet", leg_mm=self.weld_leg_mm, path=p.outline, welded_share=0.5)
            for p in parts
        ]

    def checks(self, on: OnRail) -> tuple[CheckSpec, ...]:
        """Cast middle, welds, overhang past the uprights."""
        at, r = on.span.centre_mm, self.tube_mm / 2
        wide = min(self.long_mm, 1.6 * r)
        spots = [(s * self.across_mm / 2, 0.0) for s in (-1, 1)]
        weld = self.tube_weld(on, spots, wide, self.tall_mm, (self.up_n, self.out_n, self.along_n))
        if self.force_n <= 0:
            missing = CheckSpec(
                limit_id="pad-bending",
                value=None,
                station_mm=at,
                missing=("up_n",),
                remedy="The force at full bump is not given.",
            )
            return (self.cast_check(on), weld, missing, *self.legs(on))
        size = (self.across_mm, self.long_mm, self.thickness_mm)
        bend = plate_bending(abs(self.up_n), size, (self.long_mm - wide) / 2, self.steel_id, at)
        return (self.cast_check(on), weld, bend, *self.legs(on))

    def solids(self, on: OnRail) -> tuple[Solid, ...]:
        """Plate and uprights."""
        x, y, t, tall = self.x_mm, self.y_mm, self.thickness_mm, self.tall_mm
        wide = min(self.long_mm, 0.8 * self.tube_mm)
        plate = block(self.name, "axle", (x, y, self.z_mm - t / 2), (self.long_mm, self.across_mm, t))
        uprights = [
            block(self.name, "axle", (x, y + s * (self.across_mm - t) / 2, self.z_mm - t - tall / 2), (wide, t, tall))
            for s in (-1, 1)
        ]
        return (plate, *uprights)

    def steps(self, datum: str) -> list[StepSpec]:
        """Set square at ride height, then weld."""
        turned = f", turned {self.tilt_deg:+.1f} deg" if self.tilt_deg else ""
        return [
            StepSpec(
                key="fit",
                phase="tack",
                title=f"Fit the lower {NAMES[self.holds]} plate to the axle",
                detail=f"Axle at ride height: {as_above(self.z_mm)} the hubs, {as_length(abs(self.y_mm))} from the centre{turned}; square to the upper plate there, since the arc tilts it elsewhere."
                if self.holds == "air-spring"
                else STRIKE,
                minutes=50,
                people=2,
                tools=("angle gauge", "welder"),
                cautions=(HOT, "No air in the bellows while its plates are only tacked."),
                hold=HoldPoint(kind="reading", ask="Middle of the plate from the centre plane", reading="across"),
                acts=("mocks-up",),
            ),
            welded(
                key="weld",
                phase="weld",
                title=f"Weld the lower {NAMES[self.holds]} plate",
                detail="Bellows and rubber out; short beads, the tube held straight.",
                minutes=50,
                acts=("welds", "welds-mount", "welds-axle"),
            ),
        ]

    def measured_fields(self) -> dict[str, str]:
        """What is read after welding."""
        return {"across": "y_mm"}

    def readings(self, datum: str) -> list[ReadingSpec]:
        """Place across."""
        return [reading("across", "Middle of the plate from the centre plane", self.y_mm, "centre of the axle")]
