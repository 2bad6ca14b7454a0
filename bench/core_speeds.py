"""Speeds of the core: evaluation cold and warm, sections against an FE section library, growth with stations."""

import functools
import gc
import statistics
import time
from collections.abc import Callable

import orjson
from Pynite import FEModel3D
from sectionproperties.analysis import Section
from sectionproperties.pre import Geometry
from shapely import box, unary_union
from tests import fixtures as f

from bench.measure import Figure, median_ms
from nodulant.base.memo import forget_all
from nodulant.evaluate import SectionAt, Want, evaluate
from nodulant.frame.model import planned_state, sections
from nodulant.job.document import Inputs
from nodulant.loads.space_frame import Held, Members, solve
from nodulant_server.api.compute import SLIM

DRAG = Want(
    steps=False,
    readings=False,
    frame=False,
    interim=False,
    along=False,
    travel=False,
    as_built=False,
    strip_side="left",
    section=SectionAt(side="left", x_mm=2610),
)


_MEMOS = [
    kept
    for kept in gc.get_objects()
    if type(kept) is functools._lru_cache_wrapper and str(kept.__module__).startswith("nodulant.")
]


def forget() -> None:
    """Empty the memo, so that the next evaluation is cold."""
    forget_all()
    for memo in _MEMOS:
        memo.cache_clear()


def _changed(inputs: Inputs, i: int) -> Inputs:
    return f.with_notch(inputs, depth_mm=50.0 + 0.05 * i)


def evaluation() -> list[Figure]:
    """Whole-job evaluation of the demo, and the size of a drag's reply."""
    inputs = f.demo("arc")
    evaluate(inputs)

    def cold(_: int) -> None:
        forget()
        evaluate(inputs)

    variants = [_changed(inputs, i) for i in range(60)]
    whole, warm = median_ms(cold, 40), median_ms(lambda i: evaluate(variants[i]), 60)
    dragged = median_ms(lambda i: evaluate(f.with_notch(variants[i], depth_mm=45 + 0.05 * i), DRAG), 60)
    later, fresh = _after_many(inputs), _on_fresh_documents(inputs)
    reply = len(orjson.dumps(evaluate(inputs, DRAG).model_dump(exclude=SLIM)))
    return [
        Figure("whole-job evaluation, cold", whole, "ms", budget="50 ms"),
        Figure("whole-job evaluation, warm (one field changed)", warm, "ms", budget="20 ms"),
        Figure("evaluation of a drag", dragged, "ms"),
        Figure("a drag's evaluation after 500 others, over the first ones", later, "x", at_most=1.3),
        Figure("a drag's evaluation on documents of its own, over shared ones", fresh, "x", at_most=1.2),
        Figure("cold over warm", whole / warm, "x", at_most=3.0),
        Figure("reply of a drag", reply / 1000, "kB", at_most=60.0),
    ]


def _on_fresh_documents(inputs: Inputs) -> float:
    """What a request brings is read anew: no part of it is the very object that is remembered. In turns, since the machine wanders."""
    took: tuple[list[float], list[float]] = ([], [])
    for i in range(60):
        dragged = f.with_notch(inputs, depth_mm=42 + 0.1 * i)
        again = f.with_notch(inputs, depth_mm=42.05 + 0.1 * i)
        for own, document in zip(took, (Inputs.model_validate_json(dragged.model_dump_json()), again), strict=True):
            start = time.perf_counter()
            evaluate(document, DRAG)
            own.append(time.perf_counter() - start)
    return statistics.median(took[0]) / statistics.median(took[1])


def _after_many(inputs: Inputs) -> float:
    """What is remembered of earlier drags must not be searched one by one."""
    times = []
    for i in range(550):
        dragged = f.with_notch(inputs, depth_mm=40 + 0.03 * i)
        start = time.perf_counter()
        evaluate(dragged, DRAG)
        times.append(time.perf_counter() - start)
    return statistics.median(times[-50:]) / statistics.median(times[5:55])


def against_finite_elements() -> list[Figure]:
    """Sections along the rail against the FE library, station by station, same shape."""
    survey = f.survey_of(f.straight_rail())
    operations = (f.boxing("over-lips"), f.straight_notch(60, liner=f.liner(6)))
    state = planned_state(operations)
    x = f.np.linspace(600, 2400, 150)

    def ours(i: int) -> None:
        sections(survey, operations, "left", x + 1e-6 * i, state)

    shape = unary_union([box(0, 0, 60, 150) - box(5, 5, 61, 145), box(60, 0, 65, 150)]) - box(-1, -1, 99, 60)
    shape = unary_union([shape, box(0, 54, 65, 60)])

    def theirs(_: int) -> None:
        geometry = Geometry(shape)
        geometry.create_mesh(mesh_sizes=[8.0])
        section = Section(geometry)
        section.calculate_geometric_properties()
        section.calculate_warping_properties()

    theirs(0)
    each, fe = median_ms(ours, 30) / len(x), median_ms(theirs, 5)
    twice = f.np.linspace(600, 2400, 300)
    growth = median_ms(lambda i: sections(survey, operations, "left", twice + 1e-6 * i, state), 30) / (each * len(x))
    whole = median_ms(lambda i: evaluate(_changed(f.demo("arc"), i)), 20)
    return [
        Figure("one station: FE section library over ours", fe / each, "x", at_least=100.0),
        Figure("one FE station over one whole-job evaluation", fe / whole, "x", at_least=1.0),
        Figure("twice the stations", growth, "x the time", at_most=2.2),
    ]


