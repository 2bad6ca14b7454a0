"""How sure a reading is, and what it can tell: by hand from the GUM and ISO 14253-1."""

import math

from django.test import SimpleTestCase

from nodulant.asbuilt.instruments import INSTRUMENTS, named, of_unit, suiting
from nodulant.asbuilt.log import ReadingEntry, WithdrawalEntry
from nodulant.asbuilt.taken import answer, expanded, finer, taken_readings
from nodulant.evaluate import evaluate
from nodulant.formats.tables_csv import readings_csv
from nodulant.job.document import AsBuilt
from nodulant.units.figure import show_off
from nodulant.units.inline import as_deviation, told
from tests import fixtures as f

WHEN = {"at": "2026-11-20T10:00:00+00:00", "by": "ada"}


def reading(number, value, **more):
    told = {"operation": "axle-notch", "key": "depth", "side": "left", "value": value}
    return ReadingEntry(**WHEN, number=number, **{**told, **more})


def judged(off, **more):
    inputs = f.demo()
    planned = next(r.spec.planned for r in evaluate(inputs).readings if r.id == "axle-notch/depth/left")
    log = AsBuilt(entries=(reading(1, planned + off, **more),))
    result = evaluate(inputs.model_copy(update={"as_built": log}))
    row = next(r for r in result.readings if r.id == "axle-notch/depth/left")
    return row, f.check_of(result, "as-built:axle-notch-depth:left@as-built")


class Uncertainty(SimpleTestCase):
    def test_a_tape_by_hand(self):
        """0.3 + 0.0002 x 2000 mm at most out, read to 0.5, set within 0.3: 2 sqrt(0.7^2/3 + 0.5^2/12 + 0.3^2)."""
        by_hand = 2 * math.sqrt(0.7**2 / 3 + 0.5**2 / 12 + 0.3**2)
        self.assertAlmostEqual(expanded(named("tape"), 0.5, 2000.0, [2000.0]), by_hand, places=12)

    def test_repeats_take_the_hand_out_and_never_the_instrument(self):
        tape = named("tape")
        once, often = (expanded(tape, 0.5, 500.0, [500.0] * n) for n in (1, 400))
        self.assertLess(often, once)
        self.assertAlmostEqual(often, 2 * 0.4 / math.sqrt(3), delta=0.01)

    def test_scatter_of_three_and_more_counts_where_it_is_larger(self):
        quiet, wild = (expanded(named("tape"), 0.5, 500.0, v) for v in ([500.0] * 3, [498.0, 500.0, 502.0]))
        self.assertAlmostEqual(wild, 2 * math.hypot(0.4 / math.sqrt(3), 2.0 / math.sqrt(3)), places=9)
        self.assertLess(quiet, wild)

    def test_an_unknown_instrument_is_only_as_good_as_its_step(self):
        self.assertGreater(expanded(None, 1.0, 100.0, [100.0]), expanded(named("rule"), 0.5, 100.0, [100.0]))

    def test_every_instrument_reads_in_both_systems(self):
        self.assertEqual({i.unit for i in INSTRUMENTS}, {"mm", "deg", "kg", "N m", "turns"})
        for i in INSTRUMENTS:
            self.assertGreater(min(i.metric, i.inch), 0.0, i.id)
            self.assertGreater(expanded(i, i.resolution("mm"), 10.0, [10.0]), 0.0, i.id)


class Answers(SimpleTestCase):
    def test_the_rule_of_iso_14253(self):
        for off, unsure, says in (
            (0.5, 0.9, "holds"), (0.6, 0.9, "holds"), (0.61, 0.9, "cannot tell"), (2.4, 0.9, "cannot tell"),
            (2.41, 0.9, "fails"), (-2.41, 0.9, "fails"), (0.0, 2.0, "cannot tell"),
        ):  # fmt: skip
            self.assertEqual(answer(off, unsure, 1.5), says, (off, unsure))

    def test_a_tape_cannot_tell_a_millimetre_and_a_half_from_two_and_says_what_would(self):
        row, check = judged(1.7)
        self.assertEqual((row.answer, check.verdict, check.margin), ("cannot tell", "not computed", None))
        self.assertIn("cannot tell", row.words)
        self.assertEqual(finer(58.0, 1.7, 1.5, "mm", "mm", "as-built").name, "depth gauge")

    def test_nobody_is_sent_to_an_instrument_that_reads_something_else(self):
        """A link is not read by a dial, a tab's turn not by a wheel gauge; runout and camber are."""
        self.assertIsNone(finer(520.0, 1.45, 1.5, "mm", "mm", "as-built-link"))
        self.assertEqual(finer(0.05, 0.05, 0.15, "mm", "mm", "as-built-runout").id, "depth-gauge")
        self.assertNotEqual(getattr(finer(94.0, 0.45, 0.5, "deg", "mm", "as-built-angle"), "id", ""), "wheel-gauge")
        self.assertEqual(finer(0.0, 0.2, 0.25, "deg", "mm", "as-built-camber").id, "wheel-gauge")
        sharp, own = judged(1.7, instrument="depth gauge", resolution=0.02)
        self.assertEqual((sharp.answer, own.verdict), ("fails", "fails"))

    def test_what_it_names_would_tell(self):
        """Whatever the deviation, the instrument that is named answers yes or no there."""
        for k in range(1, 60):
            off = k * 0.05
            better = finer(58.0, off, 1.5, "mm", "mm", "as-built")
            if better is None:
                self.assertLess(abs(1.5 - off), 0.12)
                continue
            sure = expanded(better, better.metric, 58.0, [58.0])
            self.assertNotEqual(answer(off, sure, 1.5), "cannot tell", (off, better.name))

    def test_a_plate_of_the_wrong_gauge_is_told_with_its_digits(self):
        """3/16 in ordered, 0.19 in read by calliper: 0.0025 in over, well inside mill tolerance."""
        inputs = f.demo()
        planned = next(r for r in evaluate(inputs).readings if r.spec.limit_id == "as-built-plate")
        entry = reading(
            1, planned.spec.planned + 0.0635, operation=planned.operation, key=planned.spec.key, side=planned.side,
            instrument="calliper", resolution=0.0254,
        )  # fmt: skip
        found = evaluate(inputs.model_copy(update={"as_built": AsBuilt(entries=(entry,))}))
        row = next(r for r in found.readings if r.id == planned.id)
        self.assertEqual(row.answer, "holds")
        self.assertIn("0.0635", row.words)


