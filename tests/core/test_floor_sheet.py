"""The floor's sheet: what is open now, what a step needs at hand, and how long steps take here."""

import math
import re
from unittest import TestCase

from nodulant.asbuilt.log import OverrideEntry, ReworkEntry, SignOffEntry, stopped
from nodulant.build.estimates import PRIOR, SPREAD, Learned, Took, kind_of, took_of
from nodulant.evaluate import evaluate
from nodulant.floor.open_cuts import open_cuts, while_open
from nodulant.floor.sheet import floor_sheet
from nodulant.formats.jobfile import load_job
from nodulant.stock.order import order_list
from tests import fixtures as f

AT = "2026-05-04T18:00:00+00:00"


def signed(number, step, **more):
    return SignOffEntry(number=number, at=AT, by="ada", step=step, evaluated="x", **more)


def passed(inputs, *ids):
    entries = tuple(OverrideEntry(number=n, at=AT, by="ada", subject=i, reason="r") for n, i in enumerate(ids, 1))
    return inputs.model_copy(update={"as_built": inputs.as_built.model_copy(update={"entries": entries})})


def sheet_of(inputs):
    return floor_sheet(inputs, "Job", "Option")


class OpenCuts(TestCase):
    def setUp(self):
        self.inputs = f.demo("arc")
        self.ids = [s.id for s in sheet_of(passed(self.inputs)).steps]

    def now(self, last):
        """What stands over every step once all up to this one are behind us."""
        return sheet_of(passed(self.inputs, *self.ids[: self.ids.index(last) + 1])).standing

    def test_a_cut_is_open_from_its_sawing_to_its_last_weld(self):
        cut = next(i for i in self.ids if i.endswith("/cut/left"))
        welds = [i for i in self.ids if i.startswith("axle-notch/") and ("weld" in i or "plates" in i)]
        before = self.ids[self.ids.index(cut) - 1]
        self.assertEqual(self.now(before), "")
        self.assertIn("%", self.now(cut))
        self.assertEqual(self.now(max(welds, key=self.ids.index)), "")

    def test_both_rails_alike_are_told_once(self):
        cut = next(i for i in self.ids if i.endswith("/cut/right"))
        self.assertEqual(self.now(cut).count("It may"), 1)
        name = next(op.name for op in self.inputs.design.operations if op.id == "axle-notch")
        self.assertEqual(self.now(cut).count(name), 1)

    def test_of_several_the_strictest_counts_and_all_are_named(self):
        """A rail in two lets no wheel carry the vehicle, whatever another cut alone would allow."""
        inputs = f.demo("step")
        sheet = sheet_of(passed(inputs))
        upto = max(k for k, s in enumerate(sheet.steps) if s.key == "cut")
        found = evaluate(passed(inputs, *(s.id for s in sheet.steps[: upto + 1])))
        open_here = open_cuts(found.steps, found.interim)
        self.assertGreater(len({frame.operation for frame in open_here}), 1)
        words = while_open(open_here)
        self.assertIn("no wheels carrying it", words)
        self.assertNotIn("It may", words)
        for frame in open_here:
            self.assertIn(frame.name, words)
        self.assertIn("each reckoned with the others whole", words)
        whole = [frame.model_copy(update={"in_two": False}) for frame in open_here if frame.use is not None]
        worst = max(whole, key=lambda frame: frame.use)
        self.assertIn(f"{worst.use:.0%} of what it may carry", while_open(whole))
        one = open_here[0].model_copy(update={"in_two": False, "may_stand": True, "may_move": True, "use": 0.2})
        self.assertIn("rolled by hand", while_open([one]))
        unknown = one.model_copy(update={"use": None, "may_stand": None, "may_move": None})
        weak = one.model_copy(update={"use": 1.2, "may_stand": False, "may_move": False})
        self.assertIn("Not computed", while_open([one, unknown]))
        self.assertIn("body and load off", while_open([unknown, weak]))


class HoldPoints(TestCase):
    def test_every_hold_point_that_wants_a_reading_has_it_on_the_floor(self):
        """Without it the phone offers no keypad and the server takes no signature: nothing goes on after such a step."""
        for job, option in (("wherry", "step"), ("wherry", "arc"), ("brackmoor", "welded"), ("ostrand", "watts")):
            inputs = f.job(job).inputs(option)
            asks = {s.id for s in evaluate(inputs).steps if s.spec.hold and s.spec.hold.kind == "reading"}
            has = {s.id for s in sheet_of(inputs).steps if s.reading is not None}
            self.assertEqual(asks - has, set(), (job, option))


