"""The full sweep of a design: pairs in a list, worst first, as they are worked out."""

from collections.abc import Generator
from dataclasses import dataclass

import numpy as np

from nodulant.axles.layouts.live import LeafSprings
from nodulant.axles.springs import LeafPack
from nodulant.axles.steering import CentreLink
from nodulant.base.arrays import one_significant, significant
from nodulant.base.errors import NodulantError
from nodulant.base.memo import remembered
from nodulant.base.model import Frozen
from nodulant.checks.check import Check, Verdict, order
from nodulant.checks.sweep_rules import inside_check, sweep_checks, way_in_words, way_of
from nodulant.clearance.arches import arch_of
from nodulant.clearance.axle_bodies import axle_movers
from nodulant.clearance.gear_bodies import gear_bodies
from nodulant.clearance.hung_bodies import Work, block_of
from nodulant.clearance.moving import Mover
from nodulant.clearance.placed_things import depth_in_rail, standing_of
from nodulant.clearance.rail_prisms import rail_body
from nodulant.clearance.shapes import Standing
from nodulant.clearance.sweep import Cleared, Pair, Wish, clearance_map, pairs_of, swept
from nodulant.clearance.tie_bodies import tie_bodies
from nodulant.clearance.work_bodies import work_bodies
from nodulant.driveline.driveline import Driveline
from nodulant.evaluate.clearances.ground import SweptAxle, ground_angles, jack_room, scrubs
from nodulant.evaluate.suspensions.travel import suspension_studies
from nodulant.evaluate.suspensions.travel_drawing import Fact
from nodulant.frame.model import placed_on, planned_state, route_on
from nodulant.frame.ops.crossmember_change import CrossmemberChange
from nodulant.frame.parts import work_on
from nodulant.frame.ties import planned_crossmembers
from nodulant.job.document import Inputs
from nodulant.job.riding import in_place
from nodulant.parts.limits import find_limit
from nodulant.parts.sides import LEFT_RIGHT, LoadState
from nodulant.parts.tyre import Tyre, parse_tyre
from nodulant.search.steps import to_the_end
from nodulant.survey.checklist import reading_missing
from nodulant.survey.vehicle import Axle
from nodulant.suspension.study import Study, tyre_on_wheel

NEAR_SHOWN = 200


class SweptPair(Frozen):
    """One pair: least clearance, mm, where it is and which way the other has to go; far ones say how far at least."""

    id: str
    axle: str
    moving: str
    other: str
    kind: str
    """'rail', 'moving', or the kind of what was placed."""
    obstacle_id: str
    limit_id: str
    needed_mm: float
    gap_mm: float | None
    beyond_mm: float | None
    verdict: Verdict
    travel_mm: float | None = None
    roll_deg: float | None = None
    input: float | None = None
    at: list[float] = []
    way: list[float] = []
    short_mm: float | None = None
    """What the clearance lacks: how far one has to go that way; None where it lacks nothing."""
    words: str = ""
    at_rest_mm: float | None = None
    inside_at_rest: bool = False
    first_bump_mm: float | None = None
    first_lock: float | None = None
    stands_mm: dict[LoadState, float] = {}
    """Of a tyre: standing straight in each load state whose travel is known."""


class SweepResult(Frozen):
    """All pairs worst first, their checks, how many positions stood behind them, and what could not be looked at."""

    pairs: tuple[SweptPair, ...]
    checks: tuple[Check, ...]
    positions: int
    under: tuple[Fact, ...]
    """Angles of approach, departure and breakover."""
    left_out: tuple[str, ...]


class ClearanceMap(Frozen):
    """Clearance of one pair over travel (rows) and steering input (columns), the worst of roll; None out of reach."""

    id: str
    travel_mm: list[float]
    inputs: list[float]
    gap_mm: list[list[float | None]]
    needed_mm: float
    stands_mm: dict[LoadState, float]
    """Wheel travel in each load state."""


@dataclass(frozen=True)
class Scene:
    """Everything that takes part, and why something does not."""

    movers: tuple[Mover, ...]
    standing: tuple[Standing, ...]
    axles: tuple[SweptAxle, ...]
    left_out: tuple[str, ...]


