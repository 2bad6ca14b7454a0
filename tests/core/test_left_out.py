"""A drag's answer says which rules it did not work out: with them, nothing of a whole answer is lost or told twice."""

from django.test import SimpleTestCase

from nodulant.evaluate import Want, evaluate
from nodulant.evaluate.left_out import left_out
from tests import fixtures as f

SHAFT = {"joints-cancel", "slip-engaged", "critical-speed", "slip-room", "joint-binds", "joint-angle"}
BOTH_WAYS = {"hose-slack", *SHAFT}
"""Hoses of the suspension's own and hoses that go along are one rule; so are a shaft's joints standing and moved."""


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
