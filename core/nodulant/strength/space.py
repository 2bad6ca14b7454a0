"""Both frames, stock and planned, in every case that needs the frame in space.

Each frame stands on its own supports and carries its own masses. Use of a rail is von Mises'
stress over yield/1.5 with the worst fibre and the worst wall taken together, so it is never too
low: u = 1.5 sqrt((N/(A f_y) + M/M_y + M_z/M_yz)^2 + (V/V_y + T/T_y)^2), where each capacity is
at first yield. Twist and cornering go either way, so they add to the standing load in the worse
sense. Where the rail is open its torque is carried by warping, which is not computed: T is then
left out of the sum, and said so.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import lru_cache
from typing import NamedTuple

import numpy as np

from nodulant.base.arrays import Columns, Mask
from nodulant.base.errors import NotSolvable
from nodulant.frame.assembly import SectionColumns
from nodulant.frame.model import STOCK, sections
from nodulant.loads import case_loads
from nodulant.loads.beam import reactions
from nodulant.loads.case_loads import Carried, carried_along, carried_by
from nodulant.loads.cases import SPACE_CASES, Case, in_force
from nodulant.loads.frame3d import Frame, RailForces, build_frame
from nodulant.loads.kerb import RearWheel, by_seats, spread_enough, struck
from nodulant.loads.ladder import STANDING, TWIST, Ladder, ladder_stations, solve_cases
from nodulant.loads.plan import JackPoint, LoadPlan, PlanInForce, Pull, StopPads
from nodulant.materials.steel import SAFETY_ON_YIELD
from nodulant.parts.joint import Joint
from nodulant.parts.sides import LEFT_RIGHT, AxleName, Side
from nodulant.strength.rail import RailComparison
from nodulant.survey.crossmember import Crossmember
from nodulant.survey.vehicle import Mass, Rails, Seat, Survey

ON_END_MM = 0.5
"""A part this little beyond a rail's end is on the end."""
BESIDE_MM = 2.0
"""Stations this near both sides of a crossmember, so that the jump there is not spread along the rail."""


@dataclass(frozen=True)
class RailCase:
    """One rail of one frame in one case at ``x``: magnitudes N and N mm, uses of yield/1.5."""

    x: Columns
    moment: Columns
    torque: Columns
    side_moment: Columns
    shear: Columns
    side_shear: Columns
    bending: Columns
    """Use by bending in the upright plane alone, reference yields."""
    torsion: Columns
    """Use by torque alone where a cell is closed, else 0."""
    torque_capacity: Columns
    use: Columns
    """Von Mises use, reference yields."""
    working: Columns
    """The same with the yields of absolute checks."""
    closed: Mask


@dataclass(frozen=True)
class SolvedFrame:
    """A frame and its rails in every case that could be computed."""

    ladder: Ladder
    cases: Mapping[str, Mapping[Side, RailCase]]


@dataclass(frozen=True)
class FrameComparison:
    """Stock and planned frame in the same cases; ``missing`` says per case what input is not there."""

    couple_nmm: float
    stock: SolvedFrame
    planned: SolvedFrame
    asked: tuple[Case, ...]
    missing: Mapping[str, tuple[str, ...]]
    joints: tuple[Joint, ...] = ()


class Places(NamedTuple):
    """What some cases need of the load plan and of the survey."""

    jack: JackPoint | None
    stops: StopPads | None
    grip: float
    wheel: RearWheel | None = None
    pulls: tuple[Pull, ...] = ()


def places_of(plan: LoadPlan, survey: Survey, lower_mm: float = 0.0) -> Places:
    """The places and the grip of a load plan, and the rear wheel with the frame ``lower_mm`` lower over it."""
    hubs = [z for z in (survey.rear.hub_z_left_mm, survey.rear.hub_z_right_mm) if z is not None]
    if survey.rear.track_mm is None or not hubs:
        return Places(plan.jack, plan.stops, plan.grip)
    unsprung = plan.unsprung_kg if isinstance(plan, PlanInForce) else 0.0
    wheel = RearWheel(survey.rear.track_mm / 2, sum(hubs) / len(hubs) + lower_mm, unsprung)
    return Places(plan.jack, plan.stops, plan.grip, wheel)


