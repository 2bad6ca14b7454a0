"""Two tabs that hold a joint's bolt: holes in a row, room for joint, shims, socket and bolt, and what they carry.

The joint goes between the tabs with a shim on each side while they are tacked, so that the pull of
the weld leaves it free (common practice). A single tab, or a stud, carries its joint in single
shear: the bolt then bends, M = F (tab + joint)/2.
"""

import math
from typing import Annotated

from pydantic import Field

from nodulant.base.model import Extra, Frozen, Size, Thickness
from nodulant.base.shown import Shown
from nodulant.geometry.hull import XY, around, hull
from nodulant.materials import find_steel
from nodulant.materials.bolts import SOCKET_PER_D, Bolt, find_bolt, hole_n
from nodulant.materials.steel import SAFETY_ON_YIELD
from nodulant.parts.bought import BoltsNeeded
from nodulant.parts.part import RoundHole
from nodulant.parts.specs import CheckSpec, FigureSpec
from nodulant.units.inline import as_length, as_thickness

NUT_PER_D = 1.3
"""What nut and washers take of a bolt's length, in diameters (common practice)."""
Holes = Annotated[int, Field(ge=0, le=8)]


class Tabs(Frozen):
    """Two tabs that hold the joint's bolt, ``standoff_mm`` from the face they stand on."""

    thickness_mm: Annotated[Thickness, Shown("Tab thickness")] = 6.0
    width_mm: Annotated[Size, Shown("Tab width")] = 60.0
    standoff_mm: Annotated[Size, Shown("Joint's bolt off what it stands on")] = 55.0
    lift_mm: Annotated[float, Field(ge=-400, le=400), Shown("Bolt above the foot's middle")] = 0.0
    """Joint's bolt above the foot's middle; negative where the tabs hang below it."""
    edge_mm: Annotated[Size, Shown("Hole to tab's end")] = 30.0
    bolt_size: Annotated[str, Field(max_length=20), Shown("Joint's bolt")] = "M16"
    grade: Annotated[str, Field(max_length=20), Shown("Its grade")] = "10.9"
    stiff: Annotated[bool, Shown("Both tabs stiff: two shear planes")] = True
    """Both tabs carry: two shear planes count."""
    single: Annotated[bool, Shown("One tab or a stud: single shear")] = False
    """One tab or a stud only: single shear, and the bolt bends."""
    joint_mm: Annotated[Size, Shown("Joint is wide")] = 60.0
    """Width of the joint between the tabs."""
    shim_mm: Annotated[Extra, Shown("Shim each side", kind="thickness")] = 0.38
    """On each side of the joint while the tabs are tacked; 15 thou."""
    holes_above: Annotated[Holes, Shown("Holes above it")] = 0
    holes_below: Annotated[Holes, Shown("Holes below it")] = 0
    pitch_mm: Annotated[Size, Shown("Between holes")] = 40.0
    """Between holes of the row; the joint sits in the one that the figures are for."""
    room_mm: Annotated[Extra | None, Shown("Free way for the bolt")] = None
    """Free way for the bolt to come out, past truss, skid plate or rail; None where nobody has looked."""

    def bolt(self) -> Bolt:
        """Size and grade; raises UnknownReference."""
        return find_bolt(self.bolt_size, self.grade)

    def bought(self, name: str, count: int = 1) -> BoltsNeeded:
        """The joint's bolts: through both tabs, their shims and the joint."""
        grip = self.count * self.thickness_mm + self.joint_mm + 2 * self.shim_mm
        return BoltsNeeded(name=f"{name}, joint", size=self.bolt_size, grade=self.grade, grip_mm=grip, count=count)

    @property
    def count(self) -> int:
        """How many tabs there are."""
        return 1 if self.single else 2

    @property
    def row(self) -> tuple[float, ...]:
        """Where the holes stand above the joint's own, mm."""
        return tuple(self.pitch_mm * k for k in range(-self.holes_below, self.holes_above + 1))

    @property
    def inside_mm(self) -> float:
        """Between the tabs as they are tacked."""
        return self.joint_mm + 2 * self.shim_mm

    @property
    def bolt_mm(self) -> float:
        """Length of bolt under the head."""
        return self.joint_mm + self.count * self.thickness_mm + NUT_PER_D * self.bolt().size.diameter_mm


def tab_shape(tabs: Tabs, foot: list[XY], joint: XY) -> tuple[list[XY], tuple[RoundHole, ...]]:
    """Corners of a tab around its foot and every hole of its row, and the holes; the row runs along the second axis."""
    spots = [(joint[0], joint[1] + rise) for rise in tabs.row]
    size = tabs.bolt().size.hole_mm
    edge = max(tabs.edge_mm, size / 2 + 1.0)
    corners = hull([*foot, *(p for spot in spots for p in around(spot, edge))])
    return corners, tuple(RoundHole(x_mm=x, y_mm=y, diameter_mm=size) for x, y in spots)


