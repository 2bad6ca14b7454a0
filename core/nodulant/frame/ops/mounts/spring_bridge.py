"""A tube from rail to rail, straight or hooped over, that carries the upper ends of coilovers or dampers.

As a beam on two supports with the springs' forces a from its ends: M = P a (textbook). The end
welds are reckoned for clamped ends, M = P a (L - a)/L, on a ring of the tube's girth: length pi d,
section modulus pi d^2/4 per mm of throat (Blodgett, section 7.4, from memory). Tube and weld are
judged each for its worse case. A hoop's legs add their height to what leans.
"""

import math
from typing import Annotated, ClassVar, Literal, Self

from pydantic import Field, model_validator

from nodulant.base.errors import InputError
from nodulant.base.model import Extra, Size, Thickness
from nodulant.base.shown import Shown
from nodulant.frame.here import OnRail
from nodulant.frame.ops.across import Member, inner_face_mm, legs_on, tube_between
from nodulant.frame.ops.at_place import AtPlace
from nodulant.frame.ops.fresh import Setting
from nodulant.frame.ops.mounts.tabs import Tabs, carry_checks, fit_checks, tab_figures, tab_shape
from nodulant.frame.ops.operation import Adds
from nodulant.frame.ops.plates.weld_legs import leg_checks
from nodulant.frame.ops.welded import welded
from nodulant.frame.place import Place
from nodulant.geometry import Outline
from nodulant.geometry.outline import circle, polygon, rectangle
from nodulant.materials import find_steel, line_capacity
from nodulant.materials.steel import SAFETY_ON_YIELD
from nodulant.parts.bought import Needed, TubeNeeded
from nodulant.parts.cautions import HOT
from nodulant.parts.part import MEMBER, Part, RoundHole, Seam, part_id
from nodulant.parts.solid import Solid, block
from nodulant.parts.specs import CheckSpec, FigureSpec, HoldPoint, ReadingSpec, StepSpec, reading
from nodulant.survey.crossmember import Crossmember
from nodulant.units.inline import as_length, as_place, as_thickness

Force = Annotated[float, Field(ge=0, le=500_000)]


