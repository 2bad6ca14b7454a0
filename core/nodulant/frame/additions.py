"""What an operation changes in the sections, as columns that the assembly understands.

A *cut* is the height of metal gone from below, ``cut_top`` from above. A *plate* has a role:
``outer`` lies on the web, ``boxing`` and ``inner`` close or double the open side, ``top`` and
``bottom`` lie on the flanges, ``liner`` closes a cut from below and ``liner-top`` one from
above, ``cap`` is a box on the top flange and ``cap-below`` one under the bottom flange.
"""

from dataclasses import dataclass, replace
from typing import Literal

import numpy as np

from nodulant.base.arrays import Columns
from nodulant.materials import Steel

Role = Literal["outer", "boxing", "inner", "top", "bottom", "liner", "liner-top", "cap", "cap-below"]


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
    """The same with the operation's id on its plates."""
    return replace(made, plates=tuple(replace(plate, operation=operation) for plate in made.plates))


def untouched(x: Columns) -> Additions:
    """No cut and no plate at stations ``x``."""
    return Additions(np.zeros_like(x), ())
