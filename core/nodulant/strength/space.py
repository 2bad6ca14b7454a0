"""Both frames, stock and planned, in every case that needs the frame in space.

Each frame stands on its own supports and carries its own masses; both are solved with nodes at the
same stations, so that a frame that nothing changes equals itself. Twist and cornering go either
way, so they add to the standing load in the worse sense.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np

from nodulant.base.arrays import Columns
from nodulant.base.errors import NotSolvable
from nodulant.frame.assembly import SectionColumns
from nodulant.loads import case_loads
from nodulant.loads.carried import Carried, carried_along, carried_by
from nodulant.loads.cases import BESIDE, CASES, SPACE_CASES, Case, in_force
from nodulant.loads.frame3d import Frame, RailForces, build_frame, node_rows
from nodulant.loads.kerb import by_seats, spread_enough, struck
from nodulant.loads.ladder import STANDING, TWIST, Ladder, ladder_stations, solve_cases
from nodulant.loads.plan import LoadPlan, PlanInForce
from nodulant.loads.pulls import beside, twisted
from nodulant.loads.reach import MX
from nodulant.loads.space_frame import Indices
from nodulant.parts.joint import Joint
from nodulant.parts.sides import LEFT_RIGHT, AxleName, Side
from nodulant.strength.places import Places, stock_places
from nodulant.strength.rail import BESIDE_MM, RailComparison
from nodulant.strength.rail_case import RailCase, rail_case
from nodulant.strength.twist import Hole, Twist, twist_of
from nodulant.strength.typed_mounts import NO_MOUNTS, TypedMounts, typed_mounts
from nodulant.survey.crossmember import Crossmember
from nodulant.survey.vehicle import Rails, Seat, Survey
from nodulant.units.inline import as_length

ON_END_MM = 0.5
"""A part this little beyond a rail's end is on the end."""


@dataclass(frozen=True)
class SolvedFrame:
    """A frame and its rails in every case that could be computed."""

    ladder: Ladder
    load: Carried
    twist: Twist
    cases: Mapping[str, Mapping[Side, RailCase]]


@dataclass(frozen=True)
class FrameComparison:
    """Stock and planned frame in the same cases; ``missing`` says per case what input is not there."""

    stock: SolvedFrame
    planned: SolvedFrame
    asked: tuple[Case, ...]
    missing: Mapping[str, tuple[str, ...]]
    push_wanted: Mapping[str, tuple[AxleName, ...]]
    """Per case the axles of which nothing says how their push comes into the planned frame."""
    joints: tuple[Joint, ...] = ()
    mounts: TypedMounts = NO_MOUNTS
    """Whose typed forces twist the planned rails."""


@dataclass(frozen=True)
class Planned:
    """What the design makes of the frame besides its rails."""

    seats: tuple[Seat, ...]
    crossmembers: tuple[Crossmember, ...]
    joints: tuple[Joint, ...]
    plan: PlanInForce
    drop_mm: float


def missing_for_space(survey: Survey) -> tuple[str, ...]:
    """Pointers of the inputs without which no space case can be computed."""
    need = {
        "/survey/crossmembers": bool(survey.crossmembers),
        "/survey/front/track_mm": survey.front.track_mm is not None,
        "/survey/rear/track_mm": survey.rear.track_mm is not None,
        "/survey/masses": survey.weighs,
        "/survey/seats": bool(survey.seats),
    }
    return tuple(pointer for pointer, have in need.items() if not have)


GROUNDED = {"brake", "corner", "launch", "brake-corner", "bump-brake"}
STRUCK = {"kerb", "kerb-front"}


def missing_for_case(case: Case, survey: Survey, places: Places) -> tuple[str, ...]:
    """Pointers of what one case needs besides: heights, the ground, and where an axle without hangers pushes."""
    if case.id not in GROUNDED | STRUCK:
        return ()
    heights = [f"/survey/masses/{i}/z_mm" for i, m in enumerate(survey.masses) if m.z_mm is None]
    axles = (("front", survey.front), ("rear", survey.rear))
    hubs = [f"/survey/{n}/hub_z_{s}_mm" for n, axle in axles for s in LEFT_RIGHT if axle.hub_z_mm(s) is None]
    tyres = [
        f"/survey/{n}/tyre" for n, a in axles if a.tyre is None and a.loaded_radius_mm is None and case.id in GROUNDED
    ]
    spread = () if case.id in GROUNDED or spread_enough(survey.masses) else ("/survey/masses",)
    pushed = ("/design/loads/links",) if places.push_wanted(case) else ()
    return (*heights, *hubs, *tyres, *spread, *pushed)


