"""Frame twisted by one axle: torsional stiffness, and bending and torque along both rails against stock.

Case: 1 g, and the couple that one wheel in a hole makes, load of the lighter axle x half its
track, x 1.3 (body-engineering textbooks, from memory). Bending and twist add in the worse
sense, since either wheel can be the one in the hole. Torque is judged by Saint-Venant
capacity; the warping stress of an open channel is not computed.
"""

from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from nodulant.base.arrays import Columns, Mask
from nodulant.base.errors import NotSolvable
from nodulant.frame.assembly import SectionColumns
from nodulant.frame.model import STOCK, sections
from nodulant.loads.beam import reactions
from nodulant.loads.ladder import Ladder, ladder_stations, solve_ladder
from nodulant.materials.steel import SAFETY_ON_YIELD
from nodulant.parts.sides import LEFT_RIGHT, Side
from nodulant.strength.compare import use
from nodulant.strength.rail import RailComparison
from nodulant.survey.crossmember import Crossmember
from nodulant.survey.vehicle import Mass, Rails, Seat, Survey

TWIST_FACTOR = 1.3
ON_END_MM = 0.5
"""A part this little beyond a rail's end is on the end."""
BESIDE_MM = 2.0
"""Stations this near both sides of a crossmember, so that the jump there is not spread along the rail."""
_Load = tuple[tuple[Crossmember, ...], tuple[Mass, ...], tuple[Seat, ...]]
"""Crossmembers, masses and seats of a frame."""


@dataclass(frozen=True)
class RailTwist:
    """One rail of one frame in the twist case at ``x``: moment and torque N mm, use of yield/1.5."""

    x: Columns
    moment: Columns
    torque: Columns
    use_bending: Columns
    torque_capacity: Columns
    use_torque: Columns
    closed: Mask


@dataclass(frozen=True)
class FrameTwist:
    """A frame's torsional stiffness and its rails in the twist case."""

    ladder: Ladder
    rails: dict[Side, RailTwist]


@dataclass(frozen=True)
class TwistComparison:
    """Stock and planned frame under the same couple, N mm, each on its own seats."""

    couple_nmm: float
    stock: FrameTwist
    planned: FrameTwist


def missing_for_twist(survey: Survey) -> tuple[str, ...]:
    """Pointers of the inputs without which the twist cannot be computed."""
    need = {
        "/survey/crossmembers": bool(survey.crossmembers),
        "/survey/front/track_mm": survey.front.track_mm is not None,
        "/survey/rear/track_mm": survey.rear.track_mm is not None,
        "/survey/masses": bool(survey.masses),
        "/survey/seats": bool(survey.seats),
    }
    return tuple(pointer for pointer, have in need.items() if not have)


def compare_twist(
    survey: Survey, seats: tuple[Seat, ...], added: tuple[Crossmember, ...], planned: dict[Side, RailComparison]
) -> TwistComparison:
    """Solve both frames; the planned one from its rails as already sectioned, with the ``added`` crossmembers.

    Raises NotSolvable.
    """
    seated = ("/design/seats", seats) if seats else ("/survey/seats", survey.seats)
    for field, parts in (("/survey/crossmembers", survey.crossmembers), ("/design/crossmembers", added), seated):
        _on_both_rails(survey.rails, field, [part.x_mm for part in parts])
    couple = _couple(survey)
    stock = _stock(survey, couple)
    load = (survey.crossmembers + added, survey.masses, seats or survey.seats)
    return TwistComparison(couple, stock, _planned(survey, load, planned, couple))


def _on_both_rails(rails: Rails, field: str, places: list[float]) -> None:
    common = ladder_stations(rails, [])
    off = [x for x in places if not common[0] - ON_END_MM <= x <= common[-1] + ON_END_MM]
    if off:
        raise NotSolvable(
            f"x = {off[0]:.0f} mm lies beyond the rails; both are there from {common[0]:.0f} to {common[-1]:.0f} mm",
            field=field,
            found=f"x = {off[0]:.1f} mm",
            acceptable=f"{common[0]:.1f} to {common[-1]:.1f} mm",
        )


