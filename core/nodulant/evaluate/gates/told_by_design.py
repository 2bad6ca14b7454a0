"""What other parts of the design say of a step: bolts to come in a rail that closes, clips that go with the cut, who does it."""

from collections.abc import Sequence
from dataclasses import replace

import numpy as np

from nodulant.base.arrays import Columns
from nodulant.base.errors import NodulantError
from nodulant.build.general import LINES_STEP, LOADS_STEP
from nodulant.build.plan import Step, stretches_of
from nodulant.build.rules import MEET_MM
from nodulant.clearance.placed_things import standing_of
from nodulant.frame.added_ties import tie_works
from nodulant.frame.columns import rail_at
from nodulant.frame.model import placed_on, planned_state
from nodulant.frame.parts import work_on
from nodulant.job.document import Inputs
from nodulant.parts.bought import BoltsNeeded, TubeNeeded
from nodulant.parts.outside import ACCEPTS
from nodulant.parts.sides import LEFT_RIGHT, Side, on_sides
from nodulant.parts.specs import HoldPoint
from nodulant.survey.rail import Rail
from nodulant.units.inline import as_length, as_place

HEAT_MM = 150.0
"""What runs nearer to a bead, spark or cut than this is moved or shielded (common practice)."""
LEAST_MM = 0.5
MOST = 6
"""More names than this are counted."""
Later = dict[tuple[str, Side], tuple[str, ...]]


def told_by_design(inputs: Inputs, steps: Sequence[Step]) -> tuple[Step, ...]:
    """The same steps with what the rest of the design has to say of them; never fewer, never in another order."""
    later, gone, passing = _bolts_later(inputs), _gone_with_the_cut(inputs), _passing(inputs)
    sawn = _sawn(inputs) if any("ties" in step.spec.acts for step in steps) else {}
    handed = {h.step: h for h in inputs.design.timing.handouts}
    out = []
    for step in steps:
        words = ""
        if step.spec.key == "inside" and step.operation is not None:
            rows = dict.fromkeys(r for side in _sides(step) for r in later.get((step.operation, side), ()))
            words = (
                f" For what is bolted here later: {_some(list(rows))}: pads, sleeves or captive nuts now."
                if rows
                else ""
            )
        elif step.id in {LOADS_STEP, LINES_STEP}:
            words = f" In what is cut or plated: {_some(gone)}." if gone else ""
            words += f" Within {as_length(HEAT_MM)} of it pass: {_some(passing)}." if passing else ""
        elif "ties" in step.spec.acts:
            words = sawn.get(step.operation or "", "")
        spec = step.spec if not words else step.spec.model_copy(update={"detail": step.spec.detail + words})
        if step.id in handed:
            to = handed[step.id].to
            ask = f"Taken back from {'outside' if to == 'other' else f'the {to}'}: {'; '.join(ACCEPTS[to])}"
            spec = spec.model_copy(update={"hold": HoldPoint(kind="look", ask=ask)})
        out.append(step if spec is step.spec else replace(step, spec=spec))
    return tuple(out)


def _sides(step: Step) -> tuple[Side, ...]:
    return tuple(side for side in LEFT_RIGHT if step.side in {side, "both"})


def _some(names: Sequence[str]) -> str:
    more = len(names) - MOST
    return ", ".join(names[:MOST]) + (f" and {more} more" if more > 0 else "")