@dataclass(frozen=True)
class Planned:
    """What the design makes of the frame besides its rails."""

    seats: tuple[Seat, ...]
    crossmembers: tuple[Crossmember, ...]
    joints: tuple[Joint, ...]
    plan: LoadPlan
    drop_mm: float


def missing_for_space(survey: Survey) -> tuple[str, ...]:
    """Pointers of the inputs without which no space case can be computed."""
    need = {
        "/survey/crossmembers": bool(survey.crossmembers),
        "/survey/front/track_mm": survey.front.track_mm is not None,
        "/survey/rear/track_mm": survey.rear.track_mm is not None,
        "/survey/masses": bool(survey.masses),
        "/survey/seats": bool(survey.seats),
    }
    return tuple(pointer for pointer, have in need.items() if not have)


def missing_for_case(case: Case, survey: Survey, planned: Planned) -> tuple[str, ...]:
    """Pointers of what one case needs besides: heights, the ground, and where an axle without hangers pushes."""
    if case.id not in {"brake", "corner", "launch", "kerb"}:
        return ()
    heights = [f"/survey/masses/{i}/z_mm" for i, m in enumerate(survey.masses) if m.z_mm is None]
    hubs = [
        f"/survey/{name}/hub_z_{side}_mm"
        for name, axle in (("front", survey.front), ("rear", survey.rear))
        for side in LEFT_RIGHT
        if axle.hub_z_mm(side) is None
    ]
    tyres = [
        f"/survey/{name}/tyre"
        for name, axle in (("front", survey.front), ("rear", survey.rear))
        if axle.tyre is None and axle.loaded_radius_mm is None and case.id != "kerb"
    ]
    spread = () if case.id != "kerb" or spread_enough(survey.masses) else ("/survey/masses",)
    return (*heights, *hubs, *tyres, *spread, *_pushless(case, planned.seats or survey.seats, planned.plan))


def _pushless(case: Case, seats: tuple[Seat, ...], plan: LoadPlan) -> tuple[str, ...]:
    """An axle on one seat takes its push and torque through links: where they are must be known."""
    pushed: dict[str, tuple[AxleName, ...]] = {"brake": ("front", "rear"), "launch": ("rear",), "kerb": ("rear",)}
    axles = pushed.get(case.id, ())
    if case.id == "kerb" and isinstance(plan, PlanInForce) and plan.struck:
        return ()
    single = [a for a in axles if len({s.x_mm for s in seats if s.axle == a}) < 2]
    return ("/design/loads/links",) if any(all(own.axle != a for own in plan.links) for a in single) else ()


def asked_cases(plan: LoadPlan) -> tuple[Case, ...]:
    """The space cases in force: those with a place of their own only where the place is given."""
    given = {"jack": plan.jack is not None, "stop": plan.stops is not None}
    return tuple(case for case in in_force(SPACE_CASES, plan) if given.get(case.id, True))


def compare_frames(survey: Survey, planned: Planned, rails: Mapping[Side, RailComparison]) -> FrameComparison:
    """Solve both frames; the planned one from its rails as already sectioned. Raises NotSolvable."""
    seated = ("/design/seats", planned.seats) if planned.seats else ("/survey/seats", survey.seats)
    for field, parts in (
        ("/survey/crossmembers", survey.crossmembers),
        ("/design/crossmembers", planned.crossmembers),
        seated,
    ):
        _on_both_rails(survey.rails, field, [part.x_mm for part in parts])
    asked = asked_cases(planned.plan)
    missing: dict[str, tuple[str, ...]] = {case.id: missing_for_case(case, survey, planned) for case in asked}
    ready = tuple(case for case in asked if not missing[case.id])
    couple = _couple(survey)
    return FrameComparison(
        couple,
        _stock(survey, planned, ready, couple),
        _planned(survey, planned, rails, ready, couple),
        asked,
        missing,
        planned.joints,
    )


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
    """Load of the lighter axle x half its track, N mm."""
    held = reactions(survey.masses, survey.seats)
    front, rear = (held.front, survey.front.track_mm or 0.0), (held.rear, survey.rear.track_mm or 0.0)
    load, track = min(front, rear)
    return load * track / 2


