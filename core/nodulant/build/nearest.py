"""Which steps come right before each: without those that those wait for themselves."""

from collections.abc import Sequence

from nodulant.build.plan import Step


def nearest(steps: Sequence[Step]) -> dict[str, tuple[str, ...]]:
    """By step, the nearest of what it needs; what follows from them is all that it needs."""
    needs = {s.id: frozenset(s.needs) for s in steps}
    out = {}
    for step in steps:
        behind: set[str] = set()
        for id_ in needs[step.id]:
            behind |= needs[id_]
        out[step.id] = tuple(id_ for id_ in step.needs if id_ not in behind)
    return out
