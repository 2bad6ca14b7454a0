"""Bodies put where they are at positions of their grid, and many looks at distances answered as one.

A look at one pair asks for a few distances, sees what they are and asks for the next: it is
written as a generator of questions. Many pairs are looked at in step, what they ask for at a
time is answered by one call for each kind of bodies.
"""

from collections import defaultdict
from collections.abc import Generator, Sequence
from dataclasses import dataclass, fields
from typing import TypeVar

import numpy as np

from nodulant.base.arrays import Columns, Rows
from nodulant.clearance.distance import ROUNDS, Near, Ring, bar_to_bar, bar_to_convex, ring_to_bar, ring_to_convex
from nodulant.clearance.moving import Mover, RoundBar, Spots, between
from nodulant.clearance.shapes import Bars, Blocks, Boxes, Pack, Prisms, Standing

Placed = tuple[Columns, Columns, Columns | float] | Ring


def placed(mover: Mover, rows: Rows | None = None, at: Spots | None = None) -> Placed:
    """The mover at grid ``rows`` (flat numbers; all where left out), or at places between them."""
    body = mover.body

    def put(one: Columns, two: Columns) -> tuple[Columns, Columns]:
        if at is not None:
            both = between(np.concatenate([one, two], axis=-1), at)
            return both[:, :3], both[:, 3:]
        one, two = one.reshape(-1, 3), two.reshape(-1, 3)
        return (one, two) if rows is None else (one[rows], two[rows])

    if isinstance(body, RoundBar):
        return *put(body.a, body.b), body.radius
    centre, spin = put(body.centre, body.spin)
    spin = spin / np.sqrt((spin**2).sum(axis=-1, keepdims=True))
    return Ring(centre, spin, body.outside, body.rim, body.width, body.shoulder)


def boxes_of(mine: Placed) -> Boxes:
    """The box along the axes of a body in each of its places; of a tyre by the support of its disc."""
    if isinstance(mine, Ring):
        flat = np.sqrt(np.maximum(1.0 - mine.spin**2, 0.0))
        reach = mine.outside * flat + mine.width / 2 * np.abs(mine.spin)
        return Boxes(mine.centre - reach, mine.centre + reach)
    a, b, radius = mine
    thick = np.reshape(radius, (-1, 1))
    return Boxes(np.minimum(a, b) - thick, np.maximum(a, b) + thick)


def repeated(mine: Placed, each: int) -> Placed:
    """Every place so many times in turn; of bars with one radius."""
    if isinstance(mine, Ring):
        return mine._replace(centre=np.repeat(mine.centre, each, axis=0), spin=np.repeat(mine.spin, each, axis=0))
    return np.repeat(mine[0], each, axis=0), np.repeat(mine[1], each, axis=0), mine[2]


def other_bodies(
    other: Standing | Mover, which: Rows, rows: Rows | None = None, at: Spots | None = None
) -> Pack | Placed:
    """The other body of a pair, place by place; ``which`` numbers the bodies of something that stands."""
    return other.pack.some(which) if isinstance(other, Standing) else placed(other, rows, at)


def exact(mine: Placed, other: Pack | Placed, rounds: int = ROUNDS) -> Near:
    """Exact distances, place by place."""
    if isinstance(other, Blocks | Bars | Prisms):
        if isinstance(mine, Ring):
            return ring_to_convex(mine, other, rounds)
        return bar_to_convex(*mine, other, rounds)
    if isinstance(mine, Ring) and not isinstance(other, Ring):
        return ring_to_bar(mine, *other, rounds)
    if isinstance(other, Ring) and not isinstance(mine, Ring):
        swapped = ring_to_bar(other, *mine, rounds)
        return Near(swapped.gap, swapped.other, swapped.mine)
    if isinstance(mine, Ring) or isinstance(other, Ring):
        raise ValueError("two tyres are not looked at together")
    return bar_to_bar(*mine, *other)


@dataclass(frozen=True, eq=False)
class Ask:
    """A question for distances, place by place."""

    mine: Placed
    other: Pack | Placed
    rounds: int = ROUNDS

    def __len__(self) -> int:
        """How many places."""
        return len(self.mine.centre if isinstance(self.mine, Ring) else self.mine[0])

    @property
    def kind(self) -> tuple[object, ...]:
        """What questions must have in common to be answered together."""
        return (_kind(self.mine), _kind(self.other), self.rounds)


T = TypeVar("T")
Looking = Generator[Ask, Near, T]


def _kind(body: Pack | Placed) -> tuple[object, ...]:
    return (Ring, *body[2:]) if isinstance(body, Ring) else (type(body),)


def _in_a_row(bodies: Sequence[Placed]) -> Placed:
    """Places of bodies of one kind, one after the other; of bars each with its radius."""
    if isinstance(first := bodies[0], Ring):
        both = [np.concatenate([body[k] for body in bodies]) for k in range(2)]
        return first._replace(centre=both[0], spin=both[1])
    radius = np.concatenate([np.broadcast_to(np.asarray(b[2]), len(b[0])) for b in bodies])
    return np.concatenate([b[0] for b in bodies]), np.concatenate([b[1] for b in bodies]), radius


def _others(bodies: Sequence[Pack | Placed]) -> Pack | Placed:
    """The same of what they are held against."""
    first = bodies[0]
    if isinstance(first, tuple):
        return _in_a_row([b for b in bodies if isinstance(b, tuple)])
    return type(first)(*(np.concatenate([getattr(b, f.name) for b in bodies]) for f in fields(first)))


def answers(asks: Sequence[Ask]) -> list[Near]:
    """Every question's answer; those of a kind are worked out in one go."""
    kinds: dict[tuple[object, ...], list[int]] = defaultdict(list)
    for k, ask in enumerate(asks):
        kinds[ask.kind].append(k)
    out: dict[int, Near] = {}
    for numbers in kinds.values():
        some = [asks[k] for k in numbers]
        near = exact(_in_a_row([ask.mine for ask in some]), _others([ask.other for ask in some]), some[0].rounds)
        ends = np.cumsum([len(ask) for ask in some])[:-1]
        parts = zip(*(np.split(column, ends) for column in near), strict=True)
        out.update((k, Near(*part)) for k, part in zip(numbers, parts, strict=True))
    return [out[k] for k in range(len(asks))]


def in_step(looks: Sequence[Looking[T]]) -> list[T]:
    """Many looks brought to their end together; what each of them found, in their order."""
    found: dict[int, T] = {}
    asked: dict[int, Ask] = {}

    def go_on(k: int, near: Near | None) -> None:
        try:
            asked[k] = next(looks[k]) if near is None else looks[k].send(near)
        except StopIteration as end:
            found[k] = end.value

    for k in range(len(looks)):
        go_on(k, None)
    while asked:
        numbers, asks = list(asked), list(asked.values())
        asked.clear()
        for k, near in zip(numbers, answers(asks), strict=True):
            go_on(k, near)
    return [found[k] for k in range(len(looks))]