def whole_frame() -> list[Figure]:
    """The demo's largest option: stock and planned, every case, all its operations; and growth with stations."""
    inputs = f.demo("step")
    evaluate(inputs)
    step, *rest = inputs.design.operations

    def changed(i: int) -> Inputs:
        return f.with_operations(inputs, step.model_copy(update={"rise_mm": 70.0 + 0.05 * i}), *rest)

    variants = [changed(i) for i in range(40)]
    full = median_ms(lambda i: evaluate(variants[i]), 40)
    rows = _solves_ms(150, 300)
    return [
        Figure("full frame evaluation, all cases and operations of the demo", full, "ms", budget="60 ms"),
        Figure("space frame: twice the spans", rows[1] / rows[0], "x the time", at_most=2.3),
    ]


def _solves_ms(*spans: int) -> list[float]:
    """Medians of one solve of two rails of so many spans, in turns, since the machine's speed wanders."""
    works = [_solve_of(count) for count in spans]
    took: list[list[float]] = [[] for _ in works]
    for _ in range(30):
        for own, work in zip(took, works, strict=True):
            start = time.perf_counter()
            work()
            own.append(1000 * (time.perf_counter() - start))
    return [float(f.np.median(own)) for own in took]


def _solve_of(spans: int) -> Callable[[], object]:
    """One solve of two rails of ``spans`` spans."""
    x = f.np.linspace(0.0, 4000.0, spans + 1)
    nodes = f.np.zeros((2 * len(x), 3))
    nodes[:, 0] = f.np.repeat(x, 2)
    nodes[1::2, 1] = 820.0
    first = f.np.concatenate([f.np.arange(2 * spans), 2 * f.np.array([0, spans // 2, spans])])
    second = f.np.concatenate([f.np.arange(2 * spans) + 2, 2 * f.np.array([0, spans // 2, spans]) + 1])
    ones = f.np.ones(len(first))
    members = Members(first, second, 1300 * ones, 4e6 * ones, 4e5 * ones, 1e4 * ones, ones)
    held = Held((0, 0, 0, 2 * spans, 2 * spans, 1), (0, 1, 2, 1, 2, 2))
    loads = f.np.zeros((1, len(nodes), 6))
    loads[0, spans, 2] = -1000.0
    return lambda: solve(nodes, members, held, loads)


def frame_solve() -> list[Figure]:
    """The space frame against a general-purpose frame library: the same ladder of 2 x 150 spans, one load."""
    count = 150
    x = f.np.linspace(0, 3000.0, count + 1)
    nodes = f.np.array([[at, side * 400.0, 0.0] for at in x for side in (-1, 1)])
    pairs = [(2 * k + s, 2 * k + 2 + s) for k in range(count) for s in (0, 1)]
    pairs += [(2 * k, 2 * k + 1) for k in (0, count // 2, count)]
    i, j = f.np.array(pairs).T
    one = f.np.ones(len(pairs))
    members = Members(i, j, 1300.0 * one, 4e6 * one, 5e5 * one, 2e4 * one, one)
    last = 2 * count
    held = Held((0, 0, 0, last, last, 1), (0, 1, 2, 1, 2, 2))
    loads = f.np.zeros((1, len(nodes), 6))
    loads[0, count, 2] = -3000.0

    def theirs(_: int) -> None:
        model = FEModel3D()
        model.add_material("steel", 205_000.0, 79_000.0, 0.3, 7.85e-6)
        model.add_section("rail", 1300.0, 4e6, 5e5, 2e4)
        for n, place in enumerate(nodes):
            model.add_node(str(n), *place)
        for m, (a, b) in enumerate(pairs):
            model.add_member(str(m), str(a), str(b), "steel", "rail")
        for n in {*held.node}:
            rows = zip(held.node, held.freedom, strict=True)
            freedoms = {k for h, k in rows if h == n}
            model.def_support(str(n), *(k in freedoms for k in range(6)))
        model.add_node_load(str(count), "FZ", -3000.0)
        model.analyze_linear()

    ours = median_ms(lambda _: solve(nodes, members, held, loads), 30)
    return [
        Figure("space frame, 2 x 150 spans", ours, "ms"),
        Figure("frame library over ours", median_ms(theirs, 3) / ours, "x", at_least=150.0),
    ]
