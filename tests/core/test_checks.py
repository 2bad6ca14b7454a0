"""Checks: judged, ordered, explained; never 'holds' without their input."""

import json
import math

from django.test import SimpleTestCase

from nodulant.checks.check import Subject, Why, judge, not_computed, order
from nodulant.evaluate import InvalidInputs, SectionAt, Want, evaluate
from nodulant.evaluate.evaluation import Evaluation
from nodulant.parts.limit import LimitChange
from nodulant.parts.limits import LIMITS
from nodulant.survey.vehicle import Feature
from tests import fixtures as f

SUBJECT = Subject(subject="thing", side="left")
WHY = Why(formula="a", values={"a": 1.0})


def judged(limit_id, value, changes=None, **more):
    return judge(limit_id, SUBJECT, value, WHY, changes or {}, **more)


def re_evaluated(why):
    """The formula worked out with the shown values."""
    return eval(why.formula, {"__builtins__": {}}, {**why.values, "abs": abs})


class Judging(SimpleTestCase):
    """A margin is signed so that negative is bad."""

    def test_directions_and_bands(self):
        rows = (
            ("capacity-least", 0.36, "fails", -0.1),
            ("frame-stiffness", 0.8, "fails", -1 / 9),
            ("frame-stiffness", 1.0, "holds", 1 / 9),
            ("use-limit", 1.2, "fails", -0.2),
            ("use-limit", 3.0, "holds", 1.0),
            ("seam", 1.2, "fails", -0.2),
            ("seam", 0.97, "close", 0.03),
            ("seam", 0.5, "holds", 0.5),
            ("metal-clearance", 6.35, "fails", -0.5),
            ("drop-sum", 3.2, "fails", -2.0),
        )
        for limit_id, value, verdict, margin in rows:
            with self.subTest(f"{limit_id} {value}"):
                check = judged(limit_id, value)
                self.assertEqual(check.verdict, verdict)
                self.assertAlmostEqual(check.margin, margin)

    def test_round_off_is_no_failure_and_no_minus_zero(self):
        check = judged("frame-stiffness", 0.9 - 1e-10)
        self.assertNotEqual(check.verdict, "fails")
        self.assertEqual(math.copysign(1, judged("seam", 1.0).margin), 1.0)

    def test_last_digits_do_not_decide_which_side_stands_first(self):
        """Left and right of one rail come out of one solution, alike but for round-off."""
        for wobble in (1.0, 1 + 4e-14, 1 - 4e-14):
            for rule in ("seam", "frame-stiffness", "drop-sum"):
                left, right = (
                    judge(rule, Subject(subject="thing", side=side), value, WHY, {})
                    for side, value in (("left", 0.7131 * wobble), ("right", 0.7131))
                )
                self.assertEqual([c.id for c in order([right, left])], [left.id, right.id])

    def test_a_changed_limit_carries_its_reason(self):
        change = {"metal-clearance": LimitChange(value=8.0, reason="rubber stop fitted")}
        check = judged("metal-clearance", 10.0, change)
        self.assertEqual(check.verdict, "holds")
        self.assertTrue(check.changed_limit)
        self.assertIn("rubber stop fitted", check.basis)
        self.assertIn("12.7", check.basis)

    def test_worst_first(self):
        missing = not_computed("use-limit", SUBJECT, ("/survey/masses",), {})
        rows = [judged("seam", v) for v in (0.5, 0.97, 2.0, 1.2)] + [missing]
        self.assertEqual([c.verdict for c in order(rows)], ["fails", "fails", "not computed", "close", "holds"])
        self.assertEqual(order(rows)[0].value, 2.0)

    def test_every_limit_says_where_it_comes_from(self):
        for limit in LIMITS:
            self.assertTrue(limit.basis, limit.id)
            self.assertTrue(limit.value or limit.tolerance or limit.id in {"end-distance", "assumed-values"}, limit.id)


class Whys(SimpleTestCase):
    """Every number opens to its why, and the why gives the number."""

    def test_each_formula_re_evaluates_to_the_shown_value(self):
        readings = (("depth", "left", 61.0), ("width", "left", 121.0), ("liner-thickness", "right", 5.0))
        for option in ("arc", "straight"):
            result = evaluate(f.with_readings(f.demo(option), *readings))
            self.assertGreater(len(result.checks), 60)
            for check in result.checks:
                with self.subTest(check.id):
                    if check.why is None:
                        self.assertEqual(check.verdict, "not computed")
                        continue
                    self.assertAlmostEqual(re_evaluated(check.why), check.value, delta=1e-6 * max(1, abs(check.value)))

    def test_a_failing_check_says_what_to_do(self):
        for check in evaluate(f.demo()).checks:
            if check.verdict == "fails":
                self.assertTrue(check.remedy, check.id)

    def test_governing_place_lies_on_the_rail(self):
        for check in evaluate(f.demo()).checks:
            if check.governs.station_mm is not None:
                self.assertTrue(-620 <= check.governs.station_mm <= 3480, check.id)


