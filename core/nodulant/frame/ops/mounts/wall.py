"""The rail's own wall under a bracket's foot: it bends between the rail's corners before the weld tears.

Yield lines of a wall of thickness t and clear height H under a rigid foot, beta = tall/H, eta =
long/H: N = f_y t^2/(1 - beta) (2 eta + 4 sqrt(1 - beta)) (chord-face failure of a plate on a
hollow section, EN 1993-1-8 table 7.13, from memory). A foot taller than 0.85 H counts as 0.85: its
edges then carry by shear. Moments count as the couple that they make over the foot.
"""

from nodulant.materials.steel import SAFETY_ON_YIELD
from nodulant.parts.specs import CheckSpec

TALLEST = 0.85


def wall_capacity_n(wall_mm: float, height_mm: float, tall_mm: float, long_mm: float, yield_mpa: float) -> float:
    """Force square to the wall at first yield line over 1.5, N."""
    beta, eta = min(tall_mm / height_mm, TALLEST), long_mm / height_mm
    plastic: float = yield_mpa * wall_mm**2 / (1 - beta) * (2 * eta + 4 * (1 - beta) ** 0.5)
    return plastic / SAFETY_ON_YIELD


def wall_check(
    force_n: tuple[float, float, float],
    arm_mm: tuple[float, float],
    foot_mm: tuple[float, float],
    capacity_n: float,
    station_mm: float,
) -> CheckSpec:
    """The foot's push and couples on the wall: force (out, along, up), bolt off the face and above the foot, foot long and tall."""
    out, along, up = (abs(v) for v in force_n)
    standoff, lift = arm_mm[0], abs(arm_mm[1])
    long, tall = foot_mm
    couple = along * standoff / long + (up * standoff + out * lift) / tall
    values = {"out": out, "couple": couple, "capacity": capacity_n}
    return CheckSpec(
        limit_id="rail-wall",
        value=(out + couple) / capacity_n,
        formula="(out + couple) / capacity",
        values=values,
        words="N square to the wall: the pull itself, and what standoff and lift make over the foot's length and height; capacity: yield lines of the bare wall over 1.5",
        station_mm=station_mm,
        remedy="A longer foot, a doubler under it, a gusset to the flanges, or a sleeve and bolts through both walls.",
        same_as_stock=out + couple == 0,
    )
