"""Checks of a wheel in its arch."""

from nodulant.checks.check import Changes, Check, Governs, Subject, Why, judge
from nodulant.parts.sides import AxleName
from nodulant.survey.arch import Arch


def arch_check(axle: AxleName, hub_x_mm: float, arch: Arch, changes: Changes) -> Check:
    """The wheel stands in the middle of its arch, fore and aft, at ride height."""
    off = hub_x_mm - arch.middle_x_mm
    return judge(
        "arch-middle",
        Subject(subject=f"{axle}-wheel", stage="travel"),
        abs(off),
        Why(
            formula="abs(hub - (front + rear) / 2)",
            values={"hub": hub_x_mm, "front": arch.front_x_mm, "rear": arch.rear_x_mm},
            words=f"mm {'behind' if off > 0 else 'ahead of'} the middle of the arch at ride height, measured to the arch and not to a bed or skirt that comes off",
        ),
        changes,
        detail=f"{axle} wheel",
        governs=Governs(station_mm=hub_x_mm, pose_mm=0.0),
        remedy=f"Move the axle {'forward' if off > 0 else 'rearward'}, or open the arch.",
    )
