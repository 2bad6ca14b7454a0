"""What a suspension puts on the frame is what the tyres put on it (statics), whatever holds the axle."""

import numpy as np
from django.test import SimpleTestCase

from nodulant.suspension.on_frame import beyond_standing
from nodulant.suspension.study import study
from tests.core.test_suspensions import AIR, LAYOUTS, suspended


def studied(kind, **more):
    inputs = suspended(kind, **more)
    d = inputs.design
    return study(inputs.survey, d.suspensions[0], d.seats, 60.0, 1.0)


class OnTheFrame(SimpleTestCase):
    """Sum and moment of every link, spring and guide, against those at the struck wheel's hub."""

    def test_every_layout_hands_on_the_strike_whole(self):
        told = 0
        for kind in LAYOUTS:
            with self.subTest(kind):
                s = studied(kind)
                pulls = beyond_standing(s, "kerb")
                if not pulls:
                    continue
                told += 1
                force = np.sum([p.force for p in pulls], axis=0)
                wheel = s.loads.standing_n / 2
                np.testing.assert_allclose(force, [2 * wheel, 0.0, 2 * wheel], atol=2e-3 * wheel)
                moment = np.sum([np.cross(p.at, p.force) for p in pulls], axis=0)
                hub = np.array(s.setting.hub) + np.array((0.0, s.setting.half_track_mm, 0.0))
                np.testing.assert_allclose(moment, np.cross(hub, force), atol=3e-3 * np.abs(moment).max())
        self.assertGreaterEqual(told, 6)

    def test_braking_hands_on_the_brake_force_at_the_ground(self):
        s = studied("three-link", springs=AIR)
        pulls = beyond_standing(s, "brake")
        force = np.sum([p.force for p in pulls], axis=0)
        self.assertAlmostEqual(force[0] / s.loads.brake_n, 1.0, places=4)
        self.assertAlmostEqual(force[2] / (s.loads.braking_n - s.loads.standing_n), 1.0, places=4)
        pitch = np.sum([np.cross(p.at, p.force) for p in pulls], axis=0)[1]
        x, _, z = s.setting.hub
        ground = z - s.setting.radius_mm
        self.assertAlmostEqual(pitch / (ground * force[0] - x * force[2]), 1.0, places=3)

    def test_the_far_side_is_the_mirror_image(self):
        for pull in beyond_standing(studied("triangulated"), "kerb"):
            other = pull.mirrored()
            self.assertEqual((other.at[0], other.at[1], other.force[1]), (pull.at[0], -pull.at[1], -pull.force[1]))
            self.assertEqual(other.mirrored(), pull)

    def test_without_springs_nothing_is_said(self):
        self.assertEqual(beyond_standing(studied("triangulated", springs=None), "kerb"), ())
