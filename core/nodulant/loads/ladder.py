"""Two rails and their crossmembers as a space frame, loaded by the masses and by a twist.

Node numbers: 2 k + side at station k (left 0, right 1), at the section's centroid. Loads
balance by themselves (seats carry what equilibrium says), so the held freedoms only stop the
frame from drifting. The twist is a unit couple, N mm, at the front seats against the rear
ones. Torsion is Saint-Venant's: an open channel's warping restraint, which adds stiffness, is
left out, so stiffness of open frames is a lower bound.
"""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from nodulant.base.arrays import Columns
from nodulant.base.errors import NotSolvable
from nodulant.frame.assembly import SectionColumns
from nodulant.loads.beam import G, Reactions, reactions
from nodulant.loads.space_frame import Held, Members, Solved, solve
from nodulant.parts.sides import LEFT_RIGHT, Side
from nodulant.sections.profile import profile
from nodulant.survey.crossmember import END_FIXITY, Crossmember
from nodulant.survey.vehicle import AxleName, Mass, Rails, Seat

GRID = 61
RUN_STEPS = 200
"""Point loads that a spread mass is made of."""


@dataclass(frozen=True)
class RailForces:
    """Bending moment (sagging positive) and torque in one rail at stations ``x``, N mm."""

    x: Columns
    moment: Columns
    torque: Columns


@dataclass(frozen=True)
class Ladder:
    """Answers of a solved ladder: each rail at 1 g and under the unit twist, and the twist's angle."""

    standing: dict[Side, RailForces]
    twisted: dict[Side, RailForces]
    radians_per_nmm: float
    sag_mm: dict[Side, Columns]

    @property
    def stiffness_nm_per_deg(self) -> float:
        """Torsional stiffness between front and rear seats."""
        return 1.0 / self.radians_per_nmm / 1000.0 * np.pi / 180.0


def ladder_stations(rails: Rails, marks: Sequence[float]) -> Columns:
    """Stations that both rails have, from the later front end to the earlier rear end, with ``marks``; shape (n,)."""
    start, end = max(r.start_mm for r in (rails.left, rails.right)), min(r.end_mm for r in (rails.left, rails.right))
    every = np.round(np.concatenate([np.linspace(start, end, GRID), np.array(marks, dtype=float)]), 3)
    return np.unique(every[(every >= start) & (every <= end)])


def solve_ladder(
    rails: Rails,
    x: Columns,
    sections: dict[Side, SectionColumns],
    crossmembers: Sequence[Crossmember],
    masses: Sequence[Mass],
    seats: Sequence[Seat],
) -> Ladder:
    """Solve standing at 1 g and the unit twist; raises NotSolvable where nothing ties the rails."""
    if not crossmembers:
        raise NotSolvable(
            "nothing ties the left rail to the right one",
            field="/survey/crossmembers",
            found="no crossmember",
            acceptable="at least one",
        )
    nodes = _nodes(rails, x, sections)
    members = _members(x, sections, crossmembers)
    held_loads = reactions(masses, seats)
    loads = np.stack([_standing(x, masses, seats, held_loads), _twist(x, nodes, seats)])
    solved = solve(nodes, members, _held(len(x)), loads)
    forces = [{side: _forces(x, solved, row, side) for side in LEFT_RIGHT} for row in (0, 1)]
    sag = {side: solved.displacements[0, k::2, 2] for k, side in enumerate(LEFT_RIGHT)}
    return Ladder(forces[0], forces[1], _angle(x, nodes, seats, solved), sag)


def _nodes(rails: Rails, x: Columns, sections: dict[Side, SectionColumns]) -> Columns:
    nodes = np.zeros((2 * len(x), 3))
    for k, side in enumerate(LEFT_RIGHT):
        rail, p = rails.of(side), sections[side].properties
        outward = -1.0 if side == "left" else 1.0
        inward = -1.0 if rail.opens == "inward" else 1.0
        under = np.interp(x, [s.x_mm for s in rail.stations], [s.underside_z_mm for s in rail.stations])
        nodes[k::2, 0] = x
        nodes[k::2, 1] = outward * (rail.web_y_mm + inward * p.centroid_y)
        nodes[k::2, 2] = under + p.centroid_z
    return nodes


def _members(x: Columns, sections: dict[Side, SectionColumns], crossmembers: Sequence[Crossmember]) -> Members:
    n = len(x) - 1
    i = np.array([2 * k + s for k in range(n) for s in (0, 1)], dtype=np.int64)
    columns = [_spans(sections[side]) for side in LEFT_RIGHT]
    rail = np.stack(columns, axis=2).transpose(1, 2, 0).reshape(2 * n, 4)
    tied = np.array([int(np.argmin(np.abs(x - c.x_mm))) for c in crossmembers], dtype=np.int64)
    across = np.array([profile(c.profile, c.height_mm, c.width_mm, c.wall_mm) for c in crossmembers])
    sizes = np.concatenate([rail, across])
    fixity = np.concatenate([np.ones(2 * n), np.array([END_FIXITY[c.end] for c in crossmembers])])
    first, second = np.concatenate([i, 2 * tied]), np.concatenate([i + 2, 2 * tied + 1])
    return Members(first, second, sizes[:, 0], sizes[:, 1], sizes[:, 2], sizes[:, 3], fixity)