class Repeats(SimpleTestCase):
    def test_once_more_counts_with_those_before_it(self):
        rows = (reading(1, 60.0), reading(2, 58.0), reading(3, 58.4, again=True))
        found = taken_readings(rows)["axle-notch/depth/left"]
        self.assertEqual((found.count, found.value, found.again), (2, 58.2, False))

    def test_two_that_differ_ask_for_a_third_and_its_middle_counts(self):
        two = (reading(1, 58.0), reading(2, 61.0, again=True))
        self.assertTrue(taken_readings(two)["axle-notch/depth/left"].again)
        three = (*two, reading(3, 58.2, again=True))
        found = taken_readings(three)["axle-notch/depth/left"]
        self.assertEqual((found.value, found.count, found.again), (58.2, 3, False))

    def test_another_instrument_begins_anew(self):
        rows = (reading(1, 58.0), reading(2, 58.4, again=True, instrument="calliper", resolution=0.02))
        self.assertEqual(taken_readings(rows)["axle-notch/depth/left"].count, 1)

    def test_one_taken_back_counts_no_more(self):
        rows = (
            reading(1, 58.0),
            reading(2, 61.0, again=True),
            WithdrawalEntry(number=3, entry=2, reason="slipped", **WHEN),
        )
        self.assertEqual(taken_readings(rows)["axle-notch/depth/left"].value, 58.0)

    def test_an_older_log_s_names_are_read(self):
        old = {**WHEN, "kind": "reading", "number": 1, "operation": "a", "key": "b", "side": "left"}
        found = ReadingEntry.model_validate({**old, "value_mm": 3.0, "resolution_mm": 0.5})
        self.assertEqual((found.value, found.resolution, found.unit), (3.0, 0.5, "mm"))

    def test_instruments_of_a_unit(self):
        self.assertEqual({i.unit for i in of_unit("deg")}, {"deg"})


class Told(SimpleTestCase):
    def test_an_angle_is_no_length_on_paper(self):
        """On the CSV of readings and beside a step on the floor, in inch jobs too."""
        result = evaluate(f.demo("step"))
        rows = [r for r in readings_csv(result, "in16").decode("utf-8-sig").split("\r\n") if "Tabs turned" in r]
        self.assertTrue(rows and all(" deg," in r and '"94' not in r for r in rows), rows[:1])
        self.assertEqual(show_off(-1.5, "kg", "in16"), "-3.31 lb")
        self.assertEqual(show_off(0.25, "deg", "in16"), "+0.25 deg")
        self.assertEqual(show_off(-0.5, "mm", "mm"), "-0.50 mm")


class ReadWith(SimpleTestCase):
    def test_every_reading_can_be_taken_and_the_gauge_made_for_it_comes_first(self):
        rows = evaluate(f.job().inputs("step")).readings
        self.assertEqual([r.id for r in rows if not r.read_with], [])
        by_limit = {r.spec.limit_id: r.read_with for r in rows}
        self.assertEqual(by_limit["as-built-camber"][0], "wheel-gauge")
        self.assertNotIn("wheel-gauge", by_limit["as-built-pinion"])
        self.assertEqual(by_limit["as-built-plate"][0], "wall-gauge")

    def test_a_calliper_does_not_reach_a_wheelbase(self):
        self.assertNotIn("calliper", [i.id for i in suiting("mm", "as-built-wheelbase", 2610.0)])
        self.assertIn("calliper", [i.id for i in suiting("mm", "as-built", 60.0)])


class InWords(SimpleTestCase):
    def test_a_large_deviation_is_told_without_a_power_of_ten(self):
        for mm, words in ((180.54, "181 mm"), (9.96, "10 mm"), (0.436, "0.44 mm"), (12.0, "12 mm")):
            self.assertEqual(told(as_deviation(mm), "mm"), words)
