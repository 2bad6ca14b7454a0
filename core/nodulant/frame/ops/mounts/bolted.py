"""Bolts of a plate or foot: where they stand, what they carry, and the holes that they need.

Places are data; without them half of a foot's bolts stand in a column at each end, evenly over its
height, and an end of a bracket's plate has two rows. Forces by the elastic vector method (AISC Manual
part 7, from memory): direct shear, and torsion and pull in proportion to the distance from the centroid.
"""

import math
from collections.abc import Iterable, Sequence
from itertools import combinations
from typing import Annotated, Literal

from pydantic import Field

from nodulant.base.errors import InputError
from nodulant.base.model import Frozen, Size
from nodulant.base.shown import Shown
from nodulant.frame.additions import Hole
from nodulant.frame.here import OnRail
from nodulant.frame.ops.fresh import Piece
from nodulant.frame.ops.welded import welded
from nodulant.materials import find_steel
from nodulant.materials.bolts import (
    SOCKET_PER_D,
    Bolt,
    find_bolt,
    hole_n,
    sleeve_outside_mm,
    sleeve_shortens_mm,
    wall_crush_n,
)
from nodulant.materials.steel import SAFETY_ON_YIELD
from nodulant.parts.bought import BoltsNeeded, Needed, TubeNeeded
from nodulant.parts.cautions import DUST
from nodulant.parts.specs import CheckSpec, FigureSpec, StepSpec
from nodulant.units.inline import as_amount, as_length, as_thickness


class BoltAt(Frozen):
    """A bolt's place: along the rail and up, from the middle of its foot or of its end's pattern, mm."""

    along_mm: Annotated[float, Field(ge=-1_000, le=1_000)]
    up_mm: Annotated[float, Field(ge=-500, le=500)]


SOCKET_CLEAR_MM = 3.0
"""What a socket's hole is larger by than the socket (common practice)."""
Spot = tuple[float, float]
"""Along and up, mm."""


