"""One check and how it is judged.

margin = (value - limit) / scale, signed so that negative is bad; scale = |limit|, or the
limit's named tolerance where the limit is 0. Verdicts: fails below -1e-6, close below 0.05,
holds above; without its input a check is 'not computed', never anything else.
"""

from dataclasses import dataclass
from typing import Literal

from nodulant.base.model import Frozen
from nodulant.parts.limit import LimitChange
from nodulant.parts.limits import find_limit

Verdict = Literal["holds", "close", "fails", "not computed"]
State = Literal["stock", "planned", "interim", "as-built"]
Stage = Literal["survey", "target", "cut", "travel", "steer", "sweep", "prove"]
ROUND_OFF = 1e-6
CAUTION = 0.05


class Why(Frozen):
    """A formula in plain signs with the values that give the shown value, and a sentence."""

    formula: str
    values: dict[str, float]
    words: str = ""


@dataclass(frozen=True, slots=True)
class Governs:
    """Where and when the check is worst."""

    case: str | None = None
    load_state: str | None = None
    station_mm: float | None = None
    pose_mm: float | None = None


class Check(Frozen):
    """A judged check; ``id`` is '<rule>:<subject>:<side>'."""

    id: str
    state: State
    stage: Stage
    title: str
    value: float | None
    unit: str
    limit_id: str
    limit: float
    direction: Literal["at-least", "at-most"]
    scale: float
    margin: float | None
    verdict: Verdict
    governs: Governs
    basis: str
    changed_limit: bool
    why: Why | None
    missing: tuple[str, ...] = ()
    """JSON pointers of inputs that are not there."""
    remedy: str = ""


@dataclass(frozen=True, slots=True)
class Subject:
    """What a check is about: the rule's subject, side, state and stage."""

    subject: str
    side: str = "both"
    state: State = "planned"
    stage: Stage = "cut"

    def id_for(self, rule: str) -> str:
        """The check's id, with the state appended where it is not the plan."""
        tail = "" if self.state == "planned" else f"@{self.state}"
        return f"{rule}:{self.subject}:{self.side}{tail}"


def judge(
    limit_id: str,
    subject: Subject,
    value: float,
    why: Why,
    changes: dict[str, LimitChange],
    *,
    governs: Governs | None = None,
    detail: str = "",
    remedy: str = "",
    same_as_stock: bool = False,
) -> Check:
    """Judge ``value`` against the limit in force; ``same_as_stock`` holds at a margin of 0."""
    limit, change = find_limit(limit_id, changes)
    scale = abs(limit.value) or limit.tolerance or 1.0
    sign = 1.0 if limit.direction == "at-least" else -1.0
    margin = sign * (value - limit.value) / scale + 0.0  # no minus zero
    verdict: Verdict = (
        "fails" if margin < -ROUND_OFF else "close" if margin < CAUTION and not same_as_stock else "holds"
    )
    return Check(
        id=subject.id_for(limit_id),
        state=subject.state,
        stage=subject.stage,
        title=limit.name + (f", {detail}" if detail else ""),
        value=value,
        unit=limit.unit,
        limit_id=limit_id,
        limit=limit.value,
        direction=limit.direction,
        scale=scale,
        margin=margin,
        verdict=verdict,
        governs=governs or Governs(),
        basis=limit.basis,
        changed_limit=change is not None,
        why=why,
        remedy=remedy if verdict == "fails" else "",
    )


def not_computed(
    limit_id: str, subject: Subject, missing: tuple[str, ...], changes: dict[str, LimitChange], detail: str = ""
) -> Check:
    """The check that lacks an input; ``missing`` points at it."""
    limit, change = find_limit(limit_id, changes)
    return Check(
        id=subject.id_for(limit_id),
        state=subject.state,
        stage=subject.stage,
        title=limit.name + (f", {detail}" if detail else ""),
        value=None,
        unit=limit.unit,
        limit_id=limit_id,
        limit=limit.value,
        direction=limit.direction,
        scale=abs(limit.value) or limit.tolerance or 1.0,
        margin=None,
        verdict="not computed",
        governs=Governs(),
        basis=limit.basis,
        changed_limit=change is not None,
        why=None,
        missing=missing,
    )


_RANK = {"fails": 0, "not computed": 1, "close": 2, "holds": 3}


def order(checks: list[Check]) -> tuple[Check, ...]:
    """Worst first: fails, not computed, close, holds; by margin within each."""
    return tuple(sorted(checks, key=lambda c: (_RANK[c.verdict], c.margin if c.margin is not None else 0.0, c.id)))
