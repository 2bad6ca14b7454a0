"""The floor: plan rebuilt, floor's sheet, stands live, beads in order, schedule with its bound."""

import time
from datetime import datetime

from tests import fixtures as f

from bench.measure import Figure, median_ms
from nodulant.build.plan import build_plan
from nodulant.evaluate import evaluate
from nodulant.floor.sheet import floor_sheet
from nodulant.heat.plan import heat_plans
from nodulant.job.timing import EVENINGS, Timing
from nodulant.schedule.schedule import schedule_of
from nodulant.supports.bodies import situations
from nodulant.supports.look import look
from nodulant.supports.places import places

NOW = datetime(2026, 5, 4, 8, 0)


def floor() -> list[Figure]:
    """Of the demo's longest plan."""
    inputs = f.demo("step")
    survey, ops = inputs.survey, inputs.design.operations
    steps = evaluate(inputs).steps
    put = places(survey, situations(survey, ops))
    plan = median_ms(lambda _: build_plan(survey, ops, (), {}, hangs=True, parts=True), 20)
    began = time.perf_counter()
    found = schedule_of(steps, {}, Timing(), EVENINGS, NOW)
    took = time.perf_counter() - began
    if found is None:
        raise RuntimeError("the demo has nothing left to do")
    ends, listed = (datetime.fromisoformat(t) for t in (found.ends, found.in_list_order))
    return [
        Figure(f"plan of {len(steps)} steps rebuilt", plan, "ms", budget="30 ms"),
        Figure("stands looked at, every moment", median_ms(lambda _: look(survey, ops, put), 20), "ms", budget="5 ms"),
        Figure("floor's sheet", median_ms(lambda _: floor_sheet(inputs, "job", "option"), 5), "ms"),
        Figure("beads of every weld in order", median_ms(lambda _: heat_plans(inputs), 3), "ms"),
        Figure("schedule with its bound", took, "s", budget="5 s"),
        Figure("schedule's days over those in list order", (ends - NOW) / (listed - NOW), "x", at_most=0.9),
    ]