class BoltGroup(Piece):
    """``per_end`` bolts at each end of a plate; ``edge_mm`` from a bolt's centre to the plate's end."""

    size: Annotated[str, Field(max_length=20), Shown("Size")] = "M12"
    grade: Annotated[str, Field(max_length=20), Shown("Grade")] = "10.9"
    per_end: Annotated[int, Field(ge=1, le=20), Shown("Bolts at each end")] = 4
    edge_mm: Annotated[Size, Shown("Centre to plate's end")] = 25.0
    sleeves: Annotated[bool, Shown("Crush sleeves welded through")] = False
    """Crush sleeves through the rail, where it is closed."""
    nuts: Annotated[
        Literal["loose", "captive", "socket"],
        Shown(
            "Nuts",
            choices={
                "loose": "outside, bolts through all walls",
                "captive": "welded inside, captive",
                "socket": "inside, through a socket's hole",
            },
            note="In a closed rail. Captive ones go in before it is closed; a socket's hole lies in the wall opposite each.",
        ),
    ] = "loose"
    positions: Annotated[
        tuple[BoltAt, ...],
        Field(max_length=40),
        Shown("Bolts one by one, from the middle", kind="spots", note="None given: the usual pattern."),
    ] = ()
    """Every bolt of a foot, or of one end of a bracket's plate; empty for the usual pattern."""

    def hole_mm(self) -> float:
        """Hole in the rail for one bolt: a crush sleeve's outside where it has sleeves."""
        bolt = self.bolt()
        if not self.sleeves:
            return bolt.size.hole_mm
        return math.ceil(sleeve_outside_mm(bolt, find_steel("mild").yield_mpa))

    @property
    def captive(self) -> bool:
        """Nuts welded to the inside of the wall that is bolted to; sleeves have none."""
        return self.nuts == "captive" and not self.sleeves

    @property
    def one_wall(self) -> bool:
        """Whether it clamps one wall of a closed rail, so that its preload bends none in."""
        return self.nuts != "loose" and not self.sleeves

    def socket_mm(self, closed: bool) -> float | None:
        """Hole in a closed rail's other wall through which a socket reaches the nut; None where none is needed."""
        if not closed or self.sleeves or self.nuts != "socket":
            return None
        return float(math.ceil(SOCKET_PER_D * self.bolt().size.diameter_mm + SOCKET_CLEAR_MM))

    def holes_at(self, spots: Iterable[Spot], closed: bool) -> tuple[Hole, ...]:
        """The holes that bolts at these stations and heights take out of the rail.

        A bolt's hole in one wall and its socket's in the other count as two holes of their mean: as much metal in all.
        """
        socket = self.socket_mm(closed)
        across = self.hole_mm() if socket is None else (self.hole_mm() + socket) / 2
        return tuple(Hole(x, z, across, through=closed and not self.captive) for x, z in spots)

    def bolt(self) -> Bolt:
        """Size and grade; raises UnknownReference."""
        return find_bolt(self.size, self.grade)

    def bought(self, name: str, count: int, plates_mm: float, on: OnRail) -> tuple[Needed, ...]:
        """``count`` bolts through plates and one wall of the rail, or through all of it in crush sleeves."""
        closed = on.rail.closed or on.here.boxed
        if not self.sleeves:
            bolts = BoltsNeeded(
                name=name,
                through_rail=True,
                size=self.size,
                grade=self.grade,
                grip_mm=plates_mm + (on.here.closed_width if closed and not self.one_wall else on.here.wall),
                count=count,
                captive=self.captive,
                socket_mm=self.socket_mm(closed),
            )
            return (bolts,)
        bolt, steel = self.bolt(), find_steel("mild")
        outside = sleeve_outside_mm(bolt, steel.yield_mpa)
        sleeve = TubeNeeded(
            name=f"{name}, crush sleeve",
            od_mm=math.ceil(outside),
            wall_mm=(math.ceil(outside) - bolt.size.hole_mm) / 2,
            long_mm=on.here.closed_width,
            steel_id="mild",
            count=count,
        )
        grip = plates_mm + on.here.closed_width
        return (
            BoltsNeeded(name=name, size=self.size, grade=self.grade, grip_mm=grip, count=count, through_rail=True),
            sleeve,
        )

    def on_foot(self, long_mm: float, tall_mm: float) -> tuple[Spot, ...]:
        """Bolts of a foot from its middle: as given, or a column at each end."""
        if self.positions:
            return tuple((b.along_mm, b.up_mm) for b in self.positions)
        out, up = max(long_mm / 2 - self.edge_mm, 0.5), max(tall_mm / 2 - self.edge_mm, 0.0)
        n = self.per_end
        rows = [0.0] if n == 1 else [up * (2 * i / (n - 1) - 1) for i in range(n)]
        return tuple((side * out, row) for side in (-1.0, 1.0) for row in rows)

    def refuse_off_foot(self, long_mm: float, tall_mm: float, field: str) -> None:
        """Raise InputError at ``field`` where a hole breaks out of its foot."""
        need = self.hole_mm() / 2
        spots = self.on_foot(long_mm, tall_mm)
        for one, two in combinations(spots, 2):
            if math.dist(one, two) <= 2 * need:
                raise InputError(
                    "two bolts stand in one hole",
                    field=field,
                    found=f"holes of {as_length(2 * need)}, {as_length(math.dist(one, two))} apart",
                    acceptable=f"more than {as_length(2 * need)} apart: fewer bolts, or a bigger foot",
                )
        for along, up in spots:
            if abs(along) + need >= long_mm / 2 or abs(up) + need >= tall_mm / 2:
                raise InputError(
                    "a bolt's hole breaks out of its foot",
                    field=field,
                    found=f"a hole of {as_length(2 * need)}, {along:.1f} along and {up:.1f} up from the middle of {as_length(long_mm)} x {as_length(tall_mm)}",
                    acceptable="holes inside the foot: a bigger foot, or a smaller bolt",
                )

    def on_end(self, depth_mm: float, overlap_mm: float, diamond: bool) -> tuple[Spot, ...]:
        """Bolts of one end of a bracket's plate: from its end inward, and up from its middle; two rows, columns three diameters apart."""
        d = self.bolt().size.diameter_mm
        if self.positions:
            return tuple((b.along_mm, b.up_mm) for b in self.positions)
        up = 0.0 if self.per_end == 1 else depth_mm / 4
        first = self.edge_mm + (up + (math.sqrt(2) - 1) * self.edge_mm if diamond else 0.0)
        columns = (self.per_end + 1) // 2
        room = max(overlap_mm - 1.5 * d - first, 0.0)
        pitch = min(3 * d, room / max(columns - 1, 1))
        spots = [(first + k * pitch, row) for k in range(columns) for row in ((up, -up) if up else (0.0,))]
        return tuple(spots[: self.per_end])

    def share(self, area_mm2: float, thickness_mm: float, steel_id: str) -> float:
        """How much of a plate's own capacity the bolts of one end bring in by bearing and shear, at most 1."""
        steel = find_steel(steel_id)
        return min(1.0, self.carried_n(thickness_mm, steel_id) / (area_mm2 * steel.yield_mpa / SAFETY_ON_YIELD))

    def carried_n(self, thickness_mm: float, steel_id: str) -> float:
        """What one end's bolts carry in bearing, tear-out and single shear, N."""
        bolt = self.bolt()
        hole = hole_n(bolt, self.edge_mm, thickness_mm, find_steel(steel_id).ultimate_mpa)
        return self.per_end * min(bolt.shear_n(), hole)

    def friction(self, area_mm2: float, steel_id: str) -> float:
        """How much of a plate's own capacity friction brings in at one end: n mu F over A f_y/1.5, at most 1."""
        capacity = area_mm2 * find_steel(steel_id).yield_mpa / SAFETY_ON_YIELD
        return min(1.0, self.per_end * self.bolt().slip_n() / capacity)

    def net(self, depth_mm: float) -> float:
        """Width left beside two holes in a row across the plate, as a share of it."""
        return max(0.0, 1.0 - 2 * self.bolt().size.hole_mm / depth_mm)


