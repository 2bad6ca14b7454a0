"""Z-step: the rail behind a place, or ahead of it, rises; a post, a sloped riser or an overlap joins the ends."""

import math
from collections.abc import Iterable
from dataclasses import replace
from typing import Annotated, ClassVar, Literal, Self

from pydantic import Field, model_validator

from nodulant.base.errors import InputError
from nodulant.base.model import Extra, Size, Thickness
from nodulant.base.shown import Shown
from nodulant.frame.columns import rail_at
from nodulant.frame.here import OnRail, Span
from nodulant.frame.ops.fresh import Piece, Setting
from nodulant.frame.ops.operation import Adds
from nodulant.frame.ops.through.cut_through import CutThrough
from nodulant.frame.ops.through.splice_plates import Box, box_parts, joint_of
from nodulant.frame.place import resolve
from nodulant.frame.route import Move
from nodulant.geometry import Outline
from nodulant.geometry.outline import line, polygon
from nodulant.materials import find_steel, line_capacity
from nodulant.parts.joint import Joint, JointKind
from nodulant.parts.part import Part, Seam, part_id
from nodulant.parts.sides import Side
from nodulant.parts.specs import CheckSpec, FigureSpec, ReadingSpec, reading
from nodulant.survey.rail import Rail
from nodulant.survey.vehicle import Feature
from nodulant.units.inline import as_length

LEAST_RUN_MM = 5.0


class Gusset(Piece):
    """Triangles in both inner corners: they take part of the flange couple off the corner's panel."""

    leg_mm: Annotated[Size, Shown("Leg")]
    thickness_mm: Annotated[Thickness, Shown("Thickness")]
    steel_id: Annotated[str, Shown("Steel")] = "mild"

    @classmethod
    def fresh(cls, on: Setting) -> Self:
        """A usual one to begin with."""
        return cls(leg_mm=60.0, thickness_mm=5.0)

    @property
    def load_n(self) -> float:
        """What its strip may take of the corner's flange couple, N: t leg f_y / 6."""
        return self.thickness_mm * self.leg_mm * find_steel(self.steel_id).beside_weld_mpa / 6


