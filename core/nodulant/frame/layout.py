"""A rail with everything done to it, ready to be sectioned."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from nodulant.base.arrays import Columns
from nodulant.frame.additions import Additions, Hole, Plate, Role
from nodulant.frame.columns import RailColumns

LINERS: tuple[Role, ...] = ("liner", "liner-top")
CAPS: tuple[Role, ...] = ("cap", "cap-below")
FLANGES: tuple[Role, ...] = ("top", "bottom")


@dataclass(frozen=True)
class Layout:
    """The rail, the heights cut from below and above, mm, and what was added and drilled."""

    rail: RailColumns
    cut: Columns
    cut_top: Columns
    plates: tuple[Plate, ...]
    holes: tuple[Hole, ...]

    def of(self, role: Role) -> list[Plate]:
        """Plates of one role."""
        return [plate for plate in self.plates if plate.role == role]

    @property
    def crown(self) -> Columns:
        """Height of the highest stock metal left, mm."""
        return np.maximum(self.rail.height - self.cut_top, self.cut)


def lay_out(rail: RailColumns, additions: Sequence[Additions], holes: tuple[Hole, ...]) -> Layout:
    """Compose operations: the deepest cut governs, plates add up, plugged holes are gone."""
    cut, top = np.zeros_like(rail.x), np.zeros_like(rail.x)
    for addition in additions:
        cut = np.maximum(cut, addition.cut)
        if addition.cut_top is not None:
            top = np.maximum(top, addition.cut_top)
    plugged = {hole for a in additions for hole in a.plugged}
    drilled = (*holes, *(hole for a in additions for hole in a.holes))
    cut = np.minimum(cut, rail.height)
    top = np.minimum(top, rail.height - cut)
    plates = tuple(p for a in additions for p in a.plates)
    return Layout(rail, cut, top, plates, tuple(h for h in drilled if h not in plugged))


def closing_plane(layout: Layout) -> tuple[Columns, Columns]:
    """Outer face of what closes the rail and the thickness of a boxing plate there, mm (0 where there is none)."""
    rail = layout.rail
    face = rail.width + (rail.second if rail.kind == "two-skin" else 0.0)
    thick = np.zeros_like(layout.cut)
    for plate in layout.of("boxing"):
        here = plate.share > 0
        face = np.where(here, rail.width - plate.set_in_mm, face)
        thick = np.where(here, plate.thickness_mm, thick)
    return face, thick


def own_closing(rail: RailColumns) -> Columns:
    """Thickness of the rail's own second upright wall, mm; 0 where it is open."""
    if rail.kind in {"rect-tube", "top-hat"}:
        return rail.wall
    return np.full_like(rail.wall, rail.second if rail.kind == "two-skin" else 0.0)