def asked_cases(plan: LoadPlan, twisted: bool = False) -> tuple[Case, ...]:
    """The space cases in force, those with a place of their own only where the place is given.

    A bump is one of them where springs beside the rails have them ``twisted``; else each rail as a beam says it.
    """
    every = in_force(SPACE_CASES, plan)
    return tuple(case for case in every if not wanted_place(case, plan) and (twisted or case.id != BESIDE))


def wanted_place(case: Case, plan: LoadPlan) -> bool:
    """Whether a case waits for its place."""
    if not case.place or case.axle is None:
        return False
    return (plan.jack(case.axle) if case.id.startswith("jack") else plan.stop(case.axle)) is None


def compare_frames(survey: Survey, planned: Planned, rails: Mapping[Side, RailComparison]) -> FrameComparison:
    """Solve both frames at the stations where both rails were sectioned. Raises NotSolvable."""
    seated = ("/design/seats", planned.seats) if planned.seats else ("/survey/seats", survey.seats)
    for field, parts in (
        ("/survey/crossmembers", survey.crossmembers),
        ("/design/crossmembers", planned.crossmembers),
        seated,
    ):
        _on_both_rails(survey.rails, field, [part.x_mm for part in parts])
    plan, seats = planned.plan, planned.seats or survey.seats
    before = stock_places(survey, plan)
    after = before.planned(survey, plan, seats, planned.drop_mm)
    x = _common_stations(survey, planned, rails)
    at = {side: np.searchsorted(rails[side].x, x) for side in LEFT_RIGHT}
    marks = [*_marks(seats, plan), *_marks(survey.seats, plan), *(s.x_mm for s in survey.stops)]
    ties = [*survey.crossmembers, *planned.crossmembers]
    rows = node_rows(x, [*(c.x_mm for c in ties), *marks], planned.joints)
    own = {side: rails[side].stock.rows(at[side]) for side in LEFT_RIGHT}
    built = {side: rails[side].built.rows(at[side]) for side in LEFT_RIGHT}
    stock = _stock(survey, plan, before, own, (x, rows))
    stands = _planned(survey, planned, after, rails, (own, built), (x, rows))
    pressed = [*stands.load.spring_pulls, *(mount.pull for mount in stands.mounts.springs)]
    asked = asked_cases(plan, twisted=bool(beside(stands.frame, pressed)))
    missing: dict[str, tuple[str, ...]] = {case.id: missing_for_case(case, survey, after) for case in asked}
    ready = tuple(case for case in asked if not missing[case.id])
    factor = next(case.factor for case in asked if case.id == TWIST)
    bump = next(case.factor for case in in_force(CASES, plan) if case.id == "bump")
    both = [
        _solved(
            stock,
            survey,
            tuple(case for case in ready if before.knows(case)),
            Hole(plan.hole_mm, factor, plan.stock_rolls),
            bump,
        ),
        _solved(stands, survey, ready, Hole(plan.hole_mm, factor, plan.rolls), bump),
    ]
    wanted: dict[str, tuple[AxleName, ...]] = {case.id: after.push_wanted(case) for case in asked}
    return FrameComparison(both[0], both[1], asked, missing, wanted, planned.joints, stands.mounts)


def _on_both_rails(rails: Rails, field: str, places: list[float]) -> None:
    common = ladder_stations(rails, [])
    off = [x for x in places if not common[0] - ON_END_MM <= x <= common[-1] + ON_END_MM]
    if off:
        raise NotSolvable(
            f"x = {as_length(off[0])} lies beyond the rails; both are there from {as_length(common[0])} to {as_length(common[-1])}",
            field=field,
            found=f"x = {as_length(off[0])}",
            acceptable=f"{as_length(common[0])} to {as_length(common[-1])}",
        )


