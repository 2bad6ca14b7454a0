"""The earliest plan: tasks on the line of sessions, people and the one welder shared, by CP-SAT.

Precedence, people (as many as each session has), one arc at a time, a task that fits into a session is not cut by its
end. What rests by the clock is measured over the sessions' real distances. CP-SAT (OR-Tools) proves a bound with
what it finds; its work is limited by its own deterministic clock, so that the same plan gives the same schedule.
"""

from collections.abc import Sequence
from dataclasses import dataclass

from ortools.sat.python import cp_model

from nodulant.base.errors import InputError
from nodulant.schedule.packed import after_needs, packed, to_the_left
from nodulant.schedule.sessions import Line
from nodulant.schedule.tasks import Task

EFFORT = 1.5
"""Of CP-SAT's deterministic time, about seconds."""


@dataclass(frozen=True)
class Solved:
    """First minute of each task, the plan's last, what cannot be beaten, and whether that is the same."""

    starts: tuple[int, ...]
    end: int
    bound: int
    proved: bool


def refuse_too_few(tasks: Sequence[Task], line: Line) -> None:
    """Raises InputError for a task that needs more people than any session has."""
    most = max(len(slot.who) for slot in line.slots)
    for task in tasks:
        if task.people > most:
            raise InputError(
                f"'{task.title}' needs {task.people} people",
                field="/shop/week",
                found=f"at most {most} in any session",
                acceptable=f"a session with {task.people}",
            )


def in_list_order(tasks: Sequence[Task], line: Line) -> tuple[int, ...]:
    """Every task after the one before it in the list, as a plan without a schedule is worked off."""
    starts, ready = list[int](), 0
    for task in tasks:
        at = _fitting(task, max(ready, after_needs(task, starts, tasks, line)), line)
        starts.append(at)
        ready = at + task.minutes
    return tuple(starts)


def _fitting(task: Task, at: int, line: Line) -> int:
    """The first minute from ``at`` on at which a task may begin."""
    for slot in line.slots[line.slot_at(at) :]:
        start = max(at, slot.first)
        room = slot.first + slot.minutes - start
        if len(slot.who) < task.people or room <= 0:
            continue
        if room >= task.minutes or task.minutes > _longest(line, task.people):
            return start
    return line.total


def _longest(line: Line, people: int) -> int:
    return max((s.minutes for s in line.slots if len(s.who) >= people), default=0)


def solve(tasks: Sequence[Task], line: Line, listed: Sequence[int], effort: float = EFFORT) -> Solved:
    """The earliest end of all tasks; ``listed`` is a plan that holds."""
    longest = {t.people: _longest(line, t.people) for t in tasks}
    hint = packed(tasks, line, longest) or tuple(listed)
    model = cp_model.CpModel()
    start: list[cp_model.LinearExpr] = []
    end: list[cp_model.LinearExpr] = []
    for k, task in enumerate(tasks):
        domain = cp_model.Domain.from_intervals(_may_begin(task, line))
        s = model.new_int_var_from_domain(domain, f"s{k}")
        start.append(s)
        end.append(s + task.minutes)
        model.add_hint(s, hint[k])
        if task.not_before is not None:
            model.add(s >= line.from_clock(task.not_before))
    spans = [
        model.new_fixed_size_interval_var(s, t.minutes, f"i{k}")
        for k, (s, t) in enumerate(zip(start, tasks, strict=True))
    ]
    _people(model, tasks, line, spans)
    arcs = [span for span, task in zip(spans, tasks, strict=True) if task.welder]
    if arcs:
        model.add_no_overlap(arcs)
    clocks = _Clocks(model, line)
    for k, task in enumerate(tasks):
        for need in task.needs:
            model.add(start[k] >= end[need])
            if tasks[need].rest_min:
                over = clocks.finish(end[need], need) if tasks[need].minutes else clocks.begin(start[need], need)
                model.add(clocks.begin(start[k], k) >= over + tasks[need].rest_min)
    last = model.new_int_var(0, line.total, "last")
    for e in end:
        model.add(last >= e)
    model.minimize(last)
    solver = cp_model.CpSolver()
    solver.parameters.num_workers = 1
    solver.parameters.max_deterministic_time = effort
    status = solver.solve(model)
    if status not in {cp_model.OPTIMAL, cp_model.FEASIBLE}:
        return Solved(tuple(hint), max(h + t.minutes for h, t in zip(hint, tasks, strict=True)), 0, proved=False)
    starts = to_the_left(tasks, line, [solver.value(s) for s in start], longest)
    return Solved(
        starts=starts,
        end=max(s + t.minutes for s, t in zip(starts, tasks, strict=True)),
        bound=int(-(-solver.best_objective_bound // 1)),
        proved=status == cp_model.OPTIMAL,
    )


def _may_begin(task: Task, line: Line) -> list[list[int]]:
    """Minutes at which a task may begin: a session has its people, and holds it whole where any does."""
    whole = task.minutes <= _longest(line, task.people)
    out = []
    for slot in line.slots:
        last = slot.first + slot.minutes - (max(task.minutes, 1) if whole else 1)
        if len(slot.who) >= task.people and last >= slot.first:
            out.append([slot.first, last])
    return out or [[0, line.total]]


def _people(model: cp_model.CpModel, tasks: Sequence[Task], line: Line, spans: Sequence[cp_model.IntervalVar]) -> None:
    most = max(len(slot.who) for slot in line.slots)
    away = [
        (model.new_fixed_size_interval_var(slot.first, slot.minutes, f"away{k}"), most - len(slot.who))
        for k, slot in enumerate(line.slots)
        if len(slot.who) < most
    ]
    every = [*spans, *(span for span, _ in away)]
    model.add_cumulative(every, [*(t.people for t in tasks), *(count for _, count in away)], most)


class _Clocks:
    """Minutes by the clock of minutes of work, where something rests."""

    def __init__(self, model: cp_model.CpModel, line: Line) -> None:
        self._model, self._line = model, line
        first = line.slots[0].begins
        self._firsts = [slot.first for slot in line.slots]
        self._offsets = [int((s.begins - first).total_seconds() // 60) - s.first for s in line.slots]
        self._horizon = self._offsets[-1] + line.total + 1

    def begin(self, at: cp_model.LinearExpr, name: int) -> cp_model.LinearExpr:
        """When a task that begins at this minute of work begins."""
        return self._of(at, f"b{name}", later=0)

    def finish(self, at: cp_model.LinearExpr, name: int) -> cp_model.LinearExpr:
        """When one that ends at it ends: at a session's end, not at the next one's beginning."""
        return self._of(at, f"f{name}", later=1)

    def _of(self, at: cp_model.LinearExpr, name: str, later: int) -> cp_model.LinearExpr:
        model, slots = self._model, self._line.slots
        which = model.new_int_var(0, len(slots) - 1, f"k{name}")
        first = model.new_int_var(0, self._line.total, f"w{name}")
        offset = model.new_int_var(min(self._offsets), max(self._offsets), f"o{name}")
        model.add_element(which, self._firsts, first)
        model.add_element(which, self._offsets, offset)
        length = model.new_int_var(0, max(s.minutes for s in slots), f"l{name}")
        model.add_element(which, [s.minutes for s in slots], length)
        model.add(at >= first + later)
        model.add(at <= first + length - (1 - later))
        return at + offset
