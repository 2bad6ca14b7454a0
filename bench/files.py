"""What leaves as files: everything of the demo's step option in one ZIP, against its drawings alone; its tube plan."""

import time
from collections.abc import Callable

from tests import fixtures as f

from bench.measure import Figure
from nodulant.formats.dxf import named_dxf
from nodulant.formats.pattern_pdf import TitleBlock
from nodulant.formats.whole_zip import Choices, whole_zip
from nodulant.patterns.collect import patterns_of
from nodulant.stock.order import order_list
from nodulant.units.inline import told_in

TIMES = 3


def files() -> list[Figure]:
    """The ZIP's time as a ratio to that of writing its drawings, which no package makes faster."""
    inputs = f.job().inputs("step")
    title = TitleBlock("job", "option, revision 1", inputs.content_hash(), "r1-s1")
    patterns = [told_in(p, "mm") for p in patterns_of(inputs.survey, inputs.design.operations)]
    whole = _least(lambda: whole_zip(inputs, title, Choices()))
    drawings = _least(lambda: named_dxf(patterns, "job", "r1-s1", "mm"))
    plan = _least(lambda: order_list(inputs))
    proven = all(tube.plan.proven for tube in order_list(inputs).tubes)
    return [
        Figure("everything in one ZIP", whole * 1000, "ms", budget="5000 ms"),
        Figure("that ZIP over its drawings alone", whole / drawings, "x", at_most=4.0),
        Figure("order list with its tube plans", plan * 1000, "ms", budget="2000 ms"),
        Figure("tube plans that are proven", float(proven), "yes", at_least=1.0),
    ]


def _least(work: Callable[[], object]) -> float:
    best = float("inf")
    for _ in range(TIMES):
        began = time.perf_counter()
        work()
        best = min(best, time.perf_counter() - began)
    return best
