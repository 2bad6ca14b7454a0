"""A fish plate or doubler on one face of the rail."""

from typing import Annotated, ClassVar, Literal

import numpy as np
from pydantic import Field

from nodulant.base.errors import InputError
from nodulant.base.model import Extra, Size, Thickness
from nodulant.base.shown import Shown
from nodulant.frame.additions import Additions, Plate
from nodulant.frame.columns import RailColumns
from nodulant.frame.here import OnRail, Span
from nodulant.frame.ops.fresh import Piece, Setting
from nodulant.frame.ops.operation import Adds
from nodulant.frame.ops.plates.in_lengths import butts_between, in_lengths, seam_mm
from nodulant.frame.ops.plates.plate_welds import line_n_per_mm, taper_mm
from nodulant.frame.ops.plates.weld_legs import leg_checks
from nodulant.frame.ops.ranged import Ranged
from nodulant.frame.ops.welded import thickness_reading, welded
from nodulant.frame.ops.words import ENDS
from nodulant.geometry import Outline
from nodulant.geometry.outline import polygon
from nodulant.materials import find_steel
from nodulant.materials.weld import least_plug_hole_mm, plug_n
from nodulant.parts.part import EndShape, Part, Seam, part_id
from nodulant.parts.specs import CheckSpec, FatigueDetail, FigureSpec, ReadingSpec, StepSpec
from nodulant.sections.development import Development, Reach, development
from nodulant.units.inline import as_length, as_thickness


class Plugs(Piece):
    """Plug welds through the plate, spread over it."""

    count: Annotated[int, Field(ge=1, le=200), Shown("How many")] = 4
    hole_mm: Annotated[Size, Shown("Hole", kind="thickness")] = 16.0


