"""A row of bolts at each end of a plate, and what it can carry."""

from typing import Annotated

from pydantic import Field

from nodulant.base.model import Frozen, Size
from nodulant.materials import find_steel
from nodulant.materials.bolts import Bolt, find_bolt, hole_n, sleeve_outside_mm
from nodulant.materials.steel import SAFETY_ON_YIELD
from nodulant.parts.specs import CheckSpec, FigureSpec


class BoltGroup(Frozen):
    """``per_end`` bolts at each end of a plate; ``edge_mm`` from a bolt's centre to the plate's end."""

    size: Annotated[str, Field(max_length=20)] = "M12"
    grade: Annotated[str, Field(max_length=20)] = "10.9"
    per_end: Annotated[int, Field(ge=1, le=20)] = 4
    edge_mm: Size = 25.0
    sleeves: bool = False
    """Crush sleeves through the rail, where it is closed."""

    def bolt(self) -> Bolt:
        """Size and grade; raises UnknownReference."""
        return find_bolt(self.size, self.grade)

    def share(self, area_mm2: float, steel_id: str) -> float:
        """How much of a plate's own capacity friction brings in at one end: n mu F over A f_y/1.5, at most 1."""
        capacity = area_mm2 * find_steel(steel_id).yield_mpa / SAFETY_ON_YIELD
        return min(1.0, self.per_end * self.bolt().slip_n() / capacity)

    def net(self, depth_mm: float) -> float:
        """Width left beside two holes in a row across the plate, as a share of it."""
        return max(0.0, 1.0 - 2 * self.bolt().size.hole_mm / depth_mm)


def bolt_checks(
    bolts: BoltGroup, plate_mm: float, steel_id: str, closed: bool, station_mm: float
) -> tuple[CheckSpec, ...]:
    """Edge distance, hole against bolt, and the sleeve that a closed rail needs."""
    bolt = bolts.bolt()
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
            remedy=f"{1.5 * d:.1f} mm or more.",
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
    if closed:
        have = 1.0 if bolts.sleeves else 0.0
        rows.append(
            CheckSpec(
                limit_id="sleeve-there",
                about="bolts",
                value=have,
                formula="sleeves",
                values={"sleeves": have},
                words="a bolt through a closed section needs a crush sleeve: preload bends the walls in, the wrench reads true, and the joint loosens",
                station_mm=station_mm,
                same_as_stock=bolts.sleeves,
                remedy="Weld a crush sleeve through for every bolt.",
            )
        )
    return tuple(rows)


def foot_bolt_check(
    bolts: BoltGroup,
    foot_mm: tuple[float, float],
    force_n: tuple[float, float, float],
    arm_mm: tuple[float, float],
    station_mm: float,
    about: str = "",
) -> CheckSpec:
    """Worst bolt of a foot held by two rows: force (out, along, up), its point off the face and above the foot's middle."""
    bolt, n = bolts.bolt(), 2 * bolts.per_end
    out, along, up = force_n
    standoff, lift = arm_mm
    long = max(foot_mm[0] - 2 * bolts.edge_mm, 1.0)
    tall = max(foot_mm[1] - 2 * bolts.edge_mm, 1.0)
    turning = abs(along * lift) / (n * max(long, tall) / 2)
    shear = (along**2 + up**2) ** 0.5 / n + turning
    pull = max(out, 0.0) / n + standoff * (abs(along) / (long * bolts.per_end) + abs(up) / (tall * bolts.per_end))
    pull += abs(out * lift) / (tall * bolts.per_end)
    use = ((shear / bolt.shear_n()) ** 2 + (pull / bolt.tension_n()) ** 2) ** 0.5
    return CheckSpec(
        limit_id="bolt-group",
        about=about,
        value=use,
        formula="((shear / shear_capacity) ** 2 + (pull / pull_capacity) ** 2) ** 0.5",
        values={"shear": shear, "shear_capacity": bolt.shear_n(), "pull": pull, "pull_capacity": bolt.tension_n()},
        words="worst bolt of the foot, N; half of the bolts in each row",
        station_mm=station_mm,
        remedy="More or bigger bolts, or a longer foot.",
    )


def bolt_figures(bolts: BoltGroup, area_mm2: float, steel_id: str) -> tuple[FigureSpec, ...]:
    """Torque, share brought in by friction, sleeve."""
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
            value=bolts.share(area_mm2, steel_id),
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
    return tuple(rows)
