"""One check and how it is judged.

margin = (value - limit) / scale, signed so that negative is bad; scale = |limit|, or the
limit's named tolerance where the limit is 0. ``beyond`` is how many times beyond its limit a value
is, on a ratio scale: value/limit for 'at most', limit/value for 'at least', 1 at the limit. A check
fails below a margin of -1e-6 and is close below 0.05; without its input it is 'not computed', never
anything else. What is weaker than stock but carries its loads is 'weaker'; what stock itself
does not meet either is 'stock itself'; rules of comfort and taste are notes, never counted.
"""

from dataclasses import dataclass
from typing import Literal

from nodulant.base.model import Frozen
from nodulant.parts.limit import Limit, LimitChange
from nodulant.parts.limits import find_limit
from nodulant.units.said import Said

Verdict = Literal["fails", "not computed", "weaker", "close", "stock itself", "note", "holds"]
State = Literal["stock", "planned", "interim", "as-built"]
Stage = Literal["survey", "target", "cut", "travel", "steer", "sweep", "build", "prove"]
ROUND_OFF = 1e-6
CAUTION = 0.05
FARTHEST = 100.0
"""How many times beyond its limit a value is told to be at most."""
YES_NO = frozenset({"yes", "tapered"})
MET_OR_NOT = YES_NO | {"of all", "entries", "times", "parts", "of wanted", "of its stroke"}
"""Units of rows that are met or not, never with room to spare: met, they stand last."""
Changes = dict[str, LimitChange]


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


class BesideStock(Frozen):
    """What stock has: its factor of safety here and at its own worst place, mm, in the same case."""

    here: float | None
    worst: float
    worst_mm: float


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
    cause: str
    """Checks of one cause are told together and counted once."""
    missing: tuple[str, ...] = ()
    """JSON pointers of inputs that are not there."""
    remedy: str = ""
    beyond: float | None = None
    """How many times beyond its limit, 1 at it; None where nothing is computed, and where it is met and cannot be met with room."""
    said: Said | None = None
    """What it says, with its quantities."""
    stock: BesideStock | None = None
    yes_no: bool = False
    """Told as a sentence, not as a number."""


@dataclass(frozen=True, slots=True)
class Subject:
    """What a check is about: the rule's subject, side, state and stage; checks of one cause are told together."""

    subject: str
    side: str = "both"
    state: State = "planned"
    stage: Stage = "cut"
    cause: str = ""

    def id_for(self, rule: str) -> str:
        """The check's id, with the state appended where it is not the plan."""
        tail = "" if self.state == "planned" else f"@{self.state}"
        return f"{rule}:{self.subject}:{self.side}{tail}"

    def cause_for(self, rule: str) -> str:
        """What it is told together with: its cause, else the same rule on the other side."""
        return f"{self.cause or f'{rule}:{self.subject}'}@{self.state}"


def judge(
    limit_id: str,
    subject: Subject,
    value: float,
    why: Why,
    changes: Changes,
    *,
    governs: Governs | None = None,
    detail: str = "",
    remedy: str = "",
    same_as_stock: bool = False,
) -> Check:
    """Judge ``value`` against the limit in force; ``same_as_stock`` holds at a margin of 0."""
    limit, change = find_limit(limit_id, changes)
    margin = _margin(value, limit)
    verdict: Verdict = (
        "fails" if margin < -ROUND_OFF else "close" if margin < CAUTION and not same_as_stock else "holds"
    )
    return told(
        limit,
        subject,
        value,
        why,
        "note" if limit.note else verdict,
        changed=change is not None,
        governs=governs,
        detail=detail,
        remedy=remedy if verdict == "fails" else "",
    )


def told(
    limit: Limit,
    subject: Subject,
    value: float,
    why: Why,
    verdict: Verdict,
    *,
    changed: bool = False,
    governs: Governs | None = None,
    detail: str = "",
    title: str = "",
    remedy: str = "",
    said: Said | None = None,
    stock: BesideStock | None = None,
) -> Check:
    """A check whose verdict is known."""
    return Check(
        id=subject.id_for(limit.id),
        state=subject.state,
        stage=subject.stage,
        title=title or limit.name + (f", {detail}" if detail else ""),
        value=value,
        unit=limit.unit,
        limit_id=limit.id,
        limit=limit.value,
        direction=limit.direction,
        scale=_scale(limit),
        margin=_margin(value, limit),
        verdict=verdict,
        governs=governs or Governs(),
        basis=limit.row_basis,
        changed_limit=changed,
        why=why,
        remedy=remedy,
        beyond=None if limit.unit in MET_OR_NOT and verdict == "holds" else beyond(value, limit),
        said=said,
        stock=stock,
        cause=subject.cause_for(limit.id),
        yes_no=limit.unit in YES_NO,
    )


def _scale(limit: Limit) -> float:
    return abs(limit.value) or limit.tolerance or 1.0


def _margin(value: float, limit: Limit) -> float:
    sign = 1.0 if limit.direction == "at-least" else -1.0
    return sign * (value - limit.value) / _scale(limit) + 0.0  # no minus zero


def beyond(value: float, limit: Limit) -> float:
    """How many times beyond its limit a value is; 1 at the limit, more is worse.

    To nine places, so that left and right that are alike stand in one order, not in that of their last digits.
    """
    if limit.value <= 0:
        ratio = 2.0 ** -max(min(_margin(value, limit), 10.0), -10.0)
    elif limit.direction == "at-least":
        ratio = limit.value / max(value, limit.value / FARTHEST)
    else:
        ratio = max(value, 0.0) / limit.value
    return float(round(min(max(ratio, 1 / FARTHEST), FARTHEST), 9))


def not_computed(
    limit_id: str, subject: Subject, missing: tuple[str, ...], changes: Changes, detail: str = ""
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
        scale=_scale(limit),
        margin=None,
        verdict="not computed",
        governs=Governs(),
        basis=limit.row_basis,
        changed_limit=change is not None,
        why=None,
        missing=missing,
        cause=f"missing {' '.join(sorted(missing))}" if missing else subject.cause_for(limit_id),
        yes_no=limit.unit in YES_NO,
    )


RANK: dict[Verdict, int] = {
    "fails": 0,
    "not computed": 1,
    "weaker": 2,
    "close": 3,
    "stock itself": 4,
    "holds": 5,
    "note": 6,
}


def severity(check: Check) -> tuple[int, float, str]:
    """What checks are sorted by: verdict, then how far beyond the limit, then the id."""
    return RANK[check.verdict], -(check.beyond or 0.0), check.id


def order(checks: list[Check]) -> tuple[Check, ...]:
    """Worst first: fails, not computed, weaker, close, stock itself, holds, notes; by how far beyond within each."""
    return tuple(sorted(checks, key=severity))
