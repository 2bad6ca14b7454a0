"""A link, spring or damper bracket on the rail: foot, two tabs, weld or bolts, gusset."""

import math
from typing import Annotated, ClassVar, Literal

import numpy as np
from pydantic import Field

from nodulant.base.model import Extra, Frozen, Size, Thickness
from nodulant.base.shown import Shown
from nodulant.frame.additions import Additions
from nodulant.frame.columns import RailColumns
from nodulant.frame.here import OnRail, Span
from nodulant.frame.ops.at_place import AtPlace
from nodulant.frame.ops.fresh import Piece, Setting
from nodulant.frame.ops.mounts.bolted import (
    BoltGroup,
    Spot,
    bolt_checks,
    bolt_figures,
    drill_step,
    foot_bolt_check,
    inside_steps,
    torque_words,
)
from nodulant.frame.ops.mounts.tabs import Tabs, carry_checks, fit_checks, tab_figures, tab_shape, unloaded
from nodulant.frame.ops.mounts.wall import wall_capacity_n, wall_check
from nodulant.frame.ops.operation import Adds
from nodulant.frame.ops.plates.weld_legs import leg_checks
from nodulant.frame.ops.welded import welded
from nodulant.frame.place import Place
from nodulant.geometry.hull import XY
from nodulant.geometry.outline import polygon, rectangle
from nodulant.materials import find_steel, line_capacity
from nodulant.materials.bolts import find_bolt
from nodulant.materials.weld import Line, group_load_n_per_mm, weld_group
from nodulant.parts.bought import Needed
from nodulant.parts.part import Face, Part, RoundHole, Seam, Turn, part_id
from nodulant.parts.solid import Solid, block
from nodulant.parts.specs import CheckSpec, FatigueDetail, FigureSpec, HoldPoint, ReadingSpec, StepSpec, reading
from nodulant.units.inline import as_length, as_place, as_thickness

Force = Annotated[float, Field(ge=-500_000, le=500_000)]


DRAIN_UP_MM = 12.0
"""A drain hole's centre above the foot's lower edge."""


class BracketGusset(Piece):
    """A brace from the tabs back to the rail, in line with the force."""

    leg_mm: Annotated[Size, Shown("Leg")] = 40.0
    thickness_mm: Annotated[Thickness, Shown("Thickness")] = 5.0


FOOT_BOLTS = BoltGroup(per_end=2)
"""A bolt in each corner of a foot, where nothing else is said."""


