"""What presses on a rail from below or hangs on it: the web under it, and whether anything carries it at all."""

from collections.abc import Iterable, Iterator, Sequence
from typing import NamedTuple

import numpy as np

from nodulant.checks.check import Changes, Check, Governs, Subject, Why, judge, not_computed
from nodulant.frame.columns import rail_at
from nodulant.frame.model import Placed
from nodulant.frame.ops.mounts.bracket import Bracket
from nodulant.frame.ops.mounts.pad import Pad
from nodulant.loads.case_loads import jack_lift_n, stop_surplus_n
from nodulant.loads.cases import Case
from nodulant.loads.plan import PlanInForce
from nodulant.loads.pulls import REACH_MM
from nodulant.materials import find_steel
from nodulant.materials.steel import SAFETY_ON_YIELD
from nodulant.parts.sides import Side
from nodulant.strength.patch_load import TOGETHER, Web, patch_resistance_n
from nodulant.strength.rail import RailComparison
from nodulant.strength.space import FrameComparison
from nodulant.survey.crossmember import Crossmember
from nodulant.survey.vehicle import Seat, Survey

PATCH_MM = 60.0
"""Length of a pad or jack head where nothing says how long it is (Nodulant default)."""


class Press(NamedTuple):
    """A load on one rail's lower flange: its name, case, station and length, mm, and force at its factor, N."""

    name: str
    case: Case
    side: Side
    x_mm: float
    patch_mm: float
    force_n: float


def patch_checks(
    survey: Survey, rails: dict[Side, RailComparison], frames: FrameComparison, plan: PlanInForce, changes: Changes
) -> list[Check]:
    """Web crippling under stop pads and jacks, with the bending there."""
    out = []
    for press in _presses(rails, frames, plan):
        rail = rails[press.side]
        if survey.rails.of(press.side).kind == "round-tube":
            continue
        out.append(_judged(survey, rail, frames, press, changes))
        pad = max(_pads_at(rail, press.x_mm), key=lambda p: p.long_mm, default=None)
        if pad is not None and (away := _beside_the_web(survey, rail, pad, press.x_mm)) > 0:
            out.append(_on_the_flange(survey, press, pad, away, changes))
    return out


def _beside_the_web(survey: Survey, rail: RailComparison, pad: Pad, x_mm: float) -> float:
    """How far from the nearest web, under its middle, a pad's edge ends; 0 where it reaches under one."""
    own = survey.rails.of(rail.side)
    _, _, width, wall = rail_at(own, x_mm)
    row = int(np.argmin(np.abs(rail.x - x_mm)))
    boxed = any(p.role in {"boxing", "inner"} and p.share[row] > 0.5 for p in rail.built.whole.plates)
    web = width / 2 - wall / 2
    near, far = pad.out_mm - pad.across_mm / 2, pad.out_mm + pad.across_mm / 2
    webs = (web, -web) if own.closed or boxed else (web,)
    return min(max(0.0, y - far, near - y) for y in webs)


def _on_the_flange(survey: Survey, press: Press, pad: Pad, away_mm: float, changes: Changes) -> Check:
    """The flange between a pad and the web as a cantilever: its own wall bends over the pad's length and twice the arm."""
    own = survey.rails.of(press.side)
    wall = rail_at(own, press.x_mm)[3]
    long = press.patch_mm + 2 * away_mm
    values = {
        "force": press.force_n,
        "arm": away_mm,
        "modulus": long * wall**2 / 4,
        "allowed": find_steel(own.steel_id).yield_mpa / SAFETY_ON_YIELD,
    }
    return judge(
        "flange-bending",
        Subject(subject=press.name, side=press.side, cause=f"pressed {press.name}"),
        values["force"] * values["arm"] / (values["modulus"] * values["allowed"]),
        Why(
            formula="force * arm / (modulus * allowed)",
            values=values,
            words=f"'{pad.name}' ends beside the web: from its edge to the web's middle, plastic modulus of the flange, N and mm",
        ),
        changes,
        detail=press.case.name,
        governs=Governs(case=press.case.id, station_mm=press.x_mm),
        remedy="Move the pad under the web, make it as wide as the rail, or put a gusset inside the rail over it.",
    )