def bolt_checks(bolts: BoltGroup, plate_mm: float, steel_id: str, on: OnRail) -> tuple[CheckSpec, ...]:
    """Edge distance, hole against bolt, and the sleeve that a closed rail needs."""
    bolt, station_mm = bolts.bolt(), on.span.centre_mm
    d = bolt.size.diameter_mm
    tear = hole_n(bolt, bolts.edge_mm, plate_mm, find_steel(steel_id).ultimate_mpa)
    rows = [
        CheckSpec(
            limit_id="edge-distance",
            about="bolts",
            value=bolts.edge_mm / d,
            formula="edge / diameter",
            values={"edge": bolts.edge_mm, "diameter": d},
            words="centre of the last bolt to the plate's end",
            station_mm=station_mm,
            remedy=f"{as_length(1.5 * d)} or more.",
        ),
        CheckSpec(
            limit_id="hole-carries",
            about="bolts",
            value=tear / bolt.slip_n(),
            formula="hole / slip",
            values={"hole": tear, "slip": bolt.slip_n()},
            words="bearing and tear-out of one hole against what its bolt holds by friction, N",
            station_mm=station_mm,
            remedy="A thicker plate or more edge.",
        ),
    ]
    if (on.rail.closed or on.here.boxed) and not bolts.one_wall:
        rows.append(_crush_check(bolts, on))
    return tuple(rows)


