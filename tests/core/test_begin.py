"""A job from six readings: what is measured, what is assumed and says so, and an answer that a hand can follow."""

from django.test import SimpleTestCase

from nodulant.begin.first_answer import BUMPS_MM, first_answer
from nodulant.begin.start import WHEELBASE_MM, Start, begun
from nodulant.evaluate import evaluate
from nodulant.job.along import AlongNote
from nodulant.job.document import Inputs, Shop
from nodulant.survey.before_teardown import readings_before_teardown
from nodulant.survey.vehicle import Survey
from tests import fixtures as f

SIX = {
    "drop_mm": 101.6,
    "rail_height_mm": 139.7,
    "rail_width_mm": 63.5,
    "wall_mm": 4.76,
    "tube_diameter_mm": 82.5,
    "tube_gap_mm": 101.6,
}
CLEARANCE, LINER_AND_WELD = 12.7, 8.0


def job(**more):
    start = Start.model_validate({"vehicle": "Truck", "by": "springs", **SIX, **more})
    survey, design = begun(start, Shop())
    return Inputs(survey=survey, design=design, shop=Shop())


def answered(inputs):
    """The job with its first answer in it, and the answer."""
    answer = first_answer(inputs)
    return inputs.model_copy(
        update={"design": inputs.design.model_copy(update={"operations": answer.operations})}
    ), answer


class SixReadings(SimpleTestCase):
    def test_the_notch_is_as_deep_as_a_hand_reckons(self):
        """Tube top at full bump over the underside: drop + bump - gap; clearance, liner and weld above it."""
        _, answer = answered(job())
        for row in answer.needed:
            by_hand = SIX["drop_mm"] + row.bump_mm - SIX["tube_gap_mm"] + CLEARANCE + LINER_AND_WELD
            self.assertAlmostEqual(row.depth_mm, by_hand, places=6)
        self.assertEqual(tuple(row.bump_mm for row in answer.needed), BUMPS_MM)

    def test_it_stands_over_the_axle_and_is_as_strong_as_stock_without_a_mass(self):
        inputs, _ = answered(job())
        result = evaluate(inputs)
        notch = next(op for op in inputs.design.operations if op.kind == "notch")
        self.assertEqual((notch.place.anchor_id, notch.place.offset_mm), ("rear-axle", 0.0))
        self.assertGreaterEqual(notch.depth_mm, max(n.arc_depth_mm for n in result.notch_needed) - 1e-6)
        strength = [c for c in result.checks if c.limit_id in {"modulus-top", "modulus-bottom", "shear-area"}]
        self.assertTrue(strength)
        self.assertEqual({c.verdict for c in strength} - {"holds", "close"}, set())
        self.assertFalse([c.title for c in result.checks if c.verdict == "fails" and c.stage != "survey"])
        self.assertTrue(result.parts)
        loads = [c for c in result.checks if c.limit_id in {"accident-use", "case-limit"}]
        self.assertEqual({c.verdict for c in loads}, {"not computed"})

    def test_what_cannot_be_cut_says_what_to_do(self):
        _, answer = answered(job(drop_mm=190.0))
        self.assertEqual(answer.operations, ())
        self.assertIn("Z-step", answer.words.text)

    def test_a_step_and_a_raise_ask_for_no_notch(self):
        for by, kind in (("z-step", "z-step"), ("raise", "raise")):
            with self.subTest(by):
                inputs, answer = answered(job(by=by))
                self.assertEqual([op.kind for op in answer.operations], [kind])
                self.assertAlmostEqual(evaluate(inputs).drop.total_mm, SIX["drop_mm"], places=6)

    def test_at_the_front_a_step_lowers_the_front_and_springs_ask_for_a_notch_over_its_beam(self):
        for by in ("z-step", "raise"):
            with self.subTest(by):
                inputs, _ = answered(job(axle="front", by=by, drop_mm=60.0))
                result = evaluate(inputs)
                self.assertAlmostEqual(result.drop_front.total_mm, 60.0, places=6)
                self.assertAlmostEqual(result.drop.total_mm, 0.0, places=6)
        inputs, answer = answered(job(axle="front", by="springs", drop_mm=60.0))
        self.assertIn("/targets/front/bump_mm", inputs.design.assumed)
        (notch, *_) = answer.operations
        self.assertEqual((notch.kind, notch.place.anchor_id, notch.place.offset_mm), ("notch", "front-axle", 0.0))
        # by hand: the tube's top at full bump, half an inch of clearance, liner and weld
        rear = next(op for op in answered(job(by="springs", drop_mm=60.0))[1].operations if op.kind == "notch")
        self.assertAlmostEqual(notch.depth_mm, rear.depth_mm, places=6)
        self.assertEqual([row.bump_mm for row in answer.needed], [60.0, 75.0, 100.0])

    def test_a_front_without_a_beam_says_what_it_waits_for(self):
        bare = {k: v for k, v in SIX.items() if not k.startswith("tube_")}
        start = Start.model_validate({**bare, "vehicle": "A van", "axle": "front", "by": "springs"})
        survey, design = begun(start, Shop())
        answer = first_answer(Inputs(survey=survey, design=design, shop=Shop()))
        self.assertEqual(answer.operations, ())
        self.assertEqual(answer.waits, ("/survey/front/tube_diameter_mm", "/survey/front/tube_gap_left_mm"))
        self.assertIn("independent front", answer.words.text)

    def test_a_cut_that_cannot_be_begins_without_it_and_says_why(self):
        inputs, answer = answered(job(by="raise", drop_mm=400.0))
        self.assertEqual(answer.operations, ())
        self.assertIn("cannot be cut so", answer.words.text)
        self.assertTrue(evaluate(inputs).checks)

    def test_nothing_given_waits_and_says_for_what(self):
        survey, design = begun(Start(vehicle="Truck"), Shop())
        answer = first_answer(Inputs(survey=survey, design=design, shop=Shop()))
        self.assertEqual(answer.operations, ())
        self.assertIn("/survey/rear/tube_diameter_mm", answer.waits)


