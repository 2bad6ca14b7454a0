"""A truss over the axle's middle that carries the upper links: two plates and a cover, welded to the tubes only.

As a beam between its feet on the tubes: the links' forces act at their tabs ``y_mm`` from the centre,
along and up; bending about both axes of the two plates and the cover (textbook, beam on two
supports), the larger use of both added.
"""

import math
from typing import Annotated, ClassVar, Literal

from pydantic import Field

from nodulant.base.model import Coordinate, Size
from nodulant.base.shown import Shown
from nodulant.frame.here import OnRail
from nodulant.frame.ops.fresh import Setting
from nodulant.frame.ops.on_axle.axle_plates import axle_plates
from nodulant.frame.ops.on_axle.axle_work import AxleWork
from nodulant.frame.ops.operation import Adds
from nodulant.geometry import Outline, Vertex
from nodulant.geometry.outline import polygon, rectangle
from nodulant.materials import find_steel
from nodulant.materials.steel import SAFETY_ON_YIELD
from nodulant.parts.cautions import HOT
from nodulant.parts.part import Part, RoundHole, Seam
from nodulant.parts.sides import Side
from nodulant.parts.solid import Solid
from nodulant.parts.specs import CheckSpec, FigureSpec, HoldPoint, ReadingSpec, StepSpec, reading
from nodulant.survey.vehicle import Survey
from nodulant.units.inline import as_length

VENT_HOLE_MM = 30.0
"""In the cover, over the axle's vent: a hose with its grommet (common practice)."""


