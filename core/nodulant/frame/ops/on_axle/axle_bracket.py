"""Tabs on the axle's tube for a link, damper, strap, or the lower end of a spring."""

import math
from typing import Annotated, ClassVar, Literal

from nodulant.base.model import Extra
from nodulant.base.shown import Shown
from nodulant.frame.here import OnRail
from nodulant.frame.ops.fresh import Setting
from nodulant.frame.ops.mounts.tabs import Tabs, carry_checks, fit_checks, tab_figures, tab_shape
from nodulant.frame.ops.on_axle.axle_work import AxleWork
from nodulant.frame.ops.operation import Adds
from nodulant.geometry.hull import XY
from nodulant.geometry.outline import polygon, rectangle
from nodulant.parts.bought import Needed
from nodulant.parts.cautions import HOT
from nodulant.parts.part import Part, RoundHole, Seam, part_id
from nodulant.parts.solid import Solid
from nodulant.parts.specs import CheckSpec, FigureSpec, HoldPoint, ReadingSpec, StepSpec, reading
from nodulant.units.inline import as_above, as_length, as_place, as_thickness

WIDEST = 0.9
"""Of the tube's radius: half a tab stands no wider on it."""
SADDLE = 12
"""Straight pieces of a tab's saddle."""
HOLDS = {
    "link": "link",
    "coilover": "coilover",
    "damper": "damper",
    "strap": "limit strap",
}


def _outside(p: XY, radius: float) -> XY:
    """A corner that the tube trims, moved out to the tube."""
    away = math.hypot(*p)
    return p if away >= radius or away < 1e-9 else (p[0] * radius / away, p[1] * radius / away)


