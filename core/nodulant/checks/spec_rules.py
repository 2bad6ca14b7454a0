"""Checks that operations work out by themselves, judged against the limits in force."""

from functools import lru_cache

from nodulant.checks.check import Changes, Check, Governs, State, Subject, Why, judge, not_computed
from nodulant.frame.parts import Work
from nodulant.parts.limit import LimitChange
from nodulant.parts.sides import Side
from nodulant.parts.specs import CheckSpec


def work_checks(work: Work, index: int, state: State, changes: Changes) -> tuple[Check, ...]:
    """Every check that operation number ``index`` of the design works out by itself."""
    return _judged(work, index, state, tuple(changes.items()))


@lru_cache(maxsize=512)
def _judged(work: Work, index: int, state: State, changes: tuple[tuple[str, LimitChange], ...]) -> tuple[Check, ...]:
    return tuple(spec_check(spec, work.op.id, index, work.on.side, state, dict(changes)) for spec in work.checks)


def spec_check(spec: CheckSpec, operation: str, index: int, side: Side, state: State, changes: Changes) -> Check:
    """One spec of operation ``operation`` (number ``index`` of the design) as a check."""
    subject = Subject(
        subject=f"{operation}-{spec.about}" if spec.about else operation,
        side=side,
        state=state,
        stage="prove" if state == "as-built" else "cut",
    )
    if spec.value is None:
        missing = tuple(f"/design/operations/{index}/{field}" for field in spec.missing)
        check = not_computed(spec.limit_id, subject, missing, changes, spec.detail)
        return check.model_copy(update={"remedy": spec.remedy, "governs": Governs(station_mm=spec.station_mm)})
    return judge(
        spec.limit_id,
        subject,
        spec.value,
        Why(formula=spec.formula, values=spec.values, words=spec.words),
        changes,
        governs=Governs(station_mm=spec.station_mm),
        detail=spec.detail,
        remedy=spec.remedy,
        same_as_stock=spec.same_as_stock,
    )