Sections = Mapping[Side, SectionColumns]
Nodes = tuple[Columns, Indices]
"""Stations of the sections, and which of them are nodes."""


@dataclass(frozen=True)
class _Stands:
    """A frame with what it carries, where the cases act on it, and its rails' sections."""

    frame: Frame
    load: Carried
    places: Places
    cut: Sections
    mounts: TypedMounts = NO_MOUNTS


def _stock(survey: Survey, plan: PlanInForce, places: Places, cut: Sections, nodes: Nodes) -> _Stands:
    """The surveyed frame on its own supports and stops."""
    frame = build_frame(survey.rails, nodes, cut, survey.crossmembers)
    ground, links = survey.ground_z_mm(), plan.stock_links
    load = carried_by(survey.masses, survey.seats, ground, links, places.pushes, plan.stock_axles)
    return _Stands(frame, load, places, cut)


def _planned(
    survey: Survey,
    planned: Planned,
    places: Places,
    rails: Mapping[Side, RailComparison],
    sections: tuple[Sections, Sections],
    nodes: Nodes,
) -> _Stands:
    """The planned frame on its routes, from the sections of stock and plan."""
    stock, cut = sections
    routes = {side: rails[side].route for side in LEFT_RIGHT}
    seats, plan = planned.seats or survey.seats, planned.plan
    frame = build_frame(survey.rails, nodes, cut, planned.crossmembers, routes, planned.joints, stock)
    ground = survey.ground_z_mm()
    lower = None if ground is None else ground + planned.drop_mm / 2
    load = carried_along(survey.masses, seats, routes, lower, plan.links, places.pushes, plan.axles)
    return _Stands(frame, load, places, cut, typed_mounts(survey, rails, plan))


def _marks(seats: Sequence[Seat], plan: LoadPlan) -> list[float]:
    return [*(s.x_mm for s in seats), *(p.x_mm for p in plan.jacks), *(p.x_mm for p in plan.stops)]


def _common_stations(survey: Survey, planned: Planned, rails: Mapping[Side, RailComparison]) -> Columns:
    """Stations of both rails, thinned where nothing begins, ends, stands or is loaded."""
    common = np.intersect1d(rails["left"].x, rails["right"].x)
    keep = np.isin(common, ladder_stations(survey.rails, []))
    keep[[0, -1]] = True
    placed = [p for rail in rails.values() for p in rail.placed]
    spots = [x for p in placed for x in (p.start_mm, p.end_mm)]
    spots += [x for p in placed for cut in p.cuts for x in (cut.start_mm, cut.end_mm)]
    spots += [*_marks((*planned.seats, *survey.seats), planned.plan), *(s.x_mm for s in survey.stops)]
    for c in (*survey.crossmembers, *planned.crossmembers):
        keep |= np.abs(common - c.x_mm) < BESIDE_MM + 0.1
    for spot in spots:
        keep |= np.abs(common - spot) < 1.0
    for p in placed:
        if p.op.opens:
            keep |= (common > p.start_mm) & (common < p.end_mm)
    return np.asarray(common[keep])


def _case_rows(frame: Frame, load: Carried, places: Places, ready: tuple[Case, ...]) -> dict[str, Columns]:
    """Nodal loads of every case that acts by itself, at its own factor; brake and corner at 1 where others need them."""
    rows: dict[str, Columns] = {}
    factors = {case.id: case.factor for case in ready}
    needed = [*(case.id for case in ready), *(part for case in ready for part in case.of)]
    for case_id in dict.fromkeys(needed):
        factor, case = factors.get(case_id, 1.0), next((c for c in ready if c.id == case_id), None)
        if case_id == "brake":
            rows["brake"] = case_loads.braking(frame, load, factor)
        elif case_id == "corner":
            rows["corner"] = case_loads.cornering(frame, load, factor)
        elif case_id == "launch":
            rows["launch"] = case_loads.launching(frame, load, places.grip * factor)
        elif case is not None and case.axle is not None:
            rows |= _placed_rows(frame, load, places, case, case.axle)
    return rows


