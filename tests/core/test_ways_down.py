"""Fronts side by side for one drop: what each way keeps, by plain geometry and the trade's own sentences."""

from unittest import TestCase

import numpy as np

from nodulant.base.errors import NotSolvable
from nodulant.evaluate.suspensions.ways_down import ways_down
from nodulant.steering.ways_down import lowered
from nodulant.suspension.motion import Setting
from tests.core.test_steering import front, job, with_front

SETTING = Setting((0.0, 0.0, -98.0), 790.0, 343.0)


def ways(drop=40.0, own=None):
    found = lowered(own or front(job("wherry", "step")), SETTING, drop)
    return {w.way: w for w in found}


class Keeping(TestCase):
    def test_raised_whole_nothing_changes_at_all(self):
        found = ways()
        for name in ("camber_deg", "toe_deg", "caster_deg", "scrub_mm"):
            one, two = (getattr(found[w].measured, name) for w in ("start", "raised"))
            np.testing.assert_allclose(one, two, atol=1e-8)
        np.testing.assert_allclose(found["start"].roll_centre, found["raised"].roll_centre, atol=1e-6)

    def test_lower_springs_move_along_the_curves_that_are_there(self):
        """Lowered by d, a wheel at travel t stands where it stood at t + d."""
        found, drop = ways(40.0), 40.0
        start, springs = found["start"], found["springs"]
        inside = start.travel + drop <= start.travel[-1]
        expected = np.interp(start.travel[inside] + drop, start.travel, start.measured.camber_deg[:, 0])
        np.testing.assert_allclose(springs.measured.camber_deg[inside, 0], expected, atol=2e-3)

    def test_spindles_keep_arms_and_so_camber_and_toe(self):
        found = ways()
        for name in ("camber_deg", "toe_deg", "caster_deg"):
            one, two = (getattr(found[w].measured, name) for w in ("start", "spindle"))
            # the hub stands elsewhere on an upright that leans: its rise differs from the arms' by hundredths of a mm
            np.testing.assert_allclose(one, two, atol=0.02)

    def test_pivots_alone_leave_the_rack_behind_and_spoil_toe(self):
        """Handbook of the trade: pivots raised while the rack stays keep camber's curve and spoil toe."""
        found = ways()
        toe = [np.abs(np.diff(found[w].measured.toe_deg[:, 0])).max() for w in ("start", "pivots")]
        self.assertGreater(toe[1], 3 * toe[0])

    def test_what_is_kept_is_told(self):
        inputs = job("wherry", "step")
        index = next(i for i, s in enumerate(inputs.design.suspensions) if s.axle == "front")
        told = {w.way: w for w in ways_down(inputs, index, 40.0).ways}
        kept = {k: (w.keeps_camber, w.keeps_toe, w.keeps_anti_dive) for k, w in told.items()}
        self.assertEqual(kept["raised"], (True, True, True))
        self.assertEqual(kept["springs"][:2], (False, False))
        self.assertEqual(kept["spindle"][:2], (True, True))
        self.assertFalse(kept["pivots"][1])
        for way in told.values():
            self.assertEqual({len(c.values) for c in way.curves}, {len(told["start"].curves[0].values)})


class Refused(TestCase):
    def test_a_beam_axle_is_told(self):
        inputs = job("brackmoor", "welded")
        with self.assertRaises(NotSolvable) as caught:
            ways_down(inputs, 0, 40.0)
        self.assertIn("wishbones and struts", caught.exception.message)

    def test_a_drop_beyond_the_linkage_ends_in_words_not_in_a_crash(self):
        found = ways(290.0, front(job("wherry", "step")).model_copy(update={"bump_mm": 220.0}))
        self.assertTrue(found["springs"].trouble)
        self.assertFalse(found["springs"].there.all())

    def test_hubs_that_are_not_known(self):
        inputs = job("wherry", "step")
        bare = inputs.survey.model_copy(update={"front": inputs.survey.front.model_copy(update={"track_mm": None})})
        own = front(inputs).model_copy(update={"track_mm": None})
        index = next(i for i, s in enumerate(inputs.design.suspensions) if s.axle == "front")
        with self.assertRaises(NotSolvable):
            ways_down(with_front(inputs.model_copy(update={"survey": bare}), own), index, 40.0)
