"""Try changes on the whole evaluation: what becomes of a group, what else changes, and what it costs.

One change at a time; where none is enough, the best of them is kept and the next is tried on top of it. What
is kept may make something else fail, as long as less is wrong in all: the next change is then tried on that too.
Offered are the changes after which nothing new fails: those that mend the group first, then by metal and
by work.
"""

import math
from collections.abc import Generator, Sequence
from dataclasses import dataclass
from typing import NamedTuple

from nodulant.base.errors import NodulantError
from nodulant.base.model import Frozen
from nodulant.checks.check import RANK, Check, Verdict
from nodulant.checks.groups import Group
from nodulant.evaluate.evaluation import Evaluation, Want
from nodulant.evaluate.finding import QUICK
from nodulant.evaluate.run import evaluate
from nodulant.frame.added_ties import tie_changes
from nodulant.frame.model import Placed, placed_on, planned_state
from nodulant.frame.ops.notches.notch import Notch
from nodulant.frame.ops.plates.boxing import Boxing
from nodulant.frame.ops.union import Operation
from nodulant.frame.parts import on_rail
from nodulant.job.document import Inputs
from nodulant.parts.sides import LEFT_RIGHT, Side, on_sides
from nodulant.remedies.frame import frame_changes
from nodulant.remedies.patch import Patch, patched, together, words_of
from nodulant.remedies.plates import as_needed, changes_of, to_crossmembers
from nodulant.search.boxing_sets import Around, boxing_beside, boxing_over
from nodulant.search.piece_sets import Joined
from nodulant.search.plate_sets import Stock
from nodulant.units.said import Said, said

OFFERED, DEPTH, TRIALS, NEAR_MM = 3, 4, 90, 200.0
OF_THE_OPENING = frozenset({"notch-depth", "notch-width", "metal-clearance", "bump-travel"})
"""Rows that say how the cut's opening suits the axle's travel."""
BAD: frozenset[Verdict] = frozenset({"fails", "weaker"})


class Changed(Frozen):
    """A group whose verdict changes with a remedy."""

    title: str
    before: Verdict
    after: Verdict


class Remedy(Frozen):
    """A change that was tried: the worst row of the group before and after, what else changes, what it costs."""

    patch: Patch
    words: Said
    mends: bool
    title: str
    verdict: Verdict
    says: Said | None
    value: float | None
    """Of the group's worst row afterwards."""
    changes: tuple[Changed, ...]
    mass_kg: float
    """Metal added, both sides."""
    minutes: float
    """Work added, people counted."""


class Remedies(Frozen):
    """What may be done about one group; the reason where nothing helps."""

    key: str
    offered: tuple[Remedy, ...]
    tried: int
    reason: Said | None = None


class Progress(NamedTuple):
    """How many changes were tried, and how many there are at most."""

    done: int
    total: int


@dataclass(frozen=True)
class _Outcome:
    patch: Patch
    result: Evaluation
    worst: Check
    new_fails: tuple[Check, ...]
    """The worst row of every cause that fails now and did not."""
    mass_kg: float
    minutes: float

    @property
    def rank(self) -> tuple[int, float]:
        """How bad it is: the worst verdict, then how far everything that is wrong lies beyond its limit."""
        wrong = (self.worst, *self.new_fails)
        beyond = sum(math.log(c.beyond) for c in wrong if c.verdict in BAD and c.beyond is not None and c.beyond > 1)
        return (max(-RANK[c.verdict] for c in wrong), beyond)


@dataclass(frozen=True)
class _Problem:
    """What changes are looked for: rows of one cause, the worst of them."""

    ids: tuple[str, ...]
    worst: Check