def _placed_rows(frame: Frame, load: Carried, places: Places, case: Case, axle: AxleName) -> dict[str, Columns]:
    jack, stops, wheel = places.jacks.get(axle), places.stops.get(axle), places.wheels.get(axle)
    if case.id.startswith("jack") and jack:
        return {case.id: case.factor * case_loads.jacked(frame, load, jack)}
    if case.id.startswith("stop") and stops:
        return {case.id: case_loads.stopped(frame, load, stops, case.factor)}
    if case.id in STRUCK and wheel:
        pulls = [pull.times(case.factor) for pull in places.pulls.get(axle) or by_seats(frame, load, wheel)]
        right, left = struck(frame, load, pulls, [pull.mirrored() for pull in pulls])
        return {f"{case.id}:right": right, f"{case.id}:left": left}
    return {}


EITHER_WAY = {"twist", "corner"}
ALONE = {"jack", "jack-front"}
TOWERS, BARS = "towers", "bars"
"""What typed mounts of springs and of track bars twist the rails by: with the bump, and with cornering."""


def _solved(stands: _Stands, survey: Survey, ready: tuple[Case, ...], hole: Hole, bump: float) -> SolvedFrame:
    load, cut = stands.load, stands.cut
    rows = _case_rows(stands.frame, load, stands.places, ready)
    for name, mounts in ((TOWERS, stands.mounts.springs), (BARS, stands.mounts.bars)):
        if mounts:
            whole = twisted(stands.frame, [mount.pull for mount in mounts])
            rows[name] = np.where(np.arange(6) == MX, whole, 0.0)
    ladder = solve_cases(stands.frame, load, rows)
    twist = twist_of(survey.model_copy(update={"masses": load.masses}), load.seats, ladder, hole)
    out: dict[str, dict[Side, RailCase]] = {case.id: {} for case in ready}
    extras = _extras(ladder, twist.couple_nmm, bump)
    forces = np.stack([_together(case, extras) for case in ready], axis=1)
    for side, own in zip(LEFT_RIGHT, forces, strict=True):
        stacked = rail_case(RailForces(ladder.every[side].x, own), cut[side])
        for row, case in enumerate(ready):
            out[case.id][side] = stacked.case(row)
    return SolvedFrame(ladder, load, twist, out)


def _extras(ladder: Ladder, couple: float, bump: float) -> dict[str, Columns]:
    """What each case adds to standing, and standing itself; (rails, forces, stations) each.

    The twist counts the greater of the forces with the joints as they are and with all of them held.
    """
    every = np.stack([ladder.every[side].columns for side in LEFT_RIGHT])
    out = {}
    for case_id in dict.fromkeys(name.partition(":")[0] for name in ladder.cases):
        rows = [ladder.row(case_id, side) for side in LEFT_RIGHT]
        out[case_id] = every[:, rows[0]] if rows[0] == rows[1] else every[[0, 1], rows]
    out[TWIST] = couple * np.maximum(np.abs(out[TWIST]), np.abs(every[:, -1]))
    out["bump"] = (bump - 1.0) * out[STANDING]
    if "corner" in out and BARS in out:
        out["corner"] = np.abs(out["corner"]) + np.abs(out[BARS])
    return out


def _together(case: Case, extras: dict[str, Columns]) -> Columns:
    """The case's own forces with the standing ones, magnitudes: added as they come, in the worse sense, or alone."""
    as_come = np.zeros_like(extras[STANDING]) if case.id in ALONE else extras[STANDING]
    worse: Columns | None = None
    own_parts: list[tuple[float, str]] = [(case.factor, part) for part in case.of] or [(1.0, case.id)]
    if case.id == BESIDE and TOWERS in extras:
        own_parts.append((1.0, TOWERS))
    for share, part in own_parts:
        own = extras[part] if share == 1.0 else share * extras[part]
        if part in EITHER_WAY:
            worse = np.abs(own) if worse is None else worse + np.abs(own)
        else:
            as_come = as_come + own
    return np.asarray(np.abs(as_come) if worse is None else np.abs(as_come) + worse)