class Assumed(SimpleTestCase):
    def test_an_assumed_value_counts_as_not_measured(self):
        survey = job().survey
        taken = {r.pointer for r in readings_before_teardown(survey) if r.taken}
        self.assertEqual(
            taken, {"/survey/rear/tube_diameter_mm", "/survey/rear/tube_gap_left_mm"}, "only what was measured"
        )
        self.assertEqual(survey.wheelbase_mm, WHEELBASE_MM)

    def test_it_is_told_once_with_its_names(self):
        row = next(c for c in evaluate(job()).checks if c.limit_id == "assumed-values")
        self.assertEqual(row.verdict, "note")
        for name in ("wheelbase", "bump travel", "clearance of moving metal"):
            self.assertIn(name, row.why.words)
        self.assertFalse([c for c in evaluate(f.demo()).checks if c.limit_id == "assumed-values"])

    def test_every_assumed_pointer_is_a_value_of_the_document(self):
        inputs = job()
        for document in (inputs.survey, inputs.design):
            data = document.model_dump(mode="json")
            for pointer in document.assumed:
                if pointer.startswith("/limits/"):
                    continue
                node = data
                for key in pointer.strip("/").split("/"):
                    node = node[int(key)] if isinstance(node, list) else node[key]
                self.assertIsInstance(node, float, pointer)

    def test_a_job_that_assumes_nothing_hashes_as_it_did(self):
        plain = f.demo()
        self.assertNotEqual(job().content_hash(), job(vehicle="Van").content_hash())
        again = Inputs.model_validate_json(plain.model_dump_json())
        self.assertEqual(plain.content_hash(), again.content_hash())


class AxleLines(SimpleTestCase):
    def test_the_rear_line_follows_the_wheelbase(self):
        survey = job().survey
        moved = Survey.model_validate({**survey.model_dump(), "wheelbase_mm": 2997.2})
        lines = {x.id: x.x_mm for x in moved.features if x.kind == "axle-line"}
        self.assertEqual(lines, {"front-axle": 0.0, "rear-axle": 2997.2})

    def test_two_lines_at_one_end_are_left_as_they_are(self):
        """A tandem's second axle is no second figure beside the wheelbase."""
        survey = job().survey
        second = survey.features[1].model_copy(update={"id": "second", "x_mm": WHEELBASE_MM + 1200.0})
        tandem = Survey.model_validate(
            {**survey.model_dump(), "features": (*survey.features, second), "wheelbase_mm": 2700.0}
        )
        self.assertEqual([x.x_mm for x in tandem.features], [0.0, WHEELBASE_MM, WHEELBASE_MM + 1200.0])


class InTheWay(SimpleTestCase):
    """What was seen near the work waits for its clearance, or a word, before the first cut; beside a notch too."""

    def test_each_thing_seen_locks_the_cut_until_it_is_settled(self):
        inputs, _ = answered(job(in_the_way=["tank", "exhaust"]))
        result = evaluate(inputs)
        self.assertEqual([r.name for r in result.along], ["Tank", "Exhaust"])
        self.assertEqual({c.verdict for c in result.checks if c.id.startswith("along-clear")}, {"not computed"})
        self.assertTrue(result.cut_locked)
        notes = [AlongNote(thing=t, how="way-out", words="dropped for the cut") for t in ("tank", "exhaust")]
        settled = inputs.model_copy(update={"design": inputs.design.model_copy(update={"along": tuple(notes)})})
        self.assertFalse(evaluate(settled).cut_locked)

    def test_where_nothing_was_seen_a_notch_waits_for_nothing(self):
        inputs, _ = answered(job())
        result = evaluate(inputs)
        self.assertEqual((result.along, result.cut_locked), ((), False))
        bare = job(in_the_way=["tank"])
        self.assertEqual(evaluate(bare).along, (), "nothing is cut yet")

    def test_a_step_at_the_rear_asks_for_nothing_of_the_front(self):
        rear = job(by="z-step", tube_diameter_mm=None, tube_gap_mm=None)
        names = [r.thing for r in evaluate(rear).along]
        self.assertEqual(sorted(names), ["anti-roll-bar", "exhaust", "hoses", "tank"])
        turned = rear.design.operations[0].model_copy(update={"rises": "ahead"})
        ahead = rear.model_copy(update={"design": rear.design.model_copy(update={"operations": (turned,)})})
        self.assertEqual(len(evaluate(ahead).along), 8)
        front = job(by="z-step", axle="front", tube_diameter_mm=None, tube_gap_mm=None)
        self.assertEqual(len(evaluate(front).along), 8)
