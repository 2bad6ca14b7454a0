"""A hole in the web: new, plugged, or with a crush sleeve through a closed rail."""

from typing import Annotated, ClassVar, Literal, Self

import numpy as np

from nodulant.base.errors import InputError
from nodulant.base.model import Extra, Id, Size, Thickness
from nodulant.base.shown import Shown
from nodulant.frame.additions import Additions, Hole
from nodulant.frame.columns import RailColumns
from nodulant.frame.here import OnRail, Span
from nodulant.frame.ops.at_place import AtPlace
from nodulant.frame.ops.fresh import Piece, Setting
from nodulant.frame.ops.operation import Adds
from nodulant.frame.ops.welded import welded
from nodulant.frame.place import Place
from nodulant.geometry import Outline
from nodulant.geometry.outline import Vertex
from nodulant.materials import find_steel
from nodulant.materials.bolts import find_bolt, sleeve_outside_mm, sleeve_use
from nodulant.parts.bought import BoltsNeeded, Needed, TubeNeeded
from nodulant.parts.cautions import DUST, HOT
from nodulant.parts.specs import CheckSpec, FigureSpec, ReadingSpec, StepSpec, reading
from nodulant.units.inline import as_length, as_place, as_thickness

PLUGS = (
    (6.5, "weld against a copper backing"),
    (32.0, "bevelled round bar, welded both sides"),
    (1e9, "disc from a hole saw, welded both sides"),
)
"""How a hole up to this diameter, mm, is plugged (common practice)."""


class Sleeve(Piece):
    """A tube welded through a closed rail so that a bolt's preload does not bend the walls in."""

    bolt_size: Annotated[Id | str, Shown("Bolt", kind="bolt")] = "M12"
    grade: Annotated[str, Shown("Grade")] = "10.9"
    outside_mm: Annotated[Size, Shown("Outside", kind="thickness")] = 22.0
    wall_mm: Annotated[Thickness, Shown("Wall")] = 4.0
    steel_id: Annotated[str, Shown("Steel")] = "mild"

    @classmethod
    def fresh(cls, on: Setting) -> Self:
        """One whose face carries the preload on mild steel."""
        return cls(outside_mm=25.0, wall_mm=5.5)


