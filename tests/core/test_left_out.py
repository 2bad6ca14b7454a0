"""A drag's answer says which rules it did not work out: with them, nothing of a whole answer is lost or told twice."""

from django.test import SimpleTestCase

from nodulant.evaluate import Want, evaluate
from nodulant.evaluate.left_out import left_out
from tests import fixtures as f

SHAFT = {"joints-cancel", "slip-engaged", "critical-speed", "slip-room", "joint-binds", "joint-angle"}
BOTH_WAYS = {"hose-slack", *SHAFT}
"""Hoses of the suspension's own and hoses that go along are one rule; so are a shaft's joints standing and moved."""
UNREAD = Want(as_built=False)


class LeftOut(SimpleTestCase):
    def test_what_is_missing_is_named_and_what_is_there_is_not(self):
        for name in ("wherry", "brackmoor", "ostrand"):
            job = f.job(name)
            for option in job.options:
                inputs = job.inputs(option.id)
                whole = evaluate(inputs)
                self.assertEqual(whole.left_out, ())
                for flag in ("frame", "interim", "along", "travel"):
                    with self.subTest((name, option.id, flag)):
                        part = evaluate(inputs, Want.model_validate({flag: False}))
                        there = {c.id for c in part.checks}
                        missing = {c.limit_id for c in whole.checks if c.id not in there}
                        self.assertLessEqual(missing, set(part.left_out))
                        self.assertFalse({c.limit_id for c in part.checks} & set(part.left_out) - BOTH_WAYS)

    def test_each_part_names_its_own(self):
        every = [set(left_out(Want.model_validate({flag: False}))) for flag in ("frame", "interim", "along", "travel")]
        self.assertTrue(all(every))
        self.assertFalse(every[0] & (every[1] | every[2] | every[3]))


class AsBuiltLeftOut(SimpleTestCase):
    """The Wherry with half of what was built read, and its frame taped."""

    def setUp(self):
        self.inputs = f.logged_job().inputs("arc")
        self.whole, self.found = evaluate(self.inputs), evaluate(self.inputs, UNREAD)

    def test_what_is_planned_is_judged_as_in_the_whole_answer(self):
        planned = [c for c in self.whole.checks if c.state != "as-built"]
        self.assertEqual(list(self.found.checks), planned)
        for own in ("rails", "heights", "section", "parts", "figures", "travel", "drop", "notch_needed"):
            was = getattr(self.whole, own)
            if own == "rails":
                self.assertTrue(all(rail.built_cuts for rail in was))
                was = tuple(rail.model_copy(update={"built_cuts": ()}) for rail in was)
            self.assertEqual(getattr(self.found, own), was, own)

    def test_what_was_read_is_not_there_and_is_said_to_be_left_out(self):
        read = [c for c in self.whole.checks if c.state == "as-built"]
        self.assertGreater(len(read), 30)
        self.assertEqual((self.whole.left_out_states, self.found.left_out_states), ((), ("as-built",)))
        self.assertEqual({s.state for s in self.whole.strips}, {"planned", "as-built"})
        self.assertEqual({s.state for s in self.found.strips}, {"planned"})
        self.assertFalse(any(r.value is not None for r in self.found.readings))
        self.assertIsNone(self.found.taped)

    def test_a_vehicle_of_which_nothing_was_read_has_nothing_to_leave_out_but_says_so(self):
        inputs = self.inputs.as_planned()
        whole, found = evaluate(inputs), evaluate(inputs, UNREAD)
        self.assertEqual(found.checks, tuple(c for c in whole.checks if c.state != "as-built"))
        self.assertEqual(found.content_hash, whole.content_hash)
        self.assertNotEqual(found.content_hash, self.whole.content_hash)
