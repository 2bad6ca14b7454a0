"""Lengths of the log in the job: the wrong one named, the frame's squareness by hand, nothing told before it can be."""

import math

from django.test import SimpleTestCase
from pydantic import ValidationError

from nodulant.asbuilt.log import LengthEntry
from nodulant.evaluate import evaluate
from nodulant.floor.frame_words import frame_says
from nodulant.formats.jobfile import load_job
from nodulant.job.document import AsBuilt
from tests import fixtures as f

NAMES = ("front-axle", "cab-crossmember", "front-hanger", "rear-axle")


def length(number, a, b, mm):
    ends = [{"feature_id": n, "side": s} for n, s in (a, b)]
    at = "2026-10-09T08:00:00+00:00"
    return LengthEntry(number=number, at=at, by="bram", start=ends[0], end=ends[1], value=mm)


def taped_job(shear=0.0, wrong=None):
    """The demo's frame with its right rail ``shear`` mm further back, taped whole; entry ``wrong`` is 12 mm long."""
    inputs = f.demo()
    x = {n: next(q.x_mm for q in inputs.survey.features if q.id == n) for n in NAMES}
    true = {
        (n, s): (
            x[n] + (shear if s == "right" else 0.0),
            (-1 if s == "left" else 1) * inputs.survey.rails.of(s).web_y_mm,
        )
        for n in NAMES
        for s in ("left", "right")
    }
    points = list(true)
    rows = [(a, b) for i, a in enumerate(points) for b in points[i + 1 :]]
    entries = tuple(
        length(k + 1, a, b, math.dist(true[a], true[b]) + (12.0 if k + 1 == wrong else 0.0))
        for k, (a, b) in enumerate(rows)
    )
    return inputs.model_copy(update={"as_built": AsBuilt(entries=entries)})


