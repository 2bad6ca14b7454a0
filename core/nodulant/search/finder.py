"""The lightest set of metal with which nothing fails: every set of the stock, by mass, screened and then judged whole.

A *trial* is a design with one set in it. The *screen* looks at sections and forces as they are and may
only refuse what would fail; the *judge* is the whole evaluation, and its verdict is the goal. Kinds of
sets whose heaviest is refused are not tried. The next sets that use other kinds of metal are alternatives.
"""

from collections import defaultdict
from collections.abc import Callable, Generator, Sequence
from dataclasses import dataclass
from typing import NamedTuple

from nodulant.base.model import Frozen
from nodulant.frame.ops.union import Operation
from nodulant.units.said import Said, said

ALTERNATIVES = 4
JUDGED = 60
"""How many sets are judged whole before the search gives up."""
PATIENCE = 2
"""Sets of one kind that fail in one row before the heaviest of the kind is asked."""


class Judged(NamedTuple):
    """How a design stands near the operation: rows that fail there, the worst's excess over its limit, and its name."""

    fails: int
    beyond: float
    worst: str


class SetFound(Frozen):
    """A set with which nothing fails: the operations that carry it, in words, with its mass a side."""

    changed: tuple[Operation, ...]
    """Operations that take the place of those with their ids."""
    added: tuple[Operation, ...]
    words: Said
    mass_kg: float
    beyond: float
    """How far its worst row is on the ratio scale: below 1."""
    worst: str
    """What it is nearest to failing in."""


class FoundSets(Frozen):
    """Sets that pass, lightest first, each of other kinds of metal; or the reason why there is none."""

    choices: tuple[SetFound, ...]
    tried: int
    judged: int
    reason: Said | None = None


class Progress(NamedTuple):
    """Sets tried, sets there are, and the lightest that passed so far."""

    done: int
    total: int
    best: SetFound | None = None


@dataclass(frozen=True)
class Trial:
    """One set: the design with it, what of it is changed and added, which kinds of metal it uses, its mass a side."""

    operations: tuple[Operation, ...]
    changed: tuple[Operation, ...]
    added: tuple[Operation, ...]
    kinds: tuple[bool | str, ...]
    words: Said
    mass_kg: float

    @property
    def family(self) -> tuple[bool, ...]:
        """Which kinds of metal there are, whatever their sizes."""
        return tuple(kind for kind in self.kinds if isinstance(kind, bool))


Screen = Callable[[Trial], Judged]
Judge = Callable[[tuple[Operation, ...]], Judged]
Stiffer = Callable[[Trial], Trial | None]
"""The same set with its welds as large as its plates allow; None where they are."""


@dataclass
class _Best:
    """The nearest that a search came, for its reason."""

    beyond: float = float("inf")
    worst: str = "a set that can be placed"

    def see(self, judged: Judged) -> None:
        if judged.beyond < self.beyond:
            self.beyond, self.worst = judged.beyond, judged.worst


def search(
    trials: Sequence[Trial], screen: Screen, judge: Judge, stiffer: Stiffer, hint: str = ""
) -> Generator[Progress, None, FoundSets]:
    """Search step by step: yields progress, returns what was found; stop it at will."""
    ordered = sorted(trials, key=lambda t: t.mass_kg)
    best, closed, choices = _Best(), set[tuple[bool | str, ...]](), list[SetFound]()
    families = set[tuple[bool, ...]]()
    heaviest = {trial.kinds: trial for trial in ordered}
    failed: dict[tuple[bool | str, ...], list[str]] = defaultdict(list)
    for done, (kinds, trial) in enumerate(heaviest.items()):
        if done % 8 == 0:
            yield Progress(0, len(ordered))
        found = screen(trial)
        if found.fails:
            closed.add(kinds)
            best.see(found)
    judged, done = 0, 0
    for done, trial in enumerate(ordered, start=1):
        if len(choices) > ALTERNATIVES or judged >= JUDGED:
            break
        if done % 20 == 0:
            yield Progress(done, len(ordered), choices[0] if choices else None)
        if trial.kinds in closed or trial.family in families:
            continue
        found = screen(trial)
        if found.fails:
            best.see(found)
            continue
        passed, verdict = _judged(trial, judge, stiffer)
        judged += 1
        if verdict.fails:
            best.see(verdict)
            failed[trial.kinds].append(verdict.worst)
            if len(failed[trial.kinds]) == PATIENCE and len(set(failed[trial.kinds])) == 1:
                most = judge(heaviest[trial.kinds].operations)
                best.see(most)
                if most.fails and most.worst == verdict.worst:
                    closed.add(trial.kinds)  # more of the same metal does nothing for what fails
        else:
            families.add(trial.family)
            choices.append(_found(passed, verdict))
        yield Progress(done, len(ordered), choices[0] if choices else None)
    reason = None if choices else _reason(best, hint)
    return FoundSets(choices=tuple(choices), tried=done, judged=judged, reason=reason)


def _judged(trial: Trial, judge: Judge, stiffer: Stiffer) -> tuple[Trial, Judged]:
    """The verdict on a set; where it fails, on the same with larger welds."""
    verdict = judge(trial.operations)
    if verdict.fails and (stronger := stiffer(trial)) is not None:
        again = judge(stronger.operations)
        if not again.fails:
            return stronger, again
    return trial, verdict


def _found(trial: Trial, verdict: Judged) -> SetFound:
    return SetFound(
        changed=trial.changed,
        added=trial.added,
        words=trial.words,
        mass_kg=trial.mass_kg,
        beyond=verdict.beyond,
        worst=verdict.worst,
    )


def _reason(best: _Best, hint: str) -> Said:
    over = "" if best.beyond == float("inf") else ", {over} of its limit"
    text = f"No set from this stock passes. The nearest still fails in: {best.worst}{over}. {hint}"
    return said(text.strip(), over=(min(best.beyond, 100.0), "ratio")) if over else said(text.strip())
