"""Practice at length: every kind of mistake with twenty seeds, each found by its own rule, each twin quiet (``make harness``)."""

from django.test import SimpleTestCase

from nodulant.practice.job import FAULTS, clean_twin, practice_job
from nodulant.practice.signals import signals
from tests import fixtures as f

SEEDS = range(20)


class Practice(SimpleTestCase):
    def test_thirteen_kinds_and_twenty_seeds(self):
        base = f.job().inputs("step")
        for seed in SEEDS:
            self.assertEqual(signals(clean_twin(base, seed)), frozenset(), seed)
            for id_, fault in FAULTS.items():
                with self.subTest(id_, seed=seed):
                    found = {s.split(":")[0] for s in signals(practice_job(base, id_, seed).inputs)}
                    self.assertTrue(found & fault.shows, sorted(found))
