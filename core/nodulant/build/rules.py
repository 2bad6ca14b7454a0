"""Which step comes before which, as data: what the trade knows of the order (common practice).

A rule holds between two steps by what they do. ``job``: anywhere in the job; ``work``: within one operation, both
rails; ``rail``: within one operation on one rail; ``stretch``: on one rail, where their operations' stretches meet.
"""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Literal, Protocol

from nodulant.parts.sides import Side
from nodulant.parts.specs import Act, StepSpec

Where = Literal["job", "work", "rail", "stretch"]
Stretch = tuple[float, float]
Stretches = Mapping[tuple[str, Side], Stretch]
"""From where to where each operation works on each rail, mm."""
MEET_MM = 1.0


@dataclass(frozen=True, slots=True)
class Rule:
    """``before`` comes before ``after``, and why."""

    before: Act
    after: Act
    where: Where
    why: str


RULES: tuple[Rule, ...] = (
    Rule("supports", "frees-springs", "job", "the frame stands on its own before a spring lets go of it"),
    Rule("goes-inside", "shuts", "stretch", "nothing gets into a rail that is closed"),
    Rule("cuts", "ties", "stretch", "a member between the rails is fitted to what stays of them"),
    Rule("moves", "ties", "stretch", "a rail that still goes inward takes no member between"),
    Rule("boxes", "ties", "stretch", "a member ends on the plate that closes the rail"),
    Rule("ties", "moves-by-hand", "job", "travel is looked at with everything between the rails in its place"),
    Rule("cuts", "moves", "work", "an end that hangs on one side by its metal twists when the other moves"),
    Rule("braces", "cuts", "work", "what is held before the cut is where it was after it"),
    Rule("welds", "unbraces", "work", "a weld draws until it is cold"),
    Rule("drills-corners", "cuts", "rail", "a cut that ends in a corner goes on as a crack"),
    Rule("stands-at-height", "mocks-up", "job", "a bracket made to a wrong height is made twice"),
    Rule("mocks-up", "moves-by-hand", "job", "travel is looked at with every mount where it will be"),
    Rule("moves-by-hand", "welds-mount", "job", "a mount that is welded first is cut off again"),
    Rule("moves-by-hand", "joints-out", "job", "what is out cannot be moved through its travel"),
    Rule("joints-out", "welds-mount", "job", "heat takes rubber, seals and grease"),
    Rule("reads-runout", "welds-axle", "work", "what was not read before cannot be told from what the weld did"),
    Rule("welds-axle", "reads-runout-again", "work", "a weld bows a tube"),
)


class Ordered(Protocol):
    """A step as far as rules look at it."""

    @property
    def spec(self) -> StepSpec:
        """What it does."""
        ...

    @property
    def operation(self) -> str | None:
        """Whose it is; None for one of the job."""
        ...

    @property
    def side(self) -> str | None:
        """On which rail, or both."""
        ...


def pairs(steps: Sequence[Ordered], stretches: Stretches) -> Iterator[tuple[int, int, Rule]]:
    """Numbers of the steps that a rule binds: the one before, the one after, and the rule."""
    by_act: dict[Act, list[int]] = {}
    for k, step in enumerate(steps):
        for act in step.spec.acts:
            by_act.setdefault(act, []).append(k)
    for rule in RULES:
        for i in by_act.get(rule.before, ()):
            for j in by_act.get(rule.after, ()):
                if i != j and _bound(rule.where, steps[i], steps[j], stretches):
                    yield i, j, rule


def _bound(where: Where, one: Ordered, two: Ordered, stretches: Stretches) -> bool:
    if where == "job":
        return True
    if where in {"work", "rail"}:
        return one.operation == two.operation and (where == "work" or _meet(one.side, two.side))
    if one.operation is None or two.operation is None or not _meet(one.side, two.side):
        return False
    if one.operation == two.operation:
        return True
    sides: tuple[Side, ...] = ("left", "right")
    return any(
        _over(stretches.get((one.operation, side)), stretches.get((two.operation, side)))
        for side in sides
        if one.side in {side, "both"} and two.side in {side, "both"}
    )


def _meet(one: str | None, two: str | None) -> bool:
    return one == two or "both" in {one, two}


def _over(one: Stretch | None, two: Stretch | None) -> bool:
    """Whether two stretches share metal; one that is not known may."""
    return one is None or two is None or (one[0] <= two[1] + MEET_MM and two[0] <= one[1] + MEET_MM)


def broken(steps: Sequence[Ordered], stretches: Stretches) -> list[str]:
    """Every rule that the order of these steps breaks, as a sentence."""
    return [
        f"'{steps[i].spec.title}' comes after '{steps[j].spec.title}': {rule.why}"
        for i, j, rule in pairs(steps, stretches)
        if i > j
    ]