def _stock(survey: Survey, planned: Planned, ready: tuple[Case, ...], couple: float) -> SolvedFrame:
    """The surveyed frame at stations that no edit of the design moves, so that it is solved once."""
    ties = [c.x_mm + step for c in survey.crossmembers for step in (-BESIDE_MM, 0.0, BESIDE_MM)]
    x = ladder_stations(survey.rails, [s.x_mm for s in survey.seats] + ties)
    cut = _Sections(sections(survey, (), "left", x, STOCK), sections(survey, (), "right", x, STOCK))
    carried = (survey.rails, survey.crossmembers, survey.masses, survey.seats, survey.ground_z_mm())
    return _stock_solved(x.tobytes(), cut, carried, (places_of(planned.plan, survey), ready, couple))


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


_CarriedBy = tuple[Rails, tuple[Crossmember, ...], tuple[Mass, ...], tuple[Seat, ...], float | None]
_Asked = tuple[Places, tuple[Case, ...], float]


@lru_cache(maxsize=32)
def _stock_solved(x: bytes, cut: _Sections, carried: _CarriedBy, asked: _Asked) -> SolvedFrame:
    rails, crossmembers, masses, seats, ground = carried
    plan, ready, couple = asked
    both: dict[Side, SectionColumns] = {"left": cut.left, "right": cut.right}
    frame = build_frame(rails, np.frombuffer(x), both, crossmembers, marks=_marks(seats, plan))
    load = carried_by(masses, seats, ground)
    ladder = solve_cases(frame, load, _case_rows(frame, load, plan, ready))
    return _used(ladder, both, ready, couple)


def _planned(
    survey: Survey, planned: Planned, rails: Mapping[Side, RailComparison], ready: tuple[Case, ...], couple: float
) -> SolvedFrame:
    """The planned frame at the stations where both rails were sectioned, thinned where nothing begins or ends."""
    x = _common_stations(survey, planned, rails)
    cut = {side: rails[side].built.rows(np.searchsorted(rails[side].x, x)) for side in LEFT_RIGHT}
    routes = {side: rails[side].route for side in LEFT_RIGHT}
    seats = planned.seats or survey.seats
    places = places_of(planned.plan, survey, planned.drop_mm)
    if isinstance(planned.plan, PlanInForce):
        places = places._replace(pulls=planned.plan.struck)
    marks = _marks(seats, places)
    frame = build_frame(survey.rails, x, cut, planned.crossmembers, routes, planned.joints, marks)
    ground = survey.ground_z_mm()
    load = carried_along(
        survey.masses, seats, routes, None if ground is None else ground + planned.drop_mm / 2, planned.plan.links
    )
    ladder = solve_cases(frame, load, _case_rows(frame, load, places, ready))
    return _used(ladder, cut, ready, couple)


def _marks(seats: Sequence[Seat], places: Places) -> list[float]:
    return [s.x_mm for s in seats] + [p.x_mm for p in (places.jack, places.stops) if p]


def _common_stations(survey: Survey, planned: Planned, rails: Mapping[Side, RailComparison]) -> Columns:
    common = np.intersect1d(rails["left"].x, rails["right"].x)
    keep = np.isin(common, ladder_stations(survey.rails, []))
    keep[[0, -1]] = True
    edges = [x for rail in rails.values() for p in rail.placed for x in (p.start_mm, p.end_mm)]
    edges += [x for rail in rails.values() for p in rail.placed for cut in p.cuts for x in (cut.start_mm, cut.end_mm)]
    seats = planned.seats or survey.seats
    for spot in edges + [s.x_mm for s in seats] + [c.x_mm for c in planned.crossmembers]:
        keep |= np.abs(common - spot) < 1.0
    for rail in rails.values():
        for p in rail.placed:
            if p.op.opens:
                keep |= (common > p.start_mm) & (common < p.end_mm)
    return np.asarray(common[keep])


def _case_rows(frame: Frame, load: Carried, plan: Places, ready: tuple[Case, ...]) -> dict[str, Columns]:
    rows: dict[str, Columns] = {}
    for case in ready:
        if case.id == "brake":
            rows["brake"] = case_loads.braking(frame, load, case.factor)
        elif case.id == "corner":
            rows["corner"] = case_loads.cornering(frame, load, case.factor)
        elif case.id == "launch":
            rows["launch"] = case_loads.launching(frame, load, plan.grip * case.factor)
        elif case.id == "jack" and plan.jack:
            rows["jack"] = case.factor * case_loads.jacked(frame, load, plan.jack.x_mm, plan.jack.side)
        elif case.id == "stop" and plan.stops:
            rows["stop"] = case_loads.stopped(frame, load, plan.stops.x_mm, case.factor)
        elif case.id == "kerb" and plan.wheel:
            pulls = [pull.times(case.factor) for pull in plan.pulls or by_seats(frame, load, plan.wheel)]
            mirrored = [pull.mirrored() for pull in pulls]
            rows["kerb:right"], rows["kerb:left"] = struck(frame, load, pulls, mirrored)
    return rows