class Doubler(Ranged):
    """A plate on the web's outside, over the open side, or on a flange, from ``start`` to ``end``.

    On a side its edges lie ``low_mm`` above the underside and ``high_mm`` below the top.
    """

    adds: ClassVar[Adds] = Adds("Plate", "a fish plate or doubler on one face")
    kind: Literal["plate"] = "plate"
    face: Annotated[
        Literal["outer", "inner", "top", "bottom"],
        Shown(
            "Face",
            choices={"outer": "web, outside", "inner": "open side", "top": "top flange", "bottom": "bottom flange"},
        ),
    ] = "outer"
    thickness_mm: Annotated[Thickness, Shown("Thickness")]
    low_mm: Annotated[Extra, Shown("Above the underside", when=("face", "outer", "inner"))] = 6.0
    high_mm: Annotated[Extra, Shown("Below the top", when=("face", "outer", "inner"))] = 6.0
    ends: Annotated[EndShape, Shown("Ends", choices=ENDS)] = "diamond"
    steel_id: Annotated[str, Shown("Steel")] = "mild"
    weld_leg_mm: Annotated[Thickness, Shown("Weld leg")] = 5.0
    lengths: Annotated[
        int,
        Field(ge=1, le=4),
        Shown("Made of lengths", note="More than one where no sheet is as long; butts staggered, clear of the cuts."),
    ] = 1
    plugs: Annotated[Plugs | None, Shown("Plug welds")] = None

    @classmethod
    def fresh_values(cls, on: Setting) -> dict[str, object]:
        """Where it begins and what no default tells."""
        return {**on.between(300, -300), "thickness_mm": on.plate(5.0)}

    def refuse(self, rail_height_mm: float, field: str) -> None:
        """A side plate has some height."""
        if self.face in {"outer", "inner"} and self.low_mm + self.high_mm >= rail_height_mm - 5:
            raise InputError(
                "the plate has no height",
                field=f"{field}/low_mm",
                found=f"{as_length(rail_height_mm - self.low_mm - self.high_mm)} high",
                acceptable=f"edges that leave some of the rail's {as_length(rail_height_mm)}",
            )

    def roles(self) -> tuple[str, ...]:
        """The plate."""
        return (self.face,)

    def _depth(self, height: float, width: float) -> float:
        return height - self.low_mm - self.high_mm if self.face in {"outer", "inner"} else width

    def figures(self, on: OnRail) -> tuple[FigureSpec, ...]:
        """What its plug welds carry besides its edges."""
        if self.plugs is None:
            return ()
        carried = self.plugs.count * plug_n(self.plugs.hole_mm) / 1000.0
        return (
            FigureSpec(
                key="plugs",
                name="Plug welds carry",
                value=carried,
                unit="kN",
                basis="area x 0.3 F_EXX each; not counted in the plate's development",
            ),
        )

    def _grown(self, depth_mm: float, wall_mm: float) -> Development:
        q = line_n_per_mm(self.thickness_mm, self.weld_leg_mm, self.steel_id, wall_mm)
        return development(depth_mm, self.thickness_mm, find_steel(self.steel_id).yield_mpa, 2, q)

    def additions(self, span: Span, rail: RailColumns, carried: frozenset[str], boxed: bool) -> Additions:
        """The plate as columns."""
        none = np.zeros_like(rail.x)
        if self.face not in carried:
            return Additions(none, ())
        i = int(np.argmin(np.abs(rail.x - span.centre_mm)))
        depth = self._depth(float(rail.height[i]), float(rail.width[i]))
        taper = taper_mm(depth, self.ends)
        grown = self._grown(depth, float(rail.wall[i])).length_mm
        cell = float(max(rail.height[i], rail.width[i]))
        along = Reach(span.start_mm + taper, span.end_mm - taper, grown, cell)
        t = self.thickness_mm
        low, high = {
            "top": (rail.height, rail.height + t),
            "bottom": (none - t, none),
        }.get(self.face, (none + self.low_mm, rail.height - self.high_mm))
        plate = Plate(
            self.face,
            t,
            along.share(rail.x),
            low,
            high,
            find_steel(self.steel_id),
            np.ones_like(none),
            none,
            line_n_per_mm=line_n_per_mm(t, self.weld_leg_mm, self.steel_id, float(rail.wall[i])),
            closure=along.closure(rail.x),
            grown_mm=grown,
            kinks=along.kinks,
        )
        return Additions(none, (plate,))

    def parts(self, on: OnRail) -> list[Part]:
        """The plate, tapered at its ends."""
        plate = Part(
            id=part_id(self.id, self.face, on.side),
            operation=self.id,
            role=self.face,
            side=on.side,
            name=f"{self.face.capitalize()} plate",
            face=self.face,
            outline=self._outline(on),
            thickness_mm=self.thickness_mm,
            steel_id=self.steel_id,
            lower_face_mm={"top": on.here.height, "bottom": -self.thickness_mm}.get(self.face),
        )
        return in_lengths(plate, self.lengths, on)

    def _outline(self, on: OnRail) -> Outline:
        half, depth = (on.span.end_mm - on.span.start_mm) / 2, self._depth(on.here.height, on.here.width)
        taper = min(taper_mm(depth, self.ends), half)
        if self.ends == "diamond":
            points = [
                (-half, depth / 2),
                (-half + taper, 0),
                (half - taper, 0),
                (half, depth / 2),
                (half - taper, depth),
                (-half + taper, depth),
            ]
        else:
            points = [(-half, 0), (half, 0), (half - taper, depth), (-half + taper, depth)]
        low = on.here.underside + self.low_mm if self.face in {"outer", "inner"} else 0.0
        return polygon(points).moved(on.span.centre_mm, low)

    def seams(self, on: OnRail, parts: list[Part]) -> list[Seam]:
        """Butts of a plate in lengths first, then the fillet around the whole."""
        around = [
            Seam(
                part_a=f"rail/{on.side}",
                part_b=p.id,
                kind="fillet",
                leg_mm=self.weld_leg_mm,
                path=p.outline,
                long_mm=seam_mm(p, parts) if len(parts) > 1 else None,
            )
            for p in parts
        ]
        return [*butts_between(parts), *around]

    def checks(self, on: OnRail) -> tuple[CheckSpec, ...]:
        """Length against what brings the plate in twice; weld leg within its bounds."""
        depth = self._depth(on.here.height, on.here.width)
        needed = 2 * (self._grown(depth, on.here.wall).length_mm + taper_mm(depth, self.ends))
        length = on.span.end_mm - on.span.start_mm
        at = on.span.centre_mm
        plugs = (
            ()
            if self.plugs is None
            else (
                CheckSpec(
                    limit_id="plug-hole",
                    value=self.plugs.hole_mm / least_plug_hole_mm(self.thickness_mm),
                    formula="hole / least",
                    values={"hole": self.plugs.hole_mm, "least": least_plug_hole_mm(self.thickness_mm)},
                    words=f"least: the plate's thickness + {as_length(8)}, so that the root is reached",
                    station_mm=at,
                    remedy=f"{as_thickness(least_plug_hole_mm(self.thickness_mm))} or more.",
                    same_as_stock=self.plugs.hole_mm >= least_plug_hole_mm(self.thickness_mm),
                ),
            )
        )
        return (
            *plugs,
            CheckSpec(
                limit_id="plate-length",
                value=length / needed,
                formula="length / needed",
                values={"length": length, "needed": needed},
                words="needed: tapers and development at both ends; a shorter plate never carries its share",
                station_mm=at,
                remedy=f"Make it {as_length(needed)} long or more.",
            ),
            *leg_checks(self.weld_leg_mm, self.thickness_mm, on.here.wall, at),
        )

    def details(self, on: OnRail) -> tuple[FatigueDetail, ...]:
        """Its ends."""
        return tuple(
            FatigueDetail(about="end", detail="plate-end", start_mm=x - 1, end_mm=x + 1, words="end of the plate")
            for x in (on.span.start_mm, on.span.end_mm)
        )

    def steps(self, datum: str) -> list[StepSpec]:
        """Fit and weld."""
        butted = f"its {self.lengths} lengths butted on the bench and ground flush first, " if self.lengths > 1 else ""
        return [
            welded(
                key="fit",
                phase="plate",
                title="Fit and weld the plate",
                detail=f"{as_thickness(self.thickness_mm)}, {butted}bare metal under it primed with weld-through primer, long edges first, ends last and away from the tension flange.",
                minutes=80,
                with_tools=("clamps",),
                hides="the rail under the plate",
            ),
        ]

    def measured_fields(self) -> dict[str, str]:
        """What is read after welding."""
        return {f"{self.face}-thickness": "thickness_mm"}

    def readings(self, datum: str) -> list[ReadingSpec]:
        """Thickness."""
        return [thickness_reading(self.face, "Plate", self.thickness_mm)]
