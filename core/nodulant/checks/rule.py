"""The job's rule: whether what is weaker than stock but carries its loads passes."""

from collections.abc import Iterable

from nodulant.checks.check import Check
from nodulant.parts.limit import StrengthRule

WHY = "this job asks for a frame as strong as stock everywhere: {reason}"


def by_rule(checks: Iterable[Check], rule: StrengthRule) -> list[Check]:
    """The checks as the job's rule has them; under 'as strong as stock' what is weaker fails."""
    if rule.kind == "carries it":
        return list(checks)
    words = WHY.format(reason=rule.reason)
    return [
        c.model_copy(update={"verdict": "fails", "basis": f"{c.basis}; {words}"}) if c.verdict == "weaker" else c
        for c in checks
    ]