def _couple(survey: Survey) -> float:
    held = reactions(survey.masses, survey.seats)
    front, rear = (held.front, survey.front.track_mm or 0.0), (held.rear, survey.rear.track_mm or 0.0)
    load, track = min(front, rear)
    return TWIST_FACTOR * load * track / 2


def _stock(survey: Survey, couple: float) -> FrameTwist:
    """The surveyed frame at stations that no edit of the design moves, so that it is solved once."""
    ties = [c.x_mm + step for c in survey.crossmembers for step in (-BESIDE_MM, 0.0, BESIDE_MM)]
    marks = [s.x_mm for s in survey.seats] + ties
    x = ladder_stations(survey.rails, marks)
    cut = {side: sections(survey, (), side, x, STOCK) for side in LEFT_RIGHT}
    return _frame(survey, (survey.crossmembers, survey.masses, survey.seats), x, cut, couple)


def _planned(survey: Survey, load: _Load, rails: dict[Side, RailComparison], couple: float) -> FrameTwist:
    """The planned frame at the stations where both rails were sectioned, thinned where nothing begins or ends."""
    left, right = rails["left"], rails["right"]
    common = np.intersect1d(left.x, right.x)
    keep = np.isin(common, ladder_stations(survey.rails, []))
    keep[[0, -1]] = True
    edges = [x for rail in rails.values() for p in rail.placed for x in (p.start_mm, p.end_mm)]
    ties, _, seats = load
    spots = edges + [s.x_mm for s in seats] + [c.x_mm for c in ties]
    for spot in spots:
        keep |= np.abs(common - spot) < 1.0
    for rail in rails.values():
        for p in rail.placed:
            keep |= (common > p.start_mm) & (common < p.end_mm) & p.op.removes
    x = common[keep]
    cut = {side: rails[side].built.rows(np.searchsorted(rails[side].x, x)) for side in LEFT_RIGHT}
    return _frame(survey, load, x, cut, couple)


def _frame(survey: Survey, load: _Load, x: Columns, cut: dict[Side, SectionColumns], couple: float) -> FrameTwist:
    ladder = _solved(survey.rails, load, x.tobytes(), _Sections(cut["left"], cut["right"]))
    return FrameTwist(ladder, {side: _rail(ladder, cut[side], side, couple) for side in LEFT_RIGHT})


@dataclass(frozen=True, eq=False)
class _Sections:
    """Both rails' sections; two are the same when the memo gave the same columns."""

    left: SectionColumns
    right: SectionColumns

    def __eq__(self, other: object) -> bool:
        """By identity of the memoised columns."""
        return isinstance(other, _Sections) and self.left is other.left and self.right is other.right

    def __hash__(self) -> int:
        """By identity too."""
        return hash((id(self.left), id(self.right)))


@lru_cache(maxsize=32)
def _solved(rails: Rails, load: _Load, x: bytes, cut: _Sections) -> Ladder:
    both: dict[Side, SectionColumns] = {"left": cut.left, "right": cut.right}
    crossmembers, masses, seats = load
    return solve_ladder(rails, np.frombuffer(x), both, crossmembers, masses, seats)


def _rail(ladder: Ladder, section: SectionColumns, side: Side, couple: float) -> RailTwist:
    standing, twisted = ladder.standing[side], ladder.twisted[side]
    moment = np.abs(standing.moment) + np.abs(twisted.moment) * couple
    torque = np.abs(twisted.torque) * couple
    capacity = np.maximum(section.torsion.capacity, 1e-9)
    worked = use(section, moment).reference
    used = torque * SAFETY_ON_YIELD / capacity
    return RailTwist(standing.x, moment, torque, worked, capacity, used, section.torsion.closed)
