"""What is remembered is what would have been worked out: stale results would show old margins for a new frame."""

from unittest.mock import patch

from django.test import SimpleTestCase
from pydantic import BaseModel

from nodulant.base.errors import InputError
from nodulant.base.memo import forget_all, remembered, shared
from nodulant.evaluate import Want, evaluate
from nodulant.job.document import Inputs
from nodulant.targets.drop import CausedEntry, DropEntry, Targets
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

    def test_the_very_same_objects_are_not_compared(self):
        class Sour(list):
            compared = 0

            def __eq__(self, other):
                Sour.compared += 1
                return super().__eq__(other)

        one, two = Sour("a"), Sour("a")
        found = [self.work(one), self.work(two)]
        self.assertGreater(Sour.compared, 0)
        Sour.compared = 0
        found += [self.work(two), self.work(one)]
        self.assertEqual(Sour.compared, 0)
        self.assertTrue(all(f is found[0] for f in found))
        for value in (1, 2):  # two results are kept: what these put out is worked out again
            self.work(value)
        self.assertIsNot(self.work(two), found[0])

    def test_an_error_is_not_kept(self):
        for _ in range(2):
            self.assertRaises(InputError, self.work, "bad")
        self.assertEqual(len(self.done), 2)

    def test_forgetting(self):
        self.work(1)
        forget_all()
        self.work(1)
        self.assertEqual(len(self.done), 2)


class Shared(SimpleTestCase):
    """A request brings new objects: what is the same is found to be the same once, not by every figure that asks."""

    def test_parts_that_come_again_are_the_first_ones(self):
        text = f.demo("step").model_dump_json()
        one, two = (Inputs.model_validate_json(text).of_shared_parts() for _ in range(2))
        self.assertEqual(one, two)
        self.assertIs(one.survey, two.survey)
        self.assertIs(one.as_built, two.as_built)
        self.assertTrue(all(a is b for a, b in zip(one.design.operations, two.design.operations, strict=True)))

    def test_what_is_written_alike_and_is_of_another_kind_stays_its_own(self):
        """An entry of the stack that an operation causes is written as one that was typed is."""
        given = {"id": "step", "name": "step", "mechanism": "z-step", "amount_mm": 70.0}
        typed, caused = (Targets().model_copy(update={"entries": (e(**given),)}) for e in (DropEntry, CausedEntry))
        self.assertEqual(typed.model_dump_json(), caused.model_dump_json())
        self.assertIs(shared(shared(typed)), shared(typed))
        self.assertIsInstance(shared(caused).entries[0], CausedEntry)
        self.assertNotIsInstance(shared(typed).entries[0], CausedEntry)

    def test_what_differs_by_a_hair_stays_its_own(self):
        one = f.demo("arc").of_shared_parts()
        masses = one.survey.masses
        heavier = masses[0].model_copy(update={"mass_kg": masses[0].mass_kg * (1 + 1e-15)})
        two = f.with_survey(one, masses=(heavier, *masses[1:])).of_shared_parts()
        self.assertEqual(two.survey.masses[0].mass_kg, heavier.mass_kg)
        self.assertIsNot(two.survey, one.survey)
        self.assertIs(two.shop, one.shop)


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
