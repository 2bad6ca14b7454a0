"""The lightest set of metal with which nothing fails: every set of the stock, by mass, screened and then judged whole.

A *trial* is a design with one set in it. The *screen* looks at sections and forces as they are and may
only refuse what would fail; the *judge* is the whole evaluation, and its verdict is the goal. Kinds of
sets whose heaviest is refused are not tried. The next sets that use other kinds of metal are alternatives.
"""

from collections import defaultdict
from collections.abc import Callable, Generator, Sequence
from dataclasses import dataclass, field
from functools import cached_property
from typing import NamedTuple

from nodulant.base.model import Frozen
from nodulant.frame.ops.union import Operation
from nodulant.units.said import Said, said

ALTERNATIVES = 4
JUDGED = 80
"""How many sets are judged whole before the search gives up."""
PATIENCE, MATTERS, STRIDE = 2, 0.02, 1.06
"""Sets of one kind that fail in one row before the heaviest of it is asked; what counts as coming nearer; how far to jump."""


Kinds = tuple[bool | str, ...]
"""Which kinds of metal a set uses."""


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
    kinds: Kinds
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
    run = _Run(sorted(trials, key=lambda t: t.mass_kg), screen, judge, stiffer)
    for done, (kinds, trial) in enumerate(run.heaviest.items()):
        if done % 8 == 0:
            yield Progress(0, len(run.ordered))
        if not run.screened(trial):
            run.closed.add(kinds)
    done = 0
    for done, trial in enumerate(run.ordered, start=1):
        if len(run.choices) > ALTERNATIVES or run.judged >= JUDGED:
            break
        if done % 20 == 0:
            yield Progress(done, len(run.ordered), run.lightest)
        if not run.wanted(trial):
            continue
        if trial.mass_kg < run.waits[trial.kinds]:
            run.skipped[trial.kinds].append(trial)
            continue
        found = run.whole(trial)
        yield Progress(done, len(run.ordered), run.lightest)
        if found is None:
            continue
        for lighter in run.skipped.pop(trial.kinds, []):
            if run.judged < JUDGED and (better := run.whole(lighter)) is not None:
                found = better
                break
            yield Progress(done, len(run.ordered), run.lightest)
        run.families.add(trial.family)
        run.choices.append(found)
    run.choices.sort(key=lambda c: c.mass_kg)
    reason = None if run.choices else _reason(run.best, hint)
    return FoundSets(choices=tuple(run.choices), tried=done, judged=run.judged, reason=reason)


@dataclass
class _Run:
    """What a search knows so far."""

    ordered: Sequence[Trial]
    screen: Screen
    judge: Judge
    stiffer: Stiffer
    best: _Best = field(default_factory=_Best)
    closed: set[Kinds] = field(default_factory=set)
    """Kinds of metal that do nothing for what fails."""
    families: set[tuple[bool, ...]] = field(default_factory=set)
    """Those of which a set was found."""
    choices: list[SetFound] = field(default_factory=list)
    failed: dict[Kinds, list[Judged]] = field(default_factory=lambda: defaultdict(list))
    waits: dict[Kinds, float] = field(default_factory=lambda: defaultdict(float))
    """The mass below which no more sets of a kind are judged, for more metal made no difference."""
    skipped: dict[Kinds, list[Trial]] = field(default_factory=lambda: defaultdict(list))
    judged: int = 0

    @cached_property
    def heaviest(self) -> dict[Kinds, Trial]:
        """The heaviest set of every kind."""
        return {trial.kinds: trial for trial in self.ordered}

    @property
    def lightest(self) -> SetFound | None:
        """The lightest that passed so far."""
        return self.choices[0] if self.choices else None

    def wanted(self, trial: Trial) -> bool:
        """Whether a set of its kinds can still be an answer."""
        return trial.kinds not in self.closed and trial.family not in self.families and self.screened(trial)

    def screened(self, trial: Trial) -> bool:
        """Whether it passes the screen."""
        found = self.screen(trial)
        if found.fails:
            self.best.see(found)
        return not found.fails

    def whole(self, trial: Trial) -> SetFound | None:
        """Judge a set; where it fails in the row in which the last of its kinds failed, jump or give the kinds up."""
        passed, verdict = _judged(trial, self.judge, self.stiffer)
        self.judged += 1
        if not verdict.fails:
            return _found(passed, verdict)
        self.best.see(verdict)
        before = self.failed[trial.kinds]
        before.append(verdict)
        if len(before) < 2 or before[-2].worst != verdict.worst:
            return None
        if verdict.beyond > (1 - MATTERS) * before[-2].beyond:
            self.waits[trial.kinds] = trial.mass_kg * STRIDE
        if len(before) == PATIENCE:
            most = self.judge(self.heaviest[trial.kinds].operations)
            self.best.see(most)
            if most.fails and most.worst == verdict.worst:
                self.closed.add(trial.kinds)
        return None


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
