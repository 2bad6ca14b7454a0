"""Repair: rusted metal cut back to sound metal, pieces let in wall by wall, a mount's hole drilled again."""

import math
from dataclasses import replace
from typing import Annotated, ClassVar, Literal, Self

import numpy as np

from nodulant.base.arrays import Columns
from nodulant.base.errors import InputError
from nodulant.base.model import Extra, Id, Size, Thickness
from nodulant.base.shown import Shown
from nodulant.frame.additions import Additions, Patched, Plate
from nodulant.frame.columns import RailColumns, rail_at
from nodulant.frame.here import OnRail, Span
from nodulant.frame.ops.fresh import Piece, Setting
from nodulant.frame.ops.operation import Adds
from nodulant.frame.ops.ranged import Ranged
from nodulant.frame.ops.through.splice_plates import DETAIL, ButtWeld
from nodulant.frame.ops.welded import thickness_reading, welded
from nodulant.frame.ops.words import BUTTS
from nodulant.geometry import Outline
from nodulant.geometry.outline import polygon, rectangle
from nodulant.materials import find_steel
from nodulant.parts.cautions import DUST, HOT, WHEEL
from nodulant.parts.part import Face, Part, Seam, part_id
from nodulant.parts.specs import CheckSpec, FatigueDetail, FigureSpec, HoldPoint, ReadingSpec, StepSpec, reading
from nodulant.units.inline import as_length, as_thickness

LEAST_MM = 10.0
"""Height that is left of a piece that can be let in (Nodulant default)."""


class MountHole(Piece):
    """The hole of a mount in the patch: which feature it serves, its height above the underside and its size, mm."""

    feature_id: Annotated[Id, Shown("Mount")]
    height_mm: Annotated[Size, Shown("Its hole above the underside")]
    diameter_mm: Annotated[Size, Shown("Its hole", kind="thickness")]

    @classmethod
    def fresh(cls, on: Setting) -> Self:
        """A usual one to begin with."""
        return cls(feature_id=on.survey.datum.feature_id, height_mm=60.0, diameter_mm=13.0)