def scene(inputs: Inputs) -> Scene:
    """Moving bodies of both axles, rails with their cuts, and what the user placed."""
    inputs = in_place(inputs)
    axles: list[SweptAxle] = []
    left: list[str] = []
    studies = suspension_studies(inputs)
    for s in studies:
        own, words = _movers(inputs, s)
        tyre = s.suspension.tyre or _surveyed(inputs, s).tyre
        stands = {w.state: w.travel_mm for w in s.stands if w.travel_mm is not None}
        if s.setting is not None:
            axles.append(
                SweptAxle(s.suspension.axle, s.setting, own, parse_tyre(tyre).rim_mm if tyre else None, stands)
            )
        left += words
    held = {s.axle for s in inputs.design.suspensions}
    left += _not_bodies(inputs)
    left += [f"{axle} axle: nothing holds it in this design" for axle in ("front", "rear") if axle not in held]
    operations = inputs.design.operations
    rails = tuple(rail_body(inputs.survey, operations, side) for side in LEFT_RIGHT)
    works = tuple(body for side in LEFT_RIGHT for body in work_bodies(inputs.survey, operations, side))
    ties = planned_crossmembers(inputs.survey, operations, inputs.design.crossmembers)
    # what an operation adds has solids of its own
    solid = {op.id for op in operations if not isinstance(op, CrossmemberChange)}
    ties = tuple(t for t in ties if not any(t.id == i or t.id.startswith(f"{i[:36]}-") for i in solid))
    state = planned_state(operations)
    routes = {side: route_on(inputs.survey, operations, side, state) for side in LEFT_RIGHT}
    between = tie_bodies(ties, inputs.survey.rails, routes)
    left += [f"{t.name} crossmember: its height is not surveyed" for t in ties if t.up_mm is None]
    box = any(o.kind == "steering-box" for o in inputs.design.obstacles)
    movers = tuple(m for axle in axles for m in axle.movers)
    arches = [arch_of(name, axle) for name, axle in (("front", inputs.survey.front), ("rear", inputs.survey.rear))]
    things = (
        *rails,
        *works,
        *between,
        *(a for a in arches if a is not None),
        *(body for s in studies if s.motion is not None for body in gear_bodies(s.suspension, placed=box)),
        *(standing_of(o) for o in inputs.design.obstacles),
    )
    return Scene(movers, things, tuple(axles), tuple(left))


def _surveyed(inputs: Inputs, s: Study) -> Axle:
    return inputs.survey.front if s.suspension.axle == "front" else inputs.survey.rear


@remembered(4)
def _bodies(
    s: Study, tyre: Tyre | None, tube_mm: float | None, work: tuple[Work, ...], line: Driveline | None
) -> tuple[Mover, ...]:
    return axle_movers(s, tyre, tube_mm, work, line)


def _on_axle(inputs: Inputs, s: Study) -> tuple[Work, ...]:
    """What the design puts on one axle, a block each; the nearer axle's line says whose it is."""
    survey, operations = inputs.survey, inputs.design.operations
    if s.suspension.layout.independent:
        return ()
    try:
        placed = placed_on(survey, operations, "right", planned_state(operations))
    except NodulantError:
        return ()
    middle = (survey.wheelbase_mm or 0.0) / 2
    out = []
    for work in work_on(survey, "right", placed):
        axle = "rear" if work.on.span.centre_mm > middle else "front"
        if axle == s.suspension.axle and (block := block_of(work.solids)) is not None:
            out.append((work.op.name, block))
    return tuple(out)


def _not_bodies(inputs: Inputs) -> list[str]:
    """What is in the design and has no body here, each with the reason."""
    out = []
    for own in inputs.design.suspensions:
        leaf = isinstance(own.springs, LeafPack)
        if leaf and not isinstance(own.layout, LeafSprings):
            out.append(f"{own.axle} leaf springs: where their eyes are is not known")
        elif isinstance(own.layout, LeafSprings) and own.layout.rear_eye is None:
            out.append(f"{own.axle} leaf springs' rear halves: where the rear eye is was not given")
        if own.anti_roll is not None and own.anti_roll.runs is None:
            out.append(f"{own.axle} anti-roll bar: where its bar runs is not known")
        if own.strap is not None:
            out.append(f"{own.axle} limit straps: they fold")
        if own.steering is not None and isinstance(own.steering.gear, CentreLink):
            out.append(f"{own.axle} centre link, pitman and idler arms: their rods alone are looked at")
    return out


def _movers(inputs: Inputs, s: Study) -> tuple[tuple[Mover, ...], list[str]]:
    own = s.suspension
    surveyed = _surveyed(inputs, s)
    tyre = own.tyre or surveyed.tyre
    if s.motion is None:
        reason = s.trouble.message if s.trouble else reading_missing(s.missing)
        return (), [f"{own.axle} axle: it does not move, {reason}"]
    words = [] if tyre else [f"{own.axle} tyres: their size is not known"]
    if not own.layout.independent and surveyed.tube_diameter_mm is None:
        words.append(f"{own.axle} axle's tube: its diameter was not surveyed")
    try:
        line = inputs.design.driveline if own.axle == "rear" else None
        tube = surveyed.tube_diameter_mm
        return _bodies(s, tyre_on_wheel(own, inputs.survey), tube, _on_axle(inputs, s), line), words
    except NodulantError as error:
        return (), [f"{own.axle} axle: {error.message}"]


HELD_TO: dict[Wish, tuple[str, ...]] = {
    "metal-clearance": ("metal-clearance",),
    "tyre-sweep": ("tyre-sweep", "tyre-static"),
    "soft-clearance": ("soft-clearance",),
    "column-clear": ("column-clear",),
}
"""Limits that a pair is held to, by its wish."""


