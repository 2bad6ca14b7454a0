"""How much the worst factor of safety changes where an input is off by a tenth: what to measure again first."""

from collections.abc import Callable, Iterator, Sequence
from typing import Literal

from nodulant.base.errors import NodulantError
from nodulant.base.model import Frozen
from nodulant.evaluate.finding import QUICK
from nodulant.evaluate.run import evaluate
from nodulant.frame.ops.notches.notch import Notch
from nodulant.frame.ops.plates.boxing import Boxing
from nodulant.handcheck.places import RULES
from nodulant.job.document import AsBuilt, Inputs
from nodulant.survey.rail import Rail, Station

TENTH, TOLD = 0.1, 5
Change = Callable[[Inputs, float], Inputs]
Worse = Literal["less", "more"]
"""Which way of an input is expected to weaken what there is; where it does not, the other is tried as well."""


class Sensitive(Frozen):
    """An input, and the least factor over its limit with a tenth less and a tenth more of it; None where that cannot be."""

    name: str
    less: float | None
    now: float
    more: float | None

    @property
    def span(self) -> float:
        """How much it matters."""
        return max((abs(v - self.now) for v in (self.less, self.more) if v is not None), default=0.0)


def sensitivities(inputs: Inputs) -> tuple[Sensitive, ...]:
    """The five inputs that the worst place hangs on most."""
    inputs = inputs.model_copy(update={"as_built": AsBuilt()})  # the plan alone counts, and a log doubles the work
    now = _least(inputs)
    if now is None:
        return ()
    rows = []
    for name, worse, change in _changes(inputs):
        row = _tried(Sensitive(name=name, less=None, now=now, more=None), worse, change, inputs)
        hurt = row.less if worse == "less" else row.more
        if hurt is None or hurt > now:
            row = _tried(row, _other(worse), change, inputs)
        rows.append((row, worse, change))
    told = sorted(rows, key=lambda r: -r[0].span)[:TOLD]
    # what is told is told both ways; of what matters little one way is enough to know it
    both = [r if _both(r) else _tried(r, _other(worse), change, inputs) for r, worse, change in told]
    return tuple(sorted(both, key=lambda r: -r.span))


def _other(way: Worse) -> Worse:
    return "more" if way == "less" else "less"


def _both(row: Sensitive) -> bool:
    return row.less is not None and row.more is not None


def _tried(row: Sensitive, way: Worse, change: Change, inputs: Inputs) -> Sensitive:
    """The row with one way worked out; None stays where that cannot be."""
    try:
        least = _least(change(inputs, 1 - TENTH if way == "less" else 1 + TENTH))
    except (NodulantError, ValueError):
        return row
    return row.model_copy(update={way: least})


def _least(inputs: Inputs) -> float | None:
    """The worst place's factor over its limit: below 1 it fails."""
    checks = evaluate(inputs, QUICK).checks
    beyond = [c.beyond for c in checks if c.limit_id in RULES and c.beyond and c.state == "planned"]
    return 1.0 / max(beyond) if beyond else None


def _changes(inputs: Inputs) -> Iterator[tuple[str, Worse, Change]]:
    yield "Wall of the rails", "less", lambda i, t: _rails(i, lambda s: {"wall_mm": s.wall_mm and s.wall_mm * t})
    yield "Height of the rails", "less", lambda i, t: _rails(i, lambda s: {"height_mm": s.height_mm * t})
    yield "Width of the rails", "less", lambda i, t: _rails(i, lambda s: {"width_mm": s.width_mm * t})
    for k, mass in enumerate(inputs.survey.masses):
        yield mass.name, "more", _mass(k, "mass_kg")
    if any(m.z_mm for m in inputs.survey.masses):
        yield "Heights of the masses", "more", _heights
    yield "Wall of the crossmembers", "less", _crossmembers
    yield "Depth of the hole", "more", lambda i, t: _loads(i, {"hole_mm": i.design.loads.hole_mm * t})
    for k, op in enumerate(inputs.design.operations):
        if isinstance(op, Notch):
            yield f"Depth of '{op.name}'", "more", _operation(k, "depth_mm")
        if isinstance(op, Boxing):
            yield f"Thickness of '{op.name}'", "less", _operation(k, "thickness_mm")


def _rails(inputs: Inputs, change: Callable[[Station], dict[str, float | None]]) -> Inputs:
    def of(rail: Rail) -> Rail:
        return rail.model_copy(update={"stations": tuple(s.model_copy(update=change(s)) for s in rail.stations)})

    rails = inputs.survey.rails
    return _survey(inputs, {"rails": rails.model_copy(update={"left": of(rails.left), "right": of(rails.right)})})


def _mass(k: int, field: str) -> Change:
    def change(inputs: Inputs, times: float) -> Inputs:
        masses = list(inputs.survey.masses)
        masses[k] = masses[k].model_copy(update={field: getattr(masses[k], field) * times})
        return _survey(inputs, {"masses": tuple(masses)})

    return change


def _heights(inputs: Inputs, times: float) -> Inputs:
    masses = inputs.survey.masses
    return _survey(inputs, {"masses": tuple(m.model_copy(update={"z_mm": m.z_mm and m.z_mm * times}) for m in masses)})


def _crossmembers(inputs: Inputs, times: float) -> Inputs:
    ties = inputs.survey.crossmembers
    return _survey(inputs, {"crossmembers": tuple(c.model_copy(update={"wall_mm": c.wall_mm * times}) for c in ties)})


def _operation(k: int, field: str) -> Change:
    def change(inputs: Inputs, times: float) -> Inputs:
        operations: Sequence[object] = inputs.design.operations
        own = list(inputs.design.operations)
        own[k] = own[k].model_copy(update={field: getattr(operations[k], field) * times})
        return inputs.model_copy(update={"design": inputs.design.model_copy(update={"operations": tuple(own)})})

    return change


def _survey(inputs: Inputs, update: dict[str, object]) -> Inputs:
    return inputs.model_copy(update={"survey": inputs.survey.model_copy(update=update)})


def _loads(inputs: Inputs, update: dict[str, object]) -> Inputs:
    loads = inputs.design.loads.model_copy(update=update)
    return inputs.model_copy(update={"design": inputs.design.model_copy(update={"loads": loads})})
