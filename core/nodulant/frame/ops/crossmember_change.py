"""A crossmember added, taken out, moved or replaced."""

import math
from typing import Annotated, ClassVar, Literal, Self

from pydantic import model_validator

from nodulant.base.errors import InputError
from nodulant.base.model import Coordinate, Id, Size, Thickness
from nodulant.base.shown import Shown
from nodulant.frame.here import OnRail
from nodulant.frame.ops.across import Member, member_between, tube_between
from nodulant.frame.ops.at_place import AtPlace
from nodulant.frame.ops.fresh import Setting
from nodulant.frame.ops.operation import Adds
from nodulant.frame.ops.welded import welded
from nodulant.frame.place import Place
from nodulant.geometry import Outline
from nodulant.geometry.outline import circle, rectangle
from nodulant.parts.bought import Needed, TubeNeeded, girth_mm
from nodulant.parts.cautions import DUST, HOT
from nodulant.parts.part import MEMBER, Part, Seam, part_id
from nodulant.parts.specs import HoldPoint, StepSpec
from nodulant.survey.crossmember import Crossmember, EndKind, wall_fits
from nodulant.units.inline import as_length, as_place, as_thickness


class CrossmemberChange(AtPlace):
    """What happens to the crossmember ``target_id`` of the survey, or a new one at ``place``."""

    adds: ClassVar[Adds] = Adds("Crossmember", "add one, or take out, move or replace a surveyed one")
    one_piece: ClassVar[bool] = True
    kind: Literal["crossmember"] = "crossmember"
    act: Annotated[
        Literal["add", "remove", "move", "replace"],
        Shown("What", choices={"add": "add", "remove": "take out", "move": "move", "replace": "replace"}),
    ] = "add"
    target_id: Annotated[Id | None, Shown("Which", when=("act", "remove", "move", "replace"))] = None
    place: Annotated[Place, Shown("Stands at")]
    profile: Annotated[Literal["tube", "box", "channel"], Shown("Profile", when=("act", "add", "replace"))] = "tube"
    height_mm: Annotated[Size, Shown("Height", when=("act", "add", "replace"))] = 60.0
    width_mm: Annotated[Size, Shown("Width", when=("act", "add", "replace"))] = 60.0
    wall_mm: Annotated[Thickness, Shown("Wall", when=("act", "add", "replace"))] = 4.0
    up_mm: Annotated[Coordinate | None, Shown("Middle above the rail's underside", when=("act", "add", "replace"))] = (
        None
    )
    """None where it is not known: it is then no body in the sweep."""
    end: Annotated[
        EndKind,
        Shown(
            "Ends",
            choices={"riveted": "riveted", "welded": "welded", "gusseted": "welded, gusseted"},
            when=("act", "add", "replace"),
        ),
    ] = "welded"
    removable: Annotated[bool, Shown("Bolted in, removable", when=("act", "add", "replace"))] = False
    """Bolted in, so that a gearbox or tank can come out."""

    @classmethod
    def fresh_values(cls, on: Setting) -> dict[str, object]:
        """Where it begins and what no default tells."""
        return {"place": on.inward(400)}

    @model_validator(mode="after")
    def _names_what_it_changes(self) -> Self:
        if self.act != "add" and self.target_id is None:
            raise InputError(
                "which crossmember?", field="target_id", found="none", acceptable="one of the survey's crossmembers"
            )
        if self.act in {"add", "replace"}:
            wall_fits(self.profile, self.height_mm, self.width_mm, self.wall_mm)
        return self

    @property
    def half_mm(self) -> float:
        """Half of its width along the rail."""
        return self.width_mm / 2

    def applied(self, before: tuple[Crossmember, ...], x_mm: float, field: str) -> tuple[Crossmember, ...]:
        """The crossmembers after it; raises InputError where there is no such one."""
        if self.act == "add":
            return (*before, self._new(x_mm))
        target = next((c for c in before if c.id == self.target_id), None)
        if target is None:
            raise InputError(
                f"there is no crossmember '{self.target_id}'",
                field=f"{field}/target_id",
                found=str(self.target_id),
                acceptable="one of " + ", ".join(c.id for c in before),
            )
        others = tuple(c for c in before if c is not target)
        if self.act == "remove":
            return others
        if self.act == "move":
            return (*others, target.model_copy(update={"x_mm": x_mm}))
        return (*others, self._new(target.x_mm))

    def _new(self, x_mm: float) -> Crossmember:
        return Crossmember(
            id=self.id,
            name=self.name,
            x_mm=x_mm,
            profile=self.profile,
            height_mm=self.height_mm,
            width_mm=self.width_mm,
            wall_mm=self.wall_mm,
            up_mm=self.up_mm,
            end="riveted" if self.removable else self.end,
        )

    @property
    def _welds(self) -> bool:
        return self.act in {"add", "replace"} and self.end != "riveted" and not self.removable

    def roles(self) -> tuple[str, ...]:
        """The new one, where it is welded to the rails."""
        return (MEMBER,) if self._welds else ()

    def _above_mm(self, on: OnRail) -> float:
        return on.here.height / 2 if self.up_mm is None else self.up_mm

    def end_on_rail(self, on: OnRail) -> Outline | None:
        """Its section's outside; at half height of the rail where its height is not known."""
        if self.act not in {"add", "replace"}:
            return None
        x, z = on.span.centre_mm, on.here.underside + self._above_mm(on)
        if self.profile == "tube":
            return circle(x, z, self.height_mm)
        return rectangle(x - self.half_mm, z - self.height_mm / 2, x + self.half_mm, z + self.height_mm / 2)

    def _bead_mm(self, on: OnRail) -> float:
        """Bead of one end, mm: round what of its outside lies on the rail's side; what lies over or under it has two across."""
        rail, middle, half = on.here, self._above_mm(on), self.height_mm / 2
        if rail.round:
            return girth_mm(self.profile, self.height_mm, self.width_mm, 0.0)
        low, top = max(middle - half, 0.0), min(middle + half, rail.height)
        if top <= low:
            return 2 * rail.width
        if self.profile == "tube":
            return self.height_mm * (math.acos((middle - top) / half) - math.acos((middle - low) / half))
        level = sum(0.0 <= edge <= rail.height for edge in (middle - half, middle + half))
        return (2 if self.profile == "box" else 1) * (top - low) + level * self.width_mm

    def _member(self, on: OnRail) -> Member:
        above = self._above_mm(on)
        if self.profile != "tube":
            return member_between(on, self.height_mm, above)
        return tube_between(on, self.height_mm, self.wall_mm, above)

    def parts(self, on: OnRail) -> list[Part]:
        """The new member's wall unrolled; one from rail to rail, kept with the left."""
        if self.act not in {"add", "replace"} or on.side == "right":
            return []
        x, reach = on.span.centre_mm, self._member(on).long_mm / 2
        girth = girth_mm(self.profile, self.height_mm, self.width_mm, self.wall_mm)
        member = Part(
            id=part_id(self.id, MEMBER, on.side),
            operation=self.id,
            role=MEMBER,
            side=on.side,
            name=f"Crossmember's {self.profile}",
            face="across",
            outline=rectangle(x - reach, 0.0, x + reach, girth),
            thickness_mm=self.wall_mm,
            steel_id="mild",
        )
        return [member]

    def seams(self, on: OnRail, parts: list[Part]) -> list[Seam]:
        """Round what of both its ends meets a rail."""
        leg = round(min(self.wall_mm, on.here.wall), 1)
        return [
            Seam(
                part_a=f"rail/{on.side}",
                part_b=p.id,
                kind="fillet",
                leg_mm=leg,
                path=p.outline,
                long_mm=2 * self._bead_mm(on),
            )
            for p in parts
            if self._welds
        ]

    def bought(self, on: OnRail) -> tuple[Needed, ...]:
        """The new one's length."""
        if self.act not in {"add", "replace"} or on.side == "right":
            return ()
        member = self._member(on)
        return (
            TubeNeeded(
                name=self.name,
                profile=self.profile,
                od_mm=self.height_mm,
                wide_mm=0.0 if self.profile == "tube" else self.width_mm,
                wall_mm=self.wall_mm,
                long_mm=member.long_mm,
                steel_id="mild",
                coped=member.coped,
            ),
        )

    def steps(self, datum: str) -> list[StepSpec]:
        """Brace before one goes, fit before one is welded."""
        at = f"{as_place(self.place.offset_mm)} {datum}"
        rows = []
        if self.act in {"remove", "move", "replace"}:
            rows.append(
                StepSpec(
                    key="out",
                    phase="cut",
                    title=f"Take out the crossmember '{self.target_id}'",
                    detail="A bar across beside it first: it is what keeps the rails apart and level. Rivets: heads ground off, a relief hole drilled into each shank, punched through; never cut by flame.",
                    minutes=60,
                    tools=("square tube", "grinder", "drill", "punch"),
                    cautions=(DUST, HOT),
                    acts=("cuts",),
                )
            )
        if self.act != "remove":
            rows += self._put_in(at)
        return rows

    def _put_in(self, at: str) -> list[StepSpec]:
        """Bolted or riveted as one step; tacked, and welded when everything that moves was looked at."""
        high = "half way up the rail: its height is not given"
        if self.up_mm is not None:
            high = f"middle {as_length(self.up_mm)} above the underside"
        at = f"{at}, {high}"
        size = f"{as_length(self.height_mm)} x {as_thickness(self.wall_mm)}"
        square = HoldPoint(kind="look", ask="Square to both rails, diagonals equal")
        if not self._welds:
            how = "bolted, so that it comes out again" if self.removable else "bolts or hot rivets in drilled holes"
            return [
                StepSpec(
                    key="in",
                    phase="tack",
                    title=f"Fit the crossmember: {self.name}",
                    detail=f"{at}; {self.profile} {size}, {how}: clamped, diagonals within {as_length(2)}, then each hole drilled through both.",
                    minutes=90,
                    people=2,
                    tools=("clamps", "tape", "drill"),
                    hold=square,
                    acts=("ties",),
                )
            ]
        gussets = ", then its gussets" if self.end == "gusseted" else ""
        return [
            welded(
                key="in",
                phase="tack",
                title=f"Fit the crossmember: {self.name}",
                detail=f"{at}; {self.profile} {size}, {self.end} ends, sawn to fit without a gap; diagonals within {as_length(2)}. Tacked only.",
                minutes=60,
                people=2,
                with_tools=("clamps", "tape"),
                hold=square,
                acts=("ties",),
            ),
            welded(
                key="weld",
                phase="weld",
                title=f"Weld the crossmember: {self.name}",
                detail=f"Round both ends{gussets}, left and right by turns, a side at a time: what is welded on one end alone draws the rails out of square. Across a flange's edge no bead starts or stops.",
                minutes=60 if gussets else 45,
                hold=HoldPoint(kind="look", ask="Diagonals as before, ends sound all round"),
                acts=("welds",),
            ),
        ]
