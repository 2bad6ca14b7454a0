"""A kind of mistake: how it is planted, what it is called, what helps to find it, and what it costs."""

from collections.abc import Callable
from dataclasses import dataclass
from random import Random

from nodulant.base.model import Frozen
from nodulant.job.document import Inputs


@dataclass(frozen=True)
class Planted:
    """A job with the mistake in it, and where it is, in words."""

    inputs: Inputs
    spot: str


@dataclass(frozen=True)
class Fault:
    """One kind; the first two hints name no field."""

    id: str
    name: str
    """As it is accused: a plain sentence."""
    story: str
    """What the crew tells, which names nothing."""
    hints: tuple[str, str, str, str]
    """Which stage; which row; which field; what is wrong with it."""
    costs: str
    """What would have happened."""
    hours: float
    """Of work that is done again."""
    shows: frozenset[str]
    """Rules of checks, or 'tips' and 'order', that tell it."""
    plant: Callable[[Inputs, Random], Planted]


class FaultChoice(Frozen):
    """What a learner may accuse."""

    id: str
    name: str
