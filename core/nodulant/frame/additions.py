"""What an operation changes in the sections, as columns that the assembly understands.

A *cut* is the height of metal gone from below, ``cut_top`` from above. A *plate* has a role, and
``LIES`` says once where a plate of that role lies; everything else follows from it.
"""

from dataclasses import dataclass, field, replace
from typing import Literal, NamedTuple

import numpy as np

from nodulant.base.arrays import Columns
from nodulant.materials import Steel

Patched = Literal["patch", "patch-far", "patch-top", "patch-bottom"]
Role = Literal["outer", "boxing", "inner", "top", "bottom", "liner", "liner-top", "cap", "cap-below"] | Patched
On = Literal[
    "web",
    "closing",
    "behind-closing",
    "top",
    "bottom",
    "cut-below",
    "cut-above",
    "box-above",
    "box-below",
    "in-web",
    "in-far-wall",
    "in-top",
    "in-bottom",
]


class Lie(NamedTuple):
    """Where a plate lies: on which wall, whether it stands upright, and whether it is a box of three strips."""

    on: On
    upright: bool
    box: bool = False
    seat: Literal["top", "bottom", ""] = ""
    """The flange that it needs under it: where that is cut away it carries nothing."""
    let_in: bool = False
    """It takes the place of metal of the wall that it lies in."""


LIES: dict[Role, Lie] = {
    "outer": Lie("web", upright=True),
    "boxing": Lie("closing", upright=True),
    "inner": Lie("behind-closing", upright=True),
    "top": Lie("top", upright=False, seat="top"),
    "bottom": Lie("bottom", upright=False, seat="bottom"),
    "liner": Lie("cut-below", upright=False),
    "liner-top": Lie("cut-above", upright=False),
    "cap": Lie("box-above", upright=True, box=True, seat="top"),
    "cap-below": Lie("box-below", upright=True, box=True, seat="bottom"),
    "patch": Lie("in-web", upright=True, let_in=True),
    "patch-far": Lie("in-far-wall", upright=True, let_in=True),
    "patch-top": Lie("in-top", upright=False, let_in=True),
    "patch-bottom": Lie("in-bottom", upright=False, let_in=True),
}


@dataclass(frozen=True)
class Plate:
    """One added plate along the rail: thickness, developed share and bounds, mm, shape (stations,)."""

    role: Role
    thickness_mm: float
    share: Columns
    low: Columns
    high: Columns
    steel: Steel
    credit: Columns
    slope: Columns
    """Angle against the rail's axis, radians (a liner's own)."""
    set_in_mm: float = 0.0
    """How far the plate's outer face lies inside the flange lips; negative when laid over them."""
    line_n_per_mm: float = 0.0
    """What each of its two long welds may carry, N/mm; 0 where it is not welded along its edges."""
    operation: str = ""
    closure: Columns | None = None
    """How far it closes a cell for torsion, 0 to 1 from a free end inward; its share where left out."""
    grown_mm: float = 1.0
    """Its development length: it starts again beside metal that is gone under it."""
    kinks: tuple[float, ...] = ()
    """Stations where it begins, ends or is fully brought in: sections are wanted there."""

    @property
    def lie(self) -> Lie:
        """Where it lies."""
        return LIES[self.role]

    @property
    def closes(self) -> Columns:
        """How far it closes a cell for torsion, shape (stations,)."""
        return self.share if self.closure is None else self.closure

    def seated(self, x: Columns, gone: Columns) -> "Plate":
        """The same where the flange under it is ``gone`` from some stations: nothing there, and grown again beside them."""
        if not (gone > 0).any():
            return self
        away = np.abs(x[:, None] - x[gone > 0]).min(axis=1)
        share = np.minimum(self.share, np.clip(away / max(self.grown_mm, 1e-6), 0.0, 1.0))
        return replace(self, share=share, closure=np.where(gone > 0, 0.0, self.closes))


@dataclass(frozen=True)
class Hole:
    """A hole in the web: station and height of its centre above the underside, diameter, mm.

    ``tall`` is the straight part between two half circles, 0 where it is round; ``through`` goes
    through every wall and plate that stands there.
    """

    x: float
    height: float
    diameter: float
    tall: float = 0.0
    through: bool = False
    operation: str = field(default="", compare=False)
    """What opens it; none for one of the survey."""

    def half(self, x: Columns) -> Columns:
        """Half its height at every station, mm."""
        round_ = np.sqrt(np.maximum((self.diameter / 2) ** 2 - (x - self.x) ** 2, 0.0))
        return np.asarray(round_ + np.where(round_ > 0, self.tall / 2, 0.0))


@dataclass(frozen=True)
class Additions:
    """All of one operation on one side: the height cut away from below and from above, its plates and holes."""

    cut: Columns
    plates: tuple[Plate, ...]
    cut_top: Columns | None = None
    holes: tuple[Hole, ...] = ()
    plugged: tuple[Hole, ...] = ()
    """Holes of the survey that are filled again with full credit."""


def named(made: Additions, operation: str) -> Additions:
    """The same with the operation's id on its plates and holes."""
    return replace(
        made,
        plates=tuple(replace(plate, operation=operation) for plate in made.plates),
        holes=tuple(replace(hole, operation=operation) for hole in made.holes),
    )


def untouched(x: Columns) -> Additions:
    """No cut and no plate at stations ``x``."""
    return Additions(np.zeros_like(x), ())
