"""Good plans at once: tasks put down one after the other by what they hold up, each as early as people and welder allow.

A serial schedule-generation scheme with several rules of priority (Kolisch and Hartmann's survey of heuristics for
resource-constrained projects, from memory); the best is where the solver begins, and what stands where it ends early.
"""

from collections.abc import Sequence
from datetime import timedelta

import numpy as np

from nodulant.schedule.sessions import Line
from nodulant.schedule.tasks import Task

TRIES, SEED, SHAKE = 6, 7, 0.35


class Board:
    """Who is free in each minute of work, and whether the welder is."""

    def __init__(self, line: Line) -> None:
        """Everybody who is there."""
        self.line = line
        self.people = np.zeros(line.total, dtype=np.int16)
        for slot in line.slots:
            self.people[slot.first : slot.first + slot.minutes] = len(slot.who)
        self.welder = np.ones(line.total, dtype=bool)
        self._ends: list[list[int]] = [[slot.first] for slot in line.slots]

    def earliest(self, task: Task, ready: int, *, whole: bool) -> int | None:
        """The first minute from ``ready`` on at which a task finds its people; None where the line ends before."""
        if task.minutes == 0:
            return ready
        for k in range(self.line.slot_at(ready), len(self.line.slots)):
            slot = self.line.slots[k]
            last = slot.first + slot.minutes
            for at in sorted({max(ready, end) for end in self._ends[k]}):
                end = at + task.minutes
                if at >= last or end > self.line.total or (whole and end > last):
                    continue
                if self.people[at:end].min() >= task.people and (not task.welder or self.welder[at:end].all()):
                    return at
        return None

    def put(self, task: Task, at: int) -> None:
        """A task takes its people and the welder."""
        end = at + task.minutes
        if task.minutes == 0:
            return
        self.people[at:end] -= task.people
        if task.welder:
            self.welder[at:end] = False
        self._ends[self.line.slot_at(end - 1)].append(end)


def after_needs(task: Task, starts: Sequence[int | None], tasks: Sequence[Task], line: Line) -> int:
    """From when on a task may begin: its needs are done and have rested, what it waits for is there."""
    ready = 0 if task.not_before is None else line.from_clock(task.not_before)
    for need in task.needs:
        before, start = tasks[need], starts[need] or 0
        over = line.over(start, before.minutes) + timedelta(minutes=before.rest_min)
        ready = max(ready, line.from_clock(over) if before.rest_min else start + before.minutes)
    return ready


def packed(tasks: Sequence[Task], line: Line, longest: dict[int, int]) -> tuple[int, ...] | None:
    """The shortest of several plans; None where the line is too short for any. ``longest`` session by people."""
    tail = [0.0] * len(tasks)
    for k in range(len(tasks) - 1, -1, -1):
        tail[k] += tasks[k].minutes + tasks[k].rest_min / 8
        for need in tasks[k].needs:
            tail[need] = max(tail[need], tail[k])
    by_list = [-float(k) for k in range(len(tasks))]
    area = [t + task.minutes * task.people for t, task in zip(tail, tasks, strict=True)]
    shaken = np.random.default_rng(SEED).uniform(1 - SHAKE, 1 + SHAKE, (TRIES, len(tasks)))
    rules = [by_list, tail, area, *(list(np.array(area if n % 2 else tail) * row) for n, row in enumerate(shaken))]
    plans = (_one(tasks, line, rule, longest) for rule in rules)
    found = [plan for plan in plans if plan is not None]
    return min(found, key=lambda plan: max(s + t.minutes for s, t in zip(plan, tasks, strict=True)), default=None)


def to_the_left(tasks: Sequence[Task], line: Line, starts: Sequence[int], longest: dict[int, int]) -> tuple[int, ...]:
    """The same plan with nothing begun later than it has to be: what the end waits for then hangs together."""
    board = Board(line)
    out: list[int | None] = [None] * len(tasks)
    for k in sorted(range(len(tasks)), key=lambda j: (starts[j], j)):
        task = tasks[k]
        at = board.earliest(task, after_needs(task, out, tasks, line), whole=task.minutes <= longest[task.people])
        if at is None:
            return tuple(starts)
        board.put(task, at)
        out[k] = at
    return tuple(s or 0 for s in out)


def _one(tasks: Sequence[Task], line: Line, rule: Sequence[float], longest: dict[int, int]) -> tuple[int, ...] | None:
    board = Board(line)
    starts: list[int | None] = [None] * len(tasks)
    waits = [len(t.needs) for t in tasks]
    follow: list[list[int]] = [[] for _ in tasks]
    for k, task in enumerate(tasks):
        for need in task.needs:
            follow[need].append(k)
    free = [k for k, count in enumerate(waits) if count == 0]
    while free:
        k = max(free, key=lambda j: rule[j])
        free.remove(k)
        task = tasks[k]
        at = board.earliest(task, after_needs(task, starts, tasks, line), whole=task.minutes <= longest[task.people])
        if at is None:
            return None
        board.put(task, at)
        starts[k] = at
        for after in follow[k]:
            waits[after] -= 1
            if waits[after] == 0:
                free.append(after)
    return tuple(s or 0 for s in starts)
