"""All gauges of a design, in the order they are needed."""

from nodulant.build.general import general_steps
from nodulant.gauges.braces import braces
from nodulant.gauges.frame_here import rails_here
from nodulant.gauges.gauge import Gauge, size_of
from nodulant.gauges.of_suspension import pinions, struts
from nodulant.gauges.on_mounts import dummies, guides, slopes
from nodulant.gauges.on_rails import blocks, legs, pointers, rods, spacers, spreaders
from nodulant.job.document import Inputs
from nodulant.job.riding import in_place
from nodulant.parts.specs import PHASES, Phase

EVERY = ""
"""The job as a whole, among its operations."""
RANK = {phase: k for k, phase in enumerate(PHASES)}


def gauges_of(inputs: Inputs) -> tuple[Gauge, ...]:
    """Every gauge that the design's steps ask for; raises InputError and UnknownReference."""
    inputs = in_place(inputs)
    survey, design = inputs.survey, inputs.design
    here = rails_here(survey, design.operations)
    found = [
        *pointers(here),
        *rods(here),
        *guides(here),
        *spreaders(here),
        *braces(here),
        *legs(here),
        *spacers(here, inputs.shop.rack.block_mm),
        *struts(survey, design.targets, design.suspensions),
        *dummies(here),
        *blocks(here),
        *slopes(here),
        *pinions(design.suspensions),
    ]
    phases = {op.id: {s.phase for s in op.steps("")} for op in design.operations}
    general = general_steps(design.operations, hangs=bool(design.suspensions))
    phases[EVERY] = {s.phase for s in general}.union(*phases.values())
    ready = (_at_a_step(g, phases[g.operation or EVERY]) for g in found)
    sized = (g.model_copy(update={"size": size_of(g)}) for g in ready)
    return tuple(sorted(sized, key=lambda g: RANK[g.phase]))


def _at_a_step(gauge: Gauge, phases: set[Phase]) -> Gauge:
    """The gauge at the phase that it is for, or at the next one that has a step, or the last."""
    there = sorted(RANK[p] for p in phases)
    if not there or gauge.phase in phases:
        return gauge
    later = next((k for k in there if k > RANK[gauge.phase]), there[-1])
    return gauge.model_copy(update={"phase": PHASES[later]})
