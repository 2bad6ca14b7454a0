"""The distance of any two things, also where it is wide, against the collision library's and by hand."""

import numpy as np
from django.test import SimpleTestCase

from nodulant.base.errors import NotSolvable, UnknownReference
from nodulant.evaluate.clearances.between import between, things
from nodulant.evaluate.clearances.sweep import whole_sweep
from tests.core.test_sweep import job


class Between(SimpleTestCase):
    def test_it_is_the_sweep_s_own_distance(self):
        inputs = job()
        rows = [p for p in whole_sweep(inputs).pairs if p.gap_mm is not None and not p.inside_at_rest][:12]
        self.assertGreater(len(rows), 8)
        for pair in rows:
            mover = f"{pair.axle}: {pair.moving}"
            other = f"{pair.axle}: {pair.other}" if pair.kind == "moving" else pair.other
            found = between(inputs, mover, other)
            with self.subTest(pair.id):
                self.assertAlmostEqual(found.gap_mm, pair.gap_mm, delta=0.02)

    def test_wide_ones_too_by_hand(self):
        """Both rails stand still: 820 mm between their webs, less nothing, since they open inward by 60 each."""
        found = between(job("wherry", "arc"), "left rail", "right rail")
        self.assertAlmostEqual(found.gap_mm, 820.0 - 2 * 60.0, delta=0.5)
        self.assertIsNone(found.travel_mm)

    def test_a_tyre_and_the_far_rail(self):
        found = between(job(), "rear: tyre, right", "left rail")
        inputs = job()
        width = 215.0
        flat = inputs.survey.rear.track_mm / 2 - width / 2 + inputs.survey.rails.left.web_y_mm
        self.assertLess(found.gap_mm, flat)
        self.assertGreater(found.gap_mm, flat - 150.0)
        self.assertTrue(np.isfinite(found.at_rest_mm))

    def test_what_cannot_be_asked_is_told(self):
        inputs = job()
        names = things(inputs)
        self.assertEqual(len(set(names)), len(names))
        with self.assertRaises(UnknownReference):
            between(inputs, "the moon", "left rail")
        for one, two in (("left rail", "left rail"), ("rear: tyre, right", "front: tyre, right")):
            with self.assertRaises(NotSolvable):
                between(inputs, one, two)
