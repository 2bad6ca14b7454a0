"""What is remembered is what would have been worked out: stale results would show old margins for a new frame."""

from unittest.mock import patch

from django.test import SimpleTestCase
from pydantic import BaseModel

from nodulant.base.errors import InputError
from nodulant.base.memo import forget_all, remembered
from nodulant.evaluate import Want, evaluate
from tests import fixtures as f


class Remembered(SimpleTestCase):
    def setUp(self):
        self.done = []

        @remembered(2)
        def work(value, extra=0):
            self.done.append((value, extra))
            if value == "bad":
                raise InputError("bad", field="/x", found="bad", acceptable="good")
            return [value, extra]

        self.work = work

    def test_equal_arguments_work_once_and_others_again(self):
        self.assertEqual([self.work({"a": 1}), self.work({"a": 1}), self.work({"a": 2})][1], [{"a": 1}, 0])
        self.assertEqual(self.done, [({"a": 1}, 0), ({"a": 2}, 0)])
        self.work({"a": 1}, extra=1)
        self.assertEqual(len(self.done), 3)

    def test_only_the_last_few_are_kept(self):
        for value in (1, 2, 3, 1):
            self.work(value)
        self.assertEqual([v for v, _ in self.done], [1, 2, 3, 1])

    def test_an_error_is_not_kept(self):
        for _ in range(2):
            self.assertRaises(InputError, self.work, "bad")
        self.assertEqual(len(self.done), 2)

    def test_forgetting(self):
        self.work(1)
        forget_all()
        self.work(1)
        self.assertEqual(len(self.done), 2)


class WarmIsCold(SimpleTestCase):
    """The same inputs give the same evaluation whether or not anything was remembered."""

    def test_every_number_is_the_same(self):
        job = f.demo("step")
        design = job.design
        softer = design.suspensions[0].springs.model_copy(update={"rate_n_per_mm": 20.0})
        changed = design.model_copy(
            update={"suspensions": (design.suspensions[0].model_copy(update={"springs": softer}),)}
        )
        other = job.model_copy(update={"design": changed})
        evaluate(job)
        warm = evaluate(other).model_dump()
        forget_all()
        self.assertEqual(evaluate(other).model_dump(), warm)
        self.assertNotEqual(evaluate(job).model_dump()["travel"], warm["travel"])


class ManyDrags(SimpleTestCase):
    def test_what_was_remembered_is_found_not_searched(self):
        """After many drags of a notch an evaluation compares no more models than after a few."""
        inputs, counted = f.demo("arc"), []
        equal = BaseModel.__eq__

        def compared(one, other):
            counted[-1] += 1
            return equal(one, other)

        forget_all()
        with patch.object(BaseModel, "__eq__", compared):
            for k in range(40):
                dragged = f.with_notch(inputs, depth_mm=41.0 + 0.07 * k)
                counted.append(0)
                evaluate(dragged, Want(frame=False, interim=False, travel=False, steps=False, readings=False))
        self.assertLess(counted[-1], 1.3 * counted[12] + 20)
