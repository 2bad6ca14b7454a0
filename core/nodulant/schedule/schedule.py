"""The schedule of an option: when each step is done and by how many, what decides the end, what does not fit."""

from collections.abc import Iterable, Sequence
from datetime import datetime, timedelta

from nodulant.asbuilt.log import Entry
from nodulant.base.errors import InputError
from nodulant.base.model import Frozen
from nodulant.build.estimates import Learned, Took, took_of
from nodulant.build.nearest import nearest
from nodulant.build.plan import Step
from nodulant.job.timing import Handout, Timing, WorkSession
from nodulant.schedule.sessions import Line, day_of
from nodulant.schedule.solve import Solved, in_list_order, refuse_too_few, solve
from nodulant.schedule.tasks import Task, tasks_of

ROOM = 1.6
"""So much longer than all tasks one after the other the line of sessions is at first."""


class Planned(Frozen):
    """A step in the schedule; times as ISO 8601 without offset, by the shop's clock."""

    step: str
    title: str
    side: str | None
    work: str
    begins: str
    ends: str
    minutes: int
    people: int
    critical: bool
    """The end waits for it."""
    late: bool
    """After the due day."""
    waits_for: str
    handout: Handout | None


class Meeting(Frozen):
    """One session: when, who, and what is done in it."""

    begins: str
    ends: str
    who: tuple[str, ...]
    steps: tuple[str, ...]
    """Ids of the steps that are worked on."""


class Schedule(Frozen):
    """When everything is done."""

    steps: tuple[Planned, ...]
    sessions: tuple[Meeting, ...]
    ends: str
    in_list_order: str
    """When one step after the other would end."""
    not_before: str
    """No plan ends earlier than this."""
    proved: bool
    """This is the earliest there is."""
    due: str | None
    late: int
    """Steps that end after the due day."""
    hours: float
    """Of hands that are left."""
    low_hours: float
    high_hours: float


def schedule_of(
    steps: Sequence[Step],
    names: dict[str, str],
    timing: Timing,
    week: Sequence[WorkSession],
    now: datetime,
    entries: tuple[Entry, ...] = (),
    history: Iterable[Took] = (),
) -> Schedule | None:
    """What is left to do from now on; None where nothing is. ``names`` are the operations'.

    Raises InputError where the shop never works, a step needs more people than there are, or a day is none.
    """
    learned = Learned((*history, *took_of(entries)))
    tasks = tasks_of(steps, timing, learned, nearest(steps))
    if not tasks:
        return None
    _refuse_unknown(timing, steps)
    line = _line(tasks, week, now)
    refuse_too_few(tasks, line)
    listed = in_list_order(tasks, line)
    found = solve(tasks, line, listed)
    by_id = {s.id: s for s in steps}
    ends = [_done(t, s, line) for t, s in zip(tasks, found.starts, strict=True)]
    due = day_of(timing.due, "/design/timing/due") if timing.due else None
    critical = _critical(tasks, found, line)
    planned = tuple(
        Planned(
            step=t.id,
            title=t.title,
            side=by_id[t.id].side,
            work=names.get(by_id[t.id].operation or "", ""),
            begins=line.clock(found.starts[k]).isoformat(timespec="minutes"),
            ends=ends[k].isoformat(timespec="minutes"),
            minutes=t.minutes,
            people=t.people,
            critical=k in critical,
            late=due is not None and ends[k].date() > due,
            waits_for=t.waits_for,
            handout=t.handout,
        )
        for k, t in enumerate(tasks)
    )
    own = [(learned.of(by_id[t.id].spec.key, by_id[t.id].spec.minutes), t.people) for t in tasks if t.handout is None]
    return Schedule(
        steps=planned,
        sessions=_meetings(tasks, found, line),
        ends=max(ends).isoformat(timespec="minutes"),
        in_list_order=max(_done(t, s, line) for t, s in zip(tasks, listed, strict=True)).isoformat(timespec="minutes"),
        not_before=line.clock_end(max(found.bound, 1)).isoformat(timespec="minutes"),
        proved=found.proved,
        due=timing.due,
        late=sum(p.late for p in planned),
        hours=sum(e.minutes * people for e, people in own) / 60,
        low_hours=sum(e.low * people for e, people in own) / 60,
        high_hours=sum(e.high * people for e, people in own) / 60,
    )


