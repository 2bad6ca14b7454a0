"""Remember the last few results of a pure function by the content of its arguments.

Frozen documents hold dictionaries here and there, so they cannot be hashed. They can be
compared, and that is quick: parts that are the same object are not looked into, and arguments
that are all the very same objects as in an earlier call are not compared at all.
"""

from collections import deque
from collections.abc import Callable
from functools import wraps
from operator import eq
from typing import ParamSpec, TypeVar

from pydantic import BaseModel

_FORGET: list[Callable[[], None]] = []
ALIASES = 4
"""So many times as many arguments as results are known again by being the very same objects."""


def forget_all() -> None:
    """Forget every remembered result, so that the next call works from nothing."""
    for clear in _FORGET:
        clear()


P = ParamSpec("P")
R = TypeVar("R")


def remembered(size: int) -> Callable[[Callable[P, R]], Callable[P, R]]:
    """A decorator that keeps the last ``size`` results; a call that raised is not kept."""

    def over(work: Callable[P, R]) -> Callable[P, R]:
        kept: deque[tuple[tuple[object, ...], dict[str, object], R]] = deque(maxlen=size)
        # arguments by their identities, held so that no other object takes their place
        same: dict[tuple[int, ...], tuple[tuple[object, ...], R]] = {}

        def found(args: tuple[object, ...], named: dict[str, object]) -> tuple[R] | None:
            for own, own_named, result in list(kept):
                # from the last to the first: what is changed stands behind what it is changed on
                if len(own) == len(args) and own_named == named and all(map(eq, reversed(own), reversed(args))):
                    return (result,)
            return None

        @wraps(work)
        def call(*args: P.args, **named: P.kwargs) -> R:
            key = tuple(map(id, args))
            if not named and (known := same.get(key)) is not None:
                return known[1]
            if (equal := found(args, named)) is not None:
                (result,) = equal
            else:
                result = work(*args, **named)
                if len(kept) == size:
                    same.clear()  # what is forgotten is not to be held by another name
                kept.appendleft((args, dict(named), result))
            if not named:
                if len(same) >= ALIASES * size:
                    same.clear()
                same[key] = (args, result)
            return result

        def forget() -> None:
            kept.clear()
            same.clear()

        _FORGET.append(forget)
        return call

    return over


M = TypeVar("M", bound=BaseModel)
SHARED = 128
_SHARED: dict[tuple[type[BaseModel], bytes], BaseModel] = {}
_FORGET.append(_SHARED.clear)


def shared(document: M) -> M:
    """The document first seen with this content: every request brings new objects, and what is the very same is quickly compared."""
    key = (type(document), document.__pydantic_serializer__.to_json(document))
    known = _SHARED.get(key)
    # what is written alike may still differ by a kind that is not written
    if isinstance(known, type(document)):
        return known if known == document else document
    if len(_SHARED) >= SHARED:
        _SHARED.clear()
    _SHARED[key] = document
    return document
