"""How long a step takes: what the plan says, drawn towards what such steps took here.

Ratios of actual to planned minutes are taken as log-normal about 1: a shop's mean is shrunk towards the plan by
``PRIOR`` steps, so that one bad evening does not rewrite it (empirical Bayes with a fixed prior, in any textbook of
Bayesian statistics; the prior's weight and spread are ours). Ranges hold eight of ten.
"""

import math
from collections import defaultdict
from collections.abc import Iterable, Sequence

from nodulant.asbuilt.log import Entry, SignOffEntry, standing
from nodulant.base.model import Frozen

PRIOR = 4.0
"""So many steps the plan's own word weighs."""
SPREAD = 0.35
"""Standard deviation of the logarithm of actual over planned before anything is known."""
EIGHT_OF_TEN = 1.2816
MOST_RATIO = 8.0
"""A step that took longer than this many times, or shorter, was not timed but forgotten."""


class Took(Frozen):
    """What one signed step took, rework included, against what was planned; minutes."""

    key: str
    planned: int
    minutes: int


class Estimate(Frozen):
    """Minutes that a step is expected to take, the range of eight of ten, and from how many steps that is known."""

    minutes: int
    low: int
    high: int
    steps: int


def kind_of(step_id: str) -> str:
    """The kind of a step by its id: '<operation>/<key>/<side>', or the key alone."""
    parts = step_id.split("/")
    return parts[1] if len(parts) == 3 else step_id


def took_of(entries: tuple[Entry, ...]) -> tuple[Took, ...]:
    """Every signed step of a log that was timed, with the rework that was logged on it."""
    own = standing(entries)
    again: dict[str, int] = defaultdict(int)
    for entry in own:
        if entry.kind == "rework":
            again[entry.step] += entry.minutes
    return tuple(
        Took(key=kind_of(e.step), planned=e.planned_minutes, minutes=e.minutes + again[e.step])
        for e in own
        if isinstance(e, SignOffEntry) and e.minutes and e.planned_minutes
    )


class Learned:
    """What a shop's timed steps say of steps to come."""

    def __init__(self, history: Iterable[Took] = ()) -> None:
        """Sort them by kind; what was plainly not timed is left out."""
        self._logs: dict[str, list[float]] = defaultdict(list)
        for took in history:
            ratio = took.minutes / took.planned
            if 1 / MOST_RATIO <= ratio <= MOST_RATIO:
                self._logs[took.key].append(math.log(ratio))

    def of(self, key: str, planned: int) -> Estimate:
        """A step of this kind that is planned to take so long."""
        logs: Sequence[float] = self._logs.get(key, ())
        weight = PRIOR + len(logs)
        mean = sum(logs) / weight
        variance = (PRIOR * (SPREAD**2 + mean**2) + sum((r - mean) ** 2 for r in logs)) / weight
        wide = EIGHT_OF_TEN * math.sqrt(variance)
        return Estimate(
            minutes=max(round(planned * math.exp(mean)), 1),
            low=max(round(planned * math.exp(mean - wide)), 1),
            high=max(round(planned * math.exp(mean + wide)), 1),
            steps=len(logs),
        )