class Repair(Ranged):
    """Rusted metal of the rail's walls from ``start`` to ``end`` cut out, pieces of ``thickness_mm`` let in.

    The web's piece lies ``low_mm`` above the underside and ``high_mm`` below the top; flanges and the far
    wall of a closed rail get pieces of their own where they are wanted. A round tube gets one piece all round.
    """

    adds: ClassVar[Adds] = Adds("Rust repair", "cut back to sound metal, patch let in, the mount's hole drilled again")
    kind: Literal["repair"] = "repair"
    thickness_mm: Annotated[Thickness, Shown("Thickness")]
    steel_id: Annotated[str, Shown("Steel")] = "mild"
    low_mm: Annotated[Extra, Shown("Web's piece above the underside")] = 0.0
    high_mm: Annotated[Extra, Shown("Web's piece below the top")] = 0.0
    top: Annotated[bool, Shown("Top flange")] = True
    bottom: Annotated[bool, Shown("Bottom flange")] = True
    far: Annotated[bool, Shown("Second wall, where there is one")] = True
    """The second upright wall, where the rail has one."""
    weld: Annotated[ButtWeld, Shown("Butt weld", choices=BUTTS)] = "two-sided-ground"
    mount: Annotated[MountHole | None, Shown("Mount in the patch")] = None

    @classmethod
    def fresh_values(cls, on: Setting) -> dict[str, object]:
        """Where it begins and what no default tells."""
        return {**on.between(500, 350), "thickness_mm": on.plate(5.0)}

    def refuse(self, rail_height_mm: float, field: str) -> None:
        """The web's piece has some height."""
        left = rail_height_mm - self.low_mm - self.high_mm
        if left < LEAST_MM:
            raise InputError(
                "the web's piece has no height",
                field=f"{field}/low_mm",
                found=f"{as_length(left)} high",
                acceptable=f"edges that leave {as_length(LEAST_MM)} or more of the rail's {as_length(rail_height_mm)}",
            )

    def roles(self) -> tuple[str, ...]:
        """The web's piece, and those of the walls that are wanted."""
        wanted = (("patch-far", self.far), ("patch-top", self.top), ("patch-bottom", self.bottom))
        return ("patch", *(role for role, there in wanted if there))

    def replaces(self, span: Span, x_mm: float) -> bool:
        """Between its ends."""
        return span.start_mm <= x_mm <= span.end_mm

    def rework(self, rail: RailColumns, span: Span, carried: frozenset[str]) -> RailColumns:
        """A round tube's wall all round, once it is welded in."""
        if "patch" not in carried or not rail.round:
            return rail
        inside = (rail.x >= span.start_mm) & (rail.x <= span.end_mm)
        patch = find_steel(self.steel_id)
        worth = self.thickness_mm * min(1.0, patch.yield_mpa / rail.steel.yield_reference_mpa)
        return replace(rail, wall=np.where(inside, worth, rail.wall))

    def additions(self, span: Span, rail: RailColumns, carried: frozenset[str], boxed: bool) -> Additions:
        """Its pieces as walls, welded all round: they carry from end to end."""
        none = np.zeros_like(rail.x)
        if rail.round:
            return Additions(none, ())
        inside = ((rail.x >= span.start_mm) & (rail.x <= span.end_mm)).astype(float)
        t, h = self.thickness_mm, rail.height
        bounds: dict[Patched, tuple[Columns, Columns]] = {
            "patch": (none + self.low_mm, h - self.high_mm),
            "patch-far": (none + self.low_mm, h - self.high_mm),
            "patch-top": (h - t, h),
            "patch-bottom": (none, none + t),
        }
        steel, one = find_steel(self.steel_id), np.ones_like(none)
        ends = (span.start_mm, span.end_mm)
        return Additions(
            none,
            tuple(
                Plate(role, t, inside, low, high, steel, one, none, closure=inside, kinks=ends)
                for role, (low, high) in bounds.items()
                if role in carried
            ),
        )

    def parts(self, on: OnRail) -> list[Part]:
        """One piece a wall."""
        web, wide = self._web(on), rectangle(on.span.start_mm, 0.0, on.span.end_mm, on.here.width)
        pieces: list[tuple[str, str, Face, Outline]] = [("patch", "Patch, web", "outer", web)]
        if self.far and on.rail.closed and not on.here.round:
            pieces.append(("patch-far", "Patch, far wall", "inner", web))
        if self.top and not on.here.round:
            pieces.append(("patch-top", "Patch, top flange", "top", wide))
        if self.bottom and not on.here.round:
            pieces.append(("patch-bottom", "Patch, bottom flange", "bottom", wide))
        return [
            Part(
                id=part_id(self.id, role, on.side),
                operation=self.id,
                role=role,
                side=on.side,
                name=name,
                face=face,
                outline=outline,
                thickness_mm=self.thickness_mm,
                steel_id=self.steel_id,
            )
            for role, name, face, outline in pieces
        ]

    def _web(self, on: OnRail) -> Outline:
        if on.here.round:
            girth = math.pi * (on.here.height - self.thickness_mm)
            return rectangle(on.span.start_mm, on.here.underside, on.span.end_mm, on.here.underside + girth)
        return along_rail(on, self.low_mm, self.high_mm)

    def seams(self, on: OnRail, parts: list[Part]) -> list[Seam]:
        """Butt all round."""
        return [
            Seam(
                part_a=f"rail/{on.side}",
                part_b=p.id,
                kind="butt",
                leg_mm=self.thickness_mm,
                path=p.outline,
                ground=True,
            )
            for p in parts
        ]

    def checks(self, on: OnRail) -> tuple[CheckSpec, ...]:
        """At least the mount's own thickness; the hole away from the patch's ends."""
        rows = [
            CheckSpec(
                limit_id="patch",
                value=self.thickness_mm / on.here.wall,
                formula="patch / wall",
                values={"patch": self.thickness_mm, "wall": on.here.wall},
                words="wall: the rail as it was sound",
                station_mm=on.span.centre_mm,
                same_as_stock=abs(self.thickness_mm - on.here.wall) < 1e-9,
                remedy="Patch with at least the rail's own thickness.",
            ),
        ]
        if self.mount:
            d = self.mount.diameter_mm
            near = min(self.mount.height_mm, on.here.height - self.mount.height_mm)
            rows.append(
                CheckSpec(
                    limit_id="hole-edge",
                    about="mount",
                    value=near / d,
                    formula="distance / diameter",
                    values={"distance": near, "diameter": d},
                    words="centre of the mount's hole to the nearer edge of the web",
                    detail="mount",
                    station_mm=on.span.centre_mm,
                    remedy="Check the mount's height again: the old hole is gone.",
                )
            )
        return tuple(rows)

    def details(self, on: OnRail) -> tuple[FatigueDetail, ...]:
        """Its butts."""
        return tuple(
            FatigueDetail(
                about="butt",
                detail=DETAIL[self.weld],
                start_mm=x - 1,
                end_mm=x + 1,
                words=f"{self.weld.replace('-', ' ')} butt of the patch",
            )
            for x in (on.span.start_mm, on.span.end_mm)
        )

    def figures(self, on: OnRail) -> tuple[FigureSpec, ...]:
        """Length cut back."""
        return (
            FigureSpec(
                key="length",
                name="Cut back to sound metal over",
                value=on.span.end_mm - on.span.start_mm,
                unit="mm",
                basis="sound: rings, no pits deeper than a tenth of the wall",
            ),
        )

    def steps(self, datum: str) -> list[StepSpec]:
        """Note the mount, cut back, patch, drill again."""
        rows = [
            StepSpec(
                key="note",
                phase="survey",
                title="Note the mount before it goes",
                detail=f"Position from {datum}, height, hole and stack of shims; a gauge tacked to sound metal keeps them.",
                minutes=30,
                tools=("tape", "depth gauge"),
            ),
            StepSpec(
                key="cut",
                phase="cut",
                title="Cut back to sound metal",
                detail="Until it rings and the edge is bright all round; body held up beside the mount.",
                minutes=90,
                tools=("cut-off wheel", "hammer"),
                cautions=(WHEEL, DUST, HOT),
                hides="the old mount",
                acts=("cuts",),
            ),
            welded(
                key="patch",
                phase="weld",
                title="Let the patch in",
                detail=f"{as_thickness(self.thickness_mm)}, edges bevelled, {self.weld.replace('-', ' ')} butt, short beads.",
                minutes=120,
                hides="the rail's inside",
                acts=("shuts", "welds"),
            ),
        ]
        if self.mount:
            rows.append(
                StepSpec(
                    key="hole",
                    phase="finish",
                    title="Drill the mount's hole again",
                    detail=f"{as_thickness(self.mount.diameter_mm)}, {as_length(self.mount.height_mm)} above the underside, from the gauge.",
                    minutes=20,
                    tools=("drill",),
                    cautions=(DUST,),
                    hold=HoldPoint(kind="reading", ask="Height of the mount's hole", reading="mount-height"),
                )
            )
        return rows

    def measured_fields(self) -> dict[str, str]:
        """What is read after welding."""
        return {"patch-thickness": "thickness_mm"}

    def readings(self, datum: str) -> list[ReadingSpec]:
        """Thickness and the mount's height."""
        rows = [thickness_reading("patch", "Patch", self.thickness_mm)]
        if self.mount:
            rows.append(reading("mount-height", "Height of the mount's hole", self.mount.height_mm, "rail underside"))
        return rows


def along_rail(on: OnRail, low_mm: float = 0.0, high_mm: float = 0.0) -> Outline:
    """The rail's side between the ends of an operation, its edges as surveyed, less a strip below and above."""
    start, end = on.span.start_mm, on.span.end_mm
    x = [start, *(s.x_mm for s in on.rail.stations if start < s.x_mm < end), end]
    levels = [rail_at(on.rail, at)[:2] for at in x]
    low = [(at, z + low_mm) for at, (z, _) in zip(x, levels, strict=True)]
    high = [(at, z + h - high_mm) for at, (z, h) in zip(x, levels, strict=True)]
    return polygon([*low, *reversed(high)])