class SpringBridge(AtPlace):
    """A crossmember or hoop at ``place``, its middle ``height_mm`` above the rails' underside, mounts ``y_mm`` from the centre."""

    adds: ClassVar[Adds] = Adds(
        "Spring crossmember or hoop",
        "a tube from rail to rail, straight or hooped, with tabs for the upper ends of coilovers or dampers",
    )
    one_piece: ClassVar[bool] = True
    follows: ClassVar[tuple[str, ...]] = ("place", "form", "height_mm", "y_mm", "spring_n", "across_n")
    kind: Literal["spring-bridge"] = "spring-bridge"
    place: Annotated[Place, Shown("Middle")]
    form: Annotated[
        Literal["straight", "hoop"], Shown("Form", choices={"straight": "straight", "hoop": "hoop over the rails"})
    ] = "straight"
    height_mm: Annotated[Size, Shown("Middle above the underside")] = 120.0
    """Of the tube's middle; a hoop's middle stands this high over legs on the rails."""
    y_mm: Annotated[Size, Shown("Mounts from the centre")] = 260.0
    """Of the spring's or damper's upper joint, from the centre plane."""
    od_mm: Annotated[float, Field(gt=15, le=150), Shown("Tube diameter", kind="thickness")] = 48.3
    wall_mm: Annotated[Thickness, Shown("Tube wall")] = 5.0
    steel_id: Annotated[str, Shown("Steel")] = "mild"
    weld_leg_mm: Annotated[Thickness, Shown("Weld leg")] = 5.0
    tabs: Annotated[Tabs, Shown("Tabs")] = Tabs(
        bolt_size="M12", standoff_mm=35.0, width_mm=45.0, edge_mm=22.0, joint_mm=35.0
    )
    gusset_mm: Annotated[Extra, Shown("End gusset's leg (0: none)")] = 0.0
    """Leg of a gusset under each end; 0 for none."""
    spring_n: Annotated[Force, Shown("Force of one side")] = 0.0
    """Force of one side's spring or damper at full bump."""
    across_n: Annotated[Force, Shown("Of it inward")] = 0.0
    """What of it pushes inward, from its lean."""

    @classmethod
    def fresh_values(cls, on: Setting) -> dict[str, object]:
        """Where it begins and what no default tells."""
        return {"place": on.inward(20), "y_mm": max(float(round(on.inner_mm - 60)), 100.0)}

    @model_validator(mode="after")
    def _a_tube(self) -> Self:
        if 2 * self.wall_mm >= self.od_mm:
            raise InputError(
                "the wall is thicker than the tube",
                field="wall_mm",
                found=as_thickness(self.wall_mm),
                acceptable=f"less than {as_length(self.od_mm / 2)}",
            )
        return self

    @property
    def on_rail(self) -> bool:
        """A hoop stands on the rails' tops and may stand over a cut from below."""
        return self.form == "straight"

    @property
    def half_mm(self) -> float:
        """Half of its diameter."""
        return self.od_mm / 2

    def roles(self) -> tuple[str, ...]:
        """Tube, tabs, gussets."""
        return (MEMBER, "bridge-tabs", "bridge-gussets") if self.gusset_mm > 0 else (MEMBER, "bridge-tabs")

    def ties(self, x_mm: float) -> tuple[Crossmember, ...]:
        """A straight one ties the rails; a hoop's legs are soft and count for nothing."""
        if self.form != "straight":
            return ()
        size = {"profile": "tube", "height_mm": self.od_mm, "width_mm": self.od_mm, "wall_mm": self.wall_mm}
        return (Crossmember.model_validate({"id": self.id, "name": self.name, "x_mm": x_mm, "end": "welded", **size}),)

    def _half(self, on: OnRail) -> float:
        """From the centre plane to the rail's inner face, mm."""
        return max(inner_face_mm(on), self.od_mm)

    def _member(self, on: OnRail) -> Member:
        """The tube as it is cut."""
        if self.form == "straight":
            return tube_between(on, self.od_mm, self.wall_mm, self.height_mm)
        rise = max(self.height_mm - on.here.height, 0.0)
        return legs_on(on, self.od_mm, self.wall_mm, 2 * (self._half(on) + rise))

    def end_on_rail(self, on: OnRail) -> Outline | None:
        """The tube's outside; a hoop stands on the rails' tops."""
        if self.form != "straight":
            return None
        return circle(on.span.centre_mm, on.here.underside + self.height_mm, self.od_mm)

    def parts(self, on: OnRail) -> list[Part]:
        """The tube rolled out, tabs and gussets; one for both sides, kept with the left."""
        if on.side == "right":
            return []
        x, girth = on.span.centre_mm, math.pi * (self.od_mm - self.wall_mm)
        half = min(self.tabs.width_mm, self.od_mm) / 2
        corners, drilled = tab_shape(self.tabs, [(0.0, -half), (0.0, half)], (self.tabs.standoff_mm, 0.0))
        reach = self._member(on).long_mm / 2
        tube = rectangle(x - reach, 0.0, x + reach, girth)
        tab = polygon([(x + across, out) for out, across in corners])
        holes = tuple(RoundHole(x_mm=x + h.y_mm, y_mm=h.x_mm, diameter_mm=h.diameter_mm) for h in drilled)
        name = "Hoop's tube" if self.form == "hoop" else "Crossmember tube"
        count = 2 * self.tabs.count
        out = [
            self._part(on, MEMBER, name).model_copy(update={"outline": tube, "thickness_mm": self.wall_mm}),
            self._part(on, "bridge-tabs", f"Mount tab, {count} of it").model_copy(
                update={"outline": tab, "thickness_mm": self.tabs.thickness_mm, "count": count, "holes": holes}
            ),
        ]
        if self.gusset_mm > 0:
            g = self.gusset_mm
            shape = polygon([(x, 0.0), (x + g, 0.0), (x, g)])
            out.append(
                self._part(on, "bridge-gussets", "End gusset, two of it").model_copy(
                    update={"outline": shape, "count": 2}
                )
            )
        return out

    def bought(self, on: OnRail) -> tuple[Needed, ...]:
        """Its tube, for both sides, and the bolts of both mounts."""
        if on.side == "right":
            return ()
        what = "hoop, along its middle" if self.form == "hoop" else "crossmember"
        member = self._member(on)
        tube = TubeNeeded(
            name=f"{self.name}, {what}",
            od_mm=self.od_mm,
            wall_mm=self.wall_mm,
            long_mm=member.long_mm,
            steel_id=self.steel_id,
            coped=member.coped,
        )
        return (tube, self.tabs.bought(f"{self.name}, mount", 2))

    def _part(self, on: OnRail, role: str, name: str) -> Part:
        return Part(
            id=part_id(self.id, role, on.side),
            operation=self.id,
            role=role,
            side=on.side,
            name=name,
            face="across",
            outline=rectangle(0.0, 0.0, 1.0, 1.0),
            thickness_mm=self.tabs.thickness_mm,
            steel_id=self.steel_id,
        )

    def seams(self, on: OnRail, parts: list[Part]) -> list[Seam]:
        """Both ends on the rails, and the tabs."""
        rail = f"rail/{on.side}"
        return [
            Seam(part_a=rail, part_b=p.id, kind="fillet", leg_mm=self.weld_leg_mm, path=p.outline, welded_share=0.3)
            for p in parts
        ]

    def checks(self, on: OnRail) -> tuple[CheckSpec, ...]:
        """Tube, end welds, tabs and bolt."""
        at = on.span.centre_mm
        standing = max(self.tabs.standoff_mm, 0.0)
        return (
            *self._beam(on),
            *leg_checks(self.weld_leg_mm, self.wall_mm, on.here.wall, at),
            *fit_checks(self.tabs, at),
            *carry_checks(self.tabs, self.steel_id, self.spring_n, self.across_n * standing, at, "spring_n"),
        )

    def _beam(self, on: OnRail) -> tuple[CheckSpec, ...]:
        at = on.span.centre_mm
        if self.spring_n <= 0:
            remedy = "The spring's force at full bump is not given."
            rows = ("bridge-bending", "bridge-weld")
            return tuple(
                CheckSpec(limit_id=r, value=None, station_mm=at, missing=("spring_n",), remedy=remedy) for r in rows
            )
        half = self._half(on)
        a = max(half - self.y_mm, 0.0)
        steel = find_steel(self.steel_id)
        inner = self.od_mm - 2 * self.wall_mm
        modulus = math.pi * (self.od_mm**4 - inner**4) / (32 * self.od_mm)
        leg = max(self.height_mm - on.here.height, 0.0) if self.form == "hoop" else 0.0
        lean = self.across_n * leg
        allowed = steel.beside_weld_mpa / SAFETY_ON_YIELD
        clamped = self.spring_n * a * (2 * half - a) / (2 * half)
        ring, section = math.pi * self.od_mm, math.pi * self.od_mm**2 / 4
        worst = math.hypot(self.spring_n / ring, (clamped + lean) / section)
        thinnest = min(self.wall_mm, on.here.wall)
        yields = min(steel.beside_weld_mpa, find_steel(on.rail.steel_id).beside_weld_mpa)
        q = line_capacity(self.weld_leg_mm, thinnest, yields)
        return (
            CheckSpec(
                limit_id="bridge-bending",
                value=(self.spring_n * a + lean) / (modulus * allowed),
                formula="(force * lever + lean) / (modulus * allowed)",
                values={"force": self.spring_n, "lever": a, "lean": lean, "modulus": modulus, "allowed": allowed},
                words="one side's force over its lever from the rail, what leans over a hoop's legs, N mm; modulus of the tube, mm3; yield beside welds over 1.5",
                station_mm=at,
                same_as_stock=a == 0 and lean == 0,
                remedy="A larger tube, or mounts nearer to the rails.",
            ),
            CheckSpec(
                limit_id="bridge-weld",
                value=worst / q,
                formula="load / capacity",
                values={"load": worst, "capacity": q},
                words="N/mm on the ring of weld at each end, ends taken as clamped",
                station_mm=at,
                remedy="A bigger leg, a gusset under each end, or a larger tube.",
            ),
        )

    def figures(self, on: OnRail) -> tuple[FigureSpec, ...]:
        """Spacing, length, torque."""
        spacing = FigureSpec(
            key="spacing",
            name="Upper mounts, left to right",
            value=2 * self.y_mm,
            unit="mm",
            basis="middle to middle: measured as built",
        )
        length = FigureSpec(
            key="tube",
            name="Tube to cut",
            value=self._member(on).long_mm,
            unit="mm",
            basis="between the rails, legs of a hoop included, cope not added",
        )
        return (spacing, length, *tab_figures(self.tabs))

    def solids(self, on: OnRail) -> tuple[Solid, ...]:
        """Tube and tabs, right half."""
        x, z = on.span.centre_mm, on.here.underside + self.height_mm
        half, d = self._half(on), self.od_mm
        rows = [block(self.name, "frame", (x, half / 2, z), (d, half, d))]
        if self.form == "hoop":
            top = on.here.underside + on.here.height
            rows.append(
                Solid(
                    name=self.name, on="frame", x=[x - d / 2, x + d / 2], y=[half - d, half], z=(top, max(z, top + 1))
                )
            )
        t, out = self.tabs, self.tabs.standoff_mm + self.tabs.edge_mm
        apart = (t.inside_mm + t.thickness_mm) / 2
        for dx in (0.0,) if t.single else (-apart, apart):
            low = z - d / 2 - out
            rows.append(
                Solid(
                    name=self.name,
                    on="frame",
                    x=[x + dx - t.thickness_mm / 2, x + dx + t.thickness_mm / 2],
                    y=[self.y_mm - t.width_mm / 2, self.y_mm + t.width_mm / 2],
                    z=[low, z - d / 2],
                )
            )
        return tuple(rows)

    def steps(self, datum: str) -> list[StepSpec]:
        """Cope, tack, look through travel, weld."""
        at = f"{as_place(self.place.offset_mm)} {datum}, middle {as_length(self.height_mm)} above the underside"
        return [
            StepSpec(
                key="tack",
                phase="tack",
                title=f"Tack the {'hoop' if self.form == 'hoop' else 'spring crossmember'}",
                detail=f"{at}; ends coped to the rails. Springs out, dampers in: both mounts {as_length(self.y_mm)} from the centre line.",
                minutes=90,
                people=2,
                tools=("tube notcher", "level", "welder"),
                cautions=(HOT, "Springs store energy: out while mounts are only tacked."),
                hold=HoldPoint(kind="reading", ask="Mounts, left to right", reading="spacing"),
                acts=("mocks-up", "ties"),
            ),
            welded(
                key="weld",
                phase="weld",
                title=f"Weld the {'hoop' if self.form == 'hoop' else 'spring crossmember'}",
                detail="After the axle went through bump, droop and roll on the tacks without touching.",
                minutes=90,
                acts=("welds", "welds-mount"),
            ),
        ]

    def measured_fields(self) -> dict[str, str]:
        """Nothing of the rails changes with its readings."""
        return {}

    def readings(self, datum: str) -> list[ReadingSpec]:
        """Spacing of the mounts."""
        return [reading("spacing", "Mounts, left to right", 2 * self.y_mm, "middle to middle of the bolts")]
