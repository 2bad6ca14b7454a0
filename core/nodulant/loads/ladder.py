"""Two rails and their crossmembers solved for every case at once.

Loads balance by themselves (seats carry what equilibrium says), so the held freedoms only stop
the frame from drifting. The twist is a unit couple, N mm, at the front seats against the rear
ones. Open stretches warp (Vlasov), crossmembers restrain them as their joints allow; the twist is solved
again with every joint held, which is the stiffest that the frame can be.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property

import numpy as np

from nodulant.base.arrays import Columns
from nodulant.frame.assembly import SectionColumns
from nodulant.loads.carried import Carried, carried_by
from nodulant.loads.case_loads import standing, unit_twist
from nodulant.loads.frame3d import (
    LEAST_MM,
    Frame,
    PieceForces,
    RailForces,
    build_frame,
    node_rows,
    piece_forces,
    rail_forces,
    solve_frame,
)
from nodulant.loads.space_frame import Solved
from nodulant.parts.sides import LEFT_RIGHT, AxleName, Side
from nodulant.survey.crossmember import Crossmember
from nodulant.survey.vehicle import Mass, Rails, Seat

GRID = 61
STANDING, TWIST = "standing", "twist"


@dataclass(frozen=True, eq=False)
class Ladder:
    """A solved frame: its load cases by name, in the order of their rows."""

    frame: Frame
    solved: Solved
    cases: tuple[str, ...]
    radians_per_nmm: float
    held_twist: Solved
    """The unit twist with every joint held against warping."""
    held_radians_per_nmm: float

    def row(self, case: str, side: Side) -> int:
        """The row of a case as it strikes ``side``: its own where each side has one."""
        own = f"{case}:{side}"
        return self.cases.index(own if own in self.cases else case)

    def has(self, case: str) -> bool:
        """Whether a case was solved."""
        return any(name.partition(":")[0] == case for name in self.cases)

    def forces(self, case: str, side: Side) -> RailForces:
        """Forces along one rail in one case."""
        return self.every[side].case(self.row(case, side))

    @cached_property
    def every(self) -> dict[Side, RailForces]:
        """Forces along both rails in all cases, then under the unit twist with every joint held, (cases + 1, 8, stations)."""
        return rail_forces(self.frame, self.solved.with_more(self.held_twist))

    def piece(self, case: str, piece: tuple[str, Side, float]) -> PieceForces:
        """Forces in one inserted piece."""
        return piece_forces(self.frame, self.solved, self.row(case, piece[1]), piece)

    @property
    def standing(self) -> dict[Side, RailForces]:
        """Both rails at 1 g."""
        return {side: self.forces(STANDING, side) for side in LEFT_RIGHT}

    @property
    def twisted(self) -> dict[Side, RailForces]:
        """Both rails under the unit twist."""
        return {side: self.forces(TWIST, side) for side in LEFT_RIGHT}

    @property
    def sag_mm(self) -> dict[Side, Columns]:
        """Upward displacement of both rails at 1 g."""
        row = self.cases.index(STANDING)
        return {side: self.solved.displacements[row, k::2, 2] for k, side in enumerate(LEFT_RIGHT)}

    @property
    def stiffness_nm_per_deg(self) -> float:
        """Torsional stiffness between front and rear seats."""
        return 1.0 / self.radians_per_nmm / 1000.0 * np.pi / 180.0

    def held_forces(self, side: Side) -> RailForces:
        """Forces along one rail under the unit twist with every joint held against warping."""
        return self.every[side].case(len(self.cases))


def ladder_stations(rails: Rails, marks: Sequence[float]) -> Columns:
    """Stations that both rails have, from the later front end to the earlier rear end, with ``marks``; shape (n,).

    A station of the even grid that lies too near to a mark to be a node gives way to it.
    """
    start, end = max(r.start_mm for r in (rails.left, rails.right)), min(r.end_mm for r in (rails.left, rails.right))
    given, grid = np.array(marks, dtype=float), np.linspace(start, end, GRID)
    clear = np.abs(grid[:, None] - given).min(axis=1, initial=LEAST_MM) >= LEAST_MM
    clear[[0, -1]] = True
    every = np.round(np.concatenate([grid[clear], given]), 3)
    return np.unique(every[(every >= start) & (every <= end)])


def solve_ladder(
    rails: Rails,
    x: Columns,
    sections: Mapping[Side, SectionColumns],
    crossmembers: Sequence[Crossmember],
    masses: Sequence[Mass],
    seats: Sequence[Seat],
) -> Ladder:
    """A straight frame standing at 1 g and under the unit twist; raises NotSolvable where nothing ties the rails."""
    rows = node_rows(x, [*(c.x_mm for c in crossmembers), *(s.x_mm for s in seats)], ())
    frame = build_frame(rails, (x, rows), sections, crossmembers)
    return solve_cases(frame, carried_by(masses, seats), {})


def solve_cases(frame: Frame, load: Carried, more: Mapping[str, Columns]) -> Ladder:
    """Standing, the unit twist and ``more`` cases of shape (nodes, 6), in one solution; raises NotSolvable."""
    rows = {STANDING: standing(frame, load), TWIST: unit_twist(frame, load), **more}
    solved = solve_frame(frame, np.stack(list(rows.values())))
    held = solve_frame(frame, rows[TWIST][None], held_joints=True) if frame.open else solved.only(1)
    angles = (_angle(frame, load, own.displacements[row]) for own, row in ((solved, 1), (held, 0)))
    own, stiffest = angles
    return Ladder(frame, solved, tuple(rows), own, held, stiffest)


def _angle(frame: Frame, load: Carried, displacements: Columns) -> float:
    def roll(axle: AxleName) -> float:
        total = 0.0
        for seat in load.seats:
            if seat.axle == axle:
                k = int(np.argmin(np.abs(frame.x - load.stock_x[seat.id])))
                w = displacements[2 * k : 2 * k + 2, 2]
                total += seat.share * float(w[1] - w[0]) / float(frame.widths[k])
        return total

    return abs(roll("front") - roll("rear"))