class InTheJob(SimpleTestCase):
    def test_the_demo_s_planted_length_and_nothing_else(self):
        for option in ("arc", "straight", "step"):
            result = evaluate(load_job(f.DEMO.read_bytes()).inputs(option))
            self.assertEqual([c.limit_id for c in result.checks if c.verdict == "fails"], ["tape-fits"])
            self.assertGreaterEqual(len(result.taped.lengths), 16)
            self.assertEqual(len(result.taped.names), 8)
            worst = next(row for row in result.taped.lengths if row.entry == result.taped.left_out)
            self.assertAlmostEqual(worst.blunder_mm, -12.0, delta=1.5)
            self.assertAlmostEqual(worst.measured_mm - worst.planned_mm, -12.0, delta=1.5)

    def test_taken_back_it_is_square(self):
        job = load_job(f.DEMO.read_bytes())
        taped = evaluate(job.inputs("step")).taped
        back = {"number": 999, "at": "2026-10-10T08:00:00+00:00", "by": "ada", "kind": "withdrawal"}
        log = (
            *job.log,
            type(job)
            .model_validate({**job.model_dump(), "log": [{**back, "entry": taped.left_out, "reason": "taped again"}]})
            .log[0],
        )
        result = evaluate(job.model_copy(update={"log": log}).inputs("step"))
        self.assertFalse([c.title for c in result.checks if c.verdict == "fails"])

    def test_taped_again_the_later_length_counts_and_nothing_is_asked_for_twice(self):
        job = load_job(f.DEMO.read_bytes())
        taped = evaluate(job.inputs("step")).taped
        wrong = next(row for row in taped.lengths if row.entry == taped.left_out)
        ends = [end.split("/") for end in (wrong.start, wrong.end)]
        # from the other end, as one does
        again = length(999, *(tuple(e) for e in reversed(ends)), wrong.measured_mm - wrong.blunder_mm)
        result = evaluate(job.model_copy(update={"log": (*job.log, again)}).inputs("step"))
        self.assertEqual(result.taped.replaced, (wrong.entry,))
        self.assertIsNone(result.taped.left_out)
        self.assertFalse([c.title for c in result.checks if c.verdict == "fails"])
        says = frame_says(result, job.inputs("step").survey)
        self.assertFalse(any("tape it again" in s.words for s in says))
        self.assertTrue(any(f"Entry {wrong.entry} did not fit" in s.words for s in says))

    def test_taped_again_as_wrong_it_is_still_wrong(self):
        job = load_job(f.DEMO.read_bytes())
        taped = evaluate(job.inputs("step")).taped
        wrong = next(row for row in taped.lengths if row.entry == taped.left_out)
        again = length(999, *(tuple(e.split("/")) for e in (wrong.start, wrong.end)), wrong.measured_mm)
        result = evaluate(job.model_copy(update={"log": (*job.log, again)}).inputs("step"))
        self.assertEqual(f.check_of(result, "tape-fits:tape:both@as-built").verdict, "fails")

    def test_a_sheared_frame_by_hand(self):
        """Right rail 4 mm back on 8 points: the diagonals of L x B differ by about 2 L s/d."""
        result = evaluate(taped_job(shear=4.0))
        square, base, apart = result.taped.square, 2610.0, 2 * f.demo().survey.rails.left.web_y_mm
        by_hand = [math.hypot(base + 4.0, apart), math.hypot(base - 4.0, apart)]
        web = result.taped.network.points
        self.assertEqual(len(web), 8)
        self.assertAlmostEqual(square.left_to_right_mm, by_hand[0], delta=0.05)
        self.assertAlmostEqual(square.right_to_left_mm, by_hand[1], delta=0.05)
        self.assertAlmostEqual(square.off_mm, by_hand[0] - by_hand[1], delta=0.05)
        self.assertAlmostEqual(square.lozenge_deg, math.degrees(math.atan2(4.0, apart)), delta=0.03)
        self.assertEqual(f.check_of(result, "frame-square:tape:both@as-built").verdict, "fails")
        self.assertEqual(f.check_of(result, "tape-fits:tape:both@as-built").verdict, "holds")

    def test_a_wrong_length_is_named_and_left_out_of_the_square(self):
        result = evaluate(taped_job(wrong=5))
        check = f.check_of(result, "tape-fits:tape:both@as-built")
        self.assertEqual((check.verdict, result.taped.left_out), ("fails", 5))
        self.assertIn("again", check.remedy)
        self.assertAlmostEqual(result.taped.square.off_mm, 0.0, delta=0.01)

    def test_too_few_lengths_say_so(self):
        inputs = f.demo()
        one = length(1, ("front-axle", "left"), ("front-axle", "right"), 761.0)
        result = evaluate(inputs.model_copy(update={"as_built": AsBuilt(entries=(one,))}))
        check = f.check_of(result, "tape-fits:tape:both@as-built")
        self.assertEqual(check.verdict, "not computed")
        self.assertIn("diagonals", check.remedy)
        self.assertIsNone(result.taped.square)

    def test_a_point_that_is_gone_from_the_survey_is_left_out(self):
        inputs = f.demo()
        gone = length(1, ("front-axle", "left"), ("nowhere", "right"), 761.0)
        self.assertIsNone(evaluate(inputs.model_copy(update={"as_built": AsBuilt(entries=(gone,))})).taped)

    def test_a_length_from_a_point_to_itself_is_refused(self):
        with self.assertRaisesRegex(ValidationError, "between two points"):
            length(1, ("front-axle", "left"), ("front-axle", "left"), 5.0)

    def test_a_length_that_no_tape_reads_is_refused_in_the_words_that_were_typed(self):
        ends = {"start": {"feature_id": "a", "side": "left"}, "end": {"feature_id": "a", "side": "right"}}
        head = {"number": 1, "at": "2026-10-09T08:00:00+00:00", "by": "bram", **ends}
        for value, text in ((-76.2, '-3"'), (0.0, "0"), (22_860.0, "900")):
            with self.assertRaisesRegex(ValidationError, "no tape") as caught:
                LengthEntry(**head, value=value, text=text)
            self.assertIn(text, str(caught.exception))
