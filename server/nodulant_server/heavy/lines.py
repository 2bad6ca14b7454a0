"""What a kind of heavy work answers: lines of JSON, the last of them what was found or why nothing was."""

import time
from collections.abc import Callable, Generator, Iterator
from typing import Any, TypeVar

import orjson
from pydantic import BaseModel

from nodulant.base.errors import NodulantError

T = TypeVar("T")
Step = TypeVar("Step", bound=tuple[Any, ...])


def line(model: BaseModel) -> bytes:
    """One line."""
    return orjson.dumps(model.model_dump(mode="json", exclude_none=True)) + b"\n"


def searched(
    search: Generator[Step, None, T],
    told: Callable[[T], BaseModel],
    stepped: Callable[[Step, float | None], BaseModel],
    refused: Callable[[str], BaseModel],
) -> Iterator[bytes]:
    """A search's progress with about how many seconds it goes on, then what it found or why it stopped."""
    began = time.monotonic()
    while True:
        try:
            step = next(search)
        except StopIteration as end:
            yield line(told(end.value))
            return
        except NodulantError as error:
            yield line(refused(error.message))
            return
        done, total = step[0], step[1]
        left = (time.monotonic() - began) * (total - done) / done if done else None
        yield line(stepped(step, left))
