"""Raise a subframe or crossmember into the rail: a pocket from below, and a box of its depth on top."""

import math
from collections.abc import Iterable
from functools import lru_cache
from typing import Annotated, ClassVar, Literal, Self

from pydantic import ValidationError, model_validator

from nodulant.base.errors import InputError
from nodulant.base.model import Extra, Size, Thickness
from nodulant.base.shown import Shown
from nodulant.frame.additions import Additions
from nodulant.frame.columns import RailColumns
from nodulant.frame.here import OnRail, Span
from nodulant.frame.ops.at_place import AtPlace
from nodulant.frame.ops.fresh import Piece, Setting
from nodulant.frame.ops.notches.notch import Cap, Liner, Notch
from nodulant.frame.ops.notches.notch_shape import TrapezoidShape
from nodulant.frame.ops.operation import Adds
from nodulant.frame.ops.pockets.raise_work import raise_steps
from nodulant.frame.place import Place, resolve
from nodulant.frame.pose import Pose
from nodulant.geometry import Outline, Vertex
from nodulant.geometry.outline import polygon
from nodulant.parts.part import Part, Seam
from nodulant.parts.specs import CheckSpec, FatigueDetail, FigureSpec, ReadingSpec, StepSpec, reading
from nodulant.survey.crossmember import Crossmember, wall_fits
from nodulant.survey.rail import Rail
from nodulant.survey.vehicle import Feature, Rails
from nodulant.units.inline import as_length, as_place, as_thickness


class Tie(Piece):
    """A crossmember's profile, mm."""

    profile: Annotated[Literal["tube", "box", "channel"], Shown("Profile")] = "box"
    height_mm: Annotated[Size, Shown("Height")] = 70.0
    width_mm: Annotated[Size, Shown("Width")] = 70.0
    wall_mm: Annotated[Thickness, Shown("Wall")] = 4.0

    @model_validator(mode="after")
    def _wall_fits(self) -> Self:
        wall_fits(self.profile, self.height_mm, self.width_mm, self.wall_mm)
        return self