class WithoutItsInput(SimpleTestCase):
    """A green tick for something that was not computed is the worst thing this program could show."""

    def verdicts(self, inputs, word):
        return {c.id: c for c in evaluate(inputs).checks if c.id.startswith(word)}

    def test_no_wall_no_section(self):
        survey = f.demo().survey
        stations = survey.rails.left.stations
        bare = (*stations[:3], stations[3].model_copy(update={"wall_mm": None}), *stations[4:])
        rails = survey.rails.model_copy(update={"left": survey.rails.left.model_copy(update={"stations": bare})})
        result = evaluate(f.with_survey(f.demo(), rails=rails), Want(section=SectionAt(side="left", x_mm=2610)))
        left = [c for c in result.checks if c.id.endswith(":left") and c.limit_id == "capacity-least"]
        self.assertTrue(left)
        for check in left:
            self.assertEqual((check.verdict, check.value, check.margin), ("not computed", None, None))
            self.assertEqual(check.missing, ("/survey/rails/left/stations/3/wall_mm",))
        self.assertIsNone(result.section)
        self.assertEqual(f.check_of(result, "modulus-top:axle-notch:right").verdict, "weaker")
        missing = {pointer for c in result.checks for pointer in c.missing}
        self.assertEqual({m for m in missing if "loads" not in m}, {"/survey/rails/left/stations/3/wall_mm"})

    def test_no_masses_no_use(self):
        found = self.verdicts(f.with_survey(f.demo(), masses=()), "use-")
        self.assertTrue(found)
        for check in found.values():
            self.assertEqual((check.verdict, check.missing), ("not computed", ("/survey/masses",)))

    def test_no_gap_no_clearance(self):
        found = self.verdicts(f.with_rear(f.demo(), tube_gap_left_mm=None), "metal-clearance")
        self.assertEqual(found["metal-clearance:axle-tube:left"].verdict, "not computed")
        self.assertNotEqual(found["metal-clearance:axle-tube:right"].verdict, "not computed")

    def test_a_hole_without_a_height(self):
        hole = Feature(id="h", name="odd hole", kind="hole", x_mm=2600)
        inputs = f.with_survey(f.demo(), features=(*f.demo().survey.features, hole))
        self.assertEqual(f.check_of(evaluate(inputs), "hole-distance:axle-notch-h:left").verdict, "not computed")

    def test_teardown_locks_until_all_is_in(self):
        result = evaluate(f.with_rear(f.demo(), pinion_angle_deg=None))
        self.assertTrue(result.teardown_locked)
        self.assertEqual(f.check_of(result, "survey-complete:vehicle:both").verdict, "fails")
        self.assertIn("pinion", f.check_of(result, "survey-complete:vehicle:both").why.words)
        self.assertEqual(next(s for s in result.steps if s.id == "teardown").status, "waiting")


class Evaluations(SimpleTestCase):
    def test_frozen_and_finite(self):
        result = evaluate(f.demo(), Want(section=SectionAt(side="right", x_mm=2600)))
        text = result.model_dump_json()
        self.assertNotIn("NaN", text)
        self.assertNotIn("Infinity", text)
        with self.assertRaises(ValueError):
            result.teardown_locked = False
        self.assertEqual(Evaluation.model_validate_json(text), result)

    def test_same_inputs_same_bytes(self):
        self.assertEqual(evaluate(f.demo()).model_dump_json(), evaluate(f.demo()).model_dump_json())

    def test_typed_text_is_outside_the_hash(self):
        inputs = f.demo()
        design = inputs.design.model_copy(update={"typed": {"axle-notch.depth_mm": {"text": "2 9/32", "unit": "in"}}})
        self.assertEqual(inputs.model_copy(update={"design": design}).content_hash(), inputs.content_hash())
        other = f.with_notch(inputs, depth_mm=57.0)
        self.assertNotEqual(other.content_hash(), inputs.content_hash())

    def test_left_out_is_left_out(self):
        small = evaluate(f.demo(), Want(strips=False, parts=False, steps=False, readings=False))
        self.assertEqual((small.strips, small.parts, small.steps, small.readings), ((), (), (), ()))
        self.assertGreater(small.mass_added_kg, 1)

    def test_all_problems_at_once_each_at_its_field(self):
        inputs = f.with_notch(f.demo(), depth_mm=149.0)
        box = inputs.design.operations[0]
        wrong = box.model_copy(update={"end": box.end.model_copy(update={"offset_mm": 9000.0})})
        with self.assertRaises(InvalidInputs) as caught:
            evaluate(f.with_operations(inputs, wrong, inputs.design.operations[1]))
        fields = [p.field for p in caught.exception.problems]
        self.assertEqual(fields, ["/design/operations/0/end/offset_mm", "/design/operations/1/depth_mm"])

    def test_strips_hold_every_property_and_the_stress(self):
        """Sigma = M / S: the stress over the allowed one is the use, where one steel is used throughout."""
        result = evaluate(f.demo(), Want(strip_side="right"))
        self.assertEqual({s.side for s in result.strips}, {"right"})
        strip = result.strips[0]
        for stress, use in zip(strip.stress_stock_mpa, strip.use_stock, strict=True):
            self.assertAlmostEqual(stress * 1.5 / 248.0, use, delta=2e-3 * max(use, 0.01))
        i = min(range(len(strip.x_mm)), key=lambda k: abs(strip.x_mm[k] - 2610))
        self.assertLess(strip.inertia[i], 0.5)
        self.assertGreater(strip.area[i], 1.0)

    def test_reply_of_a_drag_is_small(self):
        section = SectionAt(side="left", x_mm=2610)
        want = Want(steps=False, readings=False, frame=False, travel=False, strip_side="left", section=section)
        result = evaluate(f.demo(), want)
        data = json.loads(result.model_dump_json())
        for name in ("groups", "before_teardown", "figures"):
            data.pop(name)
        for check in data["checks"]:
            for name in ("why", "basis", "remedy"):
                check.pop(name)
        for rail in data["rails"]:
            rail.pop("measured")
        self.assertLess(len(json.dumps(data, separators=(",", ":"))), 60_000)
