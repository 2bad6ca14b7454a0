"""Speeds of the core: evaluation cold and warm, sections against an FE section library, growth with stations."""

import orjson
from sectionproperties.analysis import Section
from sectionproperties.pre import Geometry
from shapely import box, unary_union
from tests import fixtures as f

from bench.measure import Figure, median_ms
from nodulant.clearance import tube_to_rail
from nodulant.evaluate import SectionAt, Want, evaluate
from nodulant.frame import model
from nodulant.frame.model import planned_state, sections
from nodulant.job.document import Inputs
from nodulant.loads import beam
from nodulant_server.api.compute import SLIM

DRAG = Want(steps=False, readings=False, strip_side="left", section=SectionAt(side="left", x_mm=2610))


def forget() -> None:
    """Empty the memo, so that the next evaluation is cold."""
    for memo in (model._sections, beam._internal_forces, tube_to_rail._flattened):
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
    reply = len(orjson.dumps(evaluate(inputs, DRAG).model_dump(exclude=SLIM)))
    return [
        Figure("whole-job evaluation, cold", whole, "ms", budget="50 ms"),
        Figure("whole-job evaluation, warm (one field changed)", warm, "ms", budget="20 ms"),
        Figure("evaluation of a drag", dragged, "ms"),
        Figure("cold over warm", whole / warm, "x", at_most=3.0),
        Figure("reply of a drag", reply / 1000, "kB", at_most=60.0),
    ]


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
