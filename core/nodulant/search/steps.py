"""A finder works step by step: it yields its progress and returns what it found."""

from collections.abc import Generator
from typing import NamedTuple, TypeVar

Progress = tuple[int, int]
"""How much of how much is done: sets tried, or seconds."""
Step = TypeVar("Step")
Found = TypeVar("Found")


class Clock(NamedTuple):
    """A search that runs for a time: seconds it is given, and seconds that are gone."""

    total: int
    gone: float = 0.0

    def step(self, seconds: float) -> Progress:
        """Progress after more seconds, told in whole ones."""
        return min(int(self.gone + seconds), self.total), self.total

    def later(self, seconds: float) -> "Clock":
        """The clock of what comes after."""
        return self._replace(gone=self.gone + seconds)


def to_the_end(search: Generator[Step, None, Found]) -> Found:
    """Run a search to its end and give what it found."""
    while True:
        try:
            next(search)
        except StopIteration as end:
            found: Found = end.value
            return found