def find_remedies(inputs: Inputs, key: str) -> Generator[Progress, None, Remedies]:
    """Try changes for the group ``key`` step by step; stop it at will."""
    base = evaluate(inputs, QUICK)
    group = next((g for g in base.groups if g.key == key), None)
    if group is None or group.verdict not in BAD:
        return Remedies(key=key, offered=(), tried=0, reason=said("Nothing is wrong here any more."))
    by_id = {c.id: c for c in base.checks}
    ids = [i for i in group.ids if by_id[i].verdict in BAD]
    search = _Search(inputs, base, ids, by_id[ids[0]])
    good: list[_Outcome] = []
    nearest: _Outcome | None = None
    stands = _Outcome(Patch(clauses=()), base, search.worst, (), 0.0, 0.0)
    seen = 0
    for _ in range(DEPTH):
        best: _Outcome | None = None
        for change in search.candidates(stands):
            if seen >= TRIALS:
                break
            seen += 1
            yield Progress(seen, TRIALS)
            outcome = search.outcome(together(stands.patch, change))
            if outcome is None:
                continue
            if not outcome.new_fails and search.mended(outcome.worst.verdict):
                good.append(outcome)
            if best is None or outcome.rank < best.rank:
                best = outcome
        if good or best is None or best.rank >= (stands.rank[0], stands.rank[1] - 1e-3):
            break
        stands = best
        if not best.new_fails:
            nearest = best
    offered = _ranked(good)
    if not offered and nearest is not None:
        offered = [nearest]
    told = tuple(search.told(outcome, group) for outcome in offered if search.confirmed(outcome))
    reason = None if told and told[0].mends else _reason(seen, told, by_id[ids[0]])
    return Remedies(key=key, offered=told, tried=seen, reason=reason)


def _ranked(good: Sequence[_Outcome]) -> list[_Outcome]:
    """Least metal first, then least work; no two that differ in nothing but a size."""
    out: list[_Outcome] = []
    for outcome in sorted(good, key=lambda o: (round(o.mass_kg, 2), o.minutes)):
        if len(out) < OFFERED:
            out.append(outcome)
    return out


def _reason(tried: int, told: tuple[Remedy, ...], worst: Check) -> Said:
    if told:
        return said(f"{tried} changes were tried; none mends it. The nearest is offered: it comes this far.")
    if tried == 0:
        return said(f"No change of plates, welds or frame bears on '{worst.title}': {worst.remedy or worst.basis}")
    return said(f"{tried} changes of plates, welds and frame were tried; none makes it better without harm elsewhere.")


@dataclass(frozen=True)
class _Search:
    """One group of one design, and how a change of it turns out."""

    inputs: Inputs
    base: Evaluation
    ids: list[str]
    worst: Check

    def mended(self, verdict: Verdict) -> bool:
        """Whether a verdict is what is wished for: what failed must not, what was weaker must be as strong."""
        return verdict not in BAD or (self.worst.verdict == "fails" and verdict == "weaker")

    def candidates(self, stands: _Outcome) -> list[Patch]:
        """Changes that bear on the group and on what newly fails, the farthest beyond its limit first; each once."""
        standing = patched(self.inputs, stands.patch)
        problems = [_Problem((c.id,), c) for c in sorted(stands.new_fails, key=lambda c: -(c.beyond or 0.0))]
        if not self.mended(stands.worst.verdict):
            problems.insert(0, _Problem(tuple(self.ids), stands.worst))
        out: list[Patch] = []
        for problem in problems:
            out += [patch for patch in self._bearing_on(problem, standing) if patch not in out]
        return out

    def _bearing_on(self, problem: _Problem, standing: Inputs) -> list[Patch]:
        """Changes of the operations that a problem is about, of the cut beside it, and of the frame."""
        rack, caps = standing.shop.plate_stock_mm, standing.shop.cap_heights_mm
        out: list[Patch] = []
        for op in _concerned(problem, standing):
            side = on_sides(op.side)[0]
            state = planned_state(standing.design.operations)
            try:
                placed = placed_on(standing.survey, standing.design.operations, side, state)
            except NodulantError:
                continue
            own = next((p for p in placed if p.op.id == op.id), None)
            if own is None:
                continue
            on = on_rail(standing.survey, side, own, placed)
            out += list(changes_of(op, on, rack, caps))
            if isinstance(op, Boxing):
                members = (*standing.survey.crossmembers, *standing.design.crossmembers)
                out += list(to_crossmembers(op, on, (c.x_mm for c in members)))
            out += _boxed(standing, own, placed, side, Stock(thicknesses_mm=rack, cap_heights_mm=caps))
        if any(i.split(":")[0] in OF_THE_OPENING for i in problem.ids):
            for op in standing.design.operations:
                if isinstance(op, Notch) and not op.from_above:
                    out += list(as_needed(op, self.base.notch_needed))
        at = problem.worst.governs
        if at.case is not None and at.station_mm is not None:
            out += list(frame_changes(standing, at.station_mm))
        return out

    def outcome(self, patch: Patch, want: Want = QUICK) -> _Outcome | None:
        """How a change turns out; None where it cannot be made."""
        changed = patched(self.inputs, patch)
        try:
            result = evaluate(changed, want)
        except NodulantError:
            return None
        by_id = {c.id: c for c in result.checks}
        rows = [by_id[i] for i in self.ids if i in by_id]
        if not rows:
            return None
        worst = min(rows, key=lambda c: (RANK[c.verdict], -(c.beyond or 0.0)))
        known = {c.id for c in self.base.checks if c.verdict == "fails"} | set(self.ids)
        waits = {c.id for c in self.base.checks if c.verdict == "not computed"}
        new: dict[str, Check] = {}
        for check in result.checks:
            uncarried = check.limit_id == "seat-carried" and check.verdict == "not computed" and check.id not in waits
            if uncarried or (check.verdict == "fails" and check.id not in known):
                worse = new.get(check.cause)
                if worse is None or (check.beyond or 0.0) > (worse.beyond or 0.0):
                    new[check.cause] = check
        mass = result.mass_added_kg - self.base.mass_added_kg
        return _Outcome(patch, result, worst, tuple(new.values()), mass, _minutes(changed) - _minutes(self.inputs))

    def confirmed(self, outcome: _Outcome) -> bool:
        """Whether nothing new fails in anything that the design is judged by."""
        try:
            before, after = evaluate(self.inputs), evaluate(patched(self.inputs, outcome.patch))
        except NodulantError:
            return False
        failing = {c.id for c in before.checks if c.verdict == "fails"} | set(self.ids)
        return not any(c.verdict == "fails" and c.id not in failing for c in after.checks)

    def told(self, outcome: _Outcome, group: Group) -> Remedy:
        """The outcome as it is offered."""
        before = {g.key: g.verdict for g in self.base.groups}
        changes = [
            Changed(title=g.title, before=before[g.key], after=g.verdict)
            for g in outcome.result.groups
            if g.key != group.key and g.key in before and before[g.key] != g.verdict
        ]
        worst = outcome.worst
        return Remedy(
            patch=outcome.patch,
            words=words_of(outcome.patch),
            mends=self.mended(worst.verdict),
            title=worst.title,
            verdict=worst.verdict,
            says=worst.said,
            value=worst.value,
            changes=tuple(changes[:6]),
            mass_kg=outcome.mass_kg,
            minutes=outcome.minutes,
        )


