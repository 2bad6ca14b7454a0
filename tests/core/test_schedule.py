"""The schedule against brute force, its rules on the demo, the calendar, and days and sessions that cannot be."""

import itertools
import random
from datetime import datetime, timedelta
from unittest import TestCase

from icalendar import Calendar
from pydantic import ValidationError

from nodulant.base.errors import InputError
from nodulant.build.nearest import nearest
from nodulant.evaluate import evaluate
from nodulant.formats.plan_ics import plan_ics
from nodulant.job.timing import EVENINGS, Arrival, Handout, Timing, WorkSession
from nodulant.schedule.packed import Board, after_needs
from nodulant.schedule.schedule import schedule_of
from nodulant.schedule.sessions import Line
from nodulant.schedule.solve import in_list_order, solve
from nodulant.schedule.tasks import Task
from tests import fixtures as f

NOW = datetime(2026, 5, 4, 8, 0)  # a Monday


def every_day(minutes=1200, who=("a", "b"), start="02:00"):
    days = ("Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday")
    return tuple(WorkSession(weekday=d, start=start, minutes=minutes, who=who) for d in days)


def by_brute_force(tasks, line):
    """The best of every order that keeps the needs, each task as early as it goes: one of them is optimal."""
    best = None
    for order in itertools.permutations(range(len(tasks))):
        place = {k: n for n, k in enumerate(order)}
        if any(place[need] > place[k] for k, t in enumerate(tasks) for need in t.needs):
            continue
        board, starts = Board(line), [None] * len(tasks)
        for k in order:
            starts[k] = board.earliest(tasks[k], after_needs(tasks[k], starts, tasks, line), whole=True)
            board.put(tasks[k], starts[k])
        end = max(s + t.minutes for s, t in zip(starts, tasks, strict=True))
        best = end if best is None else min(best, end)
    return best


class AgainstBruteForce(TestCase):
    def test_forty_small_plans(self):
        """Six tasks with needs, one or two people, one welder, short sessions, rests: proved and the same."""
        chance = random.Random(3)
        line = Line(every_day(100), NOW, 1500)
        for n in range(40):
            tasks = []
            for k in range(6):
                needs = tuple(j for j in range(k) if chance.random() < 0.3)
                tasks.append(
                    Task(
                        id=str(k),
                        title=str(k),
                        minutes=chance.randrange(10, 60, 5),
                        people=chance.choice((1, 1, 2)),
                        welder=chance.random() < 0.4,
                        needs=needs,
                        rest_min=chance.choice((0, 0, 0, 120)),
                    )
                    if chance.random() < 0.85
                    else Task(str(k), str(k), 0, 0, False, needs, rest_min=3000)  # handed out for two days
                )
            with self.subTest(n):
                found = solve(tasks, line, in_list_order(tasks, line))
                self.assertEqual((found.end, found.proved), (by_brute_force(tasks, line), True))
                self.assertEqual(found.bound, found.end)


