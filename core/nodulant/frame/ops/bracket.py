"""A link, spring or damper bracket on the rail: foot, two tabs, weld or bolts, gusset."""

import math
from collections.abc import Iterable
from typing import Annotated, Literal

from pydantic import Field

from nodulant.base.model import Frozen, Size, Thickness
from nodulant.frame.here import OnRail, Span
from nodulant.frame.ops.bolted import BoltGroup, bolt_checks, bolt_figures
from nodulant.frame.ops.notch_work import HOT
from nodulant.frame.ops.operation import RailOperation
from nodulant.frame.ops.wall import wall_capacity_n, wall_check
from nodulant.frame.ops.weld_legs import leg_checks
from nodulant.frame.place import Place, resolve
from nodulant.geometry.outline import polygon, rectangle
from nodulant.materials import find_steel, line_capacity
from nodulant.materials.bolts import find_bolt, hole_n
from nodulant.materials.steel import SAFETY_ON_YIELD
from nodulant.materials.weld import Line, group_load_n_per_mm, weld_group
from nodulant.parts.part import Face, Part, Seam, Turn, part_id
from nodulant.parts.specs import CheckSpec, FatigueDetail, FigureSpec, HoldPoint, ReadingSpec, StepSpec
from nodulant.survey.rail import Rail
from nodulant.survey.vehicle import Feature

Force = Annotated[float, Field(ge=-500_000, le=500_000)]


class Tabs(Frozen):
    """Two tabs that hold the link's bolt, ``standoff_mm`` from the rail's face."""

    thickness_mm: Thickness = 6.0
    width_mm: Size = 60.0
    standoff_mm: Size = 55.0
    lift_mm: Annotated[float, Field(ge=-400, le=400)] = 0.0
    """Link's bolt above the foot's middle; negative where the tabs hang below it."""
    edge_mm: Size = 30.0
    bolt_size: Annotated[str, Field(max_length=20)] = "M16"
    grade: Annotated[str, Field(max_length=20)] = "10.9"
    stiff: bool = True
    """Both tabs carry: two shear planes count."""


class BracketGusset(Frozen):
    """A brace from the tabs back to the rail, in line with the force."""

    leg_mm: Size = 40.0
    thickness_mm: Thickness = 5.0


