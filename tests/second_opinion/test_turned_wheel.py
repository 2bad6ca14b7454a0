"""Slopes over the steered grid against the twist of the travel alone: two computations of ours for one figure."""

from unittest import TestCase

import numpy as np

from nodulant.steering.study import steer_study
from nodulant.steering.turned import turned
from nodulant.suspension import motion as of_motion
from nodulant.suspension.study import study
from tests.core.test_steering import front, job


class TurnedWheel(TestCase):
    """Straight ahead the turned figures are those of the travel's own twist; a spring at the king pin does not feel the lock."""

    def studied(self, **change):
        inputs = job("wherry", "step")
        own = front(inputs).model_copy(update=change)
        s = study(inputs.survey, own, inputs.design.seats, 0.0, 1.0)
        return s, steer_study(s)

    def test_straight_ahead_they_agree_with_the_twist(self):
        s, q = self.studied()
        found = turned(q)
        self.assertAlmostEqual(found.roll_centre_mm[q.ahead], of_motion.roll_centre(s.motion)[s.ride], delta=0.6)
        self.assertAlmostEqual(
            found.braked_slope[q.ahead], of_motion.torque_slope(s.motion, braking=True)[s.ride], delta=2e-4
        )
        self.assertAlmostEqual(found.ratio[q.ahead], s.springs.ratio[s.ride], delta=2e-4)

    def test_a_spring_on_an_arm_hardly_feels_the_lock_one_on_the_upright_does(self):
        _, q = self.studied()
        on_arm = np.ptp(turned(q).ratio)
        inputs = job("wherry", "step")
        springs = front(inputs).springs
        far = springs.lower.model_copy(update={"y_mm": 480.0, "x_mm": 60.0})
        _, moved = self.studied(springs=springs.model_copy(update={"on": "upright", "lower": far}))
        on_upright = np.ptp(turned(moved).ratio)
        self.assertLess(on_arm, 0.03)
        self.assertGreater(on_upright, 5 * on_arm)

    def test_a_beam_has_none(self):
        inputs = job("brackmoor", "welded")
        s = study(inputs.survey, front(inputs), inputs.design.seats, 0.0, 1.0)
        self.assertIsNone(turned(steer_study(s)))
