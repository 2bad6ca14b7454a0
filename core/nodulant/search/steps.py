"""A finder works step by step: it yields its progress and returns what it found."""

from collections.abc import Generator
from typing import TypeVar

Progress = tuple[int, int]
"""Sets tried, sets there are."""
Step = TypeVar("Step")


Found = TypeVar("Found")


def to_the_end(search: Generator[Step, None, Found]) -> Found:
    """Run a search to its end and give what it found."""
    while True:
        try:
            next(search)
        except StopIteration as end:
            found: Found = end.value
            return found