class WebHole(AtPlace):
    """A hole of ``diameter_mm`` with its centre ``height_mm`` above the underside.

    ``drill`` makes it, ``plug`` fills one that is there; a plug counts only when it is fully
    penetrated, ground and inspected. ``sleeve`` drills and welds a crush sleeve through. ``pass``
    opens the whole rail for a rod that passes it, with a pipe or a formed liner welded in.
    """

    adds: ClassVar[Adds] = Adds(
        "Hole, plug or sleeve", "drill the web, fill a hole, weld a crush sleeve through, or open the rail for a rod"
    )
    kind: Literal["hole"] = "hole"
    place: Annotated[Place, Shown("Centre")]
    work: Annotated[
        Literal["drill", "plug", "sleeve", "pass"],
        Shown(
            "What", choices={"drill": "drill it", "plug": "plug it", "sleeve": "crush sleeve", "pass": "open for a rod"}
        ),
    ] = "drill"
    height_mm: Annotated[Size, Shown("Above the underside")]
    diameter_mm: Annotated[Size, Shown("Diameter", kind="saw")]
    tall_mm: Annotated[Extra, Shown("Straight part, upright", when=("work", "pass"))] = 0.0
    """Straight part between two half circles that stand one above the other; 0 where it is round."""
    liner_mm: Annotated[Thickness | None, Shown("Liner's wall", kind="pipe", when=("work", "pass"))] = None
    """Wall of the pipe that lines a hole that a rod passes."""
    inspected: Annotated[bool, Shown("Fully penetrated, ground, inspected", when=("work", "plug"))] = False
    weld_washers: Annotated[bool, Shown("Weld washers on both faces", when=("work", "drill", "sleeve"))] = False
    """Hardened washers welded around it on both faces, so that the bolt does not make it oval."""
    sleeve: Annotated[Sleeve | None, Shown("Crush sleeve", when=("work", "sleeve"))] = None

    @classmethod
    def fresh_values(cls, on: Setting) -> dict[str, object]:
        """Where it begins and what no default tells."""
        return {"place": on.inward(300), "height_mm": 75.0, "diameter_mm": 13.5}

    @property
    def clear_mm(self) -> float:
        """Width that is free, inside a liner where there is one."""
        return self.diameter_mm - 2 * (self.liner_mm or 0.0) if self.work == "pass" else self.diameter_mm

    def clear_outline(self) -> Outline:
        """What is free, about the hole's centre: a circle, or two half circles one above the other."""
        r, t = self.clear_mm / 2, self.tall_mm / 2
        if t == 0.0:
            return Outline(vertices=(Vertex(x=r, y=0.0, bulge=1.0), Vertex(x=-r, y=0.0, bulge=1.0)))
        right, left = Vertex(x=r, y=-t), Vertex(x=-r, y=t)
        return Outline(vertices=(right, Vertex(x=r, y=t, bulge=1.0), left, Vertex(x=-r, y=-t, bulge=1.0)))

    def refuse(self, rail_height_mm: float, field: str) -> None:
        """A hole must leave web on both sides, and a liner must leave a hole."""
        half = self.diameter_mm / 2 + self.tall_mm / 2
        if self.work == "pass" and (self.height_mm - half <= 0 or self.height_mm + half >= rail_height_mm):
            raise InputError(
                "the hole runs out of the web",
                field=f"{field}/height_mm",
                found=f"{as_length(self.height_mm - half)} to {as_length(self.height_mm + half)} of {rail_height_mm:g}",
                acceptable="a hole inside the web, or a notch",
            )
        if self.work == "pass" and self.clear_mm <= 0:
            raise InputError(
                "the liner fills its hole",
                field=f"{field}/liner_mm",
                found=as_thickness(self.liner_mm or 0),
                acceptable=f"less than {as_thickness(self.diameter_mm / 2)}",
            )

    @property
    def half_mm(self) -> float:
        """Half of its width."""
        return self.diameter_mm / 2

    @property
    def drills(self) -> bool:
        """All but a plug."""
        return self.work != "plug"

    def bought(self, on: OnRail) -> tuple[Needed, ...]:
        """A crush sleeve through the rail, and its bolt."""
        if self.work != "sleeve" or self.sleeve is None:
            return ()
        own, wide = self.sleeve, on.here.width
        tube = TubeNeeded(
            name=f"{self.name}, crush sleeve",
            od_mm=own.outside_mm,
            wall_mm=own.wall_mm,
            long_mm=wide,
            steel_id=own.steel_id,
        )
        bolt = BoltsNeeded(
            name=self.name,
            size=str(own.bolt_size),
            grade=own.grade,
            grip_mm=wide,
            count=1,
            weld_washers=self.weld_washers,
        )
        return (tube, bolt)

    def marks(self, span: Span) -> tuple[float, ...]:
        """Its middle, where it takes most."""
        return (span.centre_mm,)

    def additions(self, span: Span, rail: RailColumns, carried: frozenset[str], boxed: bool) -> Additions:
        """The hole, or the one of the survey that it fills with credit."""
        hole = Hole(span.centre_mm, self.height_mm, self.diameter_mm, self.tall_mm, self.work in {"pass", "sleeve"})
        none = np.zeros_like(rail.x)
        if self.work == "plug":
            return Additions(none, (), plugged=(hole,) if self.inspected else ())
        return Additions(none, (), holes=(hole,))

    def checks(self, on: OnRail) -> tuple[CheckSpec, ...]:
        """Distance to the rail's edges; the sleeve under preload."""
        x, h, d = on.span.centre_mm, self.height_mm, self.diameter_mm
        rows = []
        if self.work == "pass":
            rows.append(self._web_left(on))
        elif self.work != "plug":
            near = min(h, on.here.height - h)
            rows.append(
                CheckSpec(
                    limit_id="hole-edge",
                    value=near / d,
                    formula="distance / diameter",
                    values={"distance": near, "diameter": d},
                    words="centre of the hole to the nearer edge of the web",
                    station_mm=x,
                    remedy="Move it towards the middle of the web, where bending is least.",
                )
            )
            for cut in on.cuts:
                away = abs(cut.centre_mm - x) - d / 2
                rows.append(
                    CheckSpec(
                        limit_id="hole-distance",
                        about="cut",
                        value=away / d,
                        formula="distance / diameter",
                        values={"distance": away, "diameter": d},
                        words="to the middle of the nearest cut",
                        detail="cut",
                        station_mm=x,
                        remedy="Move the hole away from the cut.",
                    )
                )
        if self.work == "sleeve" and self.sleeve:
            rows.append(self._sleeve_check(on))
        return tuple(rows)

    def _web_left(self, on: OnRail) -> CheckSpec:
        half = (self.diameter_mm + self.tall_mm) / 2
        above, below = on.here.height - self.height_mm - half, self.height_mm - half
        return CheckSpec(
            limit_id="pass-web",
            value=min(above, below),
            formula="min(above, below)",
            values={"above": above, "below": below},
            words="mm of web left above and below the hole, for the weld and for what bends it there; the sections judge its strength, the liner not counted",
            station_mm=on.span.centre_mm,
            remedy="A smaller or an oblong hole, or the rod nearer to the middle of the web.",
        )

    def _sleeve_check(self, on: OnRail) -> CheckSpec:
        sleeve = self.sleeve or Sleeve()
        bolt, steel = find_bolt(str(sleeve.bolt_size), sleeve.grade), find_steel(sleeve.steel_id)
        bore = sleeve.outside_mm - 2 * sleeve.wall_mm
        use, fit = sleeve_use(bolt, sleeve.outside_mm, steel.yield_mpa), bolt.size.diameter_mm / max(bore, 1e-9)
        least = sleeve_outside_mm(bolt, steel.yield_mpa)
        area = 0.785398163397 * (sleeve.outside_mm**2 - bolt.size.hole_mm**2)
        if use >= fit:
            formula, values = (
                "preload / (0.6 * yield_ * area)",
                {"preload": bolt.preload_n, "yield_": steel.yield_mpa, "area": max(area, 1e-9)},
            )
        else:
            formula, values = "diameter / bore", {"diameter": bolt.size.diameter_mm, "bore": max(bore, 1e-9)}
        return CheckSpec(
            limit_id="sleeve",
            value=max(use, fit),
            formula=formula,
            values=values,
            words="without a sleeve preload bends the walls in: the wrench reads true and the joint loosens",
            station_mm=on.span.centre_mm,
            remedy=f"A sleeve {as_length(least)} outside or more on a {as_thickness(bolt.size.hole_mm)} bore.",
        )

    def figures(self, on: OnRail) -> tuple[FigureSpec, ...]:
        """Web left beside the hole; the bolt's torque."""
        left = on.here.height - self.diameter_mm - self.tall_mm
        rows = [
            FigureSpec(
                key="left",
                name="Web left above and below the hole",
                value=left,
                unit="mm",
                basis=f"of {as_length(on.here.height)}",
            )
        ]
        if self.work == "sleeve" and self.sleeve:
            bolt = find_bolt(str(self.sleeve.bolt_size), self.sleeve.grade)
            rows.append(
                FigureSpec(
                    key="torque",
                    name=f"Torque of the {bolt.size.id} {bolt.grade.id} bolt, dry",
                    value=bolt.torque_nm("dry"),
                    unit="N m",
                    basis="T = 0.2 F d; the clamp load scatters by 30 % either way",
                )
            )
            rows.append(
                FigureSpec(
                    key="sleeve-least",
                    name="Least sleeve outside diameter",
                    value=sleeve_outside_mm(bolt, find_steel(self.sleeve.steel_id).yield_mpa),
                    unit="mm",
                    basis="preload at 0.6 of the sleeve's yield",
                )
            )
        return tuple(rows)

    def steps(self, datum: str) -> list[StepSpec]:
        """Drill, plug or sleeve."""
        at = f"{as_place(self.place.offset_mm)} {datum}, {as_length(self.height_mm)} above the underside"
        if self.work == "plug":
            how = next(words for most, words in PLUGS if self.diameter_mm <= most)
            return [
                StepSpec(
                    key="plug",
                    phase="fit",
                    title=f"Plug the {as_thickness(self.diameter_mm)} hole",
                    detail=f"{at}: {how}; ground flush and inspected for full penetration, or it counts as a hole.",
                    minutes=30,
                    tools=("welder", "grinder"),
                    cautions=(HOT,),
                    acts=("goes-inside",),
                )
            ]
        if self.work == "pass":
            return self._pass_steps(at)
        rows = [
            StepSpec(
                key="drill",
                phase="cut",
                title=f"Drill {as_thickness(self.diameter_mm)}",
                detail=f"{at}; pilot first, edges broken, no oil left where it will be welded.",
                minutes=20,
                tools=("drill",),
                cautions=(DUST,),
            )
        ]
        if self.weld_washers:
            words = "Weld washers on both faces, bolt in place while tacked so that they line up; they stop the hole going oval."
            rows.append(
                welded(
                    key="washers",
                    phase="fit",
                    title="Weld washers",
                    detail=words,
                    minutes=15,
                    acts=("goes-inside",),
                )
            )
        if self.work == "sleeve":
            rows.append(
                welded(
                    key="sleeve",
                    phase="fit",
                    title="Weld the crush sleeve",
                    detail="Through both walls before the rail is closed; ends square to the bolt's head, flush or a hair proud, welded both sides.",
                    minutes=40,
                    acts=("goes-inside",),
                )
            )
        return rows

    def _pass_steps(self, at: str) -> list[StepSpec]:
        size = as_thickness(self.diameter_mm) + (
            f" wide and {as_thickness(self.diameter_mm + self.tall_mm)} high" if self.tall_mm else ""
        )
        rows = [
            StepSpec(
                key="open",
                phase="cut",
                title=f"Open the rail for the rod, {size}",
                detail=f"{at}; through every wall from one pilot hole square to the centre plane, so that both openings line up; edges ground round.",
                minutes=50,
                tools=("hole saw", "grinder"),
                cautions=(DUST,),
            )
        ]
        if self.liner_mm:
            rows.append(
                welded(
                    key="line",
                    phase="weld",
                    title="Weld the liner",
                    detail=f"{as_thickness(self.liner_mm)} wall, a hair proud on both faces, welded all round on both; then look through it with the rod at full bump, full droop and both locks.",
                    minutes=70,
                )
            )
        return rows

    def measured_fields(self) -> dict[str, str]:
        """What is read after welding."""
        return {"position": "place"}

    def readings(self, datum: str) -> list[ReadingSpec]:
        """Where it is."""
        return [reading("position", "Centre of the hole", self.place.offset_mm, datum)]
