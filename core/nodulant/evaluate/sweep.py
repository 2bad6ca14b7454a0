"""The full sweep of a design: pairs in a list, worst first, as they are worked out."""

from collections.abc import Generator
from dataclasses import dataclass

import numpy as np

from nodulant.base.arrays import significant
from nodulant.base.errors import NodulantError
from nodulant.base.memo import remembered
from nodulant.base.model import Frozen
from nodulant.checks.check import Check, order
from nodulant.checks.sweep_rules import inside_check, sweep_checks, way_in_words, way_of
from nodulant.clearance.axle_bodies import axle_movers
from nodulant.clearance.moving import Mover
from nodulant.clearance.placed_things import depth_in_rail, standing_of
from nodulant.clearance.rail_prisms import rail_body
from nodulant.clearance.shapes import Standing
from nodulant.clearance.sweep import Cleared, Pair, clearance_map, pairs_of, swept
from nodulant.evaluate.travel import suspension_studies
from nodulant.job.document import Inputs
from nodulant.parts.limits import find_limit
from nodulant.parts.sides import LEFT_RIGHT
from nodulant.parts.tyre import parse_tyre
from nodulant.suspension.study import Study
from nodulant.targets.drop import add_up

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
    travel_mm: float | None = None
    roll_deg: float | None = None
    input: float | None = None
    at: list[float] = []
    way: list[float] = []
    words: str = ""
    at_rest_mm: float | None = None
    inside_at_rest: bool = False
    first_bump_mm: float | None = None
    first_lock: float | None = None


class SweepResult(Frozen):
    """All pairs worst first, their checks, how many positions stood behind them, and what could not be looked at."""

    pairs: tuple[SweptPair, ...]
    checks: tuple[Check, ...]
    positions: int
    left_out: tuple[str, ...]


class ClearanceMap(Frozen):
    """Clearance of one pair over travel (rows) and steering input (columns), the worst of roll; None out of reach."""

    id: str
    travel_mm: list[float]
    inputs: list[float]
    gap_mm: list[list[float | None]]
    needed_mm: float


@dataclass(frozen=True)
class Scene:
    """Everything that takes part, and why something does not."""

    movers: tuple[Mover, ...]
    standing: tuple[Standing, ...]
    left_out: tuple[str, ...]


def scene(inputs: Inputs) -> Scene:
    """Moving bodies of both axles, rails with their cuts, and what the user placed."""
    towards = add_up(inputs.design.targets).towards_rail_mm
    movers: list[Mover] = []
    left: list[str] = []
    for s in suspension_studies(inputs, towards):
        own, words = _movers(inputs, s)
        movers += own
        left += words
    held = {s.axle for s in inputs.design.suspensions}
    left += [f"{axle} axle: nothing holds it in this design" for axle in ("front", "rear") if axle not in held]
    rails = tuple(rail_body(inputs.survey, inputs.design.operations, side) for side in LEFT_RIGHT)
    left.append("crossmembers: their height was not surveyed; place those that matter as boxes")
    return Scene(tuple(movers), (*rails, *(standing_of(o) for o in inputs.design.obstacles)), tuple(left))


@remembered(4)
def _bodies(s: Study, tyre: str | None, tube_mm: float | None) -> tuple[Mover, ...]:
    return axle_movers(s, parse_tyre(tyre) if tyre else None, tube_mm)


def _movers(inputs: Inputs, s: Study) -> tuple[tuple[Mover, ...], list[str]]:
    own = s.suspension
    surveyed = inputs.survey.front if own.axle == "front" else inputs.survey.rear
    tyre = own.tyre or surveyed.tyre
    if s.motion is None:
        reason = s.trouble.message if s.trouble else "a reading of the survey is missing"
        return (), [f"{own.axle} axle: it does not move, {reason}"]
    words = [] if tyre else [f"{own.axle} tyres: their size is not known"]
    if not own.layout.independent and surveyed.tube_diameter_mm is None:
        words.append(f"{own.axle} axle's tube: its diameter was not surveyed")
    try:
        return _bodies(s, tyre, surveyed.tube_diameter_mm), words
    except NodulantError as error:
        return (), [f"{own.axle} axle: {error.message}"]


def sweep(inputs: Inputs) -> Generator[tuple[int, int, SweptPair], None, SweepResult]:
    """Work out every pair; yields (done, all, the pair), returns all of them with their checks."""
    here, limits = scene(inputs), inputs.design.limits
    pairs = pairs_of(here.movers, here.standing)
    checks, found = _inside(inputs, here), []
    for k, cleared in enumerate(swept(pairs), start=1):
        told = _told(inputs, cleared)
        found.append(told)
        checks += sweep_checks(cleared, limits)
        yield k, len(pairs), told
    grids = {id(m.positions): m.positions.count for m in here.movers}
    return SweepResult(
        pairs=tuple(sorted(found, key=_urgency)),
        checks=order(checks),
        positions=sum(grids.values()),
        left_out=here.left_out,
    )


def whole_sweep(inputs: Inputs) -> SweepResult:
    """The sweep to its end."""
    work = sweep(inputs)
    while True:
        try:
            next(work)
        except StopIteration as end:
            result: SweepResult = end.value
            return result


def _urgency(p: SweptPair) -> float:
    return (p.gap_mm if p.gap_mm is not None else (p.beyond_mm or 0.0)) - p.needed_mm


def _told(inputs: Inputs, cleared: Cleared) -> SweptPair:
    pair, found = cleared.pair, cleared.least
    thing = pair.other if isinstance(pair.other, Standing) else None
    head = {
        "id": pair.id,
        "axle": pair.mover.positions.axle,
        "moving": pair.mover.name,
        "other": pair.other.name,
        "kind": thing.kind if thing else "moving",
        "obstacle_id": thing.obstacle_id if thing else "",
        "limit_id": pair.wish,
        "needed_mm": find_limit(pair.wish, inputs.design.limits)[0].value,
        "beyond_mm": None if cleared.beyond_mm is None else significant(np.array([cleared.beyond_mm]))[0],
        "gap_mm": None if found is None else significant(np.array([found.gap_mm]))[0],
    }
    if found is None:
        return SweptPair(**head)
    way = way_of(found)
    return SweptPair(
        **head,
        travel_mm=found.travel_mm,
        roll_deg=found.roll_deg,
        input=found.input,
        at=significant((found.mine + found.other) / 2),
        way=list(way),
        words=way_in_words(way),
        at_rest_mm=cleared.at_rest_mm,
        inside_at_rest=cleared.at_rest_mm is not None and cleared.at_rest_mm < 0.0,
        first_bump_mm=cleared.first_bump_mm,
        first_lock=cleared.first_lock,
    )


def _inside(inputs: Inputs, here: Scene) -> list[Check]:
    """Things that stand in a rail at rest."""
    rails = [s for s in here.standing if s.kind == "rail" and not s.obstacle_id]
    things = [s for s in here.standing if s.obstacle_id]
    depths = [(t.name, r.name, depth_in_rail(t, r)) for t in things for r in rails]
    return [inside_check(name, rail, depth, inputs.design.limits) for name, rail, depth in depths if depth > 0.0]


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
    )


def pair_named(inputs: Inputs, pair_id: str) -> Pair | None:
    """A pair by its id."""
    here = scene(inputs)
    return next((p for p in pairs_of(here.movers, here.standing) if p.id == pair_id), None)