def _concerned(problem: _Problem, standing: Inputs) -> list[Operation]:
    """Operations named by the rows, or whose work stands at the worst place."""
    subjects = [i.split(":")[1] for i in problem.ids]
    cause = problem.worst.cause.split("@")[0].removeprefix("strength ")
    out = []
    for op in standing.design.operations:
        named = any(s == op.id or s.startswith(f"{op.id}-") for s in (*subjects, cause))
        if named or _stands_at(problem.worst, standing, op):
            out.append(op)
    return out


def _stands_at(worst: Check, standing: Inputs, op: Operation) -> bool:
    x, operations = worst.governs.station_mm, standing.design.operations
    if x is None or not worst.id.split(":")[1].startswith("rail"):
        return False
    for side in LEFT_RIGHT:
        placed = placed_on(standing.survey, operations, side, planned_state(operations))
        if any(p.op.id == op.id and p.start_mm - NEAR_MM <= x <= p.end_mm + NEAR_MM for p in placed):
            return True
    return False


def _boxed(standing: Inputs, own: Placed, placed: Sequence[Placed], side: Side, stock: Stock) -> list[Patch]:
    """The rail boxed over a cut, or ahead of a piece and behind it, where it is open there."""
    here = Around(standing.survey, standing.design.operations, own, placed, side, stock)
    plates: tuple[Boxing, ...] = ()
    if own.op.opens:
        over = boxing_over(here)
        plates, words = () if over is None else (over,), "the rail boxed over the cut, {value}"
    elif isinstance(own.op, Joined):
        plates, words = boxing_beside(here), "the rail boxed beside it, {value}"
    if not plates:
        return []
    return [Patch(clauses=(said(words, value=(plates[0].thickness_mm, "thickness")),), added=plates)]


def _minutes(inputs: Inputs) -> float:
    """Work of all operations, people counted."""
    survey, design = inputs.survey, inputs.design
    return sum(
        step.minutes * step.people * (1 if op.one_piece else len(on_sides(op.side)))
        for op in (*design.operations, *tie_changes(survey, design.operations, design.crossmembers))
        for step in op.steps("")
    )
