"""Holes of different work keep clear of each other, washers included."""

import math

from django.test import SimpleTestCase
from hypothesis import given, settings
from hypothesis import strategies as st

from nodulant.checks.clash_rules import between
from nodulant.evaluate import evaluate
from nodulant.frame.additions import Hole
from nodulant.frame.ops.hole import WebHole
from nodulant.frame.place import Place
from tests import fixtures as f

QUICK = settings(deadline=None, derandomize=True, max_examples=60)


def hole(name, offset, height=75.0, diameter=13.0, **more):
    place = Place(anchor_id="rear-axle", offset_mm=offset)
    return WebHole(id=name, name=name, place=place, height_mm=height, diameter_mm=diameter, **more)


def rows(*operations):
    found = evaluate(f.with_operations(f.demo(), *operations)).checks
    return {c.id: c for c in found if c.limit_id == "bolts-clash"}


class Clashes(SimpleTestCase):
    def test_washers_of_26_mm_need_26_mm(self):
        """M12 holes of 13 mm with washers twice as wide: 30 mm apart leave 4, 20 mm lie on each other by 6."""
        for apart, value, verdict in ((30.0, 4.0, "close"), (45.0, 19.0, "holds"), (20.0, -6.0, "fails")):
            found = rows(hole("one", -700.0), hole("two", -700.0 + apart))
            self.assertEqual(set(found), {"bolts-clash:one-two:left", "bolts-clash:one-two:right"})
            for check in found.values():
                self.assertAlmostEqual(check.value, value)
                self.assertIn(check.verdict, {verdict, "holds" if value > 0 else verdict})

    def test_a_hole_that_no_bolt_fills_has_no_washer(self):
        (check, _) = rows(hole("one", -700.0, diameter=60.0), hole("two", -640.0)).values()
        self.assertAlmostEqual(check.value, 60.0 - (60.0 + 26.0) / 2)

    def test_far_ones_and_one_hole_of_two_works_have_no_row(self):
        self.assertEqual(rows(hole("one", -900.0), hole("two", -600.0)), {})
        self.assertEqual(rows(hole("one", -700.0), hole("two", -700.0, work="sleeve", sleeve={})), {})

    def test_a_surveyed_hole_counts(self):
        inputs = f.demo()
        old = next(x for x in inputs.survey.features if x.kind == "hole" and x.height_mm is not None)
        line = next(x.x_mm for x in inputs.survey.features if x.id == "rear-axle")
        found = rows(hole("new", old.x_mm - line + 12.0, height=old.height_mm))
        self.assertTrue(found)
        for check in found.values():
            self.assertEqual(check.verdict, "fails")
            self.assertIn("a hole of the survey", check.title)

    @QUICK
    @given(st.floats(0, 300), st.floats(0, 150), st.floats(5, 60), st.floats(5, 60))
    def test_it_is_the_same_both_ways_and_grows_with_distance(self, dx, dz, one, two):
        a, b = Hole(0.0, 0.0, one), Hole(dx, dz, two)
        self.assertAlmostEqual(between(a, b), between(b, a))
        self.assertLessEqual(between(a, b), math.hypot(dx, dz))
        self.assertGreaterEqual(between(a, Hole(dx + 10.0, dz, two)), between(a, b) - 1e-9)
