"""Searches tell how far they are, and what they found at their end."""

from collections.abc import Generator
from typing import TypeVar

Found = TypeVar("Found")


def at_its_end(search: Generator[object, None, Found]) -> Found:
    """What a search finds, without its progress."""
    while True:
        try:
            next(search)
        except StopIteration as end:
            found: Found = end.value
            return found
