"""Checks of mounts against the joints that they carry."""

import math

from nodulant.checks.check import Changes, Check, Governs, Subject, Why, judge
from nodulant.frame.ops.union import Operation


def mount_check(
    op: Operation, index: int, there: tuple[float, float, float], wanted: tuple[float, float, float], changes: Changes
) -> Check:
    """How far a mount's bolt stands from its joint; both (rearward, outward, up), mm."""
    along, across, up = (a - b for a, b in zip(there, wanted, strict=True))
    off = math.sqrt(along**2 + across**2 + up**2)
    why = Why(
        formula="(along ** 2 + across ** 2 + up ** 2) ** 0.5",
        values={"along": along, "across": across, "up": up},
        words="mm that the mount holds its bolt rearward, outward and above the joint that Travel has",
    )
    return judge(
        "mount-follows",
        Subject(subject=op.id, stage="cut"),
        off,
        why,
        changes,
        governs=Governs(station_mm=there[0] if op.on_rail else None),
        detail=op.name,
        remedy="Bring brackets and mounts up to date in the Travel stage, or move the joint to its mount.",
    )