def _presses(rails: dict[Side, RailComparison], frames: FrameComparison, plan: PlanInForce) -> Iterator[Press]:
    load, frame = frames.planned.load, frames.planned.ladder.frame
    for case in frames.asked:
        if case.axle is None or case.id not in frames.planned.cases:
            continue
        stops, jack = plan.stop(case.axle), plan.jack(case.axle)
        if case.id.startswith("stop") and stops is not None:
            force = stop_surplus_n(load, case.axle, case.factor) / 2
            for side, rail in rails.items():
                yield Press(f"stop-{case.axle}", case, side, stops.x_mm, _length(rail, stops.x_mm), force)
        if case.id.startswith("jack") and jack is not None:
            force = case.factor * jack_lift_n(frame, load, jack)
            yield Press(f"jack-{case.axle}", case, jack.side, jack.x_mm, PATCH_MM, force)


def _pads_at(rail: RailComparison, x_mm: float) -> list[Pad]:
    return [p.op for p in rail.placed if isinstance(p.op, Pad) and p.start_mm <= x_mm <= p.end_mm]


def _length(rail: RailComparison, x_mm: float) -> float:
    return max((pad.long_mm for pad in _pads_at(rail, x_mm)), default=PATCH_MM)


def _judged(survey: Survey, rail: RailComparison, frames: FrameComparison, press: Press, changes: Changes) -> Check:
    own = survey.rails.of(press.side)
    _, height, width, wall = rail_at(own, press.x_mm)
    steel = find_steel(own.steel_id)
    row = int(np.argmin(np.abs(rail.x - press.x_mm)))
    webs = [wall, *([wall] if own.closed else [])]
    webs += [
        p.thickness_mm for p in rail.built.whole.plates if p.role in {"boxing", "outer", "inner"} and p.share[row] > 0.5
    ]
    flange = width / len(webs)
    resistance = sum(
        patch_resistance_n(Web(height - 2 * wall, t, flange, wall, steel.yield_mpa), press.patch_mm) for t in webs
    )
    case = frames.planned.cases[press.case.id][press.side]
    k = int(np.argmin(np.abs(case.x - press.x_mm)))
    p = rail.built.properties
    moment, bending = float(case.forces.moment[k]), float(min(p.working_top[row], p.working_bottom[row]))
    values = {
        "pad": press.patch_mm,
        "force": press.force_n,
        "F_Rd": resistance,
        "moment": moment,
        "M_Rd": max(bending, 1e-9),
    }
    alone = SAFETY_ON_YIELD * press.force_n / resistance
    both = SAFETY_ON_YIELD * (press.force_n / resistance + 0.8 * moment / values["M_Rd"]) / TOGETHER
    formula = "1.5 * force / F_Rd" if alone >= both else "1.5 * (force / F_Rd + 0.8 * moment / M_Rd) / 1.4"
    return judge(
        "patch-load",
        Subject(subject=press.name, side=press.side, cause=f"pressed {press.name}"),
        max(alone, both),
        Why(
            formula=formula,
            values=values,
            words=f"{press.case.name}: a pad on the lower flange, bearing up to the web; N and N mm",
        ),
        changes,
        detail=press.case.name,
        governs=Governs(case=press.case.id, station_mm=press.x_mm),
        remedy="A longer pad, a plate on the web over it, or a gusset inside the rail.",
    )


def carried_checks(
    seats: Sequence[Seat],
    survey: Survey,
    ties: Sequence[Crossmember],
    rails: Iterable[RailComparison],
    changes: Changes,
) -> list[Check]:
    """A new seat asks what carries it; the surveyed ones hang where they hung."""
    placed = [p for rail in rails for p in rail.placed]
    known = {(s.axle, s.x_mm) for s in survey.seats}
    out = []
    for seat in seats:
        if (seat.axle, seat.x_mm) in known or _carried(seat.x_mm, ties, placed):
            continue
        row = not_computed("seat-carried", Subject(subject=seat.id), ("/design/operations",), changes)
        words = f"What carries '{seat.name}'? Nothing is planned at its place: give it a crossmember, a spring bridge, a bracket or a pad."
        out.append(
            row.model_copy(
                update={"title": f"What carries '{seat.name}'?", "remedy": words, "cause": f"carried {seat.id}"}
            )
        )
    return out


def _carried(x_mm: float, ties: Sequence[Crossmember], placed: Sequence[Placed]) -> bool:
    if any(abs(c.x_mm - x_mm) <= REACH_MM for c in ties):
        return True
    kinds = {"spring-bridge", "spring-pocket", "raise", "truss"}
    near = [p for p in placed if p.start_mm - REACH_MM <= x_mm <= p.end_mm + REACH_MM]
    if any(abs(at - x_mm) <= REACH_MM for p in placed for at in p.op.stands_at(p.span)):
        return True
    return any(isinstance(p.op, Bracket | Pad) or p.op.kind in kinds for p in near)