def _done(task: Task, start: int, line: Line) -> datetime:
    """When a task is over; what is handed out comes back after its days."""
    end = line.over(start, task.minutes)
    return end + timedelta(minutes=task.rest_min) if task.handout else end


def _refuse_unknown(timing: Timing, steps: Sequence[Step]) -> None:
    known = {s.id for s in steps}
    asked = [(f"handouts/{k}", h.step) for k, h in enumerate(timing.handouts)]
    asked += [(f"arrivals/{k}", a.step) for k, a in enumerate(timing.arrivals)]
    for where, step in asked:
        if step not in known:
            raise InputError(
                "there is no such step any more",
                field=f"/design/timing/{where}/step",
                found=step,
                acceptable="a step of this design",
            )


def _line(tasks: Sequence[Task], week: Sequence[WorkSession], now: datetime) -> Line:
    """As many sessions as list order needs, with what it waits for; raises InputError beyond two years."""
    needed = int(sum(t.minutes for t in tasks) * ROOM) + max((s.minutes for s in week), default=0) * 4
    while True:
        line = Line(week, now, needed)
        listed = in_list_order(tasks, line)
        if all(s + t.minutes < line.total for s, t in zip(listed, tasks, strict=True)):
            return line
        if line.total < needed:
            refuse_too_few(tasks, line)
            raise InputError(
                "this does not end within two years",
                field="/shop/week",
                found=f"{sum(s.minutes for s in week) / 60:.1f} hours a week",
                acceptable="longer sessions, or more of them",
            )
        needed *= 2


def _critical(tasks: Sequence[Task], found: Solved, line: Line) -> frozenset[int]:
    """From the last step back: what each had to wait for, a need or a hand that was not free."""
    ends = [s + t.minutes for s, t in zip(found.starts, tasks, strict=True)]
    at = max(range(len(tasks)), key=lambda k: (ends[k], found.starts[k]))
    chain = {at}
    while True:
        before = [k for k in range(len(tasks)) if k not in chain and ends[k] <= found.starts[at]]
        needed = [k for k in before if k in tasks[at].needs]
        near = max(needed, key=lambda k: ends[k], default=None)
        if near is None or found.starts[at] - ends[near] > _lost(line, ends[near], found.starts[at], tasks[at]):
            busy = [k for k in before if tasks[k].people or tasks[k].welder]
            held = max(busy, key=lambda k: ends[k], default=None)
            near = held if near is None or (held is not None and ends[held] > ends[near]) else near
        if near is None:
            return frozenset(chain)
        chain.add(near)
        at = near


def _lost(line: Line, end: int, start: int, task: Task) -> int:
    """Minutes between two that are lost because the session's rest holds nothing of this length."""
    slot = line.slots[line.slot_at(max(end - 1, 0))]
    rest = slot.first + slot.minutes - end
    return rest if rest < task.minutes and start == slot.first + slot.minutes else 0


def _meetings(tasks: Sequence[Task], found: Solved, line: Line) -> tuple[Meeting, ...]:
    out = []
    for slot in line.slots:
        last = slot.first + slot.minutes
        own = [
            (s, t.id)
            for s, t in zip(found.starts, tasks, strict=True)
            if t.minutes and s < last and s + t.minutes > slot.first
        ]
        if own:
            ends = slot.begins + timedelta(minutes=slot.minutes)
            out.append(
                Meeting(
                    begins=slot.begins.isoformat(timespec="minutes"),
                    ends=ends.isoformat(timespec="minutes"),
                    who=slot.who,
                    steps=tuple(id_ for _, id_ in sorted(own)),
                )
            )
    return tuple(out)
