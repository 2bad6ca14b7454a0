"""One figure of a bench: what, how much, and the gate where it is a ratio."""

import statistics
import time
from collections.abc import Callable
from dataclasses import dataclass


@dataclass(frozen=True)
class Figure:
    """A measured figure; ``gate`` is a bound on ratios and sizes only, ``budget`` a recorded wish in its unit."""

    name: str
    value: float
    unit: str
    at_least: float | None = None
    at_most: float | None = None
    budget: str = ""

    @property
    def holds(self) -> bool:
        """Whether the gate holds; a figure without one always does."""
        low = self.at_least is None or self.value >= self.at_least
        return low and (self.at_most is None or self.value <= self.at_most)


def median_ms(call: Callable[[int], object], runs: int) -> float:
    """Median time of ``call(i)`` over ``runs``, ms."""
    times = []
    for i in range(runs):
        start = time.perf_counter()
        call(i)
        times.append((time.perf_counter() - start) * 1000)
    return statistics.median(times)