class AxleBracket(AxleWork):
    """Tabs towards a joint ``z_mm`` above and ``x_mm`` behind the hubs: saddled on the tube, or upright on a truss."""

    adds: ClassVar[Adds] = Adds(
        "Bracket on the axle", "tabs on the axle's tube or on a truss, for a link, coilover, damper or strap"
    )
    follows: ClassVar[tuple[str, ...]] = (
        "place",
        "x_mm",
        "y_mm",
        "z_mm",
        "stands_on",
        "base_mm",
        "along_n",
        "up_n",
        "out_n",
        "tube_mm",
        "tube_wall_mm",
        "housing",
        "housing_half_mm",
    )
    kind: Literal["axle-bracket"] = "axle-bracket"
    holds: Annotated[
        Literal["link", "coilover", "damper", "strap"],
        Shown(
            "Holds",
            choices={"link": "a link", "coilover": "a coilover", "damper": "a damper", "strap": "a limit strap"},
        ),
    ] = "link"
    tabs: Annotated[Tabs, Shown("Tabs", order=2)] = Tabs()
    stands_on: Annotated[
        Literal["tube", "truss"], Shown("Stands on", choices={"tube": "the tube", "truss": "a truss"})
    ] = "tube"
    base_mm: Annotated[Extra, Shown("Truss's cover above the hubs", when=("stands_on", "truss"))] = 0.0
    """Height of the truss's cover above the hubs, where they stand on one."""
    brace: Annotated[bool, Shown("A plate between the tabs")] = True
    """A plate between the two tabs, out of the joint's way."""

    @classmethod
    def fresh_values(cls, on: Setting) -> dict[str, object]:
        """Where it begins and what no default tells."""
        return {**super().fresh_values(on), "y_mm": float(round(on.inner_mm)), "z_mm": -80.0}

    def roles(self) -> tuple[str, ...]:
        """Tabs, and the plate between them."""
        return ("axle-tabs", "axle-brace") if self.brace and not self.tabs.single else ("axle-tabs",)

    @property
    def reach_mm(self) -> float:
        """From the tube's middle to the joint."""
        return max(math.hypot(self.x_mm, self.z_mm), self.tube_mm / 2 + 1.0)

    @property
    def on_truss(self) -> bool:
        """Upright on a truss's cover."""
        return self.stands_on == "truss"

    @property
    def free_mm(self) -> float:
        """From what they stand on to the joint."""
        return max(self.z_mm - self.base_mm, 1.0) if self.on_truss else self.reach_mm - self.tube_mm / 2

    def inner_mm(self) -> float:
        """Inner tab's inner face."""
        return abs(self.y_mm) - self.tabs.inside_mm / 2 - self.tabs.thickness_mm

    def _foot(self) -> tuple[float, list[XY]]:
        """Half width on the tube, and the saddle's points (out, across), out from the tube's middle."""
        r = self.tube_mm / 2
        half = min(self.tabs.width_mm / 2, WIDEST * r)
        turns = [math.asin(half / r) * (2 * i / SADDLE - 1) for i in range(SADDLE + 1)]
        return half, [(r * math.cos(t), r * math.sin(t)) for t in turns]

    def _shape(self) -> tuple[list[XY], tuple[RoundHole, ...]]:
        """Corners of a tab and its holes, x rearward and z up from the tube's middle."""
        if self.on_truss:
            half = self.tabs.width_mm / 2
            feet = [(self.x_mm - half, self.base_mm), (self.x_mm + half, self.base_mm)]
            return tab_shape(self.tabs, feet, (self.x_mm, self.base_mm + self.free_mm))
        turn = math.atan2(self.z_mm, self.x_mm) if self.reach_mm > self.tube_mm / 2 + 1.0 else math.pi / 2
        c, s = math.cos(turn), math.sin(turn)
        _, saddle = self._foot()
        placed = [(u * c - v * s, u * s + v * c) for u, v in saddle]
        joint = (self.reach_mm * c, self.reach_mm * s)
        corners, holes = tab_shape(self.tabs, [placed[0], placed[-1]], joint)
        if placed[0] not in corners:
            return corners, holes
        first = corners.index(placed[0])
        ring = corners[first:] + corners[:first]
        # counter-clockwise the hull comes back over its straight foot: there it follows the tube instead
        whole = [*ring, *reversed(placed[1:-1])] if ring[-1] == placed[-1] else ring
        return [_outside(p, self.tube_mm / 2) for p in whole], holes

    def parts(self, on: OnRail) -> list[Part]:
        """A tab (two of it), and the brace between."""
        corners, holes = self._shape()
        x = self._axle_x(on)
        rows = [("axle-tabs", "Axle tab" if self.tabs.single else "Axle tab, two of it", corners, holes)]
        out = [
            self._part(on, role, name, [(x + u, v) for u, v in shape], tuple(h.moved(x, 0.0) for h in drilled))
            for role, name, shape, drilled in rows
        ]
        out[0] = out[0].model_copy(update={"count": self.tabs.count, "thickness_mm": self.tabs.thickness_mm})
        if "axle-brace" in self.roles():
            free = max(self.free_mm - self.tabs.edge_mm, 5.0)
            plate = rectangle(x, 0.0, x + self.tabs.inside_mm, free)
            out.append(self._part(on, "axle-brace", "Plate between the tabs", [(v.x, v.y) for v in plate.vertices], ()))
        return out

    def _axle_x(self, on: OnRail) -> float:
        return on.span.centre_mm

    def _part(self, on: OnRail, role: str, name: str, corners: list[XY], holes: tuple[RoundHole, ...]) -> Part:
        return Part(
            id=part_id(self.id, role, on.side),
            operation=self.id,
            role=role,
            side=on.side,
            name=name,
            face="axle",
            outline=polygon(corners),
            thickness_mm=self.thickness_mm,
            steel_id=self.steel_id,
            holes=holes,
        )

    def seams(self, on: OnRail, parts: list[Part]) -> list[Seam]:
        """Fillets of the tabs on the tube."""
        axle = f"axle/{on.side}"
        return [
            Seam(part_a=axle, part_b=p.id, kind="fillet", leg_mm=self.weld_leg_mm, path=p.outline, welded_share=0.3)
            for p in parts
            if p.role == "axle-tabs"
        ] + [
            Seam(
                part_a=parts[0].id,
                part_b=p.id,
                kind="fillet",
                leg_mm=self.weld_leg_mm,
                path=p.outline,
                welded_share=0.5,
            )
            for p in parts
            if p.role == "axle-brace"
        ]

    def checks(self, on: OnRail) -> tuple[CheckSpec, ...]:
        """Cast middle, fillets on the tube, tabs, bolt and room."""
        t, at = self.tabs, on.span.centre_mm
        half, _ = self._foot()
        lever = self.reach_mm - math.sqrt((self.tube_mm / 2) ** 2 - half**2)
        turn = math.atan2(self.z_mm, self.x_mm)
        if self.on_truss:
            half, lever, turn = t.width_mm / 2, self.free_mm, math.pi / 2
        away = self.along_n * math.cos(turn) + self.up_n * math.sin(turn)
        around = -self.along_n * math.sin(turn) + self.up_n * math.cos(turn)
        apart = (t.inside_mm + t.thickness_mm) / 2
        spots = [
            (s * apart + d, 0.0)
            for s in ((0,) if t.single else (-1, 1))
            for d in (-t.thickness_mm / 2, t.thickness_mm / 2)
        ]
        weld = self.tube_weld(on, spots, 2 * half, lever, (away, self.out_n, around))
        toe = self.free_mm - t.bolt().size.hole_mm / 2
        room = CheckSpec(
            limit_id="hole-to-weld",
            value=toe,
            formula="free - hole / 2",
            values={"free": self.free_mm, "hole": t.bolt().size.hole_mm},
            words=f"edge of the joint's hole to the weld on the {self.stands_on}",
            station_mm=at,
            remedy="A joint further from the tube, or a smaller bolt.",
        )
        return (
            *(() if self.on_truss else (self.cast_check(on),)),
            weld,
            *self.legs(on),
            room,
            *fit_checks(t.model_copy(update={"standoff_mm": max(self.free_mm, 1.0)}), at),
            *carry_checks(t, self.steel_id, self.force_n, abs(around) * lever, at),
        )

    def figures(self, on: OnRail) -> tuple[FigureSpec, ...]:
        """Torque, bolt, spacing."""
        return tab_figures(self.tabs)

    def solids(self, on: OnRail) -> tuple[Solid, ...]:
        """Both tabs in their true side view."""
        corners, _ = self._shape()
        x, z = [c[0] for c in corners], [c[1] for c in corners]
        apart = (self.tabs.inside_mm + self.tabs.thickness_mm) / 2
        t, sign = self.tabs.thickness_mm, 1.0 if self.y_mm >= 0 else -1.0
        middles = [self.y_mm + sign * s * apart for s in ((0,) if self.tabs.single else (-1, 1))]
        return tuple(
            Solid(
                name=self.name,
                on="axle",
                x=[min(x), max(x)],
                y=[y - t / 2, y + t / 2],
                z=[min(z), max(z)],
                side=[list(c) for c in corners],
            )
            for y in middles
        )

    def steps(self, datum: str) -> list[StepSpec]:
        """Tack with the joint in, look, weld in short beads."""
        what = HOLDS[self.holds]
        at = f"{as_place(self.x_mm)} the hubs, {as_above(self.z_mm)} them, {as_length(abs(self.y_mm))} from the centre"
        return [
            StepSpec(
                key="tack",
                phase="tack",
                title=f"Tack the axle's {what} tabs",
                detail=f"{at}. Axle at ride height, pinion at its angle; joint in place, a {as_thickness(self.tabs.shim_mm)} shim on each side.",
                minutes=40,
                people=2,
                tools=("square", "angle gauge", "welder"),
                cautions=(HOT, "Tacks never hold the vehicle over a person."),
                hold=HoldPoint(kind="reading", ask="Joint's bolt from the centre plane", reading="across"),
                acts=("mocks-up",),
            ),
            StepSpec(
                key="weld",
                phase="weld",
                title=f"Weld the axle's {what} tabs",
                detail="Shafts and seals out, tube held straight by a bar through its ends; short beads on both sides by turns, cooling between: heat bends the tube towards the weld.",
                minutes=60,
                tools=("welder", "straight bar"),
                cautions=(HOT, "Oil and grease out of the housing first."),
                hides="the tube under the tabs",
                acts=("welds", "welds-mount", "welds-axle"),
            ),
        ]

    def bought(self, on: OnRail) -> tuple[Needed, ...]:
        """The joint's bolt."""
        return (self.tabs.bought(self.name),)

    def measured_fields(self) -> dict[str, str]:
        """What is read after welding."""
        return {"across": "y_mm", "joint-up": "z_mm", "joint-along": "x_mm"}

    def readings(self, datum: str) -> list[ReadingSpec]:
        """Place across, over and behind the hubs, and how the tabs are turned on the tube."""
        turn = math.degrees(math.atan2(self.z_mm, self.x_mm))
        zero = "the pinion at its angle: the finder is zeroed on the rail"
        return [
            reading("across", "Joint's bolt from the centre plane", self.y_mm, "centre of the axle"),
            reading("joint-up", "Joint's bolt above the hubs", self.z_mm, "the axle's middle line"),
            reading("joint-along", "Joint's bolt behind the hubs", self.x_mm, "the axle's middle line, plumb"),
            reading("turn", "Tabs turned on the tube", turn, zero, "as-built-angle", "deg"),
        ]
