"""Steps as tasks: how long, how many people, what comes first, and what is waited for."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime, time, timedelta

from nodulant.build.estimates import Learned
from nodulant.build.plan import Step
from nodulant.job.timing import Handout, Timing
from nodulant.schedule.sessions import day_of

DONE = frozenset({"done", "overridden"})
MORNING = time(7, 0)
"""What comes on a day is there when work begins."""


@dataclass(frozen=True)
class Task:
    """A step that is left to do. ``rest_min`` is by the clock: paint dries at night too."""

    id: str
    title: str
    minutes: int
    people: int
    welder: bool
    needs: tuple[int, ...]
    """Numbers of the tasks before it."""
    rest_min: int = 0
    not_before: datetime | None = None
    waits_for: str = ""
    handout: Handout | None = None


def tasks_of(
    steps: Sequence[Step], timing: Timing, learned: Learned, needs: Mapping[str, Iterable[str]]
) -> tuple[Task, ...]:
    """Every step that is not done, in the plan's order; ``needs`` are those right before each."""
    left = [s for s in steps if s.status not in DONE]
    number = {s.id: k for k, s in enumerate(left)}
    out = {h.step: h for h in timing.handouts}
    comes: dict[str, tuple[datetime, str]] = {}
    for k, arrival in enumerate(timing.arrivals):
        when = datetime.combine(day_of(arrival.on, f"/design/timing/arrivals/{k}/on"), MORNING)
        if arrival.step not in comes or comes[arrival.step][0] < when:
            comes[arrival.step] = (when, arrival.what)
    tasks = []
    for step in left:
        own, handout = learned.of(step.spec.key, step.spec.minutes), out.get(step.id)
        arrives = comes.get(step.id)
        tasks.append(
            Task(
                id=step.id,
                title=step.spec.title,
                minutes=0 if handout else own.minutes,
                people=0 if handout else step.spec.people,
                welder="welder" in step.spec.tools and handout is None,
                needs=tuple(number[n] for n in needs[step.id] if n in number),
                rest_min=int(timedelta(days=handout.days).total_seconds() // 60) if handout else step.spec.rest_min,
                not_before=arrives[0] if arrives else None,
                waits_for=arrives[1] if arrives else "",
                handout=handout,
            )
        )
    return tuple(tasks)