def fit_checks(tabs: Tabs, at: float) -> list[CheckSpec]:
    """Edge, row and room: what needs no force."""
    d = tabs.bolt().size.diameter_mm
    rows = [
        CheckSpec(
            limit_id="edge-distance",
            about="tab",
            value=tabs.edge_mm / d,
            formula="edge / diameter",
            values={"edge": tabs.edge_mm, "diameter": d},
            words="joint's hole to the tab's end",
            detail="tab",
            station_mm=at,
            remedy=f"{as_length(1.5 * d)} or more.",
        ),
        CheckSpec(
            limit_id="wrench-room",
            value=tabs.standoff_mm - SOCKET_PER_D * d / 2,
            formula="standoff - socket / 2",
            values={"standoff": tabs.standoff_mm, "socket": SOCKET_PER_D * d},
            words="bolt off the face it stands on, less half a socket; mm",
            station_mm=at,
            remedy="More standoff, or a smaller bolt.",
        ),
    ]
    if len(tabs.row) > 1:
        rows.append(
            CheckSpec(
                limit_id="hole-pitch",
                value=tabs.pitch_mm / d,
                formula="pitch / diameter",
                values={"pitch": tabs.pitch_mm, "diameter": d},
                words="between the holes of the row",
                station_mm=at,
                remedy=f"{as_length(2.5 * d)} or more, or fewer holes.",
            )
        )
    if tabs.room_mm is not None:
        rows.append(
            CheckSpec(
                limit_id="bolt-out",
                value=tabs.room_mm / tabs.bolt_mm,
                formula="room / bolt",
                values={"room": tabs.room_mm, "bolt": tabs.bolt_mm},
                words="free way beside the tabs against the bolt's length: joint, tabs, washers and nut; mm",
                station_mm=at,
                remedy="Turn the bolt round, clock the bracket, or cut an access hole before it is welded.",
            )
        )
    return rows


def unloaded(limit_id: str, at: float, missing: str = "along_n") -> CheckSpec:
    """A rule that waits for the force."""
    remedy = "The force at limit load is not given."
    return CheckSpec(limit_id=limit_id, value=None, station_mm=at, missing=(missing,), remedy=remedy)


def carry_checks(
    tabs: Tabs, steel_id: str, force_n: float, moment_nmm: float, at: float, missing: str = "along_n"
) -> list[CheckSpec]:
    """Bolt, hole and bending of the tabs under ``force_n`` at the joint and ``moment_nmm`` at their foot."""
    if force_n <= 0:
        return [unloaded(rule, at, missing) for rule in ("link-bolt", "tab-hole", "tab-bending")]
    steel = find_steel(steel_id)
    hole = tabs.count * hole_n(tabs.bolt(), tabs.edge_mm, tabs.thickness_mm, steel.ultimate_mpa)
    modulus = tabs.count * tabs.thickness_mm * tabs.width_mm**2 / 6
    return [
        _bolt(tabs, force_n, at),
        CheckSpec(
            limit_id="tab-hole",
            value=force_n / hole,
            formula="force / capacity",
            values={"force": force_n, "capacity": hole},
            words="bearing or tear-out of the one tab" if tabs.single else "bearing or tear-out of both tabs",
            station_mm=at,
            remedy="Thicker tabs, or more edge.",
        ),
        CheckSpec(
            limit_id="tab-bending",
            value=SAFETY_ON_YIELD * moment_nmm / (modulus * steel.beside_weld_mpa),
            formula="1.5 * moment / (modulus * yield_)",
            values={"moment": moment_nmm, "modulus": modulus, "yield_": steel.beside_weld_mpa},
            words="the tabs in their own plane, to the gusset where there is one; yield beside the weld",
            station_mm=at,
            same_as_stock=moment_nmm == 0,
            remedy="Wider or thicker tabs, less standoff, or a gusset.",
        ),
    ]


def _bolt(tabs: Tabs, force_n: float, at: float) -> CheckSpec:
    """Shear over one plane or two; in single shear the bolt bends as well."""
    bolt = tabs.bolt()
    if not tabs.single:
        planes = 2 if tabs.stiff else 1
        capacity = bolt.shear_n(planes)
        return CheckSpec(
            limit_id="link-bolt",
            value=force_n / capacity,
            formula="force / capacity",
            values={"force": force_n, "capacity": capacity},
            words=f"{planes} shear plane{'s' if planes > 1 else ''}",
            station_mm=at,
            remedy="A bigger bolt, or tabs stiff enough for two planes.",
        )
    core = math.sqrt(4 * bolt.size.stress_area_mm2 / math.pi)
    bending = 32 * force_n * (tabs.thickness_mm + tabs.joint_mm) / 2 / (math.pi * core**3)
    allowed = bolt.grade.proof(bolt.size.diameter_mm) / SAFETY_ON_YIELD
    shear, capacity = force_n, bolt.shear_n(1)
    return CheckSpec(
        limit_id="link-bolt",
        value=((bending / allowed) ** 2 + (shear / capacity) ** 2) ** 0.5,
        formula="((bending / allowed) ** 2 + (shear / capacity) ** 2) ** 0.5",
        values={"bending": bending, "allowed": allowed, "shear": shear, "capacity": capacity},
        words="single shear: the bolt bends under (tab + joint)/2, MPa against proof/1.5, and is sheared, N",
        station_mm=at,
        remedy="Double shear: a second tab stiff enough to carry, or a bigger bolt.",
    )


def tab_figures(tabs: Tabs) -> tuple[FigureSpec, ...]:
    """Torque of the joint's bolt, its length, and how wide the tabs are set."""
    bolt = tabs.bolt()
    return (
        FigureSpec(
            key="link-torque",
            name=f"Torque of the joint's {bolt.size.id} {bolt.grade.id} bolt, dry",
            value=bolt.torque_nm("dry"),
            unit="N m",
            basis="T = 0.2 F d; tightened at ride height where the joint is rubber",
        ),
        FigureSpec(
            key="between-tabs",
            name="Tabs are tacked apart by",
            value=tabs.inside_mm,
            unit="mm",
            basis=f"joint and a {as_thickness(tabs.shim_mm)} shim on each side",
        ),
        FigureSpec(
            key="bolt-length",
            name="Joint's bolt, under the head",
            value=tabs.bolt_mm,
            unit="mm",
            basis="joint, tabs, washers and nut",
        ),
    )
