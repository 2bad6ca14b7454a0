"""Rows of one title that are about different operations say which."""

from collections import Counter
from collections.abc import Sequence

from nodulant.checks.check import Check
from nodulant.frame.ops.union import Operation


def told_apart(checks: Sequence[Check], operations: Sequence[Operation]) -> list[Check]:
    """The checks, with the operation's name behind a title that several of them share."""
    subjects = {(c.title, c.state, c.id.split(":")[1]) for c in checks}
    shared = Counter((title, state) for title, state, _ in subjects)
    by_length = sorted(operations, key=lambda op: -len(op.id))
    out = []
    for check in checks:
        subject = check.id.split(":")[1]
        if shared[check.title, check.state] > 1:
            own = next((op for op in by_length if subject == op.id or subject.startswith(f"{op.id}-")), None)
            if own is not None and own.name not in check.title:
                check = check.model_copy(update={"title": f"{check.title}: {own.name}"})
        out.append(check)
    return out