def _spans(section: SectionColumns) -> Columns:
    """Area, i_y, i_z and J of the spans between stations, mean of the flexibilities at both ends; shape (4, n)."""
    p = section.properties
    columns = np.maximum(np.stack([p.area, p.i_y, p.i_z, section.torsion.j]), 1e-3)
    spans: Columns = 2.0 / (1.0 / columns[:, :-1] + 1.0 / columns[:, 1:])
    return spans


def _held(stations: int) -> Held:
    last = 2 * (stations - 1)
    return Held((0, 0, 0, last, last, 1), (0, 1, 2, 1, 2, 2))


def _standing(x: Columns, masses: Sequence[Mass], seats: Sequence[Seat], held: Reactions) -> Columns:
    """Half of every mass and seat force on each rail's nodes, shape (nodes, 6)."""
    shared = np.zeros((len(x), 2))
    for seat in seats:
        shared += _shared(x, np.array([seat.x_mm]), seat.share * (held.front if seat.axle == "front" else held.rear))
    for mass in masses:
        if mass.to_x_mm is None:
            shared += _shared(x, np.array([mass.x_mm]), -mass.mass_kg * G)
        else:
            steps = np.linspace(mass.x_mm, mass.to_x_mm, RUN_STEPS + 1)
            shared += _shared(x, (steps[:-1] + steps[1:]) / 2, -mass.mass_kg * G / RUN_STEPS)
    loads = np.zeros((2 * len(x), 6))
    loads[:, [2, 4]] = np.repeat(shared / 2, 2, axis=0)
    return loads


def _shared(x: Columns, at: Columns, force: float) -> Columns:
    """Upward force and moment about y at the nodes, shape (nodes, 2), of ``force`` at every place of ``at``.

    Between two nodes by the lever; beyond an end, at the end with the moment of what overhangs.
    """
    on_frame = np.clip(at, x[0], x[-1])
    right = np.clip(np.searchsorted(x, on_frame), 1, len(x) - 1)
    t = (on_frame - x[right - 1]) / (x[right] - x[right - 1])
    out = np.zeros((len(x), 2))
    np.add.at(out[:, 0], right - 1, force * (1 - t))
    np.add.at(out[:, 0], right, force * t)
    np.add.at(out[:, 1], np.where(at < x[0], 0, len(x) - 1), -force * (at - on_frame))
    return out


def _twist(x: Columns, nodes: Columns, seats: Sequence[Seat]) -> Columns:
    """Unit couple about x at the front seats, its opposite at the rear ones."""
    loads = np.zeros((len(nodes), 6))
    for seat in seats:
        k = int(np.argmin(np.abs(x - seat.x_mm)))
        lever = nodes[2 * k + 1, 1] - nodes[2 * k, 1]
        force = seat.share / lever * (1.0 if seat.axle == "front" else -1.0)
        loads[2 * k, 2] -= force
        loads[2 * k + 1, 2] += force
    return loads


def _angle(x: Columns, nodes: Columns, seats: Sequence[Seat], solved: Solved) -> float:
    def roll(axle: AxleName) -> float:
        total = 0.0
        for seat in seats:
            if seat.axle == axle:
                k = int(np.argmin(np.abs(x - seat.x_mm)))
                w = solved.displacements[1, 2 * k : 2 * k + 2, 2]
                total += seat.share * float(w[1] - w[0]) / float(nodes[2 * k + 1, 1] - nodes[2 * k, 1])
        return total

    return abs(roll("front") - roll("rear"))


def _forces(x: Columns, solved: Solved, row: int, side: Side) -> RailForces:
    """Moments and torques at the stations: each span's own ends, the greater where two spans meet.

    Both jump at a crossmember, which gives its torque to the rail's bending and its bending to the rail's torque.
    """
    k = LEFT_RIGHT.index(side)
    ends = solved.ends[row, k : 2 * (len(x) - 1) : 2]
    moment, torque = _at_stations(ends[:, 4], -ends[:, 10]), _at_stations(-ends[:, 3], ends[:, 9])
    return RailForces(x, moment, torque)


def _at_stations(start: Columns, end: Columns) -> Columns:
    inner = np.where(np.abs(start[1:]) > np.abs(end[:-1]), start[1:], end[:-1])
    out: Columns = np.concatenate([start[:1], inner, end[-1:]])
    return out