class Bracket(RailOperation):
    """A foot ``width_mm`` along the rail and ``tall_mm`` high with its centre ``height_mm`` above the underside.

    Forces at the link's bolt under limit load, N: along (rearward), up, and outward from the face.
    """

    kind: Literal["bracket"] = "bracket"
    place: Place
    face: Literal["outer", "inner"] = "outer"
    height_mm: Size
    width_mm: Size = 120.0
    tall_mm: Size = 90.0
    thickness_mm: Thickness = 6.0
    steel_id: str = "mild"
    tabs: Tabs = Tabs()
    gusset: BracketGusset | None = None
    fixing: Literal["welded", "bolted", "welded-and-bolted"] = "welded"
    weld_leg_mm: Thickness = 5.0
    bolts: BoltGroup | None = None
    weld_when: Literal["after-all-checks", "at-once"] = "after-all-checks"
    """Tacked until everything is looked at, or welded first where set-up bolts fix its place."""
    along_n: Force = 0.0
    up_n: Force = 0.0
    out_n: Force = 0.0

    @property
    def anchor(self) -> Place:
        """Its middle."""
        return self.place

    def place_fields(self) -> tuple[str, str]:
        """One place holds both ends."""
        return ("place/offset_mm", "place/offset_mm")

    def span(self, rail: Rail, features: Iterable[Feature], field: str) -> Span:
        """The foot's length."""
        x = resolve(self.place, features, f"{field}/place")
        return Span(x - self.width_mm / 2, x + self.width_mm / 2)

    @property
    def welded(self) -> bool:
        """A bolted foot heats nothing."""
        return self.fixing != "bolted"

    def roles(self) -> tuple[str, ...]:
        """Foot, tabs and gusset."""
        return ("foot", "tabs", "gusset") if self.gusset else ("foot", "tabs")

    def parts(self, on: OnRail) -> list[Part]:
        """Flat shapes; two tabs are cut from one pattern."""
        x, w, h = on.span.centre_mm, self.width_mm, self.tall_mm
        low = on.here.underside + self.height_mm - h / 2
        long = self.tabs.standoff_mm + self.tabs.edge_mm
        tab = rectangle(x - self.tabs.width_mm / 2, low, x + self.tabs.width_mm / 2, low + long)
        rows = [("foot", "Bracket foot", rectangle(x - w / 2, low, x + w / 2, low + h), self.thickness_mm)]
        rows.append(("tabs", "Bracket tab, two of it", tab, self.tabs.thickness_mm))
        if self.gusset:
            g = self.gusset.leg_mm
            rows.append(
                ("gusset", "Bracket gusset", polygon([(x, low), (x + g, low), (x, low + g)]), self.gusset.thickness_mm)
            )
        face: Face = self.face
        slope = math.degrees(on.here.slope_rad)
        turn = Turn(degrees=slope, x_mm=x, z_mm=low + h / 2) if slope else None
        return [
            Part(
                id=part_id(self.id, role, on.side),
                operation=self.id,
                role=role,
                side=on.side,
                name=name,
                face=face,
                outline=outline,
                thickness_mm=t,
                steel_id=self.steel_id,
                turn=turn,
            )
            for role, name, outline, t in rows
        ]

    def seams(self, on: OnRail, parts: list[Part]) -> list[Seam]:
        """Fillet around the foot, where it is welded."""
        if self.fixing == "bolted":
            return []
        return [
            Seam(part_a=f"rail/{on.side}", part_b=p.id, kind="fillet", leg_mm=self.weld_leg_mm, path=p.outline)
            for p in parts
            if p.role == "foot"
        ]

    @property
    def _force(self) -> float:
        return float((self.along_n**2 + self.up_n**2 + self.out_n**2) ** 0.5)

    def checks(self, on: OnRail) -> tuple[CheckSpec, ...]:
        """Weld or bolts of the foot, tabs, link bolt and its hole."""
        at = on.span.centre_mm
        rows: list[CheckSpec] = []
        if self.fixing != "bolted":
            rows += [self._weld(on), *leg_checks(self.weld_leg_mm, self.thickness_mm, on.here.wall, at)]
        if self.fixing != "welded":
            bolts = self.bolts or BoltGroup()
            rows += [
                self._foot_bolts(bolts, at),
                *bolt_checks(
                    bolts, self.thickness_mm, self.steel_id, on.rail.closed or on.here.closed_width > on.here.width, at
                ),
            ]
        rows += [self._wall(on), *self._tab_checks(at)]
        room = self.tabs.standoff_mm - find_bolt(self.tabs.bolt_size, self.tabs.grade).size.hole_mm / 2
        rows.append(
            CheckSpec(
                limit_id="hole-to-weld",
                value=room,
                formula="standoff - hole / 2",
                values={"standoff": self.tabs.standoff_mm, "hole": 2 * (self.tabs.standoff_mm - room)},
                words="edge of the link's hole to the weld's toe",
                station_mm=at,
                remedy="More standoff, or a smaller bolt.",
            )
        )
        return tuple(rows)

    def _unloaded(self, limit_id: str, at: float) -> CheckSpec:
        return CheckSpec(
            limit_id=limit_id,
            value=None,
            station_mm=at,
            missing=("along_n",),
            remedy="The link's force at limit load is not given.",
        )

    def _wall(self, on: OnRail) -> CheckSpec:
        at, t = on.span.centre_mm, self.tabs
        if self._force <= 0:
            return self._unloaded("rail-wall", at)
        steel = find_steel(on.rail.steel_id)
        worth = steel.beside_weld_mpa if self.welded else steel.yield_mpa
        holds = wall_capacity_n(on.here.wall, on.here.height, self.tall_mm, self.width_mm, worth)
        force = (self.out_n, self.along_n, self.up_n)
        return wall_check(force, (t.standoff_mm, t.lift_mm), (self.width_mm, self.tall_mm), holds, at)

    def _weld(self, on: OnRail) -> CheckSpec:
        at = on.span.centre_mm
        if self._force <= 0:
            return self._unloaded("weld-group", at)
        w, h = self.width_mm / 2, self.tall_mm / 2
        corners = [(-w, -h), (w, -h), (w, h), (-w, h)]
        lines = [Line(*a, *b) for a, b in zip(corners, corners[1:] + corners[:1], strict=True)]
        worst, _ = group_load_n_per_mm(
            weld_group(lines), (self.out_n, self.along_n, self.up_n), (self.tabs.standoff_mm, 0.0, self.tabs.lift_mm)
        )
        steel = find_steel(self.steel_id)
        thinnest = min(self.thickness_mm, on.here.wall)
        q = line_capacity(
            self.weld_leg_mm, thinnest, min(steel.beside_weld_mpa, find_steel(on.rail.steel_id).beside_weld_mpa)
        )
        return CheckSpec(
            limit_id="weld-group",
            value=worst / q,
            formula="load / capacity",
            values={"load": worst, "capacity": q},
            words="N/mm at the worst corner of the foot, elastic vector method; capacity: throat or joined metal",
            station_mm=at,
            remedy="A bigger foot, a bigger leg, or less standoff.",
        )

    def _foot_bolts(self, bolts: BoltGroup, at: float) -> CheckSpec:
        if self._force <= 0:
            return self._unloaded("bolt-group", at)
        bolt, n = bolts.bolt(), 2 * bolts.per_end
        arm = max(self.width_mm - 2 * bolts.edge_mm, 1.0)
        tall = max(self.tall_mm - 2 * bolts.edge_mm, 1.0)
        turning = abs(self.along_n * self.tabs.lift_mm) / (n * max(arm, tall) / 2)
        shear = (self.along_n**2 + self.up_n**2) ** 0.5 / n + turning
        pull = max(self.out_n, 0.0) / n + self.tabs.standoff_mm * (
            abs(self.along_n) / (arm * bolts.per_end) + abs(self.up_n) / (tall * bolts.per_end)
        )
        pull += abs(self.out_n * self.tabs.lift_mm) / (tall * bolts.per_end)
        use = ((shear / bolt.shear_n()) ** 2 + (pull / bolt.tension_n()) ** 2) ** 0.5
        values = {"shear": shear, "shear_capacity": bolt.shear_n(), "pull": pull, "pull_capacity": bolt.tension_n()}
        return CheckSpec(
            limit_id="bolt-group",
            value=use,
            formula="((shear / shear_capacity) ** 2 + (pull / pull_capacity) ** 2) ** 0.5",
            values=values,
            words="worst bolt of the foot, N; half of the bolts in each row",
            station_mm=at,
            remedy="More or bigger bolts, or a longer foot.",
        )

    def _tab_checks(self, at: float) -> list[CheckSpec]:
        t, bolt = self.tabs, find_bolt(self.tabs.bolt_size, self.tabs.grade)
        d = bolt.size.diameter_mm
        rows = [
            CheckSpec(
                limit_id="edge-distance",
                about="tab",
                value=t.edge_mm / d,
                formula="edge / diameter",
                values={"edge": t.edge_mm, "diameter": d},
                words="link's hole to the tab's end",
                detail="tab",
                station_mm=at,
                remedy=f"{1.5 * d:.1f} mm or more.",
            )
        ]
        if self._force <= 0:
            return [*rows, *(self._unloaded(rule, at) for rule in ("link-bolt", "tab-hole", "tab-bending"))]
        planes = 2 if t.stiff else 1
        capacity = bolt.shear_n(planes)
        rows.append(
            CheckSpec(
                limit_id="link-bolt",
                value=self._force / capacity,
                formula="force / capacity",
                values={"force": self._force, "capacity": capacity},
                words=f"{planes} shear plane{'s' if planes > 1 else ''}",
                station_mm=at,
                remedy="A bigger bolt, or tabs stiff enough for two planes.",
            )
        )
        steel = find_steel(self.steel_id)
        hole = 2 * hole_n(bolt, t.edge_mm, t.thickness_mm, steel.ultimate_mpa)
        rows.append(
            CheckSpec(
                limit_id="tab-hole",
                value=self._force / hole,
                formula="force / capacity",
                values={"force": self._force, "capacity": hole},
                words="bearing or tear-out of both tabs",
                station_mm=at,
                remedy="Thicker tabs, or more edge.",
            )
        )
        off = max(t.standoff_mm - (self.gusset.leg_mm if self.gusset else 0.0), 0.0)
        lever = (off**2 + max(abs(t.lift_mm) - self.tall_mm / 2, 0.0) ** 2) ** 0.5
        modulus = 2 * t.thickness_mm * t.width_mm**2 / 6
        moment = (self.along_n**2 + self.up_n**2) ** 0.5 * lever
        rows.append(
            CheckSpec(
                limit_id="tab-bending",
                value=SAFETY_ON_YIELD * moment / (modulus * steel.yield_mpa),
                formula="1.5 * moment / (modulus * yield_)",
                values={"moment": moment, "modulus": modulus, "yield_": steel.yield_mpa},
                words="both tabs in their own plane, to the gusset where there is one",
                station_mm=at,
                same_as_stock=moment == 0,
                remedy="Wider or thicker tabs, less standoff, or a gusset.",
            )
        )
        return rows

    def details(self, on: OnRail) -> tuple[FatigueDetail, ...]:
        """The foot as an attachment on the web."""
        if self.fixing == "bolted":
            return ()
        return (
            FatigueDetail(
                about="foot",
                detail="attachment",
                start_mm=on.span.start_mm,
                end_mm=on.span.end_mm,
                words="foot welded on the rail",
            ),
        )

    def figures(self, on: OnRail) -> tuple[FigureSpec, ...]:
        """Torque of the foot's bolts and of the link's."""
        link = find_bolt(self.tabs.bolt_size, self.tabs.grade)
        rows = [
            FigureSpec(
                key="link-torque",
                name=f"Torque of the link's {link.size.id} {link.grade.id} bolt, dry",
                value=link.torque_nm("dry"),
                unit="N m",
                basis="T = 0.2 F d; tightened at ride height where the joint is rubber",
            )
        ]
        if self.fixing != "welded":
            rows += [
                f
                for f in bolt_figures(self.bolts or BoltGroup(), self.thickness_mm * self.tall_mm, self.steel_id)
                if f.key != "friction"
            ]
        return tuple(rows)

    def steps(self, datum: str) -> list[StepSpec]:
        """Place, tack, look and fix."""
        at = f"{self.place.offset_mm:+.1f} mm from {datum}, {self.height_mm:.1f} mm above the underside"
        rows = [
            StepSpec(
                key="place",
                phase="tack",
                title="Tack the bracket",
                detail=f"{at}; a bar through both sides' holes keeps them square and in line.",
                minutes=45,
                people=2,
                tools=("square", "bar", "welder"),
                cautions=(HOT,),
                hold=HoldPoint(kind="reading", ask="Middle of the bracket from its datum", reading="position"),
            )
        ]
        if self.fixing != "bolted":
            rows.append(
                StepSpec(
                    key="weld",
                    phase="weld" if self.weld_when == "after-all-checks" else "tack",
                    title="Weld the bracket",
                    detail="Joint and bushing out first; round the ends, no start or stop at a corner.",
                    minutes=45,
                    tools=("welder",),
                    cautions=(HOT,),
                )
            )
        if self.fixing != "welded":
            rows.append(
                StepSpec(
                    key="bolt",
                    phase="weld",
                    title="Bolt the bracket",
                    detail="Sleeves welded in, new bolts, torque marked.",
                    minutes=40,
                    tools=("torque wrench",),
                )
            )
        return rows

    def measured_fields(self) -> dict[str, str]:
        """What is read after welding."""
        return {"position": "place", "height": "height_mm"}

    def readings(self, datum: str) -> list[ReadingSpec]:
        """Place and height."""
        return [
            ReadingSpec(
                key="position",
                name="Middle of the bracket",
                planned_mm=self.place.offset_mm,
                limit_id="as-built",
                datum=datum,
            ),
            ReadingSpec(
                key="height",
                name="Height of the bracket's middle",
                planned_mm=self.height_mm,
                limit_id="as-built",
                datum="rail underside",
            ),
        ]