class Raise(AtPlace):
    """A pocket ``length_mm`` long centred at ``place``, ``depth_mm`` deep at the web and ``inner_depth_mm`` at the open side.

    The deeper of the two governs the section. The box on top is as high as the pocket is deep unless
    it is said otherwise, so that the rail keeps its height.
    """

    adds: ClassVar[Adds] = Adds(
        "Raised pocket", "a subframe or crossmember goes up into the rail: pocket below, box of its depth on top"
    )
    searched: ClassVar[bool] = True
    carries: ClassVar[str] = "subframe in {name}"
    kind: Literal["raise"] = "raise"
    place: Annotated[Place, Shown("Centre")]
    length_mm: Annotated[Size, Shown("Length")]
    depth_mm: Annotated[Size, Shown("Depth at the web")]
    inner_depth_mm: Annotated[Extra | None, Shown("Depth at the open side")] = None
    corner_radius_mm: Annotated[Extra, Shown("Corner radius")] = 12.0
    floor_mm: Annotated[Thickness, Shown("Floor")] = 5.0
    box_mm: Annotated[Thickness, Shown("Box on top, wall")] = 5.0
    box_height_mm: Annotated[Size | None, Shown("Box on top, height (empty: as deep as the pocket)")] = None
    overlap_mm: Annotated[Extra, Shown("Box past the pocket")] = 160.0
    steel_id: Annotated[str, Shown("Steel")] = "mild"
    weld_leg_mm: Annotated[Thickness, Shown("Weld leg")] = 5.0
    subframe: Annotated[
        Literal["bolted", "welded"],
        Shown(
            "Subframe",
            choices={"bolted": "bolted, through rubber", "welded": "welded in solid"},
            note="By use: welded in it stiffens the frame in twist and is counted so, with its section below.",
        ),
    ] = "bolted"
    tie: Annotated[Tie | None, Shown("Section of the subframe", when=("subframe", "welded"))] = None
    """The subframe's own cross-section between the rails; welded in, it ties them."""

    @classmethod
    def fresh_values(cls, on: Setting) -> dict[str, object]:
        """Where it begins and what no default tells."""
        return {"place": on.inward(400), "length_mm": 160.0, "depth_mm": 40.0}

    @model_validator(mode="after")
    def _pocket_can_be_cut(self) -> Self:
        try:
            for depth in {self.depth_mm, self.inner_mm} - {0.0}:
                self.at_wall(depth)
        except ValidationError as error:
            raise InputError(
                "a pocket of this length and depth cannot hold its corners and floor",
                field="corner_radius_mm",
                found=as_thickness(self.corner_radius_mm),
                acceptable="a smaller corner radius or floor, or a longer pocket",
            ) from error
        return self

    @property
    def inner_mm(self) -> float:
        """Depth at the open side, mm."""
        return self.depth_mm if self.inner_depth_mm is None else self.inner_depth_mm

    @property
    def goes_up_mm(self) -> float:
        """How far the subframe goes up: the depth at the web less the floor; a taper follows the subframe's own shape."""
        return self.depth_mm - self.floor_mm

    def pose(self, rails: Rails, features: Iterable[Feature]) -> Pose:
        """Its subframe goes up into it; raises UnknownReference where its place is measured from nothing."""
        return Pose(resolve(self.place, features), up_mm=self.goes_up_mm)

    def lowers(self) -> float:
        """As far as the subframe goes up."""
        return self.goes_up_mm

    @property
    def lined_mm(self) -> float:
        """Thickness of its floor."""
        return self.floor_mm

    @property
    def tapered(self) -> bool:
        """Whether the two walls are cut to different depths."""
        return self.inner_mm != self.depth_mm

    def at_wall(self, depth_mm: float) -> Notch:
        """The pocket as it is cut in one of the walls."""
        return _as_notch(self, depth_mm)

    def as_notch(self) -> Notch:
        """The pocket as a straight-sided cut with a floor, and the box on top as its cap."""
        return _as_notch(self, max(self.depth_mm, self.inner_mm))

    def span(self, rail: Rail, features: Iterable[Feature], field: str) -> Span:
        """The pocket's mouth."""
        return self.as_notch().span(rail, features, field)

    def cut_spans(self, span: Span) -> tuple[Span, ...]:
        """The pocket."""
        return (span,)

    def marks(self, span: Span) -> tuple[float, ...]:
        """Along the edge of the pocket."""
        return self.as_notch().marks(span)

    def refuse(self, rail_height_mm: float, field: str) -> None:
        """Something of the rail must stay, and the pocket must be deeper than its floor is thick."""
        self.as_notch().refuse(rail_height_mm, field)
        if min(self.depth_mm, self.inner_mm) <= self.floor_mm:
            raise InputError(
                "the floor fills the pocket: nothing goes up",
                field=f"{field}/{'inner_depth_mm' if self.inner_mm < self.depth_mm else 'depth_mm'}",
                found=f"{as_length(min(self.depth_mm, self.inner_mm))} deep with a floor of {as_thickness(self.floor_mm)}",
                acceptable=f"more than {as_thickness(self.floor_mm)} at both walls",
            )

    def measured_fields(self) -> dict[str, str]:
        """What is read after welding."""
        inner = {"inner-depth": "inner_depth_mm"} if self.tapered else {}
        return {"position": "place", "depth": "depth_mm", **inner}

    def ties(self, x_mm: float) -> tuple[Crossmember, ...]:
        """The subframe as a crossmember at station ``x_mm``, where it is welded in and its section is known."""
        if self.subframe != "welded" or self.tie is None:
            return ()
        return (Crossmember(id=self.id, name=self.name, x_mm=x_mm, end="welded", **self.tie.model_dump()),)

    def roles(self) -> tuple[str, ...]:
        """Floor and box."""
        return ("liner", "cap")

    def additions(self, span: Span, rail: RailColumns, carried: frozenset[str], boxed: bool) -> Additions:
        """Pocket, floor and box as columns."""
        return self.as_notch().additions(span, rail, carried, boxed)

    def parts(self, on: OnRail) -> list[Part]:
        """Floor and the box's plates."""
        names = {"liner": "Pocket floor", "cap": "Box top"}
        rows = [
            p.model_copy(update={"name": names.get(p.role, p.name.replace("Cap", "Box"))})
            for p in self.as_notch().parts(on)
        ]
        return [self._tapered_floor(p, on) if p.role == "liner" and self.tapered else p for p in rows]

    def _tapered_floor(self, floor: Part, on: OnRail) -> Part:
        """The floor unrolled: at each wall as long as that wall's edge, and as wide as it is askew between them."""
        x = on.span.centre_mm
        runs = [self.at_wall(d).shape.unrolled_mm(d, self.floor_mm) / 2 for d in (self.depth_mm, self.inner_mm)]
        _, low, _, high = floor.outline.bounds()
        wide = math.hypot(high - low, self.depth_mm - self.inner_mm)
        corners = [(x - runs[0], low), (x + runs[0], low), (x + runs[1], low + wide), (x - runs[1], low + wide)]
        name = f"Pocket floor, tapered, {'long' if runs[0] > runs[1] else 'short'} edge at the web"
        return floor.model_copy(update={"outline": polygon(corners), "name": name})

    def seams(self, on: OnRail, parts: list[Part]) -> list[Seam]:
        """Fillets around them."""
        return self.as_notch().seams(on, parts)

    @property
    def opens(self) -> bool:
        """It has an edge that plates follow."""
        return True

    def cut_edge(self) -> Outline:
        """Edge of the pocket at its deeper wall."""
        return self.as_notch().cut_edge()

    def cut_templates(self) -> tuple[tuple[str, Outline], ...]:
        """One template for both walls, or one for each where they are cut to different depths."""
        if not self.tapered:
            return super().cut_templates()
        return tuple(
            (wall, self.at_wall(depth).cut_edge())
            for wall, depth in (("web", self.depth_mm), ("open side", self.inner_mm))
        )

    def edge_above(self, level_mm: float) -> tuple[Vertex, ...]:
        """The part of the edge above a level."""
        return self.as_notch().edge_above(level_mm)

    def bends(self, part: Part, centre_mm: float) -> tuple[Outline, ...]:
        """Bend lines of the floor."""
        return self.as_notch().bends(part, centre_mm)

    def formed(self, part: Part) -> str:
        """How the floor is bent, and which way."""
        return self.as_notch().formed(part)

    def checks(self, on: OnRail) -> tuple[CheckSpec, ...]:
        """Corner radius."""
        r = self.corner_radius_mm
        return (
            CheckSpec(
                limit_id="corner-radius",
                value=r,
                formula="radius",
                values={"radius": r},
                station_mm=on.span.centre_mm,
                remedy=f"Drill {as_thickness(12.7)} holes in the corners and cut to their centres.",
            ),
        )

    def details(self, on: OnRail) -> tuple[FatigueDetail, ...]:
        """The pocket's edge and the box's ends."""
        start, end = on.span.start_mm, on.span.end_mm
        ends = [
            FatigueDetail(
                about="box-end", detail="plate-end", start_mm=x - 1, end_mm=x + 1, words="end of the box on top"
            )
            for x in (start - self.overlap_mm, end + self.overlap_mm)
        ]
        return (
            FatigueDetail(
                about="floor", detail="attachment", start_mm=start, end_mm=end, words="floor welded along the pocket"
            ),
            *ends,
        )

    def figures(self, on: OnRail) -> tuple[FigureSpec, ...]:
        """What goes up with the subframe."""
        taper = self.depth_mm - self.inner_mm
        rows = [
            FigureSpec(
                key="goes-up",
                name="Subframe and everything on it go up by",
                value=self.goes_up_mm,
                unit="mm",
                basis="depth at the web less the floor, a taper follows the subframe's own shape: engine, sump, steering, column, driveshaft, tank and exhaust on it need their clearance looked at before the first cut",
            )
        ]
        if taper:
            rows.append(
                FigureSpec(
                    key="taper",
                    name="Pocket deeper at the web than at the open side by",
                    value=taper,
                    unit="mm",
                    basis="tapered pocket; the deeper wall governs the section",
                )
            )
        return tuple(rows)

    def steps(self, datum: str) -> list[StepSpec]:
        """Box first, then the pocket: the rail is never without its height."""
        place = f"{as_place(self.place.offset_mm)} {datum}"
        inner = f", {as_length(self.inner_depth_mm)} at the open side" if self.inner_depth_mm is not None else ""
        high = f" Box {as_length(self.box_height_mm)} high." if self.box_height_mm is not None else ""
        cut = f"Pocket {as_length(self.length_mm)} long, {as_length(self.depth_mm)} deep at the web{inner}, centre {place}.{high}"
        return raise_steps(cut)

    def readings(self, datum: str) -> list[ReadingSpec]:
        """Place and depth."""
        return [
            reading("position", "Centre of the pocket", self.place.offset_mm, datum),
            reading("depth", "Depth of the pocket at the web", self.depth_mm, "rail underside beside the pocket"),
            *self._inner_reading(),
        ]

    def _inner_reading(self) -> list[ReadingSpec]:
        if not self.tapered:
            return []
        return [
            reading(
                "inner-depth", "Depth of the pocket at the open side", self.inner_mm, "rail underside beside the pocket"
            )
        ]


@lru_cache(maxsize=256)
def _as_notch(raised: Raise, deep: float) -> Notch:
    return Notch(
        id=raised.id,
        name=raised.name,
        side=raised.side,
        place=raised.place,
        depth_mm=deep,
        shape=TrapezoidShape(
            top_width_mm=raised.length_mm, mouth_width_mm=raised.length_mm, corner_radius_mm=raised.corner_radius_mm
        ),
        liner=Liner(thickness_mm=raised.floor_mm, steel_id=raised.steel_id, weld_leg_mm=raised.weld_leg_mm),
        cap=Cap(
            height_mm=deep if raised.box_height_mm is None else raised.box_height_mm,
            thickness_mm=raised.box_mm,
            overlap_mm=raised.overlap_mm,
            steel_id=raised.steel_id,
            weld_leg_mm=raised.weld_leg_mm,
        ),
    )