class OnTheDemo(TestCase):
    @classmethod
    def setUpClass(cls):
        cls.inputs = f.demo("arc").model_copy(update={"as_built": type(f.demo("arc").as_built)()})
        cls.steps = evaluate(cls.inputs).steps
        cls.found = cls.plan(Timing())

    @classmethod
    def plan(cls, timing, week=EVENINGS, now=NOW):
        return schedule_of(cls.steps, {}, timing, week, now)

    def times(self, found):
        return {p.step: (datetime.fromisoformat(p.begins), datetime.fromisoformat(p.ends)) for p in found.steps}

    def test_every_step_waits_for_what_comes_before_it(self):
        times = self.times(self.found)
        self.assertEqual(len(times), len(self.steps))
        for step in self.steps:
            for need in step.needs:
                self.assertLessEqual(times[need][1], times[step.id][0], (need, step.id))

    def test_nobody_does_two_things_and_one_arc_burns(self):
        specs = {s.id: s.spec for s in self.steps}
        for moment in {t for pair in self.times(self.found).values() for t in pair}:
            now = [i for i, (a, b) in self.times(self.found).items() if a <= moment < b]
            self.assertLessEqual(sum(specs[i].people for i in now), 2)
            self.assertLessEqual(sum("welder" in specs[i].tools for i in now), 1)

    def test_a_step_that_fits_into_a_session_is_in_one(self):
        sessions = [(datetime.fromisoformat(m.begins), datetime.fromisoformat(m.ends)) for m in self.found.sessions]
        for begins, ends in self.times(self.found).values():
            self.assertTrue(any(a <= begins and ends <= b for a, b in sessions))

    def test_it_ends_a_tenth_earlier_than_one_step_after_the_other_or_it_is_proved_that_it_cannot(self):
        ends, listed = (datetime.fromisoformat(t) for t in (self.found.ends, self.found.in_list_order))
        saved = 1 - (ends - NOW) / (listed - NOW)
        self.assertTrue(saved >= 0.10 or self.found.proved, saved)
        self.assertLessEqual(self.found.not_before, self.found.ends)

    def test_what_the_end_waits_for_hangs_together(self):
        """Each critical step begins where another critical one ends, or as a session opens after one."""
        times = self.times(self.found)
        critical = sorted((times[p.step] for p in self.found.steps if p.critical), key=lambda t: t[1])
        self.assertEqual(critical[-1][1].isoformat(timespec="minutes"), self.found.ends)
        opens = {datetime.fromisoformat(m.begins) for m in self.found.sessions}
        for begins, _ in critical:
            self.assertTrue(begins in opens or any(end == begins for _, end in critical), begins)

    def test_paint_rests_by_the_clock(self):
        times = self.times(self.found)
        self.assertGreaterEqual(times["prove"][0] - times["paint"][1], timedelta(hours=16))

    def test_a_painter_takes_days_and_nobody_here(self):
        found = self.plan(Timing(handouts=(Handout(step="paint", to="painter", days=10),)))
        times = self.times(found)
        self.assertGreaterEqual(times["prove"][0] - times["paint"][0], timedelta(days=10))
        row = next(p for p in found.steps if p.step == "paint")
        self.assertEqual((row.minutes, row.people, row.handout.to), (0, 0, "painter"))
        self.assertLess(found.hours, self.found.hours)

    def test_what_comes_on_a_day_is_waited_for(self):
        step = next(s.id for s in self.steps if s.spec.phase == "cut")
        found = self.plan(Timing(arrivals=(Arrival(what="liner plate", step=step, on="2026-07-01"),)))
        self.assertGreaterEqual(self.times(found)[step][0], datetime(2026, 7, 1))
        self.assertEqual(next(p for p in found.steps if p.step == step).waits_for, "liner plate")

    def test_what_does_not_fit_before_the_due_day_is_said(self):
        early = self.plan(Timing(due="2026-05-10"))
        self.assertEqual(early.late, sum(p.ends[:10] > "2026-05-10" for p in early.steps))
        self.assertGreater(early.late, 5)
        self.assertEqual(self.plan(Timing(due="2026-12-31")).late, 0)

    def test_what_is_done_is_left_out(self):
        self.assertIsNone(schedule_of((), {}, Timing(), EVENINGS, NOW))

    def test_the_same_plan_gives_the_same_schedule(self):
        self.assertEqual(self.plan(Timing()), self.found)

    def test_what_cannot_be_is_named(self):
        wrong = (
            (Timing(), (), "no session"),
            (Timing(), (WorkSession(weekday="Monday", start="18:00", minutes=180, who=("a",)),), "needs 2 people"),
            (Timing(due="2026-02-31"), EVENINGS, "no calendar"),
            (Timing(handouts=(Handout(step="nothing", to="painter", days=3),)), EVENINGS, "no such step"),
        )
        for timing, week, words in wrong:
            with self.subTest(words), self.assertRaisesRegex(InputError, words):
                self.plan(timing, week)
        tiny = (WorkSession(weekday="Monday", start="18:00", minutes=15, who=("a", "b")),)
        with self.assertRaisesRegex(InputError, "two years"):
            self.plan(Timing(), tiny)

    def test_a_session_of_no_minutes_or_over_midnight_is_refused(self):
        for minutes, start in ((0, "18:00"), (14, "18:00"), (400, "18:00")):
            with self.assertRaises((InputError, ValidationError)):
                WorkSession(weekday="Monday", start=start, minutes=minutes, who=("a",))

    def test_the_calendar_is_read_back(self):
        found = self.plan(Timing(due="2026-12-31", handouts=(Handout(step="paint", to="painter", days=4),)))
        calendar = Calendar.from_ical(plan_ics("Barn find", "revision 1", found, "mm"))
        events = list(calendar.walk("VEVENT"))
        self.assertEqual(len(events), len(found.sessions) + 2)
        first = events[0]
        self.assertEqual(first.decoded("dtstart"), datetime.fromisoformat(found.sessions[0].begins))
        self.assertEqual(first.decoded("dtend"), datetime.fromisoformat(found.sessions[0].ends))
        self.assertEqual(len({str(e["uid"]) for e in events}), len(events))
        self.assertNotIn("[[", "".join(str(e["description"]) for e in events if "description" in e))