EITHER_WAY = {"twist", "corner"}
ALONE = {"jack"}


def _used(ladder: Ladder, cut: Mapping[Side, SectionColumns], ready: tuple[Case, ...], couple: float) -> SolvedFrame:
    out: dict[str, dict[Side, RailCase]] = {}
    stand = {side: ladder.forces(STANDING, side) for side in LEFT_RIGHT}
    for case in ready:
        factor = case.factor * couple if case.id == TWIST else 1.0
        out[case.id] = {}
        for side in LEFT_RIGHT:
            forces = _together(case, stand[side], ladder.forces(case.id, side), factor)
            out[case.id][side] = rail_case(forces, cut[side])
    return SolvedFrame(ladder, out)


def _together(case: Case, stand: RailForces, own: RailForces, factor: float) -> RailForces:
    """The case's own forces with the standing ones: added as they come, in the worse sense, or alone."""

    def both(name: str) -> Columns:
        a, b = getattr(stand, name), factor * getattr(own, name)
        if case.id in ALONE:
            a = 0.0 * a
        total: Columns = np.abs(a) + np.abs(b) if case.id in EITHER_WAY else np.abs(a + b)
        return total

    return RailForces(stand.x, *(both(n) for n in ("moment", "torque", "axial", "shear", "side_moment", "side_shear")))


def rail_case(forces: RailForces, section: SectionColumns) -> RailCase:
    """Uses of one rail under forces given as magnitudes."""
    p, t = section.properties, section.torsion
    ratio = np.maximum(p.reference_top, 1e-9)
    steel = np.minimum(p.working_top / ratio, 1.0)
    weak = np.maximum(np.minimum(p.reference_top, p.reference_bottom), 1e-9)
    upright, across_it = _with_product(forces, section)
    along = upright / weak + across_it / np.maximum(p.reference_side, 1e-9) + forces.axial / _axial(section)
    torsion = np.where(t.closed, forces.torque / np.maximum(t.capacity, 1e-9), 0.0)
    across = forces.shear / np.maximum(section.shear_capacity, 1e-9) + torsion
    use = SAFETY_ON_YIELD * np.hypot(along, across)
    return RailCase(
        forces.x,
        forces.moment,
        forces.torque,
        forces.side_moment,
        forces.shear,
        forces.side_shear,
        SAFETY_ON_YIELD * forces.moment / weak,
        SAFETY_ON_YIELD * torsion,
        t.capacity,
        use,
        use / np.maximum(steel, 1e-9),
        t.closed,
    )


def _with_product(forces: RailForces, section: SectionColumns) -> tuple[Columns, Columns]:
    """Moments that give the fibres' stress of an unsymmetric section as if its axes were principal, magnitudes.

    sigma = ((M_y - M_z I_yz/I_z) z/I_y + (M_z - M_y I_yz/I_y) y/I_z) / (1 - I_yz^2/(I_y I_z)), signs in the worse
    sense; bending across that the crossmembers hold back is only what the solver gives.
    """
    p = section.properties
    i_y, i_z = np.maximum(p.i_y, 1e-6), np.maximum(p.i_z, 1e-6)
    product = np.abs(p.i_yz)
    left = np.maximum(1.0 - product**2 / (i_y * i_z), 0.05)
    upright = (forces.moment + forces.side_moment * product / i_z) / left
    return np.asarray(upright), np.asarray(forces.side_moment / left)


def _axial(section: SectionColumns) -> Columns:
    """Axial load at first yield by the yield that the top fibre has, N."""
    p = section.properties
    yield_mpa = np.divide(p.reference_top, p.s_top, out=np.zeros_like(p.s_top), where=p.s_top > 1e-9)
    return np.asarray(np.maximum(p.area * yield_mpa, 1e-9))
