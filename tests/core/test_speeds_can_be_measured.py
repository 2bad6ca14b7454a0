"""The bench loads, and what it calls cold is cold: a bench that stops measures nothing."""

import importlib
from functools import lru_cache

from django.test import SimpleTestCase

from nodulant.frame import columns
from tests import fixtures as f


class Bench(SimpleTestCase):
    def test_its_modules_load_and_forgetting_empties_every_cache(self):
        for name in (
            "core_speeds",
            "drag_latency",
            "files",
            "floor_speeds",
            "load",
            "nesting",
            "proof_speeds",
            "travel_speeds",
        ):
            importlib.import_module(f"bench.{name}")
        speeds = importlib.import_module("bench.core_speeds")
        speeds.evaluate(f.demo("arc"))
        kept = [v for v in vars(columns).values() if type(v) is type(lru_cache(len))]
        self.assertTrue(any(memo.cache_info().currsize for memo in kept))
        speeds.forget()
        self.assertEqual([memo.cache_info().currsize for memo in kept], [0] * len(kept))
