"""Practice jobs: each planted mistake is found by the tools, the clean twin is quiet, hints tell no field before the third."""

import json
import re

from django.test import SimpleTestCase

from nodulant.asbuilt.log import ReadingEntry
from nodulant.base.errors import InputError
from nodulant.evaluate import evaluate
from nodulant.practice.job import CHOICES, FAULTS, clean_twin, fault_of, practice_job, score
from nodulant.practice.signals import signals
from tests import fixtures as f

SEEDS = range(2)


def base():
    return f.job().inputs("step")


class Planted(SimpleTestCase):
    def test_there_are_at_least_twelve_kinds(self):
        self.assertGreaterEqual(len(FAULTS), 12)
        self.assertEqual({c.id for c in CHOICES}, set(FAULTS))

    def test_the_clean_twin_is_quiet_and_each_mistake_shows_by_its_own_rule(self):
        for seed in SEEDS:
            self.assertEqual(signals(clean_twin(base(), seed)), frozenset(), seed)
            for id_, fault in FAULTS.items():
                with self.subTest(id_, seed=seed):
                    found = signals(practice_job(base(), id_, seed).inputs)
                    self.assertTrue({s.split(":")[0] for s in found} & fault.shows, sorted(found))

    def test_the_same_seed_is_the_same_job_and_another_one_is_not(self):
        for id_ in ("wrong-tape", "short-damper"):
            one, again, other = (practice_job(base(), id_, seed).inputs for seed in (3, 3, 4))
            self.assertEqual(one, again)
            self.assertNotEqual(one, other)

    def test_every_job_can_be_stored_as_it_is(self):
        for id_ in FAULTS:
            inputs = practice_job(base(), id_, 5).inputs
            self.assertEqual(type(inputs).model_validate_json(inputs.model_dump_json()), inputs, id_)

    def test_the_tape_network_names_the_planted_length_first(self):
        for seed in range(12):
            planted = practice_job(base(), "wrong-tape", seed)
            self.assertEqual(f"entry {evaluate(planted.inputs).taped.left_out}", planted.spot, seed)

    def test_a_finder_that_was_not_zeroed_is_off_by_the_same_everywhere(self):
        inputs = practice_job(base(), "not-zeroed", 1).inputs
        rows = {r.id: r for r in evaluate(inputs).readings if r.value is not None}
        offs = [rows[f"{e.operation}/{e.key}/{e.side}"].value - rows[f"{e.operation}/{e.key}/{e.side}"].spec.planned
                for e in inputs.as_built.entries if isinstance(e, ReadingEntry)]  # fmt: skip
        self.assertLess(max(offs) - min(offs), 0.4)
        self.assertGreater(abs(sum(offs) / len(offs)), 1.5)


class Hints(SimpleTestCase):
    def test_no_hint_names_the_field_before_the_third(self):
        """Words that the third hint brings in stand in neither of the first two."""
        for fault in FAULTS.values():
            self.assertEqual(len(fault.hints), 4)
            early = " ".join(fault.hints[:2]).lower()
            own = re.findall(r"[a-z]{6,}", fault.hints[2].lower())
            named = [word for word in own if word in early and word not in {"frame", "before", "length", "depths"}]
            self.assertFalse(named, (fault.id, named))

    def test_the_story_does_not_tell(self):
        for fault in FAULTS.values():
            self.assertNotIn(fault.name.lower(), fault.story.lower())


class Scored(SimpleTestCase):
    def test_hints_and_wrong_accusations_cost(self):
        fault = fault_of("short-damper")
        self.assertEqual(score(fault, ["short-damper"], 0).points, 100)
        self.assertEqual(score(fault, ["twice", "short-damper"], 2).points, 100 - 20 - 30)
        self.assertEqual(score(fault, ["twice"], 0).points, 0)
        self.assertEqual(score(fault, [*FAULTS], 4).points, 5)
        self.assertIn("hours", score(fault, ["short-damper"], 0).words)

    def test_an_unknown_fault_is_refused_by_name(self):
        with self.assertRaisesRegex(InputError, "no such fault"):
            practice_job(base(), "gremlins", 1)

    def test_nothing_in_the_job_names_the_mistake(self):
        for id_, fault in FAULTS.items():
            told = json.dumps(practice_job(base(), id_, 2).inputs.model_dump(mode="json")).lower()
            self.assertNotIn(id_, told, id_)
            self.assertNotIn(fault.name.lower(), told)