def _bolts_later(inputs: Inputs) -> Later:
    """By operation and rail, what other operations bolt through the rail's wall in the same stretch, with where from its datum."""
    survey, ops = inputs.survey, inputs.design.operations
    try:
        spans, state = stretches_of(survey, ops), planned_state(ops)
        works = {s: list(work_on(survey, s, placed_on(survey, ops, s, state))) for s in LEFT_RIGHT}
    except NodulantError:
        return {}  # the operation's own error is told where it is made
    names = {f.id: f.name for f in survey.features}
    out: Later = {}
    for side, own in works.items():
        bolted = [
            (w.op, b)
            for w in own
            for b in w.op.bought(w.on)
            if isinstance(b, BoltsNeeded) and b.through_rail and not b.captive
        ]
        for work in own:
            here = spans.get((work.op.id, side))
            if here is None:
                continue
            rows = []
            for op, bolts in bolted:
                there = spans.get((op.id, side))
                if op.id == work.op.id or there is None:
                    continue
                if there[0] <= here[1] + MEET_MM and here[0] <= there[1] + MEET_MM:
                    at = op.anchor
                    rows.append(f"{bolts.name}, {as_place(at.offset_mm)} {names.get(at.anchor_id, at.anchor_id)}")
            if rows:
                out[work.op.id, side] = tuple(dict.fromkeys(rows))
    return out


def _sawn(inputs: Inputs) -> dict[str, str]:
    """By operation, how long the members are cut that it puts between the rails, and what of an end misses them."""
    survey, own = inputs.survey, inputs.design
    try:
        placed = placed_on(survey, own.operations, "left", planned_state(own.operations))
        works = [*work_on(survey, "left", placed), *tie_works(survey, own.operations, own.crossmembers)]
    except NodulantError:
        return {}
    out: dict[str, str] = {}
    for work in works:
        for tube in work.op.bought(work.on):
            if isinstance(tube, TubeNeeded):
                said = f" Cut {as_length(tube.long_mm)} long, {tube.ends}."
                out[work.op.id] = out.get(work.op.id, "") + said
        if work.op.id in out and (end := work.op.end_on_rail(work.on)) is not None:
            _, low, _, top = end.bounds()
            under, here = work.on.here.underside, work.on.here
            meets = min(top, under + here.height) - max(low, under)
            if 0 < meets < top - low - LEAST_MM:
                out[work.op.id] += f" Only {as_length(meets)} of its height meets the rails."
    return out


def _gone_with_the_cut(inputs: Inputs) -> list[str]:
    """Surveyed holes and clips in stretches that are cut or plated: what was fixed there needs another place."""
    survey = inputs.survey
    try:
        spans = stretches_of(survey, inputs.design.operations)
    except NodulantError:
        return []
    names = [
        f.name
        for f in survey.features
        if f.kind in {"hole", "other"}
        and any(start <= f.x_mm <= end for (_, side), (start, end) in spans.items() if side in on_sides(f.side))
    ]
    return list(dict.fromkeys(names))


def _passing(inputs: Inputs) -> list[str]:
    """Placed things that run beside a stretch that is cut, plated or welded, each with the work that it passes."""
    survey, ops = inputs.survey, inputs.design.operations
    try:
        spans = stretches_of(survey, ops)
    except NodulantError:
        return []
    names, rows = {op.id: op.name for op in ops}, list(spans)
    zones = np.array([_zone(survey.rails.of(side), side, *spans[operation, side]) for operation, side in rows])
    out = dict[str, dict[str, None]]()
    for thing in inputs.design.obstacles if rows else ():
        boxes = standing_of(thing).pack.boxes
        meets = (boxes.low <= zones[:, 1, None]) & (boxes.high >= zones[:, 0, None])
        for row in np.flatnonzero(np.any(np.all(meets, axis=2), axis=1)):
            out.setdefault(thing.name, {})[names[rows[row][0]]] = None
    return [f"{thing} ({', '.join(works)})" for thing, works in out.items()]


def _zone(rail: Rail, side: Side, start: float, end: float) -> Columns:
    """What lies near a stretch of a rail: least and greatest x, y and z, (2, 3)."""
    ends = [rail_at(rail, x) for x in (start, end)]
    wide = max(e[2] for e in ends)
    y = (
        (rail.web_y_mm - wide, rail.web_y_mm + wide)
        if side == "right"
        else (-rail.web_y_mm - wide, wide - rail.web_y_mm)
    )
    low, high = min(e[0] for e in ends), max(e[0] + e[1] for e in ends)
    return np.array([(start, y[0], low), (end, y[1], high)]) + HEAT_MM * np.array([[-1.0], [1.0]])
