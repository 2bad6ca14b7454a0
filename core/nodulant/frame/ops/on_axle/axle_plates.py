"""Flat pieces that stand on an axle tube."""

from collections.abc import Iterable

from nodulant.frame.here import OnRail
from nodulant.geometry import Outline
from nodulant.parts.part import Part, part_id

AxlePlate = tuple[str, str, Outline, int]
"""Role, name on the pattern, outline in mm, how many."""


def axle_plates(id_: str, on: OnRail, thickness_mm: float, steel_id: str, rows: Iterable[AxlePlate]) -> list[Part]:
    """One part per row, each named by its operation, role and side."""
    return [
        Part(
            id=part_id(id_, role, on.side),
            operation=id_,
            role=role,
            side=on.side,
            name=name,
            face="axle",
            outline=outline,
            thickness_mm=thickness_mm,
            steel_id=steel_id,
            count=count,
        )
        for role, name, outline, count in rows
    ]