def sweep(inputs: Inputs) -> Generator[tuple[int, int, SweptPair], None, SweepResult]:
    """Work out every pair; yields (done, all, the pair), returns all of them with their checks."""
    here, limits = scene(inputs), inputs.design.limits
    pairs = _pairs(inputs, here)
    checks, found = [*_inside(inputs, here), *scrubs(here.axles, inputs.design.limits)], []
    needed = {wish: max(find_limit(limit, limits)[0].value for limit in held) for wish, held in HELD_TO.items()}
    for k, cleared in enumerate(swept(pairs, {a.name: a.stands for a in here.axles}, needed), start=1):
        own = sweep_checks(cleared, limits)
        told = _told(inputs, cleared, own[0].verdict if own else "holds")
        found.append(told)
        checks += own
        yield k, len(pairs), told
    grids = {id(m.positions): m.positions.count for m in here.movers}
    return SweepResult(
        pairs=tuple(sorted(found, key=_urgency)),
        checks=order(checks),
        positions=sum(grids.values()),
        under=(*ground_angles(here.axles, here.standing), *jack_room(here.axles, here.standing)),
        left_out=here.left_out,
    )


def _pairs(inputs: Inputs, here: Scene) -> list[Pair]:
    """Every pair; a rack's boots are none with the subframe that the rack is bolted to."""
    names = {op.id: op.name for op in inputs.design.operations}
    carried = {
        (own.axle, names[rides])
        for own in inputs.design.suspensions
        for rides in {own.rides, *own.rides_but.values()}
        if rides in names
    }

    def bolted(p: Pair) -> bool:
        own = p.other.name.rpartition(", ")[0]
        return p.mover.kind == "boot" and (p.mover.positions.axle, own) in carried

    return [p for p in pairs_of(here.movers, here.standing) if not bolted(p)]


def whole_sweep(inputs: Inputs) -> SweepResult:
    """The sweep to its end."""
    return to_the_end(sweep(inputs))


def _urgency(p: SweptPair) -> float:
    return (p.gap_mm if p.gap_mm is not None else (p.beyond_mm or 0.0)) - p.needed_mm


def _told(inputs: Inputs, cleared: Cleared, verdict: Verdict) -> SweptPair:
    pair, found = cleared.pair, cleared.least
    thing = pair.other if isinstance(pair.other, Standing) else None
    needed = find_limit(pair.wish, inputs.design.limits)[0].value
    head = {
        "id": pair.id,
        "axle": pair.mover.positions.axle,
        "moving": pair.mover.name,
        "other": pair.other.name,
        "kind": thing.kind if thing else "moving",
        "obstacle_id": thing.obstacle_id if thing else "",
        "limit_id": pair.wish,
        "verdict": verdict,
        "needed_mm": needed,
        "beyond_mm": None if cleared.beyond_mm is None else one_significant(cleared.beyond_mm),
        "gap_mm": None if found is None else one_significant(found.gap_mm),
    }
    if found is None:
        # given, not left to their defaults: those are copied deeply
        return SweptPair(**head, at=[], way=[], stands_mm={})
    way = way_of(found)
    return SweptPair(
        **head,
        travel_mm=found.travel_mm,
        roll_deg=found.roll_deg,
        input=found.input,
        at=significant((found.mine + found.other) / 2),
        way=list(way),
        words=way_in_words(way),
        short_mm=max(needed - found.gap_mm, 0.0) or None,
        at_rest_mm=cleared.at_rest_mm,
        inside_at_rest=cleared.at_rest_mm is not None and cleared.at_rest_mm < 0.0,
        first_bump_mm=cleared.first_bump_mm,
        first_lock=cleared.first_lock,
        stands_mm={k: one_significant(v) for k, v in cleared.stands_mm.items()},
    )


def _inside(inputs: Inputs, here: Scene) -> list[Check]:
    """Things that stand in a rail at rest."""
    rails = [s for s in here.standing if s.kind == "rail" and not s.obstacle_id]
    things = [s for s in here.standing if s.obstacle_id]
    depths = [(t, r.name, depth_in_rail(t, r)) for t in things for r in rails]
    return [inside_check(thing, rail, depth, inputs.design.limits) for thing, rail, depth in depths if depth > 0.0]


def map_of(inputs: Inputs, pair_id: str) -> ClearanceMap | None:
    """The map of one pair; None where there is no such pair."""
    pair = pair_named(inputs, pair_id)
    if pair is None:
        return None
    gaps, positions = clearance_map(pair), pair.mover.positions
    rows = [[None if np.isnan(v) else round(float(v), 2) for v in row] for row in gaps]
    return ClearanceMap(
        id=pair_id,
        travel_mm=significant(positions.travel),
        inputs=significant(positions.input),
        gap_mm=rows,
        needed_mm=find_limit(pair.wish, inputs.design.limits)[0].value,
        stands_mm=next((a.stands for a in scene(inputs).axles if a.name == positions.axle), {}),
    )


def pair_named(inputs: Inputs, pair_id: str) -> Pair | None:
    """A pair by its id."""
    here = scene(inputs)
    return next((p for p in _pairs(inputs, here) if p.id == pair_id), None)