class TheLine(TestCase):
    def test_minutes_of_work_by_the_clock(self):
        """Monday evening 90 minutes, Wednesday the next: minute 100 is Wednesday's tenth."""
        week = tuple(WorkSession(weekday=d, start="18:00", minutes=90, who=("a",)) for d in ("Monday", "Wednesday"))
        line = Line(week, NOW, 300)
        self.assertEqual(line.clock(100), datetime(2026, 5, 6, 18, 10))
        self.assertEqual(line.clock_end(90), datetime(2026, 5, 4, 19, 30))
        self.assertEqual(line.clock(90), datetime(2026, 5, 6, 18, 0))
        self.assertEqual(line.from_clock(datetime(2026, 5, 5, 3, 0)), 90)
        self.assertEqual(line.from_clock(datetime(2026, 5, 4, 18, 30)), 30)

    def test_what_is_handed_out_as_a_session_opens_is_gone_from_then_on(self):
        """Not from the end of the session before it."""
        week = tuple(WorkSession(weekday=d, start="18:00", minutes=90, who=("a",)) for d in ("Monday", "Wednesday"))
        line = Line(week, NOW, 900)
        out = Task("paint", "paint", 0, 0, False, (), rest_min=10 * 24 * 60)
        after = Task("prove", "prove", 30, 1, False, (0,))
        ready = after_needs(after, [90, None], [out, after], line)
        self.assertGreaterEqual(line.clock(ready), datetime(2026, 5, 16, 18, 0))
        found = solve(
            [
                Task("fill", "fill", 90, 1, False, ()),
                Task("paint", "paint", 0, 0, False, (0,), rest_min=14400),
                Task("prove", "prove", 30, 1, False, (1,)),
            ],
            line,
            (0, 90, 600),
        )
        self.assertGreaterEqual(line.clock(found.starts[2]) - line.clock(found.starts[1]), timedelta(days=10))

    def test_a_session_that_began_has_its_rest(self):
        week = (WorkSession(weekday="Monday", start="07:00", minutes=120, who=("a",)),)
        self.assertEqual(Line(week, NOW, 50).slots[0].minutes, 60)


class Nearest(TestCase):
    def test_nothing_that_is_needed_gets_lost(self):
        steps = evaluate(f.demo("step")).steps
        near = nearest(steps)
        behind = {}
        for s in steps:
            behind[s.id] = set(near[s.id]).union(*(behind[n] for n in near[s.id]))
            self.assertEqual(set(s.needs) - behind[s.id], set())