def _crush_check(bolts: BoltGroup, on: OnRail) -> CheckSpec:
    """A closed rail's walls under the preload, unless sleeves take it."""
    bolt = bolts.bolt()
    wall = wall_crush_n(bolt, on.here.wall, on.here.height - 2 * on.here.wall, find_steel(on.rail.steel_id).yield_mpa)
    values = {"preload": bolt.preload_n} | ({"sleeves": 1.0} if bolts.sleeves else {"wall": wall})
    value = 1.0 if bolts.sleeves else wall / (SAFETY_ON_YIELD * bolt.preload_n)
    return CheckSpec(
        limit_id="sleeve-there",
        about="bolts",
        value=value,
        formula="sleeves" if bolts.sleeves else "wall / (1.5 * preload)",
        values=values,
        words="preload bends a closed section's walls in, the wrench reads true, and the joint loosens; wall: where it yields under the washer, N",
        station_mm=on.span.centre_mm,
        same_as_stock=bolts.sleeves,
        remedy="Weld a crush sleeve through for every bolt, or nuts inside, captive or through a socket's hole, so that one wall is clamped.",
    )


def worst_bolt(
    spots: Sequence[Spot], force_n: tuple[float, float, float], arm_mm: tuple[float, float]
) -> tuple[float, float]:
    """Pull and shear, N, of the bolt that is worked hardest; force (out, along, up) off the face and above the middle."""
    n = len(spots)
    cx, cy = sum(x for x, _ in spots) / n, sum(y for _, y in spots) / n
    away = [(x - cx, y - cy) for x, y in spots]
    second_x = max(sum(x * x for x, _ in away), 1e-6)
    second_y = max(sum(y * y for _, y in away), 1e-6)
    product = sum(x * y for x, y in away)
    out, along, up = force_n
    standoff, lift = arm_mm[0], arm_mm[1] - cy
    over_x, over_y = -along * standoff - out * cx, out * lift - up * standoff
    # pull grows linearly over the pattern: its slopes from the pattern's second moments, turned patterns too
    whole = second_x * second_y - product**2
    if whole > 1e-9 * second_x * second_y:
        slope_x = (over_x * second_y - over_y * product) / whole
        slope_y = (over_y * second_x - over_x * product) / whole
    else:
        slope_x, slope_y = over_x / second_x, over_y / second_y
    twist = -along * lift - up * cx
    found = []
    for x, y in away:
        shear = math.hypot(along / n - twist * y / (second_x + second_y), up / n + twist * x / (second_x + second_y))
        found.append((abs(slope_x * x + slope_y * y) + max(out, 0.0) / n, shear))
    return max(found, key=lambda f: f[0] ** 2 + f[1] ** 2)


def foot_bolt_check(
    bolts: BoltGroup,
    foot_mm: tuple[float, float],
    force_n: tuple[float, float, float],
    arm_mm: tuple[float, float],
    station_mm: float,
    about: str = "",
) -> CheckSpec:
    """Worst bolt of a foot: force (out, along, up), its point off the face and above the foot's middle."""
    bolt = bolts.bolt()
    pull, shear = worst_bolt(bolts.on_foot(*foot_mm), force_n, arm_mm)
    use = ((shear / bolt.shear_n()) ** 2 + (pull / bolt.tension_n()) ** 2) ** 0.5
    return CheckSpec(
        limit_id="bolt-group",
        about=about,
        value=use,
        formula="((shear / shear_capacity) ** 2 + (pull / pull_capacity) ** 2) ** 0.5",
        values={"shear": shear, "shear_capacity": bolt.shear_n(), "pull": pull, "pull_capacity": bolt.tension_n()},
        words="worst bolt of the foot by the elastic vector method, N",
        station_mm=station_mm,
        remedy="More or bigger bolts, or a longer foot.",
    )