class AtHand(TestCase):
    def setUp(self):
        self.sheet = sheet_of(f.demo("step"))

    def test_a_step_waits_only_for_what_comes_right_before_it(self):
        """With those behind us the rest is: what follows from the near ones is all that was asked for."""
        near = {s.id: set(s.needs) for s in self.sheet.steps}
        behind = {}
        for s in self.sheet.steps:
            behind[s.id] = near[s.id].union(*(behind[n] for n in near[s.id])) if near[s.id] else set()
        every = [s.id for s in self.sheet.steps]
        general_first = {i for i in every if "/" not in i and every.index(i) < 3}
        for s in self.sheet.steps[10:]:
            self.assertLessEqual(general_first, behind[s.id], s.id)

    def test_two_numbers_a_place_and_a_drawing_for_the_work_on_the_rail(self):
        pictured = {p.operation for p in self.sheet.pictures}
        for s in self.sheet.steps:
            self.assertLessEqual(len(s.figures), 2)
            if s.operation:
                self.assertTrue(s.place, s.id)
        cuts = [s for s in self.sheet.steps if s.phase == "cut" and s.operation in pictured]
        self.assertGreater(len(cuts), 3)

    def test_a_weld_takes_the_wire_that_the_order_list_counts(self):
        """All steps together lay down what the list buys wire for, left and right."""
        arc = sheet_of(f.demo("arc"))
        rows = [m for s in arc.steps for words in s.along for m in re.findall(r"\[\[mass:([\d.]+)\]\] of wire", words)]
        wire = next(r.quantity for r in order_list(f.demo("arc")).rows if r.key == "wire")
        self.assertAlmostEqual(sum(map(float, rows)), wire, delta=0.01 * wire + 0.001 * len(rows))

    def test_parts_by_number_where_they_are_fitted_and_templates_where_it_is_marked(self):
        for s in self.sheet.steps:
            if s.phase == "mark" and s.operation != "front-subframe":
                self.assertIn("1:1", s.along[0])
        fit = next(s for s in self.sheet.steps if s.id == "box-rear/fit/left")
        self.assertIn("1 Boxing plate", fit.along[0])

    def test_its_titles_leave_out_the_name_that_stands_over_them(self):
        for s in self.sheet.steps:
            if s.work:
                self.assertNotIn(f": {s.work}", s.title)


class Estimates(TestCase):
    def test_without_a_log_the_plan_stands_with_its_spread(self):
        found = Learned().of("cut", 100)
        wide = 1.2816 * SPREAD
        self.assertEqual((found.minutes, found.steps), (100, 0))
        self.assertEqual((found.low, found.high), (round(100 * math.exp(-wide)), round(100 * math.exp(wide))))

    def test_it_is_drawn_towards_what_was_timed(self):
        """N steps of twice the time: the mean of their logarithms weighs n against the plan's PRIOR."""
        for n in (1, 4, 40):
            found = Learned([Took(key="cut", planned=30, minutes=60)] * n).of("cut", 100)
            self.assertEqual(found.minutes, round(100 * 2 ** (n / (n + PRIOR))))
        self.assertEqual(Learned([Took(key="weld", planned=30, minutes=60)]).of("cut", 100).minutes, 100)

    def test_a_range_narrows_with_what_is_alike_and_widens_with_what_is_not(self):
        alike = Learned([Took(key="cut", planned=30, minutes=33)] * 12).of("cut", 100)
        apart = Learned([Took(key="cut", planned=30, minutes=m) for m in (10, 90) * 6]).of("cut", 100)
        plain = Learned().of("cut", 100)
        self.assertLess(alike.high - alike.low, plain.high - plain.low)
        self.assertGreater(apart.high - apart.low, plain.high - plain.low)

    def test_what_was_forgotten_running_is_left_out(self):
        self.assertEqual(Learned([Took(key="cut", planned=30, minutes=9000)]).of("cut", 100).steps, 0)

    def test_rework_counts_with_its_step_and_an_untimed_step_says_nothing(self):
        entries = (
            signed(1, "notch/cut/left", minutes=40, planned_minutes=30),
            ReworkEntry(number=2, at=AT, by="ada", step="notch/cut/left", cause="misread", minutes=20),
            signed(3, "teardown"),
        )
        self.assertEqual(took_of(entries), (Took(key="cut", planned=30, minutes=60),))
        self.assertEqual((kind_of("a/b/left"), kind_of("teardown")), ("b", "teardown"))
        self.assertIsNone(stopped(entries))


class FrameOnTheFloor(TestCase):
    def test_the_wrong_length_comes_first_and_hubs_have_no_level(self):
        sheet = sheet_of(load_job(f.DEMO.read_bytes()).inputs("step"))
        self.assertRegex(sheet.frame[0].words, r"cab crossmember.* is about .* too short: tape it again")
        self.assertTrue(any("out of square" in says.words for says in sheet.frame))
        self.assertEqual({p.level for p in sheet.points if p.id.startswith("hub-")}, {False})
        self.assertEqual(len({p.id for p in sheet.points}), len(sheet.points))

    def test_nothing_taped_nothing_told(self):
        self.assertEqual(sheet_of(f.demo("step")).frame, ())