class Truss(AxleWork):
    """From ``foot_to_mm`` over to the other side, feet on the tubes from ``foot_from_mm`` outward."""

    adds: ClassVar[Adds] = Adds(
        "Truss on the axle", "carries the upper links over the middle of the axle, welded to its tubes only"
    )
    one_piece: ClassVar[bool] = True
    follows: ClassVar[tuple[str, ...]] = (
        "place",
        "x_mm",
        "y_mm",
        "along_n",
        "up_n",
        "out_n",
        "tube_mm",
        "tube_wall_mm",
        "housing",
        "housing_half_mm",
    )
    kind: Literal["truss"] = "truss"
    foot_from_mm: Annotated[Size, Shown("Feet begin at")] = 230.0
    """Where each foot begins on its tube, from the centre plane."""
    foot_to_mm: Annotated[Size, Shown("Feet end at")] = 380.0
    tall_mm: Annotated[Size, Shown("Cover above the tube")] = 90.0
    """From the tube's top to the cover."""
    deep_mm: Annotated[Size, Shown("Fore and aft")] = 80.0
    """Between the outsides of front and rear plate."""
    clear_mm: Annotated[Size, Shown("Opening above the tube")] = 45.0
    """Height of the opening over the middle, above the tube's top."""
    ribs: Annotated[int, Field(ge=0, le=6), Shown("Ribs in each foot")] = 1
    """Crosswise plates between front and rear plate, coped to the tube, that keep both upright."""
    vent_mm: Annotated[
        Coordinate | None, Shown("Axle's vent, right of the centre", note="The cover gets a hole over it for its hose.")
    ] = None

    @classmethod
    def fresh_values(cls, on: Setting) -> dict[str, object]:
        """Where it begins and what no default tells."""
        return {**super().fresh_values(on), "y_mm": 90.0}

    def roles(self) -> tuple[str, ...]:
        """Front and rear plate, cover."""
        return ("truss-plates", "truss-cover", *(("truss-ribs",) if self.ribs else ()))

    @property
    def inside_mm(self) -> float:
        """Between the plates."""
        return max(self.deep_mm - 2 * self.thickness_mm, 1.0)

    @property
    def sink_mm(self) -> float:
        """How far below the tube's top the plates' inner faces meet it; its radius where they stand beside it."""
        r, u = self.tube_mm / 2, self.inside_mm / 2
        return r - math.sqrt(max(r * r - u * u, 0.0))

    def inner_mm(self) -> float:
        """Where the feet's welds begin."""
        return self.foot_from_mm

    def parts(self, on: OnRail) -> list[Part]:
        """The plate (two of it) as seen from behind, and the cover; one truss for both sides, kept with the left."""
        if on.side == "right":
            return []
        a, b, h, c = (
            self.foot_from_mm,
            max(self.foot_to_mm, self.foot_from_mm + 1.0),
            self.tall_mm,
            min(self.clear_mm, 0.8 * self.tall_mm),
        )
        slope, foot = min(h / 2, (b - a) / 2), -self.sink_mm
        points = [
            (-b, foot),
            (-a, foot),
            (-a + c / 2, c),
            (a - c / 2, c),
            (a, foot),
            (b, foot),
            (b, h - slope),
            (b - slope, h),
            (-b + slope, h),
            (-b, h - slope),
        ]
        x = on.span.centre_mm
        plate = polygon([(x + y, z) for y, z in points])
        cover = rectangle(x - b + slope, 0.0, x + b - slope, self.inside_mm)
        rows = [("truss-plates", "Truss plate, two of it", plate, 2), ("truss-cover", "Truss cover", cover, 1)]
        if self.ribs:
            rows.append(("truss-ribs", "Truss rib", self._rib().moved(x, 0.0), 2 * self.ribs))
        out = axle_plates(self.id, on, self.thickness_mm, self.steel_id, rows)
        if self.vent_mm is not None and abs(self.vent_mm) + VENT_HOLE_MM / 2 < b - slope:
            hole = RoundHole(x_mm=x + self.vent_mm, y_mm=self.inside_mm / 2, diameter_mm=VENT_HOLE_MM)
            out[1] = out[1].model_copy(update={"holes": (hole,)})
        return out

    def _rib(self) -> Outline:
        """From plate to plate and from the tube up to the cover, its lower edge along the tube."""
        u, r = self.inside_mm / 2, self.tube_mm / 2
        top, foot = self.tall_mm - self.thickness_mm, -self.sink_mm
        bulge = -math.tan(math.asin(min(u / r, 1.0)) / 2)
        return Outline(
            vertices=(Vertex(x=-u, y=foot, bulge=bulge), Vertex(x=u, y=foot), Vertex(x=u, y=top), Vertex(x=-u, y=top))
        )

    def seams(self, on: OnRail, parts: list[Part]) -> list[Seam]:
        """Feet on the tubes and the cover's edges."""
        return [
            Seam(
                part_a=f"axle/{on.side}",
                part_b=p.id,
                kind="fillet",
                leg_mm=self.weld_leg_mm,
                path=p.outline,
                welded_share=0.5,
            )
            for p in parts
        ]

    def checks(self, on: OnRail) -> tuple[CheckSpec, ...]:
        """Feet clear of a cast middle, their fillets, and the beam between them."""
        long = self.foot_to_mm - self.foot_from_mm
        at = on.span.centre_mm
        if self.inside_mm >= self.tube_mm:
            beside = CheckSpec(
                limit_id="truss-feet",
                value=self.tube_mm - self.inside_mm,
                formula="tube - inside",
                values={"tube": self.tube_mm, "inside": self.inside_mm},
                words="what of the tube stands between both plates, so that their feet rest on it, mm",
                station_mm=at,
                remedy=f"Less than {as_length(self.tube_mm + 2 * self.thickness_mm)} fore and aft, so that both plates stand on the tube.",
            )
            return (beside, self.cast_check(on))
        if long <= 0:
            gap = CheckSpec(
                limit_id="truss-feet",
                value=long,
                formula="to - from_",
                values={"to": self.foot_to_mm, "from_": self.foot_from_mm},
                words="length of each foot on its tube, mm",
                station_mm=at,
                remedy="Let the feet end further out than they begin.",
            )
            return (gap, self.cast_check(on))
        half = self.deep_mm / 2
        spots = [(y, 0.0) for y in (-half, half)]
        weld = self.tube_weld(on, spots, long, self.tall_mm, (self.up_n, self.along_n, self.out_n))
        return (self.cast_check(on), weld, *self.legs(on), self._beam(at))

    def _beam(self, at: float) -> CheckSpec:
        if self.force_n <= 0:
            return CheckSpec(
                limit_id="truss-bending",
                value=None,
                station_mm=at,
                missing=("along_n",),
                remedy="The force at limit load is not given.",
            )
        t, h, d = self.thickness_mm, self.tall_mm - self.clear_mm, self.deep_mm
        lever = max(self.foot_from_mm - abs(self.y_mm), 0.0)
        upright = 2 * t * max(h, 1.0) ** 2 / 6 + t * d * max(h, 1.0) / 2
        level = 2 * t * max(h, 1.0) * d / 2 + t * d**2 / 6
        allowed = find_steel(self.steel_id).beside_weld_mpa / SAFETY_ON_YIELD
        values = {
            "along": abs(self.along_n) * lever,
            "up": abs(self.up_n) * lever,
            "level": level,
            "upright": upright,
            "allowed": allowed,
        }
        return CheckSpec(
            limit_id="truss-bending",
            value=(values["along"] / level + values["up"] / upright) / allowed,
            formula="(along / level + up / upright) / allowed",
            values=values,
            words="moment of one side's link over its lever to the foot, N mm, over the moduli of plates and cover above the opening, mm3; yield beside welds over 1.5, MPa",
            station_mm=at,
            same_as_stock=lever == 0,
            remedy="A taller truss, thicker plate, or feet nearer to the links.",
        )

    def figures(self, on: OnRail) -> tuple[FigureSpec, ...]:
        """Length of the whole."""
        return (
            FigureSpec(
                key="span",
                name="Truss from end to end",
                value=2 * self.foot_to_mm,
                unit="mm",
                basis="feet on both tubes",
            ),
        )

    def solids(self, on: OnRail) -> tuple[Solid, ...]:
        """Both plates and the cover, right half."""
        low, t, d, x = self.tube_mm / 2, self.thickness_mm, self.deep_mm, self.x_mm
        plates = [
            Solid(
                name=self.name,
                on="axle",
                x=[x + s * (d / 2) - t / 2, x + s * (d / 2) + t / 2],
                y=[0.0, self.foot_to_mm],
                z=[low + (self.clear_mm if self.clear_mm < self.tall_mm else 0.0), low + self.tall_mm],
            )
            for s in (-1, 1)
        ]
        feet = Solid(
            name=self.name,
            on="axle",
            x=[x - d / 2, x + d / 2],
            y=[self.foot_from_mm, self.foot_to_mm],
            z=[low, low + self.tall_mm],
        )
        return (*plates, feet)

    def steps(self, datum: str) -> list[StepSpec]:
        """Feet on the tubes, shafts straight."""
        return [
            StepSpec(
                key="fit",
                phase="fit",
                title="Fit the truss to the housing",
                detail=f"Feet on the tubes from {as_length(self.foot_from_mm)} to {as_length(self.foot_to_mm)} from the centre; the middle stays clear all round. Cover plate and drain plug still come off.{self._inside_words()}",
                minutes=120,
                tools=("grinder", "clamps"),
                cautions=(HOT,),
                hold=HoldPoint(kind="reading", ask="Where the foot begins, from the centre plane", reading="foot"),
            ),
            StepSpec(
                key="runout",
                phase="look",
                title="Runout of both hub flanges, before",
                detail="Dial gauge on the face and on the rim of each flange, a whole turn; written down with its highest place. The links have been through their travel: the truss fixes their height for good.",
                minutes=30,
                tools=("dial gauge",),
                hold=HoldPoint(kind="look", ask="Runout of both flanges written down"),
                acts=("reads-runout",),
            ),
            StepSpec(
                key="weld",
                phase="weld",
                title="Weld the truss to the tubes",
                detail=f"A bar through the tubes' ends shows the bend: {as_length(50)} at a time, left and right, front and rear by turns, cooling between. Never on the cast middle.",
                minutes=150,
                tools=("welder", "straight bar"),
                cautions=(HOT, "Oil and seals out of the housing first."),
                hides="the tubes under the feet",
                acts=("welds", "welds-mount", "welds-axle"),
            ),
            StepSpec(
                key="runout-again",
                phase="plate",
                title="Runout of both hub flanges, after",
                detail="The same places when it is cold: what is more than before is the tube's bow, drawn back by heat on the other side, or pressed.",
                minutes=30,
                tools=("dial gauge",),
                hold=HoldPoint(kind="look", ask="Runout of both flanges as before, or straightened"),
                acts=("reads-runout-again",),
            ),
        ]

    def _inside_words(self) -> str:
        """What is done before the cover goes on."""
        ribs = f" {2 * self.ribs} ribs, ground to the tube, before the cover." if self.ribs else ""
        if self.vent_mm is None:
            return f"{ribs} A vent that comes to stand under the cover gets its hose out through it."
        side = "right" if self.vent_mm > 0 else "left"
        return f"{ribs} The vent, {as_length(abs(self.vent_mm))} {side} of the centre, gets its hose through the cover's hole with a grommet: no rib within {as_length(VENT_HOLE_MM)} of it."

    def measured_fields(self) -> dict[str, str]:
        """What is read after welding."""
        return {"foot": "foot_from_mm"}

    def readings_on(self, side: Side, datum: str, survey: Survey) -> list[ReadingSpec]:
        """A foot on either side."""
        return self.readings(datum)

    def readings(self, datum: str) -> list[ReadingSpec]:
        """Where the feet begin, and what the welds did to the flanges."""
        return [
            reading("foot", "Where the foot begins, from the centre plane", self.foot_from_mm, "centre of the axle"),
            reading(
                "runout-across",
                "Runout of the hub flange, more than before the weld",
                0.0,
                "its highest place before",
                "as-built-runout",
            ),
        ]