def bolt_figures(bolts: BoltGroup, area_mm2: float, steel_id: str, across_mm: float) -> tuple[FigureSpec, ...]:
    """Torque, share brought in by friction, sleeve through a rail ``across_mm`` wide."""
    bolt = bolts.bolt()
    rows = [
        FigureSpec(
            key="torque-dry",
            name=f"Torque, {bolt.size.id} {bolt.grade.id}, dry",
            value=bolt.torque_nm("dry"),
            unit="N m",
            basis="T = K F d, K 0.2, F three quarters of proof; clamp load scatters by 30 %",
        ),
        FigureSpec(
            key="torque-oiled",
            name=f"Torque, {bolt.size.id} {bolt.grade.id}, oiled",
            value=bolt.torque_nm("oiled"),
            unit="N m",
            basis="K 0.15",
        ),
        FigureSpec(
            key="friction",
            name="Plate brought in by friction",
            value=bolts.friction(area_mm2, steel_id),
            unit="share",
            basis="n x 0.2 x preload over the plate's own capacity",
        ),
    ]
    if bolts.sleeves:
        least = sleeve_outside_mm(bolt, find_steel("mild").yield_mpa)
        rows.append(
            FigureSpec(
                key="sleeve",
                name="Least sleeve outside diameter, mild steel",
                value=least,
                unit="mm",
                basis="preload at 0.6 of its yield on the clearance bore",
            )
        )
        rows.append(
            FigureSpec(
                key="sleeve-proud",
                name="Sleeve shortens under the preload by",
                value=sleeve_shortens_mm(across_mm, find_steel("mild").yield_mpa),
                unit="mm",
                basis="0.6 of its yield over its length; cut it longer than the rail is wide by this and no less",
            )
        )
    return tuple(rows)


def drill_step(bolts: BoltGroup, count: int, at: str) -> StepSpec:
    """Drill the rail for its bolts, through the plate as a template."""
    sleeve = " for their crush sleeves, welded in on both sides before the rail is closed" if bolts.sleeves else ""
    socket = bolts.socket_mm(closed=True)
    nuts = (
        f" A closed rail takes a hole of {as_thickness(socket)} in its other wall, opposite each, for the socket; capped afterwards."
        if socket is not None
        else ""
    )
    return StepSpec(
        key="drill",
        phase="cut",
        title=f"Drill {count} holes of {as_thickness(bolts.hole_mm())}",
        detail=f"{at}; through the plate as a template, pilot first, then {as_thickness(0.5)} under, reamed to size, from one side square through{sleeve}; edges broken.{nuts}",
        minutes=8 * count,
        tools=("drill", "centre punch"),
        cautions=(DUST,),
    )


def inside_steps(bolts: BoltGroup, count: int) -> list[StepSpec]:
    """What is welded into the rail for its bolts before anything closes it; nothing for loose ones."""
    if bolts.sleeves:
        return [
            welded(
                key="sleeves",
                phase="fit",
                title=f"Weld {count} crush sleeves",
                detail="Through both walls, ends square, flush or a hair proud, welded on both sides and dressed.",
                minutes=20 * count,
                acts=("goes-inside",),
            )
        ]
    if not bolts.captive:
        return []
    return [
        welded(
            key="nuts",
            phase="fit",
            title=f"Weld {count} captive nuts",
            detail="Each held in the middle of its hole by a countersunk screw of its thread; short beads on its flats by turns, the screw turned now and then; thread run through when cold.",
            minutes=10 * count,
            with_tools=("countersunk screw", "tap"),
            acts=("goes-inside",),
        )
    ]


def torque_words(bolts: BoltGroup) -> str:
    """How tight, dry and oiled."""
    bolt = bolts.bolt()
    return f"new {bolt.size.id} {bolt.grade.id} bolts with hardened washers to {tightened(bolt)}"


def tightened(bolt: Bolt) -> str:
    """Its torque, dry and oiled."""
    return f"{as_amount('torque', bolt.torque_nm('dry'))} dry, {as_amount('torque', bolt.torque_nm('oiled'))} oiled"
