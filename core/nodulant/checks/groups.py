"""Checks told together: left and right that agree are one, and rows of one cause are one group whose head is the worst.

The number of fails is counted in groups, everywhere.
"""

from collections.abc import Iterable

from nodulant.base.model import Frozen
from nodulant.checks.check import Check, Stage, State, Verdict, severity

COUNTED: tuple[Verdict, ...] = ("fails", "not computed", "weaker", "close", "holds")
"""What is counted: neither notes nor what stock itself does not meet."""


class Group(Frozen):
    """Checks of one cause; ``ids`` are theirs, the worst first, each with its twin of the other side after it."""

    key: str
    verdict: Verdict
    stage: Stage
    state: State
    title: str
    ids: tuple[str, ...]


def grouped(checks: Iterable[Check]) -> tuple[Group, ...]:
    """Groups in the order of their heads, worst first."""
    by_cause: dict[str, list[Check]] = {}
    for check in sorted(checks, key=severity):
        by_cause.setdefault(check.cause, []).append(check)
    return tuple(_group(cause, own) for cause, own in by_cause.items())


def _group(cause: str, own: list[Check]) -> Group:
    head = own[0]
    return Group(
        key=cause,
        verdict=head.verdict,
        stage=head.stage,
        state=head.state,
        title=head.title,
        ids=tuple(check.id for check in own),
    )


def counts(groups: Iterable[Group]) -> dict[Verdict, int]:
    """How many groups there are of each verdict that is counted."""
    found = [group.verdict for group in groups]
    return {verdict: found.count(verdict) for verdict in COUNTED}