class Bracket(AtPlace):
    """A foot ``width_mm`` along the rail and ``tall_mm`` high with its centre ``height_mm`` above the underside.

    Forces at the link's bolt under limit load, N: along (rearward), up, and outward from the face.
    """

    adds: ClassVar[Adds] = Adds(
        "Bracket",
        "a link, spring or damper bracket with two tabs: welded, bolted or both, checked under the force you give",
    )
    follows: ClassVar[tuple[str, ...]] = (
        "place",
        "face",
        "height_mm",
        "along_n",
        "up_n",
        "out_n",
        "tabs.standoff_mm",
        "tabs.lift_mm",
    )
    kind: Literal["bracket"] = "bracket"
    place: Annotated[Place, Shown("Middle")]
    face: Annotated[
        Literal["outer", "inner"], Shown("On", choices={"outer": "the web's outside", "inner": "the open side"})
    ] = "outer"
    height_mm: Annotated[Size, Shown("Middle above the underside")]
    width_mm: Annotated[Size, Shown("Foot, along")] = 120.0
    tall_mm: Annotated[Size, Shown("Foot, high")] = 90.0
    thickness_mm: Annotated[Thickness, Shown("Foot, thick")] = 6.0
    steel_id: Annotated[str, Shown("Steel")] = "mild"
    tabs: Annotated[Tabs, Shown("Tabs")] = Tabs()
    gusset: Annotated[BracketGusset | None, Shown("Gusset")] = None
    drain_mm: Annotated[Extra, Shown("Drain hole (0: none)", kind="thickness")] = 0.0
    """Hole at the lowest corner of a bracket that closes itself; 0 for none."""
    fixing: Annotated[
        Literal["welded", "bolted", "welded-and-bolted"],
        Shown(
            "Fixed by",
            choices={"welded": "weld", "bolted": "bolts", "welded-and-bolted": "weld and bolts"},
            note="Default on a closed rail: welded, and bolted through sleeves.",
        ),
    ] = "welded"
    weld_leg_mm: Annotated[Thickness, Shown("Weld leg", when=("fixing", "welded", "welded-and-bolted"))] = 5.0
    bolts: Annotated[BoltGroup | None, Shown("Bolts of the foot", when=("fixing", "bolted", "welded-and-bolted"))] = (
        None
    )
    weld_when: Annotated[
        Literal["after-all-checks", "at-once"],
        Shown(
            "Welded",
            choices={"after-all-checks": "after everything was checked, tacked", "at-once": "at once"},
            note="Default: tacked until lock to lock and bump to droop are checked. At once only where its own set-up bolts fix the place.",
            when=("fixing", "welded", "welded-and-bolted"),
        ),
    ] = "after-all-checks"
    """Tacked until everything is looked at, or welded first where set-up bolts fix its place."""
    along_n: Annotated[Force, Shown("Force along, rearward")] = 0.0
    up_n: Annotated[Force, Shown("Force up")] = 0.0
    out_n: Annotated[Force, Shown("Force outward")] = 0.0

    @classmethod
    def fresh_values(cls, on: Setting) -> dict[str, object]:
        """Where it begins and what no default tells."""
        return {"place": on.inward(500), "height_mm": 70.0}

    def fresh_piece(self, at: str, choice: str, on: Setting) -> Frozen:
        """A bolt in each corner to begin with."""
        return FOOT_BOLTS if at == "bolts" else super().fresh_piece(at, choice, on)

    @property
    def half_mm(self) -> float:
        """Half of its foot."""
        return self.width_mm / 2

    def refuse(self, rail_height_mm: float, field: str) -> None:
        """Its bolts' holes lie in its foot."""
        if self.fixing != "welded":
            (self.bolts or FOOT_BOLTS).refuse_off_foot(self.width_mm, self.tall_mm, f"{field}/width_mm")

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
        corners, drilled = tab_shape(
            self.tabs, self._tab_foot(x, low), (low + self.tabs.standoff_mm, x + self.tabs.lift_mm)
        )
        tab = polygon([(across, out) for out, across in corners])
        holes = {"tabs": tuple(RoundHole(x_mm=h.y_mm, y_mm=h.x_mm, diameter_mm=h.diameter_mm) for h in drilled)}
        holes["foot"] = tuple(
            RoundHole(x_mm=x + along, y_mm=low + h / 2 + up, diameter_mm=self._bolt_hole_mm)
            for along, up in self._bolted
        )
        if self.drain_mm:
            holes["foot"] += (RoundHole(x_mm=x, y_mm=low + DRAIN_UP_MM, diameter_mm=self.drain_mm),)
        rows = [("foot", "Bracket foot", rectangle(x - w / 2, low, x + w / 2, low + h), self.thickness_mm)]
        rows.append(
            ("tabs", "Bracket tab" if self.tabs.single else "Bracket tab, two of it", tab, self.tabs.thickness_mm)
        )
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
                face=face if role == "foot" else "across",
                outline=outline,
                thickness_mm=t,
                steel_id=self.steel_id,
                turn=turn,
                holes=holes.get(role, ()),
                count=self.tabs.count if role == "tabs" else 1,
            )
            for role, name, outline, t in rows
        ]

    def solids(self, on: OnRail) -> tuple[Solid, ...]:
        """Foot and tabs."""
        away = 1.0 if on.rail.opens == "inward" else -1.0
        outside = away if self.face == "outer" else -away
        face = on.rail.web_y_mm - (0.0 if self.face == "outer" else away * on.here.width)
        x, z = on.span.centre_mm, on.here.underside + self.height_mm
        t, thick, reach = self.tabs, self.thickness_mm, self.tabs.standoff_mm + self.tabs.edge_mm
        rows = [block(self.name, "frame", (x, face + outside * thick / 2, z), (self.width_mm, thick, self.tall_mm))]
        apart = (t.inside_mm + t.thickness_mm) / 2
        tall = abs(t.lift_mm) + t.width_mm
        for dx in (0.0,) if t.single else (-apart, apart):
            middle = (x + dx, face + outside * reach / 2, z + t.lift_mm / 2)
            rows.append(block(self.name, "frame", middle, (t.thickness_mm, reach, tall)))
        return tuple(rows)

    def seams(self, on: OnRail, parts: list[Part]) -> list[Seam]:
        """Both sides of every tab and of the gusset on the foot; round the foot, where it is welded."""
        foot = next(p for p in parts if p.role == "foot")
        out = [] if self.fixing == "bolted" else [self._seam(f"rail/{on.side}", foot, foot.outline.length_mm())]
        stands = {
            "tabs": 2 * self.tabs.count * min(self.tabs.width_mm, self.tall_mm),
            "gusset": 0.0 if self.gusset is None else 4 * self.gusset.leg_mm,
        }
        return out + [self._seam(foot.id, p, stands[p.role]) for p in parts if p.role in stands]

    def _seam(self, to: str, part: Part, long_mm: float) -> Seam:
        return Seam(
            part_a=to, part_b=part.id, kind="fillet", leg_mm=self.weld_leg_mm, path=part.outline, long_mm=long_mm
        )

    @property
    def _bolted(self) -> tuple[Spot, ...]:
        """Bolts of the foot from its middle; none where it is welded only."""
        return () if self.fixing == "welded" else (self.bolts or FOOT_BOLTS).on_foot(self.width_mm, self.tall_mm)

    @property
    def _bolt_hole_mm(self) -> float:
        """Through the rail: the sleeve's outside where there is one, the bolt's clearance elsewhere."""
        bolts = self.bolts or FOOT_BOLTS
        return bolts.hole_mm()

    @property
    def drills(self) -> bool:
        """Its bolts go through the rail."""
        return bool(self._bolted)

    def additions(self, span: Span, rail: RailColumns, carried: frozenset[str], boxed: bool) -> Additions:
        """The holes of its bolts in the rail."""
        spots = [(span.centre_mm + along, self.height_mm + up) for along, up in self._bolted]
        holes = (self.bolts or FOOT_BOLTS).holes_at(spots, boxed or rail.closed)
        return Additions(np.zeros_like(rail.x), (), holes=holes)

    def marks(self, span: Span) -> tuple[float, ...]:
        """Where its bolts go through the rail."""
        return tuple(sorted({span.centre_mm + along for along, _ in self._bolted}))

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
            bolts = self.bolts or FOOT_BOLTS
            rows += [
                self._foot_bolts(bolts, at),
                *bolt_checks(bolts, self.thickness_mm, self.steel_id, on),
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

    def _tab_foot(self, x: float, low: float) -> list[XY]:
        """The edge of a tab that is welded to the foot: out of the face, and along the row."""
        half = min(self.tabs.width_mm, self.tall_mm) / 2
        return [(low, x - half), (low, x + half)]

    def _wall(self, on: OnRail) -> CheckSpec:
        at, t = on.span.centre_mm, self.tabs
        if self._force <= 0:
            return unloaded("rail-wall", at)
        steel = find_steel(on.rail.steel_id)
        worth = steel.beside_weld_mpa if self.welded else steel.yield_mpa
        holds = wall_capacity_n(on.here.wall, on.here.height, self.tall_mm, self.width_mm, worth)
        force = (self.out_n, self.along_n, self.up_n)
        return wall_check(force, (t.standoff_mm, t.lift_mm), (self.width_mm, self.tall_mm), holds, at)

    def _weld(self, on: OnRail) -> CheckSpec:
        at = on.span.centre_mm
        if self._force <= 0:
            return unloaded("weld-group", at)
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
            return unloaded("bolt-group", at)
        force, arm = (self.out_n, self.along_n, self.up_n), (self.tabs.standoff_mm, self.tabs.lift_mm)
        return foot_bolt_check(bolts, (self.width_mm, self.tall_mm), force, arm, at)

    def _tab_checks(self, at: float) -> list[CheckSpec]:
        t = self.tabs
        off = max(t.standoff_mm - (self.gusset.leg_mm if self.gusset else 0.0), 0.0)
        lever = (off**2 + max(abs(t.lift_mm) - self.tall_mm / 2, 0.0) ** 2) ** 0.5
        moment = (self.along_n**2 + self.up_n**2) ** 0.5 * lever
        return [*fit_checks(t, at), *carry_checks(t, self.steel_id, self._force, moment, at)]

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
        rows = [*tab_figures(self.tabs)]
        if self.fixing != "welded":
            area, across = self.thickness_mm * self.tall_mm, on.here.closed_width
            bolted = bolt_figures(self.bolts or FOOT_BOLTS, area, self.steel_id, across)
            rows += [f for f in bolted if f.key != "friction"]
        return tuple(rows)

    def steps(self, datum: str) -> list[StepSpec]:
        """Place, tack, look and fix."""
        at = f"{as_place(self.place.offset_mm)} {datum}, {as_length(self.height_mm)} above the underside"
        hold = HoldPoint(kind="reading", ask="Middle of the bracket from its datum", reading="position")
        rows = []
        if self.fixing != "welded":
            clamped = StepSpec(
                key="place" if self.fixing == "bolted" else "clamp",
                phase="mark",
                title="Clamp the bracket where it goes",
                detail=f"{at}; a bar through both sides' holes keeps them square and in line; its foot is the drill jig.",
                minutes=40,
                people=2,
                tools=("clamps", "square", "bar"),
                hold=hold,
            )
            rows.append(clamped)
        if self.fixing != "bolted":
            tacked = welded(
                key="place",
                phase="tack",
                title="Tack the bracket",
                detail=f"{at}; a bar through both sides' holes keeps them square and in line. Joint in place with a {as_thickness(self.tabs.shim_mm)} shim on each side: the weld pulls the tabs in.",
                minutes=45,
                people=2,
                with_tools=("square", "bar"),
                hold=hold if self.fixing == "welded" else None,
                acts=("mocks-up",),
            )
            rows.append(tacked)
        if self.fixing != "bolted":
            rows.append(
                welded(
                    key="weld",
                    phase="weld" if self.weld_when == "after-all-checks" else "tack",
                    title="Weld the bracket",
                    detail="Joint and bushing out first; round the ends, no start or stop at a corner.",
                    minutes=45,
                    acts=("welds", "welds-mount") if self.weld_when == "after-all-checks" else (),
                )
            )
        if self.fixing != "welded":
            bolts = self.bolts or FOOT_BOLTS
            rows.append(drill_step(bolts, len(self._bolted), at))
            rows += inside_steps(bolts, len(self._bolted))
            rows.append(
                StepSpec(
                    key="bolt",
                    phase="weld",
                    title="Bolt the bracket",
                    detail=f"{torque_words(bolts)}, from the middle outwards in two rounds, marked when done.",
                    minutes=40,
                    tools=("torque wrench",),
                )
            )
        return rows

    def bought(self, on: OnRail) -> tuple[Needed, ...]:
        """Bolts of the foot, and the joint's."""
        joint = self.tabs.bought(self.name)
        if self.fixing == "welded":
            return (joint,)
        bolts = self.bolts or FOOT_BOLTS
        count = len(bolts.on_foot(self.width_mm, self.tall_mm))
        return (joint, *bolts.bought(f"{self.name}, foot", count, self.thickness_mm, on))

    def measured_fields(self) -> dict[str, str]:
        """What is read after welding."""
        return {"position": "place", "height": "height_mm"}

    def readings(self, datum: str) -> list[ReadingSpec]:
        """Place and height."""
        return [
            reading("position", "Middle of the bracket", self.place.offset_mm, datum),
            reading("height", "Height of the bracket's middle", self.height_mm, "rail underside"),
            reading(
                "between-tabs",
                "Between the tabs, welded",
                self.tabs.joint_mm + self.tabs.shim_mm,
                "inside to inside; the joint has to go in by hand",
                "as-built-tabs",
            ),
        ]