class ZStep(CutThrough):
    """The part behind ``place`` (or ahead of it) rises by ``rise_mm``.

    ``post``: an upright box of ``box.depth_mm`` along the rail stands between two square-cut ends.
    ``riser``: a piece sloping at ``riser_angle_deg`` against the rail. ``set-on``: the raised rail
    is laid on the other over ``overlap_mm``; what the rise leaves above the rail is a spacer.
    """

    adds: ClassVar[Adds] = Adds(
        "Z-step", "cut through, and the rail behind or ahead rises: lowers the body, leaves the suspension's geometry"
    )
    searched: ClassVar[bool] = True
    corner_roles: ClassVar[tuple[str, ...]] = ("gusset-front", "gusset-rear")
    kind: Literal["z-step"] = "z-step"
    rise_mm: Annotated[Size, Shown("Step")]
    rises: Annotated[
        Literal["behind", "ahead"],
        Shown("Which part rises", choices={"behind": "the rail behind", "ahead": "the rail ahead"}),
    ] = "behind"
    method: Annotated[
        Literal["post", "riser", "set-on"],
        Shown("Joined by", choices={"post": "upright post", "riser": "sloped riser", "set-on": "set on top"}),
    ] = "post"
    box: Annotated[Box, Shown("Piece between", when=("method", "post", "riser"))] = Box()
    riser_angle_deg: Annotated[float, Field(ge=20, le=80), Shown("Slope of the riser", when=("method", "riser"))] = 45.0
    overlap_mm: Annotated[Extra, Shown("Overlap", when=("method", "set-on"))] = 250.0
    cut_angle_deg: Annotated[
        float,
        Field(ge=-30, le=30),
        Shown("Cut off upright", note="Default: upright. An angled cut moves the rail behind fore or aft as it rises."),
    ] = 0.0
    """Slope of the cut against upright, positive when its top leans rearward."""
    gusset: Annotated[Gusset | None, Shown("Gussets in both corners")] = None

    @classmethod
    def fresh_values(cls, on: Setting) -> dict[str, object]:
        """Where it begins and what no default tells."""
        rises = "ahead" if on.axle == "front" else "behind"
        return {"place": on.inward(800), "rise_mm": 75.0, "rises": rises, "box": Box(wall_mm=6.0)}

    @model_validator(mode="after")
    def _overlap_is_there(self) -> Self:
        if self.method == "set-on" and self.overlap_mm < 20:
            raise InputError(
                "a rail set on the other needs an overlap",
                field="overlap_mm",
                found=as_length(self.overlap_mm),
                acceptable=f"{as_length(20)} or more",
            )
        return self

    def refuse(self, rail_height_mm: float, field: str) -> None:
        """A rail set on the other cannot rise less than that rail is high; a piece between two ends has some length."""
        run = self._gone_mm(rail_height_mm) + self.angle_shift_mm()
        if self.method != "set-on" and run < LEAST_RUN_MM:
            raise InputError(
                "the angled cut leaves no room for the piece between the ends",
                field=f"{field}/cut_angle_deg",
                found=f"{as_length(run)} along the rail",
                acceptable=f"{as_length(LEAST_RUN_MM)} or more: a squarer cut or a longer piece",
            )
        if self.method == "set-on" and self.rise_mm < rail_height_mm - 1e-6:
            raise InputError(
                "a rail set on top rises by its own height at least",
                field=f"{field}/rise_mm",
                found=as_length(self.rise_mm),
                acceptable=f"{as_length(rail_height_mm)} or more, or a post or riser",
            )

    def rise_behind_mm(self) -> float:
        """How much higher the rail behind stands, mm."""
        return self.rise_mm if self.rises == "behind" else -self.rise_mm

    @property
    def piece(self) -> Box:
        """Post or riser."""
        return self.box

    def butts(self, on: OnRail, parts: list[Part]) -> list[Seam]:
        """Set on: along both sides of the overlap and across both its ends."""
        if self.method != "set-on":
            return super().butts(on, parts)
        high = on.here.underside + (on.here.height if self.rise_behind_mm() > 0 else 0.0)
        lap = line(on.span.start_mm - self.overlap_mm, high, on.span.start_mm, high)
        round_lap = 2 * (self.overlap_mm + on.here.closed_width)
        return [
            Seam(
                part_a=f"rail/{on.side}",
                part_b=f"rail/{on.side}/behind",
                kind="fillet",
                leg_mm=self.weld_leg_mm,
                path=lap,
                long_mm=round_lap,
            )
        ]

    @property
    def lean_deg(self) -> float:
        """An angled cut's angle."""
        return self.cut_angle_deg

    def angle_shift_mm(self) -> float:
        """How far an angled cut carries the rail behind rearward as it rises: rise x tan(angle)."""
        return self.rise_behind_mm() * math.tan(math.radians(self.cut_angle_deg))

    def _gone_mm(self, height_mm: float) -> float:
        """Length of stock rail that gives way to the inserted piece, so that the rest keeps its station."""
        if self.method == "riser":
            return self.rise_mm / math.tan(math.radians(self.riser_angle_deg))
        return (self.box.depth_mm or height_mm) if self.method == "post" else 1.0

    def span(self, rail: Rail, features: Iterable[Feature], field: str) -> Span:
        """From the front end's cut to the rear end's."""
        at = resolve(self.place, features, f"{field}/place")
        return Span(at, at + self._gone_mm(rail_at(rail, at)[1]))

    def moves(self, span: Span, side: Side) -> tuple[Move, ...]:
        """Up, and along where the cut is angled or the ends overlap."""
        along = self.angle_shift_mm() - (self.overlap_mm if self.method == "set-on" else 0.0)
        return (Move(span.start_mm, dx_mm=along, dz_mm=self.rise_behind_mm(), gone_mm=span.end_mm - span.start_mm),)

    def run_mm(self, on: OnRail) -> float:
        """Where the rail behind starts, behind the front end's cut."""
        along = -self.overlap_mm if self.method == "set-on" else on.span.end_mm - on.span.start_mm
        return along + self.angle_shift_mm()

    def joints(self, on: OnRail) -> tuple[Joint, ...]:
        """The riser, or the overlap with its lever and welds."""
        kind: JointKind = "overlap" if self.method == "set-on" else "riser"
        joint = joint_of(self.id, on, kind, self.box, self.plates().values(), rise_mm=self.rise_behind_mm())
        if self.method != "set-on":
            if self.gusset is None:
                return (joint,)
            return (replace(joint, gusset_mm=self.gusset.leg_mm, gusset_n=self.gusset.load_n),)
        steel = find_steel(self.box.steel_id)
        line = line_capacity(self.weld_leg_mm, on.here.wall, steel.beside_weld_mpa)
        return (replace(joint, lever_mm=self.overlap_mm, line_n_per_mm=line, line_mm=2 * self.overlap_mm),)

    @property
    def moves_as_one(self) -> bool:
        """Both rails behind it are one end."""
        return self.side == "both"

    def roles(self) -> tuple[str, ...]:
        """Riser or spacer, plates, gussets."""
        own = ["post" if self.method == "post" else "riser"] if self.method != "set-on" else []
        gussets = ["gusset-front", "gusset-rear"] if self.gusset and self.method != "set-on" else []
        return (*own, *super().roles(), *gussets)

    def parts(self, on: OnRail) -> list[Part]:
        """The inserted piece, side plates and gussets."""
        out = super().parts(on)
        if self.method == "set-on":
            return out
        name = "Post" if self.method == "post" else "Riser"
        role = "post" if self.method == "post" else "riser"
        long = math.hypot(self.run_mm(on), self.rise_mm) if self.method == "riser" else on.here.height + self.rise_mm
        piece = box_parts(self.id, role, name, self.box, on, self._piece(on), long)
        return [*piece, *out, *self._gussets(on)]

    def _piece(self, on: OnRail) -> Outline:
        h, run, rise = on.here.height, self.run_mm(on), self.rise_behind_mm()
        if self.method == "riser":
            points = [(0.0, 0.0), (run, rise), (run, rise + h), (0.0, h)]
        else:
            points = [
                (0.0, min(rise, 0.0)),
                (run, min(rise, 0.0)),
                (run, max(rise, 0.0) + h),
                (0.0, max(rise, 0.0) + h),
            ]
        return polygon(points).moved(on.span.start_mm, on.here.underside)

    def _gussets(self, on: OnRail) -> list[Part]:
        if self.gusset is None:
            return []
        h, run, rise, g = on.here.height, self.run_mm(on), self.rise_behind_mm(), self.gusset.leg_mm
        if rise > 0:
            corners = {
                "gusset-front": [(0.0, h), (0.0, h + g), (-g, h)],
                "gusset-rear": [(run, rise), (run, rise - g), (run + g, rise)],
            }
        else:
            corners = {
                "gusset-front": [(0.0, 0.0), (-g, 0.0), (0.0, -g)],
                "gusset-rear": [(run, rise + h), (run + g, rise + h), (run, rise + h + g)],
            }
        return [
            Part(
                id=part_id(self.id, role, on.side),
                operation=self.id,
                role=role,
                side=on.side,
                name=f"Gusset, {role.removeprefix('gusset-')}",
                face="outer",
                outline=polygon(points).moved(on.span.start_mm, on.here.underside),
                thickness_mm=self.gusset.thickness_mm,
                steel_id=self.gusset.steel_id,
                rides_mm=on.span.start_mm,
            )
            for role, points in corners.items()
        ]

    def checks(self, on: OnRail) -> tuple[CheckSpec, ...]:
        """Plates' overlap; a set-on overlap against the rail's height."""
        rows = super().checks(on)
        if self.method != "set-on":
            return rows
        values = {"overlap": self.overlap_mm, "needed": 1.5 * on.here.height}
        return (
            *rows,
            CheckSpec(
                limit_id="overlap",
                about="set-on",
                value=values["overlap"] / values["needed"],
                formula="overlap / needed",
                values=values,
                words="needed: one and a half times the rail's height (Nodulant default); its welds are checked with the forces",
                detail="rail set on rail",
                station_mm=on.span.start_mm,
                remedy=f"Overlap by {as_length(values['needed'])} or more.",
            ),
        )

    def figures(self, on: OnRail) -> tuple[FigureSpec, ...]:
        """What the angle of the cut does, the spacer, the riser's length."""
        rows = [
            FigureSpec(key="rise", name="Step", value=self.rise_mm, unit="mm", basis=f"the rail {self.rises} rises")
        ]
        if self.cut_angle_deg:
            rows.append(
                FigureSpec(
                    key="angle-shift",
                    name="Shift of the rail behind by the cut's angle",
                    value=self.angle_shift_mm(),
                    unit="mm",
                    basis="rise x tan(angle): an upright cut has none",
                )
            )
        if self.method == "set-on":
            spacer = self.rise_mm - on.here.height
            rows.append(
                FigureSpec(
                    key="spacer",
                    name="Spacer between the rails",
                    value=spacer,
                    unit="mm",
                    basis="rise less the rail's measured height",
                )
            )
            rows.append(
                FigureSpec(
                    key="shorter",
                    name="The frame gets shorter by",
                    value=self.overlap_mm,
                    unit="mm",
                    basis="the overlap, unless the upper rail is that much longer",
                )
            )
        else:
            length = math.hypot(self.run_mm(on), self.rise_mm)
            rows.append(
                FigureSpec(
                    key="riser",
                    name="Length of the inserted piece along its middle",
                    value=length,
                    unit="mm",
                    basis="from end to end of the rails' centre lines",
                )
            )
        return tuple(rows)

    def work(self) -> str:
        """What is made here, in words."""
        return f"Z-step of {as_length(self.rise_mm)} by {self.method.replace('-', ' ')}, the rail {self.rises} rises"

    def readings(self, datum: str) -> list[ReadingSpec]:
        """Cut line and height of the step."""
        step = reading(
            "rise", "Height of the step, underside to underside", self.rise_mm, "underside of the rail that stayed"
        )
        return [*super().readings(datum), step]

    def measured_fields(self) -> dict[str, str]:
        """What is read after welding."""
        return {**super().measured_fields(), "rise": "rise_mm"}
