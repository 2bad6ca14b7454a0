"""Which step asks for a gauge."""

from collections.abc import Sequence

from nodulant.build.plan import Step
from nodulant.gauges.gauge import Gauge


def asks_for(step: Step, gauge: Gauge, steps: Sequence[Step]) -> bool:
    """Whether a step asks for a gauge; what belongs to the whole job is asked for by the first step of its phase."""
    if gauge.phase != step.spec.phase:
        return False
    if gauge.operation is None:
        return next(s.id for s in steps if s.spec.phase == gauge.phase) == step.id
    if gauge.operation != step.operation or not (gauge.side == "both" or step.side in {"both", gauge.side}):
        return False
    same = (s for s in steps if s.operation == step.operation and s.side == step.side)
    return next(s.id for s in same if s.spec.phase == gauge.phase) == step.id
